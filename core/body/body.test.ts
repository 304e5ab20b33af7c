import { DEFAULTS } from '../house/index.ts'
import { bearingOf } from '../head/index.ts'
import { BODY_IDS, mirrorZone } from '../zones/index.ts'
import { bodyFlow, bodyGround } from '../plan/index.ts'
import { zoneSkin } from '../plan/skin.ts'
import { BODY_ZONES, bodyOutline, bodyZoneAt, sheetOf } from './body.ts'
import fc from 'fast-check'

const WHOLE = { spots: [], lines: [], worked: { share: 1, from: 'top' }, bandOnly: false } as const

/** Area of a ring of points by the shoelace formula, cm². */
function ringArea(ring: readonly number[]): number {
  let sum = 0
  for (let i = 0; i < ring.length; i += 2) {
    const j = (i + 2) % ring.length
    sum += ring[i]! * ring[j + 1]! - ring[j]! * ring[i + 1]!
  }
  return Math.abs(sum) / 200
}

describe('the body on a sheet', () => {
  it('have outlines, records and cells of the same area', () => {
    const ground = bodyGround()
    const flow = bodyFlow(DEFAULTS, [])
    for (const zone of BODY_ZONES) {
      const outline = ringArea(bodyOutline(zone.id))
      expect(zone.areaCm2 / outline).toBeCloseTo(1, 1)
      const skin = zoneSkin(DEFAULTS, ground, flow, zone.id, WHOLE)
      expect(skin.openCm2 / outline).toBeGreaterThan(0.95)
      expect(skin.openCm2 / outline).toBeLessThan(1.02)
    }
  })

  it('do not overlap, lie on the sheet, and mirror each other', () => {
    const sheet = sheetOf(BODY_IDS)
    fc.assert(
      fc.property(fc.constantFrom(...BODY_ZONES), fc.nat(11), (zone, i) => {
        const { point } = zone.samples[i]!
        expect(bodyZoneAt(point[0], point[1], BODY_IDS)).toBe(zone.id)
        expect(bodyZoneAt(-point[0], point[1], BODY_IDS)).toBe(mirrorZone(zone.id))
        expect(point[0]).toBeGreaterThan(sheet.left)
        expect(point[0]).toBeLessThan(sheet.right)
        expect(point[1]).toBeLessThan(sheet.top)
        expect(point[1]).toBeGreaterThan(sheet.bottom)
      }),
    )
    expect(bodyZoneAt(0, 0, BODY_IDS)).toBeUndefined()
    expect(BODY_IDS).toHaveLength(26)
  })

  it('lie where a place can be sent: within a metre either way', () => {
    for (const id of BODY_IDS) expect(Math.max(...bodyOutline(id).map(Math.abs))).toBeLessThan(1000)
  })

  it('count bearings from up the limb: straight down is 6 o’clock', () => {
    for (const z of BODY_ZONES)
      expect(bearingOf(z.id, z.centre.point, z.centre.normal, [0, -1, 0])).toBeCloseTo(Math.PI, 9)
  })

  it('grow as was read near a reading, as guessed where nothing is read', () => {
    const shin = BODY_ZONES.find((z) => z.id === 'shin-left')!
    const flow = bodyFlow(DEFAULTS, [
      { id: 'a', zoneId: shin.id, ...shin.centre, tangent: [1, 0, 0], weight: 1 },
    ])
    const ground = bodyGround()
    const mean = (zone: (typeof BODY_ZONES)[number]['id']) => {
      const skin = zoneSkin(DEFAULTS, ground, flow, zone, WHOLE)
      const near = Array.from(skin.growth.keys()).filter(
        (c) =>
          Math.hypot(
            skin.middle[3 * c]! - skin.zone.centre.point[0],
            skin.middle[3 * c + 1]! - skin.zone.centre.point[1],
          ) < 30,
      )
      return near.reduce((s, c) => s + skin.growth[c]!, 0) / near.length
    }
    // To 3 o'clock where it was read; down the limb on the other leg.
    expect(mean('shin-left')).toBeGreaterThan(1.4)
    expect(mean('shin-left')).toBeLessThan(1.85)
    expect(mean('thigh-front-left')).toBeCloseTo(Math.PI, 1)
  })
})
