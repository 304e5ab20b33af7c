import { methodOdds, type PastJob } from '../history/index.ts'
import { DEFAULTS } from '../house/index.ts'
import { growthAfter, hairLengthMm, priorGrowth, shownOdds } from '../regrowth/index.ts'
import { mulberry32 } from '../stats/index.ts'
import { SKIN } from '../testing/client.ts'
import { DAY_MS } from '../time/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { type HereInput, zoneHere } from './methodsHere.ts'

const NOW = 400 * DAY_MS
const done = (method: PastJob['method'], daysAgo: number, zone: ZoneId, left: number): PastJob => ({
  ...{ id: `${daysAgo}`, visitId: `${daysAgo}`, service: 'body-shave', method, zones: [zone] },
  ...{ loads: { [zone]: 1 }, leftMm: { [zone]: left } },
  ...{ endedAtMs: NOW - daysAgo * DAY_MS, redAtChair: {}, answers: [] },
})
const here = (zoneId: ZoneId, over: Partial<HereInput> = {}, kind: 'limb' | 'vellus' = 'limb') => {
  const past = over.past ?? []
  return zoneHere(DEFAULTS, {
    ...{ zoneId, past, home: [], nowMs: NOW },
    growth: priorGrowth(DEFAULTS, zoneId, kind),
    ask: methodOdds(DEFAULTS, SKIN, past),
    ...over,
  })
}
const of = (z: ReturnType<typeof here>, method: string) =>
  z.methods.find((m) => m.method === method)!

describe('a year of each method in a place', () => {
  it('waits with wax for a quarter inch after hair is felt again (common practice: it lasts four to six weeks)', () => {
    const { felt, year } = of(here('shin-left'), 'wax')
    expect(felt.even).toBeGreaterThan(32)
    expect(felt.even).toBeLessThan(38)
    expect(year!.every.even).toBeGreaterThan(felt.even)
  })

  it('is smooth for as many days as hair that is drawn from the same odds (by simulation)', () => {
    const { year } = of(here('shin-left'), 'thread')
    const grown = growthAfter(DEFAULTS, priorGrowth(DEFAULTS, 'shin-left', 'limb'), 'thread')
    const random = mulberry32(11)
    const every = year!.every.even
    let days = 0
    for (let i = 0; i < 4000; i++) {
      const odds = random()
      let day = 0
      while (day < every && shownOdds(DEFAULTS, grown, 'felt', 0, day) < odds) day += 0.25
      days += Math.min(day, every)
    }
    expect(year!.smooth.mean).toBeCloseTo((365.25 / every) * (days / 4000), -1)
    // Hair that comes early at times is felt before the day.
    expect(year!.smooth.mean).toBeLessThan(355)
  })

  it('asks for more visits with a blade than with what comes out by the root, and never more days than a year has', () => {
    const z = here('shin-left')
    expect(of(z, 'blade').year!.visits).toBeGreaterThan(of(z, 'thread').year!.visits)
    for (const { year } of z.methods) {
      if (!year) continue
      expect(year.smooth.early).toBeLessThanOrEqual(year.smooth.mean)
      expect(year.smooth.mean).toBeLessThanOrEqual(year.smooth.late)
      expect(year.smooth.late).toBeLessThanOrEqual(365.26)
      expect(year.minutes).toBeGreaterThan(0)
    }
  })

  it('tells none of a trimmer, which leaves what is felt, nor of wax on fuzz, which never grows so long', () => {
    expect(of(here('shin-left'), 'trimmer').year).toBeUndefined()
    expect(of(here('chin', {}, 'vellus'), 'wax').year).toBeUndefined()
    expect(of(here('chin', {}, 'vellus'), 'blade').year).toBeDefined()
  })
})

describe('what was last done to a place', () => {
  it('is that of the place itself, not of the last visit, with the hair that it left', () => {
    const past = [done('blade', 2, 'thigh-front-left', 0.1), done('blade', 20, 'shin-left', 0.4)]
    const z = here('shin-left', { past })
    const growth = priorGrowth(DEFAULTS, 'shin-left', 'limb')
    expect(z.last).toMatchObject({ atMs: NOW - 20 * DAY_MS, home: false })
    expect(z.lengthMm).toBeCloseTo(hairLengthMm(DEFAULTS, growth.curve, 0.4, growth.mean, 20), 9)
  })

  it('rests after wax', () => {
    expect(here('shin-left', { past: [done('wax', 10, 'shin-left', 0)] }).lengthMm).toBe(0)
    expect(here('shin-left', { past: [done('wax', 60, 'shin-left', 0)] }).lengthMm).toBeGreaterThan(
      2,
    )
  })

  it('counts a razor at home; and guesses where nothing was ever done', () => {
    const home = [
      {
        ...{ id: 'h', atMs: NOW - 3 * DAY_MS, zones: ['shin-left' as const] },
        ...{
          tool: 'cartridge' as const,
          fresh: false,
          dull: false,
          source: 'client' as const,
          toldAtMs: 0,
        },
      },
    ]
    const shaved = here('shin-left', { home, past: [done('blade', 40, 'shin-left', 0.2)] })
    expect(shaved.last).toMatchObject({ name: 'cartridge razor', home: true })
    expect(shaved.lengthMm).toBeLessThan(1)
    expect(here('shin-left', { home }).lengthMm).toBeLessThan(1)
    expect(here('shin-left').lengthMm).toBe(2)
    expect(here('chin', {}, 'vellus').lengthMm).toBe(1.5)
  })
})
