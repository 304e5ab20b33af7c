/** What must hold of a zone's grain, whatever was read and in whatever order. */
import { DEFAULTS } from '../house/index.ts'
import type { ZoneRecord } from '../head/index.ts'
import { isSkin, mirrorZone, ZONE_IDS } from '../zones/index.ts'
import { DAY_MS } from '../time/index.ts'
import { summariseDirections, toRadians, wrapHalf } from './circular.ts'
import {
  grainMap,
  mirrorReading,
  readingBearing,
  READING_METHODS,
  readingFromBearing,
  readingWeight,
  turnReading,
  zoneGrain,
  type Reading,
} from './readings.ts'
import { startingGuess } from './startingGuess.ts'
import { readFileSync } from 'node:fs'
import fc from 'fast-check'

const ZONES = JSON.parse(readFileSync('generated/zones.json', 'utf8')) as ZoneRecord[]
const NOW = Date.UTC(2026, 4, 20)
const SKIN = ZONES.filter((z) => z.skin)

const readingOf = (zone: ZoneRecord) =>
  fc
    .record({
      deg: fc.integer({ min: 0, max: 359 }),
      method: fc.constantFrom(...READING_METHODS),
      ageDays: fc.integer({ min: 0, max: 900 }),
      id: fc.uuid(),
    })
    .map(({ deg, method, ageDays, id }) =>
      readingFromBearing(zone.id, zone.centre, toRadians(deg), {
        id,
        method,
        atMs: NOW - ageDays * DAY_MS,
      }),
    )
const chin = ZONES.find((z) => z.id === 'chin')!
const jaw = ZONES.find((z) => z.id === 'jaw-left')!
const readings = (zone: ZoneRecord) => fc.array(readingOf(zone), { minLength: 1, maxLength: 7 })
const apart = (a: number, b: number) => Math.abs(wrapHalf(a - b))

describe('the mean direction', () => {
  it('is the one from which the readings deviate least (Mardia & Jupp: it minimises Σ w (1 − cos))', () => {
    fc.assert(
      fc.property(readings(chin), (list) => {
        const weights = list.map((r) => readingWeight(DEFAULTS, r, NOW))
        const s = summariseDirections(list.map(readingBearing), weights)
        if (!s || s.meanResultantLength < 0.05) return
        const deviation = (at: number) =>
          list.reduce((sum, r, i) => sum + weights[i]! * (1 - Math.cos(readingBearing(r) - at)), 0)
        const least = deviation(s.mean)
        for (let d = 0; d < 360; d += 3)
          expect(deviation(toRadians(d))).toBeGreaterThanOrEqual(least - 1e-9)
      }),
    )
  })

  it('does not mind the order, and an agreeing reading never lowers the agreement', () => {
    fc.assert(
      fc.property(readings(chin), (list) => {
        const grain = zoneGrain(DEFAULTS, 'chin', list, NOW)
        const turned = zoneGrain(DEFAULTS, 'chin', [...list].reverse(), NOW)
        if (grain.contradictory) return
        expect(apart(grain.growthDirection, turned.growthDirection)).toBeLessThan(1e-6)
        const agreeing = readingFromBearing('chin', chin.centre, grain.growthDirection, {
          id: 'agrees',
          method: 'felt',
          atMs: NOW,
        })
        const after = zoneGrain(DEFAULTS, 'chin', [...list, agreeing], NOW)
        expect(after.summary!.meanResultantLength).toBeGreaterThanOrEqual(
          grain.summary!.meanResultantLength - 1e-9,
        )
        expect(apart(after.growthDirection, grain.growthDirection)).toBeLessThan(1e-6)
      }),
    )
  })
})

describe('a reading', () => {
  it('weighs less the older it is, and a look never more than a touch', () => {
    fc.assert(
      fc.property(readingOf(jaw), fc.integer({ min: 1, max: 400 }), (r, days) => {
        const older = { ...r, atMs: r.atMs - days * DAY_MS }
        expect(readingWeight(DEFAULTS, older, NOW)).toBeLessThan(readingWeight(DEFAULTS, r, NOW))
        expect(readingWeight(DEFAULTS, { ...r, method: 'looked' }, NOW)).toBeLessThanOrEqual(
          readingWeight(DEFAULTS, { ...r, method: 'felt' }, NOW),
        )
      }),
    )
  })

  it('comes back when it is turned there and back, or mirrored twice', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...SKIN).chain(readingOf),
        fc.integer({ min: -180, max: 180 }),
        (r: Reading, by) => {
          const turned = turnReading(turnReading(r, toRadians(by)), toRadians(-by))
          expect(apart(readingBearing(turned), readingBearing(r))).toBeLessThan(1e-6)
          const twice = mirrorReading(mirrorReading(r, 'm1', NOW), 'm2', NOW)
          expect(twice.zoneId).toBe(r.zoneId)
          expect(apart(readingBearing(twice), readingBearing(r))).toBeLessThan(1e-6)
        },
      ),
    )
  })
})

describe('the map', () => {
  it('mirrors as a whole when every reading is mirrored', () => {
    fc.assert(
      fc.property(readings(jaw), (list) => {
        const here = grainMap(DEFAULTS, list, NOW)['jaw-left']!
        const there = grainMap(
          DEFAULTS,
          list.map((r) => ({ ...mirrorReading(r, `${r.id}m`, NOW), atMs: r.atMs })),
          NOW,
        )['jaw-right']!
        expect(there.contradictory).toBe(here.contradictory)
        if (here.contradictory) return
        expect(apart(there.growthDirection, -here.growthDirection)).toBeLessThan(1e-6)
        expect(there.summary!.meanResultantLength).toBeCloseTo(here.summary!.meanResultantLength, 6)
      }),
    )
  })

  it('lets a reading change its own zone and no other', () => {
    fc.assert(
      fc.property(readings(jaw), (list) => {
        const before = grainMap(DEFAULTS, [], NOW)
        const after = grainMap(DEFAULTS, list, NOW)
        for (const id of ZONE_IDS.filter(isSkin)) {
          if (id === 'jaw-left') expect(after[id]!.source).toBe('read')
          else expect(after[id]).toEqual(before[id])
        }
      }),
      { numRuns: 20 },
    )
  })
})

describe('starting guesses', () => {
  it('stand for every zone of skin, mirrored, and for none without', () => {
    for (const id of ZONE_IDS) {
      const guess = startingGuess(id)
      expect(guess !== undefined).toBe(isSkin(id))
      if (guess === undefined) continue
      expect(apart(guess, -startingGuess(mirrorZone(id))!)).toBeLessThan(1e-9)
    }
  })

  it('run down the cheek and up the lower neck (common practice)', () => {
    expect(apart(startingGuess('cheek-upper-left')!, Math.PI)).toBeLessThan(toRadians(20))
    expect(apart(startingGuess('neck-lower-left')!, 0)).toBeLessThan(toRadians(20))
  })
})
