import { hairShows } from '../hair/index.ts'
import { makePlan } from '../plan/index.ts'
import { SKIN } from '../testing/client.ts'
import { HEAD, ZONES } from '../testing/head.ts'
import { place, surfaceOf } from '../testing/lines.ts'
import { planInput } from '../testing/plan.ts'
import type { ZoneId } from '../zones/index.ts'
import { outlineCm2, outlineInside } from './outline.ts'
import { areaDownTo, FADE_EDGES, leastEdge } from './proposeArea.ts'

const records = new Map(ZONES.map((z) => [z.id, z]))

describe('the edge of a client’s own area', () => {
  const skin = { ...SKIN, faceHair: 'fuzz' as const }

  it('runs where hair shows least; of edges alike the highest', () => {
    const plain = leastEdge((z) => hairShows(z, skin, {}))
    expect(plain).toMatchObject({ edge: { id: 'jaw' }, alike: true })
    const hair = Object.fromEntries(
      ['jaw', 'under-chin'].flatMap((s) =>
        ['left', 'right'].map((side) => [`${s}-${side}`, { kind: 'mixed', density: 'dense' }]),
      ),
    )
    const thick = leastEdge((z) => hairShows(z, skin, hair))
    expect(thick).toMatchObject({ edge: { id: 'neck' }, alike: false })
    expect(thick.shows.jaw).toBeGreaterThan(thick.shows.neck)
  })

  it('hair that hardly stands out, or is grey or sparse, shows less', () => {
    const of = (hair: object, contrast?: 'low') =>
      hairShows(
        'jaw-left',
        { ...skin, ...(contrast && { contrast }) },
        {
          'jaw-left': hair,
        },
      )
    expect(of({ density: 'sparse' })).toBeLessThan(of({}))
    expect(of({ grey: 'most' })).toBeLessThan(of({}))
    expect(of({}, 'low')).toBeLessThan(of({}))
    expect(of({ density: 'none' })).toBe(0)
  })

  it.each(FADE_EDGES.map((e) => e.id))('encloses the face down to it: %s', (id) => {
    const inside = outlineInside(surfaceOf(), { taps: areaDownTo(id, records, place) })
    const cm2 = outlineCm2(HEAD.display, inside)
    expect(cm2).toBeGreaterThan(150)
    expect(cm2).toBeLessThan(600)
    const at = (zone: ZoneId) =>
      inside[surfaceOf().locator.nearest(records.get(zone)!.centre.point).triangle]
    expect(at('nose-tip')).toBe(1)
    expect(at('cheek-upper-left')).toBe(1)
    expect(at('occiput')).toBe(0)
    expect(at('neck-lower-left')).toBe(0)
  })

  it('a plan keeps inside it', () => {
    const taps = areaDownTo('jaw', records, place)
    const own = makePlan(
      planInput({
        service: 'dermaplane',
        outlines: [{ id: 'o', kind: 'own', taps, drawnAtMs: 1 }],
      }),
    )
    const whole = makePlan(planInput({ service: 'dermaplane' }))
    const area = (p: typeof own) => p.lanes.reduce((s, l) => s + l.areaCm2, 0)
    expect(own.trial).toBeUndefined()
    expect(area(own)).toBeLessThan(area(whole))
    expect(area(own)).toBeGreaterThan(0.5 * area(whole))
    expect(own.reasons[0]!.text).toMatch(/^Own area/)
  })
})

describe('places by wish', () => {
  it('under the eye: guarded, one pass, outward only, both sides', () => {
    const zones: ZoneId[] = ['under-eye-left', 'under-eye-right', 'nose-bridge', 'cheek-upper-left']
    const plan = makePlan(
      planInput({ jobs: [{ id: 'j', service: 'facial-razor', method: 'guarded', zones }] }),
    )
    const eye = plan.lanes.filter((l) => l.zoneId.startsWith('under-eye'))
    expect(eye.length).toBeGreaterThan(1)
    for (const l of eye) {
      expect(l.pass).toBe(1)
      expect(l.bladeId).toMatch(/guarded|brow-razor/)
      const side = l.zoneId.endsWith('left') ? 1 : -1
      expect(side * l.stroke[0]).toBeGreaterThan(0.4)
    }
    expect(plan.zones.map((z) => z.zoneId)).toContain('nose-bridge')
  })

  it('are no part of the whole service', () => {
    const whole = makePlan(planInput({ service: 'facial-razor' }))
    expect(whole.zones.some((z) => /eye|nose|neck/.test(z.zoneId))).toBe(false)
  })
})
