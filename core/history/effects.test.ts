import { DEFAULTS } from '../house/index.ts'
import { drawGamma, drawPoisson, mulberry32 } from '../stats/index.ts'
import { DAY_MS } from '../time/index.ts'
import { choiceEffects, type ClientVisits } from './effects.ts'
import type { VisitFacts } from './facts.ts'

const ZONES = ['chin', 'jaw-left', 'jaw-right', 'neck-lower-left']

/** Clients whose zones redden by chance, `times` as much where the stroke went across. */
function clients(seed: number, n: number, visits: number, times: number): ClientVisits[] {
  const random = mulberry32(seed)
  return Array.from({ length: n }, (_, c) => {
    const level = (0.35 * drawGamma(random, 3)) / 3
    return {
      clientId: `c${c}`,
      visits: Array.from({ length: visits }, (_x, i): VisitFacts => {
        const across = random() < 0.5
        return {
          visitId: `${c}-${i}`,
          service: 'face-shave',
          workerId: 'w',
          endedAtMs: i * 7 * DAY_MS,
          loads: Object.fromEntries(ZONES.map((z) => [z, 1])),
          worst: Object.fromEntries(
            ZONES.map((z) => [z, drawPoisson(random, level * (across ? times : 1))]),
          ),
          bumps: null,
          choices: {
            zones: Object.fromEntries(
              ZONES.map((z) => [
                z,
                {
                  relation: across ? 'across' : 'with',
                  passes: 1,
                  tool: 'single-edge',
                  wear: 0.25,
                  lanes: 3,
                  nicks: 0,
                },
              ]),
            ),
            slip: 'full',
            blade: 'shavette',
            exfoliate: 'acid',
          },
          products: [],
          routine: '',
          answered: [],
          due: null,
        }
      }),
    }
  })
}

const across = (list: ClientVisits[]) =>
  choiceEffects(DEFAULTS, list)[0]!.effects.find((e) => e.id === 'across')!

describe('choices against outcomes', () => {
  it('finds a doubled rate in the studio, and holds it in its range about 95 times of 100', () => {
    let held = 0
    for (let seed = 1; seed <= 40; seed++) {
      const found = across(clients(seed, 20, 20, 2))
      expect(found.verdict).toBe('more')
      expect(found.words).toContain('Went with more redness')
      if (found.low < 2 && found.high > 2) held++
    }
    expect(held).toBeGreaterThanOrEqual(34)
  })

  it('says of few visits that it cannot be told yet, and how many it takes', () => {
    const found = across(clients(3, 1, 5, 1.4))
    expect(found.verdict).toBe('open')
    expect(found.words).toMatch(/about \d+ more answered visits/)
    // Drawn toward no effect: the range is no wider than the prior's.
    expect(found.low).toBeGreaterThan(Math.exp(-2 * 0.75))
  })

  it('covers the truth about 95 times of 100, and no effect is seldom called one', () => {
    let [held, called] = [0, 0]
    for (let seed = 1; seed <= 100; seed++) {
      const found = across(clients(seed, 4, 12, 1))
      if (found.low <= 1 && found.high >= 1) held++
      else called++
    }
    expect(held).toBeGreaterThanOrEqual(89)
    expect(called).toBeLessThanOrEqual(11)
  })

  it('says nothing of what never varied, and nothing at all without answers', () => {
    const found = choiceEffects(DEFAULTS, clients(3, 2, 6, 1))[0]!
    expect(found.effects.find((e) => e.id === 'guarded')).toMatchObject({ verdict: 'never-varied' })
    expect(choiceEffects(DEFAULTS, clients(3, 2, 6, 1)).map((e) => e.outcome)).toEqual(['redness'])
    expect(choiceEffects(DEFAULTS, [])).toEqual([])
  })

  it('bears a history without any redness', () => {
    const calm = clients(3, 1, 8, 1).map((c) => ({
      ...c,
      visits: c.visits.map((v) => ({ ...v, worst: {} })),
    }))
    const found = choiceEffects(DEFAULTS, calm)[0]!
    expect(found.effects.every((e) => Number.isFinite(e.ratio))).toBe(true)
  })
})
