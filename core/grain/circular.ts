/**
 * Summary of directions on the circle (M1). Fisher 1993, Statistical Analysis of Circular Data; Mardia & Jupp 2000;
 * Zar, Biostatistical Analysis.
 */
import { DomainError } from '../errors.ts'

const TURN = 2 * Math.PI

/** Angle brought into [0, 2π). */
export function wrapTurn(angle: number): number {
  const r = angle % TURN
  // −1e-17 + 2π rounds to 2π itself, which is 0.
  return r < 0 ? (r + TURN) % TURN : r
}

/** Angle brought into (−π, π]. */
export function wrapHalf(angle: number): number {
  const a = wrapTurn(angle)
  return a > Math.PI ? a - TURN : a
}

/** Smallest angle between two directions, radians in [0, π]. */
export function angleBetween(a: number, b: number): number {
  const d = Math.abs(a - b) % TURN
  return d > Math.PI ? TURN - d : d
}

export const toRadians = (degrees: number): number => (degrees * Math.PI) / 180
export const toDegrees = (radians: number): number => (radians * 180) / Math.PI

/** What a set of directions says together. */
export interface CircularSummary {
  /** Mean direction, radians in [0, 2π). */
  readonly mean: number
  /** Mean resultant length R: 1 when all agree, near 0 when they cancel. */
  readonly meanResultantLength: number
  /** 1 − R. */
  readonly variance: number
  /** √(−2 ln R), radians. */
  readonly standardDeviation: number
  /** Rayleigh's z = n R². */
  readonly rayleighZ: number
  readonly count: number
}

/** Below this R the mean direction is rounding noise, not an answer. */
const BALANCED = 1e-9

/**
 * Weighted circular summary.
 * @param angles radians
 * @param weights one per angle, not negative; all 1 when left out
 * @throws DomainError `no-direction` when there are no angles or they cancel exactly
 */
export function summariseDirections(
  angles: readonly number[],
  weights?: readonly number[],
): CircularSummary {
  let c = 0
  let s = 0
  let total = 0
  angles.forEach((angle, i) => {
    const w = weights?.[i] ?? 1
    c += w * Math.cos(angle)
    s += w * Math.sin(angle)
    total += w
  })
  if (total <= 0) {
    throw new DomainError(
      'no-direction',
      'There are no readings here, so there is no direction to give.',
    )
  }
  const r = Math.min(1, Math.hypot(c, s) / total)
  if (r < BALANCED) {
    throw new DomainError(
      'no-direction',
      'The readings cancel each other out, so there is no direction to give.',
    )
  }
  return {
    mean: wrapTurn(Math.atan2(s, c)),
    meanResultantLength: r,
    variance: 1 - r,
    standardDeviation: Math.sqrt(-2 * Math.log(r)),
    rayleighZ: angles.length * r * r,
    count: angles.length,
  }
}
