/**
 * The shortest way over the surface between two places: a search over points on the edges (A*: Hart, Nilsson & Raphael
 * 1968; Steiner points on edges: Lanthier, Maheshwari & Sack 1997; both from memory), then pulled straight within the
 * strip of triangles it found.
 */
import { DomainError } from '../errors.ts'
import { distance, type Vec3 } from './frames.ts'
import { Heap } from './heap.ts'
import { surfacePoint, type SurfacePoint, type ZonedMesh } from './head.ts'
import { Locator } from './locate.ts'
import { triangleNeighbours } from './walk.ts'

/** A mesh made ready for walking and finding. */
export interface Surface {
  readonly mesh: ZonedMesh
  readonly neighbours: Int32Array
  readonly locator: Locator
}

/** A place on the surface with the triangle it lies in. */
export interface PathPoint extends SurfacePoint {
  readonly triangle: number
}

export function makeSurface(mesh: ZonedMesh): Surface {
  return { mesh, neighbours: triangleNeighbours(mesh), locator: new Locator(mesh) }
}

/** Points on each edge that the search may pass. */
const STOPS = [1 / 6, 1 / 2, 5 / 6] as const
/** Sweeps of pulling straight: far more than a line over a face needs. */
const SWEEPS = 400
/** Stops that are looked at before a line counts as impossible. */
const MOST_VISITS = 400_000

const mix = (a: Vec3, b: Vec3, t: number): Vec3 => [
  a[0] + t * (b[0] - a[0]),
  a[1] + t * (b[1] - a[1]),
  a[2] + t * (b[2] - a[2]),
]

/**
 * The shortest way over the surface, both ends first and last.
 * @throws DomainError `no-way` when the ends do not hang together, `off-the-head` when one lies far from the surface
 */
export function shortestPath(surface: Surface, from: Vec3, to: Vec3): PathPoint[] {
  const { mesh, neighbours, locator } = surface
  const at = (v: number): Vec3 => [
    mesh.positions[3 * v]!,
    mesh.positions[3 * v + 1]!,
    mesh.positions[3 * v + 2]!,
  ]
  const place = (p: Vec3): PathPoint => {
    const { triangle, weights } = locator.nearest(p)
    return { triangle, ...surfacePoint(mesh, triangle, weights[0], weights[1]) }
  }
  const start = place(from)
  const end = place(to)
  if (start.triangle === end.triangle) return [start, end]

  // A half-edge and its twin are one edge: the lower of the two names it.
  const nameOf = (h: number): number => {
    const t = neighbours[h]!
    if (t < 0) return h
    const a = mesh.indices[h]
    for (let k = 0; k < 3; k++) {
      const other = 3 * t + k
      if (mesh.indices[3 * t + ((k + 1) % 3)] === a && neighbours[other] === Math.floor(h / 3))
        return Math.min(h, other)
    }
    return h
  }
  const ends = (edge: number): readonly [Vec3, Vec3] => {
    const t = edge - (edge % 3)
    return [at(mesh.indices[edge]!), at(mesh.indices[t + (((edge % 3) + 1) % 3)]!)]
  }
  const stopAt = (key: number): Vec3 => {
    const [a, b] = ends(Math.floor(key / STOPS.length))
    return mix(a, b, STOPS[key % STOPS.length]!)
  }
  const cost = new Map<number, number>()
  const came = new Map<number, number>()
  const done = new Set<number>()
  const heap = new Heap()
  const reach = (triangle: number, p: Vec3, so: number, by: number) => {
    for (let k = 0; k < 3; k++) {
      const edge = nameOf(3 * triangle + k)
      for (let s = 0; s < STOPS.length; s++) {
        const key = edge * STOPS.length + s
        if (done.has(key)) continue
        const q = stopAt(key)
        const d = so + distance(p, q)
        if (d >= (cost.get(key) ?? Infinity)) continue
        cost.set(key, d)
        came.set(key, by)
        heap.push(key, d + distance(q, end.point))
      }
    }
  }
  reach(start.triangle, start.point, 0, -1)
  let last = -1
  let shortest = Infinity
  while (heap.size > 0 && done.size < MOST_VISITS) {
    const key = heap.pop()
    if (done.has(key)) continue
    done.add(key)
    const so = cost.get(key)!
    const p = stopAt(key)
    if (so + distance(p, end.point) >= shortest) break
    const edge = Math.floor(key / STOPS.length)
    const triangles = [Math.floor(edge / 3), neighbours[edge]!]
    for (const t of triangles) {
      if (t < 0) continue
      if (t === end.triangle) {
        const whole = so + distance(p, end.point)
        if (whole < shortest) {
          shortest = whole
          last = key
        }
      }
      reach(t, p, so, key)
    }
  }
  if (last < 0) {
    throw new DomainError('no-way', 'There is no way over the skin between these two points.')
  }
  const edges: number[] = []
  const params: number[] = []
  for (let key = last; key >= 0; key = came.get(key)!) {
    edges.unshift(Math.floor(key / STOPS.length))
    params.unshift(STOPS[key % STOPS.length]!)
  }
  pullStraight(edges.map(ends), params, start.point, end.point)
  const path: PathPoint[] = [start]
  edges.forEach((edge, i) => {
    const [a, b] = ends(edge)
    const t = params[i]!
    const triangle = Math.floor(edge / 3)
    const k = edge % 3
    const weights = [0, 0, 0]
    weights[k] = 1 - t
    weights[(k + 1) % 3] = t
    path.push({
      triangle,
      normal: surfacePoint(mesh, triangle, weights[0]!, weights[1]!).normal,
      point: mix(a, b, t),
    })
  })
  path.push(end)
  return path
}

/** Slides each crossing along its edge to where the way through its neighbours is shortest, until nothing moves. */
function pullStraight(
  edges: readonly (readonly [Vec3, Vec3])[],
  params: number[],
  start: Vec3,
  end: Vec3,
): void {
  const crossing = (i: number): Vec3 =>
    i < 0 ? start : i >= edges.length ? end : mix(edges[i]![0], edges[i]![1], params[i]!)
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    let moved = 0
    for (let i = 0; i < edges.length; i++) {
      const [a, b] = edges[i]!
      const d: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]]
      const length2 = d[0] * d[0] + d[1] * d[1] + d[2] * d[2] || 1
      const foot = (p: Vec3) => {
        const t = ((p[0] - a[0]) * d[0] + (p[1] - a[1]) * d[1] + (p[2] - a[2]) * d[2]) / length2
        return { t, away: distance(p, mix(a, b, t)) }
      }
      const before = foot(crossing(i - 1))
      const after = foot(crossing(i + 1))
      const sum = before.away + after.away
      if (sum === 0) continue
      const t = Math.max(0, Math.min(1, before.t + ((after.t - before.t) * before.away) / sum))
      moved = Math.max(moved, Math.abs(t - params[i]!) * Math.sqrt(length2))
      params[i] = t
    }
    if (moved < 1e-4) return
  }
}

/** Length of a path, mm. */
export function pathLength(path: readonly { readonly point: Vec3 }[]): number {
  return path.reduce((s, p, i) => (i === 0 ? 0 : s + distance(path[i - 1]!.point, p.point)), 0)
}
