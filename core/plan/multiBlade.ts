/** A multi-blade cartridge against the grain, by the house's school. */
import { constant, type Figures, type Schools } from '../house/index.ts'
import type { SkinRecord } from '../skin/index.ts'

export const MULTI_BLADE_CONSTANTS = {
  recordVisits: constant(
    6,
    'visits',
    'A client’s record bears out a cartridge against the grain from so many answered visits on, none of them red',
    'H',
  ),
} as const

/** Why a cartridge may not go against the grain; undefined where the school leaves it to the client's record, and that bears it out. */
export function multiBladeRefusal(
  figures: Figures,
  { multiBlade }: Pick<Schools, 'multiBlade'>,
  record: SkinRecord | undefined,
): string | undefined {
  if (multiBlade === 'never') {
    return 'A multi-blade cartridge never goes against the grain: it lifts and pulls.'
  }
  const least = figures(MULTI_BLADE_CONSTANTS.recordVisits)
  const { visits = 0, reddened = 0 } = record ?? {}
  if (visits >= least && reddened === 0) return undefined
  return `A multi-blade cartridge goes against the grain only where the client’s own record bears it out: ${least} answered visits without redness, so far ${visits}${reddened > 0 ? `, ${reddened} of them red` : ''}.`
}
