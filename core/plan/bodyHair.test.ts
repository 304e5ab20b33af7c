/** Hair drawn on the body's sheet: only where it is read, evenly, in no rows. */
import { bodyZoneAt, BODY_ZONES, sheetOf } from '../body/index.ts'
import { readingFromBearing, toFieldReading } from '../grain/index.ts'
import { DEFAULTS } from '../house/index.ts'
import { serviceZones } from '../services/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { bodyHair, HAIR_SPACING_MM } from './bodyHair.ts'

const TRUNK = serviceZones('back-and-chest')
const read = (zoneId: ZoneId, bearing = Math.PI) => {
  const { centre } = BODY_ZONES.find((z) => z.id === zoneId)!
  const how = { id: zoneId, method: 'felt' as const, atMs: 0 }
  return toFieldReading(DEFAULTS, readingFromBearing(zoneId, centre, bearing, how), 0)
}
const HAIR = bodyHair(DEFAULTS, TRUNK, [read('chest-left')])
const zoneOf = (h: { x: number; y: number }) => bodyZoneAt(h.x, h.y, TRUNK)

describe('hair on the sheet', () => {
  it('is none before anything is read', () => {
    expect(bodyHair(DEFAULTS, TRUNK, [])).toEqual([])
  })

  it('stands on the zones of the sheet alone', () => {
    const sheet = sheetOf(TRUNK)
    for (const h of HAIR) {
      expect(h.x).toBeGreaterThanOrEqual(sheet.left)
      expect(h.x).toBeLessThanOrEqual(sheet.right)
      expect(h.y).toBeLessThanOrEqual(sheet.top)
      expect(h.y).toBeGreaterThanOrEqual(sheet.bottom)
    }
    const legs = bodyHair(DEFAULTS, serviceZones('body-shave'), [read('shin-left')])
    const all = new Set(HAIR.map((h) => `${h.x},${h.y}`))
    for (const h of legs) expect(all.has(`${h.x},${h.y}`)).toBe(false)
  })

  it('covers every zone, evenly: nothing nearer than the spacing, no hole of three times it', () => {
    const zones = new Set(HAIR.map(zoneOf))
    for (const id of TRUNK) expect(zones.has(id)).toBe(true)
    const apart = HAIR.flatMap((a, i) =>
      HAIR.slice(i + 1).map((b) => Math.hypot(a.x - b.x, a.y - b.y)),
    )
    expect(apart.every((mm) => mm >= HAIR_SPACING_MM)).toBe(true)
    for (const { centre } of BODY_ZONES.filter((z) => TRUNK.includes(z.id))) {
      const near = HAIR.map((h) => Math.hypot(h.x - centre.point[0], h.y - centre.point[1]))
      expect(Math.min(...near)).toBeLessThan(3 * HAIR_SPACING_MM)
    }
  })

  it('stands in no rows: hardly two of a zone share a line up the page', () => {
    const own = HAIR.filter((h) => zoneOf(h) === 'back-upper-left')
    const columns = new Map<number, number>()
    for (const h of own) columns.set(Math.round(h.x), (columns.get(Math.round(h.x)) ?? 0) + 1)
    expect(own.length).toBeGreaterThan(40)
    expect(Math.max(...columns.values())).toBeLessThan(own.length / 5)
  })

  it('is the same each time, root by root, and lies as it is read', () => {
    expect(bodyHair(DEFAULTS, TRUNK, [read('chest-left')])).toEqual(HAIR)
    const turned = bodyHair(DEFAULTS, TRUNK, [read('chest-left', Math.PI / 2)])
    expect(turned.map((h) => [h.x, h.y])).toEqual(HAIR.map((h) => [h.x, h.y]))
    const sure = (list: typeof HAIR) =>
      list.filter((h) => zoneOf(h) === 'chest-left').reduce((a, b) => (b.trust > a.trust ? b : a))
    expect(sure(HAIR).dy).toBeLessThan(-0.9)
    expect(Math.abs(sure(turned).dy)).toBeLessThan(0.5)
    // Read nearby is trusted more than guessed far away.
    const far = HAIR.filter((h) => zoneOf(h) === 'back-lower-right').map((h) => h.trust)
    expect(sure(HAIR).trust).toBeGreaterThan(Math.max(...far))
  })
})
