/** The Laplace fit behind what is learned of growth (`learnGrowth.ts`): Newton's steps on an arrow of equations. */
import type { Figures } from '../house/index.ts'
import { logNormalBetween } from '../stats/index.ts'
import { GROWTH_CONSTANTS as G, type Growth } from './growth.ts'

/** Common part, felt, seen. */
export const THREE = [0, 1, 2]

/** A reading made ready: between what days, against which threshold. */
export interface Told {
  readonly slot: number
  /** 0 felt, 1 seen; −1 measured. */
  readonly sense: number
  readonly low: number
  readonly high: number
  readonly leftMm: number
  readonly lengthMm: number
  readonly spreadMm: number
}

/** A zone that somebody told of, or the place where hair is noticed first. */
export interface Slot {
  readonly curve: Growth['curve']
  readonly seenTimes?: number | undefined
  readonly mu: number
  readonly s: number
}

/** A Laplace fit: the mode in standard normal terms, what its curvature says, and the evidence. */
export interface Fit {
  /** Common part, felt, seen; then a part for each slot. */
  readonly x: Float64Array
  readonly shared: readonly (readonly number[])[]
  readonly own: Float64Array
  readonly beside: Float64Array
  readonly evidence: number
}

/** Log likelihood of a reading, its slopes by the logarithm of the rate and by the threshold, and its curvature. */
interface Pull {
  log: number
  byRate: number
  byMm: number
  rateRate: number
  rateMm: number
  mmMm: number
}

/** What grew in so many days, mm. */
const grown = (rate: number, t: number, end: number, room: number): number =>
  end === Infinity ? rate * t : room * -Math.expm1((-rate * t) / end)

/** How that changes with the logarithm of the rate, mm. */
const slope = (rate: number, t: number, end: number, room: number): number =>
  end === Infinity ? rate * t : (room / end) * rate * t * Math.exp((-rate * t) / end)

/**
 * @param theta logarithm of the rate
 * @param mm this person's own part of the threshold
 * @param most greatest length of fuzz, mm
 * @param into filled and given back: it is asked for hundreds of times
 */
function pull(
  { curve }: Slot,
  r: Told,
  theta: number,
  mm: number,
  care: number,
  most: number,
  into: Pull,
): Pull {
  const rate = Math.exp(theta)
  // A straight line is a curve whose greatest length lies far away.
  const end = curve === 'terminal' ? Infinity : most
  const room = most - r.leftMm
  if (r.sense < 0) {
    const u = (r.lengthMm - r.leftMm - grown(rate, r.low, end, room)) / r.spreadMm
    const j = slope(rate, r.low, end, room) / r.spreadMm
    into.log = -0.5 * u * u
    into.byRate = u * j
    into.rateRate = j * j
    into.byMm = into.rateMm = into.mmMm = 0
    return into
  }
  const sd = r.spreadMm * care
  const wanted = r.lengthMm + mm - r.leftMm
  const [open, shut] = [r.low > 0, r.high !== Infinity]
  const low = open ? (grown(rate, r.low, end, room) - wanted) / sd : -Infinity
  const high = shut ? (grown(rate, r.high, end, room) - wanted) / sd : Infinity
  const lowSlope = open ? slope(rate, r.low, end, room) / sd : 0
  const highSlope = shut ? slope(rate, r.high, end, room) / sd : 0
  const { log, a, b } = logNormalBetween(low, high)
  // Curvature of log(Φ(high) − Φ(low)) in its two ends; it is concave in both together.
  const hh = (shut ? -high * b : 0) - b * b
  const ll = (open ? low * a : 0) - a * a
  const hl = a * b
  // Hair that a pass has just left is not noticed: lengths below it are no one's.
  const atOnce = logNormalBetween(-wanted / sd, Infinity)
  into.log = log - atOnce.log
  into.byRate = b * highSlope - a * lowSlope
  into.byMm = (a - b - atOnce.a) / sd
  into.rateRate = -(hh * highSlope ** 2 + ll * lowSlope ** 2 + 2 * hl * highSlope * lowSlope)
  into.rateMm = (hh * highSlope + ll * lowSlope + hl * (highSlope + lowSlope)) / sd
  into.mmMm = -(hh + ll + 2 * hl + atOnce.a * (atOnce.a + wanted / sd)) / (sd * sd)
  return into
}

const MOST_ROUNDS = 25
/** A gain of the logarithm too small to matter. */
const SETTLED = 1e-3

/** Value, slopes and curvature at a place; the slots are taken out of what is shared. */
interface Place {
  readonly x: Float64Array
  readonly value: number
  readonly gradient: Float64Array
  readonly shared: readonly number[][]
  readonly own: Float64Array
  readonly beside: Float64Array
}

/** Fits rates, thresholds and what they share, for a person so careful whose zones are so alike. */
export function fitted(
  figures: Figures,
  slots: readonly Slot[],
  told: readonly Told[],
  care: number,
  common: number,
  from: Float64Array,
): Fit {
  const ownSd = figures(G.thresholdSdMm)
  const most = figures(G.fuzzGreatestMm)
  const [together, apart] = [Math.sqrt(common), Math.sqrt(1 - common)]
  const p: Pull = { log: 0, byRate: 0, byMm: 0, rateRate: 0, rateMm: 0, mmMm: 0 }
  const at = (x: Float64Array): Place => {
    let value = 0
    for (const v of x) value -= 0.5 * v * v
    const gradient = Float64Array.from(x, (v) => -v)
    const shared = [
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ]
    const own = new Float64Array(slots.length).fill(1)
    const beside = new Float64Array(3 * slots.length)
    for (const r of told) {
      const slot = slots[r.slot]!
      const theta = slot.mu + slot.s * (together * x[0]! + apart * x[3 + r.slot]!)
      const mm = r.sense < 0 ? 0 : ownSd * x[1 + r.sense]!
      pull(slot, r, theta, mm, care, most, p)
      value += p.log
      const [ja, je] = [slot.s * together, slot.s * apart]
      gradient[0]! += p.byRate * ja
      gradient[3 + r.slot]! += p.byRate * je
      shared[0]![0]! += p.rateRate * ja * ja
      own[r.slot]! += p.rateRate * je * je
      beside[3 * r.slot]! += p.rateRate * ja * je
      if (r.sense < 0) continue
      const k = 1 + r.sense
      gradient[k]! += p.byMm * ownSd
      shared[k]![k]! += p.mmMm * ownSd * ownSd
      shared[0]![k]! += p.rateMm * ja * ownSd
      shared[k]![0]! += p.rateMm * ja * ownSd
      beside[3 * r.slot + k]! += p.rateMm * je * ownSd
    }
    for (let i = 0; i < own.length; i++) {
      for (const k of THREE) {
        for (const m of THREE) {
          shared[k]![m]! -= (beside[3 * i + k]! * beside[3 * i + m]!) / own[i]!
        }
      }
    }
    return { x, value, gradient, shared, own, beside }
  }
  let here = at(from)
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const step = newton(here)
    let share = 1
    let next: Place
    // It may overshoot where an interval is far off: halve until it gains.
    do {
      next = at(here.x.map((v, i) => v + share * step[i]!))
      share /= 2
    } while (!(next.value >= here.value) && share > 1e-3)
    if (!(next.value >= here.value)) break
    const gained = next.value - here.value
    here = next
    if (gained < SETTLED) break
  }
  const spread = here.own.reduce((s, v) => s + Math.log(v), 0) + Math.log(determinant3(here.shared))
  return {
    x: here.x,
    shared: invert3(here.shared),
    own: here.own,
    beside: here.beside,
    evidence: here.value - 0.5 * spread,
  }
}

/** The step that the curvature asks for. */
function newton({ x, gradient, shared, own, beside }: Place): Float64Array {
  const right = THREE.map((k) => {
    let v = gradient[k]!
    for (let i = 0; i < own.length; i++) v -= (beside[3 * i + k]! * gradient[3 + i]!) / own[i]!
    return v
  })
  const step = new Float64Array(x.length)
  invert3(shared).forEach(
    (row, k) => (step[k] = THREE.reduce((s, m) => s + row[m]! * right[m]!, 0)),
  )
  for (let i = 0; i < own.length; i++) {
    const left = THREE.reduce((v, k) => v - beside[3 * i + k]! * step[k]!, gradient[3 + i]!)
    step[3 + i] = left / own[i]!
  }
  return step
}

function determinant3(m: readonly (readonly number[])[]): number {
  const [[a, b, c], [d, e, f], [g, h, i]] = m as [number[], number[], number[]]
  return a! * (e! * i! - f! * h!) - b! * (d! * i! - f! * g!) + c! * (d! * h! - e! * g!)
}

function invert3(m: readonly (readonly number[])[]): number[][] {
  const det = determinant3(m)
  const minor = (r: number, c: number) => {
    const rows = [0, 1, 2].filter((k) => k !== r)
    const columns = [0, 1, 2].filter((k) => k !== c)
    return (
      m[rows[0]!]![columns[0]!]! * m[rows[1]!]![columns[1]!]! -
      m[rows[0]!]![columns[1]!]! * m[rows[1]!]![columns[0]!]!
    )
  }
  return [0, 1, 2].map((r) =>
    [0, 1, 2].map((c) => ((r + c) % 2 === 0 ? 1 : -1) * (minor(c, r) / det)),
  )
}
