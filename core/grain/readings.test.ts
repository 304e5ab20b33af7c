import { DEFAULTS } from '../house/index.ts'
import { DomainError } from '../errors.ts'
import { directionOf, type Vec3 } from '../head/index.ts'
import { isSkin, mirrorZone, ZONE_IDS, type ZoneId } from '../zones/index.ts'
import { DAY_MS } from '../time/index.ts'
import { strokeAngle } from './relation.ts'
import { toRadians, wrapHalf } from './circular.ts'
import {
  grainMap,
  mirrorReading,
  readingBearing,
  readingFromBearing,
  readingFromStroke,
  readingWeight,
  turnReading,
  zoneGrain,
  type Reading,
  type StrokePoint,
} from './readings.ts'
import { startingGuess } from './startingGuess.ts'
import fc from 'fast-check'

const CHEEK = { point: [52, -60, 60] as Vec3, normal: [0.8, -0.1, 0.6] as Vec3 }
const rest = (id: string, atMs = 0) => ({ id, method: 'felt' as const, atMs })
const cheek = (deg: number, over: Partial<Reading> = {}): Reading => ({
  ...readingFromBearing('cheek-lower-left', CHEEK, toRadians(deg), rest('a')),
  ...over,
})

describe('a zone’s grain from its readings', () => {
  it('is a guess before anything is read, for every skin zone', () => {
    const map = grainMap(DEFAULTS, [], 0)
    for (const id of ZONE_IDS.filter(isSkin)) {
      expect(map[id]).toEqual({
        ...{ zoneId: id, source: 'guess', count: 0, contradictory: false, readInParts: false },
        growthDirection: startingGuess(id)!,
      })
      expect(startingGuess(id)).toBeDefined()
    }
    expect(map['lips']).toBeUndefined()
  })

  it('guesses the right side as the mirror of the left', () => {
    for (const id of ZONE_IDS.filter((z) => isSkin(z) && z.endsWith('-left'))) {
      expect(wrapHalf(startingGuess(id)! + startingGuess(mirrorZone(id))!)).toBeCloseTo(0, 9)
    }
  })

  it('averages on the circle and says how well the readings agree', () => {
    const g = zoneGrain(DEFAULTS, 'cheek-lower-left', [cheek(350), cheek(10, { id: 'b' })], 0)
    expect(g.source).toBe('read')
    expect(strokeAngle(g.growthDirection, 0)).toBeLessThan(1e-6)
    expect(g.summary!.meanResultantLength).toBeCloseTo(Math.cos(toRadians(10)), 6)
    expect(g.readInParts).toBe(false)
  })

  it('asks to read in parts when the readings disagree, and says when they cancel', () => {
    expect(zoneGrain(DEFAULTS, 'cheek-lower-left', [cheek(0), cheek(100)], 0).readInParts).toBe(
      true,
    )
    const off = zoneGrain(DEFAULTS, 'cheek-lower-left', [cheek(0), cheek(180)], 0)
    expect(off).toEqual({
      ...{ zoneId: 'cheek-lower-left', source: 'guess', contradictory: true, readInParts: true },
      ...{ count: 2, growthDirection: startingGuess('cheek-lower-left') },
    })
  })

  it('weighs a look less than a feel, and an old reading half after 180 days', () => {
    expect(readingWeight(DEFAULTS, cheek(0, { method: 'looked' }), 0)).toBeCloseTo(0.6)
    expect(readingWeight(DEFAULTS, cheek(0, { method: 'pad' }), 0)).toBeCloseTo(0.8)
    expect(readingWeight(DEFAULTS, cheek(0), 180 * DAY_MS)).toBeCloseTo(0.5)
    expect(readingWeight(DEFAULTS, cheek(0), -5)).toBe(1)
  })
})

describe('a stroke', () => {
  const stroke = (points: readonly (readonly [ZoneId, Vec3])[]): StrokePoint[] =>
    points.map(([zoneId, point]) => ({ zoneId, point, normal: [0, 0, 1] }))

  it('gives the zone it covered most its direction, root to tip', () => {
    const r = readingFromStroke(
      stroke([
        ['jaw-left', [40, -80, 60]],
        ['chin', [10, -90, 90]],
        ['chin', [10, -95, 90]],
        ['chin', [10, -104, 90]],
      ]),
      rest('s'),
    )
    expect(r.zoneId).toBe('chin')
    expect(r.tangent[1]).toBeCloseTo(-1, 6)
    expect(strokeAngle(readingBearing(r), Math.PI)).toBeLessThan(0.2)
  })

  it('refuses a dot and a stroke that missed the skin, in words', () => {
    expect(() =>
      readingFromStroke(
        stroke([
          ['chin', [0, 0, 0]],
          ['chin', [0, 1, 0]],
        ]),
        rest('s'),
      ),
    ).toThrow('too short')
    expect(() =>
      readingFromStroke(
        stroke([
          ['lips', [0, 0, 0]],
          ['ear-left', [0, 20, 0]],
        ]),
        rest('s'),
      ),
    ).toThrow(DomainError)
  })
})

describe('turning and mirroring', () => {
  it('turns by what it is told', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        (b, by) => {
          const r = readingFromBearing('cheek-lower-left', CHEEK, b, rest('a'))
          expect(Math.abs(wrapHalf(readingBearing(turnReading(r, by)) - b - by))).toBeLessThan(1e-6)
        },
      ),
    )
  })

  it('mirrors a bearing to its negative on the other side, and back to itself', () => {
    const r = cheek(140)
    const m = mirrorReading(r, 'm', 5)
    expect(m.zoneId).toBe('cheek-lower-right')
    expect(wrapHalf(readingBearing(m) + readingBearing(r))).toBeCloseTo(0, 9)
    const twice = mirrorReading(m, 'a', 0)
    expect(twice.tangent).toEqual(r.tangent)
    expect(twice.point).toEqual(r.point)
  })

  it('a direction and its bearing say the same', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...ZONE_IDS.filter(isSkin)),
        fc.double({ min: 0, max: 6.28, noNaN: true }),
        (zone, b) => {
          const d = directionOf(zone, CHEEK.point, CHEEK.normal, b)
          const r = { ...cheek(0), zoneId: zone, tangent: d }
          expect(Math.abs(wrapHalf(readingBearing(r) - b))).toBeLessThan(1e-6)
          expect(Math.hypot(...d)).toBeCloseTo(1, 9)
        },
      ),
    )
  })
})
