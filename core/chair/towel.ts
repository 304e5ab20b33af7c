/**
 * Towels (M12): a towel out of the warmer cools by Newton's law. When it may be laid, how long it warms, when it comes off;
 * two readings of the probe give its own time constant.
 */
import { DomainError } from '../errors.ts'
import { constant, type Figures } from '../house/index.ts'
import { ROUTINE_CONSTANTS } from '../services/index.ts'
import type { Towel } from './state.ts'

export const TOWEL_CONSTANTS = {
  startC: constant(60, '°C', 'A towel as it comes out of the warmer', 'H'),
  airC: constant(22, '°C', 'Air of the room', 'H'),
  foldedMin: constant(5, 'min', 'Time constant of a folded towel', 'H'),
  openedMin: constant(3, 'min', 'Time constant of an opened towel on the skin', 'H'),
  offC: constant(37, '°C', 'A hot towel comes off at this', 'H'),
  coldC: constant(25, '°C', 'The towel kept back is cold enough below this', 'H'),
  guessC: constant(5, '°C', 'A towel nobody has read may be this much hotter than reckoned', 'H'),
  readingsApartS: constant(20, 's', 'Two readings this far apart tell how it cools', 'H'),
  harmC: constant(
    48,
    '°C',
    'Contact of ten minutes burns from here',
    'P',
    'ISO 13732-1, contact for 10 min; from memory',
  ),
} as const

const C = TOWEL_CONSTANTS
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

/**
 * The time constant from two readings, minutes: τ = Δt / ln((T₁ − T_air)/(T₂ − T_air)).
 * @throws DomainError `no-cooling` when they do not show it cooling toward the air
 */
export function timeConstantMin(
  first: { atMs: number; tempC: number },
  second: { atMs: number; tempC: number },
  airC: number,
): number {
  const dt = second.atMs - first.atMs
  const ratio = (first.tempC - airC) / (second.tempC - airC)
  if (!(dt > 0) || !(second.tempC > airC) || !(ratio > 1)) {
    throw new DomainError(
      'no-cooling',
      'Those two readings do not show a towel cooling. Read it again in half a minute.',
    )
  }
  return dt / MIN_MS / Math.log(ratio)
}

/** What is known of a towel at a moment. */
export interface TowelNow {
  readonly tempC: number
  /** How much hotter it may be. */
  readonly marginC: number
  readonly by: 'probe' | 'estimate'
  readonly tauMin: number
}

/** How a folded towel cools: from its own readings, else as the house reckons. */
function foldedTau(figures: Figures, towel: Towel): number {
  const last = towel.reads[towel.reads.length - 1]
  const before = [...towel.reads]
    .reverse()
    .find((r) => last && last.atMs - r.atMs >= figures(C.readingsApartS) * 1000)
  if (last && before) {
    try {
      return timeConstantMin(before, last, figures(C.airC))
    } catch (error) {
      if (!(error instanceof DomainError)) throw error
    }
  }
  return figures(C.foldedMin)
}

/** A towel's temperature at a moment. */
export function towelNow(figures: Figures, towel: Towel, nowMs: number): TowelNow {
  const air = figures(C.airC)
  const tau = foldedTau(figures, towel)
  const read = towel.reads[towel.reads.length - 1]
  const base = read ?? { atMs: towel.outAtMs, tempC: figures(C.startC) }
  const laid = towel.laidAtMs
  const foldedUntil = Math.min(nowMs, laid ?? nowMs)
  let tempC = cooled(base.tempC, air, tau, Math.max(0, foldedUntil - base.atMs))
  if (laid !== undefined && nowMs > laid) {
    tempC = cooled(tempC, air, figures(C.openedMin), nowMs - Math.max(laid, base.atMs))
  }
  return {
    tempC,
    marginC: read ? read.withinC : figures(C.guessC),
    by: read ? 'probe' : 'estimate',
    tauMin: laid === undefined ? tau : figures(C.openedMin),
  }
}

/** Whether a towel may be laid: how long to wait, and how long it will then warm. */
export interface TowelPlan {
  readonly now: TowelNow
  /** Until it is at or below the house's limit, its margin included, ms. */
  readonly waitMs: number
  /** From laying until it comes off, ms. */
  readonly warmthMs: number
}

export function towelPlan(figures: Figures, towel: Towel, nowMs: number): TowelPlan {
  const now = towelNow(figures, towel, nowMs)
  const limit = figures(ROUTINE_CONSTANTS.towelAtMostC)
  const air = figures(C.airC)
  const waitMs = Math.ceil(timeTo(now.tempC + now.marginC, limit, air, now.tauMin))
  const laidAt = towel.laidAtMs
  const atLaying = laidAt === undefined ? Math.min(now.tempC, limit - now.marginC) : now.tempC
  return { now, waitMs, warmthMs: timeTo(atLaying, figures(C.offC), air, figures(C.openedMin)) }
}
