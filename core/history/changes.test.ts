import { DEFAULTS } from '../house/index.ts'
import { drawGamma, drawPoisson, mulberry32 } from '../stats/index.ts'
import { DAY_MS } from '../time/index.ts'
import { changeEffects, compareCounts } from './changes.ts'
import { findChanges, separabilityWords } from './findChanges.ts'
import { trendWatch } from './trend.ts'
import type { VisitFacts } from './facts.ts'
import type { VisitChoices } from './choices.ts'

const choices = (
  over: Partial<VisitChoices> = {},
  relation: 'with' | 'against' = 'with',
  passes = 1,
): VisitChoices => ({
  zones: {
    chin: { relation, passes, tool: 'single-edge', wear: 0.2, lanes: 4, nicks: 0 },
    'neck-lower-left': { relation, passes, tool: 'single-edge', wear: 0.2, lanes: 5, nicks: 0 },
  },
  slip: 'full',
  blade: 'shavette',
  exfoliate: 'acid',
  ...over,
})

const visit = (i: number, bumps: number | null, over: Partial<VisitFacts> = {}): VisitFacts => ({
  visitId: `v${i}`,
  service: 'face-shave',
  workerId: 'w',
  endedAtMs: i * 6 * DAY_MS,
  loads: { chin: 1, 'neck-lower-left': 1 },
  worst: { chin: 0 },
  bumps: bumps === null ? null : { chin: bumps },
  choices: choices(),
  products: [],
  routine: '',
  answered: ['24h', '7d'],
  due: null,
  ...over,
})

describe('finding changes', () => {
  it('takes what was noted, and what held for three visits before and after', () => {
    const visits = Array.from({ length: 12 }, (_, i) =>
      visit(i, 1, {
        choices: choices(i < 6 ? { blade: 'cartridge' } : {}, 'with'),
        routine: i === 9 ? 'no scrubs' : '',
      }),
    )
    const found = findChanges(DEFAULTS, visits)
    expect(found.map((c) => [c.index, c.words, c.noted])).toEqual([
      [6, 'blade: cartridge → shavette', false],
      [9, 'no scrubs', true],
    ])
    expect(found[0]!.before).toHaveLength(6)
    expect(found[0]!.after).toHaveLength(3)
    expect(found[0]!.factors).toEqual(['blade'])
    expect(separabilityWords(found[1]!)).toContain('Nothing that is kept here differs')
  })

  it('a single visit done otherwise is no change', () => {
    const visits = Array.from({ length: 9 }, (_, i) =>
      visit(i, 1, { choices: choices(i === 4 ? { blade: 'cartridge' } : {}) }),
    )
    expect(findChanges(DEFAULTS, visits)).toEqual([])
  })

  it('names what changed together as not separable', () => {
    const visits = Array.from({ length: 12 }, (_, i) =>
      visit(i, 1, {
        choices: choices(
          i < 6 ? { exfoliate: 'none' } : {},
          i < 6 ? 'against' : 'with',
          i < 6 ? 2 : 1,
        ),
        // And twice as far apart from then on.
        endedAtMs: (i < 6 ? i * 3 : 15 + (i - 5) * 6) * DAY_MS,
        routine: i === 6 ? 'single edge, with the grain only' : '',
      }),
    )
    const [change] = findChanges(DEFAULTS, visits)
    expect(change!.noted).toBe(true)
    expect(separabilityWords(change!)).toBe(
      'Changed together and not separable: direction against the grain, number of passes, time between visits and exfoliation.',
    )
  })
})

describe('before and after', () => {
  const history = (before: number[], after: number[]) =>
    [...before, ...after].map((n, i) =>
      visit(i, n, { routine: i === before.length ? 'with the grain only' : '' }),
    )

  it('says it as a person would', () => {
    const [bumps] = changeEffects(
      DEFAULTS,
      findChanges(DEFAULTS, history([4, 6, 5, 6], [1, 0, 2, 1])),
      ['bumps'],
    )
    expect(bumps!.verdict).toBe('fell')
    expect(bumps!.words).toContain('Bumps fell from 21 in 4 visits to 4 in 4 visits')
    expect(bumps!.words).toContain('unlikely to be chance')
    // The exact conditional test on 4 of 25 at even exposure: 2 · P(X ≤ 4), binomial (25, 1/2), by hand:
    // 2 · (1 + 25 + 300 + 2300 + 12650) / 2^25.
    expect(bumps!.p).toBeCloseTo((2 * 15276) / 2 ** 25, 8)
  })

  it('says when there are too few, and when it may be chance', () => {
    const [few] = changeEffects(DEFAULTS, findChanges(DEFAULTS, history([4, 6, 5], [1])), ['bumps'])
    expect(few!.verdict).toBe('too-few')
    expect(few!.words).toContain('2 more after')
    const [same] = changeEffects(DEFAULTS, findChanges(DEFAULTS, history([2, 1, 2], [1, 2, 1])), [
      'bumps',
    ])
    expect(same!.verdict).toBe('no-difference')
    expect(same!.words).toContain('may well be chance')
    const [none] = changeEffects(DEFAULTS, findChanges(DEFAULTS, history([0, 0, 0], [0, 0, 0])), [
      'bumps',
    ])
    expect(none!.words).toContain('nothing to compare')
  })

  it('corrects for looking more than once and says so', () => {
    const visits = Array.from({ length: 16 }, (_, i) =>
      visit(i, i < 4 ? 5 : 2, { routine: i % 4 === 0 && i > 0 ? `change ${i}` : '' }),
    )
    const effects = changeEffects(DEFAULTS, findChanges(DEFAULTS, visits))
    expect(effects).toHaveLength(6)
    expect(effects[0]!.corrected).toBeGreaterThan(effects[0]!.p)
    expect(effects[0]!.words).toContain('corrected for 3 comparisons')
  })

  it('visits on which nobody counted are left out, not taken as none', () => {
    const visits = history([4, 6, 5, 6], [1, 0, 2, 1]).map((v, i) =>
      i === 1 ? { ...v, bumps: null } : v,
    )
    const [bumps] = changeEffects(DEFAULTS, findChanges(DEFAULTS, visits), ['bumps'])
    expect(bumps!.before).toMatchObject({ count: 15, visits: 3 })
    expect(bumps!.words).toContain('from 15 in 3 visits to 4 in 4 visits, 5.0 against 1.0 a visit')
  })

  it('raises a false alarm in 3 to 7 of 100 histories without any change, over 2 000 of them', () => {
    const random = mulberry32(42)
    let alarms = 0
    for (let i = 0; i < 2000; i++) {
      const rate = 6 * (drawGamma(random, 1.5) / 1.5) + 1
      const counts = () =>
        Array.from({ length: 8 + Math.floor(random() * 8) }, () => drawPoisson(random, rate))
      if (compareCounts(DEFAULTS, counts(), counts()).p < 0.05) alarms++
    }
    expect(alarms / 2000).toBeGreaterThan(0.03)
    expect(alarms / 2000).toBeLessThan(0.07)
  })

  it('widens the range where counts come in clusters, so that it cries wolf no more often', () => {
    const random = mulberry32(6)
    let [plain, widened] = [0, 0]
    for (let i = 0; i < 600; i++) {
      const counts = () =>
        Array.from({ length: 14 }, () => drawPoisson(random, 5 * (drawGamma(random, 1) / 1)))
      const [a, b] = [counts(), counts()]
      const found = compareCounts(DEFAULTS, a, b)
      if (found.p < 0.05) widened++
      if (found.scatter > 1) plain++
    }
    expect(plain / 600).toBeGreaterThan(0.9)
    expect(widened / 600).toBeLessThan(0.09)
  })
})

describe('the trend watch', () => {
  const series = (counts: number[]) => counts.map((n, i) => visit(i, n))

  it('is silent at first, holds while nothing changes, and speaks when bumps rise', () => {
    expect(trendWatch(DEFAULTS, series([2, 2, 2, 2, 2, 2]), 'bumps')).toBeUndefined()
    const calm = trendWatch(DEFAULTS, series([2, 1, 3, 2, 2, 2, 3, 1, 2]), 'bumps')!
    expect(calm.points.at(-1)!.out).toBe(false)
    expect(calm.words).toContain('as in the first 6')
    const risen = trendWatch(DEFAULTS, series([2, 1, 3, 2, 2, 2, 6, 7, 6, 8]), 'bumps')!
    expect(risen.points.at(-1)!.out).toBe(true)
    expect(risen.words).toContain('risen above')
  })

  it('one bump after none at all is no alarm', () => {
    const found = trendWatch(DEFAULTS, series([0, 0, 0, 0, 0, 0, 1]), 'bumps')!
    expect(found.points.at(-1)!.out).toBe(false)
  })
})
