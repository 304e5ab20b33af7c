/** The usual lines, each against where the trade lays it. Heights and lengths are those of the built head, a middling adult. */
import { distance, pathLength, type Vec3 } from '../head/index.ts'
import { HEAD } from '../testing/head.ts'
import { place, surfaceOf, usual } from '../testing/lines.ts'
import { ZONE_IDS, zoneStem } from '../zones/index.ts'
import { compareLines, mirrorPath } from './compareLines.ts'
import { besidePath, LINE_KINDS, linePath, type KeepLine, type LineKind } from './keepLine.ts'
import { SIDEBURN_CUTS, usualLine, type SideburnCut } from './usualLine.ts'

const paths = new Map<string, ReturnType<typeof linePath>>()
const pathOf = (kind: LineKind, side: 'left' | 'right' = 'left') => {
  const key = `${kind} ${side}`
  if (!paths.has(key)) paths.set(key, linePath(surfaceOf(), usual(kind, side)))
  return paths.get(key)!
}
const points = (kind: LineKind): Vec3[] => pathOf(kind).map((p) => p.point)
const heights = (kind: LineKind) => points(kind).map((p) => p[1])

/** Stems of which a line leaves skin on both of its sides, near to it. */
function parted(line: Pick<KeepLine, 'taps'>): string[] {
  const path = linePath(surfaceOf(), line)
  const { positions: p, indices, zones } = HEAD.display
  const sides = new Map<string, Set<string>>()
  for (let t = 0; t < zones.length; t++) {
    const at = [0, 1, 2].map(
      (k) => [0, 1, 2].reduce((s, c) => s + p[3 * indices[3 * t + c]! + k]!, 0) / 3,
    ) as unknown as Vec3
    if (at[0] < 0) continue
    const beside = besidePath(path, at)
    if (beside.distanceMm > 9 || beside.distanceMm < 1.5 || beside.beyond) continue
    const stem = zoneStem(ZONE_IDS[zones[t]!]!)
    sides.set(stem, (sides.get(stem) ?? new Set()).add(beside.side))
  }
  return [...sides].flatMap(([stem, s]) => (s.size === 2 ? [stem] : [])).sort()
}

describe('a usual line', () => {
  it.each([
    // Half the hairline, from the middle to before the ear.
    ['hairline', 120, 135],
    ['brow', 48, 58],
    ['brow-under', 48, 58],
    ['sideburn', 36, 48],
    ['cheek', 84, 100],
    ['neck', 95, 120],
    ['moustache', 32, 42],
    ['nape', 55, 72],
  ] as const)('%s is %d to %d mm long', (kind, least, most) => {
    const length = pathLength(pathOf(kind))
    expect(length).toBeGreaterThan(least)
    expect(length).toBeLessThan(most)
  })

  it.each([
    // Along the border of the scalp, through no zone.
    ['hairline', []],
    ['sideburn', ['sideburn']],
    ['cheek', ['cheek-lower', 'cheek-upper']],
    ['neck', ['neck-upper', 'under-chin', 'under-chin-centre']],
    ['nape', ['nape', 'nape-centre']],
  ] as const)('%s parts %j and nothing else', (kind, stems) => {
    expect(parted(usual(kind, 'left'))).toEqual(stems)
  })

  it('is alike on both sides within a millimetre, and never crosses itself', () => {
    for (const kind of LINE_KINDS) {
      const [left, right] = [pathOf(kind), pathOf(kind, 'right')]
      expect(compareLines(left, mirrorPath(right)).greatestMm).toBeLessThan(1)
      expect(usual(kind, 'left').keep).not.toBe(usual(kind, 'right').keep)
      // Places that are far apart along the line are apart on the skin.
      let gone = 0
      const along = left.map((p, i) => (gone += i ? distance(p.point, left[i - 1]!.point) : 0))
      left.forEach((p, i) =>
        left.forEach((q, j) => {
          if (along[j]! - along[i]! > 15) expect(distance(p.point, q.point)).toBeGreaterThan(8)
        }),
      )
    }
  })

  it('keeps of a place what a line is kept with, whatever else is known of it', () => {
    const rich = (near: Vec3) => ({ ...place(near), triangle: 7 })
    for (const kind of LINE_KINDS)
      for (const side of ['left', 'right'] as const)
        for (const tap of usualLine(kind, side, rich).taps)
          expect(Object.keys(tap).sort()).toEqual(['normal', 'point', 'zoneId'])
  })

  it('lies on the skin', () => {
    for (const kind of LINE_KINDS)
      for (const tap of usual(kind, 'left').taps)
        expect(distance(place(tap.point).point, tap.point)).toBeLessThan(0.05)
  })
})

describe('where they run', () => {
  it('a sideburn is cut level where it was asked for: at the top, the middle or the lobe of the ear', () => {
    for (const cut of Object.keys(SIDEBURN_CUTS) as SideburnCut[]) {
      const taps = usualLine('sideburn', 'left', place, cut).taps.map((t) => t.point)
      const level = taps.slice(-3)
      for (const p of level) expect(p[1]).toBeCloseTo(SIDEBURN_CUTS[cut], 0)
      // It runs back to the ear, over skin alone.
      expect(level[0]![2] - level[2]![2]).toBeGreaterThan(9)
    }
    // Never again over the tragus into the middle of the cheek.
    expect(Math.max(...points('sideburn').map((p) => p[2]))).toBeLessThan(30)
    expect(Math.min(...heights('sideburn'))).toBeGreaterThan(-12)
  })

  it('the neck line stands two fingers above the larynx and rises to behind the jaw’s angle', () => {
    const [middle] = usual('neck', 'left').taps
    const up = pathLength(linePath(surfaceOf(), { taps: [place([0, -140, 38]), middle!] }))
    // Two fingers laid flat are 30 to 36 mm (common practice; measured on no one).
    expect(up).toBeGreaterThan(29)
    expect(up).toBeLessThan(36)
    const last = points('neck').at(-1)!
    expect(last[1]).toBeGreaterThan(-85)
    expect(last[2]).toBeLessThan(-8)
  })

  it('the cheek line goes from beside the mouth to the sideburn, hanging a little, never below the mouth', () => {
    const p = points('cheek')
    expect(p[0]![0]).toBeGreaterThan(30)
    expect(p.at(-1)![1]).toBeGreaterThan(-20)
    expect(Math.min(...heights('cheek'))).toBeGreaterThan(-66)
    const middle = p[p.length >> 1]!
    const chord = [0, 1, 2].map((k) => (p[0]![k]! + p.at(-1)![k]!) / 2)
    expect(chord[1]! - middle[1]).toBeGreaterThan(1)
  })

  it('the edges of a brow run above each other and hold the brow between them', () => {
    const upper = usual('brow', 'left').taps
    usual('brow-under', 'left').taps.forEach((under, i) => {
      const gap = upper[i]!.point[1] - under.point[1]
      expect(gap).toBeGreaterThan(3)
      expect(gap).toBeLessThan(13)
    })
  })

  it('the moustache line stays above the lips, the nape is level', () => {
    for (const tap of usual('moustache', 'left').taps) expect(zoneStem(tap.zoneId)).not.toBe('lips')
    const nape = heights('nape')
    expect(Math.max(...nape) - Math.min(...nape)).toBeLessThan(2.5)
  })
})
