/**
 * A client's skin, learned (M7): worst redness grade of a zone within 48 h ~ Poisson(k · load), k ~ Gamma(shape, rate).
 * Conjugate update; forecast is negative binomial.
 */
import { constant, type Constant } from '../house/constants.ts'
import { gammaPoissonAtLeast } from '../stats/negativeBinomial.ts'

export type Reactivity = 'tough' | 'average' | 'reactive'

export const SKIN_CONSTANTS = {
  priorShape: constant(2, '', 'Shape of the prior on grade per unit load', 'H'),
  toughSkin: constant(0.15, 'grade per load', 'Prior mean for tough skin', 'H'),
  averageSkin: constant(0.3, 'grade per load', 'Prior mean for average skin', 'H'),
  reactiveSkin: constant(0.6, 'grade per load', 'Prior mean for reactive skin', 'H'),
  otherZonesStrength: constant(
    2,
    'visits',
    'How strongly a zone leans on the client’s other zones',
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

/** Prior from what the client says of their skin. */
export function priorSensitivity(reactivity: Reactivity): Sensitivity {
  const shape = SKIN_CONSTANTS.priorShape.value
  return { shape, rate: shape / PRIOR_MEAN[reactivity].value }
}

/** Conjugate update: shape + Σ grade, rate + Σ load. */
export function updateSensitivity(
  prior: Sensitivity,
  outcomes: readonly { load: number; grade: number }[],
): Sensitivity {
  return outcomes.reduce((s, o) => ({ shape: s.shape + o.grade, rate: s.rate + o.load }), {
    shape: prior.shape,
    rate: prior.rate,
  })
}

/** Mean grade per unit load. */
export function meanSensitivity(s: Sensitivity): number {
  return s.shape / s.rate
}

/**
 * Sensitivity of a zone: its own outcomes on a prior that leans on the client's other zones.
 * The other zones' posterior mean counts like `otherZonesStrength` services of load 1.
 */
export function zoneSensitivity(
  zoneId: string,
  reactivity: Reactivity,
  outcomes: readonly SkinOutcome[],
): Sensitivity {
  const base = priorSensitivity(reactivity)
  // One pass with plain sums: a client has a thousand outcomes and every zone asks.
  const own = { grade: 0, load: 0 }
  const others = { grade: 0, load: 0 }
  for (const o of outcomes) {
    const sum = o.zoneId === zoneId ? own : others
    sum.grade += o.grade
    sum.load += o.load
  }
  const strength = SKIN_CONSTANTS.otherZonesStrength.value
  const prior =
    others.load === 0
      ? base
      : {
          shape: base.shape + strength * meanSensitivity(updateSensitivity(base, [others])),
          rate: base.rate + strength,
        }
  return updateSensitivity(prior, [own])
}

/** P(redness of at least `grade` within 48 h) for a service of the given load. */
export function rednessOdds(s: Sensitivity, load: number, grade = 2): number {
  return gammaPoissonAtLeast(s.shape, s.rate, load, grade)
}
