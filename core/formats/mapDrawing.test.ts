/** What of a map is drawn on paper: nothing that would claim more than was read. */
import { DEFAULTS } from '../house/index.ts'
import { HeadMap, readingFromBearing, toFieldReading, type FlowSummary } from '../grain/index.ts'
import { bearingOf } from '../head/index.ts'
import { HEAD, ZONES } from '../testing/head.ts'
import { isSkin, zoneStem, type ZoneId } from '../zones/index.ts'
import { mapDrawing } from './mapDrawing.ts'

const MAP = new HeadMap(DEFAULTS, HEAD, ZONES)
const byId = new Map(ZONES.map((z) => [z.id, z]))
const zoneOf = (id: ZoneId) => byId.get(id)
/** The cheek is read closely, all else is at most beside it. */
const readings = (byId.get('cheek-lower-left')!.samples ?? []).slice(0, 14).map((at, i) =>
  toFieldReading(
    DEFAULTS,
    readingFromBearing('cheek-lower-left', at, Math.PI, {
      ...{ id: `r${i}`, method: 'felt', atMs: 0 },
    }),
    0,
  ),
)
const SUMMARY = MAP.summary(readings)
const read = new Set<ZoneId>(['cheek-lower-left'])
const arrowOf = (d: ReturnType<typeof mapDrawing>, id: ZoneId) =>
  d.arrows.find((a) => a.zoneId === id)!
const flow = (
  over: Partial<FlowSummary['zones'][number]>,
): Pick<FlowSummary, 'zones' | 'whorls'> => ({
  zones: [
    {
      ...{ zoneId: 'chin', growthDirection: 2, meanResultantLength: 1, trust: 1, within: 15 },
      ...{ readInParts: false, ...over },
    },
  ],
  whorls: [],
})

describe('arrows of a map', () => {
  it('stand at the middle of their zones, for skin alone, and not in a brow that is drawn hair by hair', () => {
    const { arrows } = mapDrawing(zoneOf, SUMMARY)
    expect(arrows.length).toBeGreaterThan(5)
    for (const a of arrows) {
      expect(isSkin(a.zoneId)).toBe(true)
      expect(zoneStem(a.zoneId)).not.toBe('brow')
      expect(a.point).toEqual(zoneOf(a.zoneId)!.centre.point)
      expect(Math.hypot(...a.direction)).toBeCloseTo(1, 6)
      expect(a.lengthMm).toBeGreaterThanOrEqual(8)
      expect(a.lengthMm).toBeLessThanOrEqual(24)
    }
  })

  it('point where hair grows, and against it for rubbing (common practice)', () => {
    const grown = arrowOf(mapDrawing(zoneOf, flow({})), 'chin')
    const { point, normal } = grown
    expect(bearingOf('chin', point, normal, grown.direction)).toBeCloseTo(2, 5)
    const rubbed = arrowOf(mapDrawing(zoneOf, flow({}), 'exfoliate'), 'chin')
    rubbed.direction.forEach((c, k) => expect(c).toBeCloseTo(-grown.direction[k]!, 6))
    const first = arrowOf(mapDrawing(zoneOf, flow({}), 'first-pass'), 'chin')
    expect(first.direction).toEqual(grown.direction)
  })

  it('are dashed where the direction may be off by more than 15°, and absent where it is unknown', () => {
    expect(arrowOf(mapDrawing(zoneOf, flow({ within: 15 })), 'chin').unsure).toBe(false)
    expect(arrowOf(mapDrawing(zoneOf, flow({ within: 40 })), 'chin').unsure).toBe(true)
    expect(mapDrawing(zoneOf, flow({ within: undefined })).arrows).toEqual([])
    expect(mapDrawing(zoneOf, flow({ growthDirection: undefined })).arrows).toEqual([])
    expect(mapDrawing(() => undefined, flow({})).arrows).toEqual([])
  })

  it('on a card for the wall: larger, and nothing unsure that nobody read', () => {
    const card = (within: 15 | 40, own: ReadonlySet<ZoneId>) =>
      mapDrawing(zoneOf, flow({ within }), 'growth', [], true, own).arrows
    expect(card(15, new Set())).toHaveLength(1)
    expect(card(40, new Set())).toEqual([])
    expect(card(40, new Set(['chin']))[0]!.unsure).toBe(true)
    expect(card(15, new Set())[0]!.lengthMm).toBeGreaterThan(
      arrowOf(mapDrawing(zoneOf, flow({})), 'chin').lengthMm,
    )
    const whole = mapDrawing(zoneOf, SUMMARY, 'growth', [], true, read)
    expect(whole.arrows.length).toBeLessThanOrEqual(mapDrawing(zoneOf, SUMMARY).arrows.length)
    for (const a of whole.arrows) expect(a.unsure && !read.has(a.zoneId)).toBe(false)
  })
})

it('one reading of a zone, whoever made it, is an arrow of that zone on a card; beside it nothing unsure is', () => {
  // At its upper edge, below the lip.
  const upper = [...byId.get('chin')!.samples].sort((a, b) => b.point[1] - a.point[1])[0]!
  const chin = readingFromBearing('chin', upper, Math.PI, {
    ...{ id: 'c', method: 'felt', atMs: 0 },
  })
  for (const readerDeg of [5, 14, 24, 40]) {
    const summary = MAP.summary([{ ...toFieldReading(DEFAULTS, chin, 0), readerDeg }])
    // Half of the chin is farther off than one reading tells of.
    expect(summary.zones.find((z) => z.zoneId === 'chin')!.within).toBeUndefined()
    const { arrows } = mapDrawing(zoneOf, summary, 'exfoliate', [], true, new Set(['chin']))
    const own = arrows.find((a) => a.zoneId === 'chin')!
    expect(own.unsure).toBe(true)
    const { point, normal } = own
    expect(Math.cos(bearingOf('chin', point, normal, own.direction))).toBeGreaterThan(0.95)
    expect(arrows.filter((a) => a.unsure)).toEqual([own])
    expect(mapDrawing(zoneOf, summary).arrows.some((a) => a.zoneId === 'chin')).toBe(false)
  }
})

describe('what else is drawn', () => {
  it('whorls with the way they turn; where growth only meets there is no sign; lines as they are', () => {
    const at = { point: [0, 0, 0] as const, normal: [0, 0, 1] as const, triangle: 1 }
    const whorl = { ...at, zoneId: 'scalp-crown', kind: 'whorl', turn: 'clockwise' }
    const drawing = mapDrawing(
      zoneOf,
      { zones: [], whorls: [whorl, { ...whorl, kind: 'meeting' }] as never },
      'growth',
      [[at]],
    )
    expect(drawing.signs).toEqual([{ point: [0, 0, 0], normal: [0, 0, 1], turn: 'clockwise' }])
    expect(drawing.lines).toHaveLength(1)
  })
})
