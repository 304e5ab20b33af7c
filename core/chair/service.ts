/**
 * A live service as a state machine: events in, state out. Events are numbered, stored before they count, and replay to
 * the same state in whatever batches they come.
 */
import { DomainError } from '../errors.ts'
import type { Plan, PlanStep } from '../plan/types.ts'

/** What can happen at the chair. */
export type ChairEventKind =
  'started' | 'done' | 'skipped' | 'back' | 'nick' | 'tug' | 'blade-changed' | 'finished'

export const CHAIR_EVENT_KINDS: readonly ChairEventKind[] = [
  'started',
  'done',
  'skipped',
  'back',
  'nick',
  'tug',
  'blade-changed',
  'finished',
]

/** One event. */
export interface ChairEvent {
  readonly id: string
  /** 1, 2, 3 … without gaps. */
  readonly seq: number
  readonly kind: ChairEventKind
  readonly atMs: number
  /** Step the event belongs to; absent on started and finished. */
  readonly stepId?: string | undefined
  /** Why a step was skipped. */
  readonly reason?: string | undefined
}

/** Where a service stands. */
export interface ChairState {
  readonly status: 'waiting' | 'running' | 'finished'
  /** Index of the current step; the number of steps when all are done. */
  readonly index: number
  /** What became of each step. */
  readonly outcomes: Readonly<Record<string, 'done' | 'skipped'>>
  readonly skipReasons: Readonly<Record<string, string>>
  readonly nicks: readonly { stepId: string; atMs: number }[]
  readonly tugs: readonly { stepId: string; atMs: number }[]
  /** Blade in hand: 1 is the first. */
  readonly blade: number
  /** Strokes of the steps done since the blade was changed. */
  readonly strokesOnBlade: number
  readonly startedAtMs?: number
  readonly finishedAtMs?: number
  /** Number of the last event that counted. */
  readonly seq: number
}

export const BEFORE_START: ChairState = {
  status: 'waiting',
  index: 0,
  outcomes: {},
  skipReasons: {},
  nicks: [],
  tugs: [],
  blade: 1,
  strokesOnBlade: 0,
  seq: 0,
}

type Steps = Pick<Plan, 'steps'>

/**
 * The state after one more event. An event already counted (its number is not above the last) changes nothing.
 * @throws DomainError `gap` when a number is missing, `not-possible` when the event does not fit the state
 */
export function applyEvent(plan: Steps, state: ChairState, event: ChairEvent): ChairState {
  if (event.seq <= state.seq) return state
  if (event.seq !== state.seq + 1) {
    throw new DomainError(
      'gap',
      `Event ${event.seq} came before event ${state.seq + 1}. Nothing was counted; reload to catch up.`,
    )
  }
  const next = change(plan, state, event)
  return { ...next, seq: event.seq }
}

function change(plan: Steps, state: ChairState, event: ChairEvent): ChairState {
  if (event.kind === 'started') {
    if (state.status !== 'waiting') throw refuse('This service has already been started.')
    return { ...state, status: 'running', startedAtMs: event.atMs }
  }
  if (state.status !== 'running') {
    throw refuse(
      state.status === 'finished'
        ? 'This service is finished; nothing more can be added to it.'
        : 'This service has not been started yet.',
    )
  }
  const current = plan.steps[state.index]
  switch (event.kind) {
    case 'done':
    case 'skipped': {
      if (!current || current.id !== event.stepId) {
        throw refuse('That step is not the current one. Nothing was counted; reload to catch up.')
      }
      const outcomes = { ...state.outcomes, [current.id]: event.kind }
      const skipReasons =
        event.kind === 'skipped'
          ? { ...state.skipReasons, [current.id]: event.reason ?? '' }
          : state.skipReasons
      return {
        ...state,
        outcomes,
        skipReasons,
        index: state.index + 1,
        strokesOnBlade: state.strokesOnBlade + (event.kind === 'done' ? strokesOf(current) : 0),
      }
    }
    case 'back': {
      if (state.index === 0) throw refuse('This is the first step.')
      const previous = plan.steps[state.index - 1]!
      const { [previous.id]: was, ...outcomes } = state.outcomes
      const { [previous.id]: _reason, ...skipReasons } = state.skipReasons
      return {
        ...state,
        index: state.index - 1,
        outcomes,
        skipReasons,
        strokesOnBlade: Math.max(
          0,
          state.strokesOnBlade - (was === 'done' ? strokesOf(previous) : 0),
        ),
      }
    }
    case 'nick':
      return { ...state, nicks: [...state.nicks, { stepId: event.stepId ?? '', atMs: event.atMs }] }
    case 'tug':
      return { ...state, tugs: [...state.tugs, { stepId: event.stepId ?? '', atMs: event.atMs }] }
    case 'blade-changed':
      return { ...state, blade: state.blade + 1, strokesOnBlade: 0 }
    case 'finished': {
      if (state.index < plan.steps.length)
        throw refuse('Some steps are neither done nor skipped yet.')
      return { ...state, status: 'finished', finishedAtMs: event.atMs }
    }
  }
}

const strokesOf = (step: PlanStep) => step.strokes ?? 0

const refuse = (sentence: string) => new DomainError('not-possible', sentence)

/** The state after a list of events in any order, with repeats. */
export function replay(
  plan: Steps,
  events: readonly ChairEvent[],
  from: ChairState = BEFORE_START,
): ChairState {
  return [...events]
    .sort((a, b) => a.seq - b.seq)
    .reduce((state, event) => applyEvent(plan, state, event), from)
}

/** Time left of the last lather, ms (negative when it has dried); undefined before the first. */
export function latherLeftMs(
  events: readonly ChairEvent[],
  nowMs: number,
  lastsMs: number,
): number | undefined {
  const laid = events.filter(
    (e) => e.kind === 'done' && (e.stepId === 'prepare:lather' || e.stepId?.startsWith('lather:')),
  )
  const last = laid[laid.length - 1]
  return last && last.atMs + lastsMs - nowMs
}
