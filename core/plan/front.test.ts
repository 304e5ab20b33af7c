/** Plans to choose from: a front against all combinations, kinds that differ, sides that agree, and the mirror. */
import { DEFAULTS } from '../house/index.ts'
import { mirrorZone, zoneSide, zoneStem, areaOf, type ZoneId } from '../zones/index.ts'
import { believe, expectedMean, skinPooling, zoneSensitivity, sumVisits } from '../skin/index.ts'
import { serviceZones } from '../services/index.ts'
import { drawGrades, drawSkin } from '../simulate/truth.ts'
import { mulberry32 } from '../stats/index.ts'
import { BROW_LINES } from '../testing/lines.ts'
import { many } from '../testing/many.ts'
import { planInput, randomMap, type PlanCase } from '../testing/plan.ts'
import { lastPasses } from './fit.ts'
import { kindsOf, undominated, FRONT_CONSTANTS } from './front.ts'
import { makePlan } from './makePlan.ts'
import { PlanMemory } from './question.ts'
import type { FrontPoint, Plan } from './types.ts'
import fc from 'fast-check'

const MEAN = expectedMean(DEFAULTS, 'average')
const FACE = serviceZones('face-shave')

/** A client with so many answered visits of a truth drawn from the model; one side may truly be so many times redder. */
function history(
  seed: number,
  visits: number,
  leftFactor = 1,
): Pick<PlanCase, 'belief' | 'sensitivity'> {
  const random = mulberry32(seed)
  const drawn = drawSkin(DEFAULTS, random, FACE, { grade: MEAN, bumps: 0.1 })
  // Sides alike: the right has the truth of the left, times the factor on the left.
  const gradePerLoad = Object.fromEntries(
    FACE.map((z) => {
      const own = drawn.gradePerLoad[zoneSide(z) === 'right' ? mirrorZone(z) : z]!
      return [z, zoneSide(z) === 'left' ? own * leftFactor : own]
    }),
  )
  const outcomes = Array.from({ length: visits }, () => {
    const loads = Object.fromEntries(FACE.map((z) => [z, 1.2 + 0.4 * random()]))
    const grades = drawGrades(random, { ...drawn, gradePerLoad }, loads, 1)
    return FACE.map((zoneId) => ({ zoneId, load: loads[zoneId]!, grade: grades[zoneId]! }))
  })
  const belief = believe(sumVisits(DEFAULTS, outcomes, MEAN), skinPooling(DEFAULTS, MEAN))
  return { belief, sensitivity: (z: ZoneId) => zoneSensitivity(belief, z) }
}

const passesOf = (p: Plan, id: ZoneId) =>
  p.zones
    .find((z) => z.zoneId === id)
    ?.passes.map((x) => x.relation)
    .join() ?? ''
const pairs = (p: Plan) => p.zones.filter((z) => zoneSide(z.zoneId) === 'left').map((z) => z.zoneId)
/** Pairs of which the two sides get other strokes. */
const differing = (p: Plan) =>
  pairs(p).filter((id) => passesOf(p, id) !== passesOf(p, mirrorZone(id)))

describe('a front', () => {
  const anyPoints = fc.array(
    fc.tuple(fc.nat(100), fc.nat(400), fc.nat(60)).map(([odds, hours, minutes]): FrontPoint => ({
      odds: odds / 100,
      hours: hours / 10,
      minutes,
    })),
    { minLength: 1, maxLength: 40 },
  )
  const beats = (a: FrontPoint, b: FrontPoint) =>
    a.odds <= b.odds && a.hours >= b.hours && a.minutes <= b.minutes

  it('holds all that nothing beats, and nothing that is beaten', () => {
    fc.assert(
      fc.property(anyPoints, (points) => {
        const kept = undominated(points)
        for (const p of kept) expect(points.some((o) => beats(o, p) && !beats(p, o))).toBe(false)
        for (const p of points) expect(kept.some((k) => beats(k, p))).toBe(true)
      }),
    )
  })

  it('has a gentlest with the least odds, a closest with the most hours, a balanced between; none beaten', () => {
    fc.assert(
      fc.property(anyPoints, (points) => {
        const front = undominated(points)
        const { kinds, offered } = kindsOf(DEFAULTS, front)
        const [g, b, c] = [kinds.gentlest, kinds.balanced, kinds.closest].map((i) => front[i]!)
        if (Object.keys(offered).length > 1) {
          expect(g!.odds).toBeLessThanOrEqual(Math.min(...front.map((p) => p.odds)) + 0.005)
          expect(c!.hours).toBeGreaterThanOrEqual(Math.max(...front.map((p) => p.hours)) - 0.3)
        }
        expect(b!.odds).toBeGreaterThanOrEqual(g!.odds - 1e-9)
        expect(b!.odds).toBeLessThanOrEqual(c!.odds + 1e-9)
        const own = Object.values(offered).map((i) => front[i]!)
        own.forEach((p, i) =>
          own
            .slice(i + 1)
            .forEach((q) =>
              expect(
                Math.abs(p.odds - q.odds) >= FRONT_CONSTANTS.oddsTold.byDefault ||
                  Math.abs(p.hours - q.hours) >= FRONT_CONSTANTS.hoursTold.byDefault ||
                  Math.abs(p.minutes - q.minutes) >= FRONT_CONSTANTS.minutesTold.byDefault,
              ).toBe(true),
            ),
        )
      }),
    )
  })

  it('takes odds within half a percent of the least for the least, hours within 0.3 of the most for the most', () => {
    const point = (hours: number, odds: number, minutes = 20) =>
      ({ hours, odds, minutes }) as unknown as FrontPoint
    const kinds = (...points: FrontPoint[]) => kindsOf(DEFAULTS, points).kinds
    const far = [point(20, 0.3), point(40, 0.6)]
    expect(kinds(point(10, 0.1), point(11, 0.1049), ...far).gentlest).toBe(1)
    expect(kinds(point(10, 0.1), point(11, 0.1051), ...far).gentlest).toBe(0)
    expect(kinds(point(10, 0.1), ...far, point(39.71, 0.5)).closest).toBe(3)
    expect(kinds(point(10, 0.1), ...far, point(39.69, 0.5)).closest).toBe(2)
    // The one that gains most hours for its odds lies between.
    expect(kinds(point(10, 0.1), point(30, 0.2), point(40, 0.6)).balanced).toBe(1)
  })

  it('of real plans offers three that differ, where the skin allows it, and says why where it does not', () => {
    const known = { ...history(4, 6), flow: randomMap(3) }
    const memory = new PlanMemory()
    const of = (style: 'gentlest' | 'balanced' | 'closest') =>
      makePlan(planInput({ ...known, memory, choice: { style } }))
    const [g, b, c] = [of('gentlest'), of('balanced'), of('closest')]
    expect(Object.keys(g.front!.offered)).toHaveLength(3)
    expect(g.odds!.any).toBeLessThan(b.odds!.any)
    expect(b.odds!.any).toBeLessThan(c.odds!.any)
    const hours = (p: Plan) => p.front!.points[p.front!.at]!.hours
    expect(hours(g)).toBeLessThan(hours(b))
    expect(hours(b)).toBeLessThan(hours(c))
    // What was estimated is what the plan comes to.
    for (const p of [g, b, c]) {
      expect(p.odds!.any).toBeCloseTo(p.front!.points[p.front!.at]!.odds, 2)
      expect(Math.abs(p.totalMinutes - p.front!.points[p.front!.at]!.minutes)).toBeLessThan(3)
    }
    const brows = makePlan(
      planInput({ service: 'brow-tidy', skin: { faceHair: 'fuzz' }, keepLines: BROW_LINES }),
    )
    expect(Object.keys(brows.front!.offered)).toHaveLength(1)
    expect(brows.front!.why).toContain('one plan')
  })

  it('is slid along by hours: the nearest plan is taken', () => {
    const memory = new PlanMemory()
    const at = (hours: number | undefined) =>
      makePlan(planInput({ memory, choice: { hours }, skin: { reactivity: 'tough' } })).front!
    const { points } = at(undefined)
    for (const wanted of [18, 24, 29]) {
      const taken = at(wanted)
      const nearest = Math.min(...points.map((p) => Math.abs(p.hours - wanted)))
      expect(Math.abs(points[taken.at]!.hours - wanted)).toBeLessThanOrEqual(nearest + 0.05)
    }
  })
})

describe('left and right', () => {
  many('get the same strokes on new clients, all kinds of plan: 0 of more than 500 pairs', () => {
    let found = 0
    let all = 0
    for (let seed = 1; seed <= 25; seed++) {
      const memory = new PlanMemory()
      for (const style of ['gentlest', 'balanced', 'closest'] as const) {
        const p = makePlan(
          planInput({ flow: usualFlow(), memory, choice: { style }, ...history(seed, 0) }),
        )
        found += differing(p).length
        all += pairs(p).length
      }
    }
    expect(all).toBeGreaterThan(500)
    expect(found).toBe(0)
  })

  many('differ on at most 1 % of the pairs of known clients whose sides are alike', () => {
    let found = 0
    let all = 0
    for (let seed = 1; seed <= 60; seed++) {
      const visits = 3 + (seed % 13)
      const p = makePlan(
        planInput({
          flow: usualFlow(),
          ...history(1000 + seed, visits),
          choice: { style: 'closest' },
          memory: MEMORY,
        }),
      )
      found += differing(p).length
      all += pairs(p).length
    }
    expect(all).toBeGreaterThan(400)
    expect(found / all).toBeLessThanOrEqual(0.01)
  })

  it('still show a side that is truly three times redder', () => {
    let called = 0
    const clients = 30
    for (let seed = 1; seed <= clients; seed++) {
      const p = makePlan(
        planInput({
          flow: usualFlow(),
          ...history(3000 + seed, 14, 3),
          choice: { style: 'closest' },
          memory: MEMORY,
        }),
      )
      if (differing(p).length > 0) called++
    }
    expect(called).toBeGreaterThanOrEqual(0.4 * clients)
  })

  it('are told apart where a mark takes much of one side', () => {
    const jaw = planInput().ground.records.get('jaw-left')!
    const spots = [
      { id: 's', kind: 'mole' as const, zoneId: 'jaw-left' as const, ...jaw.centre, radiusMm: 16 },
    ]
    const p = makePlan(planInput({ spots }))
    expect(p.zones.some((z) => z.zoneId === 'jaw-right')).toBe(true)
  })
})

const MEMORY = new PlanMemory()
const usualFlow = () => planInput().flow

describe('"make it N minutes"', () => {
  it('drops the area whose last pass buys least for its time, both sides together', () => {
    const skin = { reactivity: 'tough' } as const
    const whole = makePlan(planInput({ skin, choice: { style: 'closest' }, memory: MEMORY }))
    const worth = lastPasses(whole.zones, whole.lanes).sort((a, b) => a.worth - b.worth)
    expect(worth.length).toBeGreaterThan(3)
    const within = whole.totalMinutes - 0.2
    const fitted = makePlan(
      planInput({ skin, choice: { style: 'closest', within }, memory: MEMORY }),
    )
    expect(fitted.dropped[0]!.zone).toBe(worth[0]!.name)
    expect(fitted.dropped[0]!.hours).toBeCloseTo(worth[0]!.hours, 9)
    const area = areaOf(zoneStem(worth[0]!.zones[0]!))
    for (const z of fitted.zones.filter((x) => area.stems.includes(zoneStem(x.zoneId))))
      expect(z.passes.length).toBeLessThan(
        whole.zones.find((x) => x.zoneId === z.zoneId)!.passes.length,
      )
  })
})
