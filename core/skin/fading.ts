/**
 * How redness fades: one grade after another, each after an exponential time (a pure death process), so that grade g is clear
 * when g steps have gone. The speed is learned for each client from pairs of looks at the same zone; a house model.
 */
import { constant, type Figures } from '../house/index.ts'

export const FADING_CONSTANTS = {
  perDay: constant(
    0.8,
    'grades a day',
    'Speed at which redness fades before anything is known',
    'H',
  ),
  spread: constant(0.5, '', 'Spread of the logarithm of that speed between clients', 'H'),
} as const

const F = FADING_CONSTANTS

/** A zone looked at twice without a service between: grades then and later. */
export interface FadeStep {
  readonly grade: number
  readonly later: number
  readonly days: number
}

/** P(at most `most` of a Poisson with this mean). */
function poissonAtMost(most: number, mean: number): number {
  if (most < 0) return 0
  let term = Math.exp(-mean)
  let sum = term
  for (let i = 1; i <= most; i++) {
    term *= mean / i
    sum += term
  }
  return Math.min(1, sum)
}

/** P(a grade has faded to nothing) after so many days. */
export function fadedOdds(grade: number, days: number, perDay: number): number {
  if (grade <= 0) return 1
  return 1 - poissonAtMost(grade - 1, Math.max(0, days) * perDay)
}

/** P(what was `grade` is `later`) after so many days: the steps that have gone are Poisson, the last takes the rest. */
function stepOdds({ grade, later, days }: FadeStep, perDay: number): number {
  const gone = grade - later
  const mean = days * perDay
  if (later === 0) return fadedOdds(grade, days, perDay)
  return poissonAtMost(gone, mean) - poissonAtMost(gone - 1, mean)
}

const CELLS = 15

/** What is believed of a client's speed: a grid of speeds with their weights, which sum to 1. */
export type FadeBelief = readonly { readonly perDay: number; readonly weight: number }[]

/** Learns the speed. Steps that rose are left aside: burn that came later is no fading. */
export function learnFading(figures: Figures, steps: readonly FadeStep[]): FadeBelief {
  const usable = steps.filter((s) => s.grade > 0 && s.days > 0 && s.later <= s.grade)
  const spread = figures(F.spread)
  let peak = -Infinity
  const cells = Array.from({ length: CELLS }, (_, i) => {
    const x = 3 * spread * ((2 * i) / (CELLS - 1) - 1)
    const perDay = figures(F.perDay) * Math.exp(x)
    let log = -0.5 * (x / spread) ** 2
    for (const s of usable) log += Math.log(Math.max(1e-12, stepOdds(s, perDay)))
    peak = Math.max(peak, log)
    return { perDay, log }
  })
  const total = cells.reduce((sum, c) => sum + Math.exp(c.log - peak), 0)
  return cells.map(({ perDay, log }) => ({ perDay, weight: Math.exp(log - peak) / total }))
}

/** P(redness is still of grade `least` or more) so many days after each grade 0 to 4 was at its worst. */
export function stillOdds(belief: FadeBelief, least: number, days: number): number[] {
  return [0, 1, 2, 3, 4].map((grade) =>
    grade < least
      ? 0
      : belief.reduce(
          (sum, b) => sum + b.weight * poissonAtMost(grade - least, Math.max(0, days) * b.perDay),
          0,
        ),
  )
}

/** Mean speed, grades a day. */
export const meanFading = (belief: FadeBelief): number =>
  belief.reduce((sum, b) => sum + b.weight * b.perDay, 0)
