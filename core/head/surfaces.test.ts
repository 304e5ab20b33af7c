/** Walking and topology on surfaces whose answers are known: a sphere, a torus, a plane. Sources: geometry, Euler 1758. */
import fc from 'fast-check'
import { cross, dot, unit, type Vec3 } from './frames.ts'
import type { ZonedMesh } from './head.ts'
import { mirrorMesh, topology, type Mesh } from './mesh.ts'
import { sphere } from '../testing/surfaces.ts'
import { normalAt, triangleNeighbours, walk, type Footing } from './walk.ts'

function torus(big: number, small: number, n: number): Mesh {
  const positions: number[] = []
  const indices: number[] = []
  const at = (i: number, j: number) => (i % n) * n + (j % n)
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < n; j++) {
      const u = (2 * Math.PI * i) / n
      const v = (2 * Math.PI * j) / n
      const r = big + small * Math.cos(v)
      positions.push(r * Math.cos(u), small * Math.sin(v), r * Math.sin(u))
      indices.push(at(i, j), at(i + 1, j), at(i, j + 1))
      indices.push(at(i, j + 1), at(i + 1, j), at(i + 1, j + 1))
    }
  }
  return { positions: Float32Array.from(positions), indices: Uint32Array.from(indices) }
}

const R = 80
const BALL = sphere(R, 48, 96)
const zoned = (mesh: Mesh): ZonedMesh =>
  ({
    ...mesh,
    normals: mesh.positions.map((_, i) => mesh.positions[i]! / R),
    zones: new Uint8Array(mesh.indices.length / 3),
    ranges: [[0, mesh.indices.length / 3]],
  }) as unknown as ZonedMesh
const corner = (mesh: Mesh, v: number): Vec3 => [
  mesh.positions[3 * v]!,
  mesh.positions[3 * v + 1]!,
  mesh.positions[3 * v + 2]!,
]
const middle = (mesh: Mesh, triangle: number): Footing => {
  const c = [0, 1, 2].map((k) => corner(mesh, mesh.indices[3 * triangle + k]!))
  return {
    triangle,
    point: [0, 1, 2].map((i) => (c[0]![i]! + c[1]![i]! + c[2]![i]!) / 3) as unknown as Vec3,
  }
}

describe('topology', () => {
  it('is 2 for a sphere, 0 for a torus, both closed (Euler characteristic)', () => {
    expect(topology(BALL)).toEqual({ closed: true, euler: 2 })
    expect(topology(torus(60, 20, 24))).toEqual({ closed: true, euler: 0 })
  })

  it('notices a hole, and a triangle that faces the wrong way', () => {
    const holed = { ...BALL, indices: BALL.indices.slice(3) }
    expect(topology(holed).closed).toBe(false)
    const turned = { ...BALL, indices: BALL.indices.slice() }
    ;[turned.indices[0], turned.indices[1]] = [turned.indices[1]!, turned.indices[0]!]
    expect(topology(turned).closed).toBe(false)
  })

  it('mirrors a half into a whole that mirrors itself', () => {
    // The half of an octahedron with x ≥ 0.
    const half: Mesh = {
      positions: Float32Array.from([1, 0, 0, 0, 1, 0, 0, 0, 1, 0, -1, 0, 0, 0, -1]),
      indices: Uint32Array.from([0, 1, 2, 0, 2, 3, 0, 3, 4, 0, 4, 1]),
    }
    const { mesh, mirrorOf } = mirrorMesh(half)
    expect(topology(mesh)).toEqual({ closed: true, euler: 2 })
    expect(mesh.positions.length / 3).toBe(6)
    mirrorOf.forEach((twin, v) => {
      const [x, y, z] = corner(mesh, v)
      expect(corner(mesh, twin)).toEqual([x === 0 ? 0 : -x, y, z])
      expect(mirrorOf[twin]).toBe(v)
    })
  })
})

describe('neighbours', () => {
  it('are mutual, and share the edge they meet at', () => {
    const next = triangleNeighbours(BALL)
    const wrong = Array.from(BALL.indices.keys()).filter((e) => {
      const t = Math.floor(e / 3)
      const other = next[e]!
      const mine = [BALL.indices[e]!, BALL.indices[3 * t + ((e + 1) % 3)]!]
      const theirs = [0, 1, 2].map((k) => BALL.indices[3 * other + k]!)
      const back = [0, 1, 2].some((k) => next[3 * other + k] === t)
      return !(other >= 0 && mine.every((v) => theirs.includes(v)) && back)
    })
    expect(wrong).toEqual([])
  })
})

describe('a walk', () => {
  const mesh = zoned(BALL)
  const next = triangleNeighbours(mesh)
  const count = mesh.indices.length / 3

  it('on a sphere follows the great circle it set out on, as far as asked', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: count - 1 }),
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        fc.integer({ min: 20, max: 120 }),
        (triangle, turn, lengthMm) => {
          const start = middle(mesh, triangle)
          const out = unit(start.point)
          const helper: Vec3 = Math.abs(out[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0]
          const east = unit(cross(helper, out))
          const north = cross(out, east)
          const heading: Vec3 = [0, 1, 2].map(
            (i) => Math.cos(turn) * north[i]! + Math.sin(turn) * east[i]!,
          ) as unknown as Vec3
          const axis = cross(out, heading)
          // The great circle's own tangent at each place.
          const path = walk(mesh, next, start, (at) => cross(axis, unit(at.point)), lengthMm, 40)
          expect(path).toHaveLength(41)
          const end = path[40]!.point
          expect(Math.abs(dot(unit(end), axis))).toBeLessThan(0.01)
          const angle = Math.acos(Math.min(1, dot(out, unit(end))))
          expect(angle).toBeCloseTo(lengthMm / R, 1)
          for (const p of path) expect(Math.abs(Math.hypot(...p.point) - R)).toBeLessThan(0.2)
        },
      ),
      { numRuns: 60 },
    )
  })

  it('stops where it is told to, and at the edge of an open mesh', () => {
    const start = middle(mesh, 500)
    let asked = 0
    const path = walk(mesh, next, start, () => (asked++ < 3 ? [1, 0, 0] : undefined), 40, 10)
    expect(path).toHaveLength(4)
    const flat: Mesh = {
      positions: Float32Array.from([0, 0, 0, 10, 0, 0, 0, 10, 0]),
      indices: Uint32Array.from([0, 1, 2]),
    }
    const off = walk(
      zoned(flat),
      triangleNeighbours(flat),
      { triangle: 0, point: [2, 2, 0] },
      () => [1, 0, 0],
      30,
      3,
    )
    expect(off.length).toBe(1)
  })

  it('carries a smooth normal along: outward on a sphere', () => {
    for (let t = 7; t < count; t += 611) {
      const at = middle(mesh, t)
      expect(dot(normalAt(mesh, at), unit(at.point))).toBeGreaterThan(0.999)
    }
  })
})
