/** What a new rest of a running service comes to: its steps put right, and what it changes in figures. */
import { DomainError } from '../errors.ts'
import type { ZoneId } from '../zones/index.ts'
import {
  stepLanes,
  stepZones,
  type PlanInput,
  type Lane,
  type Plan,
  type PlanStep,
  stepMinutes,
} from '../plan/index.ts'
import { rednessOdds } from '../skin/index.ts'
import type { Amendment } from './events.ts'
import { executedLoads } from './outcome.ts'
import type { ChairState, Live } from './state.ts'

/** A new rest, with what it changes in figures. */
export interface Replanned {
  readonly amendment: Amendment
  /** Lanes that were left, and that are left now. */
  readonly before: number
  readonly now: number
  readonly minutesBefore: number
  readonly minutesNow: number
  /** P(redness ≥ 2) of the worst zone that still gets work: as planned, and with the new rest. */
  readonly oddsBefore: number
  readonly oddsNow: number
}

/** Lather is only renewed where strokes follow it before the next. */
function withoutIdleLather(steps: readonly PlanStep[]): PlanStep[] {
  return steps.filter((s, i) => {
    if (s.kind !== 'lather') return true
    const next = steps.slice(i + 1)
    const until = next.findIndex((x) => x.kind === 'lather')
    return next.slice(0, until < 0 ? undefined : until).some((x) => x.kind === 'stroke')
  })
}

/** A zone that gets no stroke any more need not be felt. */
function withoutIdleFeel(steps: readonly PlanStep[]): PlanStep[] {
  const stroked = new Set(steps.filter((s) => s.kind === 'stroke').flatMap(stepZones))
  return steps.filter((s) => s.kind !== 'feel' || stroked.has(s.zoneId!))
}

/** Lanes of steps that go on without them: they are done with no step any more. */
function leftBehind(
  all: readonly Lane[],
  made: readonly Lane[],
  steps: readonly PlanStep[],
): Lane[] {
  const strokes = new Map(steps.filter((s) => s.kind === 'stroke').map((s) => [s.id, stepLanes(s)]))
  return all.flatMap((l) => {
    const now = strokes.get(l.stepId ?? l.id)
    if (!now || now.includes(l.id) || made.some((m) => m.id === l.id)) return []
    return [{ ...l, stepId: l.id }]
  })
}

/**
 * The new rest of a service, with what it changes in figures.
 * @throws DomainError `nothing-to-change`
 */
export function newRest(
  input: PlanInput,
  { plan, state }: Live,
  made: readonly PlanStep[],
  lanes: readonly Lane[],
  covers: Amendment['covers'],
  text: string,
): Replanned {
  const rest = plan.steps.slice(state.index)
  const steps = withoutIdleFeel(withoutIdleLather(made))
  const used = new Set(steps.flatMap(stepLanes))
  const own = lanes.filter((l) => used.has(l.id))
  const kept = [...own, ...leftBehind(plan.lanes, own, steps)]
  const same =
    steps.length === rest.length &&
    steps.every(
      (s, i) =>
        s.id === rest[i]!.id &&
        s.relation === rest[i]!.relation &&
        stepLanes(s).length === stepLanes(rest[i]!).length,
    ) &&
    covers.length === 0
  if (same) {
    throw new DomainError(
      'nothing-to-change',
      'What is left is already as gentle as a plan can be: one pass with the grain. Leave zones out, or stop.',
    )
  }
  const strokes = (of: readonly PlanStep[]) => of.filter((s) => s.kind === 'stroke').length
  return {
    amendment: { text, after: state.index, steps, lanes: kept, covers },
    before: strokes(rest),
    now: strokes(steps),
    minutesBefore: stepMinutes(rest),
    minutesNow: stepMinutes(steps),
    oddsBefore: worstOdds(input, plan, state, rest, plan.lanes),
    oddsNow: worstOdds(input, plan, state, steps, [
      ...plan.lanes.filter((l) => !kept.some((k) => k.id === l.id)),
      ...kept,
    ]),
  }
}

/** P(redness ≥ 2) of the worst zone, with what is done and what is left. */
function worstOdds(
  input: PlanInput,
  plan: Plan,
  state: ChairState,
  rest: readonly PlanStep[],
  lanes: readonly Lane[],
): number {
  const outcomes: Record<string, 'done' | 'skipped'> = { ...state.outcomes }
  for (const step of rest) outcomes[step.id] = 'done'
  const loads = executedLoads({ zones: plan.zones, lanes }, outcomes)
  return Object.entries(loads).reduce(
    (most, [zone, load]) => Math.max(most, rednessOdds(input.sensitivity(zone as ZoneId), load)),
    0,
  )
}
