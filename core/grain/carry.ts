/** The field carried from the solve mesh to other places: worked out once, then three multiplications a place. */
import {
  cross,
  dot,
  type Vec3,
  clockFrame,
  unit,
  type SurfacePoint,
  type ZonedMesh,
  type ZoneRecord,
} from '../head/index.ts'
import { turnWithNormal } from './connection.ts'
import type { FieldAnswer, FieldGround, FieldTold } from './field.ts'

/** For each place the three vertices it hangs on, their weights, and the turn from their basis into the place's own. */
export interface Carry {
  readonly count: number
  readonly corners: Int32Array
  readonly weights: Float32Array
  readonly re: Float32Array
  readonly im: Float32Array
}

/** Directions as unit complex numbers in each place's own basis, and trust. */
export interface Carried {
  readonly re: Float32Array
  readonly im: Float32Array
  readonly trust: Float32Array
}

/** The same with what may be told of it. */
export interface CarriedTold extends Carried {
  /** Within how many degrees two of three directions are right; NaN where skin counts as not read. */
  readonly errorDeg: Float32Array
}

/** Carries what may be told too: the corners that were read speak, by their weights. */
export function carryTold(c: Carry, told: FieldTold): CarriedTold {
  const { count, corners, weights } = c
  const errorDeg = Float32Array.from({ length: count }, (_, i) => {
    let [sum, all] = [0, 0]
    for (let k = 3 * i; k < 3 * i + 3; k++) {
      const error = told.errorDeg[corners[k]!]!
      if (Number.isNaN(error)) continue
      sum += weights[k]! * error
      all += weights[k]!
    }
    return all > 0 ? sum / all : NaN
  })
  return { ...carry(c, told), errorDeg }
}

/**
 * Prepares places that each have a basis.
 * @param first unit tangent of a place; the second is a quarter turn anticlockwise from outside
 */
export function prepareCarry(
  ground: FieldGround,
  count: number,
  at: (i: number) => SurfacePoint & { readonly first: Vec3 },
): Carry {
  const { connection, locator } = ground
  const corners = new Int32Array(3 * count)
  const weights = new Float32Array(3 * count)
  const re = new Float32Array(3 * count)
  const im = new Float32Array(3 * count)
  const vec = (a: Float64Array, v: number): Vec3 => [a[3 * v]!, a[3 * v + 1]!, a[3 * v + 2]!]
  for (let i = 0; i < count; i++) {
    const { point, normal, first } = at(i)
    const second = cross(normal, first)
    const found = locator.nearest(point, normal)
    for (let k = 0; k < 3; k++) {
      const v = connection.indices[3 * found.triangle + k]!
      const d = turnWithNormal(vec(connection.first, v), vec(connection.normals, v), normal)
      const x = dot(d, first)
      const y = dot(d, second)
      const size = Math.hypot(x, y) || 1
      corners[3 * i + k] = v
      weights[3 * i + k] = found.weights[k]!
      re[3 * i + k] = x / size
      im[3 * i + k] = y / size
    }
  }
  return { count, corners, weights, re, im }
}

/** Carries an answer to the prepared places. */
export function carry(c: Carry, answer: FieldAnswer): Carried {
  const { count, corners, weights } = c
  const n = answer.re.length
  const ur = new Float32Array(n)
  const ui = new Float32Array(n)
  for (let v = 0; v < n; v++) {
    const size = Math.sqrt(answer.re[v]! ** 2 + answer.im[v]! ** 2) || 1
    ur[v] = answer.re[v]! / size
    ui[v] = answer.im[v]! / size
  }
  const re = new Float32Array(count)
  const im = new Float32Array(count)
  const trust = new Float32Array(count)
  for (let i = 0; i < count; i++) {
    let x = 0
    let y = 0
    let t = 0
    for (let k = 3 * i; k < 3 * i + 3; k++) {
      const v = corners[k]!
      const w = weights[k]!
      x += w * (c.re[k]! * ur[v]! - c.im[k]! * ui[v]!)
      y += w * (c.re[k]! * ui[v]! + c.im[k]! * ur[v]!)
      t += w * answer.trust[v]!
    }
    const size = Math.sqrt(x * x + y * y) || 1
    re[i] = x / size
    im[i] = y / size
    trust[i] = t
  }
  return { re, im, trust }
}

/** The vertices of the display mesh as places. */
export function displayCarry(
  ground: FieldGround,
  mesh: ZonedMesh,
): Carry & { first: Float32Array } {
  const n = mesh.positions.length / 3
  const first = new Float32Array(3 * n)
  const prepared = prepareCarry(ground, n, (v) => {
    const point: Vec3 = [
      mesh.positions[3 * v]!,
      mesh.positions[3 * v + 1]!,
      mesh.positions[3 * v + 2]!,
    ]
    const normal = unit([mesh.normals[3 * v]!, mesh.normals[3 * v + 1]!, mesh.normals[3 * v + 2]!])
    const a = unit(cross(Math.abs(normal[0]) < 0.8 ? [1, 0, 0] : [0, 1, 0], normal))
    first.set(a, 3 * v)
    return { point, normal, first: a }
  })
  return { ...prepared, first }
}

/** Unit tangents at the display vertices, 3 each. */
export function displayVectors(
  c: Carry & { readonly first: Float32Array },
  mesh: ZonedMesh,
  carried: Carried,
): Float32Array {
  const out = new Float32Array(3 * c.count)
  const { normals } = mesh
  const { first } = c
  for (let v = 0, p = 0; v < c.count; v++, p += 3) {
    const a = carried.re[v]!
    const b = carried.im[v]!
    const fx = first[p]!
    const fy = first[p + 1]!
    const fz = first[p + 2]!
    const nx = normals[p]!
    const ny = normals[p + 1]!
    const nz = normals[p + 2]!
    out[p] = a * fx + b * (ny * fz - nz * fy)
    out[p + 1] = a * fy + b * (nz * fx - nx * fz)
    out[p + 2] = a * fz + b * (nx * fy - ny * fx)
  }
  return out
}

/** The samples of every zone as places whose basis is the clock: 12 first, then 9. */
export function sampleCarry(ground: FieldGround, zones: readonly ZoneRecord[]): Carry {
  const places = zones.flatMap((zone) =>
    zone.samples.map(({ point, normal }) => {
      const n = unit(normal)
      return { point, normal: n, first: clockFrame(zone.id, point, n).noon }
    }),
  )
  return prepareCarry(ground, places.length, (i) => places[i]!)
}
