/** How far readings reach over a plane, where the way is known. */
import { DEFAULTS } from '../house/index.ts'
import type { Vec3 } from '../head/index.ts'
import { box } from '../testing/surfaces.ts'
import { connect } from './connection.ts'
import type { FieldReading } from './field.ts'
import { distancesMm, nearness, supportOf } from './reach.ts'

const MESH = box([60, 20, 60], 24)
const C = connect(MESH)
const at = (v: number): Vec3 => [
  C.positions[3 * v]!,
  C.positions[3 * v + 1]!,
  C.positions[3 * v + 2]!,
]
const vertexAt = (p: Vec3) =>
  Array.from({ length: C.vertices }, (_, v) => v).find((v) =>
    at(v).every((x, k) => Math.abs(x - p[k]!) < 1e-3),
  )!
const reading = (point: Vec3, weight = 1): FieldReading => ({
  ...{ id: point.join(), point, normal: [0, 1, 0], tangent: [1, 0, 0], weight },
})
const triangleOf = (v: number) => [...C.indices].indexOf(v) / 3
const placed = (point: Vec3) => ({
  reading: reading(point),
  triangle: Math.floor(triangleOf(vertexAt(point))),
})

describe('nearness', () => {
  it.each([
    [0, 1],
    [18, 1],
    [23, 0.75],
    [28, 0.5],
    [38, 0],
    [500, 0],
    [Infinity, 0],
  ])('%d mm off is %d', (mm, near) => expect(nearness(DEFAULTS, mm)).toBeCloseTo(near, 12))
})

describe('readings behind a place', () => {
  it('count by what they weigh and how near they are, as the crow flies', () => {
    const support = supportOf(DEFAULTS, C, [reading([0, 20, 0], 0.8), reading([25, 20, 0], 0.5)])
    const here = (p: Vec3) => support[vertexAt(p)]!
    // 25 mm are 13 of the 20 over which nearness fades.
    expect(here([0, 20, 0])).toBeCloseTo(0.8 + 0.5 * (13 / 20), 9)
    expect(here([25, 20, 0])).toBeCloseTo(0.5 + 0.8 * (13 / 20), 9)
    expect(here([0, 20, 15])).toBeCloseTo(0.8 + 0.5 * nearness(DEFAULTS, Math.hypot(25, 15)), 9)
    expect(here([-40, 20, 0])).toBe(0)
    expect(supportOf(DEFAULTS, C, []).every((s) => s === 0)).toBe(true)
  })
})

describe('the way to the nearest reading', () => {
  it('runs along the edges, round the corner too, and ends at the reach', () => {
    const way = distancesMm(DEFAULTS, C, [placed([0, 20, 0])])
    const mm = (p: Vec3) => way[vertexAt(p)]!
    expect(mm([0, 20, 0])).toBe(0)
    for (const p of [
      [5, 20, 0],
      [35, 20, 0],
      [0, 20, -30],
    ] as Vec3[])
      expect(mm(p)).toBeCloseTo(Math.hypot(p[0], p[2]), 4)
    // Aside from the grid’s own lines and diagonals one goes a little farther than straight.
    for (let v = 0; v < C.vertices; v++) {
      if (at(v)[1] !== 20) continue
      const straight = Math.hypot(at(v)[0], at(v)[2])
      if (straight > 38) expect(way[v]).toBe(Infinity)
      else if (straight < 26) {
        expect(way[v]!).toBeGreaterThan(straight - 1e-3)
        expect(way[v]!).toBeLessThan(1.42 * straight + 1e-3)
      }
    }
    const corner = distancesMm(DEFAULTS, C, [placed([55, 20, 0])])
    // Five to the edge, then down the side of the box.
    const side = Array.from({ length: C.vertices }, (_, v) => v).filter(
      (v) => at(v)[0] === 60 && Math.abs(at(v)[2]) < 1e-3 && at(v)[1] < 20,
    )
    for (const v of side) {
      const mmDown = 5 + (20 - at(v)[1])
      if (mmDown < 37) expect(corner[v]!).toBeCloseTo(mmDown, 3)
    }
    expect(side.some((v) => corner[v]! < 20)).toBe(true)
  })

  it('is that to the nearer of two, in whichever order', () => {
    const [a, b] = [placed([0, 20, 0]), placed([30, 20, 0])]
    const both = distancesMm(DEFAULTS, C, [a, b])
    expect([...distancesMm(DEFAULTS, C, [b, a])]).toEqual([...both])
    const [one, other] = [a, b].map((p) => distancesMm(DEFAULTS, C, [p]))
    both.forEach((d, v) => expect(d).toBe(Math.min(one![v]!, other![v]!)))
    expect(distancesMm(DEFAULTS, C, []).every((d) => d === Infinity)).toBe(true)
  })
})
