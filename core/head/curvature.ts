/**
 * Principal curvatures of the head from its distance function: the shape operator is the tangential part of the
 * Hessian over the gradient's length (Goldman 2005, "Curvature formulas for implicit curves and surfaces", from memory).
 */
import type { HeadField } from './shape.ts'
import type { Vec3 } from './frames.ts'

/** Principal radii of a zone, mm; negative is hollow, very large is flat (stored as 10 000). */
export interface ZoneCurvature {
  /** Radius across the tightest direction (mean curvature of the zone in that direction). */
  readonly tightMm: number
  /** Radius across the flattest direction. */
  readonly flatMm: number
  /** One over the mean of both curvatures. */
  readonly meanMm: number
}

/** Principal curvatures at a surface point, per mm, the larger in size first; positive is bulging. */
export function curvatureAt(field: HeadField, p: Vec3): { k1: number; k2: number } {
  const h = 2.5
  const n = [0, 0, 0]
  const slope = field.normal(p[0], p[1], p[2], n, 1.5)
  // Gradient differences along two tangents give the tangential Hessian.
  const helper: Vec3 = Math.abs(n[1]!) < 0.9 ? [0, 1, 0] : [1, 0, 0]
  const t1 = norm(crossOf(helper, n))
  const t2 = crossOf(n, t1)
  const gradient = (q: readonly number[]) => {
    const g = [0, 0, 0]
    const s = field.normal(q[0]!, q[1]!, q[2]!, g, 1.5)
    return g.map((c) => c * s)
  }
  const step = (t: readonly number[]) => {
    const plus = gradient([p[0] + h * t[0]!, p[1] + h * t[1]!, p[2] + h * t[2]!])
    const minus = gradient([p[0] - h * t[0]!, p[1] - h * t[1]!, p[2] - h * t[2]!])
    return plus.map((c, i) => (c - minus[i]!) / (2 * h * slope))
  }
  const d1 = step(t1)
  const d2 = step(t2)
  const a = inner(d1, t1)
  const b = (inner(d1, t2) + inner(d2, t1)) / 2
  const c = inner(d2, t2)
  const mean = (a + c) / 2
  const spread = Math.hypot((a - c) / 2, b)
  const k = [mean + spread, mean - spread] as const
  return Math.abs(k[0]) >= Math.abs(k[1]) ? { k1: k[0], k2: k[1] } : { k1: k[1], k2: k[0] }
}

/** Area-weighted curvature of a zone. */
export function zoneCurvature(
  points: readonly { k1: number; k2: number; weight: number }[],
): ZoneCurvature {
  let w = 0
  let k1 = 0
  let k2 = 0
  for (const p of points) {
    w += p.weight
    // The bulging direction limits a straight edge, whatever its rank by size.
    k1 += p.weight * Math.max(p.k1, p.k2)
    k2 += p.weight * Math.min(p.k1, p.k2)
  }
  const radius = (k: number) => (Math.abs(k) < 1e-4 ? 10000 : Math.round(10 / k) / 10)
  return { tightMm: radius(k1 / w), flatMm: radius(k2 / w), meanMm: radius((k1 + k2) / 2 / w) }
}

const inner = (a: readonly number[], b: readonly number[]) =>
  a[0]! * b[0]! + a[1]! * b[1]! + a[2]! * b[2]!
const crossOf = (a: readonly number[], b: readonly number[]) => [
  a[1]! * b[2]! - a[2]! * b[1]!,
  a[2]! * b[0]! - a[0]! * b[2]!,
  a[0]! * b[1]! - a[1]! * b[0]!,
]
const norm = (a: readonly number[]) => {
  const l = Math.hypot(a[0]!, a[1]!, a[2]!) || 1
  return a.map((c) => c / l)
}
