/**
 * What the studio learns over all clients: forecast, choices, rates. Each client's visits are summed by themselves, so that
 * only the sums of one change when one of theirs does; what is told of the studio is put together from the sums.
 */
import type { Figures } from '../house/index.ts'
import { expectedOf, learnStudio, type StudioSkin, type Reactivity } from '../skin/index.ts'
import { sum } from '../stats/index.ts'
import { forecastOf, forecastSums, type ForecastCheck, type ForecastSums } from './calibration.ts'
import {
  choiceSums,
  effectsOf,
  type ChoiceSums,
  type ClientVisits,
  type Effects,
} from './effects.ts'
import type { VisitFacts } from './facts.ts'
import { rateSums, viewOf, type RateSums, type StudioView } from './studio.ts'

export interface StudioClient extends ClientVisits {
  readonly reactivity: Reactivity
}

export interface StudioLearned {
  readonly view: StudioView
  readonly calibration: ForecastCheck
  readonly effects: readonly Effects[]
  readonly skin: StudioSkin
}

/** What one client's visits add to the studio. */
export interface ClientSums {
  readonly clientId: string
  readonly reactivity: Reactivity
  /** Grades and loads of answered visits. */
  readonly grade: number
  readonly load: number
  readonly rates: RateSums
  readonly forecast: ForecastSums
  readonly choices: ChoiceSums
}

/** @param expected mean grade per unit load that the studio expects of such skin, learned without this client */
export const sumClient = (
  figures: Figures,
  client: StudioClient,
  expected: number,
  nowMs: number,
): ClientSums => ({
  ...gradesOf(client),
  rates: rateSums(figures, client.visits, nowMs),
  forecast: forecastSums(
    figures,
    {
      reactivity: client.reactivity,
      visits: client.visits.flatMap((v) => (v.worst ? [outcomesOf(v)] : [])),
    },
    expected,
  ),
  choices: choiceSums(client.visits),
})

/** What the sums of all clients tell. */
export const learnFromSums = (figures: Figures, clients: readonly ClientSums[]): StudioLearned => ({
  skin: learnStudio(figures, clients),
  view: viewOf(
    figures,
    clients.map((c) => c.rates),
  ),
  calibration: forecastOf(
    figures,
    clients.map((c) => c.forecast),
  ),
  effects: effectsOf(
    figures,
    clients.map((c) => c.choices),
  ),
})

/** All of it in one go. */
export function learnOverStudio(
  figures: Figures,
  clients: readonly StudioClient[],
  nowMs: number,
): StudioLearned {
  const skin = learnStudio(figures, clients.map(gradesOf))
  return learnFromSums(
    figures,
    clients.map((c) => sumClient(figures, c, expectedOf(skin, c), nowMs)),
  )
}

const outcomesOf = (v: VisitFacts) =>
  Object.entries(v.loads).map(([zoneId, load]) => ({ zoneId, load, grade: v.worst![zoneId] ?? 0 }))

function gradesOf(c: StudioClient) {
  const answered = c.visits.filter((v) => v.worst)
  return {
    clientId: c.clientId,
    reactivity: c.reactivity,
    grade: sum(answered.map((v) => sum(Object.keys(v.loads).map((z) => v.worst![z] ?? 0)))),
    load: sum(answered.map((v) => sum(Object.values(v.loads)))),
  }
}
