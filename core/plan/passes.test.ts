import { DEFAULTS, DEFAULT_SCHOOLS, type Schools } from '../house/index.ts'
import { toRadians, relationToGrain, angleBetween } from '../grain/index.ts'
import { directionFactor } from '../skin/load.ts'
import type { Growth } from '../regrowth/index.ts'
import { rednessOdds } from '../skin/index.ts'
import { CLOSENESS_CONSTANTS } from './closeness.ts'
import type { LaneShape } from './lanes.ts'
import {
  barredBy,
  PASS_CONSTANTS,
  sequenceFigures,
  sequenceKey,
  sequencesFor,
  slipFor,
  type PassQuestion,
  type Sequence,
} from './passes.ts'
import { BIN, BINS } from './turns.ts'
import fc from 'fast-check'

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
    errorDeg: 5,
    point: [50, -50, 40],
    normal: [1, 0, 0],
  }
}

const TURN = { with: 0, across: Math.PI / 2, against: Math.PI, fixed: 0.4 }
const GROWTH: Growth = { curve: 'terminal', mean: 0.4, sd: 0.08 }
const ask = (
  over: Partial<Omit<PassQuestion, 'schools'>> & { schools?: Partial<Schools> } = {},
): PassQuestion => ({
  figures: DEFAULTS,
  service: 'face-shave',
  family: 'razor',
  lanes: [lane(170)],
  strokeOf: (l, wanted) => l.growth + TURN[wanted],
  wordsOf: () => 'down',
  hair: 'terminal',
  coarse: 'medium',
  tool: 'single-edge',
  growth: GROWTH,
  sensitivity: { shape: 2, rate: 8 },
  bumps: { shape: 1.5, rate: 25 },
  wear: 0,
  tolerant: false,
  reactivity: 'average',
  bumpProne: false,
  curlTight: false,
  thin: false,
  screening: { withGrainOnly: false, onePass: false },
  slip: slipFor(over.family ?? 'razor', { ...DEFAULT_SCHOOLS, ...over.schools }),
  ...over,
  schools: { ...DEFAULT_SCHOOLS, ...over.schools },
})
const rows = (q: PassQuestion) => sequencesFor(q).map(sequenceKey)
const WITH: Sequence = [{ wanted: 'with' }]
const ROWS: readonly Sequence[] = [
  WITH,
  [{ wanted: 'across' }],
  [{ wanted: 'with' }, { wanted: 'across' }],
  [{ wanted: 'with' }, { wanted: 'against' }],
  [{ wanted: 'with' }, { wanted: 'across' }, { wanted: 'against' }],
]
const anyRow = fc.constantFrom(...ROWS)

describe('the rows of strokes of a zone', () => {
  it.each([
    ['with-across', ['with', 'with+across']],
    ['with-against', ['with', 'with+against']],
    ['with-only', ['with']],
    ['one-across', ['with', 'across']],
    ['free', ['with', 'across', 'with+across', 'with+against']],
  ] as const)('follow the school %s', (beardPasses, wanted) => {
    expect(rows(ask({ schools: { beardPasses } }))).toEqual(wanted)
  })

  it('go a third time only on skin whose own visits have shown that it bears much', () => {
    expect(rows(ask({ tolerant: true }))).toContain('with+across+against')
    expect(rows(ask({ reactivity: 'tough' }))).not.toContain('with+across+against')
    expect(rows(ask())).not.toContain('with+across+against')
  })

  it('are never against on tightly curled hair, nor on bump-prone skin, by any school (common practice)', () => {
    for (const beardPasses of [
      'with-across',
      'with-against',
      'one-across',
      'with-only',
      'free',
    ] as const)
      for (const service of ['face-shave', 'head-shave', 'body-shave'] as const) {
        const base = { service, reactivity: 'tough', schools: { beardPasses } } as const
        expect(rows(ask({ ...base, curlTight: true })).join()).not.toContain('against')
        expect(rows(ask({ ...base, bumpProne: true }))).toEqual(['with'])
      }
  })

  it('heed what asking found, and give that as the reason', () => {
    const one = ask({ screening: { onePass: true, withGrainOnly: false } })
    expect(rows(one)).toEqual(['with'])
    expect(barredBy(one, ROWS[2]!)).toMatch(/^One pass only/)
    const along = ask({ screening: { onePass: false, withGrainOnly: true } })
    expect(rows(along)).toEqual(['with'])
    expect(barredBy(along, ROWS[2]!)).toMatch(/^With the grain only/)
    expect(rows(ask({ service: 'head-shave', screening: along.screening }))).toEqual(['with'])
  })

  it('of a cartridge go across and never against, and against is never first (common practice)', () => {
    expect(rows(ask({ service: 'body-shave', tool: 'cartridge' }))).toEqual(['across'])
    expect(barredBy(ask({ tool: 'cartridge' }), ROWS[3]!)).toContain('never goes against')
    expect(barredBy(ask(), [{ wanted: 'against' }])).toContain('never the first pass')
  })

  it('of a line-up take the trimmer first, which may go against, and the razor with the grain (common practice)', () => {
    const q = ask({ service: 'beard-line', firstTool: 'trimmer' })
    expect(rows(q)).toEqual(['trimmer:against+with'])
    expect(rows(ask({ service: 'beard-line' }))).toEqual(['with'])
    const careful = { ...q, screening: { onePass: false, withGrainOnly: true } }
    expect(rows(careful)).toEqual(['trimmer:with+with'])
    const { passes } = sequenceFigures(q, sequencesFor(q)[0]!)
    expect(passes[0]!.leftMm).toBe(CLOSENESS_CONSTANTS.trimmerLeavesMm.byDefault)
    expect(passes[1]!.leftMm).toBeLessThan(passes[0]!.leftMm)
  })

  it('take fuzz once, with the growth, or down and in by the other school, and say how far off that is', () => {
    const fuzz = {
      family: 'fuzz',
      service: 'dermaplane',
      tool: 'dermaplaning',
      hair: 'fuzz',
    } as const
    expect(rows(ask(fuzz))).toEqual(['with'])
    const said: string[] = []
    const inward = ask({ ...fuzz, schools: { fuzzDirection: 'down-to-centre' } })
    expect(sequencesFor(inward, (r) => said.push(r.text)).map(sequenceKey)).toEqual(['fixed'])
    expect(said.some((t) => t.includes(`${Math.round((0.4 * 180) / Math.PI)}° off`))).toBe(true)
  })
})

describe('what a row of strokes comes to', () => {
  it('adds up as M7 and M8 say, recomputed by hand', () => {
    const { passes, load, hours, rednessOdds: odds } = sequenceFigures(ask(), ROWS[2]!)
    // Single edge, full slip, new blade: 1 with, 1.6 across; the first tugs medium hair by 0.25 · 0.3.
    expect(passes.map((p) => p.load)).toEqual([expect.closeTo(1.075, 9), expect.closeTo(1.6, 9)])
    expect(load).toBeCloseTo(2.675, 9)
    expect(odds).toBeCloseTo(rednessOdds({ shape: 2, rate: 8 }, 2.675), 9)
    const left = 0.1 / Math.sin(toRadians(58.5))
    expect(passes[1]!.leftMm).toBeCloseTo(left, 9)
    // Two passes miss 0.1 · 0.1 of medium hair.
    expect(hours).toBeCloseTo((0.99 * 24 * (0.5 - left)) / 0.4, 9)
    expect(passes[0]!.smoothHours).toBeCloseTo(
      (0.9 * 24 * (0.5 - 0.1 / Math.sin(toRadians(27)))) / 0.4,
      9,
    )
  })

  it('leaves no more standing after a pass than before it, though the later one cuts less close', () => {
    const back: Sequence = [{ wanted: 'across' }, { wanted: 'with' }]
    const { passes } = sequenceFigures(ask(), back)
    const [across] = sequenceFigures(ask(), [{ wanted: 'across' }]).passes
    const [along] = sequenceFigures(ask(), WITH).passes
    expect(along!.leftMm).toBeGreaterThan(across!.leftMm)
    expect(passes.map((p) => p.leftMm)).toEqual([across!.leftMm, across!.leftMm])
  })

  it('weighs lanes by their area, and every patch of a lane by its own angle', () => {
    const mixed: LaneShape = { ...lane(0, 4, 'b'), growth: toRadians(20) }
    mixed.turns.fill(0)
    mixed.turns[4] = 2 // 22.5°
    mixed.turns[16] = 2 // 82.5°
    const by = (deg: number) => {
      const angle = angleBetween(toRadians(deg), mixed.growth)
      return directionFactor(DEFAULTS)(angle) * (1 + 0.25 * (0.3 + (1.7 * angle) / Math.PI))
    }
    const expected = 0.6 * 1.075 + 0.2 * by(22.5) + 0.2 * by(82.5)
    expect(sequenceFigures(ask({ lanes: [lane(170, 6), mixed] }), WITH).load).toBeCloseTo(
      expected,
      9,
    )
  })

  it('turns with the growth: the relation of each stroke is what was meant', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 359 }), anyRow, (deg, row) => {
        const q = ask({ lanes: [lane(deg)] })
        sequenceFigures(q, row).passes.forEach((p, i) => {
          expect(p.relation).toBe(row[i]!.wanted)
          const angle = angleBetween(p.strokeBearing, q.lanes[0]!.growth)
          expect(relationToGrain(DEFAULTS, angle)).toBe(p.relation)
        })
      }),
    )
  })

  it('is more load and never less smooth with every stroke more', () => {
    fc.assert(
      fc.property(anyRow, (row) => {
        const { passes } = sequenceFigures(ask(), row)
        for (let i = 1; i < passes.length; i++) {
          expect(passes[i]!.rednessOdds).toBeGreaterThan(passes[i - 1]!.rednessOdds)
          expect(passes[i]!.smoothHours).toBeGreaterThan(passes[i - 1]!.smoothHours)
        }
      }),
    )
  })

  it('makes a second pass worth something over one across, so that across alone does not beat with, then across', () => {
    const [across, both] = [ROWS[1]!, ROWS[2]!].map((r) => sequenceFigures(ask(), r))
    expect(both!.hours).toBeGreaterThan(across!.hours + 0.5)
    expect(both!.load).toBeGreaterThan(across!.load)
  })
})

describe('what is asked counts', () => {
  const figures = (over: Parameters<typeof ask>[0], row: Sequence = ROWS[2]!) =>
    sequenceFigures(ask(over), row)

  it('coarseness: coarser hair is tugged harder and missed more', () => {
    const [fine, medium, coarse] = (['fine', 'medium', 'coarse'] as const).map((c) =>
      figures({ coarse: c }),
    )
    expect(fine!.load).toBeLessThan(medium!.load)
    expect(medium!.load).toBeLessThan(coarse!.load)
    expect(fine!.hours).toBeGreaterThan(medium!.hours)
    expect(medium!.hours).toBeGreaterThan(coarse!.hours)
    const first = (c: 'fine' | 'coarse', wanted: 'with' | 'across') =>
      figures({ coarse: c }, [{ wanted }]).load
    expect(first('coarse', 'across') - first('fine', 'across')).toBeGreaterThan(
      first('coarse', 'with') - first('fine', 'with'),
    )
  })

  it('wear: a worn blade loads more, up to half as much again', () => {
    expect(figures({ wear: 0.5 }).load).toBeCloseTo(1.25 * figures({}).load, 9)
    expect(figures({ wear: 1 }).load).toBeCloseTo(1.5 * figures({}).load, 9)
  })

  it('bumps: what was learned of them moves their odds and not those of redness', () => {
    const [few, many] = [
      { shape: 1.5, rate: 25 },
      { shape: 6, rate: 5 },
    ].map((bumps) => figures({ bumps }))
    expect(many!.bumpOdds).toBeGreaterThan(few!.bumpOdds + 0.1)
    expect(many!.rednessOdds).toBe(few!.rednessOdds)
    expect(few!.bumpOdds).toBeCloseTo(
      rednessOdds({ shape: 1.5, rate: 25 }, 2.675, PASS_CONSTANTS.bumpsFrom.byDefault),
      9,
    )
  })

  it('the tool: a razor with a head is kinder and less close, a guarded edge than a bare one too', () => {
    const [open, headed] = (['single-edge', 'headed'] as const).map((tool) => figures({ tool }))
    expect(headed!.load).toBeLessThan(open!.load)
    expect(headed!.hours).toBeLessThan(open!.hours)
    const fuzz = { family: 'fuzz', service: 'dermaplane', hair: 'fuzz' } as const
    const growth: Growth = { curve: 'fuzz', mean: 0.03, sd: 0.02 }
    const [bare, guarded] = (['dermaplaning', 'guarded'] as const).map((tool) =>
      figures({ ...fuzz, growth, tool }, WITH),
    )
    expect(guarded!.load).toBeLessThan(bare!.load)
    expect(guarded!.hours).toBeLessThan(bare!.hours)
    // Felt again after about a week (common practice).
    expect(bare!.hours / 24).toBeGreaterThan(6)
    expect(bare!.hours / 24).toBeLessThan(9)
  })

  it('slip: dry skin is loaded more than damp skin, and damp more than a film', () => {
    const load = (fuzzSlip: 'dry' | 'damp' | 'film') =>
      figures(
        {
          family: 'fuzz',
          service: 'dermaplane',
          tool: 'dermaplaning',
          hair: 'fuzz',
          schools: { fuzzSlip },
        },
        WITH,
      ).load
    expect(load('film')).toBeLessThan(load('dry'))
    expect(load('film')).toBeLessThan(load('damp'))
  })

  it('reactivity: skin that reddens more easily has the higher odds', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 40, noNaN: true }),
        fc.double({ min: 1, max: 40, noNaN: true }),
        anyRow,
        (a, b, row) => {
          const odds = (rate: number) =>
            figures({ sensitivity: { shape: 2, rate } }, row).rednessOdds
          expect(odds(Math.min(a, b))).toBeGreaterThanOrEqual(odds(Math.max(a, b)) - 1e-12)
        },
      ),
    )
  })
})
