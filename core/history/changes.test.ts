import { DEFAULTS } from '../house/index.ts'
import { DAY_MS } from '../time/index.ts'
import { COUNT_WORLDS, changesFound, watchRang } from '../testing/honest/changes.ts'
import { changeEffects, visitsToHalving } from './changes.ts'
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
    // Of the 70 ways to choose four of eight visits two lie so far out.
    expect(bumps!.p).toBeCloseTo(2 / 70, 8)
  })

  it('says when there are too few, and when it may be chance', () => {
    const [few] = changeEffects(DEFAULTS, findChanges(DEFAULTS, history([4, 6, 5], [1])), ['bumps'])
    expect(few!.verdict).toBe('too-few')
    expect(few!.words).toContain('2 more after')
    // And where days differ: counts scatter by 1 + μ (e^σ² − 1).
    const bad = COUNT_WORLDS['bad days']!
    const scatter = 1 + bad.mean * Math.expm1(bad.daySpread ** 2)
    const later = visitsToHalving(bad.mean, scatter, 24, 0)!
    const told = changesFound(9, 300, bad, [24, later], 0.5).found
    expect(told).toBeGreaterThan(0.65)
    expect(told).toBeLessThan(0.92)
    expect(visitsToHalving(1.5, 1.06, 12, 0)).toBeUndefined()
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

  it.each(Object.entries(COUNT_WORLDS))(
    'calls no change one in more than 7 of 100, and its range of 95 %% holds: %s',
    (_name, world) => {
      for (const sides of [
        [4, 4],
        [4, 6],
        [12, 12],
      ] as const) {
        const { found, held } = changesFound(3, 500, world, sides)
        expect(found).toBeLessThanOrEqual(0.07)
        expect(held).toBeGreaterThanOrEqual(0.93)
      }
      // Rings about as often as it says where visits are many enough.
      expect(changesFound(3, 500, world, [12, 12]).found).toBeGreaterThanOrEqual(0.02)
    },
  )

  it('says the price: after how many visits a halving would be noticed, and that is so four times in five', () => {
    // By hand: √(1/n₁ + 1/n₂) = ln 2 / 2.8016 over 40 counts before: 0.06121 − 0.025 = 0.0362 leaves 27.6 counts, 11.05 visits of 2.5.
    expect(visitsToHalving(5, 1, 8, 0)).toBe(12)
    expect(visitsToHalving(5, 1, 8, 4)).toBe(8)
    expect(visitsToHalving(5, 1, 3, 0)).toBeUndefined()
    const plain = COUNT_WORLDS['plain chance']!
    const { found } = changesFound(9, 300, plain, [12, visitsToHalving(plain.mean, 1, 12, 0)!], 0.5)
    expect(found).toBeGreaterThan(0.65)
    expect(found).toBeLessThan(0.92)
    const [same] = changeEffects(
      DEFAULTS,
      findChanges(DEFAULTS, history([5, 4, 6, 5], [5, 6, 4])),
      ['bumps'],
    )
    expect(same!.words).toMatch(/would be noticed within about \d+ more|could not be told/)
  })
})

describe('the trend watch', () => {
  const series = (counts: number[]) => counts.map((n, i) => visit(i, n))

  it('is silent at first, holds while nothing changes, and speaks when bumps rise', () => {
    expect(trendWatch(DEFAULTS, series([2, 2, 2, 2, 2, 2]), 'bumps')).toBeUndefined()
    const calm = trendWatch(DEFAULTS, series([2, 1, 3, 2, 2, 2, 3, 1, 2]), 'bumps')!
    expect(calm.points.at(-1)!.out).toBe(false)
    expect(calm.words).toContain('as in the 6 counted visits at the start')
    expect(calm.words).toContain('about 3 clients in 10')
    const risen = trendWatch(DEFAULTS, series([2, 1, 3, 2, 2, 2, 1, 2, 6, 7, 6, 8, 7, 7]), 'bumps')!
    expect(risen.points.at(-1)!.out).toBe(true)
    expect(risen.words).toContain('risen above')
  })

  it('one bump after none at all is no alarm', () => {
    const found = trendWatch(DEFAULTS, series([0, 0, 0, 0, 0, 0, 1]), 'bumps')!
    expect(found.points.at(-1)!.out).toBe(false)
  })

  it.each(Object.entries(COUNT_WORLDS).slice(1, 3))(
    'rings for 3 to 7 of 100 clients of whom nothing changed, over 24 looks: %s',
    (_name, world) => {
      const rang = watchRang(7, 150, world, 24)
      // A hundred and fifty clients leave a standard error of 1.8 %.
      expect(rang).toBeGreaterThanOrEqual(0.01)
      expect(rang).toBeLessThanOrEqual(0.08)
    },
  )

  it('notices a doubling as often as it says', () => {
    const noticed = (world: string) => watchRang(8, 60, COUNT_WORLDS[world]!, 24, 2)
    expect(noticed('plain chance')).toBeGreaterThan(0.45)
    expect(noticed('plain chance')).toBeLessThan(0.75)
    for (const world of ['few bumps', 'bad days']) {
      expect(noticed(world)).toBeGreaterThan(0.15)
      expect(noticed(world)).toBeLessThan(0.5)
    }
  })
})
