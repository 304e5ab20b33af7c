/** What comes before and after the strokes: preparation and closing of each service, by school. Common practice; times are house estimates. */
import type { Figures, Schools } from '../house/index.ts'
import {
  type Film,
  type RoutineWish,
  FILM_CONSTANTS,
  type Service,
  SERVICES,
  type ServiceId,
  ROUTINE_CONSTANTS,
} from '../services/index.ts'
import { capital } from '../words.ts'
import type { Lane, PlanStep } from './types.ts'

const R = ROUTINE_CONSTANTS

const step = (
  id: string,
  kind: PlanStep['kind'],
  title: string,
  text: string,
  minutes: number,
  lays?: PlanStep['lays'],
  film?: PlanStep['film'],
  films?: PlanStep['films'],
): PlanStep => ({
  ...{ id, kind, title, text, minutes },
  ...(lays && { lays }),
  ...(film && { film }),
  ...(films && { films }),
})

/** Steps before the first stroke. */
export function preparationSteps(
  figures: Figures,
  service: ServiceId,
  schools: Schools,
  noFragrance: boolean,
  sensitive = false,
  slips: RoutineWish['slips'] = [],
): PlanStep[] {
  const plain = noFragrance ? '; nothing scented' : ''
  return SERVICES[service]
    .prepare({ figures, schools, plain, sensitive, slips })
    .map((s) => step(s.id, 'prepare', s.title, s.text, s.minutes, s.lays, s.film, s.films))
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

/** Clippers before the razor: long hair clogs a blade and is pulled (common practice). */
export const clipperStep = (figures: Figures, lengthMm: number, areaCm2: number): PlanStep =>
  step(
    'prepare:clip',
    'prepare',
    'Clippers first',
    `Hair is ${Math.round(lengthMm)} mm long: take it down to a millimetre or two, against the growth, dry; brush off.`,
    figures(R.clipMin) + (figures(R.clipPer100Min) * areaCm2) / 100,
  )

/** A direction that is only guessed is felt first (common practice). */
export function feelStep(
  figures: Figures,
  lane: Pick<Lane, 'jobId' | 'zoneId' | 'growthDirection' | 'growsToward'>,
  name: string,
): PlanStep {
  return {
    ...step(
      `feel:${lane.zoneId}`,
      'feel',
      `Feel first: ${name}`,
      `Nobody has read the grain here; that it grows ${lane.growsToward} is only a guess. Draw a fingertip over it: smooth is with the grain, stubbly is against it.`,
      figures(R.feelMin),
    ),
    jobId: lane.jobId,
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
  if (!SERVICES[service].lather) return undefined
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
  return {
    ...step(
      `lather:renew-${number}`,
      'lather',
      'Renew the lather',
      'Fresh lather on what is not yet done.',
      figures(R.reLatherPartSeconds) / 60,
      'lather',
    ),
    renews: true,
  }
}

/** What is wetted again of a film that has dried, on what is not yet done. */
export function renewFilm(
  figures: Figures,
  film: Film,
  number: number,
  films?: PlanStep['films'],
): PlanStep {
  return {
    ...step(
      `lather:renew-${number}`,
      'lather',
      film.name === 'damp skin' ? 'Damp again' : `${capital(film.name)} again`,
      'On what is not yet done: a dry film drags.',
      figures(FILM_CONSTANTS.rewetSeconds) / 60,
      'lather',
      film,
      films,
    ),
    renews: true,
  }
}

/** What fuzz left is brushed off dry skin, or rinsed off with its film, before anybody looks. */
const offStep = (figures: Figures, schools: Schools | undefined): PlanStep => {
  const wet = schools !== undefined && schools.fuzzSlip !== 'dry'
  return step(
    'close:off',
    'close',
    wet ? 'Rinse off' : 'Brush off',
    wet ? 'Lukewarm, with a soft cloth, no rubbing.' : 'A soft dry brush, down and out; eyes shut.',
    figures(FILM_CONSTANTS.brushMin),
  )
}

/** Steps after the last stroke. */
export const closingSteps = (
  figures: Figures,
  service: ServiceId,
  noFragrance: boolean,
  schools?: Schools,
): PlanStep[] => [
  ...(SERVICES[service].family === 'fuzz' ? [offStep(figures, schools)] : []),
  ...closing(figures, SERVICES[service], noFragrance, schools),
]

/** What the step of the towel that was kept back is called. */
export const COLD_TOWEL = 'Cold towel'

/** The second look, what cools, balm; a third towel and the order of the last two by school. */
export function closing(
  figures: Figures,
  { secondLook, cools }: Pick<Service, 'secondLook' | 'cools'>,
  noFragrance: boolean,
  schools?: Pick<Schools, 'balmOrder' | 'towels'>,
): PlanStep[] {
  const warm = cools === 'towel'
  const balm = noFragrance ? 'Balm without alcohol or scent' : 'Balm without alcohol'
  const check = step('check', 'check', 'Second look', secondLook, figures(R.checkMin))
  const soothe = step(
    'close:soothe',
    'close',
    'Soothe',
    `${balm}, a coin-sized amount. Blade into the sharps box.`,
    figures(R.sootheMin),
  )
  if (cools === 'nothing') return [check, soothe]
  const cold = step(
    'close:cold',
    'close',
    warm ? COLD_TOWEL : 'Cool compress',
    warm ? 'The one kept back, wrung out cold. No pressing.' : 'Laid on, not rubbed.',
    figures(R.coldTowelMin),
    'towel',
  )
  // After the last stroke no hair protects the skin any more.
  const third = step(
    'close:third',
    'close',
    'Third towel, cooler',
    'Hand-warm at most, laid and lifted: no hair protects the skin any more. Ask first.',
    figures(R.thirdTowelMin),
    'towel',
  )
  return [
    check,
    ...(warm && schools?.towels === 'three' ? [third] : []),
    ...(warm && schools?.balmOrder === 'balm-cold' ? [soothe, cold] : [cold, soothe]),
  ]
}
