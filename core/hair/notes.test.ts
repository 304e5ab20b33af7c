/** What Read notes besides the grain, and that what is kept is never in a plan. */
import { oneJob } from '../services/index.ts'
import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { makePlan } from '../plan/index.ts'
import {
  carriedMarks,
  markAreas,
  markMargin,
  markZones,
  screen,
  type Asked,
  type SkinMark,
} from '../screening/index.ts'
import { ZONES } from '../testing/head.ts'
import { planInput, type PlanCase } from '../testing/plan.ts'
import { SKIN } from '../testing/client.ts'
import { hairWords, plannedHair } from './layer.ts'

const cheek = ZONES.find((z) => z.id === 'cheek-lower-left')!
const spot = (over: Partial<SkinMark> = {}): SkinMark => ({
  id: 's',
  kind: 'mole',
  zoneId: cheek.id,
  ...cheek.centre,
  radiusMm: 4,
  ...over,
})
const plan = (notes: PlanCase['notes'] = {}, spots: SkinMark[] = []) =>
  makePlan(planInput({ notes, spots }))
const zoneIn = (p: ReturnType<typeof plan>, id: string) => p.zones.find((z) => z.zoneId === id)

describe('what is kept', () => {
  it('is never in a plan: a kept zone, a zone without hair', () => {
    for (const notes of [
      { keptZones: [cheek.id] },
      { hair: { [cheek.id]: { density: 'none' as const } } },
    ]) {
      const p = plan(notes)
      expect(zoneIn(p, cheek.id)).toBeUndefined()
      expect(p.steps.some((s) => s.zoneId === cheek.id)).toBe(false)
      expect(p.leftOut.map((l) => l.zoneId)).toContain(cheek.id)
    }
  })
})

describe('the hair layer', () => {
  it('overrules what was told at Ask, zone by zone', () => {
    expect(plannedHair(cheek.id, SKIN, {})).toBe('beard')
    expect(plannedHair(cheek.id, SKIN, { [cheek.id]: { kind: 'vellus' } })).toBe('vellus')
    const fuzz = { ...SKIN, faceHair: 'fuzz' as const }
    expect(plannedHair(cheek.id, fuzz, { [cheek.id]: { kind: 'mixed' } })).toBe('beard')
    expect(plannedHair(cheek.id, fuzz, { [cheek.id]: { coarseness: 'fine' } })).toBe('vellus')
  })

  it('is told in words', () => {
    expect(
      hairWords({ kind: 'terminal', coarseness: 'coarse', density: 'sparse', grey: 'some' }),
    ).toBe('terminal, coarse, sparse, some grey')
    expect(hairWords({ density: 'none', grey: 'none' })).toBe('no hair')
  })

  it('has strays tweezed before the blade, once for all', () => {
    const stray = (id: string) => ({ id, zoneId: cheek.id, ...cheek.centre })
    const p = plan({ strays: [stray('a'), stray('b')] })
    const at = p.steps.findIndex((s) => s.id === 'prepare:tweeze')
    expect(p.steps[at]!.text).toContain('2 strays')
    expect(at).toBeLessThan(p.steps.findIndex((s) => s.kind === 'stroke'))
    expect(p.steps.filter((s) => s.id === 'prepare:tweeze')).toHaveLength(1)
    expect(plan().steps.some((s) => s.id === 'prepare:tweeze')).toBe(false)
  })
})

describe('marks', () => {
  it('take a disc with their margin from the zone (π r²)', () => {
    expect(markMargin(DEFAULTS, spot())).toBe(5)
    expect(markMargin(DEFAULTS, spot({ marginMm: 0 }))).toBe(0)
    expect(markAreas(DEFAULTS, spot({ marginMm: 6 }))[cheek.id]).toBeCloseTo(Math.PI, 9)
    const whole = zoneIn(plan(), cheek.id)!.areaCm2
    const left = zoneIn(plan({}, [spot({ marginMm: 6 })]), cheek.id)!
    // The skin's small cells are taken out whole: the disc, and not much more.
    expect(whole - left.areaCm2).toBeGreaterThan(Math.PI)
    expect(whole - left.areaCm2).toBeLessThan(1.7 * Math.PI)
    expect(left.avoid.join()).toContain('leave 10 mm round it')
  })

  it('painted, take the band the brush swept from every zone it passed', () => {
    const along = [0, 10, 20, 30].map((dx) => ({
      zoneId: dx < 20 ? cheek.id : ('jaw-left' as const),
      point: [cheek.centre.point[0] + dx, cheek.centre.point[1], cheek.centre.point[2]] as const,
      normal: cheek.centre.normal,
    }))
    const patch = spot({ kind: 'scar', trail: along, radiusMm: 5, marginMm: 0 })
    const areas = markAreas(DEFAULTS, patch)
    // A band 30 long and 10 wide with two half discs of radius 5.
    expect(areas[cheek.id]! + areas['jaw-left']!).toBeCloseTo(3 + 0.25 * Math.PI, 9)
    expect(areas['jaw-left']).toBeCloseTo(areas[cheek.id]!, 9)
    expect(markZones(patch)).toEqual([cheek.id, 'jaw-left'])
    const p = plan({}, [patch])
    for (const id of markZones(patch)) expect(zoneIn(p, id)!.avoid.join()).toContain('the patch')
    // To and fro covers no more than once.
    const rubbed = spot({
      ...patch,
      trail: [...along, ...[...along].reverse(), ...along, ...along],
    })
    const total = Object.values(markAreas(DEFAULTS, rubbed)).reduce((s, a) => s + a, 0)
    expect(total).toBeLessThanOrEqual((Math.PI * 35 ** 2) / 100 + 1e-9)
  })

  it('painted over two zones, leave both out of a fuzz service when they are active', () => {
    const trail = (['cheek-lower-left', 'chin'] as const).map((zoneId) => ({
      zoneId,
      ...ZONES.find((z) => z.id === zoneId)!.centre,
    }))
    const asked: Asked = { answers: {}, spots: [spot({ kind: 'eczema-patch', trail })] }
    const s = screen(
      DEFAULTS,
      [oneJob('job', 'dermaplane')],
      asked,
      DEFAULT_SCHOOLS,
      '2026-05-20',
      0,
      0,
    )
    expect([...s.leaveOutZones].sort()).toEqual(['cheek-lower-left', 'chin'])
  })

  it('are all asked about again at the next visit, and count until somebody says that they are gone', () => {
    const carried = carriedMarks([spot({ kind: 'active-spot', seenOn: '2026-05-01' })])
    expect(carried[0]).toMatchObject({ stillThere: 'ask', seenOn: '2026-05-01' })
    const s = screen(
      DEFAULTS,
      [oneJob('job', 'face-shave')],
      { answers: {}, spots: carried },
      DEFAULT_SCHOOLS,
      '2026-05-20',
      0,
      0,
    )
    expect(s.leaveOutSpots).toHaveLength(1)
    expect(s.findings[0]!.reason).toContain('still there?')
  })
})
