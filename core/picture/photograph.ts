/**
 * A simulated camera: it photographs a head whose hair and skin are known, so that reading pictures can be tried and tested without a
 * camera, and shows what a reading is held against. Skin in uneven light, hair as single dark or light lines that leave the skin at
 * their lift and cast a shadow, blur and noise. Hidden parts are hidden by depth.
 */
import { dot, unit, type Vec3 } from '../head/index.ts'
import { drawNormal, drawPoisson } from '../stats/index.ts'
import { inCamera, type Pose } from './camera.ts'

/** Hair as it truly is at a place; none where skin is bare. */
export interface TrueHair {
  /** From root to tip: unit. */
  readonly direction: Vec3
  readonly lengthMm: number
  readonly perCm2: number
  readonly widthMm: number
  /** Brightness over that of the skin: 0 black, 1 as the skin, more for light hair. */
  readonly tone: number
}

/** A place of the skin that is asked about. */
export interface SkinPlace {
  readonly triangle: number
  readonly point: Vec3
  readonly normal: Vec3
}

export interface TrueSkin {
  readonly positions: Float32Array
  readonly normals: Float32Array
  readonly indices: Uint32Array
  /** Each hair lies off its place's direction by so much, degrees. */
  readonly hairSpreadDeg: number
  readonly hair: (place: SkinPlace) => TrueHair | undefined
  /** Colour of the skin in even light, 0 to 1 in red, green, blue (linear). */
  readonly colour: (place: SkinPlace) => Vec3
}

export interface PhotoWish {
  readonly pose: Pose
  readonly width: number
  readonly height: number
  /** Towards the light: head coordinates. */
  readonly light: Vec3
  /** Share of the light that comes from everywhere. */
  readonly soft: number
  readonly blurPx: number
  readonly noise: number
  /** How much darker a hair's shadow is than skin; 0 for none. */
  readonly shadow: number
}

export interface Photograph {
  readonly width: number
  readonly height: number
  /** Red, green, blue and 255, a byte each, row by row. */
  readonly rgba: Uint8ClampedArray
}

/** What each pixel shows before hair: depth and triangle. */
class Raster {
  readonly depth: Float32Array
  readonly triangle: Int32Array
  readonly width: number
  readonly height: number

  constructor(width: number, height: number) {
    this.width = width
    this.height = height
    this.depth = new Float32Array(width * height).fill(Infinity)
    this.triangle = new Int32Array(width * height).fill(-1)
  }

  /** True where nothing is nearer than so deep, within a millimetre and a half. */
  sees(u: number, v: number, z: number): boolean {
    const [x, y] = [Math.round(u), Math.round(v)]
    if (x < 0 || y < 0 || x >= this.width || y >= this.height) return false
    return z < this.depth[y * this.width + x]! + 1.5
  }
}

export function photograph(skin: TrueSkin, wish: PhotoWish, random: () => number): Photograph {
  const { width, height, pose } = wish
  const seen = projected(skin, pose)
  const raster = new Raster(width, height)
  const linear = new Float32Array(3 * width * height).fill(0.25)
  const light = unit(wish.light)
  const triangles = skin.indices.length / 3
  const facing: number[] = []
  for (let t = 0; t < triangles; t++) if (fill(raster, seen, skin, t)) facing.push(t)
  paint(raster, seen, skin, wish, light, linear)
  for (const t of facing) grow(raster, skin, t, wish, light, linear, random)
  const soft = blurred(linear, width, height, wish.blurPx)
  const rgba = new Uint8ClampedArray(4 * width * height)
  for (let i = 0; i < width * height; i++) {
    // One grain for all three colours, as of brightness, and a little of its own for each.
    const grain = drawNormal(random) * wish.noise
    for (let c = 0; c < 3; c++) {
      const own = grain + 0.4 * wish.noise * drawNormal(random)
      rgba[4 * i + c] = 255 * (encoded(soft[3 * i + c]!) + own)
    }
    rgba[4 * i + 3] = 255
  }
  return { width, height, rgba }
}

/** Light as a picture keeps it (sRGB, IEC 61966-2-1; from memory). */
export const encoded = (v: number): number =>
  v <= 0.0031308 ? 12.92 * Math.max(0, v) : 1.055 * Math.min(1, v) ** (1 / 2.4) - 0.055

/** Where each vertex comes onto the picture: right, down, depth. */
function projected({ positions }: TrueSkin, pose: Pose): Float32Array {
  const out = new Float32Array(positions.length)
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y, z] = inCamera(pose, [positions[i]!, positions[i + 1]!, positions[i + 2]!])
    out[i] = pose.centre[0] + (pose.focal * x) / z
    out[i + 1] = pose.centre[1] + (pose.focal * y) / z
    out[i + 2] = z
  }
  return out
}

/** The corners of a triangle on the picture. */
const cornersOf = (seen: Float32Array, { indices }: TrueSkin, t: number) =>
  [0, 1, 2].map((k) => {
    const i = 3 * indices[3 * t + k]!
    return [seen[i]!, seen[i + 1]!, seen[i + 2]!] as const
  }) as [Corner, Corner, Corner]
type Corner = readonly [number, number, number]

/** Twice the area on the picture, with its sign: a triangle that faces the camera turns the other way there, as down is positive. */
const turnOf = ([a, b, c]: readonly [Corner, Corner, Corner]) =>
  (b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1])

/** @returns whether the triangle faces the camera and lies on the picture */
function fill(raster: Raster, seen: Float32Array, skin: TrueSkin, t: number): boolean {
  const corners = cornersOf(seen, skin, t)
  const turn = turnOf(corners)
  if (!(turn < 0) || corners.some((c) => c[2] <= 0)) return false
  const [a, b, c] = corners
  const { width, height } = raster
  const from = (k: 0 | 1) => Math.max(0, Math.floor(Math.min(a[k], b[k], c[k])))
  const to = (k: 0 | 1, most: number) => Math.min(most - 1, Math.ceil(Math.max(a[k], b[k], c[k])))
  const [x0, x1, y0, y1] = [from(0), to(0, width), from(1), to(1, height)]
  if (x0 > x1 || y0 > y1) return false
  for (let y = y0; y <= y1; y++)
    for (let x = x0; x <= x1; x++) {
      const w0 = ((b[0] - x) * (c[1] - y) - (c[0] - x) * (b[1] - y)) / turn
      const w1 = ((c[0] - x) * (a[1] - y) - (a[0] - x) * (c[1] - y)) / turn
      const w2 = 1 - w0 - w1
      if (w0 < -1e-6 || w1 < -1e-6 || w2 < -1e-6) continue
      const z = 1 / (w0 / a[2] + w1 / b[2] + w2 / c[2])
      const i = y * width + x
      if (z >= raster.depth[i]!) continue
      raster.depth[i] = z
      raster.triangle[i] = t
    }
  return true
}

/** A place within a triangle by the weights of its corners. */
function placeOf(skin: TrueSkin, t: number, w: readonly [number, number, number]): SkinPlace {
  const blend = (of: Float32Array): Vec3 => {
    const out: [number, number, number] = [0, 0, 0]
    for (let k = 0; k < 3; k++) {
      const i = 3 * skin.indices[3 * t + k]!
      for (let d = 0; d < 3; d++) out[d]! += w[k]! * of[i + d]!
    }
    return out
  }
  return { triangle: t, point: blend(skin.positions), normal: unit(blend(skin.normals)) }
}

/** The skin in its light. */
function paint(
  raster: Raster,
  seen: Float32Array,
  skin: TrueSkin,
  { soft }: PhotoWish,
  light: Vec3,
  linear: Float32Array,
): void {
  const { width, height } = raster
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x
      const t = raster.triangle[i]!
      if (t < 0) continue
      const corners = cornersOf(seen, skin, t)
      const [a, b, c] = corners
      const turn = turnOf(corners)
      const w0 = ((b[0] - x) * (c[1] - y) - (c[0] - x) * (b[1] - y)) / turn
      const w1 = ((c[0] - x) * (a[1] - y) - (a[0] - x) * (c[1] - y)) / turn
      const place = placeOf(skin, t, [w0, w1, 1 - w0 - w1])
      const shine = soft + (1 - soft) * Math.max(0, dot(place.normal, light))
      const colour = skin.colour(place)
      for (let k = 0; k < 3; k++) linear[3 * i + k] = colour[k]! * shine
    }
}

/** The hairs of a triangle. */
function grow(
  raster: Raster,
  skin: TrueSkin,
  t: number,
  { pose, shadow }: PhotoWish,
  light: Vec3,
  linear: Float32Array,
  random: () => number,
): void {
  const middle = placeOf(skin, t, [1 / 3, 1 / 3, 1 / 3])
  const hair = skin.hair(middle)
  if (!hair) return
  const many = drawPoisson(random, (hair.perCm2 * areaMm2(skin, t)) / 100)
  const sd = (skin.hairSpreadDeg * Math.PI) / 180
  for (let h = 0; h < many; h++) {
    const [p, q] = [Math.sqrt(random()), random()]
    const { point } = placeOf(skin, t, [1 - p, p * (1 - q), p * q])
    const lean = (v: number) => v + sd * drawNormal(random)
    const along = unit([lean(hair.direction[0]), lean(hair.direction[1]), lean(hair.direction[2])])
    const root = inCamera(pose, point)
    const [u, v] = onto(pose, root)
    if (!raster.sees(u, v, root[2])) continue
    const tip: Vec3 = [
      point[0] + hair.lengthMm * along[0],
      point[1] + hair.lengthMm * along[1],
      point[2] + hair.lengthMm * along[2],
    ]
    const wide = (hair.widthMm * pose.focal) / root[2]
    const end = onto(pose, inCamera(pose, tip))
    if (shadow > 0) {
      // The shadow of the tip falls along the light onto the skin's own plane.
      const up = dot(middle.normal, along) * hair.lengthMm
      const slope = Math.max(0.15, dot(middle.normal, light))
      const fall: Vec3 = [
        tip[0] - (light[0] * up) / slope,
        tip[1] - (light[1] * up) / slope,
        tip[2] - (light[2] * up) / slope,
      ]
      draw(raster, linear, [u, v], onto(pose, inCamera(pose, fall)), 1.4 * wide, 1 - shadow)
    }
    draw(raster, linear, [u, v], end, wide, hair.tone)
  }
}

const onto = ({ focal, centre }: Pose, [x, y, z]: Vec3): [number, number] => [
  centre[0] + (focal * x) / z,
  centre[1] + (focal * y) / z,
]

function areaMm2({ positions, indices }: TrueSkin, t: number): number {
  const at = (k: number, d: number) => positions[3 * indices[3 * t + k]! + d]!
  const [ux, uy, uz] = [0, 1, 2].map((d) => at(1, d) - at(0, d)) as [number, number, number]
  const [vx, vy, vz] = [0, 1, 2].map((d) => at(2, d) - at(0, d)) as [number, number, number]
  return 0.5 * Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx)
}

/** A soft-edged line that darkens or lightens what it covers. */
function draw(
  raster: Raster,
  linear: Float32Array,
  [u0, v0]: readonly [number, number],
  [u1, v1]: readonly [number, number],
  wide: number,
  tone: number,
): void {
  const length = Math.hypot(u1 - u0, v1 - v0)
  const sigma = Math.max(0.35, wide / 2.2)
  // A line thinner than a pixel covers less of it.
  const cover = Math.min(1, wide / (2.2 * sigma))
  const reach = 3 * sigma
  const { width, height } = raster
  const [c, s] = length > 1e-9 ? [(u1 - u0) / length, (v1 - v0) / length] : [1, 0]
  for (let y = Math.max(0, Math.ceil(Math.min(v0, v1) - reach)); y <= Math.min(height - 1, Math.max(v0, v1) + reach); y++)
    for (let x = Math.max(0, Math.ceil(Math.min(u0, u1) - reach)); x <= Math.min(width - 1, Math.max(u0, u1) + reach); x++) {
      const along = Math.max(0, Math.min(length, (x - u0) * c + (y - v0) * s))
      const d2 = (x - u0 - along * c) ** 2 + (y - v0 - along * s) ** 2
      if (d2 > reach * reach) continue
      const share = cover * Math.exp(-d2 / (2 * sigma * sigma))
      const i = 3 * (y * width + x)
      for (let k = 0; k < 3; k++) linear[i + k]! *= 1 + share * (tone - 1)
    }
} // prettier-ignore

/** Out of focus: a Gaussian in both directions. */
function blurred(from: Float32Array, width: number, height: number, sigma: number): Float32Array {
  if (!(sigma > 0)) return from
  const reach = Math.ceil(3 * sigma)
  const kernel = Float32Array.from({ length: 2 * reach + 1 }, (_, i) =>
    Math.exp(-((i - reach) ** 2) / (2 * sigma * sigma)),
  )
  const total = kernel.reduce((s, v) => s + v, 0)
  const pass = (source: Float32Array, stepX: number, stepY: number) => {
    const out = new Float32Array(source.length)
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const o = 3 * (y * width + x)
        for (let d = -reach; d <= reach; d++) {
          const xx = Math.min(width - 1, Math.max(0, x + d * stepX))
          const yy = Math.min(height - 1, Math.max(0, y + d * stepY))
          const i = 3 * (yy * width + xx)
          const w = kernel[d + reach]! / total
          for (let k = 0; k < 3; k++) out[o + k]! += w * source[i + k]!
        }
      }
    return out
  }
  return pass(pass(from, 1, 0), 0, 1)
}
