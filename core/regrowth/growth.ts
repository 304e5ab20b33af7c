/**
 * Regrowth (M10). Terminal hair grows straight, fuzz toward a greatest length; growth per zone is learned from what was
 * felt, seen and measured.
 */
import { constant, type Figures } from '../house/index.ts'
import type { LengthMethod } from '../looks/index.ts'
import { lastsDays, type Method, METHOD_CONSTANTS } from '../services/index.ts'
import { type HairKind, type ZoneId, zoneStem } from '../zones/index.ts'
import { normalCdf, Z_90 } from '../stats/index.ts'

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
  thresholdSdMm: constant(
    0.1,
    'mm',
    'How much people differ in the length at which they feel or see hair',
    'H',
  ),
  careSpread: constant(
    0.5,
    '',
    'How much people differ in how carefully they tell when they felt or saw it (spread of its logarithm)',
    'H',
  ),
  unbelievable: constant(
    4,
    'standard deviations',
    'A reading that would take growth so far from what is usual is asked about, not learned from',
    'H',
  ),
  rulerSdMm: constant(0.3, 'mm', 'Spread of a length measured with a ruler', 'H'),
  eyeSdMm: constant(0.5, 'mm', 'Spread of a length judged by eye', 'H'),
  readMm: constant(2, 'mm', 'Stubble long enough to read the grain', 'H'),
  slowShare: constant(0.8, '', 'A zone under this share of the others is slow', 'H'),
  slowOdds: constant(0.9, 'probability', 'and is called so when it is this likely', 'H'),
  feltMm: constant(0.5, 'mm', 'Terminal hair is felt at this length', 'H'),
  seenMm: constant(1, 'mm', 'Terminal hair is seen at this length', 'H'),
  feltFuzzMm: constant(0.3, 'mm', 'Fuzz is felt at this length', 'H'),
  seenFuzzMm: constant(0.8, 'mm', 'Fuzz is seen at this length', 'H'),
  seenStrong: constant(
    0.8,
    '',
    'Hair that stands out is seen at so many times the usual length',
    'H',
  ),
  seenLow: constant(1.5, '', 'Hair that hardly stands out, at so many times', 'H'),
  waxMm: constant(6.35, 'mm', 'Length that wax needs (a quarter inch)', 'C'),
} as const

const G = GROWTH_CONSTANTS

/** Which curve a hair follows. */
export type GrowthCurve = 'terminal' | 'fuzz'

/** The length at which a person feels or sees hair. */
export interface Threshold {
  readonly mm: number
  readonly sd: number
  /** Covariance with the logarithm of the rate, mm. */
  readonly withRate: number
}

/** What is believed of a zone's growth. Rates are above 0 and skewed: log-normal with this mean and spread, mm/day. */
export interface Growth {
  readonly curve: GrowthCurve
  readonly mean: number
  readonly sd: number
  /** The person's own thresholds; those of people as a whole while nothing is known. */
  readonly felt?: Threshold
  readonly seen?: Threshold
  /** Hair is seen at so many times the usual length: less where it stands out against the skin. */
  readonly seenTimes?: number | undefined
  /** How much the length at which hair is noticed differs from time to time, mm. */
  readonly noiseMm?: number
  /** Where hair was told of no zone in particular: no zone's hair is noticed before this. */
  readonly notBefore?: Growth
  /** Hair that came out by its root rests so long before it grows again. */
  readonly rest?: Rest
}

/** How long hair rests: its middle, days, and the spread of its logarithm. */
export interface Rest {
  readonly days: number
  readonly spread: number
}

/** Mean and spread of the logarithm of the rate. */
export function logRate({ mean, sd }: Pick<Growth, 'mean' | 'sd'>): { mu: number; s: number } {
  const variance = Math.log1p((sd / mean) ** 2)
  return { mu: Math.log(mean) - variance / 2, s: Math.sqrt(variance) }
}

/** Mean and spread of a rate whose logarithm has these. */
export function ofLogRate(mu: number, s: number): { mean: number; sd: number } {
  const mean = Math.exp(mu + (s * s) / 2)
  return { mean, sd: mean * Math.sqrt(Math.expm1(s * s)) }
}

/** The rate that lies so many standard deviations from the middle, mm/day. */
export function rateAt(growth: Pick<Growth, 'mean' | 'sd'>, z: number): number {
  const { mu, s } = logRate(growth)
  return Math.exp(mu + z * s)
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

/** Length so many days after a service, mm: hair that rests stays as it was left. */
export const lengthAfter = (
  figures: Figures,
  { curve, rest }: Pick<Growth, 'curve' | 'rest'>,
  leftMm: number,
  rate: number,
  days: number,
): number => hairLengthMm(figures, curve, leftMm, rate, Math.max(0, days - (rest?.days ?? 0)))

/**
 * Growth after a job: what came out by its root rests until, growing at its usual rate, it is felt again when the method is said
 * to last.
 */
export function growthAfter(figures: Figures, growth: Growth, method: Method): Growth {
  const lasts = lastsDays(figures, method)
  if (lasts === undefined) return growth
  const { curve, mean } = growth
  const grows = daysToLength(figures, curve, 0, mean, thresholdMm(figures, curve, 'felt'))
  const days = Math.max(0, lasts - grows)
  return { ...growth, rest: { days, spread: figures(METHOD_CONSTANTS.rootSpread) } }
}

/** When hair was felt or seen, or not yet, or how long it was, so many days after a service. */
export interface GrowthReading {
  readonly kind: 'felt' | 'seen' | 'measured' | 'not-felt' | 'not-seen'
  readonly days: number
  /** Of the last time it was looked for and not noticed yet, where that was told. */
  readonly notYetDays?: number | undefined
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

/** The same for hair as it stands out against its skin. */
export const noticedMm = (
  figures: Figures,
  { curve, seenTimes = 1 }: Pick<Growth, 'curve' | 'seenTimes'>,
  kind: 'felt' | 'seen',
): number => thresholdMm(figures, curve, kind) * (kind === 'seen' ? seenTimes : 1)

/** How many times the usual length hair has when it is seen, by how it stands out: a plain model of contrast. */
export const seenTimes = (figures: Figures, contrast: 'strong' | 'middle' | 'low'): number =>
  contrast === 'middle' ? 1 : figures(contrast === 'strong' ? G.seenStrong : G.seenLow)

/** How far a measured length may be off, mm. */
export const measuredSpreadMm = (figures: Figures, r: Pick<GrowthReading, 'method'>): number =>
  r.method === 'ruler'
    ? figures(G.rulerSdMm)
    : r.method === 'eye'
      ? figures(G.eyeSdMm)
      : figures(G.measuredSdMm)

/** What is believed of a person's threshold. */
export const thresholdOf = (figures: Figures, growth: Growth, kind: 'felt' | 'seen'): Threshold =>
  growth[kind] ?? {
    mm: noticedMm(figures, growth, kind),
    sd: figures(G.thresholdSdMm),
    withRate: 0,
  }

/** Places and weights over which a rate is summed, in standard deviations of its logarithm. */
const NODES = Array.from({ length: 15 }, (_, i) => -3.15 + 0.45 * i)
const NODE_SUM = NODES.reduce((s, z) => s + Math.exp(-0.5 * z * z), 0)

/** P(hair is felt, or seen) so many days after a service that left `leftMm`: over rate, threshold and the day's own scatter. */
export function shownOdds(
  figures: Figures,
  growth: Growth,
  kind: 'felt' | 'seen',
  leftMm: number,
  days: number,
): number {
  const { rest, ...awake } = growth
  if (rest && rest.days > 0 && rest.spread === 0)
    return shownOdds(figures, awake, kind, leftMm, days - rest.days)
  if (rest && rest.days > 0) {
    // Over how long it rests, as well.
    return NODES.reduce((sum, z) => {
      const awakeDays = days - rest.days * Math.exp(z * rest.spread)
      const odds = shownOdds(figures, awake, kind, leftMm, awakeDays)
      return sum + (Math.exp(-0.5 * z * z) / NODE_SUM) * odds
    }, 0)
  }
  const threshold = thresholdOf(figures, growth, kind)
  if (threshold.mm <= leftMm) return 1
  if (days <= 0) return 0
  const { mu, s } = logRate(growth)
  // Threshold given the rate.
  const along = s > 0 ? threshold.withRate / s : 0
  const noise = growth.noiseMm ?? figures(G.measuredSdMm)
  const spread = Math.sqrt(Math.max(0, threshold.sd ** 2 - along * along) + noise * noise)
  let odds = 0
  for (const z of NODES) {
    const length = hairLengthMm(figures, growth.curve, leftMm, Math.exp(mu + s * z), days)
    const wanted = threshold.mm + along * z
    // Hair that a pass has just left is not noticed: what lies below that length is no one's.
    const atOnce = normalCdf((leftMm - wanted) / spread)
    const by = (normalCdf((length - wanted) / spread) - atOnce) / (1 - atOnce)
    odds += (Math.exp(-0.5 * z * z) / NODE_SUM) * by
  }
  return growth.notBefore
    ? Math.min(odds, shownOdds(figures, growth.notBefore, kind, leftMm, days))
    : odds
}

/** Days until something is so: even odds, and the 80 % range. */
export interface DayRange {
  readonly even: number
  readonly early: number
  readonly late: number
}

/** Nobody waits longer than this, days. */
const LONGEST_DAYS = 4000

/** Days until hair is felt or seen after a service that left `leftMm`: the same odds as `shownOdds`, turned round. */
export function daysUntil(
  figures: Figures,
  growth: Growth,
  kind: 'felt' | 'seen',
  leftMm: number,
): DayRange {
  const at = (odds: number) => {
    const so = (days: number) => shownOdds(figures, growth, kind, leftMm, days) >= odds
    if (so(0)) return 0
    if (!so(LONGEST_DAYS)) return Infinity
    // By the logarithm: beard is told in hours, fuzz in weeks.
    let [no, yes] = [Math.log(1e-3), Math.log(LONGEST_DAYS)]
    for (let i = 0; i < 30; i++) {
      const half = (no + yes) / 2
      if (so(Math.exp(half))) yes = half
      else no = half
    }
    return Math.exp(yes)
  }
  return { even: at(0.5), early: at(0.1), late: at(0.9) }
}

/** Days until hair has a length, mm; Infinity where it never grows so long. */
export function daysUntilLength(
  figures: Figures,
  growth: Growth,
  length: number,
  leftMm: number,
): DayRange {
  const { curve, rest } = growth
  // What rests long and what grows slowly come late together: the range is rather wide than narrow.
  const at = (z: number) =>
    daysToLength(figures, curve, leftMm, rateAt(growth, z), length) +
    (rest ? rest.days * Math.exp(-z * rest.spread) : 0)
  return { even: at(0), early: at(Z_90), late: at(-Z_90) }
}
