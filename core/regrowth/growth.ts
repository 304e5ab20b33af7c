/**
 * Regrowth (M10). Terminal hair grows straight, fuzz toward a greatest length; growth per zone is learned from what was
 * felt, seen and measured.
 */
import { constant, type Figures } from '../house/index.ts'
import type { LengthMethod } from '../looks/index.ts'
import { type HairKind, type ZoneId, zoneStem } from '../zones/index.ts'
import { Z_90 } from '../stats/index.ts'

const SAITOH = 'Saitoh et al. 1970; Myers & Hamilton 1951 (from memory)'
const LOUSSOUARN = 'Loussouarn 2001: 0.396 (0.055) and 0.256 (0.044) mm/day (from memory)'
const BLUME = 'Blume et al. 1991 (from memory)'

export const GROWTH_CONSTANTS = {
  beardChin: constant(0.38, 'mm/day', 'Growth of beard, lip and chin', 'P', SAITOH),
  beardChinSd: constant(0.08, 'mm/day', 'Its spread between people', 'P', SAITOH),
  beardCheek: constant(0.3, 'mm/day', 'Growth of beard, cheeks and neck', 'P', SAITOH),
  beardCheekSd: constant(0.08, 'mm/day', 'Its spread between people', 'P', SAITOH),
  scalp: constant(0.35, 'mm/day', 'Growth of scalp hair', 'P', LOUSSOUARN),
  scalpSd: constant(0.06, 'mm/day', 'Its spread between people', 'P', LOUSSOUARN),
  fuzz: constant(0.03, 'mm/day', 'Growth of fuzz', 'P', BLUME),
  fuzzSd: constant(0.02, 'mm/day', 'Its spread between people', 'P', BLUME),
  brow: constant(0.16, 'mm/day', 'Growth of eyebrow', 'P', SAITOH),
  browSd: constant(0.04, 'mm/day', 'Its spread between people', 'P', SAITOH),
  limb: constant(0.2, 'mm/day', 'Growth on legs and arms', 'P', SAITOH),
  limbSd: constant(0.05, 'mm/day', 'Its spread between people', 'P', SAITOH),
  underarm: constant(0.3, 'mm/day', 'Growth under the arms', 'P', SAITOH),
  underarmSd: constant(0.06, 'mm/day', 'Its spread between people', 'P', SAITOH),
  fuzzGreatestMm: constant(2, 'mm', 'Greatest length of fuzz', 'H'),
  measuredSdMm: constant(0.15, 'mm', 'Spread of a measured, felt or seen length', 'H'),
  rulerSdMm: constant(0.3, 'mm', 'Spread of a length measured with a ruler', 'H'),
  eyeSdMm: constant(0.5, 'mm', 'Spread of a length judged by eye', 'H'),
  readMm: constant(2, 'mm', 'Stubble long enough to read the grain', 'H'),
  slowShare: constant(0.8, '', 'A zone under this share of the others is slow', 'H'),
  slowOdds: constant(0.9, 'probability', 'and is called so when it is this likely', 'H'),
  feltMm: constant(0.5, 'mm', 'Terminal hair is felt at this length', 'H'),
  seenMm: constant(1, 'mm', 'Terminal hair is seen at this length', 'H'),
  feltFuzzMm: constant(0.3, 'mm', 'Fuzz is felt at this length', 'H'),
  seenFuzzMm: constant(0.8, 'mm', 'Fuzz is seen at this length', 'H'),
  waxMm: constant(6.35, 'mm', 'Length that wax needs (a quarter inch)', 'C'),
} as const

const G = GROWTH_CONSTANTS

/** Which curve a hair follows. */
export type GrowthCurve = 'terminal' | 'fuzz'

/** What is believed of a zone's growth, mm/day. */
export interface Growth {
  readonly curve: GrowthCurve
  readonly mean: number
  readonly sd: number
}

/** Prior growth of a zone for the kind of hair found there. */
export function priorGrowth(figures: Figures, zoneId: ZoneId, hair: HairKind): Growth {
  switch (hair) {
    case 'scalp':
      return { curve: 'terminal', mean: figures(G.scalp), sd: figures(G.scalpSd) }
    case 'limb':
      return { curve: 'terminal', mean: figures(G.limb), sd: figures(G.limbSd) }
    case 'underarm':
      return { curve: 'terminal', mean: figures(G.underarm), sd: figures(G.underarmSd) }
    case 'brow':
      return { curve: 'terminal', mean: figures(G.brow), sd: figures(G.browSd) }
    case 'beard': {
      const stem = zoneStem(zoneId)
      const fast = ['upper-lip', 'mouth-corner', 'under-lip', 'chin'].includes(stem)
      return fast
        ? { curve: 'terminal', mean: figures(G.beardChin), sd: figures(G.beardChinSd) }
        : { curve: 'terminal', mean: figures(G.beardCheek), sd: figures(G.beardCheekSd) }
    }
    default:
      return { curve: 'fuzz', mean: figures(G.fuzz), sd: figures(G.fuzzSd) }
  }
}

/** Length after `days`, mm. */
export function hairLengthMm(
  figures: Figures,
  curve: GrowthCurve,
  leftMm: number,
  rate: number,
  days: number,
): number {
  if (curve === 'terminal') return leftMm + rate * days
  const most = figures(G.fuzzGreatestMm)
  return most * (1 - (1 - leftMm / most) * Math.exp((-rate * days) / most))
}

/** Days until a length is reached; Infinity when it never is. */
export function daysToLength(
  figures: Figures,
  curve: GrowthCurve,
  leftMm: number,
  rate: number,
  lengthMm: number,
): number {
  if (lengthMm <= leftMm) return 0
  if (rate <= 0) return Infinity
  if (curve === 'terminal') return (lengthMm - leftMm) / rate
  const most = figures(G.fuzzGreatestMm)
  if (lengthMm >= most) return Infinity
  return (-most / rate) * Math.log((most - lengthMm) / (most - leftMm))
}

/** When hair was felt or seen, or how long it was, so many days after a service. */
export interface GrowthReading {
  readonly kind: 'felt' | 'seen' | 'measured'
  readonly days: number
  /** For `measured`, mm. */
  readonly lengthMm?: number
  /** How it was measured; a photograph with a scale when not said. */
  readonly method?: LengthMethod
  /** Hair left standing by that service, mm. */
  readonly leftMm: number
}

/** Length at which hair is felt or seen, mm. */
export function thresholdMm(figures: Figures, curve: GrowthCurve, kind: 'felt' | 'seen'): number {
  if (curve === 'terminal') return kind === 'felt' ? figures(G.feltMm) : figures(G.seenMm)
  return kind === 'felt' ? figures(G.feltFuzzMm) : figures(G.seenFuzzMm)
}

const spreadOf = (figures: Figures, r: GrowthReading): number =>
  r.method === 'ruler'
    ? figures(G.rulerSdMm)
    : r.method === 'eye'
      ? figures(G.eyeSdMm)
      : figures(G.measuredSdMm)

function lengthRead(figures: Figures, curve: GrowthCurve, r: GrowthReading): number {
  return r.kind === 'measured' ? (r.lengthMm ?? 0) : thresholdMm(figures, curve, r.kind)
}

/**
 * Learns growth from readings. Terminal: exact normal–normal update. Fuzz: by a grid over the rate, given back as its
 * mean and spread.
 */
export function updateGrowth(
  figures: Figures,
  prior: Growth,
  readings: readonly GrowthReading[],
): Growth {
  const usable = readings.filter((r) => r.days > 0)
  if (usable.length === 0) return prior
  if (prior.curve === 'terminal') {
    let precision = 1 / (prior.sd * prior.sd)
    let weighted = prior.mean * precision
    for (const r of usable) {
      const p = (r.days / spreadOf(figures, r)) ** 2
      precision += p
      weighted += (p * (lengthRead(figures, 'terminal', r) - r.leftMm)) / r.days
    }
    return { curve: 'terminal', mean: weighted / precision, sd: 1 / Math.sqrt(precision) }
  }
  const cells = 400
  const most = prior.mean + 6 * prior.sd
  let total = 0
  let first = 0
  let second = 0
  let peak = -Infinity
  const logs: number[] = []
  for (let i = 0; i < cells; i++) {
    const rate = ((i + 0.5) / cells) * most
    let log = -0.5 * ((rate - prior.mean) / prior.sd) ** 2
    for (const r of usable) {
      const expected = hairLengthMm(figures, 'fuzz', r.leftMm, rate, r.days)
      log -= 0.5 * ((lengthRead(figures, 'fuzz', r) - expected) / spreadOf(figures, r)) ** 2
    }
    logs.push(log)
    peak = Math.max(peak, log)
  }
  logs.forEach((log, i) => {
    const rate = ((i + 0.5) / cells) * most
    const w = Math.exp(log - peak)
    total += w
    first += w * rate
    second += w * rate * rate
  })
  const mean = first / total
  return { curve: 'fuzz', mean, sd: Math.sqrt(Math.max(1e-8, second / total - mean * mean)) }
}

/** Days until something is so: even odds, and the 80 % range. */
export interface DayRange {
  readonly even: number
  readonly early: number
  readonly late: number
}

/** Slowest growth that is still believed, mm/day: keeps the late end of a range finite. */
const SLOWEST = 0.004

/** Days until hair is felt or seen after a service that left `leftMm`. */
export function daysUntil(
  figures: Figures,
  growth: Growth,
  kind: 'felt' | 'seen',
  leftMm: number,
): DayRange {
  return daysUntilLength(figures, growth, thresholdMm(figures, growth.curve, kind), leftMm)
}

/** Days until hair has a length, mm; Infinity where it never grows so long. */
export function daysUntilLength(
  figures: Figures,
  growth: Growth,
  length: number,
  leftMm: number,
): DayRange {
  const at = (z: number) =>
    daysToLength(
      figures,
      growth.curve,
      leftMm,
      Math.max(SLOWEST, growth.mean + z * growth.sd),
      length,
    )
  return { even: at(0), early: at(Z_90), late: at(-Z_90) }
}
