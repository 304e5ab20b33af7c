/**
 * A client's skin (M7): worst redness grade of a zone within 48 h ~ Poisson(k · load), k ~ Gamma(shape, rate). Conjugate
 * update; forecast is negative binomial. How zones lean on each other and on the studio is in `pool.ts`.
 */
import { constant, type Constant, type Figures } from '../house/index.ts'
import { gammaPoissonAtLeast, gammaPoissonPmf } from '../stats/index.ts'

export const REACTIVITIES = ['tough', 'average', 'reactive'] as const
export type Reactivity = (typeof REACTIVITIES)[number]

export const SKIN_CONSTANTS = {
  priorShape: constant(2, '', 'Shape of the prior on grade per unit load', 'H'),
  toughSkin: constant(0.15, 'grade per load', 'Prior mean for tough skin', 'H'),
  averageSkin: constant(0.3, 'grade per load', 'Prior mean for average skin', 'H'),
  reactiveSkin: constant(0.6, 'grade per load', 'Prior mean for reactive skin', 'H'),
  betweenClients: constant(
    4.5,
    '',
    'Shape of the spread between clients of one kind of skin (higher: more alike)',
    'H',
  ),
  betweenZones: constant(
    4.5,
    '',
    'Shape of the spread between the zones of one client (higher: more alike)',
    'H',
  ),
  unlikeClients: constant(
    0.12,
    '',
    'Share of clients whose skin is unlike that of others of its kind',
    'H',
  ),
  studioWeight: constant(
    12,
    'load',
    'A client counts toward the studio’s mean with at most so much load',
    'H',
  ),
  studioDoubt: constant(
    0.35,
    '',
    'How far the studio’s mean of a kind of skin may lie from the estimate (spread of its logarithm)',
    'H',
  ),
  rednessLimit: constant(
    0.2,
    'probability',
    'A pass is planned while P(redness 2 or more) stays at or under this',
    'H',
  ),
  readWithinHours: constant(
    48,
    'h',
    'Redness counts toward a service when read within this time',
    'H',
  ),
} as const

/** Gamma distribution of grade per unit load. */
export interface Sensitivity {
  readonly shape: number
  readonly rate: number
  /** How much the client's skin differs from visit to visit (spread of its logarithm): a forecast scatters by it too. */
  readonly visitSpread?: number
}

/** One service's outcome in a zone. */
export interface SkinOutcome {
  readonly zoneId: string
  readonly load: number
  /** Worst redness grade within 48 h, 0 to 4. */
  readonly grade: number
}

const PRIOR_MEAN: Readonly<Record<Reactivity, Constant>> = {
  tough: SKIN_CONSTANTS.toughSkin,
  average: SKIN_CONSTANTS.averageSkin,
  reactive: SKIN_CONSTANTS.reactiveSkin,
}

/** Mean grade per unit load to expect of a kind of skin before anything is known. */
export const expectedMean = (figures: Figures, reactivity: Reactivity): number =>
  figures(PRIOR_MEAN[reactivity])

/**
 * Prior from what the client says of their skin.
 * @param mean what the studio has found for such skin; the estimate of the house when left out
 */
export function priorSensitivity(
  figures: Figures,
  reactivity: Reactivity,
  mean = expectedMean(figures, reactivity),
): Sensitivity {
  const shape = figures(SKIN_CONSTANTS.priorShape)
  return { shape, rate: shape / mean }
}

/** Conjugate update: shape + Σ grade, rate + Σ load. */
export function updateSensitivity(
  prior: Sensitivity,
  outcomes: readonly { load: number; grade: number }[],
): Sensitivity {
  return outcomes.reduce(
    (s, o) => ({ ...s, shape: s.shape + o.grade, rate: s.rate + o.load }),
    prior,
  )
}

/** Mean grade per unit load. */
export function meanSensitivity(s: Sensitivity): number {
  return s.shape / s.rate
}

/** The rate as it will be on a day yet to come: the same mean, and the day's own level in its spread. */
function onADay({ shape, rate, visitSpread = 0 }: Sensitivity): Sensitivity {
  const variance = (1 + 1 / shape) * Math.exp(visitSpread ** 2) - 1
  return { shape: 1 / variance, rate: rate / (shape * variance) }
}

/** P(redness of at least `grade` within 48 h) for a service of the given load. */
export function rednessOdds(s: Sensitivity, load: number, grade = 2): number {
  const day = onADay(s)
  return gammaPoissonAtLeast(day.shape, day.rate, load, grade)
}

/** A rate that is known for sure, as the Gamma that it is the end of. */
const SURE_SHAPE = 1e6

/** P(redness of at least `grade`) for a load if the rate were known: only the day and chance are left. */
export const oddsAtRate = (s: Sensitivity, rate: number, load: number, grade = 2): number =>
  rednessOdds({ ...s, shape: SURE_SHAPE, rate: SURE_SHAPE / rate }, load, grade)

/** P(worst grade is 0, 1, 2, 3, 4 or more) for a service of the given load. */
export function gradeOdds(s: Sensitivity, load: number): number[] {
  const day = onADay(s)
  const upTo3 = gammaPoissonPmf(day.shape, day.rate, load, 3)
  return [...upTo3, Math.max(0, 1 - upTo3.reduce((a, b) => a + b, 0))]
}
