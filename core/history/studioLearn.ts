/** Everything the studio learns over all clients, in one go with progress: forecast, choices, rates. */
import type { Figures } from '../house/index.ts'
import { learnStudio, type StudioSkin, type Reactivity } from '../skin/index.ts'
import { checkForecast, type ForecastCheck } from './calibration.ts'
import { choiceEffects, type ClientVisits, type Effects } from './effects.ts'
import type { VisitFacts } from './facts.ts'
import { sum } from '../stats/index.ts'
import { studioView, type StudioView } from './studio.ts'

export interface StudioClient extends ClientVisits {
  readonly reactivity: Reactivity
}

export interface StudioLearned {
  readonly view: StudioView
  readonly calibration: ForecastCheck
  readonly effects: readonly Effects[]
  readonly skin: StudioSkin
}

/** Shares of the work, so that progress moves evenly. */
const FORECAST = 0.6

/** @param progress told as it goes, 0 to 1 */
export function learnOverStudio(
  figures: Figures,
  clients: readonly StudioClient[],
  nowMs: number,
  progress: (share: number) => void = () => undefined,
): StudioLearned {
  const skin = learnStudio(figures, clients.map(sumsOf))
  progress(0.05)
  const view = studioView(figures, clients, nowMs)
  progress(0.1)
  const calibration = checkForecast(
    figures,
    clients.map((c) => ({
      reactivity: c.reactivity,
      visits: c.visits.flatMap((v) => (v.worst ? [outcomesOf(v)] : [])),
    })),
    (kind) => skin.mean[kind],
    (share) => {
      progress(0.1 + FORECAST * share)
      return true
    },
  )
  const effects = choiceEffects(figures, clients)
  progress(1)
  return { view, calibration, effects, skin }
}

const outcomesOf = (v: VisitFacts) =>
  Object.entries(v.loads).map(([zoneId, load]) => ({ zoneId, load, grade: v.worst![zoneId] ?? 0 }))

function sumsOf(c: StudioClient) {
  const answered = c.visits.filter((v) => v.worst)
  return {
    reactivity: c.reactivity,
    grade: sum(answered.map((v) => sum(Object.keys(v.loads).map((z) => v.worst![z] ?? 0)))),
    load: sum(answered.map((v) => sum(Object.values(v.loads)))),
  }
}
