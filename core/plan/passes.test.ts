import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { toRadians } from '../grain/circular.ts'
import { strokeAngle, relationToGrain } from '../grain/relation.ts'
import type { ZoneRecord } from '../head/head.ts'
import { DEFAULT_SCHOOLS, type Schools } from '../house/schools.ts'
import { rednessOdds, SKIN_CONSTANTS } from '../skin/sensitivity.ts'
import { CLOSENESS_CONSTANTS, smoothHours, stubbleLeftMm } from './closeness.ts'
import { planPasses, type PassQuestion } from './passes.ts'

const ZONES = JSON.parse(readFileSync('generated/zones.json', 'utf8')) as ZoneRecord[]
const zone = ZONES.find((z) => z.id === 'cheek-lower-left')!
const hazards = ZONES.filter((z) => !z.skin && z.id !== 'base').map((z) => ({
  name: z.id,
  at: z.centre.point,
}))
const LIMIT = SKIN_CONSTANTS.rednessLimit.value

const ask = (
  over: Partial<Omit<PassQuestion, 'schools'>> & { schools?: Partial<Schools> } = {},
): PassQuestion => ({
  zone,
  service: 'face-shave',
  family: 'razor',
  growthDirection: toRadians(170),
  hair: 'terminal',
  tool: 'single-edge',
  growthMmPerDay: 0.4,
  sensitivity: { shape: 2, rate: 8 },
  bumpProne: false,
  curlTight: false,
  screening: { withGrainOnly: false, onePass: false },
  hazards,
  ...over,
  schools: { ...DEFAULT_SCHOOLS, ...over.schools },
})
const relations = (q: PassQuestion) => planPasses(q).passes.map((p) => p.relation)

describe('the passes of a zone', () => {
  it.each([
    ['with-across', ['with', 'across']],
    ['with-against', ['with', 'against']],
    ['with-only', ['with']],
    ['one-across', ['across']],
  ] as const)('follow the school %s on skin that bears it', (beardPasses, wanted) => {
    const tough = { shape: 2, rate: 40 }
    expect(relations(ask({ sensitivity: tough, schools: { beardPasses } }))).toEqual(wanted)
  })

  it('add up as M7 and M8 say, recomputed by hand', () => {
    const q = ask()
    const { passes } = planPasses(q)
    // Single edge, full slip, new blade: 1 with, 1.6 across.
    expect(passes.map((p) => p.load)).toEqual([1, expect.closeTo(1.6, 9)])
    expect(passes[1]!.rednessOdds).toBeCloseTo(rednessOdds(q.sensitivity, 2.6), 9)
    const left = stubbleLeftMm(Math.PI / 2)
    expect(passes[1]!.smoothHours).toBeCloseTo(
      smoothHours(left, q.growthMmPerDay, CLOSENESS_CONSTANTS.feltMm.value),
      9,
    )
  })

  it('never plan a later pass over the limit, and say of each refused one what it would cost', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 12, noNaN: true }),
        fc.double({ min: 1, max: 40, noNaN: true }),
        fc.constantFrom('with-across', 'with-against', 'one-across', 'with-only'),
        (shape, rate, beardPasses) => {
          const { passes, refused } = planPasses(
            ask({ sensitivity: { shape, rate }, schools: { beardPasses } }),
          )
          for (const later of passes.slice(1)) expect(later.rednessOdds).toBeLessThanOrEqual(LIMIT)
          for (const no of refused) {
            expect(no.rednessOdds).toBeGreaterThan(LIMIT)
            expect(no.reason).toContain(`${Math.round(100 * no.rednessOdds)} %`)
            expect(no.gainHours).toBeGreaterThanOrEqual(0)
          }
          expect(passes.map((p) => p.pass)).toEqual(passes.map((_, i) => i + 1))
        },
      ),
    )
  })

  it('are never more for skin that reddens more easily', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 40, noNaN: true }),
        fc.double({ min: 1, max: 40, noNaN: true }),
        (a, b) => {
          const [reactive, tough] = a < b ? [a, b] : [b, a]
          const count = (rate: number) =>
            planPasses(ask({ sensitivity: { shape: 2, rate } })).passes.length
          expect(count(reactive)).toBeLessThanOrEqual(count(tough))
        },
      ),
    )
  })

  it('turn with the growth: the relation of each stroke is what was meant', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 359 }), (deg) => {
        const growthDirection = toRadians(deg)
        for (const p of planPasses(ask({ growthDirection })).passes) {
          const angle = strokeAngle(p.strokeBearing, growthDirection)
          expect(relationToGrain(angle)).toBe(p.relation)
        }
      }),
    )
  })

  it('warn when even one pass may redden, and still plan that one', () => {
    const { passes, reasons } = planPasses(ask({ sensitivity: { shape: 6, rate: 3 } }))
    expect(passes).toHaveLength(1)
    expect(reasons.some((r) => r.text.startsWith('Even one pass may redden'))).toBe(true)
  })

  it('heed what asking found, and give that as the reason', () => {
    const tough = { shape: 2, rate: 40 }
    const one = planPasses(
      ask({ sensitivity: tough, screening: { onePass: true, withGrainOnly: false } }),
    )
    expect(one.passes.map((p) => p.relation)).toEqual(['with'])
    expect(one.refused[0]!.reason).toMatch(/^One pass only/)
    const along = planPasses(
      ask({ sensitivity: tough, screening: { onePass: false, withGrainOnly: true } }),
    )
    expect(along.refused[0]!.reason).toMatch(/^With the grain only/)
    const head = ask({ service: 'head-shave', screening: { onePass: false, withGrainOnly: true } })
    expect(relations(head)).toEqual(['with'])
  })

  it('never go against the grain on bump-prone skin, by any school (common practice)', () => {
    for (const beardPasses of ['with-across', 'with-against', 'one-across', 'with-only'] as const)
      for (const service of ['face-shave', 'head-shave'] as const) {
        const q = ask({ service, bumpProne: true, curlTight: true, schools: { beardPasses } })
        expect(relations(q)).toEqual(['with'])
      }
  })

  it('take fuzz once, with the growth, or down and in by the other school, and say how far off that is', () => {
    const fuzz = {
      family: 'fuzz',
      service: 'dermaplane',
      tool: 'dermaplaning',
      hair: 'fuzz',
    } as const
    expect(relations(ask(fuzz))).toEqual(['with'])
    const inward = planPasses(ask({ ...fuzz, schools: { fuzzDirection: 'down-to-centre' } }))
    expect(inward.passes).toHaveLength(1)
    const off = strokeAngle(inward.passes[0]!.strokeBearing, toRadians(170))
    expect(
      inward.reasons.some((r) => r.text.includes(`${Math.round((off * 180) / Math.PI)}° off`)),
    ).toBe(true)
  })

  it('cost dry skin more than damp skin, and damp more than slip', () => {
    const load = (fuzzSlip: 'dry' | 'damp' | 'film') =>
      planPasses(
        ask({
          family: 'fuzz',
          service: 'dermaplane',
          tool: 'dermaplaning',
          hair: 'fuzz',
          schools: { fuzzSlip },
        }),
      ).passes[0]!.load
    expect(load('film')).toBeLessThan(load('dry'))
    expect(load('film')).toBeLessThan(load('damp'))
  })
})
