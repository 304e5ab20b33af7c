/** A plan as bands over time: the worker, the client, the lather, the towel. */
import type { Figures } from '../house/index.ts'
import type { Plan, PlanStep } from './types.ts'
import { ROUTINE_CONSTANTS } from '../services/index.ts'

/** Something that lasts from one minute to another. */
export interface Band {
  readonly fromMin: number
  readonly toMin: number
  readonly text: string
  readonly kind: PlanStep['kind'] | 'wet' | 'dry' | 'hot' | 'cold'
  readonly stepId?: string
}

/** The four rows of a timetable. */
export interface Timetable {
  readonly worker: readonly Band[]
  readonly client: readonly Band[]
  readonly lather: readonly Band[]
  readonly towel: readonly Band[]
  readonly totalMin: number
}

/** Lays a plan's steps out over time. */
export function timetable(figures: Figures, plan: Pick<Plan, 'steps' | 'lanes'>): Timetable {
  const worker: Band[] = []
  const client: Band[] = []
  const lather: Band[] = []
  const towel: Band[] = []
  let lasts = figures(ROUTINE_CONSTANTS.latherLastsMin)
  const byId = new Map(plan.lanes.map((l) => [l.id, l]))
  const work = (s: PlanStep) => (s.laneId === undefined ? undefined : byId.get(s.laneId))
  let at = 0
  const strokes = plan.steps.filter((s) => s.kind === 'stroke')
  const lastStroke = strokes[strokes.length - 1]?.id
  let wetFrom: number | undefined
  const endLather = (toMin: number) => {
    if (wetFrom === undefined) return
    const wet = Math.min(toMin, wetFrom + lasts)
    lather.push({ fromMin: wetFrom, toMin: wet, text: 'fresh', kind: 'wet' })
    if (toMin > wet + 0.01) lather.push({ fromMin: wet, toMin, text: 'drying', kind: 'dry' })
    wetFrom = undefined
  }
  for (const step of plan.steps) {
    const end = at + step.minutes
    worker.push({ fromMin: at, toMin: end, text: step.title, kind: step.kind, stepId: step.id })
    const pose =
      step.kind === 'stroke'
        ? [work(step)?.headTurn, work(step)?.action].filter(Boolean).join(' ')
        : step.lays === 'towel'
          ? 'Lies back under the towel.'
          : 'Sits easy.'
    const before = client[client.length - 1]
    if (before && before.text === pose) client[client.length - 1] = { ...before, toMin: end }
    else client.push({ fromMin: at, toMin: end, text: pose, kind: step.kind })
    if (step.lays === 'lather') {
      endLather(at)
      lasts = step.film?.lastsMin ?? figures(ROUTINE_CONSTANTS.latherLastsMin)
      wetFrom = end
    }
    if (step.lays === 'towel') {
      const cold = step.kind === 'close'
      towel.push({ fromMin: at, toMin: end, text: step.title, kind: cold ? 'cold' : 'hot' })
    }
    if (step.id === lastStroke) endLather(end)
    at = end
  }
  return { worker, client, lather, towel, totalMin: at }
}
