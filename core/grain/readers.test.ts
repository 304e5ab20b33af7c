/** How surely a worker reads, learned over heads, and what that is worth on the next (M4). */
import { DEFAULTS } from '../house/index.ts'
import { DAY_MS } from '../time/index.ts'
import { mapSeen, withinHeld } from '../testing/honest/grain.ts'
import { CONFIDENCE_CONSTANTS as K, readerSpreadDeg, twoOfThreeDeg } from './confidence.ts'
import { readerHere, readerOf, readersOf, readerSeen, readerWords } from './readers.ts'

const rad = (deg: number) => (deg * Math.PI) / 180
const HOUSE = DEFAULTS(K.readerDeg)

describe('a reader', () => {
  it('is told by the 0.68 point of how far readings lie off, between the two beside it', () => {
    // 0.68 of the way over 0, 10, 20, 30, 40: 27.2.
    expect(twoOfThreeDeg([40, 0, 20, 10, 30].map(rad))).toBeCloseTo(27.2, 9)
    expect(twoOfThreeDeg([rad(7)])).toBeCloseTo(7, 9)
  })

  it('is not told by a map with few readings that have others beside them', () => {
    const five = [5, 5, 5, 5, 5].map(rad)
    expect(readerSeen(five.slice(1))).toBeUndefined()
    expect(readerSeen([...five.slice(1), undefined, undefined])).toBeUndefined()
    expect(readerSeen([...five, undefined])).toEqual({ deg: expect.closeTo(5, 9), readings: 5 })
    // Readings that lie on one another to the degree are no sign of a steadier hand than that.
    expect(readerSeen([0, 0, 0, 0, 0])!.deg).toBe(1)
  })

  it('is told by the readings of the visit alone: those of earlier ones told of theirs', () => {
    const readings = Array.from({ length: 10 }, (_, i) => ({ atMs: i < 5 ? 0 : 3 * DAY_MS }))
    const apart = readings.map((_, i) => rad(i < 5 ? 60 : 8))
    expect(readerHere(readings, apart, 3 * DAY_MS + 1)!.deg).toBeCloseTo(8, 9)
    expect(readerHere(readings, apart, 30 * DAY_MS)).toBeUndefined()
    expect(readerHere(readings, undefined, 0)).toBeUndefined()
  })

  it('is drawn to the house’s figure by as many readings as that is worth, of the logarithm', () => {
    expect(readerOf(DEFAULTS, [])).toBeUndefined()
    const n = DEFAULTS(K.readerReadings)
    const deg = readerOf(DEFAULTS, [{ deg: 6, readings: n }])!
    expect(deg).toBeCloseTo(Math.sqrt(6 * HOUSE), 9)
    const many = readerOf(DEFAULTS, [
      { deg: 6, readings: 500 },
      { deg: 6, readings: 500 },
    ])!
    expect(many).toBeCloseTo(6, 1)
  })

  it('of several, each counts by what they read; who is not known counts nothing', () => {
    const seen = { a: [{ deg: 10, readings: 1e6 }], b: [{ deg: 20, readings: 1e6 }], c: [] }
    const by = (workerId: string, readings: number) => ({ workerId, readings })
    expect(readersOf(DEFAULTS, seen, [by('a', 3), by('b', 1)])).toBeCloseTo(12.5, 3)
    expect(readersOf(DEFAULTS, seen, [by('a', 3), by('c', 9), by('gone', 9)])).toBeCloseTo(10, 3)
    expect(readersOf(DEFAULTS, seen, [by('c', 9)])).toBeNull()
    expect(readersOf(DEFAULTS, seen, [])).toBeNull()
  })

  it('weighs more on the next map than the house’s figure does', () => {
    const here = [30, 30, 30].map(rad)
    const unknown = readerSpreadDeg(DEFAULTS, here, undefined)
    const [w, known] = [DEFAULTS(K.readerReadings), DEFAULTS(K.knownReadings)]
    const mix = (before: number, deg: number) =>
      Math.exp((before * Math.log(deg) + 3 * Math.log(30)) / (before + 3))
    expect(unknown).toBeCloseTo(mix(w, HOUSE), 9)
    expect(readerSpreadDeg(DEFAULTS, here, HOUSE)).toBeCloseTo(mix(known, HOUSE), 9)
    expect(readerSpreadDeg(DEFAULTS, [], undefined)).toBe(HOUSE)
    expect(readerSpreadDeg(DEFAULTS, [], 9)).toBe(9)
  })

  it('is said in words', () => {
    expect(readerWords(DEFAULTS, [])).toBeUndefined()
    expect(readerWords(DEFAULTS, [{ deg: 8, readings: 400 }])).toBe(
      'two of three lie within 8° of what the others say, by the last map',
    )
    const two = { deg: 8, readings: 400 }
    expect(readerWords(DEFAULTS, [two, two])).toContain('by the last 2 maps')
  })
})

describe('known from three other heads', () => {
  const seen = (noise: number) => [0, 1, 2].map((i) => mapSeen(40 + i, noise)!)

  it('a steady hand and an unsteady one are told apart', () => {
    const [steady, unsteady] = [readerOf(DEFAULTS, seen(5))!, readerOf(DEFAULTS, seen(25))!]
    expect(steady).toBeLessThan(14)
    expect(unsteady).toBeGreaterThan(24)
  })

  it('a few readings say more of a steady hand, and what they say still holds', () => {
    for (const noise of [5, 10, 30]) {
      const mean = (maps: number) => {
        const told = withinHeld(900 + noise, 5, 10, noise, maps)
        const deg = Object.entries(told.by).reduce((s, [d, [n]]) => s + Number(d) * n, 0)
        return { held: told.held, deg: deg / told.places }
      }
      const [unknown, known] = [mean(0), mean(3)]
      expect(known.held).toBeGreaterThan(0.62)
      expect(known.held).toBeLessThan(0.95)
      if (noise === 5) expect(known.deg).toBeLessThan(0.9 * unknown.deg)
      if (noise === 30) expect(known.deg).toBeGreaterThan(unknown.deg)
    }
  })
})
