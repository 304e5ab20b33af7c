/** Paces against workers whose true pace is known: their services are played through and learned from. */
import { randomUUID } from 'node:crypto'
import { DEFAULTS, type Figures } from '../house/index.ts'
import { bladeLifeStrokes, makePlan, NO_PACE, paceOf, PLAN_CONSTANTS, type Plan } from './index.ts'
import { paceKind, paceReason, paceSeen, paceWords, type PaceSeen } from './pace.ts'
import { play, replay, type Draft } from '../chair/index.ts'
import { drawNormal, mulberry32 } from '../stats/index.ts'
import { planInput } from '../testing/plan.ts'
import { SKIN } from '../testing/client.ts'

const FACE = makePlan(planInput({}))

/** A service of a worker whose strokes take so much longer than they do at the house's default figure. */
function served(plan: Plan, truth: number, seed: number, besides: readonly Draft[] = []) {
  const random = mulberry32(seed)
  const seconds = new Map(plan.lanes.map((l) => [l.id, l.seconds / plan.pace]))
  const told: Draft[] = [...besides]
  const events = play(DEFAULTS, plan, {
    startMs: 0,
    bladeLife: bladeLifeStrokes(DEFAULTS, plan.service, SKIN),
    screen: randomUUID(),
    newId: randomUUID,
    besides: ({ plan: now, state }) =>
      now.steps[state.index]!.kind === 'stroke' ? told.splice(0) : [],
    lasts: (step) => {
      if (step.kind !== 'stroke') return 60_000 * step.minutes
      const strokes = (step.laneIds ?? [step.laneId!]).reduce((s, id) => s + seconds.get(id)!, 0)
      const change = 60 * step.minutes - plan.pace * strokes
      return 1000 * (change + truth * strokes * (0.85 + 0.3 * random()))
    },
  })
  return replay(plan, events)
}

const seen = (truth: number, seed: number, plan = FACE) =>
  paceSeen(DEFAULTS, plan, served(plan, truth, seed).laneSeconds)

describe('what a service tells of a pace', () => {
  it.each([0.6, 1, 1.7])('is %f where that is true, whatever pace it was planned at', (truth) => {
    const pace = { ratio: 1.25, services: 4 }
    const slower = makePlan(planInput({ pace }))
    expect(slower.pace).toBe(1.25)
    expect(seen(truth, 1)! / truth).toBeCloseTo(1, 1)
    expect(seen(truth, 2, slower)! / truth).toBeCloseTo(1, 1)
  })

  it('counts against the default figure, though the house has its own', () => {
    const own: Figures = (of) => (of === PLAN_CONSTANTS.strokesPerSecond ? 0.7 : DEFAULTS(of))
    const plan = makePlan(planInput({ figures: own }))
    const { laneSeconds } = served(plan, 1, 3)
    expect(paceSeen(own, plan, laneSeconds)).toBeCloseTo(0.5, 1)
    // Strokes that take half the default's are as long as a house says that halves it.
    const half = Array.from({ length: 300 }, () => ({ service: 'face-shave' as const, ratio: 0.5 }))
    expect(paceOf(own, 'shave', half).ratio).toBeCloseTo(1, 5)
    expect(paceOf(DEFAULTS, 'shave', half).ratio).toBeCloseTo(0.5, 1)
  })

  it('is nothing from lanes that were disturbed, forgotten or tapped through, or from too few', () => {
    const strokes = FACE.steps.filter((s) => s.kind === 'stroke')
    const all = (seconds: (minutes: number) => number) =>
      Object.fromEntries(strokes.map((s) => [s.id, seconds(60 * s.minutes)]))
    expect(
      paceSeen(
        DEFAULTS,
        FACE,
        all((s) => s),
      ),
    ).toBeCloseTo(1, 5)
    expect(
      paceSeen(
        DEFAULTS,
        FACE,
        all(() => 0.4),
      ),
    ).toBeNull()
    expect(
      paceSeen(
        DEFAULTS,
        FACE,
        all((s) => 40 * s),
      ),
    ).toBeNull()
    const [one, two] = strokes.map((s) => s.id)
    const few = Object.fromEntries([one, two].map((id) => [id, 30]))
    expect(paceSeen(DEFAULTS, FACE, few)).toBeNull()
    const quiet = served(FACE, 1, 4)
    const lane = FACE.steps.find((s) => s.kind === 'stroke')!
    const nick: Draft = { kind: 'nick', stepId: lane.id, detail: { did: ['pressure'] } }
    const nicked = served(FACE, 1, 4, [nick])
    expect(nicked.nicks).toHaveLength(1)
    expect(nicked.laneSeconds).not.toHaveProperty([lane.id])
    expect(Object.keys(quiet.laneSeconds).length).toBeGreaterThanOrEqual(strokes.length - 2)
  })
})

describe('the pace of a worker', () => {
  it('is the house’s until they have served, and of the kind of work', () => {
    expect(paceOf(DEFAULTS, 'shave', [])).toEqual(NO_PACE)
    const fuzz: PaceSeen[] = [{ service: 'dermaplane', ratio: 2 }]
    expect(paceOf(DEFAULTS, 'shave', fuzz)).toEqual(NO_PACE)
    expect(paceOf(DEFAULTS, 'fuzz', fuzz).ratio).toBeGreaterThan(1.3)
    const kinds = (['head-shave', 'dermaplane', 'body-shave'] as const).map(paceKind)
    expect(kinds).toEqual(['shave', 'fuzz', 'body'])
  })

  it('comes nearer to the truth with each service than the house’s figure is: 400 workers', () => {
    const random = mulberry32(16)
    const off = { house: 0, 1: 0, 4: 0, 20: 0 }
    for (let w = 0; w < 400; w++) {
      const truth = 0.3 * drawNormal(random)
      const told = Array.from({ length: 20 }, () => ({
        service: 'face-shave' as const,
        ratio: Math.exp(truth + 0.3 * drawNormal(random)),
      }))
      off.house += truth ** 2 / 400
      for (const n of [1, 4, 20] as const) {
        const { ratio } = paceOf(DEFAULTS, 'shave', told.slice(0, n))
        off[n] += (Math.log(ratio) - truth) ** 2 / 400
      }
    }
    // Squared error of the posterior mean: spread² scatter² / (scatter² + n spread²) = 0.09 / (1 + n).
    for (const n of [1, 4, 20] as const)
      expect(Math.abs(off[n] / (0.09 / (1 + n)) - 1)).toBeLessThan(0.2)
    expect(off.house).toBeGreaterThan(off[1])
  })

  it.each([
    [0.6, 0.15],
    [0.5, 0.5],
    [0.3, 0.1],
  ])(
    'helps where workers differ otherwise than was thought: spread %f, scatter %f with a wild service in ten',
    (spread, scatter) => {
      const random = mulberry32(61)
      const off = { house: 0, learned: 0 }
      for (let w = 0; w < 400; w++) {
        const truth = spread * drawNormal(random)
        const seen = Array.from({ length: 8 }, () => ({
          service: 'dermaplane' as const,
          ratio: Math.exp(truth + (random() < 0.1 ? 3 : 1) * scatter * drawNormal(random)),
        }))
        off.house += truth ** 2
        off.learned += (Math.log(paceOf(DEFAULTS, 'fuzz', seen).ratio) - truth) ** 2
      }
      expect(off.learned).toBeLessThan(0.6 * off.house)
    },
  )

  it('makes the plan longer and says so; a difference that nobody notices is not told', () => {
    const slow = makePlan(planInput({ pace: { ratio: 1.3, services: 6 } }))
    const strokes = (plan: Plan) => plan.lanes.reduce((s, l) => s + l.seconds, 0)
    expect(slow.lanes.map((l) => l.id).sort()).toEqual(FACE.lanes.map((l) => l.id).sort())
    expect(strokes(slow) / strokes(FACE)).toBeCloseTo(1.3, 5)
    expect(slow.totalMinutes).toBeGreaterThan(FACE.totalMinutes)
    expect(slow.reasons.map((r) => r.text)).toContain(
      'Strokes are timed 30 % slower than the house’s figure, by the last 6 shaves of this worker.',
    )
    expect(paceReason('face-shave', { ratio: 1.02, services: 6 })).toBeUndefined()
    expect(paceWords('body', { ratio: 0.9, services: 1 })).toBe(
      '10 % quicker than the house’s figure, by the last body service',
    )
  })
})
