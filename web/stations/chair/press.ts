/** What the main key means now, with what this screen knows besides the service: taps, what is felt, what holds it back. */
import type { Figures } from '../../../core/house/index.ts'
import {
  type CellPlace,
  notFelt,
  redAtChair,
  nextPress,
  type Press,
  type Draft,
  type Live,
} from '../../../core/chair/index.ts'
import type { PlanStep } from '../../../core/plan/index.ts'
import { SERVICES } from '../../../core/services/index.ts'
import { feltAt } from './felt.ts'
import { lookedZones } from './taps.ts'
import type { Proposal } from './useReplan.ts'

export const NO_PLACES: readonly CellPlace[] = []

/** What the main key does now: as the service has it, but for what this screen knows besides. */
export function pressNow(
  figures: Figures,
  live: Live,
  now: number,
  life: number,
  more: {
    held: string | undefined
    laying: boolean
    patches: number
    missed: Proposal
  },
): Press {
  const told = nextPress(figures, live, now, life)
  if (more.laying) return { words: 'Laying the zone anew …' }
  if (live.state.status === 'waiting') {
    return more.held === undefined ? { ...told, words: 'Begin' } : { words: 'Not yet' }
  }
  const step = live.plan.steps[live.state.index]
  const lane = live.plan.lanes.find((l) => l.id === step?.laneId)
  if (notFelt(figures, live, lane) === 'felt-otherwise')
    return { ...told, words: 'Lay the zone anew' }
  if (more.patches === 0 || step?.kind !== 'check') return told
  const { replanned, pending } = more.missed
  const many = more.patches === 1 ? 'the patch' : `${more.patches} patches`
  if (pending) return { words: 'Working it out …' }
  if (!replanned) {
    // Fuzz is not gone over twice, and the key says so. Elsewhere only a choice with its name leaves what was missed.
    return SERVICES[live.plan.service].family === 'fuzz'
      ? { ...told, words: `Leave ${many} for the next visit` }
      : { words: 'Choose what becomes of it' }
  }
  const minutes = Math.max(1, Math.round(replanned.minutesNow - replanned.minutesBefore))
  return { ...told, words: `Take ${many}, ${minutes} min` }
}

/** What was tapped or felt on this screen goes along with the press. */
export function withTold(draft: Draft | undefined, live: Live): Draft | undefined {
  if (draft?.kind === 'looked') {
    const worked = new Set(live.plan.zones.map((z) => z.zoneId))
    return { ...draft, detail: { zones: lookedZones(worked, redAtChair(live.state)) } }
  }
  if (draft?.kind === 'felt') return { ...draft, detail: feltAt(live) }
  return draft
}

/** What is said aloud of a step. */
export function spokenWords(step: PlanStep | undefined, press: Press, status: string): string {
  if (status === 'waiting' || status === 'finished') return ''
  if (status === 'paused') return press.line ? `Look first. ${press.line}` : 'Paused.'
  const line = press.line ?? step?.text ?? ''
  return `${step?.title ?? press.words}. ${line}`
}
