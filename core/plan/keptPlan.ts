/**
 * Plans as they were kept before directions were told by landmarks: their hours ran the other way round the chair, and their
 * words named hours of a clock on the skin that no picture shows.
 */
import type { Lane, Plan, PlanStep } from './types.ts'

/** 12 was in front of the client, and the hours ran backwards in the drawing. */
const turnedHour = (hour: number) => (18 - hour) % 12 || 12

/** Hours of the skin's own clock taken out of a sentence: the picture's stands beside it. */
const withoutHours = (text: string) =>
  text
    .replace(/; toward \d{1,2} o'clock is only a guess/g, '; what is drawn is only a guess')
    .replace(/ toward \d{1,2} o'clock, against/g, ' against')
    .replace(/,? toward \d{1,2} o'clock/g, '')

function laneNow(lane: Lane): Lane {
  // Every lane made since then says where it goes.
  if (lane.toward !== undefined) return lane
  return {
    ...lane,
    stance: { ...lane.stance, hour: turnedHour(lane.stance.hour) },
    freeHand: withoutHours(lane.freeHand),
    reasons: lane.reasons.map((r) => ({ ...r, text: withoutHours(r.text) })),
  }
}

function stepNow(step: PlanStep): PlanStep {
  const { stance, freeHand } = step
  const text = withoutHours(step.text)
  if (text === step.text && !stance && freeHand === undefined) return step
  return {
    ...step,
    text,
    ...(stance && { stance: { ...stance, hour: turnedHour(stance.hour) } }),
    ...(freeHand !== undefined && { freeHand: withoutHours(freeHand) }),
  }
}

/** Lanes and steps as they are told now; the same object where nothing is to be changed. */
export function asToldNow<P extends Pick<Plan, 'steps'> & Partial<Pick<Plan, 'lanes'>>>(
  plan: P,
): P {
  const steps = plan.steps.map(stepNow)
  const lanes = plan.lanes?.map(laneNow)
  const same =
    steps.every((s, i) => s === plan.steps[i]) &&
    (lanes ?? []).every((l, i) => l === plan.lanes![i])
  return same ? plan : { ...plan, steps, ...(lanes && { lanes }) }
}
