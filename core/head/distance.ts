/**
 * Signed-distance building stones: negative inside, positive outside, millimetres.
 * Ellipsoid estimate and polynomial smooth minimum: Quilez, articles on distance functions (from memory).
 */

/** Distance estimate at a point, mm. */
export type Distance = (x: number, y: number, z: number) => number

/** Smooth minimum: rounds the seam between two solids over a reach of `k` mm. */
export function smoothMin(a: number, b: number, k: number): number {
  const reach = Math.max(k - Math.abs(a - b), 0)
  return Math.min(a, b) - (reach * reach) / (4 * k)
}

/** Smooth maximum: the same for an intersection. */
export function smoothMax(a: number, b: number, k: number): number {
  return -smoothMin(-a, -b, k)
}

/**
 * |x|, flattened near zero so that a mirrored part does not leave a crease on the midline.
 * Below `soft` mm the fold follows x²/2s + s/2.
 */
export function fold(x: number, soft: number): number {
  const ax = Math.abs(x)
  return ax < soft ? (x * x) / (2 * soft) + soft / 2 : ax
}

/** Ellipsoid with centre c, radii r, turned by `turnDeg` about y (+z toward +x). */
export function ellipsoid(
  cx: number,
  cy: number,
  cz: number,
  rx: number,
  ry: number,
  rz: number,
  turnDeg = 0,
): Distance {
  const turn = (turnDeg * Math.PI) / 180
  const cos = Math.cos(turn)
  const sin = Math.sin(turn)
  return (x, y, z) => {
    const dx = x - cx
    const dz = z - cz
    const px = (cos * dx - sin * dz) / rx
    const py = (y - cy) / ry
    const pz = (sin * dx + cos * dz) / rz
    const k0 = Math.sqrt(px * px + py * py + pz * pz)
    if (k0 < 1e-9) return -Math.min(rx, ry, rz)
    const qx = px / rx
    const qy = py / ry
    const qz = pz / rz
    return (k0 * (k0 - 1)) / Math.sqrt(qx * qx + qy * qy + qz * qz)
  }
}

/** A point on a tube: x, y, z and radius, mm. */
export type TubePoint = readonly [number, number, number, number]

/** Straight tube whose radius runs evenly from a to b. */
export function cone(a: TubePoint, b: TubePoint): Distance {
  return polylineTube([a, b])
}

/** Tube along a Catmull–Rom curve through the points, cut into `cuts` straight pieces per span. */
export function tube(points: readonly TubePoint[], cuts = 8): Distance {
  const dense: TubePoint[] = []
  for (let i = 0; i + 1 < points.length; i++) {
    const p0 = points[Math.max(i - 1, 0)]!
    const p1 = points[i]!
    const p2 = points[i + 1]!
    const p3 = points[Math.min(i + 2, points.length - 1)]!
    for (let c = 0; c < cuts; c++) dense.push(catmullRom(p0, p1, p2, p3, c / cuts))
  }
  dense.push(points[points.length - 1]!)
  return polylineTube(dense)
}

function catmullRom(a: TubePoint, b: TubePoint, c: TubePoint, d: TubePoint, t: number): TubePoint {
  const at = (i: 0 | 1 | 2 | 3) =>
    0.5 *
    (2 * b[i] +
      (c[i] - a[i]) * t +
      (2 * a[i] - 5 * b[i] + 4 * c[i] - d[i]) * t * t +
      (3 * b[i] - a[i] - 3 * c[i] + d[i]) * t * t * t)
  return [at(0), at(1), at(2), at(3)]
}

function polylineTube(points: readonly TubePoint[]): Distance {
  const n = points.length - 1
  // One flat row per piece: start (4), step (4), 1 / squared length.
  const rows = new Float64Array(n * 9)
  for (let i = 0; i < n; i++) {
    const a = points[i]!
    const b = points[i + 1]!
    const d = [b[0] - a[0], b[1] - a[1], b[2] - a[2], b[3] - a[3]] as const
    rows.set([...a, ...d, 1 / (d[0] * d[0] + d[1] * d[1] + d[2] * d[2])], i * 9)
  }
  return (x, y, z) => {
    let best = Infinity
    for (let o = 0; o < rows.length; o += 9) {
      const px = x - rows[o]!
      const py = y - rows[o + 1]!
      const pz = z - rows[o + 2]!
      const dx = rows[o + 4]!
      const dy = rows[o + 5]!
      const dz = rows[o + 6]!
      let t = (px * dx + py * dy + pz * dz) * rows[o + 8]!
      t = t < 0 ? 0 : t > 1 ? 1 : t
      const ex = px - t * dx
      const ey = py - t * dy
      const ez = pz - t * dz
      const d = Math.sqrt(ex * ex + ey * ey + ez * ez) - rows[o + 3]! - t * rows[o + 7]!
      if (d < best) best = d
    }
    return best
  }
}

/** A row of an upright elliptical tube: height y, z of the centre, half width in x, half depth in z. */
export type NeckRow = readonly [number, number, number, number]

/** Upright tube of elliptical section; rows in rising y, joined by a Catmull–Rom curve. */
export function ellipticalTube(rows: readonly NeckRow[]): Distance {
  // A table by the half millimetre: the curve is read a million times.
  const from = rows[0]![0]
  const step = 0.5
  const count = Math.ceil((rows[rows.length - 1]![0] - from) / step) + 1
  const table = new Float64Array(3 * count)
  for (let n = 0, i = 0; n < count; n++) {
    const y = from + n * step
    while (i + 2 < rows.length && y > rows[i + 1]![0]) i++
    const p0 = rows[Math.max(i - 1, 0)]!
    const p3 = rows[Math.min(i + 2, rows.length - 1)]!
    const t = Math.min(1, (y - rows[i]![0]) / (rows[i + 1]![0] - rows[i]![0]))
    const [, cz, a, b] = catmullRom(p0, rows[i]!, rows[i + 1]!, p3, t)
    table.set([cz, a, b], 3 * n)
  }
  return (x, y, z) => {
    const at = Math.min(count - 1.001, Math.max(0, (y - from) / step))
    const n = 3 * Math.floor(at)
    const t = at - Math.floor(at)
    const cz = table[n]! + t * (table[n + 3]! - table[n]!)
    const a = table[n + 1]! + t * (table[n + 4]! - table[n + 1]!)
    const b = table[n + 2]! + t * (table[n + 5]! - table[n + 2]!)
    const px = x / a
    const pz = (z - cz) / b
    const k0 = Math.hypot(px, pz)
    if (k0 < 1e-9) return -Math.min(a, b)
    return (k0 * (k0 - 1)) / Math.hypot(px / a, pz / b)
  }
}
