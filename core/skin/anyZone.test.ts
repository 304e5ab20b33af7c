/** Odds that any zone reddens, against draws of the model they are worked out from, and against bounds that always hold. */
import { DEFAULTS } from '../house/index.ts'
import { drawGamma, drawNormal, drawPoisson, mulberry32 } from '../stats/index.ts'
import { anyZoneOdds, skinNodes } from './anyZone.ts'
import { believe, skinPooling, zoneSensitivity } from './pool.ts'
import { nothingSeen } from './seen.ts'
import { VISIT_CONSTANTS } from './visitConstants.ts'
import { expectedMean, rednessOdds, SKIN_CONSTANTS } from './sensitivity.ts'

const MEAN = expectedMean(DEFAULTS, 'average')
const POOL = skinPooling(DEFAULTS, MEAN)
const NEW = believe(nothingSeen(DEFAULTS), POOL)
const ZONES = Array.from({ length: 21 }, (_, i) => `z${i}`)
const loads = (load: number) => Object.fromEntries(ZONES.map((z) => [z, load]))

describe('odds that any zone reddens', () => {
  it('agree with 60 000 visits drawn from the model within 0.01, for a new client', () => {
    const random = mulberry32(8)
    const sigma = VISIT_CONSTANTS.visitSpread.byDefault
    const c = SKIN_CONSTANTS.betweenClients.byDefault
    const z = SKIN_CONSTANTS.betweenZones.byDefault
    for (const load of [0.6, 1.3]) {
      let red = 0
      const draws = 60_000
      for (let i = 0; i < draws; i++) {
        const unlike = random() < SKIN_CONSTANTS.unlikeClients.byDefault ? c / 4 : c
        const k = (MEAN * drawGamma(random, unlike)) / unlike
        const u = random()
        const own = z * (u < 0.18 ? 0.15 : u < 0.48 ? 0.5 : u < 0.78 ? 1.5 : 6)
        const v = Math.exp(sigma * drawNormal(random) - (sigma * sigma) / 2)
        let any = false
        for (let n = 0; n < ZONES.length && !any; n++)
          any = drawPoisson(random, ((k * drawGamma(random, own)) / own) * v * load) >= 2
        if (any) red++
      }
      expect(anyZoneOdds(NEW, loads(load))).toBeCloseTo(red / draws, 2)
    }
  }, 60_000)

  it('lie between those of the worst zone and the plain product, which overstates them', () => {
    for (const load of [0.5, 1, 2]) {
      const any = anyZoneOdds(NEW, loads(load))
      const one = rednessOdds(zoneSensitivity(NEW, 'z0'), load)
      expect(any).toBeGreaterThan(one)
      expect(any).toBeLessThan(1 - (1 - one) ** ZONES.length - 0.02)
    }
  })

  it('rise with every zone and every load, and are nothing for nothing', () => {
    expect(anyZoneOdds(NEW, {})).toBeCloseTo(0, 9)
    expect(anyZoneOdds(NEW, { a: 1, b: 1 })).toBeGreaterThan(anyZoneOdds(NEW, { a: 1 }))
    expect(anyZoneOdds(NEW, { a: 1.5 })).toBeGreaterThan(anyZoneOdds(NEW, { a: 1 }))
  })

  it('fall for a client whose visits were calm, and rise for one who reddened', () => {
    const after = (grade: number) =>
      believe(
        {
          ...nothingSeen(DEFAULTS),
          zones: new Map(ZONES.map((zone) => [zone, { count: 6 * grade, exposure: 6 * 1.2 }])),
        },
        POOL,
      )
    const odds = (grade: number) => anyZoneOdds(after(grade), loads(1.2))
    expect(odds(0)).toBeLessThan(anyZoneOdds(NEW, loads(1.2)))
    expect(odds(1)).toBeGreaterThan(anyZoneOdds(NEW, loads(1.2)))
  })

  it('stand on nodes whose weights sum to 1 and whose visits are alike on the mean (Gauss–Hermite)', () => {
    const nodes = skinNodes(NEW)
    expect(nodes.reduce((s, n) => s + n.weight, 0)).toBeCloseTo(1, 9)
    expect(nodes.reduce((s, n) => s + n.weight * n.level, 0)).toBeCloseTo(1, 4)
  })
})
