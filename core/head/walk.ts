/** Walking over the surface: from triangle to triangle along a direction, as hair lies. */
import { DomainError } from '../errors.ts'
import { cross, dot, unit, type Vec3 } from './frames.ts'
import { surfacePoint, type ZonedMesh } from './head.ts'

/** For each triangle and edge (corner k to k + 1): the triangle on the other side. */
export function triangleNeighbours(mesh: Pick<ZonedMesh, 'positions' | 'indices'>): Int32Array {
  const n = mesh.positions.length / 3
  const owner = new Map<number, number>()
  const out = new Int32Array(mesh.indices.length).fill(-1)
  for (let e = 0; e < mesh.indices.length; e++) {
    const t = e - (e % 3)
    owner.set(mesh.indices[e]! * n + mesh.indices[t + ((e + 1) % 3)]!, e)
  }
  for (let e = 0; e < mesh.indices.length; e++) {
    const t = e - (e % 3)
    const twin = owner.get(mesh.indices[t + ((e + 1) % 3)]! * n + mesh.indices[e]!)
    if (twin !== undefined) out[e] = Math.floor(twin / 3)
  }
  return out
}

/** A place on the mesh. */
export interface Footing {
  readonly triangle: number
  readonly point: Vec3
}

/**
 * Steps along the surface.
 * @param direction asked anew at each step: triangle and point in, unit-ish direction out, or undefined to stop
 * @param lengthMm length of the whole walk
 * @param steps number of equal steps
 * @returns the points passed, the start first
 */
export function walk(
  mesh: ZonedMesh,
  neighbours: Int32Array,
  start: Footing,
  direction: (at: Footing) => Vec3 | undefined,
  lengthMm: number,
  steps: number,
): Footing[] {
  if (!(lengthMm > 0) || steps < 1) {
    throw new DomainError('bad-walk', 'A walk needs a length and at least one step.')
  }
  const out: Footing[] = [start]
  let at = start
  for (let i = 0; i < steps; i++) {
    const d = direction(at)
    if (!d) break
    const next = step(mesh, neighbours, at, d, lengthMm / steps)
    if (!next) break
    at = next
    out.push(at)
  }
  return out
}

/** Triangles a step may cross: far more than any does, so that rounding cannot keep it running. */
const MOST_HOPS = 200

/** One straight step in the triangle's plane, carried over edges as they come. */
function step(
  mesh: ZonedMesh,
  neighbours: Int32Array,
  from: Footing,
  direction: Vec3,
  lengthMm: number,
): Footing | undefined {
  let { triangle, point } = from
  let left = lengthMm
  for (let hops = 0; hops < MOST_HOPS; hops++) {
    const a = vertex(mesh, triangle, 0)
    const b = vertex(mesh, triangle, 1)
    const c = vertex(mesh, triangle, 2)
    const normal = unit(cross(sub(b, a), sub(c, a)))
    const d = dot(direction, normal)
    const flat = unit([
      direction[0] - d * normal[0],
      direction[1] - d * normal[1],
      direction[2] - d * normal[2],
    ])
    // Distance along `flat` to each edge's line; the nearest ahead is where the triangle ends.
    let exit = Infinity
    let edge = -1
    const corners = [a, b, c]
    for (let k = 0; k < 3; k++) {
      const p = corners[k]!
      const q = corners[(k + 1) % 3]!
      const inward = cross(normal, sub(q, p))
      const speed = dot(flat, inward)
      if (speed >= -1e-12) continue
      const t = Math.max(0, -dot(sub(point, p), inward) / speed)
      if (t < exit) {
        exit = t
        edge = k
      }
    }
    if (edge < 0 || exit >= left) {
      return { triangle, point: along(point, flat, left) }
    }
    point = along(point, flat, exit)
    left -= exit
    const next = neighbours[3 * triangle + edge]!
    if (next < 0) return undefined
    triangle = next
    direction = flat
  }
  return { triangle, point }
}

const sub = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
const along = (p: Vec3, d: Vec3, t: number): Vec3 => [
  p[0] + t * d[0],
  p[1] + t * d[1],
  p[2] + t * d[2],
]

function vertex(mesh: ZonedMesh, triangle: number, k: number): Vec3 {
  const v = 3 * mesh.indices[3 * triangle + k]!
  return [mesh.positions[v]!, mesh.positions[v + 1]!, mesh.positions[v + 2]!]
}

/** Smooth normal at a place on the mesh, by barycentric weights. */
export function normalAt(mesh: ZonedMesh, at: Footing): Vec3 {
  const a = vertex(mesh, at.triangle, 0)
  const b = vertex(mesh, at.triangle, 1)
  const c = vertex(mesh, at.triangle, 2)
  const n = cross(sub(b, a), sub(c, a))
  const area = dot(n, n) || 1
  const u = dot(cross(sub(c, b), sub(at.point, b)), n) / area
  const v = dot(cross(sub(a, c), sub(at.point, c)), n) / area
  return surfacePoint(mesh, at.triangle, u, v).normal
}
