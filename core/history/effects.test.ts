import { DEFAULTS } from '../house/index.ts'
import { acrossIn, drawChoosers, effectsFound } from '../testing/honest/effects.ts'
import { choiceEffects } from './effects.ts'

describe('choices against outcomes', () => {
  it('finds a doubled rate over six clients though days differ, and holds it in its range (power ≥ 95 %)', () => {
    const { found, held } = effectsFound(5, 100, {
      ...{ clients: 6, visits: 20, times: 2, daySpread: 0.4 },
    })
    expect(found).toBeGreaterThanOrEqual(0.95)
    expect(held).toBeGreaterThanOrEqual(0.9)
    expect(acrossIn(drawChoosers(5, { clients: 20, visits: 20, times: 2 })).words).toContain(
      'Went with more redness',
    )
  })

  it.each([0, 0.4, 0.7, 1])(
    'calls hardly ever what is none an effect, where days differ by %d (at most 7 of 100)',
    (daySpread) => {
      for (const [clients, visits] of [
        [1, 16],
        [4, 12],
      ] as const) {
        const { found, held } = effectsFound(1, 150, { clients, visits, times: 1, daySpread })
        expect(found).toBeLessThanOrEqual(0.07)
        expect(held).toBeGreaterThanOrEqual(0.93)
      }
    },
  )

  it('says of few visits that it cannot be told yet, and how many it takes', () => {
    const found = acrossIn(drawChoosers(3, { clients: 1, visits: 5, times: 1.4 }))
    expect(found.verdict).toBe('open')
    expect(found.words).toMatch(/about \d+ more answered visits/)
    // Drawn toward no effect: the range is no wider than the prior's.
    expect(found.low).toBeGreaterThan(Math.exp(-2 * 0.75))
  })

  it('says nothing of what never varied, and nothing at all without answers', () => {
    const list = drawChoosers(3, { clients: 2, visits: 6, times: 1 })
    const found = choiceEffects(DEFAULTS, list)[0]!
    expect(found.effects.find((e) => e.id === 'guarded')).toMatchObject({ verdict: 'never-varied' })
    expect(choiceEffects(DEFAULTS, list).map((e) => e.outcome)).toEqual(['redness'])
    expect(choiceEffects(DEFAULTS, [])).toEqual([])
  })

  it('bears a history without any redness', () => {
    const calm = drawChoosers(3, { clients: 1, visits: 8, times: 1 }).map((c) => ({
      ...c,
      visits: c.visits.map((v) => ({ ...v, worst: {} })),
    }))
    const found = choiceEffects(DEFAULTS, calm)[0]!
    expect(found.effects.every((e) => Number.isFinite(e.ratio))).toBe(true)
  })
})
