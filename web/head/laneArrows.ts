/** The arrows of a lane, one home for what is drawn of it and what is told of it. */
import type { Hold, Lane, Plan } from '../../core/plan/index.ts'
import { isBody } from '../../core/zones/index.ts'
import { arrowPoints, type HeadArrow } from './shared.ts'
import type { Way } from './telling.tsx'

/** The stroke of a lane: that of its press, which may be curved. */
export function strokeArrow(plan: Pick<Plan, 'presses'>, lane: Lane): HeadArrow {
  const most = isBody(lane.zoneId) ? 120 : 34
  return {
    id: 'stroke',
    zoneId: lane.zoneId,
    point: lane.point,
    normal: lane.normal,
    direction: lane.stroke,
    path: plan.presses?.find((p) => p.id === lane.stepId)?.path,
    kind: lane.relation,
    lengthMm: Math.min(most, Math.max(12, lane.lengthMm * 0.5)),
  }
}

/** The same way as it is told. */
export const strokeWay = (
  plan: Pick<Plan, 'presses'>,
  lane: Lane,
): Pick<Way, 'zoneId' | 'points'> => ({
  zoneId: lane.zoneId,
  points: arrowPoints(strokeArrow(plan, lane)),
})

/** The pull of the free hand, from its fingers on. */
export const pullArrow = (hold: Hold): HeadArrow => ({
  id: 'pull',
  zoneId: hold.zoneId,
  point: hold.point,
  normal: hold.normal,
  direction: hold.pull,
  kind: 'pull',
  lengthMm: isBody(hold.zoneId) ? 50 : 16,
})
