import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { toRadians, wrapHalf } from '../grain/circular.ts'
import { startingGuess } from '../grain/startingGuess.ts'
import { directionOf, type Vec3 } from '../head/frames.ts'
import type { ZoneRecord } from '../head/head.ts'
import { isSkin, mirrorZone, ZONE_IDS, zoneStem } from '../head/zones.ts'
import { DEFAULT_SCHOOLS } from '../house/schools.ts'
import { acrossBearing, freeHand, headTurn, stanceFor } from './hands.ts'

const ZONES = JSON.parse(readFileSync('generated/zones.json', 'utf8')) as ZoneRecord[]
const SKIN = ZONE_IDS.filter(isSkin)
const FAMILIES = ['razor', 'fuzz'] as const
const record = (id: string) => ZONES.find((z) => z.id === id)!
const HAZARDS = ZONES.filter((z) => !z.skin && z.id !== 'base').map((z) => ({
  name: z.id,
  at: z.centre.point,
}))
const swap = (text: string) =>
  text.replace(/\b(left|right)\b/g, (side) => (side === 'left' ? 'right' : 'left'))

describe('where to stand', () => {
  it('is the mirror image for the other hand on the other side, wherever and whatever the service', () => {
    for (const zone of SKIN) {
      for (const family of FAMILIES) {
        const right = stanceFor(zone, 'right', family)
        const left = stanceFor(mirrorZone(zone), 'left', family)
        expect((right.hour + left.hour) % 12).toBe(0)
        expect(swap(right.text)).toBe(left.text)
      }
    }
  })

  it('keeps a worker on the side of the hand or on the midline, never reaching over the client', () => {
    for (const zone of SKIN) {
      for (const family of FAMILIES) {
        expect([6, 9, 10]).toContain(stanceFor(zone, 'right', family).hour)
        expect([6, 3, 2]).toContain(stanceFor(zone, 'left', family).hour)
      }
    }
  })

  it('is behind the client for the back of the head and the nape', () => {
    for (const zone of ['occiput', 'nape-centre', 'nape-left', 'scalp-crown'] as const) {
      expect(stanceFor(zone, 'right', 'razor').hour).toBe(6)
      expect(stanceFor(zone, 'left', 'razor').hour).toBe(6)
    }
  })
})

describe('the turn of the head', () => {
  it('brings the zone up: away from its side, mirrored for its twin', () => {
    for (const zone of SKIN) {
      expect(swap(headTurn(zone))).toBe(headTurn(mirrorZone(zone)))
      const behind = headTurn(zone) === 'Chin to the chest.'
      if (zone.endsWith('-left') && !behind) expect(headTurn(zone)).toContain('client’s right')
      if (mirrorZone(zone) === zone && !behind) expect(headTurn(zone)).toMatch(/^Head straight/)
    }
  })

  it('lifts the chin for the neck and tips the head back for what lies under it', () => {
    expect(headTurn('neck-lower-left')).toContain('chin up')
    expect(headTurn('neck-upper-centre')).toBe('Head straight, chin up.')
    expect(headTurn('under-chin-centre')).toBe('Head straight, head back.')
  })
})

describe('the free hand', () => {
  const bearing = fc.double({ min: 0, max: 2 * Math.PI, noNaN: true, maxExcluded: true })

  it('pulls straight against the stroke, on every zone', () => {
    fc.assert(
      fc.property(fc.constantFrom(...SKIN), bearing, fc.boolean(), (zone, stroke, bumpProne) => {
        const { pullBearing, text } = freeHand(zone, stroke, bumpProne, DEFAULT_SCHOOLS)
        expect(Math.abs(wrapHalf(pullBearing - stroke))).toBeCloseTo(Math.PI, 9)
        expect(pullBearing).toBeGreaterThanOrEqual(0)
        expect(pullBearing).toBeLessThan(2 * Math.PI)
        expect(text).toMatch(/o'clock/)
      }),
    )
  })

  it('is light on a bump-prone neck by default, taut there by the other school, taut on a cheek by both', () => {
    const words = (zone: 'neck-lower-left' | 'cheek-lower-left', neckStretch: 'light' | 'taut') =>
      freeHand(zone, 0, true, { ...DEFAULT_SCHOOLS, neckStretch }).text
    expect(words('neck-lower-left', 'light')).toMatch(/^Hold lightly/)
    expect(words('neck-lower-left', 'taut')).toContain('against the stroke')
    expect(words('cheek-lower-left', 'light')).toContain('against the stroke')
    expect(freeHand('neck-lower-left', 0, false, DEFAULT_SCHOOLS).text).not.toMatch(
      /lightly toward/,
    )
  })
})

describe('across', () => {
  const worked = ZONES.filter((z) => z.skin && !zoneStem(z.id).startsWith('eye'))

  it('is square to the growth and leaves the nearest eye, lip or ear farther behind than the other way would', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...worked),
        fc.integer({ min: 0, max: 359 }),
        (zone, growthDeg) => {
          const growth = toRadians(growthDeg)
          const { bearing, awayFrom } = acrossBearing(zone, growth, HAZARDS)
          expect(Math.abs(wrapHalf(bearing - growth))).toBeCloseTo(Math.PI / 2, 9)
          const { point, normal } = zone.centre
          const hazard = HAZARDS.find((h) => h.name === awayFrom)!
          const after = (b: number) => {
            const d = directionOf(zone.id, point, normal, b)
            return distance([point[0] + d[0], point[1] + d[1], point[2] + d[2]], hazard.at)
          }
          expect(after(bearing)).toBeGreaterThanOrEqual(after(bearing + Math.PI) - 1e-9)
          for (const other of HAZARDS)
            expect(distance(point, hazard.at)).toBeLessThanOrEqual(distance(point, other.at))
        },
      ),
    )
  })

  it('is the mirror image on the other side of the face', () => {
    for (const zone of worked.filter((z) => z.id.endsWith('-left'))) {
      const twin = record(mirrorZone(zone.id))
      const left = acrossBearing(zone, startingGuess(zone.id)!, HAZARDS)
      const right = acrossBearing(twin, startingGuess(twin.id)!, HAZARDS)
      expect(Math.abs(wrapHalf(left.bearing + right.bearing))).toBeLessThan(1e-4)
    }
  })
})

const distance = (a: Vec3, b: Vec3) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])
