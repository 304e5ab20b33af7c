/** What comes before and after the strokes: preparation and closing of each service. Common practice; times are house estimates. */
import { constant } from '../house/constants.ts'
import type { Schools } from '../house/schools.ts'
import type { ServiceId } from '../services.ts'
import type { PlanStep } from './types.ts'

export const ROUTINE_CONSTANTS = {
  cleanseMin: constant(2, 'min', 'Cleanse and look', 'H'),
  towelMin: constant(4, 'min', 'Hot towel', 'H'),
  latherMin: constant(2, 'min', 'Oil and lather', 'H'),
  latherLastsMin: constant(6, 'min', 'Lather lasts', 'H'),
  reLatherMin: constant(1, 'min', 'Re-lather on what is not yet done', 'H'),
  tweezeMin: constant(0.5, 'min', 'Tweeze one stray', 'H'),
  dryMin: constant(2, 'min', 'De-oil and dry', 'H'),
  checkMin: constant(2, 'min', 'Feel for missed patches', 'H'),
  coldTowelMin: constant(2, 'min', 'Cold towel', 'H'),
  sootheMin: constant(2, 'min', 'Balm or soothing gel', 'H'),
  towelAtMostC: constant(
    45,
    '°C',
    'A towel is laid at or below this, after asking the client',
    'H',
  ),
} as const

const R = ROUTINE_CONSTANTS

const step = (
  id: string,
  kind: PlanStep['kind'],
  title: string,
  text: string,
  minutes: number,
): PlanStep => ({ id, kind, title, text, minutes })

/** Steps before the first stroke. */
export function preparationSteps(
  service: ServiceId,
  schools: Schools,
  noFragrance: boolean,
): PlanStep[] {
  const cleanse = step(
    'prepare:cleanse',
    'prepare',
    'Hands, gloves, cleanse',
    `Fresh blade laid out. Cleanse and look once more in side light${noFragrance ? '; nothing scented' : ''}.`,
    R.cleanseMin.value,
  )
  if (service === 'face-shave' || service === 'head-shave') {
    return [
      cleanse,
      step(
        'prepare:towel',
        'prepare',
        'Hot towel',
        `Cool it first, at most ${R.towelAtMostC.value} °C, and ask the client before it is laid. Keep one back for the end.`,
        R.towelMin.value,
      ),
      step(
        'prepare:lather',
        'prepare',
        'Oil and lather',
        `Work it in against the growth${noFragrance ? '; nothing scented' : ''}.`,
        R.latherMin.value,
      ),
    ]
  }
  const slip = {
    dry: ['De-oil and dry', 'Skin dry and free of oil; dust nothing on.'],
    film: ['Thin film', 'A film of gel or lotion, no air gaps.'],
    oil: ['Oil or jelly', 'A thin coat: the blade may slip.'],
    damp: ['Damp skin', 'Damp, not wet.'],
  }[schools.fuzzSlip] as [string, string]
  return [cleanse, step('prepare:surface', 'prepare', slip[0], slip[1], R.dryMin.value)]
}

/** Strays out before the blade: they dull it and hurt (common practice). */
export function tweezeStep(names: readonly string[]): PlanStep {
  const places = [...new Set(names)]
  return step(
    'prepare:tweeze',
    'prepare',
    'Tweeze strays first',
    `${names.length} ${names.length === 1 ? 'stray' : 'strays'}: ${places.join(', ')}. They dull the blade and hurt.`,
    R.tweezeMin.value * names.length,
  )
}

/** The lather before a later pass. */
export function latherStep(pass: number): PlanStep {
  return step(
    `lather:${pass}`,
    'lather',
    'Re-lather',
    'Rinse, look, and lather only what gets another pass.',
    R.reLatherMin.value,
  )
}

/** Steps after the last stroke. */
export function closingSteps(service: ServiceId, noFragrance: boolean): PlanStep[] {
  const razor = service === 'face-shave' || service === 'head-shave'
  const balm = noFragrance ? 'Balm without alcohol or scent' : 'Balm without alcohol'
  return [
    step(
      'check',
      'check',
      'Second look',
      razor
        ? 'Feel with a finger and a drop of oil. Take missed patches with the grain.'
        : 'Look in side light. Nothing is gone over twice.',
      R.checkMin.value,
    ),
    step(
      'close:cold',
      'close',
      razor ? 'Cold towel' : 'Cool compress',
      'The one kept back, wrung out cold. No pressing.',
      R.coldTowelMin.value,
    ),
    step(
      'close:soothe',
      'close',
      'Soothe',
      `${balm}, a coin-sized amount. Blade into the sharps box.`,
      R.sootheMin.value,
    ),
  ]
}
