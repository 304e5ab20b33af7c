/** The stroke of a press: a turning field laid over a plane is found again, however the plane lies (M5). */
import { cross, dot, unit, type Vec3 } from '../head/index.ts'
import type { Blocks } from './pressBlocks.ts'
import { fitOf, offField, planeWay, pressStroke, type Limits, type Press } from './pressField.ts'

const LIMITS: Limits = {
  ...{ tolerance: Math.PI / 6, mostCm2: 80, mayStray: 0.1 },
  ...{ mostTurn: (70 * Math.PI) / 180, mostBend: 0.5 },
}
/** Blocks of 4 mm on a plane through a place, growing by a rule of their place on it, mm right and up. */
function plane(
  origin: Vec3,
  facing: Vec3,
  rule: (x: number, y: number) => number,
): { blocks: Blocks; list: number[]; normal: Vec3; right: Vec3; up: Vec3 } {
  const normal = unit(facing)
  const up = unit([-normal[1] * normal[0], 1 - normal[1] * normal[1], -normal[1] * normal[2]])
  const right = cross(up, normal)
  const places: [number, number][] = []
  for (let x = -16; x <= 16; x += 4) for (let y = -8; y <= 8; y += 4) places.push([x, y])
  const flat = (of: (x: number, y: number) => Vec3) =>
    Float64Array.from(places.flatMap(([x, y]) => of(x, y)))
  const blocks = {
    count: places.length,
    area: new Float64Array(places.length).fill(0.16),
    middle: flat(
      (x, y) => [0, 1, 2].map((k) => origin[k]! + x * right[k]! + y * up[k]!) as unknown as Vec3,
    ),
    normal: flat(() => normal),
    way: flat((x, y) => planeWay(rule(x, y), right, up)),
  } as unknown as Blocks
  return { blocks, list: places.map((_, i) => i), normal, right, up }
}
const PLACES: readonly (readonly [string, Vec3, Vec3])[] = [
  ['before the face', [3, -20, 90], [0, 0, 1]],
  ['on the cheek', [60, -40, 50], [0.8, 0.1, 0.6]],
  ['under the jaw', [20, -90, 40], [0.3, -0.7, 0.5]],
  ['on the crown', [-12, 95, -50], [-0.2, 0.75, -0.4]],
]

describe('the stroke of a press', () => {
  it.each(PLACES)('is the field that lies there, %s', (_, origin, facing) => {
    const [at, byX, byY] = [2.1, 0.013, -0.02]
    const { blocks, list, normal, right, up } = plane(
      origin,
      facing,
      (x, y) => at + byX * x + byY * y,
    )
    const fit = fitOf(blocks, list, LIMITS)
    expect(fit.area).toBeCloseTo(0.16 * list.length, 9)
    fit.origin.forEach((x, k) => expect(x).toBeCloseTo(origin[k]!, 6))
    for (const [found, made] of [
      [fit.normal, normal],
      [fit.right, right],
      [fit.up, up],
    ] as const)
      expect(dot(found, made)).toBeCloseTo(1, 9)
    expect(Math.cos(fit.field[0] - at)).toBeCloseTo(1, 6)
    // The slope is drawn to nothing a little, by all its area at 2 mm.
    expect(fit.field[1]).toBeCloseTo(byX, 3)
    expect(fit.field[2]).toBeCloseTo(byY, 2)
    expect(fit.turn).toBeCloseTo(32 * Math.abs(fit.field[1]) + 16 * Math.abs(fit.field[2]), 6)
    expect(fit.stray).toBe(0)
    for (const i of list) expect(offField(blocks, i, fit)).toBeLessThan(0.03)
    const press = { ...fit, id: 'a', areaCm2: fit.area, turnDeg: 0 } as unknown as Press
    for (const i of list) {
      const p = [0, 1, 2].map((k) => blocks.middle[3 * i + k]!) as unknown as Vec3
      const way = [0, 1, 2].map((k) => blocks.way[3 * i + k]!) as unknown as Vec3
      expect(dot(pressStroke(press, p, normal), way)).toBeGreaterThan(0.999)
    }
  })

  it('turns no further than it may; what that leaves aside strays', () => {
    const { blocks, list } = plane([0, 0, 90], [0, 0, 1], (x) => 0.08 * x)
    const fit = fitOf(blocks, list, LIMITS)
    expect(fit.turn).toBeCloseTo(LIMITS.mostTurn, 9)
    expect(32 * fit.field[1]).toBeCloseTo(LIMITS.mostTurn, 6)
    expect(fit.stray).toBeGreaterThan(0)
    for (const i of list) {
      const off = Math.abs((0.08 - fit.field[1]) * blocks.middle[3 * i]!)
      expect(offField(blocks, i, fit)).toBeCloseTo(off, 6)
    }
  })

  it('is hardly moved by a few blocks that grow otherwise: they stray', () => {
    const { blocks, list } = plane([0, 0, 90], [0, 0, 1], (x, y) => (x === 16 && y > 0 ? 2.5 : 0.4))
    const fit = fitOf(blocks, list, LIMITS)
    expect(fit.stray).toBeCloseTo(2 * 0.16, 9)
    const others = list.filter(
      (i) => !(blocks.middle[3 * i] === 16 && blocks.middle[3 * i + 1]! > 0),
    )
    for (const i of others) expect(offField(blocks, i, fit)).toBeLessThan(0.35)
  })
})
