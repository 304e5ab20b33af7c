/**
 * The solve mesh as a place where tangent vectors can be compared: a basis at each vertex, how a vector turns along each
 * edge, and how strongly neighbours are tied. Knöppel, Crane, Pinkall & Schröder 2013, "Globally optimal direction fields";
 * Sharp, Soliman & Crane 2019, "The vector heat method" (both from memory).
 */
import { DomainError } from '../errors.ts'
import { cross, dot, unit, type Vec3, type Mesh } from '../head/index.ts'
import { wrapHalf } from './circular.ts'

/** A closed surface with its discrete Levi-Civita connection. */
export interface Connection {
  readonly vertices: number
  /** Unit outward normal of each vertex, 3 each. */
  readonly normals: Float64Array
  /** First basis vector of each vertex's tangent plane, 3 each; a quarter turn anticlockwise from outside gives the second. */
  readonly first: Float64Array
  readonly second: Float64Array
  /** A third of the area of the triangles round each vertex, mm². */
  readonly areas: Float64Array
  /** Neighbours of vertex i: `neighbours[start[i] … start[i + 1]]`. */
  readonly start: Int32Array
  readonly neighbours: Int32Array
  /** Turn that carries a vector from a vertex to that neighbour, radians; negative the other way. */
  readonly turns: Float64Array
  /** Cotangent weight of that edge. */
  readonly weights: Float64Array
  readonly indices: Uint32Array
  readonly positions: Float32Array
}

/** Thin triangles give weights near or below zero, which would untie their vertices. */
const LEAST_WEIGHT = 1e-3

/**
 * Builds the connection of a closed mesh.
 * @throws DomainError `not-closed` when an edge has no second triangle
 */
export function connect(mesh: Mesh & { readonly normals?: Float32Array }): Connection {
  const { positions, indices } = mesh
  const n = positions.length / 3
  const at = (v: number): Vec3 => [positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!]
  const sub = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]

  // Half-edge h of triangle t runs from corner h to the next; its angle is the one at its start.
  const angle = new Float64Array(indices.length)
  const cotangent = new Float64Array(indices.length)
  const areas = new Float64Array(n)
  const normals = new Float64Array(3 * n)
  const anyHalfEdge = new Int32Array(n).fill(-1)
  for (let t = 0; t < indices.length; t += 3) {
    const p = [at(indices[t]!), at(indices[t + 1]!), at(indices[t + 2]!)]
    const face = cross(sub(p[1]!, p[0]!), sub(p[2]!, p[0]!))
    const area = Math.hypot(face[0], face[1], face[2]) / 2
    for (let k = 0; k < 3; k++) {
      const i = indices[t + k]!
      const toJ = sub(p[(k + 1) % 3]!, p[k]!)
      const toL = sub(p[(k + 2) % 3]!, p[k]!)
      const along = dot(toJ, toL)
      angle[t + k] = Math.atan2(2 * area, along)
      // The angle at a corner faces the edge between the other two.
      cotangent[t + ((k + 1) % 3)] = along / (2 * area)
      areas[i]! += area / 3
      for (let x = 0; x < 3; x++) normals[3 * i + x]! += face[x]!
      anyHalfEdge[i] = t + k
    }
  }
  const twin = twins(indices, n)
  for (let v = 0; v < n; v++) {
    const given = mesh.normals
    const u = unit(
      given
        ? [given[3 * v]!, given[3 * v + 1]!, given[3 * v + 2]!]
        : [normals[3 * v]!, normals[3 * v + 1]!, normals[3 * v + 2]!],
    )
    normals.set(u, 3 * v)
  }

  // Walk round each vertex, anticlockwise from outside, and scale the angles to a whole turn.
  const start = new Int32Array(n + 1)
  const neighbours: number[] = []
  const polar: number[] = []
  const halfEdges: number[] = []
  const place = new Int32Array(indices.length)
  for (let i = 0; i < n; i++) {
    start[i] = neighbours.length
    const from = anyHalfEdge[i]!
    if (from < 0) continue
    let h = from
    let sum = 0
    const begun = polar.length
    do {
      place[h] = neighbours.length
      neighbours.push(indices[next(h)]!)
      halfEdges.push(h)
      polar.push(sum)
      sum += angle[h]!
      h = twin[previous(h)]!
      if (h < 0) {
        throw new DomainError(
          'not-closed',
          'The surface has a hole, so no field can be laid on it.',
        )
      }
    } while (h !== from)
    for (let e = begun; e < polar.length; e++) polar[e]! *= (2 * Math.PI) / sum
  }
  start[n] = neighbours.length

  const first = new Float64Array(3 * n)
  const second = new Float64Array(3 * n)
  for (let i = 0; i < n; i++) {
    const normal: Vec3 = [normals[3 * i]!, normals[3 * i + 1]!, normals[3 * i + 2]!]
    const helper: Vec3 = Math.abs(normal[0]) < 0.8 ? [1, 0, 0] : [0, 1, 0]
    const a = unit(cross(helper, normal))
    const b = cross(normal, a)
    // The basis that fits the scaled angles of all edges best.
    let c = 0
    let s = 0
    for (let e = start[i]!; e < start[i + 1]!; e++) {
      const d = sub(at(neighbours[e]!), at(i))
      const off = Math.atan2(dot(d, b), dot(d, a)) - polar[e]!
      c += Math.cos(off)
      s += Math.sin(off)
    }
    const off = Math.atan2(s, c)
    const [co, si] = [Math.cos(off), Math.sin(off)]
    for (let x = 0; x < 3; x++) {
      first[3 * i + x] = co * a[x]! + si * b[x]!
      second[3 * i + x] = co * b[x]! - si * a[x]!
    }
  }

  const turns = new Float64Array(neighbours.length)
  const weights = new Float64Array(neighbours.length)
  halfEdges.forEach((h, e) => {
    const back = twin[h]!
    turns[e] = wrapHalf(polar[place[back]!]! + Math.PI - polar[e]!)
    weights[e] = Math.max(LEAST_WEIGHT, (cotangent[h]! + cotangent[back]!) / 2)
  })
  return {
    vertices: n,
    normals,
    first,
    second,
    areas,
    start,
    neighbours: Int32Array.from(neighbours),
    turns,
    weights,
    indices,
    positions,
  }
}

const next = (h: number) => (h % 3 === 2 ? h - 2 : h + 1)
const previous = (h: number) => (h % 3 === 0 ? h + 2 : h - 1)

/** For each half-edge the one that runs the other way along the same edge, or −1. */
function twins(indices: Uint32Array, vertices: number): Int32Array {
  // Half-edges by the vertex they start from.
  const start = new Int32Array(vertices + 1)
  for (const v of indices) start[v + 1]!++
  for (let v = 0; v < vertices; v++) start[v + 1]! += start[v]!
  const filled = start.slice()
  const from = new Int32Array(indices.length)
  indices.forEach((v, h) => (from[filled[v]!++] = h))
  return Int32Array.from(indices, (v, h) => {
    const to = indices[next(h)]!
    for (let e = start[to]!; e < start[to + 1]!; e++)
      if (indices[next(from[e]!)] === v) return from[e]!
    return -1
  })
}

const vec = (a: Float64Array, v: number): Vec3 => [a[3 * v]!, a[3 * v + 1]!, a[3 * v + 2]!]

/** A vector turned with the smallest rotation that takes one unit normal to another. */
export function turnWithNormal(v: Vec3, from: Vec3, to: Vec3): Vec3 {
  const c = dot(from, to)
  // Straight behind there is no smallest rotation; the sign of the vector is then arbitrary.
  if (c < -0.9999) return [-v[0], -v[1], -v[2]]
  const k = cross(from, to)
  const kv = cross(k, v)
  const f = dot(k, v) / (1 + c)
  return [c * v[0] + kv[0] + f * k[0], c * v[1] + kv[1] + f * k[1], c * v[2] + kv[2] + f * k[2]]
}

/** Angle of a direction, given at a point with a normal, in a vertex's basis. */
export function angleAtVertex(c: Connection, v: number, direction: Vec3, normal: Vec3): number {
  const d = turnWithNormal(direction, normal, vec(c.normals, v))
  return Math.atan2(dot(d, vec(c.second, v)), dot(d, vec(c.first, v)))
}

/** The unit tangent at an angle in a vertex's basis. */
export function directionAtVertex(c: Connection, v: number, angle: number): Vec3 {
  const [co, si] = [Math.cos(angle), Math.sin(angle)]
  const a = vec(c.first, v)
  const b = vec(c.second, v)
  return [co * a[0] + si * b[0], co * a[1] + si * b[1], co * a[2] + si * b[2]]
}
