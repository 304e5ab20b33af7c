/** Keep-lines: mirrored, measured, and what they keep of each zone. Answers by geometry. */
import { type Vec3, type SurfacePoint } from '../head/index.ts'
import { surfaceOf, usual } from '../testing/lines.ts'
import { along, compareLines, mirrorPath } from './compareLines.ts'
import { besidePath, LINE_KINDS, lineName, linePath, lineSide, mirrorLine } from './keepLine.ts'

const SURFACE = surfaceOf()
const flat = (points: readonly (readonly [number, number, number])[]): SurfacePoint[] =>
  points.map((point) => ({ point, normal: [1, 0, 0] as Vec3 }))

describe('a line', () => {
  it('of every usual kind lies on its side, and mirrors onto the other and back', () => {
    for (const kind of LINE_KINDS) {
      const left = usual(kind, 'left')
      expect(lineSide(left)).toBe('left')
      const twice = mirrorLine(mirrorLine(left, 'm', 1), left.id, 0)
      expect(twice).toEqual(left)
      const right = mirrorLine(left, 'm', 1)
      expect(lineSide(right)).toBe('right')
      expect(right.keep).not.toBe(left.keep)
      expect(lineName(right)).toContain('client’s right')
      expect(right.taps.map((t) => t.point)).toEqual(usual(kind, 'right').taps.map((t) => t.point))
    }
  })

  it('is no different from its own mirror image', () => {
    const left = linePath(SURFACE, usual('cheek', 'left'))
    const right = linePath(SURFACE, usual('cheek', 'right'))
    const d = compareLines(left, mirrorPath(right))
    expect(d.greatestMm).toBeLessThan(0.3)
    expect(Math.abs(d.angleDeg)).toBeLessThan(0.2)
  })
})

describe('two lines', () => {
  const level = flat([
    [50, 10, 60],
    [50, 10, 0],
  ])

  it('one 2 mm above the other differ by 2 mm everywhere', () => {
    const d = compareLines(
      flat([
        [50, 12, 60],
        [50, 12, 0],
      ]),
      level,
    )
    expect(d).toMatchObject({ meanMm: 2, greatestMm: 2, heightMm: 2, angleDeg: 0 })
  })

  it('one that rises by 6 mm over 60 is steeper by atan(1/10), and farthest at its end', () => {
    const d = compareLines(
      flat([
        [50, 10, 60],
        [50, 16, 0],
      ]),
      level,
    )
    expect(d.angleDeg).toBeCloseTo((Math.atan(0.1) * 180) / Math.PI, 6)
    expect(d.greatestMm).toBeCloseTo(6, 6)
    expect(d.where).toEqual([50, 16, 0])
    expect(d.meanMm).toBeCloseTo(3, 1)
  })

  it('are walked at even steps, ends included', () => {
    const points = along(level)
    expect(points).toHaveLength(61)
    expect(points[0]).toEqual([50, 10, 60])
    expect(points[60]).toEqual([50, 10, 0])
    expect(points[1]![2]).toBeCloseTo(59, 9)
  })

  it('have a left and a right as seen from outside', () => {
    // Outward is +x, the way goes toward −z: seen from outside that is to the right, so left is up.
    expect(besidePath(level, [50, 14, 30])).toMatchObject({ side: 'left', distanceMm: 4 })
    expect(besidePath(level, [50, 5, 30])).toMatchObject({ side: 'right', distanceMm: 5 })
  })
})
