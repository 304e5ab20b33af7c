/** Odds of clear skin: against draws of the model, by hand where there was a look, and in the share that comes (M17). */
import { DEFAULTS } from '../house/index.ts'
import { drawFaded } from '../simulate/index.ts'
import { expectedMean, SKIN_CONSTANTS, VISIT_CONSTANTS } from '../skin/index.ts'
import { drawGamma, drawNormal, drawPoisson, mulberry32 } from '../stats/index.ts'
import { NEW_SKIN } from '../testing/client.ts'
import { openingHeld } from '../testing/honest/nextVisit.ts'
import { SKIN_WORLDS } from '../testing/honest/skin.ts'
import { DAY_MS, HOUR_MS } from '../time/index.ts'
import {
  CLEAR_CONSTANTS,
  clearOddsOf,
  firstMoment,
  lastLook,
  seenClearMs,
  skinReadyMs,
  type SkinAfter,
} from './skinClear.ts'

const ENOUGH = DEFAULTS(CLEAR_CONSTANTS.clearEnough)
const ZONES = ['chin', 'jaw-left', 'jaw-right', 'neck-lower-left'] as const
const after = (over: Partial<SkinAfter> = {}): SkinAfter => ({
  endedAtMs: 0,
  zones: ZONES.map((zoneId) => ({ zoneId, load: 0.8 })),
  answers: [],
  ...over,
})
const odds = (a: SkinAfter) => clearOddsOf(DEFAULTS, a, NEW_SKIN)
const look = (days: number, ...red: [zoneId: (typeof ZONES)[number], redness: number][]) => ({
  atMs: days * DAY_MS,
  zones: red.map(([zoneId, redness]) => ({ zoneId, redness, bumps: 0 })),
})

describe('skin that nobody has looked at since', () => {
  it('is clear as often as in 40 000 draws of what is believed, all zones of it', () => {
    const random = mulberry32(7)
    const mean = expectedMean(DEFAULTS, 'average')
    const c = SKIN_CONSTANTS.betweenClients.byDefault
    const z = SKIN_CONSTANTS.betweenZones.byDefault
    const sigma = VISIT_CONSTANTS.visitSpread.byDefault
    const draws = 40_000
    const clear = { all: 0, chin: 0 }
    for (let i = 0; i < draws; i++) {
      const own = random() < SKIN_CONSTANTS.unlikeClients.byDefault ? c / 4 : c
      const client = (mean * drawGamma(random, own)) / own
      const u = random()
      const shape = z * (u < 0.18 ? 0.15 : u < 0.48 ? 0.5 : u < 0.78 ? 1.5 : 6)
      const day = Math.exp(sigma * drawNormal(random) - (sigma * sigma) / 2)
      const perDay = 0.8 * Math.exp(0.5 * drawNormal(random))
      const red = ZONES.map(() => {
        const rate = (client * drawGamma(random, shape)) / shape
        const grade = Math.min(4, drawPoisson(random, rate * day * 0.8))
        return drawFaded(random, grade, 1, perDay) > 0
      })
      if (!red.some(Boolean)) clear.all++
      if (!red[0]) clear.chin++
    }
    expect(odds(after())(DAY_MS)).toBeCloseTo(clear.all / draws, 1.7)
    expect(odds(after())(DAY_MS, ['chin'])).toBeCloseTo(clear.chin / draws, 1.7)
    // Zones hang together: all are clear more often than if each were for itself.
    expect(odds(after())(DAY_MS)).toBeGreaterThan(odds(after())(DAY_MS, ['chin']) ** 4 + 0.02)
  }, 30_000)

  it('gets clear with the days, and is taken as clear after a month', () => {
    const at = [0, 1, 2, 4, 8, 16].map((d) => odds(after())(d * DAY_MS))
    for (let i = 1; i < at.length; i++) expect(at[i]!).toBeGreaterThan(at[i - 1]!)
    const month = DEFAULTS(CLEAR_CONSTANTS.clearByDays) * DAY_MS
    expect(odds(after())(month - HOUR_MS)).toBeLessThan(1)
    expect(odds(after())(month)).toBe(1)
    // Before the service nothing is told: as at its end.
    expect(odds(after())(-DAY_MS)).toBe(at[0])
  })

  it('was at least as red as was noted at the chair', () => {
    const noted = odds(after({ redAtChair: { chin: 2 } }))
    expect(noted(0, ['chin'])).toBeLessThan(1e-9)
    expect(noted(DAY_MS)).toBeLessThan(odds(after())(DAY_MS) * 0.4)
    // More load, more redness.
    const more = after({ zones: ZONES.map((zoneId) => ({ zoneId, load: 2 })) })
    expect(odds(more)(DAY_MS)).toBeLessThan(odds(after())(DAY_MS) - 0.1)
  })
})

describe('a look', () => {
  it('right after the service says nothing: burn comes late; from six hours on it does', () => {
    const early = after({ answers: [look(5.9 / 24, ['chin', 3])] })
    expect(lastLook(early)).toBeUndefined()
    expect(odds(early)(DAY_MS)).toBe(odds(after())(DAY_MS))
    expect(lastLook(after({ answers: [look(0.25)] }))).toBeDefined()
  })

  it('that saw all clear leaves nothing to forecast; the latest counts, in whatever order they are kept', () => {
    const clear = after({ answers: [look(2), look(1, ['chin', 2])] })
    expect(seenClearMs(clear)).toBe(2 * DAY_MS)
    expect(odds(clear)(2 * DAY_MS)).toBe(1)
    expect(skinReadyMs(DEFAULTS, clear, NEW_SKIN)).toBe(0)
    expect(seenClearMs(after({ answers: [look(1), look(2, ['chin', 1])] }))).toBeUndefined()
    expect(seenClearMs(after())).toBeUndefined()
  })

  it('that saw redness: it fades from there, all zones at the client’s one speed', () => {
    const two = after({ answers: [look(1, ['chin', 1], ['jaw-left', 2])] })
    const skin = {
      ...NEW_SKIN,
      fading: [
        { perDay: 0.5, weight: 0.4 },
        { perDay: 1.5, weight: 0.6 },
      ],
    }
    const at = clearOddsOf(DEFAULTS, two, skin)
    // Grade 1 is gone with 1 − e^−x, grade 2 with 1 − e^−x (1 + x); x = speed · 2 days.
    const one = (x: number) => 1 - Math.exp(-x)
    const both = (x: number) => one(x) * (1 - Math.exp(-x) * (1 + x))
    expect(at(3 * DAY_MS)).toBeCloseTo(0.4 * both(1) + 0.6 * both(3), 12)
    expect(at(3 * DAY_MS, ['chin'])).toBeCloseTo(0.4 * one(1) + 0.6 * one(3), 12)
    expect(at(3 * DAY_MS, ['jaw-right'])).toBeCloseTo(1, 12)
    // Nothing has faded when it was seen; before, nothing is told.
    expect(at(DAY_MS)).toBe(0)
    expect(at(0)).toBe(0)
  })
})

describe('ready', () => {
  it('is the first hour at which all skin is clear with as much as the house asks for, after no look and after a red one', () => {
    for (const a of [after(), after({ answers: [look(1, ['chin', 2])] })]) {
      const ms = skinReadyMs(DEFAULTS, a, NEW_SKIN)
      expect(odds(a)(ms)).toBeGreaterThanOrEqual(ENOUGH)
      expect(odds(a)(ms - HOUR_MS)).toBeLessThan(ENOUGH)
      expect(ms % HOUR_MS).toBe(0)
    }
  })

  it('is found to the hour, or given up at the end of what is looked at', () => {
    for (const hour of [0, 1, 5, 6, 7, 100, 239, 240])
      expect(firstMoment(0, 10, (t) => t >= hour * HOUR_MS)).toBe(hour * HOUR_MS)
    expect(firstMoment(0, 10, () => false)).toBe(240 * HOUR_MS)
  })

  it.each([
    ['as expected', 4, false],
    ['zones unlike', 4, false],
    ['very bad days', 12, false],
    ['zones unlike', 12, true],
  ] as const)(
    'skin is clear then in the share that is told: %s, after %i visits, looked at: %s',
    (world, visits, looked) => {
      const held = openingHeld(3 + visits, 160, visits, SKIN_WORLDS[world]!, looked)
      expect(held.said).toBeGreaterThanOrEqual(ENOUGH)
      // Two standard errors of 160.
      expect(Math.abs(held.came - held.said)).toBeLessThan(0.075)
      expect(Math.abs(held.cameAfterTwo - held.saidAfterTwo)).toBeLessThan(0.075)
    },
  )
})
