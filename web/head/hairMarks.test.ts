import { readFileSync } from 'node:fs'
import { bearingOf } from '../../core/head/frames.ts'
import { unpackHead } from '../../core/head/pack.ts'
import { triangleNeighbours } from '../../core/head/walk.ts'
import { ZONE_IDS } from '../../core/head/zones.ts'
import { hairMarks, POINTS_PER_MARK } from './hairMarks.ts'

const bytes = readFileSync('generated/head.bin')
const head = unpackHead(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length))
const neighbours = triangleNeighbours(head.display)
const grain = (zone: string, deg: number, ink = 1) => {
  const directions = new Float32Array(ZONE_IDS.length).fill(NaN)
  const inks = new Float32Array(ZONE_IDS.length)
  directions[ZONE_IDS.indexOf(zone as 'chin')] = (deg * Math.PI) / 180
  inks[ZONE_IDS.indexOf(zone as 'chin')] = ink
  return { directions, ink: inks }
}

describe('hair marks', () => {
  it('are drawn only where there is grain, each a closed shape that ends in a point', () => {
    const marks = hairMarks(head, neighbours, grain('cheek-lower-left', 160), 1)
    expect(marks.zones.length).toBeGreaterThan(20)
    expect(new Set(marks.zones)).toEqual(new Set([ZONE_IDS.indexOf('cheek-lower-left')]))
    expect(marks.positions.length).toBe(marks.zones.length * POINTS_PER_MARK * 3)
    expect(Math.max(...marks.indices)).toBeLessThan(marks.positions.length / 3)
    expect(marks.positions.every(Number.isFinite)).toBe(true)
  })

  it('point along the growth, root to tip', () => {
    const marks = hairMarks(head, neighbours, grain('cheek-lower-left', 160), 1)
    let off = 0
    marks.zones.forEach((_z, m) => {
      const at = (o: number) =>
        [
          marks.spines[9 * m + o]!,
          marks.spines[9 * m + o + 1]!,
          marks.spines[9 * m + o + 2]!,
        ] as const
      const [root, tip, normal] = [at(0), at(3), at(6)]
      const bearing = bearingOf('cheek-lower-left', root, normal, [
        tip[0] - root[0],
        tip[1] - root[1],
        tip[2] - root[2],
      ])
      off = Math.max(off, Math.abs((bearing * 180) / Math.PI - 160))
    })
    expect(off).toBeLessThan(25)
  })

  it('are finer when nearer, and shorter when less is known', () => {
    const far = hairMarks(head, neighbours, grain('forehead-left', 180), 0)
    const near = hairMarks(head, neighbours, grain('forehead-left', 180), 2)
    expect(near.zones.length).toBeGreaterThan(2 * far.zones.length)
    const length = (ink: number) => {
      const m = hairMarks(head, neighbours, grain('forehead-left', 180, ink), 1)
      return Math.hypot(
        m.spines[3]! - m.spines[0]!,
        m.spines[4]! - m.spines[1]!,
        m.spines[5]! - m.spines[2]!,
      )
    }
    expect(length(0.2)).toBeLessThan(length(1))
  })
})
