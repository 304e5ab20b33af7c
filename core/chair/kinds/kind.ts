/**
 * What an event of the chair is: one record a kind says in words what happened, what it tells besides, when it may happen, and
 * what it makes of the service. A new kind is one more record in flow.ts, skin.ts or tools.ts.
 */
import { DomainError } from '../../errors.ts'
import type { Figures } from '../../house/index.ts'
import { stepZones, type PlanStep } from '../../plan/index.ts'
import type { ChairDetail } from '../events.ts'
import type { ChairPlan, ChairState, Live, OpenedBlade } from '../state.ts'

/** An event in its place, apart from its kind. */
export interface Happened {
  readonly id: string
  readonly atMs: number
  readonly stepId?: string | undefined
  readonly reason?: string | undefined
  readonly detail?: ChairDetail | undefined
}

/** The service that an event meets. */
export interface Meets extends Live<ChairPlan> {
  readonly event: Happened
  readonly current: PlanStep | undefined
  /** The step that it belongs to: its own, or the current one. */
  readonly stepId: string
}

export interface EventKind {
  /** What happened, for a record of the service. */
  readonly words: string
  /** What it says besides; nothing else is taken. */
  readonly takes: readonly (keyof ChairDetail)[]
  /** From when to when: while the service is under way unless said otherwise. */
  readonly when?: 'before' | 'from-the-start'
  /** What is found may be written down in a pause, and what becomes of the rest; no work. */
  readonly inAPause?: (event: Happened) => boolean
  /** Put in order afterwards: it takes no time. */
  readonly late?: true
  /**
   * What the rules of the chair ask of an event that has just happened; those that are stored have been through it.
   * @throws DomainError
   */
  readonly admit?: (figures: Figures, meets: Meets) => void
  /** The plan from here on. */
  readonly plan?: <P extends ChairPlan>(live: Live<P>, event: Happened) => P
  /**
   * The state from here on.
   * @throws DomainError `not-possible` when the event does not fit
   */
  readonly effect: (meets: Meets) => ChairState
}

export const always = () => true

/** Something that cannot have happened as things stand. */
export const refuse = (sentence: string) => new DomainError('not-possible', sentence)

/** Something that the rules of the chair do not allow. */
export const forbid = (code: string, sentence: string) => new DomainError(code, sentence)

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

export const withBlade = (state: ChairState, index: number, change: Partial<OpenedBlade>) => ({
  blades: state.blades.map((b, i) => (i === index ? { ...b, ...change } : b)),
})

/** Zones that still get a stroke from a step on, before what lies on the skin is wiped off for another job. */
function waitingZones(plan: ChairPlan, from: number): Set<string> {
  const rest = plan.steps.slice(from)
  const wiped = rest.findIndex((s) => s.wipes)
  const until = rest.slice(0, wiped < 0 ? undefined : wiped)
  return new Set(until.flatMap((s) => (s.kind === 'feel' || s.kind === 'hand' ? [] : stepZones(s))))
}

export function latherAt(plan: ChairPlan, state: ChairState, from: number, atMs: number) {
  const lathered = { ...state.lathered }
  for (const zone of waitingZones(plan, from)) lathered[zone] = atMs
  return lathered
}
