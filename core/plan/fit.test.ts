/** What a last pass buys for its time, by hand, and which goes first. */
import { lastPasses } from './fit.ts'
import type { Lane, ZonePlan } from './types.ts'
import type { ZoneId } from '../zones/index.ts'

const zone = (zoneId: ZoneId, areaCm2: number, ...hours: number[]) =>
  ({
    ...{ zoneId, areaCm2 },
    passes: hours.map((smoothHours, i) => ({
      ...{ pass: i + 1, smoothHours },
      relation: i === 0 ? 'with' : 'across',
    })),
  }) as unknown as ZonePlan
const lane = (zoneId: ZoneId, pass: number, seconds: number) =>
  ({ zoneId, pass, seconds }) as unknown as Lane

describe('a last pass', () => {
  const zones = [
    // The cheek: 30 cm² gain 2 h, 10 cm² gain 6 h.
    zone('cheek-lower-left', 30, 10, 12),
    zone('cheek-lower-right', 10, 10, 16),
    zone('chin', 20, 9, 14),
    zone('upper-lip-left', 5, 8),
  ]
  const lanes = [
    lane('cheek-lower-left', 1, 500),
    lane('cheek-lower-left', 2, 20),
    lane('cheek-lower-left', 2, 10),
    lane('cheek-lower-right', 2, 30),
    lane('chin', 2, 5),
    lane('chin', 1, 900),
  ]

  it('buys hours over the skin of its area, for the seconds of that pass alone', () => {
    const [cheek, chin, ...more] = lastPasses(zones, lanes)
    // A zone with one pass has none to give.
    expect(more).toEqual([])
    expect(cheek).toMatchObject({
      zones: ['cheek-lower-left', 'cheek-lower-right'],
      ...{ pass: 2, relation: 'across' },
      // (30 · 2 + 10 · 6) / 40, and over 60 seconds.
      ...{ hours: 3, worth: 2 },
    })
    expect(chin).toMatchObject({ zones: ['chin'], hours: 5, worth: 20 })
  })

  it('of no time at all counts as one of a second', () => {
    expect(lastPasses([zone('chin', 20, 9, 14)], [])[0]!.worth).toBe(100)
  })

  it('goes area by area as far as their passes are as many', () => {
    const three = zone('cheek-lower-left', 30, 10, 12, 13)
    const found = lastPasses([three, zone('cheek-lower-right', 10, 10, 16)], lanes)
    expect(found.map((p) => [p.zones, p.pass])).toEqual([
      [['cheek-lower-left'], 3],
      [['cheek-lower-right'], 2],
    ])
  })
})
