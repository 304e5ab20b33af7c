/**
 * What the main key means at the chair, with what a screen knows besides the service: what holds the start back, taps on the
 * head, what is being felt, and whether the rest is just being worked out.
 */
import type { Figures } from '../house/index.ts'
import { serviceIn, type PlanStep, zonesOfPlan } from '../plan/index.ts'
import { SERVICES } from '../services/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { ChairDetail, Draft } from './events.ts'
import { stepNotFelt, type ToFeel } from './feel.ts'
import type { Replanned } from './newRest.ts'
import { redAtChair } from './outcome.ts'
import { nextPress, type Press } from './rules.ts'
import type { ChairState, Live } from './state.ts'

/** What a screen knows besides the service. */
export interface OnScreen {
  /** What holds the start back, in words. */
  readonly held: string | undefined
  /** A zone is just being laid anew. */
  readonly laying: boolean
  /** Missed patches that are tapped, not yet told. */
  readonly patches: number
  /** What taking them would make of the rest. */
  readonly missed: {
    readonly replanned?: Pick<Replanned, 'minutesBefore' | 'minutesNow'> | undefined
    readonly pending: boolean
  }
}

/**
 * What the main key does now: as the service has it, but for what the screen knows besides. Without a draft it does nothing.
 * @param bladeLife strokes of a blade's life on this client's hair
 */
export function pressNow(
  figures: Figures,
  live: Live,
  nowMs: number,
  bladeLife: number,
  { held, laying, patches, missed }: OnScreen,
): Press {
  if (laying) return { words: 'Laying the zone anew …' }
  const told = nextPress(figures, live, nowMs, bladeLife)
  if (live.state.status === 'waiting') {
    return held === undefined ? { ...told, words: 'Begin' } : { words: 'Not yet' }
  }
  const step = live.plan.steps[live.state.index]
  if (stepNotFelt(figures, live, step)?.why === 'felt-otherwise')
    return { ...told, words: 'Lay the zone anew' }
  if (patches === 0 || step?.kind !== 'check') return told
  const { replanned, pending } = missed
  const many = patches === 1 ? 'the patch' : `${patches} patches`
  if (pending) return { words: 'Working it out …' }
  if (!replanned) {
    // Fuzz is not gone over twice, and the key says so. Elsewhere only a choice with its name leaves what was missed.
    const worked = live.plan.zones.map((z) => serviceIn(live.plan, z.zoneId))
    return worked.every((s) => SERVICES[s].family === 'fuzz')
      ? { ...told, words: `Leave ${many} for the next visit` }
      : { words: 'Choose what becomes of it' }
  }
  const minutes = Math.max(1, Math.round(replanned.minutesNow - replanned.minutesBefore))
  return { ...told, words: `Take ${many}, ${minutes} min` }
}

/** The first look as it is being tapped. */
export interface Tapped {
  readonly zones: readonly ZoneId[]
  /** Redness of zones, 1 until another is chosen. */
  readonly grades: Readonly<Record<string, number>>
}

/** The first look: zones that reddened at the chair, and worked ones that are tapped now, with their redness now. */
export function lookedZones(
  live: Live,
  { zones, grades }: Tapped,
): NonNullable<ChairDetail['zones']> {
  const worked = new Set(zonesOfPlan(live.plan))
  const red = redAtChair(live.state)
  const named = new Set([
    ...(Object.keys(red) as ZoneId[]),
    ...zones.filter((zone) => worked.has(zone)),
  ])
  return [...named].map((zoneId) => ({ zoneId, redness: grades[zoneId] ?? red[zoneId] ?? 1 }))
}

/** What a press tells: what was tapped or felt on the screen goes along with it. */
export function withTold(
  draft: Draft | undefined,
  live: Live,
  tapped: Tapped,
  felt: ToFeel | undefined,
): Draft | undefined {
  if (draft?.kind === 'looked') return { ...draft, detail: { zones: lookedZones(live, tapped) } }
  if (draft?.kind === 'felt') return { ...draft, detail: felt }
  return draft
}

/** What is said aloud of a step; nothing before the start and after the end. */
export function spokenWords(
  step: PlanStep | undefined,
  press: Press,
  status: ChairState['status'],
): string {
  if (status === 'waiting' || status === 'finished') return ''
  if (status === 'paused') return press.line ? `Look first. ${press.line}` : 'Paused.'
  return `${step?.title ?? press.words}. ${press.line ?? step?.text ?? ''}`
}
