import { DEFAULTS } from '../house/index.ts'
import { BEARD_LINES } from '../testing/lines.ts'
import { planInput } from '../testing/plan.ts'
import { makePlan, stepMinutes, type PlanStep } from '../plan/index.ts'
import { COMB_STEP } from './otherSide.ts'
import { play } from './play.ts'
import { replan } from './replan.ts'
import { advance, replayLive } from './service.ts'

const input = planInput({ service: 'beard-line', keepLines: BEARD_LINES })
const plan = makePlan(input)
let id = 0
const events = play(DEFAULTS, plan, {
  ...{ startMs: 0, bladeLife: 400, screen: 's', newId: () => `o${id++}` },
})
/** As it stands when the beard is combed down. */
const combing = replayLive(
  plan,
  events.slice(
    0,
    events.findIndex((e) => e.stepId === COMB_STEP),
  ),
)
const sides = (steps: readonly PlanStep[]) =>
  steps.flatMap((s) =>
    s.kind === 'stroke' && /-(left|right)$/.test(s.zoneId ?? '')
      ? [s.zoneId!.replace(/.*-/, '')]
      : [],
  )
const first = sides(plan.steps)[0] as 'left' | 'right'
const other = first === 'left' ? 'right' : 'left'

describe('the sides compared at the chair', () => {
  it('the other side goes first, with the same strokes and about the same minutes', () => {
    const r = replan(input, combing, { kind: 'heavier', side: other })
    expect(sides(r.amendment.steps)[0]).toBe(other)
    expect(r.amendment.text).toMatch(new RegExp(`client’s ${other}: it goes first`))
    expect([r.now, r.oddsNow]).toEqual([r.before, r.oddsBefore])
    expect(Math.abs(stepMinutes(r.amendment.steps) - r.minutesBefore)).toBeLessThan(1.5)
    const done = advance(combing, {
      ...{ id: 'a', screen: 's', n: 1e6, seq: combing.state.seq + 1, kind: 'amended' as const },
      ...{ atMs: combing.state.lastAtMs, detail: { amendment: r.amendment } },
    })
    expect(done.plan.steps.map((s) => s.id).sort()).toEqual(plan.steps.map((s) => s.id).sort())
  })
  it('refuses what changes nothing, and what comes too late', () => {
    expect(() => replan(input, combing, { kind: 'heavier', side: first })).toThrow(/in that order/)
    const late = replayLive(
      plan,
      events.slice(0, 1 + events.findIndex((e) => e.kind === 'done' && e.stepId === COMB_STEP)),
    )
    expect(() => replan(input, late, { kind: 'heavier', side: other })).toThrow(/compared already/)
  })
})
