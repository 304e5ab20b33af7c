import { DEFAULTS, DEFAULT_SCHOOLS, type Schools } from '../house/index.ts'
import { toRadians, relationToGrain, angleBetween } from '../grain/index.ts'
import { directionFactor } from '../skin/load.ts'
import { rednessOdds, SKIN_CONSTANTS } from '../skin/index.ts'
import { CLOSENESS_CONSTANTS, smoothHours, stubbleLeftMm } from './closeness.ts'
import type { LaneShape } from './lanes.ts'
import { PASS_CONSTANTS, planPasses, type PassQuestion } from './passes.ts'
import { BIN, BINS } from './turns.ts'
import fc from 'fast-check'

const LIMIT = SKIN_CONSTANTS.rednessLimit.byDefault

/** A lane of hair that lies one way, in the middle of a bin. */
function lane(deg: number, areaCm2 = 10, letter = 'a'): LaneShape {
  const bin = Math.floor(toRadians(deg) / BIN) % BINS
  const turns = new Float64Array(BINS)
  turns[bin] = areaCm2
  return {
    zoneId: 'cheek-lower-left',
    letter,
    cells: [0],
    areaCm2,
    growth: (bin + 0.5) * BIN,
    turns,
    trust: 1,
    point: [50, -50, 40],
    normal: [1, 0, 0],
  }
}

const TURN = { with: 0, across: Math.PI / 2, against: Math.PI, fixed: 0.4 }
const ask = (
  over: Partial<Omit<PassQuestion, 'schools'>> & { schools?: Partial<Schools> } = {},
): PassQuestion => ({
  figures: DEFAULTS,
  service: 'face-shave',
  family: 'razor',
  style: 'balanced',
  lanes: [lane(170)],
  strokeOf: (l, wanted) => l.growth + TURN[wanted],
  hair: 'terminal',
  tool: 'single-edge',
  growthMmPerDay: 0.4,
  sensitivity: { shape: 2, rate: 8 },
  reactivity: 'average',
  bumpProne: false,
  curlTight: false,
  thin: false,
  screening: { withGrainOnly: false, onePass: false },
  ...over,
  schools: { ...DEFAULT_SCHOOLS, ...over.schools },
})
const relations = (q: PassQuestion) => planPasses(q).passes.map((p) => p.relation)
const TOUGH = { shape: 2, rate: 40 }

describe('the passes of a zone', () => {
  it.each([
    ['with-across', ['with', 'across']],
    ['with-against', ['with', 'against']],
    ['with-only', ['with']],
    ['one-across', ['across']],
  ] as const)('follow the school %s on skin that bears it', (beardPasses, wanted) => {
    expect(relations(ask({ sensitivity: TOUGH, schools: { beardPasses } }))).toEqual(wanted)
  })

  it('add up as M7 and M8 say, recomputed by hand', () => {
    const q = ask()
    const { passes } = planPasses(q)
    // Single edge, full slip, new blade: 1 with, 1.6 across.
    expect(passes.map((p) => p.load)).toEqual([expect.closeTo(1, 9), expect.closeTo(1.6, 9)])
    expect(passes[1]!.rednessOdds).toBeCloseTo(rednessOdds(q.sensitivity, 2.6), 9)
    const left = stubbleLeftMm(DEFAULTS, Math.PI / 2)
    expect(passes[1]!.leftMm).toBeCloseTo(left, 9)
    expect(passes[1]!.smoothHours).toBeCloseTo(
      smoothHours(left, q.growthMmPerDay, CLOSENESS_CONSTANTS.feltMm.byDefault),
      9,
    )
  })

  it('weigh lanes by their area, and every patch of a lane by its own angle', () => {
    const mixed: LaneShape = { ...lane(0, 4, 'b'), growth: toRadians(20) }
    mixed.turns.fill(0)
    mixed.turns[4] = 2 // 22.5°
    mixed.turns[16] = 2 // 82.5°
    const q = ask({ lanes: [lane(170, 6), mixed], schools: { beardPasses: 'with-only' } })
    const by = (deg: number) =>
      directionFactor(DEFAULTS, angleBetween(toRadians(deg), mixed.growth))
    const expected = 0.6 * 1 + 0.2 * by(22.5) + 0.2 * by(82.5)
    expect(planPasses(q).passes[0]!.load).toBeCloseTo(expected, 9)
  })

  it('never plan a later pass over the limit, and say of each refused one what it would cost', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 12, noNaN: true }),
        fc.double({ min: 1, max: 40, noNaN: true }),
        fc.constantFrom('with-across', 'with-against', 'one-across', 'with-only'),
        fc.constantFrom('gentlest', 'balanced', 'closest'),
        (shape, rate, beardPasses, style) => {
          const { passes, refused } = planPasses(
            ask({ sensitivity: { shape, rate }, schools: { beardPasses }, style }),
          )
          const limit =
            style === 'gentlest' ? LIMIT * PASS_CONSTANTS.gentlestLimit.byDefault : LIMIT
          for (const later of passes.slice(1)) expect(later.rednessOdds).toBeLessThanOrEqual(limit)
          for (const no of refused) {
            expect(no.reason).toMatch(/ %|third pass/)
            expect(no.gainHours).toBeGreaterThanOrEqual(0)
          }
          expect(passes.map((p) => p.pass)).toEqual(passes.map((_, i) => i + 1))
        },
      ),
    )
  })

  it('are never more for skin that reddens more easily, and never more in a gentler plan', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 40, noNaN: true }),
        fc.double({ min: 1, max: 40, noNaN: true }),
        (a, b) => {
          const [reactive, tough] = a < b ? [a, b] : [b, a]
          const load = (rate: number, style: PassQuestion['style']) =>
            planPasses(ask({ sensitivity: { shape: 2, rate }, style })).passes.reduce(
              (s, p) => s + p.load,
              0,
            )
          expect(load(reactive, 'balanced')).toBeLessThanOrEqual(load(tough, 'balanced') + 1e-9)
          expect(load(a, 'gentlest')).toBeLessThanOrEqual(load(a, 'balanced') + 1e-9)
          expect(load(a, 'balanced')).toBeLessThanOrEqual(load(a, 'closest') + 1e-9)
        },
      ),
    )
  })

  it('turn with the growth: the relation of each stroke is what was meant', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 359 }), (deg) => {
        const q = ask({ lanes: [lane(deg)] })
        for (const p of planPasses(q).passes)
          expect(relationToGrain(DEFAULTS, angleBetween(p.strokeBearing, q.lanes[0]!.growth))).toBe(
            p.relation,
          )
      }),
    )
  })

  it('warn when even one pass may redden, and still plan that one', () => {
    const { passes, reasons } = planPasses(ask({ sensitivity: { shape: 6, rate: 3 } }))
    expect(passes).toHaveLength(1)
    expect(reasons.some((r) => r.text.startsWith('Even one pass may redden'))).toBe(true)
  })

  it('heed what asking found, and give that as the reason', () => {
    const one = planPasses(
      ask({ sensitivity: TOUGH, screening: { onePass: true, withGrainOnly: false } }),
    )
    expect(one.passes.map((p) => p.relation)).toEqual(['with'])
    expect(one.refused[0]!.reason).toMatch(/^One pass only/)
    const along = planPasses(
      ask({ sensitivity: TOUGH, screening: { onePass: false, withGrainOnly: true } }),
    )
    expect(along.refused[0]!.reason).toMatch(/^With the grain only/)
    const head = ask({ service: 'head-shave', screening: { onePass: false, withGrainOnly: true } })
    expect(relations(head)).toEqual(['with'])
  })

  it('go a third time on tough skin only (common practice)', () => {
    const closest = { style: 'closest', sensitivity: { shape: 2, rate: 90 } } as const
    expect(relations(ask({ ...closest, reactivity: 'tough' }))).toEqual([
      'with',
      'across',
      'against',
    ])
    const average = planPasses(ask(closest))
    expect(average.passes).toHaveLength(2)
    expect(average.refused[0]!.reason).toBe('A third pass only on tough skin.')
  })

  it('never go against the grain on bump-prone skin, by any school or kind of plan (common practice)', () => {
    for (const beardPasses of ['with-across', 'with-against', 'one-across', 'with-only'] as const)
      for (const style of ['gentlest', 'balanced', 'closest'] as const)
        for (const service of ['face-shave', 'head-shave', 'body-shave'] as const) {
          const q = ask({
            service,
            style,
            bumpProne: true,
            curlTight: true,
            schools: { beardPasses },
          })
          expect(relations(q)).toEqual(['with'])
        }
  })

  it('a multi-blade cartridge goes across and never against (common practice)', () => {
    expect(
      relations(ask({ service: 'body-shave', tool: 'cartridge', sensitivity: TOUGH })),
    ).toEqual(['across'])
    const { passes, refused } = planPasses(
      ask({ tool: 'cartridge', sensitivity: TOUGH, schools: { beardPasses: 'with-against' } }),
    )
    expect(passes.map((p) => p.relation)).toEqual(['with'])
    expect(refused[0]!.reason).toContain('never goes against')
  })

  it('a line-up takes the trimmer first, which may go against, and the razor with the grain (common practice)', () => {
    const q = ask({
      service: 'beard-line',
      firstTool: 'trimmer',
      sensitivity: { shape: 6, rate: 3 },
    })
    const { passes } = planPasses(q)
    expect(passes.map((p) => [p.relation, p.tool])).toEqual([
      ['against', 'trimmer'],
      ['with', 'single-edge'],
    ])
    expect(passes[0]!.leftMm).toBe(CLOSENESS_CONSTANTS.trimmerLeavesMm.byDefault)
    expect(relations(ask({ service: 'beard-line' }))).toEqual(['with'])
  })

  it('take fuzz once, with the growth, or down and in by the other school, and say how far off that is', () => {
    const fuzz = {
      family: 'fuzz',
      service: 'dermaplane',
      tool: 'dermaplaning',
      hair: 'fuzz',
      sensitivity: TOUGH,
    } as const
    for (const style of ['gentlest', 'balanced', 'closest'] as const)
      expect(relations(ask({ ...fuzz, style }))).toEqual(['with'])
    const inward = planPasses(ask({ ...fuzz, schools: { fuzzDirection: 'down-to-centre' } }))
    expect(inward.passes).toHaveLength(1)
    const off = Math.round((0.4 * 180) / Math.PI)
    expect(inward.reasons.some((r) => r.text.includes(`${off}° off`))).toBe(true)
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
