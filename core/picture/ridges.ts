/**
 * Lines on a picture: second derivatives by sampled Gaussian-derivative kernels (differences on a blurred picture bend angles between
 * the axes), on brightness that is levelled to its surroundings. A dark line is a valley: strongly bent across, hardly along.
 */

/** One number a pixel, row by row. */
export interface Plane {
  readonly width: number
  readonly height: number
  readonly values: Float32Array
}

/** Brightness of a picture, 0 to 1. @param rgba four bytes a pixel */
export function brightness(
  rgba: Uint8Array | Uint8ClampedArray,
  width: number,
  height: number,
): Plane {
  const values = new Float32Array(width * height)
  for (let i = 0, p = 0; i < values.length; i++, p += 4)
    values[i] = (0.25 * rgba[p]! + 0.65 * rgba[p + 1]! + 0.1 * rgba[p + 2]!) / 255
  return { width, height, values }
}

/** The mean of a square round each pixel, by running sums; at the rim of what there is of it. */
function boxMean({ width, height, values }: Plane, reach: number): Float32Array {
  const across = new Float32Array(values.length)
  const out = new Float32Array(values.length)
  const pass = (from: Float32Array, to: Float32Array, n: number, lines: number, step: number, next: number) => {
    for (let line = 0; line < lines; line++) {
      const start = line * next
      let sum = 0
      let many = 0
      for (let i = 0; i < Math.min(reach, n); i++, many++) sum += from[start + i * step]!
      for (let i = 0; i < n; i++) {
        if (i + reach < n) {
          sum += from[start + (i + reach) * step]!
          many++
        }
        if (i - reach - 1 >= 0) {
          sum -= from[start + (i - reach - 1) * step]!
          many--
        }
        to[start + i * step] = sum / many
      }
    }
  } // prettier-ignore
  pass(values, across, width, height, 1, width)
  pass(across, out, height, width, width, 1)
  return out
}

/** Less scatter than this is noise: bare skin is not made to look like hair. */
const LEAST_SD = 0.004

/** Brightness less the mean round it, by the scatter round it. @param reach px */
export function levelled(plane: Plane, reach: number): Plane {
  const { width, height, values } = plane
  const mean = boxMean(plane, reach)
  const off = Float32Array.from(values, (v, i) => v - mean[i]!)
  const square = boxMean({ width, height, values: off.map((v) => v * v) }, reach)
  return {
    ...{ width, height },
    values: off.map((v, i) => v / Math.max(LEAST_SD, Math.sqrt(square[i]!))),
  }
}

/** How line-like each pixel is, and which way: the doubled angle of the line, weighed by the square of its strength. */
export interface Ridges {
  readonly width: number
  readonly height: number
  readonly cos2: Float32Array
  readonly sin2: Float32Array
  readonly weight: Float32Array
}

/** @param sigma width of a line, px. @param dark lines darker than what is round them; lighter when false */
export function ridgesOf({ width, height, values }: Plane, sigma: number, dark = true): Ridges {
  const reach = Math.ceil(4 * sigma)
  const kernel = (of: (x: number, g: number) => number) =>
    Float32Array.from({ length: 2 * reach + 1 }, (_, i) => {
      const x = i - reach
      return of(x, Math.exp((-x * x) / (2 * sigma * sigma)) / (sigma * Math.sqrt(2 * Math.PI)))
    })
  const flat = kernel((_, g) => g)
  const slope = kernel((x, g) => (-x / sigma ** 2) * g)
  const bent = kernel((x, g) => ((x * x) / sigma ** 4 - 1 / sigma ** 2) * g)
  // What is left of the sum is taken off: an even picture has no curvature.
  const rest = bent.reduce((s, v) => s + v, 0) / bent.length
  bent.forEach((v, i) => (bent[i] = v - rest))
  const n = width * height
  const rows = (k: Float32Array) => {
    const out = new Float32Array(n)
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        let s = 0
        for (let d = -reach; d <= reach; d++)
          s += k[d + reach]! * values[y * width + Math.min(width - 1, Math.max(0, x - d))]!
        out[y * width + x] = s
      }
    return out
  }
  const columns = (from: Float32Array, k: Float32Array) => {
    const out = new Float32Array(n)
    for (let y = 0; y < height; y++)
      for (let d = -reach; d <= reach; d++) {
        const row = Math.min(height - 1, Math.max(0, y - d)) * width
        const w = k[d + reach]!
        for (let x = 0; x < width; x++) out[y * width + x]! += w * from[row + x]!
      }
    return out
  }
  const across = columns(rows(bent), flat)
  const mixed = columns(rows(slope), slope)
  const down = columns(rows(flat), bent)
  const sign = dark ? 1 : -1
  const cos2 = new Float32Array(n)
  const sin2 = new Float32Array(n)
  const weight = new Float32Array(n)
  for (let i = 0; i < n; i++) {
    const [xx, xy, yy] = [sign * across[i]!, sign * mixed[i]!, sign * down[i]!]
    const apart = Math.hypot(xx - yy, 2 * xy)
    const most = (xx + yy + apart) / 2
    const strength = most - Math.abs((xx + yy - apart) / 2)
    if (strength <= 0 || apart === 0) continue
    const w = strength * strength
    weight[i] = w
    // The line runs across the way of the strongest bend.
    cos2[i] = (-w * (xx - yy)) / apart
    sin2[i] = (-w * 2 * xy) / apart
  }
  return { width, height, cos2, sin2, weight }
}

/** The line that an area shows on the whole. */
export interface LineSeen {
  /** From right towards down, 0 to 180. */
  readonly degrees: number
  /** How far it may be off by what the area itself shows, degrees. */
  readonly sd: number
  /** 0 for every way alike, 1 for one alone. */
  readonly unity: number
  readonly weight: number
}

/**
 * Gathers an ellipse.
 * @param inside whether a place counts, by how far it lies from the middle, px
 * @param reach so far from the middle at most, px
 * @param block side of the blocks whose scatter is taken, px
 */
export function gathered(
  ridges: Ridges,
  [u, v]: readonly [number, number],
  reach: number,
  inside: (du: number, dv: number) => boolean,
  block: number,
): LineSeen | undefined {
  const blocks = new Map<number, [number, number]>()
  let [c, s, w] = [0, 0, 0]
  const { width, height } = ridges
  for (let y = Math.max(0, Math.ceil(v - reach)); y <= Math.min(height - 1, v + reach); y++)
    for (let x = Math.max(0, Math.ceil(u - reach)); x <= Math.min(width - 1, u + reach); x++) {
      const i = y * width + x
      if (ridges.weight[i] === 0 || !inside(x - u, y - v)) continue
      c += ridges.cos2[i]!
      s += ridges.sin2[i]!
      w += ridges.weight[i]!
      const id = Math.floor(x / block) + 65_536 * Math.floor(y / block)
      const own = blocks.get(id) ?? [0, 0]
      blocks.set(id, [own[0] + ridges.cos2[i]!, own[1] + ridges.sin2[i]!])
    }
  const length = Math.hypot(c, s)
  if (!(length > 0) || blocks.size < 2) return undefined
  const turn = Math.atan2(s, c)
  let scatter = 0
  for (const [bc, bs] of blocks.values())
    scatter += (bs * Math.cos(turn) - bc * Math.sin(turn)) ** 2
  const n = blocks.size
  const sd = (0.5 * Math.sqrt((scatter * n) / (n - 1))) / length
  const degrees = (turn * 90) / Math.PI
  return {
    degrees: ((degrees % 180) + 180) % 180,
    sd: (sd * 180) / Math.PI,
    unity: length / w,
    weight: w,
  }
}
