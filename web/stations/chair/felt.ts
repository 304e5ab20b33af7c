/** The direction that is being felt at the step in view: the guess until a finger has said otherwise. */
import { create } from 'zustand'
import {
  feltByStroke,
  toFeel,
  turnedFelt,
  type ToFeel,
  type Live,
} from '../../../core/chair/index.ts'
import { DomainError } from '../../../core/errors.ts'
import { toRadians, type StrokePoint } from '../../../core/grain/index.ts'

interface Felt {
  readonly stepId: string
  readonly felt: ToFeel
}

export const useFelt = create<{
  readonly now: Felt | undefined
  readonly problem?: string | undefined
}>(() => ({ now: undefined }))

/** What the main key would write down at a step; undefined where nothing is felt. */
export function feltAt({ plan, state }: Live): ToFeel | undefined {
  const step = plan.steps[state.index]
  if (step?.kind !== 'feel') return undefined
  const { now } = useFelt.getState()
  return now?.stepId === step.id ? now.felt : toFeel(plan, step.zoneId)
}

const put = (live: Live, felt: ToFeel) =>
  useFelt.setState({
    now: { stepId: live.plan.steps[live.state.index]!.id, felt },
    problem: undefined,
  })

/** Turns what is felt, degrees clockwise as the worker sees it. */
export function turnFelt(live: Live, degrees: number): void {
  const felt = feltAt(live)
  if (felt) put(live, turnedFelt(felt, toRadians(degrees)))
}

/** A stroke over the head from root to tip says which way it was felt. */
export function drawFelt(live: Live, stroke: readonly StrokePoint[]): void {
  const wanted = feltAt(live)?.zoneId
  if (!wanted) return
  try {
    put(live, feltByStroke(wanted, stroke))
  } catch (error) {
    if (!(error instanceof DomainError)) throw error
    useFelt.setState({ problem: error.message })
  }
}
