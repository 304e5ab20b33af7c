import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { hairIn } from '../client.ts'
import { grainMap } from '../grain/readings.ts'
import type { ZoneRecord } from '../head/head.ts'
import { zoneStem } from '../head/zones.ts'
import { DEFAULT_SCHOOLS, SCHOOLS, type Schools } from '../house/schools.ts'
import { priorGrowth } from '../regrowth/growth.ts'
import { RULES } from '../screening/rules.ts'
import { NOTHING_ASKED, screen } from '../screening/screen.ts'
import { SERVICE_IDS, SERVICES, serviceZones, type ServiceId } from '../services.ts'
import { priorSensitivity } from '../skin/sensitivity.ts'
import { makePlan } from './makePlan.ts'
import { orderZones } from './order.ts'
import { ROUTINE_CONSTANTS } from './routine.ts'
import type { ZonePlan } from './types.ts'

const ZONES = JSON.parse(readFileSync('generated/zones.json', 'utf8')) as ZoneRecord[]
const NO = {
  ...NOTHING_ASKED,
  answers: Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])),
}
const client = {
  reactivity: 'tough',
  faceHair: 'beard',
  coarseness: 'medium',
  curl: 'straight',
  bumpProne: false,
} as const

function plan(service: ServiceId, schools: Partial<Schools> = {}) {
  const house = { ...DEFAULT_SCHOOLS, ...schools }
  return makePlan({
    service,
    zones: ZONES,
    grain: grainMap([], 0),
    client,
    screening: screen(service, NO, house, '2026-05-04', 0, 0),
    schools: house,
    hand: 'right',
    sensitivity: () => priorSensitivity(client.reactivity),
    growth: (z) => priorGrowth(z, hairIn(z, client.faceHair)),
  })
}
const height = (id: string) => ZONES.find((z) => z.id === id)!.centre.point[1]
const FACE_ORDERS = SCHOOLS.faceOrder.choices.map((c) => c.id)

describe('the order of zones', () => {
  it('keeps every zone once, for each service and school, whatever order they come in', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...SERVICE_IDS),
        fc.constantFrom(...FACE_ORDERS),
        fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })),
        (service, faceOrder, keys) => {
          const zones = plan(service, { faceOrder }).zones
          const shuffled = [...zones]
            .map((z) => ({ z, key: keys.next().value as number }))
            .sort((a, b) => a.key - b.key)
            .map(({ z }) => z)
          const ordered = orderZones(
            shuffled,
            { ...DEFAULT_SCHOOLS, faceOrder },
            SERVICES[service].family,
            service,
          )
          expect(ordered.map((z) => z.zoneId).sort()).toEqual([...serviceZones(service)].sort())
          expect(ordered.map((z) => z.zoneId)).toEqual(zones.map((z) => z.zoneId))
        },
      ),
      { numRuns: 40 },
    )
  })

  it('flat first: one side whole, the middle, the other side; mouth and chin wait to the end (common practice)', () => {
    const ids = plan('face-shave').zones.map((z) => z.zoneId)
    const last = ['mouth-corner', 'under-lip', 'chin', 'upper-lip']
    const flat = ids.filter((id) => !last.includes(zoneStem(id)))
    expect(ids.slice(0, flat.length)).toEqual(flat)
    const sides = flat.map((id) =>
      id.endsWith('-left') ? 'left' : id.endsWith('-right') ? 'right' : 'middle',
    )
    expect(sides.filter((s, i) => s !== sides[i - 1])).toEqual(['left', 'middle', 'right'])
    expect(zoneStem(ids[0]!)).toBe('cheek-lower')
    expect(ids.at(-1)).toMatch(/^upper-lip/)
  })

  it('top down: nothing above the mouth comes after anything under the jaw', () => {
    for (const service of ['face-shave', 'dermaplane'] as const) {
      const ids = plan(service, { faceOrder: 'top-down' }).zones.map((z) => z.zoneId)
      const firstLow = ids.findIndex((id) => /^(under-chin|neck)/.test(zoneStem(id)))
      const cheek = ids.findLastIndex((id) => /^(cheek|forehead|temple|nose)/.test(zoneStem(id)))
      if (firstLow >= 0) expect(cheek).toBeLessThan(firstLow)
      expect(height(ids[0]!)).toBeGreaterThan(height(ids.at(-1)!))
    }
  })

  it('most work first: begins on the side with more to do', () => {
    const zones = plan('face-shave').zones
    const heavy = (side: string): ZonePlan[] =>
      zones.map((z) => (z.zoneId.endsWith(side) ? { ...z, areaCm2: z.areaCm2 * 2 } : z))
    const first = (side: string) =>
      orderZones(
        heavy(side),
        { ...DEFAULT_SCHOOLS, faceOrder: 'most-work-first' },
        'razor',
        'face-shave',
      )[0]!.zoneId
    expect(first('-left')).toMatch(/-left$/)
    expect(first('-right')).toMatch(/-right$/)
  })

  it('shaves the top of a head first and the nape last (common practice)', () => {
    const ids = plan('head-shave').zones.map((z) => zoneStem(z.zoneId))
    expect(ids[0]).toBe('scalp-front')
    expect(ids.at(-1)).toMatch(/^nape/)
  })
})

describe('the steps of a service', () => {
  it.each(SERVICE_IDS)(
    '%s begins with clean hands, ends with soothing, checks before it closes',
    (service) => {
      const kinds = plan(service).steps.map((s) => s.kind)
      expect(kinds[0]).toBe('prepare')
      expect(kinds.at(-1)).toBe('close')
      expect(kinds.indexOf('check')).toBeGreaterThan(kinds.lastIndexOf('stroke'))
      expect(kinds.lastIndexOf('prepare')).toBeLessThan(kinds.indexOf('stroke'))
      expect(kinds.indexOf('close')).toBeGreaterThan(kinds.indexOf('check'))
    },
  )

  it('finishes a pass everywhere before the next begins, and lathers between them', () => {
    const { steps } = plan('face-shave')
    const passes = steps.filter((s) => s.kind === 'stroke').map((s) => s.pass!)
    expect(passes).toEqual([...passes].sort())
    expect(new Set(passes).size).toBe(2)
    const between = steps.findIndex((s) => s.id === 'lather:2')
    expect(steps.slice(between).filter((s) => s.pass === 1)).toEqual([])
    expect(steps.slice(0, between).filter((s) => s.pass === 2)).toEqual([])
  })

  it('asks before a towel is laid, at no more than the house allows, and keeps one back', () => {
    const towel = plan('head-shave').steps.find((s) => s.id === 'prepare:towel')!
    expect(towel.text).toContain(`${ROUTINE_CONSTANTS.towelAtMostC.value} °C`)
    expect(towel.text).toContain('ask the client')
    expect(plan('dermaplane').steps.some((s) => s.id === 'prepare:towel')).toBe(false)
  })

  it.each(SCHOOLS.fuzzSlip.choices.map((c) => [c.id] as const))(
    'prepares fuzz as the school says: %s',
    (fuzzSlip) => {
      const surface = plan('dermaplane', { fuzzSlip }).steps.find(
        (s) => s.id === 'prepare:surface',
      )!
      const words = {
        dry: 'De-oil and dry',
        film: 'Thin film',
        oil: 'Oil or jelly',
        damp: 'Damp skin',
      }
      expect(surface.title).toBe(words[fuzzSlip])
    },
  )

  it('takes longer for each change of stance and each turn of the head', () => {
    const strokes = plan('face-shave').steps.filter((s) => s.kind === 'stroke')
    const twins = strokes.filter((s, i) => {
      const before = strokes[i - 1]
      return before && before.headTurn === s.headTurn && before.stance!.hour === s.stance!.hour
    })
    expect(twins.length).toBeGreaterThan(0)
    expect(strokes.length - twins.length).toBeGreaterThan(2)
    for (const s of strokes) expect(s.minutes).toBeGreaterThan(0)
  })
})
