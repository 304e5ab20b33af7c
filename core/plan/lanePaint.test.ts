/** Borders and washes of lanes on the head as it is drawn: each lies where the lanes themselves say. */
import { ZONE_IDS, type ZoneId } from '../zones/index.ts'
import { HEAD } from '../testing/head.ts'
import { planInput } from '../testing/plan.ts'
import { laneEdges, laneWash } from './lanePaint.ts'
import { unpackCover } from './cover.ts'
import { makePlan } from './makePlan.ts'

const MESH = HEAD.display
const PLAN = makePlan(planInput())
const EDGES = laneEdges(MESH, PLAN.zones)
const RED = [1, 0, 0, 0.5] as const
const BLUE = [0, 0, 1, 0.4] as const
const [first, second] = PLAN.lanes.filter((l) => l.pass === 1)

/** Triangles of a lane. */
function trianglesOf(zoneId: ZoneId, letter: string): number[] {
  const zone = PLAN.zones.find((z) => z.zoneId === zoneId)!
  const [from] = MESH.ranges[ZONE_IDS.indexOf(zoneId)]!
  return unpackCover(zone.cover).flatMap((l, c) => (l === letter ? [from + c] : []))
}
const verticesOf = (triangles: readonly number[]) =>
  new Set(triangles.flatMap((t) => [0, 1, 2].map((k) => MESH.indices[3 * t + k]!)))

describe('the borders of lanes', () => {
  it('are pieces between two points, close to the skin', () => {
    expect(EDGES.length).toBeGreaterThan(600)
    expect(EDGES.length % 6).toBe(0)
    // Averaging along the border moves a point by less than the edges it runs on.
    const ys = MESH.positions
    for (let i = 0; i < EDGES.length; i += 6 * 97) {
      let near = Infinity
      for (let v = 0; v < ys.length; v += 3)
        near = Math.min(
          near,
          Math.hypot(ys[v]! - EDGES[i]!, ys[v + 1]! - EDGES[i + 1]!, ys[v + 2]! - EDGES[i + 2]!),
        )
      expect(near).toBeLessThan(4)
    }
  })

  it('hang together: almost every end is where another piece begins', () => {
    const ends = new Map<string, number>()
    for (let i = 0; i < EDGES.length; i += 3) {
      const key = [0, 1, 2].map((k) => EDGES[i + k]!.toFixed(3)).join()
      ends.set(key, (ends.get(key) ?? 0) + 1)
    }
    const loose = [...ends.values()].filter((n) => n === 1).length
    expect(loose / ends.size).toBeLessThan(0.02)
  })

  it('are none where nothing is worked, and more where more is', () => {
    expect(laneEdges(MESH, [])).toHaveLength(0)
    const one = laneEdges(MESH, PLAN.zones.slice(0, 1))
    expect(one.length).toBeGreaterThan(0)
    expect(one.length).toBeLessThan(EDGES.length)
  })

  it('run round a lane: a zone of one lane has its own outline as border', () => {
    const single = PLAN.zones.find(
      (z) => new Set(unpackCover(z.cover).filter((l) => l !== '.')).size === 1,
    )!
    const letter = unpackCover(single.cover).find((l) => l !== '.')!
    const own = trianglesOf(single.zoneId, letter)
    const inside = new Set(own)
    const sides = new Map<string, number[]>()
    for (let e = 0; e < MESH.indices.length; e++) {
      const t = Math.floor(e / 3)
      const pair = [MESH.indices[e]!, MESH.indices[3 * t + ((e + 1) % 3)]!].sort((a, b) => a - b)
      sides.set(pair.join(), [...(sides.get(pair.join()) ?? []), t])
    }
    const outline = [...sides.values()].filter(
      (ts) => ts.length === 2 && inside.has(ts[0]!) !== inside.has(ts[1]!),
    ).length
    expect(laneEdges(MESH, [single])).toHaveLength(outline * 6)
  })
})

describe('a wash over lanes', () => {
  it('colours the corners of the lanes that are named, and nothing else', () => {
    const wash = laneWash(MESH, PLAN.zones, [{ ...first!, colour: RED }])!
    expect(wash).toHaveLength((4 * MESH.positions.length) / 3)
    const corners = verticesOf(trianglesOf(first!.zoneId, first!.letter))
    expect(corners.size).toBeGreaterThan(3)
    const wrong: number[] = []
    for (let i = 0; i < wash.length; i++) {
      const [v, channel] = [Math.floor(i / 4), i % 4]
      if (wash[i] !== (corners.has(v) ? RED[channel] : 0)) wrong.push(v)
    }
    expect(wrong).toEqual([])
  })

  it('gives each lane its own colour', () => {
    const wash = laneWash(MESH, PLAN.zones, [
      { ...first!, colour: RED },
      { ...second!, colour: BLUE },
    ])!
    const blues = new Set<number>()
    for (let v = 0; v < wash.length / 4; v++) if (wash[4 * v + 2]! > 0) blues.add(v)
    const corners = verticesOf(trianglesOf(second!.zoneId, second!.letter))
    for (const v of blues) expect(corners.has(v)).toBe(true)
    expect(blues.size).toBeGreaterThan(0)
  })

  it('is nothing where none is named, or the lane is not of this plan', () => {
    expect(laneWash(MESH, PLAN.zones, [])).toBeUndefined()
    const none = laneWash(MESH, PLAN.zones, [{ zoneId: first!.zoneId, letter: 'Z', colour: RED }])!
    expect(none.every((c) => c === 0)).toBe(true)
  })
})
