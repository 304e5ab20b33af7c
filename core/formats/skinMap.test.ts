import { XMLParser, XMLValidator } from 'fast-xml-parser'
import { HEAD } from '../testing/head.ts'
import { flatView } from '../head/index.ts'
import { SPOT_KINDS } from '../looks/index.ts'
import { REDNESS_COLOURS } from '../palette.ts'
import { placeSpots, rednessTint, skinMapSvg, SPOT_SHAPES, tintedZones } from './skinMap.ts'

const front = flatView(HEAD.display, 'front')
const spot = (id: string, z: number) => ({
  id,
  kind: 'bump' as const,
  zoneId: 'chin',
  point: [0, -60, 90 * z] as const,
  normal: [0, 0, z] as const,
})

describe('the map of a skin', () => {
  it('tints only what it is told to, by the five steps', () => {
    const tinted = tintedZones(front, (z) => (z === 'chin' ? rednessTint(3) : undefined))
    expect(tinted.map((z) => [z.zoneId, z.colour])).toEqual([['chin', REDNESS_COLOURS[3]]])
    expect(tinted[0]!.d).toMatch(/^M[\d.]/)
    expect(rednessTint(0).opacity).toBeLessThan(rednessTint(1).opacity)
    expect(rednessTint(9).colour).toBe(REDNESS_COLOURS[4])
  })

  it('shows spots that face the viewer, in their place, and hides those behind', () => {
    const placed = placeSpots(front, [spot('here', 1), spot('behind', -1)])
    expect(placed.map((s) => s.id)).toEqual(['here'])
    // On the midline, below the middle of the head.
    expect(placed[0]!.x).toBeCloseTo(front.widthMm / 2, 0)
    expect(placed[0]!.y).toBeGreaterThan(front.heightMm / 2)
  })

  it('is an SVG document with a shape of its own for every kind of spot', () => {
    const spots = SPOT_KINDS.map((kind, i) => ({ id: kind, kind, x: 40 + 9 * i, y: 60 }))
    const svg = skinMapSvg(
      front,
      tintedZones(front, () => rednessTint(1)),
      spots,
    )
    expect(XMLValidator.validate(svg)).toBe(true)
    const parsed = new XMLParser({ ignoreAttributes: false }).parse(svg) as {
      svg: { g: unknown[] }
    }
    expect(parsed.svg.g).toHaveLength(SPOT_KINDS.length)
    expect(new Set(SPOT_KINDS.map((k) => SPOT_SHAPES[k].d)).size).toBe(SPOT_KINDS.length)
  })
})
