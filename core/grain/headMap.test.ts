import { DEFAULTS } from '../house/index.ts'
import { HEAD, ZONES } from '../testing/head.ts'
import { isSkin, ZONE_IDS, type ZoneId } from '../zones/index.ts'
import { toRadians } from './circular.ts'
import { HeadMap, type FlowAsk } from './headMap.ts'
import { readingFromBearing, toFieldReading } from './readings.ts'
import { STREAMLET_POINTS } from './streamlets.ts'
import type { ZonedReading } from './whorls.ts'

const map = new HeadMap(DEFAULTS, HEAD, ZONES)
const zoneOf = (id: ZoneId) => ZONES.find((z) => z.id === id)!

/** Readings all over some zones, all toward one hour. */
const read = (hour: number, ...ids: ZoneId[]): ZonedReading[] =>
  ids.flatMap((id) =>
    zoneOf(id).samples.map((at, i) => {
      const own = { id: `${id}${i}`, method: 'felt' as const, atMs: 0 }
      return toFieldReading(DEFAULTS, readingFromBearing(id, at, toRadians(30 * hour), own), 0)
    }),
  )
const DOWN = read(6, 'cheek-lower-left', 'jaw-left')
const ask = (over: Partial<FlowAsk> = {}): FlowAsk => ({
  ...{ readings: DOWN, reversed: false, guesses: false, level: 1, faint: [] },
  ...over,
})
const goOn = () => Promise.resolve(true)
const zonesOf = (marks: ReturnType<HeadMap['marks']>) => new Set(marks.zones)

describe('the map of a head', () => {
  it('is plain where nobody has read, and shows guesses only when asked', () => {
    expect(map.marks(ask({ readings: [] })).count).toBe(0)
    const guessed = map.marks(ask({ readings: [], guesses: true }))
    expect(guessed.count).toBeGreaterThan(1000)
    // A guess is a quarter of the ink at most.
    expect(Math.max(...guessed.ink)).toBeLessThanOrEqual(0.25 + 1e-6)
  })

  it('draws marks on skin that was read, each with a ribbon, a root and a tip', () => {
    const marks = map.marks(ask())
    expect(marks.count).toBeGreaterThan(20)
    expect(marks.positions).toHaveLength(marks.count * STREAMLET_POINTS * 6)
    expect(marks.spines).toHaveLength(marks.count * 9)
    expect(marks.positions.every(Number.isFinite)).toBe(true)
    expect(zonesOf(marks)).toContain(ZONE_IDS.indexOf('jaw-left'))
    expect(zonesOf(marks)).not.toContain(ZONE_IDS.indexOf('scalp-crown'))
    // Finer marks are more of them.
    expect(map.marks(ask({ level: 2 })).count).toBeGreaterThan(marks.count)
  })

  it('turns the marks round, fades what is not of the service, and follows the stroke that is drawn', () => {
    const one = map.marks(ask())
    const round = map.marks(ask({ reversed: true }))
    const along = (m: typeof one, i: number) =>
      [0, 1, 2].map((k) => m.spines[9 * i + 3 + k]! - m.spines[9 * i + k]!)
    const dot = along(one, 0).reduce((s, x, k) => s + x * along(round, 0)[k]!, 0)
    expect(dot).toBeLessThan(0)
    const faint = map.marks(ask({ faint: ['cheek-lower-left', 'jaw-left'] }))
    const inkOn = (m: typeof one) =>
      Math.max(...m.ink.filter((_, i) => m.zones[i] === ZONE_IDS.indexOf('cheek-lower-left')))
    expect(inkOn(faint)).toBeCloseTo(0.3 * inkOn(one), 5)
    const drawing = read(6, 'chin')
    expect(map.marks(ask({ drawing })).count).toBeGreaterThan(one.count)
  })

  it('sums up zone by zone what was read there, and knows nothing of an empty map', () => {
    const cheek = map.summary(DOWN).zones.find((z) => z.zoneId === 'cheek-lower-left')!
    expect(cheek.growthDirection!).toBeCloseTo(Math.PI, 0)
    expect(cheek.meanResultantLength).toBeGreaterThan(0.95)
    // Few readings of a reader of whom nothing is known.
    expect(cheek.within).toBe(10)
    const crown = map.summary(DOWN).zones.find((z) => z.zoneId === 'scalp-crown')!
    expect(crown.within).toBeUndefined()
    expect(map.summary([])).toEqual({
      ...{ zones: [], readings: 0, whorls: [], indexSum: 2, disagreements: [] },
    })
  })

  it('answers twice the same for the same list, and otherwise for another', () => {
    const first = map.answer(DOWN)
    expect(map.answer([...DOWN])).toBe(first)
    const up = map.vertices(read(12, 'cheek-lower-left'))
    const down = map.vertices(read(6, 'cheek-lower-left'))
    const at = down.trust.indexOf(Math.max(...down.trust))
    const dot = [0, 1, 2].reduce(
      (s, k) => s + up.vectors[3 * at + k]! * down.vectors[3 * at + k]!,
      0,
    )
    expect(dot).toBeLessThan(-0.9)
  })

  it('asks next where nothing was read, within the zones that matter, and stops when told', async () => {
    const zones: ZoneId[] = ['cheek-lower-left', 'cheek-lower-right']
    const next = (await map.next(read(6, 'cheek-lower-left'), zones, goOn))!
    expect(next.zoneId).toBe('cheek-lower-right')
    expect(next.gain).toBeGreaterThan(0)
    expect(await map.next(DOWN, zones, () => Promise.resolve(false))).toBeUndefined()
    expect(await map.next(DOWN, [], goOn)).toBeUndefined()
  })

  it('tells how far two maps differ, where both were read', () => {
    const same = map.compare(DOWN, DOWN)
    const own = (c: typeof same, id: ZoneId) => c.zones.find((z) => z.zoneId === id)!.degrees
    expect(own(same, 'cheek-lower-left')).toBeCloseTo(0, 1)
    const turned = map.compare(read(6, 'cheek-lower-left'), read(9, 'cheek-lower-left'))
    expect(own(turned, 'cheek-lower-left')).toBeCloseTo(90, -1)
    expect(own(turned, 'scalp-crown')).toBeNaN()
    // Eyes, ears and lips have no grain to differ.
    const { indices, zones } = HEAD.display
    zones.forEach((zone, t) => {
      if (isSkin(ZONE_IDS[zone]!)) return
      for (let k = 0; k < 3; k++) expect(turned.degrees[indices[3 * t + k]!]).toBeNaN()
    })
    const degrees = [...turned.degrees].filter((d) => !Number.isNaN(d))
    expect(Math.min(...degrees)).toBeGreaterThanOrEqual(0)
    expect(Math.max(...degrees)).toBeLessThanOrEqual(180)
  })
})
