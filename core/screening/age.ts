/** What the day of birth answers by itself: whether a guardian signs. */
import type { Figures } from '../house/index.ts'
import type { IsoDate } from '../time/index.ts'
import type { Asked } from './asked.ts'
import { SCREENING_CONSTANTS } from './rules.ts'

/**
 * Age in whole years on a day; undefined where the day of birth is not known. Who was born on 29 February is a year older on
 * 1 March of other years.
 */
export function ageOn(bornOn: string | undefined, today: IsoDate): number | undefined {
  if (!bornOn || bornOn > today) return undefined
  const years = Number(today.slice(0, 4)) - Number(bornOn.slice(0, 4))
  return today.slice(5) < bornOn.slice(5) ? years - 1 : years
}

/** What was asked, with what the day of birth says of age: it counts before what was told. */
export function withAge(
  figures: Figures,
  asked: Asked,
  bornOn: string | undefined,
  today: IsoDate,
): Asked {
  const age = ageOn(bornOn, today)
  if (age === undefined) return asked
  const yes = age < figures(SCREENING_CONSTANTS.ofAge)
  return { ...asked, answers: { ...asked.answers, 'under-age': { yes } } }
}
