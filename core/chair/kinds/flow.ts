/** Events of the flow: start, pauses, steps, changes of the rest, the end. */
import { BLADES, type BladeId } from '../../kit/index.ts'
import type { Figures } from '../../house/index.ts'
import { asToldNow, stepLanes, type Lane, type PlanStep } from '../../plan/index.ts'
import { zoneName } from '../../zones/index.ts'
import type { Amendment } from '../events.ts'
import { stepNotFelt } from '../feel.ts'
import { leftOpenSince } from '../leftOpen.ts'
import { BEFORE_START, type ChairPlan, type ChairState, type Live, type News } from '../state.ts'
import {
  always,
  bladeInHand,
  forbid,
  latherAt,
  refuse,
  withBlade,
  type EventKind,
  type Happened,
  type Meets,
} from './kind.ts'

export const FLOW = {
  started: {
    words: 'Begun',
    takes: ['beside', 'away'],
    when: 'before',
    effect: ({ state, event }) => ({
      ...state,
      status: 'running',
      startedAtMs: event.atMs,
      startId: event.id,
    }),
  },
  paused: {
    words: 'Paused',
    takes: ['zones'],
    // News may come in a pause, too.
    inAPause: ({ reason }) => reason !== undefined,
    effect: ({ state, event }) => {
      if (state.status === 'paused' && event.reason === undefined)
        throw refuse('The service is already paused.')
      return {
        ...state,
        status: 'paused',
        ...(event.reason !== undefined && { pausedFor: withNews(state.pausedFor, event) }),
      }
    },
  },
  resumed: {
    words: 'Gone on',
    takes: ['of'],
    inAPause: always,
    admit: (_, { state, event }) => {
      if (state.pausedFor && event.detail?.of !== state.pausedFor.id) {
        throw forbid(
          'paused',
          'Something to look at has come in meanwhile. Look first, then go on.',
        )
      }
    },
    effect: ({ state }) => {
      if (state.status !== 'paused') throw refuse('The service is not paused.')
      return { ...state, status: 'running', pausedFor: undefined }
    },
  },
  done: {
    words: 'Done',
    takes: [],
    admit: (figures, meets) => {
      const { current: step, event, state } = meets
      if (!step || step.id !== event.stepId) return
      const blade = bladeOf(meets, step)
      if (blade !== undefined && !bladeInHand(meets, step)) {
        throw forbid(
          'no-blade-opened',
          `Open a fresh blade (${BLADES[blade].name}) in front of the client first: one blade is for one person only, since blood too little to see carries infection.`,
        )
      }
      refuseUnfelt(figures, meets, step)
      if (isHotTowel(step) && state.towels[step.id]?.laidAtMs === undefined) {
        throw forbid('not-laid', 'The towel has not been laid. Lay it, or skip it.')
      }
    },
    effect: (meets) => settle(meets, true),
  },
  skipped: {
    words: 'Skipped',
    takes: [],
    admit: (_, { current, event }) => {
      if (current?.kind === 'feel' && current.id === event.stepId) {
        throw forbid(
          'feel-first',
          'Nobody has read the grain there: feel it, or leave the whole zone out.',
        )
      }
    },
    effect: (meets) => settle(meets, false),
  },
  back: { words: 'A step back', takes: [], effect: goBack },
  amended: {
    words: 'The rest was changed',
    takes: ['amendment'],
    inAPause: always,
    admit: (_, meets) => refuseUnknown(meets, meets.event.detail?.amendment?.lanes ?? []),
    plan: (live, { detail }) => (detail?.amendment ? amend(live, detail.amendment) : live.plan),
    effect: ({ state, event }) => ({
      ...state,
      amendments: [
        ...state.amendments,
        { text: event.detail?.amendment?.text ?? '', atMs: event.atMs },
      ],
    }),
  },
  'taken-back': {
    words: 'Taken back',
    takes: ['of'],
    when: 'from-the-start',
    inAPause: always,
    effect: ({ state, event }) => takeBack(state, event.detail?.of),
  },
  finished: {
    words: 'Finished',
    takes: [],
    admit: (_, { state }) => {
      if (state.blades.some((b) => b.end === undefined && b.bladeId !== undefined)) {
        throw forbid('blades-out', 'Used blades go into the sharps box before the service ends.')
      }
    },
    effect: ({ plan, state, event }) => {
      if (state.index < plan.steps.length)
        throw refuse('Some steps are neither done nor skipped yet.')
      return { ...state, status: 'finished', finishedAtMs: event.atMs }
    },
  },
  'ended-late': {
    words: 'Ended afterwards',
    takes: [],
    inAPause: always,
    late: true,
    admit: (figures, { state, event }) => {
      if (leftOpenSince(figures, state, event.atMs) === undefined) {
        throw forbid(
          'not-left-open',
          'This service is going on. Stop it, or go through to its end.',
        )
      }
    },
    effect: endLate,
  },
} as const satisfies Record<string, EventKind>

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

/** News on top of what waits for a look already. The same answer told further takes its own place. */
function withNews(before: News | undefined, { id, reason, detail }: Happened): News {
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

/** The plan with its rest replaced. */
function amend<P extends ChairPlan>({ plan, state }: Live<P>, told: Amendment): P {
  const amendment = asToldNow(told)
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
    if (ids.has(step.id) || stepLanes(step).some((id) => !lanes.some((l) => l.id === id))) {
      throw refuse('That change of the plan does not fit what is already done.')
    }
    ids.add(step.id)
  }
  if (settled.some((s) => stepLanes(s).some((id) => changed.has(id)))) {
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

/** The current step is done or skipped. */
function settle(meets: Meets, done: boolean): ChairState {
  const { plan, state, event, current } = meets
  if (!current || current.id !== event.stepId) {
    throw refuse('That step is not the current one. Nothing was counted; reload to catch up.')
  }
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
  const held = bladeInHand(meets, current)
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
  const { [previous.id]: _took, ...laneSeconds } = state.laneSeconds
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
    laneSeconds,
    felt,
    ...(blade &&
      withBlade(state, on!, { strokes: Math.max(0, blade.strokes - (previous.strokes ?? 0)) })),
  }
}

/** A direction is felt before it is stroked, and a lane that was felt to run otherwise is laid anew first. */
function refuseUnfelt(figures: Figures, live: Live<ChairPlan>, step: PlanStep): void {
  if (step.kind === 'feel') {
    throw forbid('feel-first', 'Say which way it was felt to grow; that settles this step.')
  }
  const why = stepNotFelt(figures, live, step)?.why
  if (why === 'feel-first') {
    throw forbid(
      why,
      `${step.title}: nobody has read the grain here. Feel it first, or leave the zone out.`,
    )
  }
  if (why) {
    throw forbid(
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
    throw forbid(
      'not-planned',
      `${zoneName(stranger.zoneId)} is no part of the plan that was kept: it was left out, or belongs to another service.`,
    )
  }
  const unfelt = (plan.lanes ?? []).filter((l) => l.grain === 'guess' && !state.felt[l.zoneId])
  const sure = lanes.find((l) => l.grain !== 'guess' && unfelt.some((u) => u.zoneId === l.zoneId))
  if (sure) {
    throw forbid(
      'feel-first',
      `${zoneName(sure.zoneId)}: nobody has read the grain there, so that lane is a guess too.`,
    )
  }
}
