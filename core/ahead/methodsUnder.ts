/**
 * A place as it would be under hormonal growth, or after a course of laser elsewhere; and what two ways together come to there:
 * the coarse hairs by one, a blade for the rest. What is supposed is a house estimate, and said to be one.
 */
import { constant, type Figures } from '../house/index.ts'
import { hairIn } from '../client.ts'
import type { MethodOdds, RangedOdds } from '../history/index.ts'
import type { DayRange, Growth } from '../regrowth/index.ts'
import { shownOdds } from '../regrowth/index.ts'
import type { Method } from '../services/index.ts'
import type { ZoneId } from '../zones/index.ts'

/** What hair is supposed to be: as it is, with coarse hairs that hormones bring, or thinned by laser. */
export const SUPPOSED = ['as-is', 'hormonal', 'laser'] as const
export type Supposed = (typeof SUPPOSED)[number]

export const SUPPOSED_CONSTANTS = {
  hormonal: constant(0.27, 'mm/day', 'Growth of coarse facial hair that hormones bring', 'H'),
  hormonalSd: constant(0.09, 'mm/day', 'Its spread between people', 'H'),
  laserLeft: constant(
    0.35,
    '',
    'Share of dark hairs left some months after a course of laser',
    'H',
  ),
  laserPace: constant(0.85, '', 'Growth of what is left, times that of before', 'H'),
  alike: constant(
    0.5,
    '',
    'How much what is unsure of one way goes with what is unsure of the other: the skin is the same',
    'H',
  ),
  laserSpread: constant(1.5, '', 'Its spread between people, times that of before', 'H'),
} as const

const C = SUPPOSED_CONSTANTS

/** Whether what is supposed would change anything there: hormones turn fuzz coarse where beards grow; laser finds dark hair alone. */
export const changes = (supposed: Supposed, zoneId: ZoneId, { curve }: Growth): boolean =>
  supposed === 'hormonal'
    ? curve === 'fuzz' && hairIn(zoneId, 'beard') === 'beard'
    : supposed === 'laser' && curve === 'terminal'

/** Growth of the coarse hairs that hormones bring: the person's own thresholds do not hold for hair they have not had. */
export const coarseGrowth = (figures: Figures): Growth => ({
  curve: 'terminal',
  mean: figures(C.hormonal),
  sd: figures(C.hormonalSd),
})

/** Growth of a place as it is supposed to be. */
export function growthUnder(
  figures: Figures,
  supposed: Supposed,
  zoneId: ZoneId,
  growth: Growth,
): Growth {
  if (!changes(supposed, zoneId, growth)) return growth
  if (supposed === 'hormonal') return coarseGrowth(figures)
  return laserGrowth(figures, growth)
}

/** Growth of what a course of laser left. */
export function laserGrowth(figures: Figures, growth: Growth): Growth {
  const pace = figures(C.laserPace)
  return { ...growth, mean: pace * growth.mean, sd: pace * figures(C.laserSpread) * growth.sd }
}

/** The odds that one at least of so many times as many hairs gives a bump: fewer hairs, fewer bumps. */
const oddsOf = (share: number) => (p: number) => 1 - (1 - p) ** share

const each = (of: (p: number) => number, { odds, low, high }: RangedOdds): RangedOdds => ({
  odds: of(odds),
  low: of(low),
  high: of(high),
})

/** A method's odds in a place as it is supposed to be: of the hairs that laser took none grows in. */
export const oddsUnder = (figures: Figures, laser: boolean, told: MethodOdds): MethodOdds =>
  laser ? { ...told, bumps: each(oddsOf(figures(C.laserLeft)), told.bumps) } : told

/** How many of the single hairs there still have to be taken. */
export const hairsLeft = (figures: Figures, laser: boolean): number =>
  laser ? figures(C.laserLeft) : 1

/** One of the two ways of a combination: how often, how long and at what cost, and how its hair is felt again. */
export interface Part {
  readonly method: Method
  readonly every: DayRange
  readonly felt: DayRange
  readonly growth: Growth
  readonly leftMm: number
  readonly minutes: number
  readonly cost: number
  readonly odds: Pick<MethodOdds, 'redness' | 'bumps'>
}

/** What two ways come to together. */
export interface Together {
  readonly redness: RangedOdds
  readonly bumps: RangedOdds
  readonly every: DayRange
  readonly visits: number
  readonly smooth: { readonly mean: number; readonly early: number; readonly late: number }
  readonly minutes: number
  readonly cost: number
}

const YEAR = 365.25

/**
 * Either of two: −log P(neither) is the sum of both's; its range from theirs by the method of variance estimates recovery
 * (Zou & Donner 2008, from memory), with what one skin has in common.
 */
export function either(figures: Figures, a: RangedOdds, b: RangedOdds): RangedOdds {
  const hazard = (p: number) => -Math.log1p(-Math.min(p, MOST))
  const odds = (h: number) => -Math.expm1(-h)
  const at = hazard(a.odds) + hazard(b.odds)
  const off = (k: 'low' | 'high') => {
    const [x, y] = [hazard(a[k]) - hazard(a.odds), hazard(b[k]) - hazard(b.odds)]
    return Math.sqrt(x * x + y * y + 2 * figures(C.alike) * x * y)
  }
  return { odds: odds(at), low: odds(at - off('low')), high: odds(at + off('high')) }
}

/** Odds of all but 1, so that their logarithm stands. */
const MOST = 1 - 1e-12

/**
 * Two ways in one place, each at its own rhythm: visits by the quicker, both sorts of hair unfelt on a smooth day.
 * @returns undefined where one of them is never smooth
 */
export function together(figures: Figures, coarse: Part, rest: Part): Together | undefined {
  const parts = [coarse, rest]
  if (!parts.every((p) => Number.isFinite(p.every.even) && p.every.even > 0)) return undefined
  const quicker = coarse.every.even <= rest.every.even ? coarse : rest
  let mean = 0
  for (let day = 0; day < 365; day++)
    mean += parts.reduce((p, part) => {
      const since = (day + 0.5) % part.every.even
      return p * (1 - shownOdds(figures, part.growth, 'felt', part.leftMm, since))
    }, 1)
  /** Days on which neither is felt where every time comes as early, or as late, as it does with 80 %. */
  const unfelt = (k: 'early' | 'late') => {
    let days = 0
    for (let day = 0; day < 365; day++)
      if (parts.every((p) => (day + 0.5) % p.every.even < p.felt[k])) days++
    return days
  }
  return {
    redness: either(figures, coarse.odds.redness, rest.odds.redness),
    bumps: either(figures, coarse.odds.bumps, rest.odds.bumps),
    every: quicker.every,
    visits: YEAR / quicker.every.even,
    smooth: { mean, early: Math.min(mean, unfelt('early')), late: Math.max(mean, unfelt('late')) },
    minutes: parts.reduce((s, p) => s + (YEAR / p.every.even) * p.minutes, 0),
    cost: parts.reduce((s, p) => s + (YEAR / p.every.even) * p.cost, 0),
  }
}

/** What takes the coarse hairs where a blade takes the rest. */
export const COARSE_BY = ['tweezers', 'laser'] as const
export type CoarseBy = (typeof COARSE_BY)[number]
