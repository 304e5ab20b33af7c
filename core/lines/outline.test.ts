/** Outlines over the head: what lies inside, however they are drawn; and the plan of what may be worked. */
import fc from 'fast-check'
import { makePlan } from '../plan/index.ts'
import { DEFAULTS } from '../house/index.ts'
import { makeSurface } from '../head/index.ts'
import { HEAD, ZONES } from '../testing/head.ts'
import { planInput } from '../testing/plan.ts'
import {
  drawnOutlines,
  outlineCm2,
  outlineInside,
  type Outline,
  outlinePath,
  outlineProblem,
  standingOutlines,
  usualStrip,
  workedOutlines,
} from './outline.ts'
import { placeOn } from './usualLine.ts'

const surface = makeSurface(HEAD.display)
const place = placeOn(surface)
const zone = (id: string) => ZONES.find((z) => z.id === id)!
const strip = (id: string, kind: Outline['kind'] = 'trial'): Outline => ({
  ...{ id: 'o', kind, drawnAtMs: 1 },
  taps: usualStrip(zone(id), place),
})

describe('an outline', () => {
  it('encloses what its sides say: 36 by 22 mm of cheek are about 8 cm²', () => {
    for (const id of ['cheek-lower-left', 'jaw-left', 'forehead-right']) {
      const cm2 = outlineCm2(surface.mesh, outlineInside(surface, strip(id)))
      expect(cm2).toBeGreaterThan(6.5)
      expect(cm2).toBeLessThan(10.5)
    }
  })

  it('is the same whichever way round it is drawn, and wherever it begins', () => {
    const { taps } = strip('cheek-lower-left')
    const inside = outlineInside(surface, { taps })
    const area = outlineCm2(surface.mesh, inside)
    const back = outlineInside(surface, { taps: [...taps].reverse() })
    const on = outlineInside(surface, { taps: [...taps.slice(2), ...taps.slice(0, 2)] })
    for (const other of [back, on]) {
      const apart = inside.reduce((n, x, t) => n + (x === other[t] ? 0 : 1), 0)
      expect(apart).toBeLessThanOrEqual(4)
      expect(Math.abs(outlineCm2(surface.mesh, other) - area)).toBeLessThan(0.3)
    }
  })

  it('keeps its middle inside and the other side of the head outside, for strips anywhere on the face', () => {
    const ids = ['cheek-upper-left', 'cheek-lower-right', 'jaw-right', 'forehead-centre', 'chin']
    fc.assert(
      fc.property(
        fc.constantFrom(...ids),
        fc.double({ min: 0.6, max: 1.6, noNaN: true }),
        (id, k) => {
          const { point } = zone(id).centre
          const taps = usualStrip(zone(id), place).map((t) => {
            const p = t.point.map((x, i) => point[i]! + k * (x - point[i]!))
            return place(p as never)
          })
          const inside = outlineInside(surface, { taps })
          const { triangle } = surface.locator.nearest(point)
          expect(inside[triangle]).toBe(1)
          const far = surface.locator.nearest([point[0], 90, -60]).triangle
          expect(inside[far]).toBe(0)
          const area = outlineCm2(surface.mesh, inside)
          expect(area / (k * k)).toBeGreaterThan(5)
          expect(area / (k * k)).toBeLessThan(13)
        },
      ),
      { numRuns: 12 },
    )
  })

  it('closes only with three places, and says so', () => {
    const { taps } = strip('chin')
    expect(() => outlineInside(surface, { taps: taps.slice(0, 2) })).toThrow(/three places/)
    expect(drawnOutlines(() => surface, [{ ...strip('chin'), taps: taps.slice(0, 2) }])).toEqual([])
    const one = [taps[0]!, taps[0]!, taps[0]!]
    expect(() => outlineInside(surface, { taps: one })).toThrow(/encloses no skin/)
    const path = outlinePath(surface, { taps })
    expect(Math.hypot(...path[0]!.point.map((x, i) => x - path.at(-1)!.point[i]!))).toBeLessThan(
      1e-6,
    )
  })

  it('says where a trial strip is no strip any more', () => {
    expect(outlineProblem(DEFAULTS, 'trial', 8)).toBeUndefined()
    expect(outlineProblem(DEFAULTS, 'trial', 31)).toMatch(/at most 20 cm², this is 31/)
    expect(outlineProblem(DEFAULTS, 'own', 310)).toBeUndefined()
    expect(outlineProblem(DEFAULTS, 'own', 0.4)).toMatch(/too little skin/)
  })

  it('a trial strip goes before an own area; what rested until today rests no more', () => {
    const all = [strip('chin', 'own'), strip('jaw-left'), strip('chin', 'rest')]
    expect(workedOutlines(all).map((o) => o.kind)).toEqual(['trial'])
    expect(workedOutlines(all.slice(0, 1)).map((o) => o.kind)).toEqual(['own'])
    const rest = { ...strip('chin', 'rest'), until: '2026-05-20' }
    expect(standingOutlines([rest], '2026-05-19')).toHaveLength(1)
    expect(standingOutlines([rest], '2026-05-20')).toHaveLength(0)
  })
})

describe('a plan inside an outline', () => {
  const whole = makePlan(planInput({ service: 'dermaplane' }))

  it('works a trial strip and nothing else', () => {
    const outlines = [strip('jaw-left')]
    const plan = makePlan(planInput({ service: 'dermaplane', outlines }))
    const cm2 = plan.lanes.filter((l) => l.pass === 1).reduce((s, l) => s + l.areaCm2, 0)
    const inside = outlineCm2(surface.mesh, outlineInside(surface, outlines[0]!))
    expect(plan.trial).toBe(true)
    expect(cm2).toBeLessThanOrEqual(inside + 0.5)
    expect(cm2).toBeGreaterThan(0.6 * inside)
    expect(plan.totalMinutes).toBeLessThan(whole.totalMinutes)
    expect(plan.reasons[0]!.text).toMatch(/^Trial strip: only what lies inside/)
    expect(whole.trial).toBeUndefined()
  })

  it('refuses a strip so wide that it would be the service itself', () => {
    const { point } = zone('cheek-lower-left').centre
    const taps = usualStrip(zone('cheek-lower-left'), place).map((t) =>
      place(t.point.map((x, i) => point[i]! + 2 * (x - point[i]!)) as never),
    )
    expect(() =>
      makePlan(planInput({ service: 'dermaplane', outlines: [{ ...strip('chin'), taps }] })),
    ).toThrow(/A trial strip is small: at most 20 cm²/)
  })

  it('leaves alone what rests, and says until when', () => {
    const taps = usualStrip(zone('chin'), place).map((t) => {
      const at = zone('chin').centre.point
      return place(t.point.map((x, i) => at[i]! + 2.4 * (x - at[i]!)) as never)
    })
    const rest: Outline = { id: 'r', kind: 'rest', taps, drawnAtMs: 1, until: '2026-06-01' }
    const plan = makePlan(planInput({ service: 'dermaplane', outlines: [rest] }))
    expect(plan.trial).toBeUndefined()
    const area = (p: typeof plan) =>
      p.lanes.filter((l) => l.zoneId === 'chin').reduce((s, l) => s + l.areaCm2, 0)
    expect(area(plan)).toBeLessThan(0.5 * area(whole))
    const chin = plan.leftOut.find((z) => z.zoneId === 'chin')
    if (area(plan) === 0) expect(chin?.reason).toMatch(/Rests until 2026-06-01/)
  })

  it('refuses an outline that holds nothing of the service', () => {
    expect(() =>
      makePlan(planInput({ service: 'dermaplane', outlines: [strip('occiput')] })),
    ).toThrow(/inside the outline/)
  })
})
