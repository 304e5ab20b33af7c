/** A comb stroke over several zones becomes readings, each by the part of the stroke round it. */
import { DomainError } from '../errors.ts'
import { DEFAULTS } from '../house/index.ts'
import { Locator, surfacePoint, type Vec3 } from '../head/index.ts'
import { HEAD } from '../testing/head.ts'
import { isSkin, ZONE_IDS } from '../zones/index.ts'
import {
  READING_CONSTANTS,
  readingFromStroke,
  readingsFromComb,
  type StrokePoint,
} from './readings.ts'

const locator = new Locator(HEAD.display)
const SPACING = DEFAULTS(READING_CONSTANTS.combSpacingMm)
/** A stroke over the skin from one point toward another, a place every so many mm. */
function stroke(from: Vec3, to: Vec3, everyMm = 2): StrokePoint[] {
  const length = Math.hypot(...from.map((c, k) => to[k]! - c))
  const count = Math.max(1, Math.round(length / everyMm))
  return Array.from({ length: count + 1 }, (_, i) => {
    const p = from.map((c, k) => c + (i / count) * (to[k]! - c)) as unknown as Vec3
    const { triangle, weights } = locator.nearest(p)
    return {
      zoneId: ZONE_IDS[HEAD.display.zones[triangle]!]!,
      ...surfacePoint(HEAD.display, triangle, weights[0], weights[1]),
    }
  })
}
const comb = (points: readonly StrokePoint[]) => {
  let n = 0
  const rest = { method: 'looked' as const, atMs: 7 }
  return readingsFromComb(DEFAULTS, points, rest, () => `c${++n}`)
}
const lengthOf = (points: readonly StrokePoint[]) =>
  points
    .slice(1)
    .reduce((sum, p, i) => sum + Math.hypot(...p.point.map((c, k) => c - points[i]!.point[k]!)), 0)
/** From the forehead over the crown to the back of the head. */
const OVER = stroke([0, 60, 95], [0, 120, 0]).concat(stroke([0, 120, 0], [0, 60, -95]).slice(1))
const DOWN = stroke([62, 10, 50], [55, -70, 55])

describe('a comb stroke', () => {
  it('leaves a reading about every spacing, in its order, each with an id of its own', () => {
    for (const points of [OVER, DOWN]) {
      const readings = comb(points)
      expect(readings.length).toBeGreaterThan(1)
      expect(readings.length).toBeLessThanOrEqual(
        Math.max(1, Math.round(lengthOf(points) / SPACING)),
      )
      expect(new Set(readings.map((r) => r.id)).size).toBe(readings.length)
      expect(readings.every((r) => r.method === 'looked' && r.atMs === 7)).toBe(true)
    }
  })

  it('reads several zones in one go, each by its own way', () => {
    const readings = comb(OVER)
    expect(new Set(readings.map((r) => r.zoneId)).size).toBeGreaterThan(2)
    // Over the top of the head the way turns from up to down: the first rises, the last falls.
    expect(readings[0]!.tangent[1]).toBeGreaterThan(0.3)
    expect(readings.at(-1)!.tangent[1]).toBeLessThan(-0.3)
    for (const r of readings) {
      expect(isSkin(r.zoneId)).toBe(true)
      expect(Math.hypot(...r.tangent)).toBeCloseTo(1, 6)
      const out = r.tangent.reduce((s, c, k) => s + c * r.normal[k]!, 0)
      expect(Math.abs(out)).toBeLessThan(1e-6)
    }
  })

  it('that is short or quick is a reading like any other', () => {
    const short = stroke([62, -10, 50], [61, -20, 51], 5)
    const [one, ...more] = comb(short)
    expect(more).toEqual([])
    expect(one).toEqual(readingFromStroke(short, { id: 'c1', method: 'looked', atMs: 7 }))
    const quick = [DOWN[0]!, DOWN.at(-1)!]
    expect(comb(quick)).toHaveLength(1)
  })

  it('over what is no skin leaves that piece out and keeps the rest', () => {
    const bald = DOWN.map((p, i): StrokePoint =>
      i < DOWN.length / 2 ? { ...p, zoneId: 'lips' } : p,
    )
    const readings = comb(bald)
    expect(readings.length).toBeGreaterThan(0)
    expect(readings.length).toBeLessThan(comb(DOWN).length + 1)
    for (const r of readings) expect(r.zoneId).not.toBe('lips')
  })

  it('that says nothing at all is refused in words, and nothing is kept of it', () => {
    expect(() => comb([])).toThrow(DomainError)
    expect(() => comb([DOWN[0]!])).toThrow(DomainError)
    expect(() => comb(DOWN.map((p) => ({ ...p, zoneId: 'lips' as const })))).toThrow(DomainError)
  })
})
