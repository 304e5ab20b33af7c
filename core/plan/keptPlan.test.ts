import { planInput } from '../testing/plan.ts'
import { asToldNow } from './keptPlan.ts'
import { makePlan } from './makePlan.ts'
import type { Lane, PlanStep } from './types.ts'

describe('a plan kept before directions were told by landmarks', () => {
  const plan = makePlan(planInput())
  const lane = plan.lanes[0]!
  const old = (hour: number): Lane => {
    const { toward: _toward, growsToward: _grows, holds: _holds, ...rest } = lane
    return {
      ...rest,
      stance: { hour, text: 'Stand there.' },
      freeHand: "Skin back. Pull toward 10 o'clock, against the stroke, fingers on jaw.",
    }
  }
  const step = (text: string): PlanStep => ({ ...plan.steps[0]!, id: 's', text })

  it('is left as it is when it was made since', () => {
    expect(asToldNow(plan)).toBe(plan)
  })

  // 12 was before the face, 3 at the client's left; now 12 is at the head, 3 still at the left.
  it.each([
    [12, 6],
    [6, 12],
    [3, 3],
    [9, 9],
    [10, 8],
    [2, 4],
  ])('has its worker, who stood at %i, at %i', (then, now) => {
    const [told] = asToldNow({ ...plan, lanes: [old(then)] }).lanes
    expect(told!.stance.hour).toBe(now)
    expect(told!.freeHand).toBe('Skin back. Pull against the stroke, fingers on jaw.')
  })

  it.each([
    [
      "With the grain, toward 5 o'clock. Strokes of about 2 cm. No pressure.",
      'With the grain. Strokes of about 2 cm. No pressure.',
    ],
    [
      "Nobody has read the grain here; toward 11 o'clock is only a guess. Draw a fingertip over it.",
      'Nobody has read the grain here; what is drawn is only a guess. Draw a fingertip over it.',
    ],
    ['Rinse, look, and lather only what gets another pass.', undefined],
  ])('names no hour of the skin: %s', (then, now) => {
    expect(asToldNow({ ...plan, steps: [step(then)] }).steps[0]!.text).toBe(now ?? then)
  })
})
