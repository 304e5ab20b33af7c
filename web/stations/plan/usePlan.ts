/** The plan that is kept, the three that core makes from what is known now, and the one chosen with its edits. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { Remote } from 'comlink'
import { useEffect, useRef } from 'react'
import { create } from 'zustand'
import {
  FIRST_CHOICE,
  type LaneEdit,
  type Plan,
  type PlanChoice,
} from '../../../core/plan/index.ts'
import type { Style } from '../../../core/services/index.ts'
import type { PlanAsk } from '../../../core/visit/index.ts'
import { useHead } from '../../head/loadHead.ts'
import { usePast } from '../../state/past.ts'
import type { HeadWorker } from '../../workers/head.worker.ts'
import type { Planned } from '../../workers/plans.ts'
import { usePlanAsk } from '../usePlanAsk.ts'
import type { StationProps } from '../useStation.ts'

/** What is chosen at a visit and not yet kept. */
export const useChoices = create<Record<string, PlanChoice>>(() => ({}))

export interface Choosing {
  readonly choice: PlanChoice
  readonly pick: (style: Style) => void
  /** Changes lanes that are done in one go. */
  readonly edit: (laneIds: readonly string[], edit: LaneEdit | undefined) => void
  /** A plan of the front between the three, by its hours. */
  readonly along: (hours: number | undefined) => void
  readonly fit: (minutes: number | undefined) => void
  readonly order: (order: readonly string[]) => void
  readonly undo: () => void
  readonly canUndo: boolean
}

/** The choice of a plan; every change can be taken back. */
export function useChoosing({ visit }: StationProps): Choosing {
  const open = useChoices((s) => s[visit.id])
  const choice = open ?? visit.plan?.choice ?? FIRST_CHOICE
  const past = usePast<{ from: PlanChoice; to: PlanChoice }>(visit.id, 'choice')
  const set = (next: PlanChoice) => useChoices.setState({ [visit.id]: next })
  const change = (next: PlanChoice) => {
    past.remember({ from: choice, to: next })
    set(next)
  }
  return {
    choice,
    pick: (style) =>
      change({ style, edits: {}, ...(choice.within !== undefined && { within: choice.within }) }),
    edit: (laneIds, edit) => {
      const others = Object.entries(choice.edits).filter(([id]) => !laneIds.includes(id))
      const own = edit ? laneIds.map((id) => [id, edit] as const) : []
      const { order: _order, ...rest } = choice
      change({ ...rest, edits: Object.fromEntries([...others, ...own]) })
    },
    along: (hours) => {
      const { hours: _was, order: _order, ...rest } = choice
      change(hours === undefined ? rest : { ...rest, hours, edits: {} })
    },
    fit: (within) => {
      const { within: _was, ...rest } = choice
      change(within === undefined ? rest : { ...rest, within })
    },
    order: (order) => change({ ...choice, order }),
    undo: () => {
      const step = past.takeBack()
      if (step) set(step.from)
    },
    canUndo: past.any,
  }
}

export interface PlanView {
  /** The plan shown: the one chosen, or the kept one when the visit no longer changes. */
  readonly plan?: Plan | undefined
  readonly three?: Record<Style, Planned> | undefined
  readonly ask?: PlanAsk | undefined
  /** Why there is none. */
  readonly why?: string | undefined
  /** True while it is being worked out. */
  readonly pending: boolean
  readonly kept: boolean
  /** True when the plan shown differs from the one kept. */
  readonly outdated: boolean
}

type Planner = (() => Remote<HeadWorker>) | undefined

/** The plan of a choice, and the three kinds: the same question whoever asks it first. */
const planQuery = (planner: Planner, ask: PlanAsk) => ({
  queryKey: ['plan', ask],
  queryFn: () => planner!().plan(ask),
  staleTime: Infinity,
  gcTime: 60_000,
})
const threeQuery = (planner: Planner, ask: PlanAsk) => ({
  queryKey: ['three-plans', { ...ask, choice: undefined, within: ask.choice.within }],
  queryFn: () => planner!().threePlans(ask),
  staleTime: Infinity,
  gcTime: 60_000,
})

/** How long nothing changes before the plan is worked out ahead. */
const REST_MS = 800

/** Works the plan out while one still asks and reads, so that it is there when it is opened. */
export function usePlanAhead(props: StationProps): void {
  const { visit } = props
  const cache = useQueryClient()
  const open = useChoices((s) => s[visit.id])
  const ask = usePlanAsk(props, open ?? visit.plan?.choice ?? FIRST_CHOICE)
  const planner = useHead().data?.planner
  const wanted = planner !== undefined && visit.state === 'open'
  useEffect(() => {
    if (!wanted) return
    const timer = setTimeout(() => {
      void cache
        .prefetchQuery(planQuery(planner, ask))
        .then(() => cache.prefetchQuery(threeQuery(planner, ask)))
    }, REST_MS)
    return () => clearTimeout(timer)
  }, [cache, planner, wanted, ask])
}

export function usePlan(props: StationProps, choice: PlanChoice): PlanView {
  const { visit } = props
  const head = useHead()
  const ask = usePlanAsk(props, choice)
  const frozen = visit.state !== 'open'
  const planner = head.data?.planner
  const chosen = useQuery({
    ...planQuery(planner, ask),
    enabled: planner !== undefined && !frozen,
    // While an edit is worked out the plan before it stays on the screen.
    placeholderData: (before) => before,
  })
  const three = useQuery({
    ...threeQuery(planner, ask),
    // The one chosen first: it is what one waits for.
    enabled: planner !== undefined && !frozen && chosen.data !== undefined,
    placeholderData: (before) => before,
  })
  const saved = visit.plan ?? undefined
  const fresh = chosen.data?.plan
  const good = useRef<Plan>(undefined)
  if (fresh) good.current = fresh
  if (frozen) {
    return {
      plan: saved,
      why: saved ? undefined : 'No plan was kept for this visit.',
      pending: false,
      kept: saved !== undefined,
      outdated: false,
    }
  }
  const problem = head.error ?? chosen.error
  // A change by hand that cannot be is told, and the plan before it stays in view.
  const refused = chosen.data?.why !== undefined && Object.keys(choice.edits).length > 0
  // The one that is kept is shown until it is known whether what it rests on has changed; never once there can be none.
  const meanwhile = chosen.data === undefined && choice === saved?.choice ? saved : undefined
  return {
    plan: fresh ?? (refused ? good.current : meanwhile),
    three: three.data,
    ask,
    why: problem
      ? `The plan could not be worked out: ${problem.message}`
      : refused && good.current
        ? `${chosen.data!.why} The plan before it is shown; undo the change or make another.`
        : chosen.data?.why,
    pending: !problem && chosen.data === undefined && !meanwhile,
    kept: saved !== undefined,
    outdated: saved !== undefined && fresh !== undefined && signature(fresh) !== signature(saved),
  }
}

/** What of a plan the worker would notice. */
const signature = (plan: Plan) =>
  JSON.stringify([
    plan.steps.map((s) => [s.id, s.text, s.blade]),
    plan.lanes.map((l) => [l.stance, l.avoid, Math.round(l.areaCm2 * 10)]),
  ])
