/** The direction that is being felt at the step in view: the guess until a finger has said otherwise. */
import { create } from 'zustand'
import { toFeel, type ToFeel, type Live } from '../../../core/chair/index.ts'
import { DomainError } from '../../../core/errors.ts'
import { toRadians, readingFromStroke, type StrokePoint } from '../../../core/grain/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
import { bearingOf, directionOf } from '../../../core/head/index.ts'

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
  if (!felt) return
  const { zoneId, point, normal, tangent } = felt
  const bearing = bearingOf(zoneId, point, normal, tangent) + toRadians(degrees)
  put(live, { ...felt, tangent: directionOf(zoneId, point, normal, bearing) })
}

/** A stroke over the head from root to tip says which way it was felt. */
export function drawFelt(live: Live, stroke: readonly StrokePoint[]): void {
  const wanted = feltAt(live)?.zoneId
  if (!wanted) return
  try {
    const reading = readingFromStroke(stroke, { id: '', method: 'felt', atMs: 0 })
    if (reading.zoneId !== wanted) {
      useFelt.setState({
        problem: `That stroke ran over ${zoneName(reading.zoneId).toLowerCase()}.`,
      })
      return
    }
    const { zoneId, point, normal, tangent } = reading
    put(live, { zoneId, point, normal, tangent })
  } catch (error) {
    if (!(error instanceof DomainError)) throw error
    useFelt.setState({ problem: error.message })
  }
}
