/** Lines that move: what a wanted line takes and gives, the steps on the way, and the days until it is filled. */
import { DEFAULTS } from '../house/index.ts'
import { priorGrowth } from '../regrowth/index.ts'
import { place, surfaceOf, usual } from '../testing/lines.ts'
import { DAY_MS } from '../time/index.ts'
import { compareLines } from './compareLines.ts'
import { type KeepLine, linePath, mirrorLine } from './keepLine.ts'
import {
  beginMove,
  fillDays,
  keptLines,
  lineChange,
  moveDates,
  moveOn,
  overcutRest,
  shiftTaps,
  stepsFor,
  stepTaps,
} from './moveLine.ts'
import { outlineCm2, outlineInside } from './outline.ts'

const surface = surfaceOf()
const pathOf = (taps: KeepLine['taps']) => linePath(surface, { taps })
const zoneOf = (p: Parameters<typeof place>[0]) => place(p).zoneId
const LINES = [usual('cheek', 'left'), usual('neck', 'left'), usual('cheek', 'right')]
const change = (line: KeepLine, mm: number) =>
  lineChange(pathOf(line.taps), pathOf(shiftTaps(line, mm, place)), line.keep, zoneOf)

describe('a line that is moved', () => {
  it.each(LINES)('out over the skin must fill in, into the beard gives it up: $id', (line) => {
    const length = pathOf(line.taps).length
    expect(length).toBeGreaterThan(2)
    for (const mm of [3, 6]) {
      const out = change(line, mm)
      expect(out.lostMm).toBe(0)
      expect(out.fillMm).toBeGreaterThan(0.8 * mm)
      expect(out.fillMm).toBeLessThan(1.5 * mm)
      const back = change(line, -mm)
      expect(back.fillMm).toBe(0)
      expect(back.lostMeanMm).toBeGreaterThan(0.75 * mm)
      expect(back.lostMeanMm).toBeLessThan(1.25 * mm)
    }
  })

  it('area is width times length: 6 mm of a cheek line are twice 3 mm', () => {
    const [cheek] = LINES
    expect(change(cheek!, 6).fillCm2 / change(cheek!, 3).fillCm2).toBeCloseTo(2, 0)
    expect(change(cheek!, 0)).toMatchObject({ lostMm: 0, fillMm: 0, fillCm2: 0 })
  })

  it('goes in steps of about 2 mm that truly part it: each as far as the one before', () => {
    const [cheek] = LINES
    const far = change(cheek!, -8)
    const steps = stepsFor(DEFAULTS, far)
    expect([4, 5]).toContain(steps)
    let line = beginMove(cheek!, shiftTaps(cheek!, -8, place), steps, place, 1)
    const seen = [pathOf(cheek!.taps)]
    for (let k = 1; k <= steps; k++) {
      seen.push(pathOf(line.taps))
      expect(line.move?.at).toBe(k < steps ? k : undefined)
      line = moveOn(line, place, k)
    }
    const parts = seen.slice(1).map((p, i) => compareLines(p, seen[i]!).meanMm)
    for (const mm of parts) {
      expect(mm).toBeGreaterThan(0.6 * (8 / steps))
      expect(mm).toBeLessThan(1.4 * (8 / steps))
    }
    // Once there it stays.
    expect(moveOn(line, place, 99)).toBe(line)
    expect(stepTaps({ from: cheek!.taps, to: line.taps, steps }, 0, place)).toBe(cheek!.taps)
  })

  it('mirrored, its way is mirrored with it', () => {
    const [cheek] = LINES
    const begun = beginMove(cheek!, shiftTaps(cheek!, 4, place), 2, place, 1)
    const other = moveOn(mirrorLine(begun, 'm', 2), place, 3)
    const own = moveOn(begun, place, 3)
    expect(other.taps.at(-1)!.point[0]).toBeCloseTo(-own.taps.at(-1)!.point[0], 6)
  })

  it('tells when it stands and when it is filled: 4 mm at 0.4 mm a day are about ten days', () => {
    const growth = priorGrowth(DEFAULTS, 'cheek-lower-left', 'beard')
    const days = fillDays(DEFAULTS, growth)
    expect(days.even).toBeCloseTo(4 / growth.mean, 0)
    const out = change(LINES[0]!, 6)
    const dates = moveDates(
      DEFAULTS,
      out,
      3,
      0,
      10,
      () => growth,
      () => false,
    )
    expect(dates.reachedMs).toBe(20 * DAY_MS)
    expect(dates.filled!.evenMs).toBeCloseTo(20 * DAY_MS + days.even * DAY_MS, -4)
    expect(dates.filled!.earlyMs).toBeLessThan(dates.filled!.evenMs)
    expect(dates.filled!.lateMs).toBeGreaterThan(dates.filled!.evenMs)
    const back = moveDates(
      DEFAULTS,
      change(LINES[0]!, -6),
      3,
      0,
      10,
      () => growth,
      () => false,
    )
    expect(back.filled).toBeUndefined()
    expect(back.sparse).toEqual([])
  })

  it('gives no date where hair is sparse, or only fuzz grows', () => {
    const out = change(LINES[0]!, 6)
    const beard = priorGrowth(DEFAULTS, 'cheek-lower-left', 'beard')
    const fuzz = priorGrowth(DEFAULTS, 'cheek-upper-left', 'vellus')
    const sparse = moveDates(
      DEFAULTS,
      out,
      1,
      0,
      10,
      () => beard,
      () => true,
    )
    expect(sparse.filled).toBeUndefined()
    expect(sparse.sparse).toEqual([...out.fillZones.keys()])
    expect(
      moveDates(
        DEFAULTS,
        out,
        1,
        0,
        10,
        () => fuzz,
        () => false,
      ).sparse,
    ).not.toEqual([])
  })

  it('an over-cut edge rests in a band about it', () => {
    const [cheek] = LINES
    const taps = overcutRest(DEFAULTS, cheek!, 2, 2, place)
    const inside = outlineInside(surface, { taps })
    expect(inside[surface.locator.nearest(cheek!.taps[2]!.point).triangle]).toBe(1)
    expect(inside[surface.locator.nearest(cheek!.taps[0]!.point).triangle]).toBe(0)
    // Two pieces of the line, 8 mm wide.
    const cm2 = outlineCm2(surface.mesh, inside)
    expect(cm2).toBeGreaterThan(2)
    expect(cm2).toBeLessThan(5.5)
  })

  it('a line that is only thought of keeps nothing', () => {
    const [cheek] = LINES
    expect(keptLines([cheek!, { ...cheek!, candidate: 'a' }])).toEqual([cheek])
  })
})
