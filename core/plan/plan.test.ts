import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { hairIn, type SkinAndHair } from '../client.ts'
import { toRadians } from '../grain/circular.ts'
import { grainMap, readingFromBearing } from '../grain/readings.ts'
import { strokeAngle } from '../grain/relation.ts'
import { directionOf } from '../head/frames.ts'
import type { ZoneRecord } from '../head/head.ts'
import { DEFAULT_SCHOOLS, type Schools } from '../house/schools.ts'
import { priorGrowth } from '../regrowth/growth.ts'
import { RULES } from '../screening/rules.ts'
import { NOTHING_ASKED, screen, type Asked, type Spot } from '../screening/screen.ts'
import { SERVICE_IDS, serviceZones, type ServiceId } from '../services.ts'
import { priorSensitivity, SKIN_CONSTANTS } from '../skin/sensitivity.ts'
import { sagittaMm, usableWidthMm } from './bladeFit.ts'
import { smoothHours, stubbleLeftMm } from './closeness.ts'
import { acrossBearing, freeHand, stanceFor } from './hands.ts'
import { bladeLifeStrokes, makePlan, type PlanInput } from './makePlan.ts'

const ZONES = JSON.parse(readFileSync('generated/zones.json', 'utf8')) as ZoneRecord[]
const NO: Asked = {
  ...NOTHING_ASKED,
  answers: Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])),
}

interface Case {
  service?: ServiceId
  skin?: Partial<SkinAndHair>
  schools?: Partial<Schools>
  asked?: Asked
  hand?: 'left' | 'right'
  bearings?: Record<string, number>
}

function input({
  service = 'face-shave',
  skin,
  schools,
  asked = NO,
  hand = 'right',
  bearings = {},
}: Case = {}): PlanInput {
  const client: SkinAndHair = {
    reactivity: 'average',
    faceHair: 'beard',
    coarseness: 'medium',
    curl: 'straight',
    bumpProne: false,
    ...skin,
  }
  const house = { ...DEFAULT_SCHOOLS, ...schools }
  const readings = Object.entries(bearings).map(([zone, deg]) => {
    const record = ZONES.find((z) => z.id === zone)!
    return readingFromBearing(record.id, record.centre, toRadians(deg), {
      id: zone,
      method: 'felt',
      atMs: 0,
    })
  })
  return {
    service,
    zones: ZONES,
    grain: grainMap(readings, 0),
    client,
    screening: screen(service, asked, house, '2026-05-04', 0, 0),
    schools: house,
    hand,
    sensitivity: () => priorSensitivity(client.reactivity),
    growth: (z) => priorGrowth(z, hairIn(z, client.faceHair)),
  }
}
const plan = (c: Case = {}) => makePlan(input(c))

describe('what a pass buys (M8)', () => {
  it('leaves by the geometry: 27° pressed, 58.5° across, upright against', () => {
    expect(stubbleLeftMm(0)).toBeCloseTo(0.1 / Math.sin(toRadians(27)), 9)
    expect(stubbleLeftMm(Math.PI / 2)).toBeCloseTo(0.1 / Math.sin(toRadians(58.5)), 9)
    expect(stubbleLeftMm(Math.PI)).toBeCloseTo(0.1, 9)
  })

  it('never leaves more when the stroke turns further from the growth', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: Math.PI, noNaN: true }),
        fc.double({ min: 0, max: Math.PI, noNaN: true }),
        (a, b) => {
          const [near, far] = a < b ? [a, b] : [b, a]
          expect(stubbleLeftMm(far)).toBeLessThanOrEqual(stubbleLeftMm(near) + 1e-12)
        },
      ),
    )
  })

  it('says about nine hours for across on a cheek', () => {
    const gain =
      smoothHours(stubbleLeftMm(Math.PI / 2), 0.3, 0.5) - smoothHours(stubbleLeftMm(0), 0.3, 0.5)
    expect(gain).toBeGreaterThan(7.5)
    expect(gain).toBeLessThan(9.5)
    expect(smoothHours(0.6, 0.3, 0.5)).toBe(0)
  })
})

describe('blade fit (M6)', () => {
  // Plane geometry, recomputed.
  it.each([
    [20, 100, 0.501],
    [20, 20, 2.679],
    [40, 60, 3.431],
    [12, 20, 0.921],
  ])('an edge of %d mm on a radius of %d mm stands off %d mm', (w, r, s) => {
    expect(sagittaMm(w, r)).toBeCloseTo(s, 3)
  })

  it('uses just the width that stands off by the give', () => {
    for (const r of [15, 30, 60, 90]) {
      expect(sagittaMm(usableWidthMm(1000, r, 'soft'), r)).toBeCloseTo(0.8, 6)
      expect(sagittaMm(usableWidthMm(1000, r, 'bony'), r)).toBeCloseTo(0.4, 6)
    }
    expect(usableWidthMm(43, -200, 'soft')).toBe(43)
    expect(usableWidthMm(43, 10_000, 'soft')).toBe(43)
    expect(sagittaMm(50, 20)).toBe(Infinity)
  })
})

describe('hands', () => {
  it('a right-handed worker stands on the client’s right for both cheeks, a left-handed one on the left (common practice)', () => {
    expect(stanceFor('cheek-lower-left', 'right', 'razor').text).toContain('right')
    expect(stanceFor('cheek-lower-right', 'right', 'razor').text).toContain('right')
    expect(stanceFor('cheek-lower-left', 'left', 'razor').text).toContain('left')
    expect(stanceFor('forehead-left', 'right', 'fuzz').text).toContain('behind')
    expect(stanceFor('nose-bridge', 'right', 'fuzz').text).toContain('in front')
  })

  it('pulls against the stroke, and only lightly on a bump-prone neck', () => {
    expect(freeHand('cheek-lower-left', Math.PI, false, DEFAULT_SCHOOLS).pullBearing).toBeCloseTo(
      0,
      9,
    )
    expect(freeHand('neck-upper-left', Math.PI, true, DEFAULT_SCHOOLS).text).toContain('lightly')
    expect(
      freeHand('neck-upper-left', Math.PI, true, { ...DEFAULT_SCHOOLS, neckStretch: 'taut' }).text,
    ).toContain('against the stroke')
  })

  it('across runs away from the nearest lip, eye or ear', () => {
    const zone = ZONES.find((z) => z.id === 'upper-lip-left')!
    const lips = { name: 'lips', at: ZONES.find((z) => z.id === 'lips')!.centre.point }
    const { bearing, awayFrom } = acrossBearing(zone, toRadians(90), [lips])
    expect(awayFrom).toBe('lips')
    expect(directionOf(zone.id, zone.centre.point, zone.centre.normal, bearing)[1]).toBeGreaterThan(
      0.5,
    )
  })
})

describe('a plan', () => {
  it('is with, then across on an average beard, and says what the second pass buys and costs', () => {
    const cheek = plan().zones.find((z) => z.zoneId === 'cheek-lower-left')!
    expect(cheek.passes.map((p) => p.relation)).toEqual(['with', 'across'])
    expect(cheek.totalLoad).toBeCloseTo(2.6, 9)
    expect(cheek.reasons.some((r) => r.text.includes('load of 1.0 → 2.6'))).toBe(true)
  })

  it('refuses the second pass on reactive skin, with the odds', () => {
    const cheek = plan({ skin: { reactivity: 'reactive' } }).zones.find(
      (z) => z.zoneId === 'cheek-lower-left',
    )!
    expect(cheek.passes.map((p) => p.relation)).toEqual(['with'])
    expect(cheek.refused[0]).toMatchObject({ relation: 'across' })
    expect(cheek.refused[0]!.reason).toContain('limit is 20 %')
  })

  it('keeps a bump-prone beard with the grain, and a house of clippers from planning a razor', () => {
    for (const z of plan({ skin: { bumpProne: true }, schools: { beardPasses: 'with-against' } })
      .zones)
      expect(z.passes.every((p) => p.relation === 'with')).toBe(true)
    expect(() =>
      plan({ skin: { bumpProne: true }, schools: { bumpProneShave: 'clippers' } }),
    ).toThrow('clippers only')
  })

  it.each([
    ['one-across', ['across']],
    ['with-across', ['with', 'across']],
    ['with-only', ['with']],
    ['with-against', ['with', 'against']],
  ] as const)('follows the school %s on tough skin', (beardPasses, relations) => {
    const cheek = plan({ skin: { reactivity: 'tough' }, schools: { beardPasses } }).zones.find(
      (z) => z.zoneId === 'chin',
    )!
    expect(cheek.passes.map((p) => p.relation)).toEqual(relations)
  })

  it('shaves a head once across, within half an hour (common practice)', () => {
    const p = plan({ service: 'head-shave' })
    for (const z of p.zones) expect(z.passes.map((x) => x.relation)).toEqual(['across'])
    expect(p.totalMinutes).toBeLessThanOrEqual(30)
    expect(
      p.steps.filter((s) => s.strokes).reduce((s, x) => s + x.strokes!, 0) /
        bladeLifeStrokes('head-shave', input().client),
    ).toBeLessThan(2)
  })

  it('goes over fuzz once, at 45°; shaves at 30° (common practice)', () => {
    for (const service of ['dermaplane', 'facial-razor'] as const) {
      for (const z of plan({ service, skin: { faceHair: 'fuzz' } }).zones) {
        expect(z.passes).toHaveLength(1)
        expect(z.bladeAngleDeg).toBe(45)
      }
    }
    expect(plan().zones.every((z) => z.bladeAngleDeg === 30)).toBe(true)
  })

  it('starts flat and ends with chin and lip, or goes from the top down', () => {
    const order = (faceOrder: Schools['faceOrder']) =>
      plan({ schools: { faceOrder } }).zones.map((z) => z.zoneId)
    expect(order('flat-first')[0]).toMatch(/^cheek/)
    expect(order('flat-first').slice(-3)).toEqual(['chin', 'upper-lip-left', 'upper-lip-right'])
    expect(order('top-down')[0]).toMatch(/^cheek-upper/)
    expect(order('top-down').at(-1)).toMatch(/^neck-lower/)
  })

  it('leaves out what was marked: a spot’s area in the zone, or the zone', () => {
    const spot: Spot = {
      id: 's',
      kind: 'mole',
      zoneId: 'jaw-left',
      point: [0, 0, 0],
      normal: [1, 0, 0],
      radiusMm: 5,
    }
    const area = (asked: Asked) => plan({ asked }).zones.find((z) => z.zoneId === 'jaw-left')!
    expect(area(NO).areaCm2 - area({ ...NO, spots: [spot] }).areaCm2).toBeCloseTo(Math.PI, 6)
    expect(area({ ...NO, spots: [spot] }).avoid[0]).toContain('mole')
    const acne = plan({
      service: 'dermaplane',
      skin: { faceHair: 'fuzz' },
      asked: { ...NO, spots: [{ ...spot, kind: 'active-spot' }] },
    })
    expect(acne.leftOut.map((z) => z.zoneId)).toEqual(['jaw-left'])
    expect(acne.steps.some((s) => s.zoneId === 'jaw-left')).toBe(false)
  })

  it('is not made when asking has not cleared it', () => {
    const burnt = { ...NO, answers: { ...NO.answers, sunburn: { yes: true, date: '2026-05-03' } } }
    expect(() => plan({ asked: burnt })).toThrow('not cleared')
  })

  it('heeds "with the grain only" and "one pass"', () => {
    const flare = { ...NO, answers: { ...NO.answers, flare: { yes: true } } }
    for (const beardPasses of ['one-across', 'with-across', 'with-against'] as const)
      for (const z of plan({
        asked: flare,
        schools: { beardPasses },
        skin: { reactivity: 'tough' },
      }).zones)
        expect(z.passes.map((p) => p.relation)).toEqual(['with'])
    const thin = { ...NO, answers: { ...NO.answers, 'blood-thinners': { yes: true } } }
    expect(
      plan({ asked: thin, skin: { reactivity: 'tough' } }).zones.every(
        (z) => z.passes.length === 1,
      ),
    ).toBe(true)
  })

  it('follows the map: the stroke with the grain is the growth that was read', () => {
    const z = plan({ bearings: { 'neck-lower-left': 30 } }).zones.find(
      (x) => x.zoneId === 'neck-lower-left',
    )!
    expect(z.grainSource).toBe('read')
    expect(strokeAngle(z.passes[0]!.strokeBearing, toRadians(30))).toBeLessThan(1e-6)
  })
})

describe('every plan, whatever the client', () => {
  const anyCase = fc.record({
    service: fc.constantFrom(...SERVICE_IDS),
    skin: fc.record({
      reactivity: fc.constantFrom('tough', 'average', 'reactive'),
      faceHair: fc.constantFrom('beard', 'fuzz'),
      coarseness: fc.constantFrom('fine', 'medium', 'coarse'),
      curl: fc.constantFrom('straight', 'wavy', 'tight'),
      bumpProne: fc.boolean(),
    }),
    schools: fc.record({
      beardPasses: fc.constantFrom('with-across', 'one-across', 'with-against', 'with-only'),
      fuzzDirection: fc.constantFrom('with-growth', 'down-to-centre', 'toward-worker'),
      fuzzSlip: fc.constantFrom('dry', 'film', 'oil', 'damp'),
      faceOrder: fc.constantFrom('flat-first', 'top-down', 'most-work-first'),
    }),
    hand: fc.constantFrom('left', 'right'),
    bearings: fc.record({
      chin: fc.integer({ min: 0, max: 359 }),
      'cheek-lower-left': fc.integer({ min: 0, max: 359 }),
      occiput: fc.integer({ min: 0, max: 359 }),
    }),
  }) as fc.Arbitrary<Case>

  it('works each zone, keeps the limit after the first pass, gives reasons, adds up, and is the same twice', () => {
    fc.assert(
      fc.property(anyCase, (c) => {
        const p = plan(c)
        expect(plan(c)).toEqual(p)
        expect(p.zones.map((z) => z.zoneId).sort()).toEqual([...serviceZones(c.service!)].sort())
        expect(p.totalMinutes).toBeCloseTo(
          p.steps.reduce((s, x) => s + x.minutes, 0),
          9,
        )
        expect(new Set(p.steps.map((s) => s.id)).size).toBe(p.steps.length)
        for (const z of p.zones) {
          expect(z.reasons.length).toBeGreaterThan(0)
          expect(z.passes.length).toBeGreaterThan(0)
          for (const later of z.passes.slice(1))
            expect(later.rednessOdds).toBeLessThanOrEqual(SKIN_CONSTANTS.rednessLimit.value)
          expect(p.steps.filter((s) => s.zoneId === z.zoneId)).toHaveLength(z.passes.length)
          expect(z.usableWidthMm).toBeGreaterThan(0)
        }
        expect(JSON.parse(JSON.stringify(p))).toEqual(p)
      }),
      { numRuns: 60 },
    )
  })
})
