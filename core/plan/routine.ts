/** What comes before and after the strokes: preparation and closing of each service, by school. Common practice; times are house estimates. */
import { constant, type Figures } from '../house/constants.ts'
import type { Schools } from '../house/schools.ts'
import type { ServiceId } from '../services/index.ts'
import { clockWords } from '../grain/clock.ts'
import type { Lane, PlanStep } from './types.ts'

export const ROUTINE_CONSTANTS = {
  cleanseMin: constant(2, 'min', 'Cleanse and look', 'H'),
  towelMin: constant(4, 'min', 'Hot towel', 'H'),
  secondTowelMin: constant(2, 'min', 'Second hot towel on a head, a little warmer', 'H'),
  latherMin: constant(2, 'min', 'Oil and lather', 'H'),
  latherLastsMin: constant(6, 'min', 'Lather lasts', 'H'),
  reLatherMin: constant(1, 'min', 'Re-lather for another pass', 'H'),
  reLatherPartSeconds: constant(20, 's', 'Re-lather halfway on what is not yet done', 'H'),
  tweezeMin: constant(0.5, 'min', 'Tweeze one stray', 'H'),
  feelMin: constant(0.2, 'min', 'Feel which way the hair of an unread zone grows', 'H'),
  dryMin: constant(2, 'min', 'De-oil and dry', 'H'),
  combMin: constant(1.5, 'min', 'Comb down, look at both sides from the front', 'H'),
  primeMin: constant(1, 'min', 'Pre-shave oil and clear gel along the lines', 'H'),
  exfoliateMin: constant(2, 'min', 'Rinse warm and loosen tips', 'H'),
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
  lays?: PlanStep['lays'],
): PlanStep => ({ id, kind, title, text, minutes, ...(lays && { lays }) })

/** True where lather lies under the blade, so that it dries and is renewed. */
export function hasLather(service: ServiceId): boolean {
  return service === 'face-shave' || service === 'head-shave' || service === 'body-shave'
}

/** Steps before the first stroke. */
export function preparationSteps(
  figures: Figures,
  service: ServiceId,
  schools: Schools,
  noFragrance: boolean,
): PlanStep[] {
  const plain = noFragrance ? '; nothing scented' : ''
  const cleanse = step(
    'prepare:cleanse',
    'prepare',
    'Hands, gloves, cleanse',
    `Fresh blade laid out. Cleanse and look once more in side light${plain}.`,
    figures(R.cleanseMin),
  )
  const towel = (id: string, title: string, text: string, minutes: number) =>
    step(id, 'prepare', title, text, minutes, 'towel')
  const cooled = `Cool it first, at most ${figures(R.towelAtMostC)} °C, and ask the client before it is laid.`
  const lather = step(
    'prepare:lather',
    'prepare',
    'Oil and lather',
    `Work it in against the growth${plain}.`,
    figures(R.latherMin),
    'lather',
  )
  switch (service) {
    case 'face-shave':
      return [
        cleanse,
        towel(
          'prepare:towel',
          'Hot towel',
          `${cooled} Keep one back for the end.`,
          figures(R.towelMin),
        ),
        lather,
      ]
    case 'head-shave':
      return [
        cleanse,
        towel(
          'prepare:towel',
          'First hot towel',
          `${cooled} Keep one back for the end.`,
          figures(R.towelMin),
        ),
        towel(
          'prepare:towel-2',
          'Second hot towel',
          `A little warmer. ${cooled}`,
          figures(R.secondTowelMin),
        ),
        lather,
      ]
    case 'body-shave':
      return [
        cleanse,
        step(
          'prepare:rinse',
          'prepare',
          'Warm rinse',
          `A few minutes of warmth soften hair. Loosen tips with a soft cloth${plain}.`,
          figures(R.exfoliateMin),
        ),
        { ...lather, title: 'Gel or lather', text: `No air gaps${plain}.` },
      ]
    case 'beard-line':
      return [
        cleanse,
        step(
          'prepare:comb',
          'prepare',
          'Comb and compare',
          'Beard combed down. From the front: which side is worse? It is lined first, the other is matched to it.',
          figures(R.combMin),
        ),
        step(
          'prepare:prime',
          'prepare',
          'Prime the lines',
          `Oil, then clear gel, so that the line stays in sight${plain}.`,
          figures(R.primeMin),
        ),
      ]
    case 'brow-tidy':
      return [
        cleanse,
        step(
          'prepare:brush',
          'prepare',
          'Brush and trim',
          'Brush the brow up; scissors for what stands over. Eyes closed, a finger over what stays.',
          figures(R.combMin),
        ),
      ]
    default: {
      const slip = {
        dry: ['De-oil and dry', 'Skin dry and free of oil; dust nothing on.'],
        film: ['Thin film', 'A film of gel or lotion, no air gaps.'],
        oil: ['Oil or jelly', 'A thin coat: the blade may slip.'],
        damp: ['Damp skin', 'Damp, not wet.'],
      }[schools.fuzzSlip] as [string, string]
      return [cleanse, step('prepare:surface', 'prepare', slip[0], slip[1], figures(R.dryMin))]
    }
  }
}

/** Strays out before the blade: they dull it and hurt (common practice). */
export function tweezeStep(figures: Figures, names: readonly string[]): PlanStep {
  const places = [...new Set(names)]
  return step(
    'prepare:tweeze',
    'prepare',
    'Tweeze strays first',
    `${names.length} ${names.length === 1 ? 'stray' : 'strays'}: ${places.join(', ')}. They dull the blade and hurt.`,
    figures(R.tweezeMin) * names.length,
  )
}

/** A direction that is only guessed is felt first (common practice). */
export function feelStep(
  figures: Figures,
  lane: Pick<Lane, 'zoneId' | 'growthDirection'>,
  name: string,
): PlanStep {
  return {
    ...step(
      `feel:${lane.zoneId}`,
      'feel',
      `Feel first: ${name}`,
      `Nobody has read the grain here; toward ${clockWords(lane.growthDirection)} is only a guess. Draw a fingertip over it: smooth is with the grain, stubbly is against it.`,
      figures(R.feelMin),
    ),
    zoneId: lane.zoneId,
    growthDirection: lane.growthDirection,
  }
}

/** Between one pass and the next: lather where there is any, else the next tool is taken up. */
export function betweenPasses(
  figures: Figures,
  service: ServiceId,
  pass: number,
): PlanStep | undefined {
  if (!hasLather(service)) return undefined
  return step(
    `lather:${pass}`,
    'lather',
    'Re-lather',
    'Rinse, look, and lather only what gets another pass.',
    figures(R.reLatherMin),
    'lather',
  )
}

/** Lather dries; what is not yet done gets fresh lather (common practice: about halfway). */
export function renewLather(figures: Figures, number: number): PlanStep {
  return step(
    `lather:renew-${number}`,
    'lather',
    'Renew the lather',
    'Fresh lather on what is not yet done.',
    figures(R.reLatherPartSeconds) / 60,
    'lather',
  )
}

/** Steps after the last stroke. */
export function closingSteps(
  figures: Figures,
  service: ServiceId,
  noFragrance: boolean,
): PlanStep[] {
  const warm = service === 'face-shave' || service === 'head-shave'
  const balm = noFragrance ? 'Balm without alcohol or scent' : 'Balm without alcohol'
  const look = {
    'face-shave': 'Feel with a finger and a drop of oil. Take missed patches with the grain.',
    'head-shave': 'Feel with a finger and a drop of oil. Take missed patches with the grain.',
    'body-shave': 'Rinse, feel up the limb. Take missed patches with the grain.',
    'beard-line': 'From the front and from both sides: the lines alike, nothing ragged.',
    'brow-tidy': 'From the front: both brows alike. Less is more.',
    dermaplane: 'Look in side light. Nothing is gone over twice.',
    'facial-razor': 'Look in side light. Nothing is gone over twice.',
  }[service]
  const check = step('check', 'check', 'Second look', look, figures(R.checkMin))
  const soothe = step(
    'close:soothe',
    'close',
    'Soothe',
    `${balm}, a coin-sized amount. Blade into the sharps box.`,
    figures(R.sootheMin),
  )
  if (service === 'brow-tidy') return [check, soothe]
  return [
    check,
    step(
      'close:cold',
      'close',
      warm ? 'Cold towel' : 'Cool compress',
      warm ? 'The one kept back, wrung out cold. No pressing.' : 'Laid on, not rubbed.',
      figures(R.coldTowelMin),
      'towel',
    ),
    soothe,
  ]
}
