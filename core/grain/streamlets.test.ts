/** Streamlets over a plane and round an edge, where their course is known. */
import { triangleNeighbours, type Vec3 } from '../head/index.ts'
import { box, sphere, zoned } from '../testing/surfaces.ts'
import { STREAMLET_POINTS, streamlets, type Seeds } from './streamlets.ts'

const MESH = zoned(box([60, 20, 60], 24))
const NEIGHBOURS = triangleNeighbours(MESH)
const VERTICES = MESH.positions.length / 3
const corner = (t: number, k: number): Vec3 => {
  const v = 3 * MESH.indices[3 * t + k]!
  return [MESH.positions[v]!, MESH.positions[v + 1]!, MESH.positions[v + 2]!]
}
const TOP = Array.from({ length: MESH.indices.length / 3 }, (_, t) => t).filter((t) =>
  [0, 1, 2].every((k) => corner(t, k)[1] === 20),
)
/** The triangle of the upper side whose middle lies nearest to a place. */
const triangleAt = (x: number, z: number) => {
  const off = (t: number) =>
    Math.hypot(
      [0, 1, 2].reduce((s, k) => s + corner(t, k)[0], 0) / 3 - x,
      [0, 1, 2].reduce((s, k) => s + corner(t, k)[2], 0) / 3 - z,
    )
  return TOP.reduce((a, b) => (off(b) < off(a) ? b : a))
}
const seeds = (...at: readonly (readonly [number, number])[]): Seeds => ({
  triangles: Uint32Array.from(at, ([x, z]) => triangleAt(x, z)),
  weights: Float32Array.from(at.flatMap(() => [0.2, 0.3])),
  count: at.length,
})
const rootOf = (s: Seeds, i: number): Vec3 => {
  const [a, b, c] = [0, 1, 2].map((k) => corner(s.triangles[i]!, k)) as [Vec3, Vec3, Vec3]
  return [0, 1, 2].map((k) => 0.2 * a[k]! + 0.3 * b[k]! + 0.5 * c[k]!) as unknown as Vec3
}
const along = (way: Vec3) =>
  Float32Array.from({ length: 3 * VERTICES }, (_, i) => way[(i % 3) as 0 | 1 | 2])
const [LENGTH, HALF] = [13, 0.6]
const draw = (
  s: Seeds,
  {
    way = [1, 0, 0] as Vec3,
    ink = new Float32Array(VERTICES).fill(1),
    stops = [false, true],
    zones = MESH.zones,
  } = {},
) =>
  streamlets({ ...MESH, zones }, NEIGHBOURS, s, { vectors: along(way), ink }, stops, LENGTH, HALF)
const three = (a: Float32Array, at: number): Vec3 => [a[at]!, a[at + 1]!, a[at + 2]!]
const close = (a: Vec3, b: Vec3) => a.forEach((x, k) => expect(x).toBeCloseTo(b[k]!, 3))

describe('a streamlet', () => {
  it.each([
    [1, 0, 0],
    [-0.6, 0, 0.8],
    [0, 0, -1],
  ] as Vec3[])('runs straight over a plane, its length long: %d %d %d', (...way) => {
    const s = seeds([0, 0], [9, -14], [-20, 11])
    const m = draw(s, { way })
    expect(m.count).toBe(3)
    for (let i = 0; i < 3; i++) {
      const root = rootOf(s, i)
      expect(m.points[i]).toBe(STREAMLET_POINTS)
      expect(m.ink[i]).toBeCloseTo(1, 5)
      close(three(m.spines, 9 * i), root)
      close(three(m.spines, 9 * i + 3), [
        root[0] + LENGTH * way[0],
        root[1],
        root[2] + LENGTH * way[2],
      ])
      close(three(m.spines, 9 * i + 6), [0, 1, 0])
    }
  })

  it('is a ribbon of its width, lifted off the skin, its left before its right', () => {
    const s = seeds([0, 0], [9, -14])
    const m = draw(s)
    expect(m.positions).toHaveLength(2 * STREAMLET_POINTS * 6)
    for (let i = 0; i < 2; i++)
      for (let k = 0; k < STREAMLET_POINTS; k++) {
        const root = rootOf(s, i)
        const x = root[0] + (LENGTH * k) / (STREAMLET_POINTS - 1)
        const o = 6 * (i * STREAMLET_POINTS + k)
        // x forward and y up: the right hand is toward +z.
        close(three(m.positions, o), [x, 20.5, root[2] - HALF])
        close(three(m.positions, o + 3), [x, 20.5, root[2] + HALF])
      }
  })

  it('is shorter where less is known: 0.55 of its length and what the ink adds', () => {
    const s = seeds([0, 0])
    const length = (ink: number) => {
      const m = draw(s, { ink: new Float32Array(VERTICES).fill(ink) })
      return m.count === 0 ? 0 : m.spines[3]! - m.spines[0]!
    }
    expect(length(0.4)).toBeCloseTo(LENGTH * (0.55 + 0.45 * 0.4), 3)
    expect(length(1)).toBeCloseTo(LENGTH, 3)
    expect(length(3)).toBeCloseTo(LENGTH, 3)
    expect(length(0.021)).toBeGreaterThan(0)
    expect(length(0.019)).toBe(0)
  })

  it('follows a ball along its great circle, and grows no longer by that', () => {
    const ball = zoned(sphere(50, 30, 60))
    const tangents = Float32Array.from(ball.normals)
    for (let v = 0; v < tangents.length; v += 3) {
      const [x, y, z] = three(ball.normals, v)
      const t = [1 - x * x, -x * y, -x * z]
      const size = Math.hypot(...t) || 1
      t.forEach((c, k) => (tangents[v + k] = c / size))
    }
    // Away from where all of them meet, at ±x.
    const middleX = (t: number) =>
      [0, 1, 2].reduce((sum, k) => sum + ball.positions[3 * ball.indices[3 * t + k]!]!, 0) / 3
    const triangles = Uint32Array.from({ length: ball.indices.length / 3 }, (_, t) => t)
      .filter((t) => Math.abs(middleX(t)) < 25)
      .filter((_, i) => i % 300 === 150)
      .slice(0, 5)
    const weights = Float32Array.from([...triangles].flatMap(() => [0.3, 0.3]))
    const m = streamlets(
      ball,
      triangleNeighbours(ball),
      { triangles, weights, count: 5 },
      { vectors: tangents, ink: new Float32Array(tangents.length / 3).fill(1) },
      [false],
      LENGTH,
      HALF,
    )
    expect(m.count).toBe(5)
    for (let i = 0; i < 5; i++) {
      const [root, tip] = [three(m.spines, 9 * i), three(m.spines, 9 * i + 3)]
      const size = (p: Vec3) => Math.hypot(...p)
      const angle = Math.acos(
        (root[0] * tip[0] + root[1] * tip[1] + root[2] * tip[2]) / size(root) / size(tip),
      )
      // A mesh cuts the ball’s corners a little.
      expect((50 * angle) / LENGTH).toBeCloseTo(1, 1)
      expect(Math.hypot(...tip)).toBeGreaterThan(49)
      // Out of the plane of root, middle and x it does not go.
      expect(Math.atan2(tip[1], tip[2])).toBeCloseTo(Math.atan2(root[1], root[2]), 1)
      expect(tip[0]).toBeGreaterThan(root[0])
    }
  })

  it('ends where ink ends, its last points falling together, and stays away where it would be a dot', () => {
    const s = seeds([0, 0], [0, 20])
    // Ink gives out at x = 8.
    const ink = Float32Array.from({ length: VERTICES }, (_, v) =>
      MESH.positions[3 * v]! < 7.5 ? 1 : 0,
    )
    const m = draw(s, { ink })
    expect(m.count).toBe(2)
    for (let i = 0; i < 2; i++) {
      const points = m.points[i]!
      expect(points).toBeGreaterThan(4)
      expect(points).toBeLessThan(STREAMLET_POINTS)
      const tip = three(m.spines, 9 * i + 3)
      expect(tip[0]).toBeGreaterThan(5)
      expect(tip[0]).toBeLessThan(11)
      for (let k = points - 1; k < STREAMLET_POINTS; k++) {
        const o = 6 * (i * STREAMLET_POINTS + k)
        close(three(m.positions, o), [tip[0], 20.5, tip[2] - HALF])
        close(three(m.positions, o + 3), [tip[0], 20.5, tip[2] + HALF])
      }
    }
    // So near the end that fewer than four points are left.
    expect(draw(seeds([8.5, 0]), { ink }).count).toBe(0)
  })

  it('stops at a zone that has none, begins in none, and keeps the number of its own', () => {
    const zones = Uint8Array.from(MESH.zones, (_, t) =>
      [0, 1, 2].reduce((sum, k) => sum + corner(t, k)[0], 0) / 3 > 10 ? 1 : 0,
    )
    const m = draw(seeds([4, 0], [15, 0], [-20, 0]), { zones })
    expect(m.count).toBe(2)
    expect([...m.zones]).toEqual([0, 0])
    const tip = three(m.spines, 3)
    expect(tip[0]).toBeGreaterThan(9)
    expect(tip[0]).toBeLessThan(13)
    expect(m.points[1]).toBe(STREAMLET_POINTS)
    const there = draw(seeds([15, 0]), { zones, stops: [true, false] })
    expect([...there.zones]).toEqual([1])
  })

  it('stands still where the field points straight into the skin', () => {
    expect(draw(seeds([0, 0]), { way: [0, 1, 0] }).count).toBe(0)
  })
})
