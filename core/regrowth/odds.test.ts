/** The window's sentence, its odds and its zones agree: whatever is known of a client, they come of one belief. */
import { serviceZones } from '../services/index.ts'
import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import {
  afterHome,
  type HomeWork,
  learnClient,
  readyAfter,
  skinAfter,
  skinSince,
  windowAfter,
} from '../history/index.ts'
import { REACTIVITIES } from '../skin/index.ts'
import { SKIN } from '../testing/client.ts'
import { ALWAYS_OPEN, DAY_MS, isClosed } from '../time/index.ts'
import type { ZoneId } from '../zones/index.ts'
import fc from 'fast-check'
import { priorGrowth } from './growth.ts'
import { seenOdds, visitOdds, workedZones } from './odds.ts'
import { CLEAR_CONSTANTS } from './skinClear.ts'

const ZONES: readonly ZoneId[] = ['chin', 'jaw-left', 'neck-lower-left', 'upper-lip-left']
const ENOUGH = DEFAULTS(CLEAR_CONSTANTS.clearEnough)

const grades = fc.array(fc.integer({ min: 0, max: 4 }), { minLength: 4, maxLength: 4 })
const some = fc.record({
  reactivity: fc.constantFrom(...REACTIVITIES),
  bumpProne: fc.boolean(),
  loads: fc.array(fc.double({ min: 0.2, max: 3, noNaN: true }), { minLength: 4, maxLength: 4 }),
  left: fc.array(fc.double({ min: 0.05, max: 0.3, noNaN: true }), { minLength: 4, maxLength: 4 }),
  looks: fc.array(fc.record({ days: fc.double({ min: 0, max: 6, noNaN: true }), grades }), {
    maxLength: 3,
  }),
  home: fc.array(
    fc.record({
      days: fc.double({ min: 0.5, max: 8, noNaN: true }),
      zone: fc.integer({ min: 0, max: 3 }),
    }),
    { maxLength: 3 },
  ),
  weekdays: fc.uniqueArray(fc.integer({ min: 0, max: 6 }), { maxLength: 5 }),
})

const byZone = (values: readonly number[]) =>
  Object.fromEntries(ZONES.map((z, i) => [z, values[i]!]))

function next(c: typeof some extends fc.Arbitrary<infer T> ? T : never) {
  const skin = { ...SKIN, reactivity: c.reactivity, bumpProne: c.bumpProne }
  const model = learnClient(DEFAULTS, skin, serviceZones('face-shave'), [], [])
  const last = {
    ...{ service: 'face-shave' as const, method: 'blade' as const },
    ...{ endedAtMs: 0, loads: byZone(c.loads) },
    leftMm: byZone(c.left),
    answers: c.looks.map((l) => ({
      ...{ moment: '24h' as const, atMs: l.days * DAY_MS },
      zones: ZONES.map((zoneId, i) => ({ zoneId, redness: l.grades[i]!, bumps: 0 })),
    })),
  }
  const closed = { weekdays: c.weekdays, dates: ['01-06'] }
  const home = c.home.map((h, i): HomeWork => ({
    ...{ id: `${i}`, atMs: h.days * DAY_MS, zones: [ZONES[h.zone]!], tool: 'cartridge' },
    ...{ fresh: false, dull: false, source: 'client', toldAtMs: h.days * DAY_MS },
  }))
  const now = afterHome(DEFAULTS, last, model.growth, home)
  const since = skinSince(DEFAULTS, last, home)
  const window = windowAfter(
    DEFAULTS,
    last,
    { skin, schools: DEFAULT_SCHOOLS, closed, offset: 0 },
    model.growth,
    readyAfter(DEFAULTS, last, model, home),
    home,
  )!
  const input = {
    ...skinAfter(last),
    zones: workedZones(now.leftMm!, last.loads),
    ...{ skin: model, growth: now.growth, since },
  }
  return { window, closed, input, odds: visitOdds(DEFAULTS, input, window) }
}

it('the window opens when all skin is clear enough, every zone of it, and on an open day', () => {
  fc.assert(
    fc.property(some, (c) => {
      const { window, odds, closed } = next(c)
      expect(odds.clearAtOpening).toBeGreaterThanOrEqual(ENOUGH)
      for (const z of odds.zones) expect(z.clearMs).toBeLessThanOrEqual(window.fromMs)
      // What was seen clear is told as seen, and as clear.
      if (odds.seenClearMs !== undefined) expect(odds.clearAtOpening).toBe(1)
      expect(window.toMs).toBeGreaterThanOrEqual(window.fromMs)
      for (const ms of [window.fromMs, window.toMs])
        expect(isClosed(closed, new Date(ms).toISOString().slice(0, 10))).toBe(false)
    }),
    { numRuns: 60 },
  )
})

it('hair is told the same by the sentence, the window and the first zone of the table', () => {
  fc.assert(
    fc.property(some, (c) => {
      const { window, odds, input } = next({ ...c, weekdays: [] })
      const [first] = odds.zones
      expect(first!.name).toBe(window.firstZone)
      expect(first!.seenMs).toBeCloseTo(window.seen.even * DAY_MS, 3)
      for (const z of odds.zones) {
        expect(z.seenMs).toBeGreaterThanOrEqual(first!.seenMs)
        expect(z.seenEarlyMs).toBeLessThanOrEqual(z.seenMs)
        expect(z.seenLateMs).toBeGreaterThanOrEqual(z.seenMs)
        expect(z.seenAtOpening).toBeLessThanOrEqual(odds.seenAtOpening)
      }
      // Even odds at the day that is told; at the closing at least that, unless the day is closed.
      expect(seenOdds(DEFAULTS, input, first!.seenMs)).toBeCloseTo(0.5, 6)
      expect(odds.seenAtClosing).toBeGreaterThanOrEqual(odds.seenAtOpening)
      if (new Date(window.toMs).toISOString().slice(5, 10) !== '01-05')
        expect(odds.seenAtClosing).toBeGreaterThan(0.49)
    }),
    { numRuns: 60 },
  )
})

it('zones whose growth is not known are left out, and the rest is told', () => {
  const growth = { chin: priorGrowth(DEFAULTS, 'chin', 'beard') }
  const { input, window } = next({
    ...{ reactivity: 'average', bumpProne: false, looks: [], home: [], weekdays: [] },
    ...{ loads: [1, 1, 1, 1], left: [0.1, 0.1, 0.1, 0.1] },
  })
  const odds = visitOdds(DEFAULTS, { ...input, growth }, window)
  expect(odds.zones.map((z) => z.zoneId)).toEqual(['chin'])
  expect(ALWAYS_OPEN.weekdays).toEqual([])
})
