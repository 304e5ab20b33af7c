/**
 * A pinhole camera: how places of the head come onto a picture. Head coordinates are millimetres, x to the client's left, y up, z to
 * the front; picture coordinates are pixels, right and down from the upper left corner.
 */
import type { Vec3 } from '../head/index.ts'

/** Rows of a rotation, from head coordinates to the camera's: right, down, away. */
export type Rotation = readonly [Vec3, Vec3, Vec3]

export interface Pose {
  readonly rotation: Rotation
  /** Where the head's origin lies in camera coordinates, mm. */
  readonly shift: Vec3
  /** Focal length, px. */
  readonly focal: number
  /** Middle of the picture, px. */
  readonly centre: readonly [number, number]
}

export const rotated = ([a, b, c]: Rotation, v: Vec3): Vec3 => [
  a[0] * v[0] + a[1] * v[1] + a[2] * v[2],
  b[0] * v[0] + b[1] * v[1] + b[2] * v[2],
  c[0] * v[0] + c[1] * v[1] + c[2] * v[2],
]

/** First the right one, then the left. */
export function product(left: Rotation, right: Rotation): Rotation {
  const column = (k: 0 | 1 | 2): Vec3 => rotated(left, [right[0][k], right[1][k], right[2][k]])
  const [a, b, c] = [column(0), column(1), column(2)]
  return [
    [a[0], b[0], c[0]],
    [a[1], b[1], c[1]],
    [a[2], b[2], c[2]],
  ]
}

/** The rotation about an axis by its length in radians (Rodrigues). */
export function rotationOf(v: Vec3): Rotation {
  const angle = Math.hypot(...v)
  if (angle < 1e-12) {
    return [
      [1, -v[2], v[1]],
      [v[2], 1, -v[0]],
      [-v[1], v[0], 1],
    ]
  }
  const [x, y, z] = [v[0] / angle, v[1] / angle, v[2] / angle]
  const [s, c] = [Math.sin(angle), Math.cos(angle)]
  const d = 1 - c
  return [
    [c + x * x * d, x * y * d - z * s, x * z * d + y * s],
    [y * x * d + z * s, c + y * y * d, y * z * d - x * s],
    [z * x * d - y * s, z * y * d + x * s, c + z * z * d],
  ]
}

/** How far two rotations are apart, degrees. */
export function degreesApart(a: Rotation, b: Rotation): number {
  let trace = 0
  for (let i = 0; i < 3; i++) for (let k = 0; k < 3; k++) trace += a[i]![k]! * b[i]![k]!
  return (Math.acos(Math.min(1, Math.max(-1, (trace - 1) / 2))) * 180) / Math.PI
}

/** Seen from straight in front. */
const FRONT: Rotation = [
  [1, 0, 0],
  [0, -1, 0],
  [0, 0, -1],
]

/**
 * Looking at the head from a side. @param yawDeg to the client's left
 * @param pitchDeg from above
 */
export function lookingFrom(yawDeg: number, pitchDeg = 0): Rotation {
  const rad = Math.PI / 180
  return product(
    rotationOf([pitchDeg * rad, 0, 0]),
    product(FRONT, rotationOf([0, -yawDeg * rad, 0])),
  )
}

/** Where a place of the head lies in camera coordinates, mm. */
export function inCamera({ rotation, shift }: Pose, point: Vec3): Vec3 {
  const q = rotated(rotation, point)
  return [q[0] + shift[0], q[1] + shift[1], q[2] + shift[2]]
}

/** A place of the head on the picture, px; undefined for what lies behind the camera. */
export function onPicture(pose: Pose, point: Vec3): [number, number] | undefined {
  const [x, y, z] = inCamera(pose, point)
  if (z <= 0) return undefined
  return [pose.centre[0] + (pose.focal * x) / z, pose.centre[1] + (pose.focal * y) / z]
}
