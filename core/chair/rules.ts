/** What may happen next at the chair, and what the pedal means now. */
import type { Figures } from '../house/constants.ts'
import { DomainError } from '../errors.ts'
import { zoneName } from '../zones/facts.ts'
import type { ZoneId } from '../zones/zones.ts'
import { BLADES, type BladeId } from '../kit/blades.ts'
import type { Lane, PlanStep } from '../plan/types.ts'
import { notFelt, toFeel } from './feel.ts'
import { latherNow } from './lather.ts'
import { leftOpenSince } from './leftOpen.ts'
import { redAtChair } from './outcome.ts'
import { advance, bladeInHand } from './service.ts'
import type { ChairEvent, ChairEventKind, Draft } from './events.ts'
import type { ChairPlan, ChairState, Live } from './state.ts'
import { towelPlan } from './towel.ts'

const refuse = (code: string, sentence: string) => new DomainError(code, sentence)

/** A hot towel is taken out, asked about, laid and taken off; the cold one at the close is only laid. */
export const isHotTowel = (step: PlanStep | undefined) =>
  step?.lays === 'towel' && step.kind === 'prepare'

/** A blade that is used once and binned, as a trimmer is not. */
export function bladeOf(
  { plan }: Live<ChairPlan>,
  step: PlanStep | undefined,
): BladeId | undefined {
  const id = plan.lanes?.find((l) => l.id === step?.laneId)?.bladeId
  return id !== undefined && BLADES[id].tool !== 'trimmer' ? id : undefined
}

/** What may happen while a service is paused: what is found, and what becomes of the rest; no work. */
const IN_A_PAUSE: ReadonlySet<ChairEventKind> = new Set([
  'resumed',
  'nick',
  'nick-told',
  'redness',
  'amended',
  'taken-back',
  'ended-late',
])

/**
 * Counts an event that has just happened, if the rules of the chair allow it.
 * @throws DomainError beside those of `advance`: `no-blade-opened`, `ask-first`, `too-hot`, `not-laid`, `blades-out`, `paused`,
 * `feel-first`, `felt-otherwise`, `not-planned`, `not-left-open`
 */
export function admit<P extends ChairPlan>(
  figures: Figures,
  live: Live<P>,
  event: ChairEvent,
): Live<P> {
  const { plan, state } = live
  const step = plan.steps[state.index]
  const towel = step ? state.towels[step.id] : undefined
  if (
    state.status === 'paused' &&
    !IN_A_PAUSE.has(event.kind) &&
    !(event.kind === 'paused' && event.reason !== undefined)
  ) {
    throw refuse('paused', 'The service is paused. Go on first.')
  }
  switch (event.kind) {
    case 'resumed':
      if (state.pausedFor && event.detail?.of !== state.pausedFor.id) {
        throw refuse(
          'paused',
          'Something to look at has come in meanwhile. Look first, then go on.',
        )
      }
      break
    case 'done': {
      const blade = step?.id === event.stepId ? bladeOf(live, step) : undefined
      if (blade !== undefined && !bladeInHand(live, step)) {
        throw refuse(
          'no-blade-opened',
          `Open a fresh blade (${BLADES[blade].name}) in front of the client first: one blade is for one person only, since blood too little to see carries infection.`,
        )
      }
      if (step && step.id === event.stepId) refuseUnfelt(figures, live, step)
      if (step?.id === event.stepId && isHotTowel(step) && towel?.laidAtMs === undefined) {
        throw refuse('not-laid', 'The towel has not been laid. Lay it, or skip it.')
      }
      break
    }
    case 'skipped':
      if (step?.kind === 'feel' && step.id === event.stepId) {
        throw refuse(
          'feel-first',
          'Nobody has read the grain there: feel it, or leave the whole zone out.',
        )
      }
      break
    case 'amended':
      refuseUnknown(live, event.detail?.amendment?.lanes ?? [])
      break
    case 'ended-late':
      if (leftOpenSince(figures, state, event.atMs) === undefined) {
        throw refuse(
          'not-left-open',
          'This service is going on. Stop it, or go through to its end.',
        )
      }
      break
    case 'blade-changed':
    case 'tug':
    case 'pressure':
      if (plan.lanes && plan.lanes.length > 0 && !bladeInHand(live, step)) {
        throw refuse('no-blade-opened', 'No blade is open yet.')
      }
      break
    case 'towel-laid':
      if (towel?.askedAtMs === undefined) {
        throw refuse('ask-first', 'Ask the client first whether the warmth is right, always.')
      }
      if (towelPlan(figures, towel, event.atMs).waitMs > 0) {
        throw refuse(
          'too-hot',
          'The towel is still too hot to lay. Wait, or read it with the probe.',
        )
      }
      break
    case 'finished':
      if (state.blades.some((b) => b.end === undefined && b.bladeId !== undefined)) {
        throw refuse('blades-out', 'Used blades go into the sharps box before the service ends.')
      }
      break
  }
  return advance(live, event)
}

/** A direction is felt before it is stroked, and a lane that was felt to run otherwise is laid anew first. */
function refuseUnfelt(figures: Figures, live: Live<ChairPlan>, step: PlanStep): void {
  if (step.kind === 'feel') {
    throw refuse('feel-first', 'Say which way it was felt to grow; that settles this step.')
  }
  const why = notFelt(
    figures,
    live,
    live.plan.lanes?.find((l) => l.id === step.laneId),
  )
  if (why === 'feel-first') {
    throw refuse(
      why,
      `${step.title}: nobody has read the grain here. Feel it first, or leave the zone out.`,
    )
  }
  if (why) {
    throw refuse(
      why,
      `${step.title}: the hair here was felt to grow another way than this stroke was laid by. Lay the zone anew, or leave it out.`,
    )
  }
}

/** The rest that is planned anew stays on the skin that was planned, and calls no direction read that nobody has felt. */
function refuseUnknown({ plan, state }: Live<ChairPlan>, lanes: readonly Lane[]): void {
  const planned = plan.zones && new Set<string>(plan.zones.map((z) => z.zoneId))
  const stranger = planned && lanes.find((l) => !planned.has(l.zoneId))
  if (stranger) {
    throw refuse(
      'not-planned',
      `${zoneName(stranger.zoneId)} is no part of the plan that was kept: it was left out, or belongs to another service.`,
    )
  }
  const unfelt = (plan.lanes ?? []).filter((l) => l.grain === 'guess' && !state.felt[l.zoneId])
  const sure = lanes.find((l) => l.grain !== 'guess' && unfelt.some((u) => u.zoneId === l.zoneId))
  if (sure) {
    throw refuse(
      'feel-first',
      `${zoneName(sure.zoneId)}: nobody has read the grain there, so that lane is a guess too.`,
    )
  }
}

/** What one press of the pedal does now. */
export interface Press {
  /** On the large button. */
  readonly words: string
  /** Absent while one has to wait. */
  readonly draft?: Draft | undefined
  /** What to do, in place of the step's own words. */
  readonly line?: string | undefined
  readonly waitMs?: number | undefined
}

/** Share of a blade's life below which it is not changed only because the plan says so. */
const STILL_FRESH = 0.25

/** Ends a pause, with the news that was looked at. */
export const resume = ({ pausedFor }: ChairState): Draft => ({
  kind: 'resumed',
  ...(pausedFor && { detail: { of: pausedFor.id } }),
})

/**
 * The next thing that a press of the pedal does: it leads through the service by itself, blades and towels included.
 * @param bladeLife strokes of a blade's life on this client's hair
 */
export function nextPress(
  figures: Figures,
  live: Live<ChairPlan>,
  nowMs: number,
  bladeLife: number,
): Press {
  const { plan, state } = live
  const step = plan.steps[state.index]
  if (state.status === 'waiting') return { words: 'Start', draft: { kind: 'started' } }
  if (state.status === 'paused') {
    return {
      words: state.pausedFor === undefined ? 'Go on' : 'Looked: go on',
      line: state.pausedFor?.words,
      draft: resume(state),
    }
  }
  if (!step) return closing(live)
  const done: Press = { words: 'Done, next', draft: { kind: 'done', stepId: step.id } }
  if (isHotTowel(step)) return towelPress(figures, live, step, nowMs)
  if (step.kind === 'feel') {
    return {
      words: 'Felt: it grows so',
      draft: { kind: 'felt', stepId: step.id, detail: toFeel(plan, step.zoneId) },
    }
  }
  const bladeId = bladeOf(live, step)
  if (bladeId === undefined) return done
  const held = bladeInHand(live, step)
  if (!held) {
    return {
      words: 'Fresh blade opened',
      line: `Open a fresh blade before the client’s eyes: ${BLADES[bladeId].name}. One blade, one person.`,
      draft: { kind: 'blade-opened', stepId: step.id, detail: { bladeId } },
    }
  }
  const { worn, strokes } = held.blade
  const planned = step.freshBlade === true && strokes > STILL_FRESH * bladeLife
  if (worn || planned || strokes >= bladeLife) {
    return {
      words: 'Blade changed',
      line:
        worn === 'tug'
          ? 'It tugged: the blade is done. The old one into the sharps box, a fresh one in.'
          : worn === 'pressure'
            ? 'It needed pressure: the blade is done. Never press; change it now.'
            : 'The blade has done its share. The old one into the sharps box, a fresh one in.',
      draft: { kind: 'blade-changed', stepId: step.id, detail: { why: worn ?? 'planned' } },
    }
  }
  const here = latherNow(figures, live, nowMs).find((l) => l.zoneId === step.zoneId)
  if (here && here.leftMs <= 0) {
    return {
      words: 'Lathered again',
      line: 'The lather here has dried. Fresh lather on what is not yet done, before the blade.',
      draft: { kind: 're-lathered', stepId: step.id },
    }
  }
  return done
}

function towelPress(
  figures: Figures,
  { state }: Live<ChairPlan>,
  step: PlanStep,
  nowMs: number,
): Press {
  const towel = state.towels[step.id]
  const say = (kind: Draft['kind'], words: string, line?: string): Press => ({
    words,
    draft: { kind, stepId: step.id },
    ...(line && { line }),
  })
  if (!towel) return say('towel-out', 'Towel is out', 'Take a towel out of the warmer, folded.')
  if (towel.askedAtMs === undefined) {
    return say(
      'towel-asked',
      'Asked: it is right',
      'Let it cool. Try it on your wrist, hold it to the client’s cheek, and ask.',
    )
  }
  if (towel.laidAtMs === undefined) {
    const { waitMs } = towelPlan(figures, towel, nowMs)
    return waitMs > 0
      ? {
          words: 'Too hot yet',
          waitMs,
          line: 'Wait, or read it with the probe. It is not laid before.',
        }
      : say('towel-laid', 'Laid', 'Lay it now, nose free.')
  }
  return say('done', 'Taken off, next', 'It warms. Take it off when it no longer does.')
}

function closing({ state }: Live<ChairPlan>): Press {
  const out = state.blades.filter((b) => b.end === undefined && b.bladeId !== undefined).length
  if (out > 0) {
    return {
      words: 'In the sharps box',
      line: `${out === 1 ? 'The blade goes' : `${out} blades go`} into the sharps box now.`,
      draft: { kind: 'blades-binned' },
    }
  }
  const red = Object.entries(redAtChair(state)) as [ZoneId, number][]
  if (!state.looked && red.length > 0) {
    return {
      words: 'Keep this reading',
      line: `${red.map(([zone]) => zoneName(zone)).join(', ')} reddened: look there first, in good light, and grade it as it is now.`,
      draft: {
        kind: 'looked',
        detail: { zones: red.map(([zoneId, redness]) => ({ zoneId, redness })) },
      },
    }
  }
  if (!state.looked) {
    return {
      words: 'All clear',
      line: 'Look at the skin in good light. Tap zones that are red on the head; nothing tapped is all clear.',
      draft: { kind: 'looked', detail: { zones: [] } },
    }
  }
  return { words: 'Finish', draft: { kind: 'finished' } }
}
