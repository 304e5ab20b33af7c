import fc from 'fast-check'
import { cone, ellipsoid, ellipticalTube, fold, smoothMax, smoothMin, tube } from './distance.ts'
import { splitByZone } from './split.ts'
import { HeadField } from './shape.ts'

const c = () => fc.double({ min: -80, max: 80, noNaN: true })

describe('blends', () => {
  it('never rise above the plain minimum, and sink by at most a quarter of the reach', () => {
    fc.assert(
      fc.property(c(), c(), fc.double({ min: 0.5, max: 40, noNaN: true }), (a, b, k) => {
        const s = smoothMin(a, b, k)
        expect(s).toBeLessThanOrEqual(Math.min(a, b) + 1e-12)
        expect(s).toBeGreaterThanOrEqual(Math.min(a, b) - k / 4 - 1e-12)
        expect(smoothMin(b, a, k)).toBeCloseTo(s, 9)
        expect(smoothMax(a, b, k)).toBeCloseTo(-smoothMin(-a, -b, k), 12)
        if (Math.abs(a - b) >= k) expect(s).toBe(Math.min(a, b))
      }),
    )
  })

  it('fold a half onto the other without a crease', () => {
    fc.assert(
      fc.property(fc.double({ min: -30, max: 30, noNaN: true }), (x) => {
        expect(fold(x, 4)).toBe(fold(-x, 4))
        expect(fold(x, 4)).toBeGreaterThanOrEqual(Math.abs(x) - 1e-12)
      }),
    )
    expect(fold(4, 4)).toBeCloseTo(4, 12)
    expect((fold(1e-4, 4) - fold(0, 4)) / 1e-4).toBeLessThan(1e-3)
  })
})

describe('solids', () => {
  it('an ellipsoid with equal radii is a sphere, wherever it is turned', () => {
    const ball = ellipsoid(3, -2, 5, 10, 10, 10, 33)
    fc.assert(
      fc.property(c(), c(), c(), (x, y, z) => {
        const exact = Math.hypot(x - 3, y + 2, z - 5) - 10
        expect(ball(x, y, z)).toBeCloseTo(exact, 6)
      }),
    )
    expect(ball(3, -2, 5)).toBe(-10)
  })

  it('an ellipsoid is negative inside, zero on its poles, positive outside, and turns +z toward +x', () => {
    const e = ellipsoid(0, 0, 0, 4, 8, 20, 90)
    expect(e(20, 0, 0)).toBeCloseTo(0, 9)
    expect(e(0, 8, 0)).toBeCloseTo(0, 9)
    expect(e(0, 0, 4)).toBeCloseTo(0, 9)
    expect(e(10, 0, 0)).toBeLessThan(0)
    expect(e(0, 0, 10)).toBeGreaterThan(0)
  })

  it('a straight tube is the distance to a segment less its radius', () => {
    const t = cone([0, 0, 0, 3], [0, 10, 0, 3])
    expect(t(5, 5, 0)).toBeCloseTo(2, 9)
    expect(t(0, 14, 0)).toBeCloseTo(1, 9)
    expect(t(0, 5, 0)).toBeCloseTo(-3, 9)
    const wide = cone([0, 0, 0, 2], [0, 10, 0, 6])
    expect(wide(9, 5, 0)).toBeCloseTo(5, 9)
  })

  it('a curved tube passes through its points', () => {
    const points = [
      [0, 0, 0, 2],
      [10, 5, 0, 3],
      [20, 0, 4, 2],
    ] as const
    const t = tube(points)
    for (const [x, y, z, r] of points) expect(t(x, y, z)).toBeCloseTo(-r, 6)
  })

  it('an elliptical tube has the half widths of its rows', () => {
    const t = ellipticalTube([
      [0, 0, 30, 20],
      [50, 0, 30, 20],
      [100, 0, 40, 25],
    ])
    expect(t(30, 50, 0)).toBeCloseTo(0, 3)
    expect(t(0, 50, 20)).toBeCloseTo(0, 3)
    expect(t(40, 100, 0)).toBeCloseTo(0, 1)
    expect(t(0, 50, 0)).toBeLessThan(0)
  })
})

describe('the cached field', () => {
  it('says the same as without its ear where the ear is far, and another thing on it', () => {
    const whole = new HeadField('full')
    const without = new HeadField('full', 'ear')
    expect(whole.distance(0, -95, 90)).toBeCloseTo(without.distance(0, -95, 90), 9)
    expect(whole.distance(80, -5, -14)).toBeLessThan(without.distance(80, -5, -14) - 1)
  })

  it('puts a point onto the surface', () => {
    const field = new HeadField('full')
    for (const start of [
      [0, 60, 120],
      [70, -60, 60],
      [30, -150, 60],
    ]) {
      const p = [...start]
      field.project(p, 8)
      expect(Math.abs(field.distance(p[0]!, p[1]!, p[2]!))).toBeLessThan(0.05)
    }
  })
})

describe('cutting along borders', () => {
  // A flat square of two triangles, cut down the middle by x = 0.5 and, above y = 0.6, by a third label.
  const square = {
    positions: Float32Array.from([0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0]),
    indices: Uint32Array.from([0, 1, 2, 0, 2, 3]),
  }
  const areaOf = (mesh: typeof square, t: number) => {
    const at = (k: number) => [
      ...mesh.positions.slice(3 * mesh.indices[3 * t + k]!, 3 * mesh.indices[3 * t + k]! + 3),
    ]
    const [a, b, d] = [at(0), at(1), at(2)]
    return Math.abs((b[0]! - a[0]!) * (d[1]! - a[1]!) - (b[1]! - a[1]!) * (d[0]! - a[0]!)) / 2
  }

  it('keeps the area whole and puts each part on its side', () => {
    const { mesh, labels } = splitByZone(
      square,
      (x) => (x < 0.5 ? 'chin' : 'lips'),
      () => undefined,
    )
    let chin = 0
    let total = 0
    labels.forEach((label, t) => {
      total += areaOf(mesh as typeof square, t)
      if (label === 'chin') chin += areaOf(mesh as typeof square, t)
    })
    expect(total).toBeCloseTo(1, 6)
    expect(chin).toBeCloseTo(0.5, 2)
  })

  it('meets three zones in one triangle without losing any', () => {
    const { mesh, labels } = splitByZone(
      square,
      (x, y) => (y > 0.6 ? 'occiput' : x < 0.5 ? 'chin' : 'lips'),
      () => undefined,
    )
    expect(new Set(labels)).toEqual(new Set(['occiput', 'chin', 'lips']))
    expect(labels.reduce((s, _l, t) => s + areaOf(mesh as typeof square, t), 0)).toBeCloseTo(1, 6)
  })

  it('leaves a mesh of one zone as it was', () => {
    const { mesh, labels } = splitByZone(
      square,
      () => 'chin',
      () => undefined,
    )
    expect([...mesh.indices]).toEqual([...square.indices])
    expect(labels).toEqual(['chin', 'chin'])
  })
})
