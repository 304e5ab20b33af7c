/** Reading the field off at any place of the head. */
import { type SurfacePoint, tangentPart, unit, type Vec3 } from '../head/index.ts'
import { directionAtVertex, turnWithNormal, type Connection } from './connection.ts'
import type { FieldAnswer, FieldGround, FieldTold } from './field.ts'

/** Direction and trust of the field at a place near the mesh. */
export interface FieldAt {
  /** Unit tangent, root to tip. */
  readonly direction: Vec3
  /** 0 to 1; 0 where nothing was read near. */
  readonly trust: number
  /** Within how many degrees two of three directions are right; NaN where it is not read, or was not asked. */
  readonly errorDeg: number
}

/**
 * The field at a place, carried there from the corners of the nearest triangle of the solve mesh.
 * @throws DomainError `off-the-head`
 */
export function fieldAt(
  ground: FieldGround,
  answer: FieldAnswer & Partial<FieldTold>,
  at: SurfacePoint,
): FieldAt {
  const { connection, locator } = ground
  const { triangle, weights } = locator.nearest(at.point, at.normal)
  let sum: Vec3 = [0, 0, 0]
  let trust = 0
  let error = NaN
  for (let k = 0; k < 3; k++) {
    const v = connection.indices[3 * triangle + k]!
    const size = Math.hypot(answer.re[v]!, answer.im[v]!)
    if (size === 0) continue
    const d = directionThere(connection, answer, v, at.normal)
    const w = weights[k]!
    sum = [sum[0] + w * d[0], sum[1] + w * d[1], sum[2] + w * d[2]]
    trust += w * answer.trust[v]!
    // The nearest corner speaks: a mean would blur read and not read.
    if (answer.errorDeg && w >= Math.max(...weights)) error = answer.errorDeg[v]!
  }
  return { direction: unit(tangentPart(sum, at.normal)), trust, errorDeg: error }
}

/** Direction of the field at a vertex, carried to a place with another normal. */
export function directionThere(
  connection: Connection,
  answer: FieldAnswer,
  v: number,
  normal: Vec3,
): Vec3 {
  const own: Vec3 = [
    connection.normals[3 * v]!,
    connection.normals[3 * v + 1]!,
    connection.normals[3 * v + 2]!,
  ]
  const angle = Math.atan2(answer.im[v]!, answer.re[v]!)
  return turnWithNormal(directionAtVertex(connection, v, angle), own, normal)
}
