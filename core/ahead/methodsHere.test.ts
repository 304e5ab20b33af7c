import { meanLeft, methodOdds, type PastJob } from '../history/index.ts'
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

describe('hair as it is supposed to be', () => {
  it('hormones bring coarse hair to the fuzz of a face: felt sooner, and wax becomes possible', () => {
    const [now, then] = (['as-is', 'hormonal'] as const).map((supposed) =>
      here('chin', { supposed }, 'vellus'),
    )
    expect([now!.supposed, then!.supposed]).toEqual(['as-is', 'hormonal'])
    expect(of(then!, 'blade').felt.even).toBeLessThan(of(now!, 'blade').felt.even / 2)
    expect(of(then!, 'tweezers').year!.visits).toBeGreaterThan(of(now!, 'tweezers').year!.visits)
    expect(of(now!, 'wax').year).toBeUndefined()
    expect(of(then!, 'wax').year).toBeDefined()
    // A leg is coarse already.
    expect(here('shin-left', { supposed: 'hormonal' }).supposed).toBe('as-is')
  })

  it('what laser leaves grows slower and gives fewer bumps; of fuzz it takes nothing', () => {
    const [now, then] = (['as-is', 'laser'] as const).map((supposed) =>
      here('shin-left', { supposed }),
    )
    const [a, b] = [of(now!, 'blade'), of(then!, 'blade')]
    expect(b.year!.visits).toBeLessThan(a.year!.visits)
    expect(b.bumps.odds).toBeLessThan(a.bumps.odds)
    // As many hairs fewer, as many bumps: the odds of none are those of none before, to the share left.
    expect(Math.log(1 - b.bumps.odds) / Math.log(1 - a.bumps.odds)).toBeCloseTo(0.35, 9)
    expect(b.redness).toEqual(a.redness)
    expect(of(then!, 'tweezers').year!.minutes).toBeLessThan(of(now!, 'tweezers').year!.minutes)
    expect(here('chin', { supposed: 'laser' }, 'vellus').supposed).toBe('as-is')
  })
})

describe('two ways together', () => {
  const chin = here('chin', {}, 'vellus')
  const [tweezed, lasered] = chin.together

  it('come for the fuzz of a face alone: tweezers, or laser, with a guarded blade', () => {
    expect(chin.together.map((t) => t.coarse)).toEqual(['tweezers', 'laser'])
    expect(here('shin-left').together).toEqual([])
  })

  it('redden at least as often as either, at most as both added', () => {
    const coarse = of(here('chin', { supposed: 'hormonal' }, 'vellus'), 'tweezers')
    const rest = of(chin, 'guarded')
    for (const kind of ['redness', 'bumps'] as const) {
      const both = tweezed![kind]
      expect(both.odds).toBeGreaterThanOrEqual(Math.max(coarse[kind].odds, rest[kind].odds))
      expect(both.odds).toBeLessThanOrEqual(coarse[kind].odds + rest[kind].odds)
      expect(both.low).toBeLessThanOrEqual(both.odds)
      expect(both.high).toBeGreaterThanOrEqual(both.odds)
    }
  })

  it('are smooth on no more days than either alone, which counting day by day confirms', () => {
    const coarse = of(here('chin', { supposed: 'hormonal' }, 'vellus'), 'tweezers').year!
    const rest = of(chin, 'guarded').year!
    expect(tweezed!.smooth.mean).toBeLessThanOrEqual(
      Math.min(coarse.smooth.mean, rest.smooth.mean) + 2,
    )
    expect(tweezed!.visits).toBeCloseTo(Math.max(coarse.visits, rest.visits), 6)
    expect(tweezed!.minutes).toBeCloseTo(coarse.minutes + rest.minutes, 6)
    // Drawn: hair of each sort comes by its own odds after each time, for forty years.
    const random = mulberry32(3)
    const grown = growthAfter(DEFAULTS, { curve: 'terminal', mean: 0.27, sd: 0.09 }, 'tweezers')
    const fuzz = priorGrowth(DEFAULTS, 'chin', 'vellus')
    const comes = (every: number, growth: typeof fuzz, left: number) => {
      let [at, odds] = [-1, 0]
      return (day: number) => {
        const nth = Math.floor(day / every)
        if (nth !== at) [at, odds] = [nth, random()]
        return shownOdds(DEFAULTS, growth, 'felt', left, day - nth * every) >= odds
      }
    }
    const left = meanLeft(null)
    const [a, b] = [comes(coarse.every.even, grown, 0), comes(rest.every.even, fuzz, left)]
    let smooth = 0
    for (let day = 0.5; day < 40 * 365; day++) if (!a(day) && !b(day)) smooth++
    expect(Math.abs(smooth / 40 - tweezed!.smooth.mean)).toBeLessThan(25)
  })

  it('with laser the blade goes on as the hair that is left asks, with fewer bumps than tweezers', () => {
    expect(lasered!.visits).toBeGreaterThan(tweezed!.visits)
    expect(lasered!.smooth.mean).toBeLessThan(tweezed!.smooth.mean)
  })
})
