/**
 * Towels (M12): a towel out of the warmer cools by Newton's law, how fast and toward what nobody knows: thick and thin towels in
 * cool and warm rooms are weighed against the readings. When it may be laid, how long it warms, when it comes off.
 */
import { constant, type Figures } from '../house/index.ts'
import { ROUTINE_CONSTANTS } from '../services/index.ts'
import { normalCdf } from '../stats/index.ts'
import type { Towel } from './state.ts'

export const TOWEL_CONSTANTS = {
  startC: constant(60, '°C', 'A towel as it comes out of the warmer', 'H'),
  startSdC: constant(3, '°C', 'How far that differs from towel to towel', 'H'),
  coolestC: constant(15, '°C', 'A cool room', 'H'),
  warmestC: constant(30, '°C', 'A warm room', 'H'),
  fastestMin: constant(3, 'min', 'Time constant of a thin folded towel', 'H'),
  slowestMin: constant(9, 'min', 'Time constant of a thick folded towel', 'H'),
  openedMin: constant(3, 'min', 'Time constant of an opened towel on the skin', 'H'),
  offC: constant(37, '°C', 'A hot towel comes off at this', 'H'),
  coldC: constant(25, '°C', 'The towel kept back is cold enough below this', 'H'),
  harmC: constant(
    48,
    '°C',
    'Contact of ten minutes burns from here',
    'P',
    'ISO 13732-1, contact for 10 min; from memory',
  ),
} as const

const C = TOWEL_CONSTANTS
/** A towel is told ready when it is hotter than the limit no more often than this: a promise, no figure of the house. */
const HOTTER_ODDS = 0.003
/** The wrist decides once a towel that came out this much hotter than usual, slow, in a warm room, is below what harms. */
const WRIST_SDS = 1.5
const MIN_MS = 60_000

/** Temperature after `ms`, by T_air + (T₀ − T_air) e^(−t/τ). */
export function cooled(fromC: number, airC: number, tauMin: number, ms: number): number {
  return airC + (fromC - airC) * Math.exp(-ms / (tauMin * MIN_MS))
}

/** Time until a temperature is reached, ms: 0 when it is there already. `Infinity` at or below the air's. */
export function timeTo(fromC: number, toC: number, airC: number, tauMin: number): number {
  if (fromC <= toC) return 0
  if (toC <= airC) return Infinity
  return tauMin * MIN_MS * Math.log((fromC - airC) / (toC - airC))
}

/** What is known of a towel at a moment. */
export interface TowelNow {
  readonly tempC: number
  /** It is hotter by more than this less than once in a hundred times. */
  readonly marginC: number
  readonly by: 'probe' | 'estimate'
  readonly tauMin: number
}

/** A towel and a room as they may be, with the start that the readings leave possible. */
interface TowelCase {
  readonly tauMin: number
  readonly airC: number
  readonly weight: number
  /** Temperature out of the warmer: mean and variance. */
  readonly startC: number
  readonly variance: number
}

const TAUS = 13
const AIRS = 7
/** A reading lies within its `withinC` as often as two standard deviations hold; so much of that is the probe's own, in all its readings alike. */
const WITHIN_SDS = 2
const PROBE_SHARE = 0.8
const NOISE_SHARE = 0.6
const LEAST_NOISE_C = 0.08

/**
 * What a folded towel may be, given its readings: slow and fast towels in cool and warm rooms, each as likely before anything is
 * read; for each the start and the probe's own error follow from their priors and the readings (normal, conjugate).
 */
function cases(figures: Figures, towel: Towel): TowelCase[] {
  const [low, high] = [figures(C.fastestMin), figures(C.slowestMin)]
  const [cool, warm] = [figures(C.coolestC), figures(C.warmestC)]
  const before = 1 / figures(C.startSdC) ** 2
  const off = Math.max(0.01, ...towel.reads.map((r) => (PROBE_SHARE * r.withinC) / WITHIN_SDS))
  const list: (TowelCase & { log: number })[] = []
  let peak = -Infinity
  for (let i = 0; i < TAUS; i++)
    for (let j = 0; j < AIRS; j++) {
      const tauMin = low * (high / low) ** (i / (TAUS - 1))
      const airC = cool + ((warm - cool) * j) / (AIRS - 1)
      // Precision of start and error together, and what it is multiplied with to give their means.
      let [ss, sb, bb] = [before, 0, 1 / (off * off)]
      let [s, b] = [before * figures(C.startC), 0]
      let squares = before * figures(C.startC) ** 2
      for (const r of towel.reads) {
        const share = Math.exp(-Math.max(0, r.atMs - towel.outAtMs) / (tauMin * MIN_MS))
        const shown = r.tempC - airC * (1 - share)
        const sure = 1 / Math.max(LEAST_NOISE_C, (NOISE_SHARE * r.withinC) / WITHIN_SDS) ** 2
        ss += sure * share * share
        sb += sure * share
        bb += sure
        s += sure * share * shown
        b += sure * shown
        squares += sure * shown * shown
      }
      const det = ss * bb - sb * sb
      const startC = (s * bb - b * sb) / det
      const error = (b * ss - s * sb) / det
      const log = -0.5 * Math.log(det) - 0.5 * (squares - startC * s - error * b)
      peak = Math.max(peak, log)
      list.push({ tauMin, airC, startC, variance: bb / det, weight: 0, log })
    }
  const total = list.reduce((sum, c) => sum + Math.exp(c.log - peak), 0)
  return list.map(({ log, ...c }) => ({ ...c, weight: Math.exp(log - peak) / total }))
}

/** Mean temperature of a folded towel at a moment, and what it passes no more often than is promised. */
function foldedAt(
  list: readonly TowelCase[],
  sinceOutMs: number,
): { meanC: number; highC: number } {
  const at = list.map((c) => {
    const share = Math.exp(-Math.max(0, sinceOutMs) / (c.tauMin * MIN_MS))
    return {
      weight: c.weight,
      meanC: c.airC + (c.startC - c.airC) * share,
      sdC: Math.max(0.02, Math.sqrt(c.variance) * share),
    }
  })
  const meanC = at.reduce((s, c) => s + c.weight * c.meanC, 0)
  const above = (x: number) =>
    at.reduce((s, c) => s + c.weight * (1 - normalCdf((x - c.meanC) / c.sdC)), 0)
  let [low, high] = [meanC, meanC + 60]
  for (let i = 0; i < 24; i++) {
    const middle = (low + high) / 2
    if (above(middle) > HOTTER_ODDS) low = middle
    else high = middle
  }
  return { meanC, highC: high }
}

/** A towel's temperature at a moment. */
export const towelNow = (figures: Figures, towel: Towel, nowMs: number): TowelNow =>
  nowOf(figures, towel, cases(figures, towel), nowMs)

const meanOf = (list: readonly TowelCase[], of: (c: TowelCase) => number) =>
  list.reduce((s, c) => s + c.weight * of(c), 0)

function nowOf(
  figures: Figures,
  towel: Towel,
  list: readonly TowelCase[],
  nowMs: number,
): TowelNow {
  const laid = towel.laidAtMs
  const until = Math.min(nowMs, laid ?? nowMs)
  const { meanC, highC } = foldedAt(list, until - towel.outAtMs)
  const by = towel.reads.length > 0 ? ('probe' as const) : ('estimate' as const)
  if (laid === undefined || nowMs <= laid) {
    return { tempC: meanC, marginC: highC - meanC, by, tauMin: meanOf(list, (c) => c.tauMin) }
  }
  const tauMin = figures(C.openedMin)
  const air = meanOf(list, (c) => c.airC)
  const on = (from: number) => cooled(from, air, tauMin, nowMs - laid)
  return { tempC: on(meanC), marginC: on(highC) - on(meanC), by, tauMin }
}

/** Whether a towel may be laid: how long to wait, and how long it will then warm. */
export interface TowelPlan {
  readonly now: TowelNow
  /** Until it is almost surely at or below the house's limit, ms. */
  readonly waitMs: number
  /** Until the wrist may decide, ms: the towel is then almost surely below what harms. */
  readonly wristMs: number
  /** From laying until it comes off, ms. */
  readonly warmthMs: number
}

/** No towel is waited for longer, ms. */
const LONGEST_MS = 60 * MIN_MS

export function towelPlan(figures: Figures, towel: Towel, nowMs: number): TowelPlan {
  const list = cases(figures, towel)
  const now = nowOf(figures, towel, list, nowMs)
  const limit = figures(ROUTINE_CONSTANTS.towelAtMostC)
  const since = Math.max(0, nowMs - towel.outAtMs)
  const folded = towel.laidAtMs === undefined
  const atLaying = folded ? Math.min(now.tempC, limit) : now.tempC
  return {
    now,
    waitMs: folded ? untilBelow(list, limit, since) : 0,
    wristMs: folded ? wristWait(figures, towel, list, since) : 0,
    warmthMs: timeTo(
      atLaying,
      figures(C.offC),
      meanOf(list, (c) => c.airC),
      figures(C.openedMin),
    ),
  }
}

/** Time until a folded towel is almost surely at or below a temperature, ms. */
function untilBelow(list: readonly TowelCase[], limitC: number, sinceMs: number): number {
  const tooHot = (ms: number) => foldedAt(list, sinceMs + ms).highC > limitC
  if (!tooHot(0)) return 0
  let [low, high] = [0, LONGEST_MS]
  while (high - low > 500) {
    const middle = (low + high) / 2
    if (tooHot(middle)) low = middle
    else high = middle
  }
  return Math.ceil(high)
}

/** Time until the wrist may decide, ms: by what was read where anything was, else by a slow, hot towel in a warm room. */
function wristWait(
  figures: Figures,
  towel: Towel,
  list: readonly TowelCase[],
  sinceMs: number,
): number {
  const harm = figures(C.harmC)
  if (towel.reads.length > 0) return untilBelow(list, harm, sinceMs)
  const hot = figures(C.startC) + WRIST_SDS * figures(C.startSdC)
  const slow = timeTo(hot, harm, figures(C.warmestC), figures(C.slowestMin))
  return Math.max(0, Math.ceil(slow - sinceMs))
}
