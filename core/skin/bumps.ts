/**
 * Bumps and ingrown hairs of days 2 to 14 (M7 with counts): counts of a zone ~ Poisson(k · load), pooled like redness; and how
 * severe a bump-prone beard is.
 */
import { constant, type Figures } from '../house/index.ts'
import { poolZones, type Pooling } from './pool.ts'
import { sumVisits } from './seen.ts'
import { SKIN_CONSTANTS, type Sensitivity } from './sensitivity.ts'

const PERRY = 'Perry et al. 2002 (from memory)'

export const BUMP_CONSTANTS = {
  plain: constant(
    0.06,
    'bumps per load',
    'Prior mean of bumps for skin that is not bump-prone',
    'H',
  ),
  prone: constant(0.3, 'bumps per load', 'Prior mean of bumps for bump-prone skin', 'H'),
  tightCurl: constant(
    1.5,
    '',
    'Factor for tightly curled hair, which turns back into the skin',
    'H',
  ),
  betweenClients: constant(1.5, '', 'Shape of the spread of bumps between clients', 'H'),
  betweenZones: constant(2, '', 'Shape of the spread of bumps between zones: the neck leads', 'H'),
  fromDays: constant(1.5, 'days', 'Bumps count from this long after a service', 'C'),
  untilDays: constant(14, 'days', 'and up to this long', 'C'),
  moderateFrom: constant(12, 'papules and pustules', 'Moderate from so many', 'P', PERRY),
  severeOver: constant(100, 'papules and pustules', 'Severe over so many', 'P', PERRY),
} as const

const B = BUMP_CONSTANTS

/** Prior of bumps for a client, from what was asked. */
export function bumpPooling(
  figures: Figures,
  client: { bumpProne: boolean; curl: string },
): Pooling {
  const base = client.bumpProne ? figures(B.prone) : figures(B.plain)
  return {
    mean: base * (client.curl === 'tight' ? figures(B.tightCurl) : 1),
    betweenClients: figures(B.betweenClients),
    betweenZones: figures(B.betweenZones),
    unlike: figures(SKIN_CONSTANTS.unlikeClients),
  }
}

/**
 * What is believed of bumps by zone.
 * @param visits counts of each visit, oldest first
 */
export function learnBumps(
  figures: Figures,
  zones: readonly string[],
  client: { bumpProne: boolean; curl: string },
  visits: readonly (readonly { zoneId: string; load: number; count: number }[])[],
): Record<string, Sensitivity> {
  const pooling = bumpPooling(figures, client)
  const counted = visits.map((visit) =>
    visit.map(({ zoneId, load, count }) => ({ zoneId, load, grade: count })),
  )
  return poolZones(zones, sumVisits(figures, counted, pooling.mean), pooling)
}

export type BumpSeverity = 'none' | 'mild' | 'moderate' | 'severe'

/** How severe a count of papules and pustules is: mild under 12, moderate to 100, severe above (Perry et al. 2002). */
export function bumpSeverity(figures: Figures, papulesAndPustules: number): BumpSeverity {
  if (papulesAndPustules <= 0) return 'none'
  if (papulesAndPustules < figures(B.moderateFrom)) return 'mild'
  return papulesAndPustules <= figures(B.severeOver) ? 'moderate' : 'severe'
}
