/** Beside eyes, lips, nostrils, ears and brows: no stroke with the grain runs at them (common practice). */
import { DEFAULTS } from '../house/index.ts'
import { dot, tangentPart, unit, type Vec3 } from '../head/index.ts'
import { BEARD_LINES, BROW_LINES, HIGH_MOUSTACHE } from '../testing/lines.ts'
import { many } from '../testing/many.ts'
import { planInput, randomMap } from '../testing/plan.ts'
import type { ServiceId, Style } from '../services/index.ts'
import { unpackCover } from './cover.ts'
import { alongEdge, edgeBand, EDGE_CONSTANTS } from './edges.ts'
import { makePlan } from './makePlan.ts'
import { zoneSkinOf } from './outline.ts'
import { vec } from './pressBlocks.ts'
import type { Plan } from './types.ts'

const C = EDGE_CONSTANTS
const COS = Math.cos(Math.PI / 3)

/** Skin of each pass that a stroke runs at an edge over, cm², by "edge pass", and all that lies beside one. */
function runsAt(service: ServiceId, seed: number, c: Parameters<typeof planInput>[0] = {}) {
  const input = planInput({
    service,
    flow: randomMap(seed, service),
    ...(service === 'brow-tidy' && { keepLines: BROW_LINES }),
    ...c,
  })
  const plan = makePlan(input)
  const out = new Map<string, number>()
  let beside = 0
  for (const zone of plan.zones) {
    const skin = zoneSkinOf(input, zone.zoneId)
    const band = edgeBand(input.ground, skin, DEFAULTS(C.bandMm))
    if (!band) continue
    const cover = unpackCover(zone.cover)
    for (const lane of plan.lanes.filter((l) => l.zoneId === zone.zoneId)) {
      cover.forEach((letter, cell) => {
        const name = band.name[cell]
        if (letter !== lane.letter || !name) return
        const area = skin.areaCm2[cell]!
        if (lane.pass === 1) beside += area
        const stroke = unit(tangentPart(lane.stroke, vec(skin.normal, cell)))
        if (dot(stroke, vec(band.way, cell)) < COS) return
        const key = `${name} ${lane.pass}`
        out.set(key, (out.get(key) ?? 0) + area)
      })
    }
  }
  return { plan, out, beside }
}

const all = (m: ReadonlyMap<string, number>) => [...m.values()].reduce((s, a) => s + a, 0)

describe('beside an edge', () => {
  const along = (service: ServiceId, style: Style, seeds: readonly number[]) => {
    for (const seed of seeds) {
      const { out, beside } = runsAt(service, seed, {
        choice: { style },
        skin: { reactivity: 'tough', faceHair: service === 'face-shave' ? 'beard' : 'fuzz' },
      })
      const first = [...out].filter(([key]) => key.endsWith(' 1'))
      // A stroke is straight and an edge is not: what is left over is a strip at the bends.
      expect(all(new Map(first))).toBeLessThan(Math.max(0.5, 0.12 * beside))
      for (const [key, area] of out)
        expect({ key, small: area < 3.5 }).toEqual({ key, small: true })
    }
  }

  it('hardly any stroke of a face shave runs at an eye, a lip, an ear or a brow', () =>
    along('face-shave', 'closest', [3]))
  many('and so on other maps', () => along('face-shave', 'closest', [11, 29]))
  many.each(['dermaplane', 'facial-razor', 'brow-tidy', 'head-shave'] as const)(
    'nor of a %s',
    (service) => along(service, 'balanced', [3, 11, 29]),
  )

  it('strokes there run along, and that is said', () => {
    const { plan } = runsAt('dermaplane', 3, { skin: { faceHair: 'fuzz' } })
    const said = (p: Plan) =>
      p.lanes.filter((l) =>
        l.reasons.some((r) => /^Beside the \w+ no stroke runs at it/.test(r.text)),
      )
    expect(said(plan).length).toBeGreaterThan(2)
    for (const lane of said(plan)) expect(lane.relation).not.toBe('against')
  })

  it.each([
    ['face-shave', 'right'],
    ['dermaplane', 'right'],
    ['dermaplane', 'left'],
  ] as const)(
    'of who is bump-prone stay with the grain: %s, blade in the %s hand',
    (service, hand) => {
      const beside = (bumpProne: boolean) => {
        const faceHair = service === 'dermaplane' ? 'fuzz' : 'beard'
        return runsAt(service, 3, { hand, skin: { bumpProne, faceHair } }).plan.lanes.filter(
          (l) => l.pass === 1 && l.reasons.some((r) => /^Beside the/.test(r.text)),
        )
      }
      const [prone, not] = [beside(true), beside(false)]
      expect(prone.length).toBeGreaterThan(1)
      expect(new Set(prone.map((l) => l.relation))).toEqual(new Set(['with']))
      // Others are stroked along the edge, which mostly is across.
      expect(not.some((l) => l.relation === 'across')).toBe(true)
    },
  )

  it('a hand may turn a stroke, but not at an edge', () => {
    const c = { skin: { faceHair: 'fuzz' } } as const
    const { plan } = runsAt('dermaplane', 3, c)
    const edits = Object.fromEntries(
      plan.lanes.map((l, i) => [l.id, { way: i % 2 ? 'with' : 'across-clockwise' }] as const),
    )
    const {
      out,
      beside,
      plan: turned,
    } = runsAt('dermaplane', 3, {
      ...c,
      choice: { edits },
    })
    expect(turned.lanes.every((l) => l.edited)).toBe(true)
    expect(all(out)).toBeLessThan(0.2 * beside)
  })

  it('the razor of a line-up stays with the grain there, too', () => {
    const { plan } = runsAt('beard-line', 3, {
      // A moustache that ends higher leaves skin of the upper lip to be shaved; the usual one leaves none.
      keepLines: [...BEARD_LINES, ...HIGH_MOUSTACHE],
    })
    const razor = plan.lanes.filter((l) => l.bladeId !== 'trimmer')
    expect(razor.some((l) => l.zoneId.startsWith('upper-lip'))).toBe(true)
    expect(new Set(razor.map((l) => l.relation))).toEqual(new Set(['with']))
  })

  it('a stroke is turned only where it would run at the edge, and slanted where it must stay with the grain', () => {
    const n: Vec3 = [0, 0, 1]
    const beside = { name: 'lips', way: [0, -1, 0] as Vec3 }
    const at = (deg: number): Vec3 => {
      const a = (deg * Math.PI) / 180
      return [Math.sin(a), -Math.cos(a), 0]
    }
    expect(alongEdge(at(70), at(70), n, beside, false)).toBeUndefined()
    const along = alongEdge(at(20), at(20), n, beside, false)!
    expect(dot(along, beside.way)).toBeCloseTo(0, 9)
    expect(along[0]).toBeGreaterThan(0.99)
    const slanted = alongEdge(at(20), at(20), n, beside, true)!
    expect(Math.acos(dot(slanted, at(20)))).toBeLessThanOrEqual(Math.PI / 4 + 1e-9)
    expect(Math.acos(dot(slanted, beside.way))).toBeCloseTo(Math.PI / 3, 9)
    // Straight at it the two ways along are the same but for the side: outward.
    expect(alongEdge(at(0), at(0), [0.3, 0, 1], beside, false)![0]).toBeGreaterThan(0.9)
    expect(alongEdge(at(0), at(0), [-0.3, 0, 1], beside, false)![0]).toBeLessThan(-0.9)
  })
})
