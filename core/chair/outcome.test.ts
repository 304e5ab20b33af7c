import { DEFAULTS } from '../house/index.ts'
import { strokeAngle } from '../grain/index.ts'
import { stubbleLeftMm, type Plan } from '../plan/index.ts'
import { executedLoads, leftStanding } from './outcome.ts'
import fc from 'fast-check'

/** A plan with three zones of up to three passes, as far as the outcome reads it. */
const planned = fc
  .array(
    fc.record({
      growthDirection: fc.double({ min: 0, max: 6.28, noNaN: true }),
      passes: fc.array(
        fc.record({
          strokeBearing: fc.double({ min: 0, max: 6.28, noNaN: true }),
          load: fc.double({ min: 0.4, max: 3, noNaN: true }),
        }),
        { minLength: 1, maxLength: 3 },
      ),
    }),
    { minLength: 3, maxLength: 3 },
  )
  .map(
    (zones) =>
      ({
        // A plan of the first version.
        lanes: [],
        zones: zones.map((z, i) => ({
          ...z,
          zoneId: ['chin', 'jaw-left', 'jaw-right'][i],
          passes: z.passes.map((p, k) => ({ ...p, pass: k + 1 })),
        })),
      }) as unknown as Plan,
  )
const ids = (plan: Plan) => plan.zones.flatMap((z) => z.passes.map((p) => `${z.zoneId}:${p.pass}`))
const outcomesOf = (done: readonly string[], skipped: readonly string[] = []) => ({
  ...Object.fromEntries(skipped.map((id) => [id, 'skipped' as const])),
  ...Object.fromEntries(done.map((id) => [id, 'done' as const])),
})

describe('by lanes', () => {
  // A zone of 10 cm²: lane a of 6, lane b of 4; b goes over a second pass.
  const lane = (id: string, areaCm2: number, load: number, leftMm: number) => ({
    id,
    zoneId: 'chin',
    letter: id.split(':')[2],
    areaCm2,
    load,
    leftMm,
  })
  const plan = {
    zones: [{ zoneId: 'chin', areaCm2: 10, passes: [] }],
    lanes: [
      lane('chin:1:a', 6, 1, 0.2),
      lane('chin:1:b', 4, 1, 0.2),
      lane('chin:2:b', 4, 1.6, 0.1),
    ],
  } as unknown as Plan

  it('loads count by the area they fell on, and hair by what was left last', () => {
    const all = outcomesOf(['chin:1:a', 'chin:1:b', 'chin:2:b'])
    expect(executedLoads(plan, all)['chin']).toBeCloseTo(0.6 + 0.4 + 0.64, 9)
    expect(leftStanding(DEFAULTS, plan, { outcomes: all })['chin']).toBeCloseTo(
      0.6 * 0.2 + 0.4 * 0.1,
      9,
    )
    const some = outcomesOf(['chin:1:b'], ['chin:1:a', 'chin:2:b'])
    expect(executedLoads(plan, some)['chin']).toBeCloseTo(0.4, 9)
    expect(leftStanding(DEFAULTS, plan, { outcomes: some })['chin']).toBeCloseTo(0.2, 9)
    expect(executedLoads(plan, {})).toEqual({})
    expect(leftStanding(DEFAULTS, plan, { outcomes: {} })).toEqual({})
  })
})

describe('what a service leaves behind', () => {
  it('is nothing when nothing was done, whatever was skipped', () => {
    fc.assert(
      fc.property(planned, (plan) => {
        const outcomes = outcomesOf([], ids(plan))
        expect(executedLoads(plan, outcomes)).toEqual({})
        expect(leftStanding(DEFAULTS, plan, { outcomes })).toEqual({})
      }),
    )
  })

  it('is the whole plan when all was done', () => {
    fc.assert(
      fc.property(planned, (plan) => {
        const outcomes = outcomesOf(ids(plan))
        const loads = executedLoads(plan, outcomes)
        const left = leftStanding(DEFAULTS, plan, { outcomes })
        for (const z of plan.zones) {
          expect(loads[z.zoneId]).toBeCloseTo(
            z.passes.reduce((s, p) => s + p.load, 0),
            9,
          )
          const each = z.passes.map((p) =>
            stubbleLeftMm(DEFAULTS, strokeAngle(p.strokeBearing, z.growthDirection), 'single-edge'),
          )
          expect(left[z.zoneId]).toBe(Math.min(...each))
        }
      }),
    )
  })

  it('only ever costs more and leaves less when one more pass is done', () => {
    fc.assert(
      fc.property(planned, fc.infiniteStream(fc.boolean()), (plan, coin) => {
        const done = ids(plan).filter(() => coin.next().value as boolean)
        const open = ids(plan).filter((id) => !done.includes(id))
        if (open.length === 0) return
        const before = { outcomes: outcomesOf(done, open) }
        const after = { outcomes: outcomesOf([...done, open[0]!], open.slice(1)) }
        const sum = (o: Record<string, number>) => Object.values(o).reduce((s, v) => s + v, 0)
        expect(sum(executedLoads(plan, after.outcomes))).toBeGreaterThan(
          sum(executedLoads(plan, before.outcomes)),
        )
        const left = leftStanding(DEFAULTS, plan, after)
        for (const [zone, mm] of Object.entries(leftStanding(DEFAULTS, plan, before)))
          expect(left[zone]).toBeLessThanOrEqual(mm)
      }),
    )
  })

  it('speaks only of zones that a blade touched', () => {
    fc.assert(
      fc.property(planned, (plan) => {
        const outcomes = outcomesOf(['jaw-left:1'])
        expect(Object.keys(executedLoads(plan, outcomes))).toEqual(['jaw-left'])
        expect(Object.keys(leftStanding(DEFAULTS, plan, { outcomes }))).toEqual(['jaw-left'])
      }),
    )
  })
})
