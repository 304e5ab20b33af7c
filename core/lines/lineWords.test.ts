/** What is told of lines, against where their sides lie on the built head. */
import type { SurfacePoint, Vec3 } from '../head/index.ts'
import { surfaceOf, usual } from '../testing/lines.ts'
import { compareLines } from './compareLines.ts'
import { linePath, LINE_KINDS, type KeepLine } from './keepLine.ts'
import { differenceWords, keptSideWords } from './lineWords.ts'

const SURFACE = surfaceOf()
const pathOf = (line: KeepLine) => linePath(SURFACE, line)
/** A straight path with one normal. */
const straight = (from: Vec3, to: Vec3, normal: Vec3): SurfacePoint[] =>
  [0, 0.25, 0.5, 0.75, 1].map((t) => ({
    normal,
    point: from.map((c, k) => c + t * (to[k]! - c)) as unknown as Vec3,
  }))
const OPPOSITE: Readonly<Record<string, string>> = {
  above: 'below',
  below: 'above',
  'in front': 'behind',
  behind: 'in front',
  outside: 'inside',
  inside: 'outside',
}

describe('the side of a line that is kept', () => {
  it('lies opposite its other side, for every usual line of both sides', () => {
    for (const kind of LINE_KINDS)
      for (const side of ['left', 'right'] as const) {
        const path = pathOf(usual(kind, side))
        const words = keptSideWords(path, 'left')
        expect(OPPOSITE[words]).toBe(keptSideWords(path, 'right'))
      }
  })

  it('is the same in words on both sides of a face: the twin is kept alike', () => {
    for (const kind of LINE_KINDS) {
      const [left, right] = [usual(kind, 'left'), usual(kind, 'right')]
      expect(keptSideWords(pathOf(left), left.keep)).toBe(keptSideWords(pathOf(right), right.keep))
    }
  })

  it('of a cheek line is what lies below it: the beard (common practice)', () => {
    const line = usual('cheek', 'left')
    expect(keptSideWords(pathOf(line), line.keep)).toBe('below')
  })

  it('is above or below where it runs level, in front or behind where it runs up, else inside or outside', () => {
    const FRONT: Vec3 = [0, 0, 1]
    const SIDE: Vec3 = [1, 0, 0]
    // Seen from in front, toward the client's left: up is on the left hand.
    expect(keptSideWords(straight([0, 0, 90], [40, 0, 90], FRONT), 'left')).toBe('above')
    expect(keptSideWords(straight([40, 0, 90], [0, 0, 90], FRONT), 'left')).toBe('below')
    // On the client's left cheek, upward.
    expect(keptSideWords(straight([70, -40, 20], [70, 20, 20], SIDE), 'left')).toBe('in front')
    expect(keptSideWords(straight([70, 20, 20], [70, -40, 20], SIDE), 'left')).toBe('behind')
    // On the forehead, upward beside the middle.
    expect(keptSideWords(straight([20, 60, 90], [20, 100, 90], FRONT), 'right')).toBe('outside')
    expect(keptSideWords(straight([20, 60, 90], [20, 100, 90], FRONT), 'left')).toBe('inside')
  })

  it('of a line that is only begun is its left or right', () => {
    expect(keptSideWords(undefined, 'left')).toBe('its left')
    expect(keptSideWords([{ point: [0, 0, 0], normal: [0, 0, 1] }], 'right')).toBe('its right')
  })
})

describe('a difference in words', () => {
  const where = (p: Vec3) => `at ${p[0]}`
  const d = { meanMm: 1.24, greatestMm: 3.06, where: [7, 0, 0] as Vec3, heightMm: 0, angleDeg: 0 }

  it('says how far, where most, and which lies higher or rises more', () => {
    expect(differenceWords({ ...d, heightMm: -1.2, angleDeg: 4.4 }, where, 'the other')).toBe(
      '1.2 mm on average, 3.1 mm at most (at 7); 1.2 mm lower, 4° steeper toward the back',
    )
    expect(differenceWords({ ...d, heightMm: 0.6, angleDeg: -2.6 }, where, 'x')).toContain(
      '0.6 mm higher, 3° flatter',
    )
  })

  it('calls nothing a difference that no hand could cut to', () => {
    expect(differenceWords({ ...d, heightMm: 0.04, angleDeg: 0.4 }, where, 'x')).toContain(
      'as high, same slope',
    )
    expect(differenceWords({ ...d, greatestMm: 0.04 }, where, 'last time')).toBe(
      'the same as last time',
    )
    const path = pathOf(usual('neck', 'left'))
    expect(differenceWords(compareLines(path, path), where, 'last time')).toBe(
      'the same as last time',
    )
  })
})
