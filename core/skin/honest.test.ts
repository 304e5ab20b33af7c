/** What is told of a skin holds in the share it claims (M17), by simulation with fixed seeds. */
import { DEFAULTS } from '../house/index.ts'
import { drawPoisson, mulberry32 } from '../stats/index.ts'
import { SKIN_WORLDS, skinHeld, type SkinWorld } from '../testing/honest/skin.ts'
import { nothingSeen, SkinHistory, sumVisits } from './seen.ts'

const { 'skin that changes': changing, ...steady } = SKIN_WORLDS

describe('ranges of 80 %', () => {
  it.each(Object.entries(steady))('hold after 4, 12 and 24 visits: %s', (_name, world) => {
    const held = [4, 12, 24].map((visits) => skinHeld(9 + visits, 150, visits, world).rate)
    for (const rate of held) {
      // Told before anybody could know how unlike this client's zones are, it is a little off either way.
      expect(rate).toBeGreaterThan(0.68)
      expect(rate).toBeLessThan(0.92)
    }
    const mean = held.reduce((s, v) => s + v, 0) / held.length
    expect(mean).toBeGreaterThan(0.72)
    expect(mean).toBeLessThan(0.9)
  })

  it('over all of these lie where they say', () => {
    for (const visits of [1, 4, 12, 24]) {
      const all = Object.values(steady).map((w) => skinHeld(40 + visits, 100, visits, w).rate)
      const mean = all.reduce((s, v) => s + v, 0) / all.length
      expect(mean).toBeGreaterThan(0.74)
      expect(mean).toBeLessThan(0.86)
    }
  })

  it('come back to skin that changed: most of the way within a dozen visits', () => {
    const at = (visits: number) => skinHeld(9 + visits, 200, visits, changing!)
    expect(at(24).rate).toBeGreaterThan(0.55)
    expect(at(40).rate).toBeGreaterThan(0.68)
    // 5 of 100 reddened before, 22 do now.
    expect(at(24).said).toBeGreaterThan(0.13)
  })
})

it('odds of redness come as often as they say, over days of any kind', () => {
  for (const world of Object.values<SkinWorld>(steady)) {
    let [said, came, anySaid, anyCame] = [0, 0, 0, 0]
    // From before the first visit on.
    for (const visits of [0, 2, 8, 20]) {
      const h = skinHeld(70 + visits, 200, visits, world)
      said += h.said
      came += h.came
      anySaid += h.anySaid
      anyCame += h.anyCame
    }
    expect(Math.abs(said - came) / came).toBeLessThan(0.2)
    expect(Math.abs(anySaid - anyCame) / anyCame).toBeLessThan(0.15)
  }
})

describe('what a client’s visits come to', () => {
  const visit = (grade: number, load = 1) => [
    { zoneId: 'chin', load, grade },
    { zoneId: 'jaw-left', load, grade },
  ]

  it('counts the newest visit whole, and half after as many as the house says', () => {
    const history = new SkinHistory(DEFAULTS, 0.3)
    for (let i = 0; i < 16; i++) history.add(visit(i % 3 === 0 ? 1 : 0))
    const w = history.weights()
    expect(w.at(-1)).toBeCloseTo(1, 9)
    // Fifteen visits ago: a half, and a little less as something may have changed since.
    expect(w[0]).toBeLessThan(0.5)
    expect(w[0]).toBeGreaterThan(0.3)
    for (let i = 1; i < w.length; i++) expect(w[i]!).toBeGreaterThan(w[i - 1]!)
  })

  it('forgets what was before a change all at once', () => {
    const history = new SkinHistory(DEFAULTS, 0.3)
    for (let i = 0; i < 12; i++) history.add(visit(0))
    for (let i = 0; i < 5; i++) history.add(visit(3))
    const w = history.weights()
    expect(w[11]! / w[12]!).toBeLessThan(0.2)
  })

  it('learns how much days differ, and what a visit is worth for it', () => {
    const random = mulberry32(5)
    const spreadOf = (levels: readonly number[]) => {
      const history = new SkinHistory(DEFAULTS, 0.3)
      for (let i = 0; i < 40; i++) {
        const level = levels[i % levels.length]!
        history.add(
          Array.from({ length: 12 }, (_, z) => ({
            zoneId: `z${z}`,
            load: 1,
            grade: drawPoisson(random, 0.3 * level),
          })),
        )
      }
      return history
    }
    const alike = spreadOf([1])
    const unlike = spreadOf([0.2, 2.5, 0.4, 1.6])
    expect(alike.visitSpread).toBeLessThan(0.3)
    expect(unlike.visitSpread).toBeGreaterThan(0.6)
    expect(unlike.sums().share).toBeLessThan(alike.sums().share)
    expect(nothingSeen(DEFAULTS)).toEqual(sumVisits(DEFAULTS, [], 0.3))
  })

  it('takes a visit on which nothing was worked for none', () => {
    expect(sumVisits(DEFAULTS, [[]], 0.3).zones.size).toBe(0)
  })
})
