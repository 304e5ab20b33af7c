import fc from 'fast-check'
import type { Vec3 } from '../head/index.ts'
import type { ZoneId } from '../zones/index.ts'
import {
  beginLine,
  dropPoint,
  isEarlierOf,
  leadOn,
  missingLines,
  movePoint,
  nudgePoint,
  takesTaps,
  withMirror,
} from './editLine.ts'
import { lineSide, type KeepLine, type LineTap } from './keepLine.ts'

const tap = (
  x: number,
  zoneId: ZoneId = x > 0 ? 'cheek-lower-left' : 'cheek-lower-right',
): LineTap => ({
  zoneId,
  point: [x, -50, 80],
  normal: [0, 0, 1],
})
const line = (xs: readonly number[], over: Partial<KeepLine> = {}): KeepLine => ({
  ...{ id: 'l', kind: 'cheek', keep: 'left', drawnAtMs: 1 },
  taps: xs.map((x) => tap(x)),
  ...over,
})

describe('a keep-line while it is edited', () => {
  it('begins with one point, is led on, and keeps of a tap only what a line holds', () => {
    const hit = { ...tap(30), triangle: 7 }
    const begun = beginLine('a', 'neck', hit, 5)
    expect(begun).toEqual({
      ...{ id: 'a', kind: 'neck', keep: 'left', drawnAtMs: 5 },
      taps: [tap(30)],
    })
    const led = leadOn(begun, { ...tap(40), triangle: 8 } as LineTap, 6)
    expect(led.taps).toEqual([tap(30), tap(40)])
    expect(led.drawnAtMs).toBe(6)
    // What it was made from is left as it was.
    expect(begun.taps).toHaveLength(1)
  })

  it('moves a point on skin alone', () => {
    const before = line([30, 40, 50])
    expect(movePoint(before, 1, tap(44), 9)).toEqual({
      ...before,
      taps: [tap(30), tap(44), tap(50)],
      drawnAtMs: 9,
    })
    expect(movePoint(before, 1, tap(44, 'ear-left'), 9)).toBe(before)
    expect(movePoint(before, 3, tap(44), 9)).toBe(before)
    expect([takesTaps({ zoneId: 'chin' }), takesTaps({ zoneId: 'lips' })]).toEqual([true, false])
  })

  it('nudges a point over the skin, from where it is now', () => {
    const asked: Vec3[] = []
    const nearest = (point: Vec3) => {
      asked.push(point)
      return { ...tap(0, 'chin'), point, triangle: 3 }
    }
    const once = nudgePoint(line([30]), 0, [1, 0, 0], nearest, 2)
    const twice = nudgePoint(once, 0, [1, 0, 0], nearest, 3)
    expect(asked.map((p) => p[0])).toEqual([31, 32])
    expect(twice.taps[0]).toEqual({ zoneId: 'chin', point: [32, -50, 80], normal: [0, 0, 1] })
    expect(nudgePoint(once, 4, [1, 0, 0], nearest, 3)).toBe(once)
  })

  it('drops a point; with its last one the line is gone', () => {
    expect(dropPoint(line([30, 40]), 0, 4)!.taps).toEqual([tap(40)])
    expect(dropPoint(line([30]), 0, 4)).toBeUndefined()
  })

  it('takes the place of the line on the other side when it is mirrored, twice gives it back', () => {
    const left = line([30, 40])
    const right = line([-20, -25], { id: 'r' })
    const neck = line([-20], { id: 'n', kind: 'neck' })
    const { lines, made } = withMirror([left, right, neck], left, 'm', 8)!
    expect(lines.map((l) => l.id)).toEqual(['l', 'n', 'm'])
    expect([lineSide(made), made.keep, made.drawnAtMs]).toEqual(['right', 'right', 8])
    const back = withMirror(lines, made, 'b', 9)!
    expect(back.made.taps).toEqual(left.taps)
    expect(withMirror([], line([-10, 10]), 'x', 1)).toBeUndefined()
  })

  it('recalls what is missing of the visit before, and nothing that is there', () => {
    const before = [line([30]), line([-30], { id: 'r' }), line([30], { id: 'n', kind: 'neck' })]
    expect(missingLines([line([33], { id: 'now' })], before).map((l) => l.id)).toEqual(['r', 'n'])
    expect(missingLines([], before)).toEqual(before)
    expect(isEarlierOf(before[0]!, line([50]))).toBe(true)
    expect(isEarlierOf(before[0]!, line([-50]))).toBe(false)
    expect(isEarlierOf(before[0]!, undefined)).toBe(false)
  })

  it('holds as many points as were put in and not taken out (property)', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -1, max: 5 }), { maxLength: 30 }), (edits) => {
        let now: KeepLine | undefined = beginLine('p', 'cheek', tap(1), 0)
        let points = 1
        for (const [i, edit] of edits.entries()) {
          if (!now) break
          if (edit < 0) {
            now = leadOn(now, tap(i + 2), i)
            points++
          } else if (edit < points) {
            now = dropPoint(now, edit, i)
            points--
          }
        }
        expect(now?.taps.length ?? 0).toBe(points)
      }),
    )
  })
})
