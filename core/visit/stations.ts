/** The six stations in the order people work, each with where it stands in a word or a figure. */
import type { CarePlan } from '../care/index.ts'
import { leftOpenSince, type ChairState } from '../chair/index.ts'
import type { Figures } from '../house/index.ts'
import { USUAL_MOMENTS } from '../looks/index.ts'
import type { Plan } from '../plan/index.ts'
import { verdictWords, type Screening } from '../screening/index.ts'
import { dayWords, type IsoDate } from '../time/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { holding } from './gate.ts'
import type { Gate } from './types.ts'

export const STATIONS = ['ask', 'read', 'plan', 'chair', 'care', 'return'] as const
export type StationId = (typeof STATIONS)[number]

export const STATION_NAMES: Readonly<Record<StationId, string>> = {
  ask: 'Ask',
  read: 'Read',
  plan: 'Plan',
  chair: 'Chair',
  care: 'Care',
  return: 'Return',
}

/** Done, still open, or something stands in the way. */
export type StationMark = 'done' | 'open' | 'stop'

export interface StationState {
  readonly id: StationId
  readonly name: string
  readonly words: string
  readonly mark: StationMark
}

/** A visit as far as its stations tell where they stand. */
export interface StationVisit {
  readonly state: 'open' | 'running' | 'finished'
  readonly slotAtMs: number | null
  readonly endedAtMs: number | null
  readonly plan: Pick<Plan, 'totalMinutes'> | null
  readonly chair: ChairState
  readonly care: CarePlan | null
  readonly answers: readonly unknown[]
}

/** What is known beside the visit. */
export interface StationFacts {
  readonly gate: Gate
  readonly zones: readonly ZoneId[]
  /** Zones with a reading of their own. */
  readonly read: readonly ZoneId[]
  /** Steps of the plan as amended on the way; 0 while no service runs. */
  readonly steps: number
  /** When the client's last finished visit ended. */
  readonly lastEndedAtMs: number | undefined
  /** When the next visit's window begins. */
  readonly dueFromMs: number | undefined
}

/** Days and hours in the words of a screen, in its own time. */
export interface WordsOfTime {
  readonly nowMs: number
  readonly today: IsoDate
  readonly date: (ms: number) => string
  readonly at: (ms: number) => string
}

export function stationStates(
  figures: Figures,
  visit: StationVisit,
  facts: StationFacts,
  time: WordsOfTime,
): StationState[] {
  const { gate, zones, read } = facts
  const held = visit.state === 'open' && holding(gate.findings, 'start').length > 0
  const states: Record<StationId, [words: string, mark: StationMark]> = {
    ask: [askWords(gate.screening, time.today), askMark(gate.screening)],
    read: [
      `${read.length} of ${zones.length} zones`,
      read.length === zones.length ? 'done' : 'open',
    ],
    plan: visit.plan
      ? [`kept, ${Math.round(visit.plan.totalMinutes)} min`, 'done']
      : ['not kept yet', 'open'],
    chair: [
      chairWords(figures, visit, facts.steps, time),
      visit.state === 'finished' ? 'done' : held && visit.plan ? 'stop' : 'open',
    ],
    care: [
      careWords(visit.care, facts.lastEndedAtMs, time),
      visit.care || facts.lastEndedAtMs !== undefined ? 'done' : 'open',
    ],
    return: [
      visit.state === 'finished'
        ? `${visit.answers.length} of ${USUAL_MOMENTS.length} answers`
        : facts.dueFromMs !== undefined
          ? `due ${time.date(facts.dueFromMs)}`
          : '–',
      visit.answers.length > 1 ? 'done' : 'open',
    ],
  }
  return STATIONS.map((id) => {
    const [words, mark] = states[id]
    return { id, name: STATION_NAMES[id], words, mark }
  })
}

function askMark({ verdict }: Screening): StationMark {
  if (verdict === 'postpone' || verdict === 'refer') return 'stop'
  return verdict === 'not-asked' ? 'open' : 'done'
}

function askWords(screening: Screening, today: IsoDate): string {
  const count = (severity: string) =>
    screening.findings.filter((f) => f.severity === severity).length
  switch (screening.verdict) {
    case 'go':
      if (count('take-care') > 0) return `go, ${count('take-care')} take care`
      break
    case 'leave-out':
      return `go, leave out ${count('leave-out')}`
    case 'not-asked':
      return `${screening.unanswered + screening.toConfirm} to ask`
    case 'postpone':
      if (screening.until === today) return 'read patch test'
      if (screening.until) return `until ${dayWords(screening.until, today)}`
  }
  return verdictWords(screening, today).replace(/\.$/, '').toLowerCase()
}

function chairWords(
  figures: Figures,
  visit: StationVisit,
  steps: number,
  time: WordsOfTime,
): string {
  if (visit.state === 'finished') return `done ${time.date(visit.endedAtMs!)}`
  if (visit.state === 'running') {
    return leftOpenSince(figures, visit.chair, time.nowMs) !== undefined
      ? `left open since ${time.at(visit.chair.lastAtMs)}`
      : `step ${Math.min(visit.chair.index + 1, steps)} of ${steps}`
  }
  return visit.slotAtMs ? `slot ${time.at(visit.slotAtMs)}` : 'not begun'
}

/** What is still to be kept off. */
function careWords(
  care: CarePlan | null,
  lastEndedAtMs: number | undefined,
  time: WordsOfTime,
): string {
  if (!care) return lastEndedAtMs === undefined ? '–' : `of ${time.date(lastEndedAtMs)}`
  const left = care.clearances.filter((c) => c.kind === 'avoid' && c.untilMs > time.nowMs).length
  return left === 0 ? 'all is over' : `${left} to keep off`
}
