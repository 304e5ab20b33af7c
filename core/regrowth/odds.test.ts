import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { eventQuestion } from '../ahead/index.ts'
import { learnClient } from '../history/index.ts'
import { drawGrowth } from '../simulate/index.ts'
import { mulberry32, drawNormal } from '../stats/index.ts'
import { DAY_MS, HOUR_MS } from '../time/index.ts'
import { hairLengthMm, priorGrowth, updateGrowth, type GrowthReading } from './growth.ts'
import { clearOdds, seenOdds, zoneWindows, type OddsInput } from './odds.ts'
import { compareSides, shownOdds, slowZones, zoneOutlook } from './outlook.ts'
import { aloneBetween, visitSeries, type SeriesInput } from '../ahead/series.ts'
import jstat from 'jstat'
import { SKIN } from '../testing/client.ts'

const beard = { curve: 'terminal', mean: 0.38, sd: 0.08 } as const

describe('regrowth of a zone (M10)', () => {
  it('gives days by hand: 0.2 mm left at 0.4 mm a day', () => {
    const found = zoneOutlook(DEFAULTS, 'chin', { curve: 'terminal', mean: 0.4, sd: 0.05 }, 0.2)
    expect(found.felt.even).toBeCloseTo(0.3 / 0.4, 9)
    expect(found.seen.even).toBeCloseTo(0.8 / 0.4, 9)
    expect(found.read!.even).toBeCloseTo(1.8 / 0.4, 9)
    // A quarter inch, common practice.
    expect(found.wax!.even).toBeCloseTo((6.35 - 0.2) / 0.4, 9)
    expect(found.wax!.early).toBeLessThan(found.wax!.even)
    expect(
      zoneOutlook(DEFAULTS, 'forehead-left', { curve: 'fuzz', mean: 0.03, sd: 0.01 }, 0.1).wax,
    ).toBeUndefined()
  })

  it('has odds that are the normal’s (jstat), and meet the dates', () => {
    const days = 2
    const rate = (1 - 0.2) / days
    expect(shownOdds(DEFAULTS, beard, 'seen', 0.2, days)).toBeCloseTo(
      1 - jstat.normal.cdf(rate, 0.38, 0.08),
      6,
    )
    const { seen } = zoneOutlook(DEFAULTS, 'chin', beard, 0.2)
    expect(shownOdds(DEFAULTS, beard, 'seen', 0.2, seen.even)).toBeCloseTo(0.5, 6)
    expect(shownOdds(DEFAULTS, beard, 'seen', 0.2, seen.early)).toBeCloseTo(0.1, 6)
    expect(shownOdds(DEFAULTS, beard, 'seen', 1.2, 0)).toBe(1)
    expect(shownOdds(DEFAULTS, beard, 'seen', 0.2, 0)).toBe(0)
  })

  it('learns less from a guess by eye than from a photograph with a scale', () => {
    const read = (method: 'photo' | 'ruler' | 'eye'): GrowthReading[] => [
      { kind: 'measured', days: 4, lengthMm: 2.2, leftMm: 0.2, method },
    ]
    const sd = (m: 'photo' | 'ruler' | 'eye') => updateGrowth(DEFAULTS, beard, read(m)).sd
    expect(sd('photo')).toBeLessThan(sd('ruler'))
    expect(sd('ruler')).toBeLessThan(sd('eye'))
    // By hand: 1/sd² = 1/0.08² + (4/0.3)².
    expect(sd('ruler')).toBeCloseTo(1 / Math.sqrt(1 / 0.0064 + (4 / 0.3) ** 2), 9)
  })

  it('holds the hidden truth in its 80 % range 72 to 88 % of the time: 500 clients, beard and fuzz', () => {
    const random = mulberry32(12)
    let [held, all] = [0, 0]
    for (let i = 0; i < 500; i++) {
      for (const [zone, hair] of [
        ['chin', 'beard'],
        ['cheek-lower-left', 'beard'],
        ['forehead-left', 'vellus'],
      ] as const) {
        const prior = priorGrowth(DEFAULTS, zone, hair)
        const truth = drawGrowth(random, prior)
        const readings = Array.from({ length: Math.floor(4 * random()) }, (): GrowthReading => {
          const days = prior.curve === 'terminal' ? 1 + 3 * random() : 8 + 20 * random()
          const lengthMm =
            hairLengthMm(DEFAULTS, prior.curve, 0.15, truth, days) + 0.15 * drawNormal(random)
          return { kind: 'measured', days, leftMm: 0.15, lengthMm: Math.max(0.01, lengthMm) }
        })
        const found = updateGrowth(DEFAULTS, prior, readings)
        all++
        if (Math.abs(truth - found.mean) <= 1.2816 * found.sd) held++
      }
    }
    expect(held / all).toBeGreaterThan(0.72)
    expect(held / all).toBeLessThan(0.88)
  })

  it('compares the sides and names slow zones only when it is likely enough', () => {
    const zones = {
      'cheek-lower-left': { ...beard, mean: 0.42, sd: 0.02 },
      'cheek-lower-right': { ...beard, mean: 0.32, sd: 0.02 },
      'jaw-left': beard,
      'jaw-right': beard,
      chin: { ...beard, mean: 0.2, sd: 0.02 },
    }
    const [first, second] = compareSides(DEFAULTS, zones, () => true)
    expect(first!.words).toBe('Lower cheek: the client’s left grows about 31 % faster.')
    expect(second!.words).toContain('no difference')
    expect(compareSides(DEFAULTS, zones, () => false)).toEqual([])
    expect(slowZones(DEFAULTS, zones).map((z) => z.zoneId)).toEqual(['chin'])
    expect(slowZones(DEFAULTS, { ...zones, chin: { ...beard, mean: 0.2, sd: 0.1 } })).toEqual([])
  })
})

describe('the odds of the next visit', () => {
  const model = learnClient(DEFAULTS, SKIN, 'face-shave', [], [])
  const input = (over: Partial<OddsInput> = {}): OddsInput => ({
    endedAtMs: 0,
    zones: (['chin', 'jaw-left', 'neck-lower-left'] as const).map((zoneId) => ({
      zoneId,
      load: 2,
      leftMm: 0.2,
    })),
    sensitivity: model.sensitivity,
    growth: model.growth,
    fading: model.fading,
    answers: [],
    ...over,
  })

  it('rise with time, and start from what the skin is known to do', () => {
    const days = [0, 1, 2, 4, 8].map((d) => [
      clearOdds(input(), d * DAY_MS),
      seenOdds(DEFAULTS, input(), d * DAY_MS),
    ])
    for (let i = 1; i < days.length; i++) {
      expect(days[i]![0]).toBeGreaterThan(days[i - 1]![0]!)
      expect(days[i]![1]).toBeGreaterThanOrEqual(days[i - 1]![1]!)
    }
    expect(days.at(-1)![0]).toBeGreaterThan(0.95)
  })

  it('follow the last look: a zone seen clear is clear, a red one fades from there', () => {
    const look = (redness: number) =>
      input({ answers: [{ atMs: DAY_MS, zones: [{ zoneId: 'chin', redness, bumps: 0 }] }] })
    expect(clearOdds(look(0), 1.1 * DAY_MS)).toBe(1)
    expect(clearOdds(look(3), 1.1 * DAY_MS)).toBeLessThan(0.02)
    // A look at once says nothing of the days after.
    const atOnce = input({ answers: [{ atMs: HOUR_MS, zones: [] }] })
    expect(clearOdds(atOnce, DAY_MS)).toBe(clearOdds(input(), DAY_MS))
  })

  it('give each zone a window, the soonest first', () => {
    const windows = zoneWindows(DEFAULTS, input())
    expect(windows[0]!.zoneId).toBe('chin')
    for (const w of windows) expect(w.toMs!).toBeGreaterThan(0)
    const red = zoneWindows(
      DEFAULTS,
      input({ answers: [{ atMs: DAY_MS, zones: [{ zoneId: 'jaw-left', redness: 3, bumps: 0 }] }] }),
    )
    const of = (list: typeof red, z: string) => list.find((w) => w.zoneId === z)!.fromMs
    expect(of(red, 'jaw-left')).toBeGreaterThan(of(red, 'chin') + DAY_MS)
  })
})

describe('a series of visits', () => {
  const model = learnClient(DEFAULTS, SKIN, 'face-shave', [], [])
  const series = (over: Partial<SeriesInput> = {}) =>
    visitSeries(DEFAULTS, {
      service: 'face-shave',
      lastAtMs: 0,
      window: { fromMs: 3 * DAY_MS, toMs: 5 * DAY_MS },
      nowMs: DAY_MS,
      throughMs: 30 * DAY_MS,
      growth: model.growth,
      leftMm: {},
      events: [],
      question: (event, notBeforeMs) => ({
        ...eventQuestion(
          DEFAULTS,
          {
            service: 'face-shave',
            skin: SKIN,
            model,
            schools: DEFAULT_SCHOOLS,
            noFragrance: false,
            products: [],
            nowMs: DAY_MS,
            offset: () => 0,
          },
          event.kind,
          event.atMs,
        ),
        notBeforeMs,
        notBeforeWhy: 'The skin is not ready before.',
      }),
      ...over,
    })

  it('puts each service into its window, one after the other', () => {
    const found = series()
    expect(found.map((v) => Math.round(v.atMs / DAY_MS))).toEqual([4, 8, 12, 16, 20, 24, 28])
    for (const v of found) {
      expect(v.atMs).toBeGreaterThanOrEqual(v.fromMs)
      expect(v.atMs).toBeLessThanOrEqual(v.toMs)
    }
    expect(series({ throughMs: 2 * DAY_MS })).toEqual([])
  })

  it('lets an event set its service, spaces those before it, and never comes before the skin is ready', () => {
    const event = {
      id: 'e',
      kind: 'photo' as const,
      title: 'the portrait',
      atMs: 22 * DAY_MS + 12 * HOUR_MS,
    }
    const found = series({ events: [event] })
    const forIt = found.find((v) => v.event)!
    expect(forIt.atMs).toBeLessThan(event.atMs)
    expect(event.atMs - forIt.atMs).toBeLessThan(3 * DAY_MS)
    let last = 0
    for (const v of found) {
      expect(v.atMs - last).toBeGreaterThan(2.4 * DAY_MS)
      last = v.atMs
    }
    expect(found.filter((v) => v.event)).toHaveLength(1)
  })

  it('does the lip alone between whole services of fuzz, and the line alone between line-ups', () => {
    const fuzz = learnClient(DEFAULTS, { ...SKIN, faceHair: 'fuzz' }, 'dermaplane', [], [])
    const found = series({
      service: 'dermaplane',
      growth: fuzz.growth,
      window: { fromMs: 28 * DAY_MS, toMs: 35 * DAY_MS },
      throughMs: 70 * DAY_MS,
    })
    expect(found.some((v) => v.kind === 'lip')).toBe(true)
    expect(found.filter((v) => v.kind === 'whole').length).toBeGreaterThanOrEqual(2)
    for (let i = 1; i < found.length; i++)
      expect(found[i]!.atMs).toBeGreaterThan(found[i - 1]!.atMs)
    expect(aloneBetween(DEFAULTS, 'beard-line', model.growth, {})!.kind).toBe('line')
    expect(aloneBetween(DEFAULTS, 'head-shave', model.growth, {})).toBeUndefined()
  })
})
