/**
 * A live service as a state machine: events in, state out. Events are stored before they count, and replay to the same
 * state in whatever batches they come. What may happen next is decided in rules.ts; here is what it means.
 */
import { DomainError } from '../errors.ts'
import type { ZoneId } from '../zones/zones.ts'
import type { PlanStep } from '../plan/types.ts'
import type { Amendment, ChairEvent } from './events.ts'
import {
  BEFORE_START,
  begin,
  type ChairPlan,
  type ChairState,
  type Live,
  type News,
  type OpenedBlade,
  type Towel,
} from './state.ts'

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
  const plan =
    event.kind === 'amended' && event.detail?.amendment
      ? amend(live, event.detail.amendment)
      : live.plan
  const next = change({ plan: live.plan, state }, event)
  // What is only put in order afterwards takes no time, and the service is as old as its last real event.
  if (event.kind === 'ended-late' || state.status === 'finished') {
    return { plan, state: { ...next, seq: event.seq } }
  }
  // A start that was taken back has taken no time either.
  if (next.status === 'waiting') return { plan, state: { ...next, seq: event.seq } }
  const running = state.status === 'running'
  return {
    plan,
    state: {
      ...next,
      seq: event.seq,
      spentMs: state.spentMs + (running ? Math.max(0, event.atMs - state.lastAtMs) : 0),
      lastAtMs: event.atMs,
    },
  }
}

/** The plan with its rest replaced. */
function amend<P extends ChairPlan>({ plan, state }: Live<P>, amendment: Amendment): P {
  if (state.status === 'waiting' || state.status === 'finished') {
    throw refuse('Only a service that is running can be planned anew.')
  }
  if (amendment.after !== state.index) {
    throw refuse('The service has moved on since this was worked out. Nothing was changed.')
  }
  const settled = plan.steps.slice(0, state.index)
  const changed = new Map(amendment.lanes.map((l) => [l.id, l]))
  const known = (plan.lanes ?? []).filter((l) => !changed.has(l.id))
  const lanes = [...known, ...amendment.lanes]
  const ids = new Set(settled.map((s) => s.id))
  for (const step of amendment.steps) {
    if (ids.has(step.id) || (step.laneId && !lanes.some((l) => l.id === step.laneId))) {
      throw refuse('That change of the plan does not fit what is already done.')
    }
    ids.add(step.id)
  }
  if (settled.some((s) => s.laneId !== undefined && changed.has(s.laneId))) {
    throw refuse('A lane that is already done cannot be changed.')
  }
  const covers = new Map(amendment.covers.map((c) => [c.zoneId, c.cover]))
  return {
    ...plan,
    steps: [...settled, ...amendment.steps],
    ...(plan.lanes && { lanes }),
    ...(plan.zones && {
      zones: plan.zones.map((z) =>
        covers.has(z.zoneId) ? { ...z, cover: covers.get(z.zoneId)! } : z,
      ),
    }),
  }
}

/** Zones that still get a stroke from a step on. */
function waitingZones(plan: ChairPlan, from: number): Set<string> {
  return new Set(
    plan.steps.slice(from).flatMap((s) => (s.kind !== 'feel' && s.zoneId ? [s.zoneId] : [])),
  )
}

/** The blade that a stroke step is done with: the last opened of its kind that is still in use. */
export function bladeInHand(
  { plan, state }: Live<ChairPlan>,
  step: PlanStep | undefined,
): { index: number; blade: OpenedBlade } | undefined {
  const wanted = plan.lanes?.find((l) => l.id === step?.laneId)?.bladeId
  for (let i = state.blades.length - 1; i >= 0; i--) {
    const blade = state.blades[i]!
    if (blade.end !== undefined) continue
    if (wanted === undefined || blade.bladeId === undefined || blade.bladeId === wanted) {
      return { index: i, blade }
    }
  }
  return undefined
}

/** News on top of what waits for a look already. The same answer told further takes its own place. */
function withNews(before: News | undefined, { id, reason, detail }: ChairEvent): News {
  const zones = (detail?.zones ?? []).map((z) => z.zoneId)
  const words = reason ?? ''
  const grown = before && before.zones.length > 0 && before.zones.every((z) => zones.includes(z))
  if (!before || grown) return { id, words, zones }
  return {
    id,
    words: `${before.words} ${words}`,
    zones: [...new Set([...before.zones, ...zones])],
  }
}

function change(live: Live<ChairPlan>, event: ChairEvent): ChairState {
  const { plan, state } = live
  const { atMs, detail } = event
  if (event.kind === 'started') {
    if (state.status !== 'waiting') throw refuse('This service has already been started.')
    return { ...state, status: 'running', startedAtMs: atMs, startId: event.id }
  }
  if (state.status === 'waiting') throw refuse('This service has not been started yet.')
  if (event.kind === 'taken-back') return takeBack(state, detail?.of)
  if (state.status === 'finished') {
    throw refuse('This service is finished; nothing more can be added to it.')
  }
  const current = plan.steps[state.index]
  const stepId = event.stepId ?? current?.id ?? ''
  const towel = (id: string, with_: Partial<Towel>) => {
    const had = state.towels[id]
    if (!had) throw refuse('That towel has not been taken out yet.')
    return { ...state, towels: { ...state.towels, [id]: { ...had, ...with_ } } }
  }
  switch (event.kind) {
    case 'paused':
      // News may come in a pause, too.
      if (state.status === 'paused' && event.reason === undefined) {
        throw refuse('The service is already paused.')
      }
      return {
        ...state,
        status: 'paused',
        ...(event.reason !== undefined && { pausedFor: withNews(state.pausedFor, event) }),
      }
    case 'resumed':
      if (state.status !== 'paused') throw refuse('The service is not paused.')
      return { ...state, status: 'running', pausedFor: undefined }
    case 'done':
    case 'skipped':
      return settle(live, event)
    case 'back':
      return goBack(live)
    case 'nick':
      return {
        ...state,
        nicks: [...state.nicks, { id: event.id, stepId, atMs, ...toldOf(detail) }],
      }
    case 'nick-told': {
      if (!state.nicks.some((n) => n.id === detail?.of)) throw refuse('That nick is not known.')
      return {
        ...state,
        nicks: state.nicks.map((n) => (n.id === detail?.of ? { ...n, ...toldOf(detail) } : n)),
      }
    }
    case 'tug':
    case 'pressure': {
      const tugs = [...state.tugs, { stepId, atMs, pressure: event.kind === 'pressure' }]
      const held = bladeInHand(live, current)
      return { ...state, tugs, ...(held && withBlade(state, held.index, { worn: event.kind })) }
    }
    case 'redness':
      return {
        ...state,
        redness: [
          ...state.redness,
          {
            id: event.id,
            stepId,
            zoneId: detail?.zoneId ?? (current?.zoneId as ZoneId),
            grade: detail?.grade ?? 2,
            welt: detail?.welt ?? false,
            atMs,
          },
        ],
      }
    case 'blade-opened':
      return {
        ...state,
        blades: [...state.blades, { bladeId: detail?.bladeId, openedAtMs: atMs, strokes: 0 }],
      }
    case 'blade-changed': {
      const held = bladeInHand(live, current)
      // Services of before told of changes only: the first blade was in hand unsaid.
      const blades = held
        ? withBlade(state, held.index, { end: detail?.why ?? 'by-hand', endedAtMs: atMs }).blades
        : [{ openedAtMs: atMs, strokes: 0, end: 'by-hand' as const, endedAtMs: atMs }]
      const bladeId = held?.blade.bladeId
      return { ...state, blades: [...blades, { bladeId, openedAtMs: atMs, strokes: 0 }] }
    }
    case 'blades-binned':
      return {
        ...state,
        blades: state.blades.map((b) => (b.end ? b : { ...b, end: 'end', endedAtMs: atMs })),
      }
    case 'towel-out':
      return { ...state, towels: { ...state.towels, [stepId]: { outAtMs: atMs, reads: [] } } }
    case 'towel-kept':
      return { ...state, towels: { ...state.towels, kept: { outAtMs: atMs, reads: [] } } }
    case 'towel-read': {
      const read = { atMs, tempC: detail?.tempC ?? 0, withinC: detail?.withinC ?? 0 }
      return towel(stepId, { reads: [...(state.towels[stepId]?.reads ?? []), read] })
    }
    case 'towel-asked':
      return towel(stepId, { askedAtMs: atMs })
    case 'towel-laid':
      return towel(stepId, { laidAtMs: atMs })
    case 're-lathered':
      return { ...state, lathered: latherAt(plan, state, state.index, atMs) }
    case 'soaked':
      return { ...state, soakedAtMs: atMs }
    case 'prepared':
      return { ...state, prepared: [...new Set([...state.prepared, detail?.task ?? ''])] }
    case 'amended':
      return {
        ...state,
        amendments: [...state.amendments, { text: detail?.amendment?.text ?? '', atMs }],
      }
    case 'looked':
      return { ...state, looked: detail?.zones ?? [] }
    case 'felt': {
      const { zoneId, point, normal, tangent } = detail ?? {}
      if (current?.kind !== 'feel' || current.id !== event.stepId || current.zoneId !== zoneId) {
        throw refuse('That is not what is felt now. Nothing was counted; reload to catch up.')
      }
      if (!point || !normal || !tangent || Math.hypot(...tangent) < 0.5) {
        throw refuse('Nobody said which way it was felt.')
      }
      return {
        ...state,
        felt: { ...state.felt, [current.zoneId!]: { id: event.id, atMs, point, normal, tangent } },
        outcomes: { ...state.outcomes, [current.id]: 'done' },
        index: state.index + 1,
      }
    }
    case 'patches-left':
      return {
        ...state,
        patchesLeft: [
          ...state.patchesLeft,
          ...(detail?.patches ?? []).map(({ zoneId, point }) => ({ zoneId, point })),
        ],
      }
    case 'ended-late':
      return endLate(live)
    case 'finished': {
      if (state.index < plan.steps.length)
        throw refuse('Some steps are neither done nor skipped yet.')
      return { ...state, status: 'finished', finishedAtMs: atMs }
    }
  }
}

/**
 * A nick, redness or start that was wrongly recorded no longer counts; its event stays in the record. A start can only be
 * taken back while no blade has been opened and nothing was stroked.
 */
function takeBack(state: ChairState, of: string | undefined): ChairState {
  const takenBack = [...state.takenBack, of ?? '']
  if (of !== undefined && of === state.startId && state.status !== 'finished') {
    if (state.blades.length > 0 || Object.keys(state.onBlade).length > 0) {
      throw refuse('A blade has been opened for this client: end the service instead.')
    }
    return { ...BEFORE_START, takenBack, seq: state.seq }
  }
  const nicks = state.nicks.filter((n) => n.id !== of)
  const redness = state.redness.filter((r) => r.id !== of)
  if (nicks.length === state.nicks.length && redness.length === state.redness.length) {
    throw refuse('Only a nick, redness or the start can be taken back, each once.')
  }
  return { ...state, nicks, redness, takenBack }
}

/** Why a step was not done in a service that nobody ended. */
export const LEFT_OPEN = 'the service was left open'

/** Ends a service as of its last event: what was not reached was not done. */
function endLate({ plan, state }: Live<ChairPlan>): ChairState {
  const rest = plan.steps.slice(state.index)
  const each = <T>(value: T) => Object.fromEntries(rest.map((s) => [s.id, value] as const))
  return {
    ...state,
    status: 'finished',
    index: plan.steps.length,
    outcomes: { ...state.outcomes, ...each('skipped' as const) },
    skipReasons: { ...state.skipReasons, ...each(LEFT_OPEN) },
    blades: state.blades.map((b) => (b.end ? b : { ...b, end: 'end', endedAtMs: state.lastAtMs })),
    finishedAtMs: state.lastAtMs,
  }
}

function toldOf(detail: ChairEvent['detail']) {
  if (!detail) return {}
  const { zoneId, point, normal, sizeMm, did, contact } = detail
  return {
    ...(zoneId !== undefined && { zoneId }),
    ...(point !== undefined && { point, normal }),
    ...(sizeMm !== undefined && { sizeMm }),
    ...(did !== undefined && { did }),
    ...(contact !== undefined && { contact }),
  }
}

const withBlade = (state: ChairState, index: number, change: Partial<OpenedBlade>) => ({
  blades: state.blades.map((b, i) => (i === index ? { ...b, ...change } : b)),
})

function latherAt(plan: ChairPlan, state: ChairState, from: number, atMs: number) {
  const lathered = { ...state.lathered }
  for (const zone of waitingZones(plan, from)) lathered[zone] = atMs
  return lathered
}

/** The current step is done or skipped. */
function settle(live: Live<ChairPlan>, event: ChairEvent): ChairState {
  const { plan, state } = live
  const current = plan.steps[state.index]
  if (!current || current.id !== event.stepId) {
    throw refuse('That step is not the current one. Nothing was counted; reload to catch up.')
  }
  const done = event.kind === 'done'
  let next: ChairState = {
    ...state,
    outcomes: { ...state.outcomes, [current.id]: done ? 'done' : 'skipped' },
    skipReasons: done
      ? state.skipReasons
      : { ...state.skipReasons, [current.id]: event.reason ?? '' },
    index: state.index + 1,
  }
  const towel = state.towels[current.id]
  if (towel?.laidAtMs !== undefined) {
    next = {
      ...next,
      towels: { ...next.towels, [current.id]: { ...towel, offAtMs: event.atMs } },
    }
  }
  if (!done) return next
  // Plans of before do not say what is laid; their steps of lather were named so.
  if (current.lays === 'lather' || current.kind === 'lather' || current.id === 'prepare:lather') {
    next = { ...next, lathered: latherAt(plan, state, next.index, event.atMs) }
  }
  if (current.strokes === undefined) return next
  const held = bladeInHand(live, current)
  const blades = held
    ? withBlade(state, held.index, { strokes: held.blade.strokes + current.strokes }).blades
    : [...state.blades, { openedAtMs: event.atMs, strokes: current.strokes }]
  return {
    ...next,
    blades,
    onBlade: { ...state.onBlade, [current.id]: held?.index ?? state.blades.length },
  }
}

function goBack({ plan, state }: Live<ChairPlan>): ChairState {
  if (state.index === 0) throw refuse('This is the first step.')
  const previous = plan.steps[state.index - 1]!
  const { [previous.id]: _was, ...outcomes } = state.outcomes
  const { [previous.id]: _reason, ...skipReasons } = state.skipReasons
  const { [previous.id]: on, ...onBlade } = state.onBlade
  const felt = { ...state.felt }
  // What is felt once more counts once.
  if (previous.kind === 'feel' && previous.zoneId) delete felt[previous.zoneId]
  const blade = on === undefined ? undefined : state.blades[on]
  return {
    ...state,
    index: state.index - 1,
    outcomes,
    skipReasons,
    onBlade,
    felt,
    ...(blade &&
      withBlade(state, on!, { strokes: Math.max(0, blade.strokes - (previous.strokes ?? 0)) })),
  }
}

const refuse = (sentence: string) => new DomainError('not-possible', sentence)

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
