/**
 * A live service as a state machine: events in, state out. Events are stored before they count, and replay to the same
 * state in whatever batches they come. What may happen next is decided in rules.ts; here is what it means.
 */
import { DomainError } from '../errors.ts'
import type { ChairEvent } from './events.ts'
import { KINDS } from './kinds.ts'
import { refuse, type Meets } from './kinds/kind.ts'
import { begin, type ChairPlan, type ChairState, type Live } from './state.ts'

/**
 * One more event. An event already counted (its number is not above the last) changes nothing.
 * @throws DomainError `gap` when a number is missing, `not-possible` when the event does not fit the state
 */
export function advance<P extends ChairPlan>(live: Live<P>, event: ChairEvent): Live<P> {
  const { state } = live
  if (event.seq <= state.seq) return live
  if (event.seq !== state.seq + 1) {
    throw new DomainError(
      'gap',
      `Event ${event.seq} came before event ${state.seq + 1}. Nothing was counted; reload to catch up.`,
    )
  }
  const kind = KINDS[event.kind]
  const plan = kind.plan ? kind.plan(live, event) : live.plan
  const next = effectOf(live, event)
  // What is only put in order afterwards takes no time, and the service is as old as its last real event.
  if (kind.late || state.status === 'finished') {
    return { plan, state: { ...next, seq: event.seq } }
  }
  // A start that was taken back has taken no time either.
  if (next.status === 'waiting') return { plan, state: { ...next, seq: event.seq } }
  const running = state.status === 'running'
  return {
    plan,
    state: {
      ...next,
      ...pacedBy(live, event),
      seq: event.seq,
      spentMs: state.spentMs + (running ? Math.max(0, event.atMs - state.lastAtMs) : 0),
      lastAtMs: event.atMs,
    },
  }
}

/** Since when the step after an event has gone on undisturbed, and how long the stroke step took that the event ends. */
function pacedBy(
  { plan, state }: Live<ChairPlan>,
  { kind, atMs }: ChairEvent,
): Partial<ChairState> {
  if (kind !== 'done' && kind !== 'skipped') return { steadyMs: undefined }
  const step = plan.steps[state.index]
  const { steadyMs } = state
  if (kind === 'skipped' || step?.kind !== 'stroke' || steadyMs === undefined || atMs < steadyMs)
    return { steadyMs: atMs }
  const took = (atMs - steadyMs) / 1000
  return { steadyMs: atMs, laneSeconds: { ...state.laneSeconds, [step.id]: took } }
}

/** The service as an event meets it. */
export function meeting({ plan, state }: Live<ChairPlan>, event: ChairEvent): Meets {
  const current = plan.steps[state.index]
  return { plan, state, event, current, stepId: event.stepId ?? current?.id ?? '' }
}

function effectOf(live: Live<ChairPlan>, event: ChairEvent): ChairState {
  const { status } = live.state
  const { when, effect } = KINDS[event.kind]
  if (when === 'before') {
    if (status !== 'waiting') throw refuse('This service has already been started.')
  } else if (status === 'waiting') throw refuse('This service has not been started yet.')
  else if (status === 'finished' && when !== 'from-the-start') {
    throw refuse('This service is finished; nothing more can be added to it.')
  }
  return effect(meeting(live, event))
}

/** A service after a list of events in any order, with repeats. */
export function replayLive<P extends ChairPlan>(
  plan: P,
  events: readonly ChairEvent[],
  from: Live<P> = begin(plan),
): Live<P> {
  return [...events].sort((a, b) => a.seq - b.seq).reduce(advance<P>, from)
}

/** The state after a list of events in any order, with repeats. */
export function replay(plan: ChairPlan, events: readonly ChairEvent[]): ChairState {
  return replayLive(plan, events).state
}

/** Worked time up to a moment, ms. */
export function elapsedMs(state: ChairState, nowMs: number): number {
  return state.spentMs + (state.status === 'running' ? Math.max(0, nowMs - state.lastAtMs) : 0)
}
