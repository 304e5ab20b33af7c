import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { toRadians } from '../grain/index.ts'
import { wrapHalf } from '../grain/circular.ts'
import {
  bearingOf,
  clockFrame,
  cross,
  directionOf,
  dot,
  tangentPart,
  unit,
  type Vec3,
} from './frames.ts'
import type { ZoneRecord } from './head.ts'
import { isSkin, mirrorZone, ZONE_IDS } from '../zones/index.ts'

const ZONES = JSON.parse(readFileSync('generated/zones.json', 'utf8')) as ZoneRecord[]
const skin = fc.constantFrom(...ZONES.filter((z) => z.skin))
const deg = fc.double({ min: 0, max: 359.999, noNaN: true })
const vector = fc
  .tuple(...[0, 1, 2].map(() => fc.double({ min: -1, max: 1, noNaN: true })))
  .filter((v) => Math.hypot(...v) > 0.05)
  .map((v) => v as unknown as Vec3)
const mirror = (v: Vec3): Vec3 => [-v[0], v[1], v[2]]

describe('bearings and directions', () => {
  it('undo each other on every zone', () => {
    fc.assert(
      fc.property(skin, deg, (zone, d) => {
        const { point, normal } = zone.centre
        const direction = directionOf(zone.id, point, normal, toRadians(d))
        expect(Math.hypot(...direction)).toBeCloseTo(1, 9)
        expect(Math.abs(dot(direction, unit(normal)))).toBeLessThan(1e-9)
        const back = bearingOf(zone.id, point, normal, direction)
        expect(Math.abs(wrapHalf(back - toRadians(d)))).toBeLessThan(1e-6)
      }),
    )
  })

  it('read a direction by its part along the skin only', () => {
    fc.assert(
      fc.property(skin, deg, fc.double({ min: -5, max: 5, noNaN: true }), (zone, d, lift) => {
        const { point, normal } = zone.centre
        const along = directionOf(zone.id, point, normal, toRadians(d))
        const n = unit(normal)
        const lifted: Vec3 = [0, 1, 2].map((i) => along[i]! + lift * n[i]!) as unknown as Vec3
        expect(
          Math.abs(wrapHalf(bearingOf(zone.id, point, normal, lifted) - toRadians(d))),
        ).toBeLessThan(1e-6)
      }),
    )
  })

  it('turn clockwise as seen from outside: 3 lies a quarter turn to the right of 12', () => {
    for (const zone of ZONES.filter((z) => z.skin)) {
      const { noon, three } = clockFrame(zone.id, zone.centre.point, zone.centre.normal)
      // From outside, looking against the normal, right of "up" is up × normal.
      const right = cross(noon, unit(zone.centre.normal))
      expect(dot(three, right)).toBeCloseTo(1, 6)
    }
  })

  it('mirror: what is 2 o’clock on the left is 10 o’clock on the right', () => {
    fc.assert(
      fc.property(skin, deg, (zone, d) => {
        const { point, normal } = zone.centre
        const direction = directionOf(zone.id, point, normal, toRadians(d))
        const twin = bearingOf(
          mirrorZone(zone.id),
          mirror(point),
          mirror(normal),
          mirror(direction),
        )
        expect(Math.abs(wrapHalf(twin + toRadians(d)))).toBeLessThan(1e-6)
      }),
    )
  })
})

describe('small vector arithmetic', () => {
  it('crosses square to both, by the size of the sine', () => {
    fc.assert(
      fc.property(vector, vector, (a, b) => {
        const c = cross(a, b)
        expect(dot(c, a)).toBeCloseTo(0, 9)
        expect(dot(c, b)).toBeCloseTo(0, 9)
        // Lagrange: |a × b|² + (a · b)² = |a|² |b|².
        expect(dot(c, c) + dot(a, b) ** 2).toBeCloseTo(dot(a, a) * dot(b, b), 9)
      }),
    )
  })

  it('splits a vector into its part along the skin and the rest', () => {
    fc.assert(
      fc.property(vector, vector, (v, way) => {
        const n = unit(way)
        const t = tangentPart(v, n)
        expect(dot(t, n)).toBeCloseTo(0, 9)
        expect(Math.hypot(...t) ** 2 + dot(v, n) ** 2).toBeCloseTo(dot(v, v), 9)
      }),
    )
  })
})

describe('twins', () => {
  it('undo each other, keep skin, and stay themselves on the midline', () => {
    for (const id of ZONE_IDS) {
      expect(mirrorZone(mirrorZone(id))).toBe(id)
      expect(isSkin(mirrorZone(id))).toBe(isSkin(id))
      expect(mirrorZone(id) === id).toBe(!/-(left|right)$/.test(id))
    }
  })
})
