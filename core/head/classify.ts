/**
 * Where the zones of the head lie: an ordered decision over head coordinates, once for the client's left half (x ≥ 0) and
 * mirrored. Borders follow the trade's parts of the face; their figures are house estimates.
 */
import type { ZoneStem } from '../zones/index.ts'
import { ear, HeadField, lips, type Detail } from './shape.ts'

/** Smooth value over rising keys: cubic Hermite with limited slopes (Fritsch & Carlson 1980, from memory). */
function smoothTable(table: readonly (readonly [number, number])[]): (at: number) => number {
  const n = table.length
  const d: number[] = []
  for (let i = 0; i + 1 < n; i++)
    d.push((table[i + 1]![1] - table[i]![1]) / (table[i + 1]![0] - table[i]![0]))
  const m = table.map((_, i) => {
    if (i === 0) return d[0]!
    if (i === n - 1) return d[n - 2]!
    const a = d[i - 1]!
    const b = d[i]!
    return a * b <= 0 ? 0 : (2 * a * b) / (a + b)
  })
  return (at) => {
    if (at <= table[0]![0]) return table[0]![1]
    if (at >= table[n - 1]![0]) return table[n - 1]![1]
    let i = 0
    while (at > table[i + 1]![0]) i++
    const h = table[i + 1]![0] - table[i]![0]
    const t = (at - table[i]![0]) / h
    const t2 = t * t
    const t3 = t2 * t
    return (
      (2 * t3 - 3 * t2 + 1) * table[i]![1] +
      (t3 - 2 * t2 + t) * h * m[i]! +
      (-2 * t3 + 3 * t2) * table[i + 1]![1] +
      (t3 - t2) * h * m[i + 1]!
    )
  }
}

/** Height of the hairline, mm, over the angle round the head (degrees from straight ahead). */
export const hairlineHeight = smoothTable([
  [0, 62],
  [28, 65],
  [46, 48],
  [58, 24],
  [76, 16],
  [96, 8],
  [112, -30],
  [140, -50],
])

/** Half distance between the nose–lip folds over height, mm. */
const foldHalfWidth = smoothTable([
  [-108, 26],
  [-82, 33],
  [-62, 29],
  [-44, 19.5],
])
const noseHalfWidth = smoothTable([
  [-48, 15],
  [-42, 19.5],
  [-28, 17.5],
  [-4, 12.5],
  [9, 10.5],
])
/** Height of a brow's middle over the distance from the head's middle, mm. */
export const browCentre = smoothTable([
  [8, 16.5],
  [16, 18],
  [28, 20.8],
  [38, 21.2],
  [54, 15.5],
])

/** Half the height of a brow there, mm. */
export const browHalfHeight = (x: number): number => 5.5 + ((2 - 5.5) * (x - 8)) / 46

/** The lower border of the face seen from the side, (z, y): from under the chin back to the ear. */
const JAW_BORDER: readonly (readonly [number, number])[] = [
  [110, -114],
  [72, -112.5],
  [42, -101],
  [12, -86],
  [-2, -70],
  [-4, -40],
  [-4, -20],
]
/** Share of the jaw strip's taper at each border point: wide in front, narrow at the ear. */
const JAW_WIDTH = [14, 14, 13, 12, 10.5, 9, 9]

/** Signed distance above the jaw border in the side view, mm, and the strip's width there. */
function overJaw(z: number, y: number): { distance: number; width: number } {
  let best = Infinity
  let signed = 0
  let width = 0
  for (let i = 0; i + 1 < JAW_BORDER.length; i++) {
    const [az, ay] = JAW_BORDER[i]!
    const [bz, by] = JAW_BORDER[i + 1]!
    const dz = bz - az
    const dy = by - ay
    const t = Math.min(1, Math.max(0, ((z - az) * dz + (y - ay) * dy) / (dz * dz + dy * dy)))
    const ez = z - az - t * dz
    const ey = y - ay - t * dy
    const d = Math.hypot(ez, ey)
    if (d < best) {
      best = d
      // The border runs backward and then up; the face lies on its right hand.
      signed = dz * ey - dy * ez < 0 ? d : -d
      width = JAW_WIDTH[i]! + t * (JAW_WIDTH[i + 1]! - JAW_WIDTH[i]!)
    }
  }
  return { distance: signed, width }
}

const DEGREE = 180 / Math.PI

/**
 * The zone of a surface point with x ≥ 0, without its side.
 * @param detail which head the point lies on: the solve mesh has simpler ears.
 */
export function zoneClassifier(detail: Detail): (x: number, y: number, z: number) => ZoneStem {
  const withoutEar = new HeadField(detail, 'ear').distance
  const withoutLips = new HeadField(detail, 'lips').distance
  return (x, y, z) => {
    const around = Math.atan2(x, z + 10) * DEGREE
    if (y < -205 && onCap(y)) return 'base'
    if (x > 45 && y > -50 && y < 45 && z > -60 && z < 40) {
      if (ear[detail](x, y, z) < withoutEar(x, y, z) - 0.4) return 'ear'
    }
    if (y > hairlineHeight(around)) return scalp(x, y, z, around)
    if (around > 118 && y < 10) {
      if (y < -98) return 'neck-back'
      return x < 24 ? 'nape-centre' : 'nape'
    }
    const jaw = overJaw(z, y)
    if (jaw.distance < 0) return neck(x, y, z)
    if (z > 35) {
      if (y < -55 && y > -90 && x < 32 && lips(x, y, z) < withoutLips(x, y, z) - 0.2) return 'lips'
      const front = face(x, y)
      if (front) return front
    }
    if (jaw.distance < jaw.width && !(y > -30)) return 'jaw'
    if (y > 15 && around < 34 + 0.12 * (y - 20)) return x < 20 ? 'forehead-centre' : 'forehead'
    if (around > 63 - 0.16 * y && y > -34) return 'sideburn'
    if (y > -5) return 'temple'
    return y > -42 + 0.11 * (90 - z) ? 'cheek-upper' : 'cheek-lower'
  }
}

function onCap(y: number): boolean {
  return y < -211.5
}

function scalp(x: number, y: number, z: number, around: number): ZoneStem {
  if (y > 42 + 0.86 * (Math.sqrt(x * x + 484) - 22) - 0.02 * z) {
    return z > 30 ? 'scalp-front' : z > -28 ? 'scalp-mid' : 'scalp-crown'
  }
  if (around > 128) return 'occiput'
  return around > 100 && y < 14 ? 'scalp-behind-ear' : 'scalp-side'
}

function neck(x: number, y: number, z: number): ZoneStem {
  const centre = x < 16 + 0.15 * Math.max(0, y + 205)
  if (z - 43 + 0.55 * (y + 122) > 0) return centre ? 'under-chin-centre' : 'under-chin'
  if (y > -156 - 0.14 * z) return centre ? 'neck-upper-centre' : 'neck-upper'
  return centre ? 'neck-lower-centre' : 'neck-lower'
}

/** The parts of the middle of the face, or undefined for cheek, forehead and temple. */
function face(x: number, y: number): ZoneStem | undefined {
  const inOval = (cx: number, cy: number, rx: number, ry: number) =>
    ((x - cx) / rx) ** 2 + ((y - cy) / ry) ** 2 < 1
  const browAt = browCentre(x)
  const browHalf = browHalfHeight(x)
  if (inOval(0, 15, 10.8, 11.5)) return 'glabella'
  if (x > 6 && x < 54 && Math.abs(y - browAt) < browHalf) return 'brow'
  if (inOval(32.5, 1, 20.5, y > 1 ? 17.5 : 14) && y < browAt) return 'eye'
  if (y > -48 && y < 9 && x < noseHalfWidth(y)) {
    if (y < -29) return 'nose-tip'
    return x < 8 ? 'nose-bridge' : 'nose-side'
  }
  // The corner between glabella, brow and eye belongs to the side of the nose.
  if (x < 16 && y > -4 && y < browAt) return 'nose-side'
  if (y < 4 && inOval(33, -3, 23.5, 22)) return 'under-eye'
  const inCorner = x > 22 && inOval(30, -69.4, 7, 7.5)
  const fold = foldHalfWidth(y)
  if (y < -42 && x < Math.max(fold, 0)) {
    if (inCorner) return 'mouth-corner'
    if (y > -69.6) return 'upper-lip'
    return inOval(0, -80, 15, 12) ? 'under-lip' : 'chin'
  }
  return inCorner ? 'mouth-corner' : undefined
}
