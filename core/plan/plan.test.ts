/** Whole plans: facts of the trade, schools, edits, time, and what must hold of every plan. */
import { DEFAULTS, DEFAULT_SCHOOLS, SCHOOLS, type Schools } from '../house/index.ts'
import { toRadians, readingFromBearing, strokeAngle } from '../grain/index.ts'
import { zoneSide, zoneStem, type ZoneId } from '../zones/index.ts'
import { BEARD_LINES, BROW_LINES } from '../testing/lines.ts'
import { keepsOrder } from '../order/index.ts'
import type { SkinMark } from '../screening/index.ts'
import {
  SERVICE_IDS,
  SERVICES,
  serviceZones,
  type ServiceId,
  ROUTINE_CONSTANTS,
  STYLES,
} from '../services/index.ts'
import { nothingSeen, believe, expectedMean, SKIN_CONSTANTS, skinPooling } from '../skin/index.ts'
import { ZONES } from '../testing/head.ts'
import { planInput, type PlanCase } from '../testing/plan.ts'
import { SKIN } from '../testing/client.ts'
import { BLADES } from '../kit/index.ts'
import { smoothHours, stubbleLeftMm } from './closeness.ts'
import { makePlan } from './makePlan.ts'
import { groupsOf, jobId, jobsOf, laneProblem, ORDER_CONSTANTS } from './order.ts'
import { planSearch } from './search.ts'
import { timetable } from './timetable.ts'
import { bladeLifeStrokes, chooseTools } from './tools.ts'
import type { Plan } from './types.ts'
import { UNIT_CONSTANTS } from './units.ts'
import { PlanMemory } from './question.ts'
import fc from 'fast-check'

const LINES = BEARD_LINES
const memories = new Map<string, PlanMemory>()
const made = new Map<string, Plan>()
/** What cuts and covers the skin; plans that agree in it may share what was worked out, as on the screen. */
const skinKey = (c: PlanCase) =>
  JSON.stringify([c.service, c.readings, c.spots, c.keepLines, c.notes?.keptZones])
/** A line-up needs lines, and so do brows. */
const input = (c: PlanCase = {}) =>
  planInput({
    ...(c.service === 'beard-line' && { keepLines: LINES }),
    ...(c.service === 'brow-tidy' && { keepLines: BROW_LINES }),
    ...c,
  })
function plan(c: PlanCase = {}): Plan {
  const key = JSON.stringify(c)
  let p = made.get(key)
  if (!p) {
    const memory = memories.get(skinKey(c)) ?? new PlanMemory()
    memories.set(skinKey(c), memory)
    p = makePlan(input({ ...c, memory }))
    made.set(key, p)
  }
  return p
}
/** As close as this skin allows: with, then across wherever it is borne. */
const CLOSE = { choice: { style: 'closest' } } as const
/** Answered visits of a client, none of them red; and none at all. */
const BEARS_MUCH = { record: { visits: 8, reddened: 0 } } as const
const NO_RECORD = { visits: 0, reddened: 0 } as const
const CLOSE_TOUGH = { ...CLOSE, skin: { reactivity: 'tough' } } as const
const zoneIn = (p: Plan, id: ZoneId) => p.zones.find((z) => z.zoneId === id)!
const record = (id: ZoneId) => ZONES.find((z) => z.id === id)!
const spot = (over: Partial<SkinMark> = {}): SkinMark => ({
  id: 's',
  kind: 'mole',
  zoneId: 'jaw-left',
  ...record('jaw-left').centre,
  radiusMm: 5,
  ...over,
})

describe('what a pass buys (M8)', () => {
  const left = (angle: number) => stubbleLeftMm(DEFAULTS, angle, 'single-edge')

  it('leaves by the geometry: 27° pressed, 58.5° across, upright against', () => {
    expect(left(0)).toBeCloseTo(0.1 / Math.sin(toRadians(27)), 9)
    expect(left(Math.PI / 2)).toBeCloseTo(0.1 / Math.sin(toRadians(58.5)), 9)
    expect(left(Math.PI)).toBeCloseTo(0.1, 9)
  })

  it('never leaves more when the stroke turns further from the growth', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: Math.PI, noNaN: true }),
        fc.double({ min: 0, max: Math.PI, noNaN: true }),
        (a, b) => {
          const [near, far] = a < b ? [a, b] : [b, a]
          expect(left(far)).toBeLessThanOrEqual(left(near) + 1e-12)
        },
      ),
    )
  })

  it('says about nine hours for across on a cheek', () => {
    const growth = { curve: 'terminal', mean: 0.3, sd: 0.08 } as const
    const hours = (mm: number) => smoothHours(DEFAULTS, mm, growth, 1)
    expect(hours(left(Math.PI / 2)) - hours(left(0))).toBeGreaterThan(7.5)
    expect(hours(left(Math.PI / 2)) - hours(left(0))).toBeLessThan(9.5)
    expect(hours(0.6)).toBe(0)
  })
})

describe('a face shave', () => {
  it('at its closest is with, then across on an average beard, and says what the second pass buys and costs', () => {
    const cheek = zoneIn(plan(CLOSE), 'cheek-lower-left')
    expect(cheek.passes.map((p) => p.relation)).toEqual(['with', 'across'])
    expect(cheek.totalLoad).toBeGreaterThan(2.6)
    expect(cheek.totalLoad).toBeLessThan(3.3)
    expect(cheek.reasons.some((r) => r.text.includes('h of smoothness for a load of 1.'))).toBe(
      true,
    )
  })

  it('refuses the second pass on reactive skin, with the odds', () => {
    const cheek = zoneIn(plan({ skin: { reactivity: 'reactive' } }), 'cheek-lower-left')
    expect(cheek.passes.map((p) => p.relation)).toEqual(['with'])
    expect(cheek.refused[0]).toMatchObject({ relation: 'across' })
    expect(cheek.refused[0]!.reason).toContain('limit is 20 %')
  })

  it('keeps a bump-prone beard with the grain, and a house of clippers from planning a razor', () => {
    const p = plan({ skin: { bumpProne: true }, schools: { beardPasses: 'with-against' } })
    for (const z of p.zones) expect(z.passes.every((x) => x.relation === 'with')).toBe(true)
    expect(() =>
      plan({ skin: { bumpProne: true }, schools: { bumpProneShave: 'clippers' } }),
    ).toThrow('clippers only')
  })

  it('is not made when asking has not cleared it', () => {
    expect(() => plan({ answers: { sunburn: { yes: true, date: '2026-05-19' } } })).toThrow(
      'not cleared',
    )
  })

  it('heeds "with the grain only" and "one pass"', () => {
    for (const beardPasses of ['one-across', 'with-across', 'with-against'] as const) {
      const p = plan({
        answers: { flare: { yes: true } },
        schools: { beardPasses },
        skin: { reactivity: 'tough' },
      })
      for (const z of p.zones) expect(z.passes.map((x) => x.relation)).toEqual(['with'])
    }
    const keloids = plan({ answers: { keloids: { yes: true } }, skin: { reactivity: 'tough' } })
    expect(keloids.zones.every((z) => z.passes.length === 1)).toBe(true)
  })

  it('follows the map: the stroke with the grain is the growth that was read', () => {
    const zone = record('cheek-lower-left')
    const readings = [zone.centre, ...zone.samples.slice(0, 6)].map((at, i) =>
      readingFromBearing(zone.id, at, toRadians(215), { id: `r${i}`, method: 'felt', atMs: 0 }),
    )
    const p = plan({ readings })
    const z = zoneIn(p, zone.id)
    expect(z.grainSource).toBe('read')
    const lane = p.lanes.find((l) => l.zoneId === zone.id)!
    expect(strokeAngle(lane.strokeBearing, toRadians(215))).toBeLessThan(toRadians(15))
    expect(zoneIn(p, 'neck-lower-right').grainSource).toBe('guess')
    expect(p.reasons.some((r) => r.text.includes('were not read'))).toBe(true)
  })

  it('leaves out what was marked: a spot’s skin in the zone, or for fuzz the zone', () => {
    const p = plan({ spots: [spot()] })
    expect(zoneIn(plan(), 'jaw-left').areaCm2 - zoneIn(p, 'jaw-left').areaCm2).toBeGreaterThan(2)
    expect(zoneIn(p, 'jaw-left').avoid[0]).toContain('mole')
    const acne = plan({
      service: 'dermaplane',
      skin: { faceHair: 'fuzz' },
      spots: [spot({ kind: 'active-spot' })],
    })
    expect(acne.leftOut.map((z) => z.zoneId)).toEqual(['jaw-left'])
    expect(acne.steps.some((s) => s.zoneId === 'jaw-left')).toBe(false)
  })

  it('finds the chin the worst place for nicks: most strokes to the square centimetre of the wide places (common practice)', () => {
    const p = plan()
    const strokes = (id: ZoneId) =>
      p.lanes
        .filter((l) => l.zoneId === id && l.pass === 1)
        .reduce((s, l) => s + l.strokes / l.areaCm2, 0)
    for (const other of [
      'cheek-lower-left',
      'neck-upper-left',
      'jaw-left',
      'under-chin-centre',
    ] as const)
      expect(strokes('chin')).toBeGreaterThan(strokes(other))
    expect(p.lanes.find((l) => l.zoneId === 'chin')!.watch).toContain('first place for nicks')
  })
})

describe('every service', () => {
  it('a head is shaved once, at its closest across, two blades, within half an hour, the top first and the nape last (common practice)', () => {
    const p = plan({ service: 'head-shave', ...CLOSE })
    const across = p.zones.filter((z) => z.passes.map((x) => x.relation).join() === 'across')
    const area = (list: Plan['zones']) => list.reduce((s, z) => s + z.areaCm2, 0)
    expect(area(across) / area(p.zones)).toBeGreaterThan(0.9)
    expect(p.zones.every((z) => z.passes.length === 1)).toBe(true)
    expect(p.totalMinutes).toBeLessThanOrEqual(30.05)
    expect(p.bladeCount).toBe(2)
    expect(zoneStem(p.lanes[0]!.zoneId)).toMatch(/^scalp-(front|mid)$/)
    expect(zoneStem(p.lanes.at(-1)!.zoneId)).toMatch(/^nape/)
    expect(p.kit.find((k) => k.name === 'towels')!.count).toBe(3)
  })

  it('a second look at thin hair on skin that has shown that it bears much is against the grain in the closest plan only', () => {
    const thin = {
      ...{ service: 'head-shave' as const, ...BEARS_MUCH },
      skin: { reactivity: 'tough', coarseness: 'fine' },
    } as const
    expect(plan({ ...thin, ...CLOSE }).zones[0]!.passes).toHaveLength(2)
    // What was only told opens nothing.
    expect(plan({ ...thin, ...CLOSE, record: NO_RECORD }).zones[0]!.passes).toHaveLength(1)
    expect(plan({ ...thin, choice: { style: 'gentlest' } }).zones[0]!.passes).toHaveLength(1)
  })

  it('fuzz is gone over once, at 45°, a beard is shaved at 30° (common practice)', () => {
    for (const service of ['dermaplane', 'facial-razor', 'brow-tidy'] as const) {
      for (const l of plan({ service, skin: { faceHair: 'fuzz' } }).lanes) {
        expect(l.pass).toBe(1)
        expect(l.bladeAngleDeg).toBe(45)
      }
    }
    expect(plan().lanes.every((l) => l.bladeAngleDeg === 30)).toBe(true)
  })

  it('a line-up works along its lines, trimmer before razor, the worse side first', () => {
    const p = plan({ service: 'beard-line' })
    const tools = p.lanes.map((l) => l.bladeId)
    expect(tools.lastIndexOf('trimmer')).toBeLessThan(tools.indexOf('shavette'))
    expect(p.lanes.every((l) => l.areaCm2 < 30)).toBe(true)
    expect(p.reasons[0]!.text).toContain('side with more to do first')
    expect(() => plan({ service: 'beard-line', keepLines: [] })).toThrow('draw the cheek')
    const sparse = plan({
      service: 'beard-line',
      notes: { hair: { 'cheek-lower-left': { density: 'sparse' } } },
    })
    expect(zoneIn(sparse, 'cheek-lower-left').reasons.at(-1)!.text).toContain(
      'false line, set 3 mm',
    )
  })

  it('arms and legs are planned on their outlines, the client turned over once', () => {
    const p = plan({ service: 'body-shave' })
    expect(p.zones).toHaveLength(serviceZones('body-shave').length)
    for (const z of p.zones) expect(z.passes[0]!.relation).toBe('with')
    const turns = p.lanes.filter((l) => l.pass === 1).map((l) => l.headTurn)
    expect(
      turns.filter((t, i) => t.includes('face down') && !turns[i - 1]?.includes('face down')),
    ).toHaveLength(1)
    const bumps = plan({ service: 'body-shave', skin: { bumpProne: true } })
    expect(bumps.lanes.every((l) => l.relation === 'with' && l.bladeId === 'safety')).toBe(true)
  })

  it.each(SERVICE_IDS)(
    '%s begins with clean hands, ends with soothing, checks before it closes',
    (service) => {
      const kinds = plan({ service }).steps.map((s) => s.kind)
      expect(kinds[0]).toBe('prepare')
      expect(kinds.at(-1)).toBe('close')
      expect(kinds.indexOf('check')).toBeGreaterThan(kinds.lastIndexOf('stroke'))
      expect(kinds.lastIndexOf('prepare')).toBeLessThan(kinds.indexOf('stroke'))
    },
  )

  it('asks before a towel is laid, at no more than the house allows, and keeps one back', () => {
    const towel = plan({ service: 'head-shave' }).steps.find((s) => s.id === 'prepare:towel')!
    expect(towel.text).toContain(`${ROUTINE_CONSTANTS.towelAtMostC.byDefault} °C`)
    expect(towel.text).toContain('ask the client')
    expect(
      plan({ service: 'dermaplane' }).steps.some((s) => s.lays === 'towel' && s.kind === 'prepare'),
    ).toBe(false)
  })

  it.each(SCHOOLS.fuzzSlip.choices.map((c) => [c.id] as const))(
    'prepares fuzz as the school says: %s',
    (fuzzSlip) => {
      const surface = plan({ service: 'dermaplane', schools: { fuzzSlip } }).steps.find(
        (s) => s.id === 'prepare:surface',
      )!
      const words = {
        dry: 'De-oil and dry',
        film: 'Thin film of gel',
        lotion: 'Thin film of lotion',
        oil: 'Oil or jelly',
        damp: 'Damp skin',
      }
      expect(surface.title).toBe(words[fuzzSlip])
    },
  )
})

describe('blades', () => {
  const tools = (over: Partial<Parameters<typeof chooseTools>[0]> = {}) =>
    chooseTools({
      service: 'dermaplane',
      group: { method: 'blade' },
      level: 'practised',
      kit: Object.keys(BLADES) as (keyof typeof BLADES)[],
      client: { ...SKIN, faceHair: 'fuzz' },
      schools: DEFAULT_SCHOOLS,
      ...over,
    })
  const ids = (over: Parameters<typeof tools>[0] = {}) => tools(over).map((t) => t.ids)

  it('are bare only in practised hands, and guarded on reactive skin (common practice)', () => {
    const [bare, guarded] = [
      ['surgical-14', 'surgical-10'],
      ['guarded', 'brow-razor'],
    ]
    expect(ids()).toEqual([bare, guarded])
    expect(ids({ level: 'learning' })).toEqual([guarded])
    expect(ids({ client: { ...SKIN, reactivity: 'reactive' } })).toEqual([guarded])
    expect(ids({ service: 'face-shave', level: 'learning' })).toEqual([['safety']])
  })

  it('come from the kit, and a kit without any says so', () => {
    expect(ids({ kit: ['surgical-10'] })).toEqual([['surgical-10']])
    expect(() => tools({ kit: ['shavette'] })).toThrow('The kit holds no blade')
    expect(tools({ service: 'beard-line', kit: ['shavette'] })[0]!.first).toBeUndefined()
    expect(tools({ service: 'beard-line' })[0]!.first).toBe('trimmer')
  })

  it('on bump-prone legs are a single edge, never a cartridge (common practice)', () => {
    expect(ids({ service: 'body-shave', client: SKIN })).toContainEqual(['cartridge'])
    expect(ids({ service: 'body-shave', client: { ...SKIN, bumpProne: true } })).toEqual([
      ['safety'],
    ])
  })
})

describe('the order', () => {
  it('flat first: begins on the cheek; mouth, chin and lip wait to the end of their pass (common practice)', () => {
    const p = plan(CLOSE)
    const late = ['mouth-corner', 'under-lip', 'chin', 'upper-lip']
    expect(zoneStem(p.lanes[0]!.zoneId)).toBe('cheek-lower')
    for (const pass of [1, 2]) {
      const stems = p.lanes
        .filter((l) => l.pass === pass)
        .map((l) => late.includes(zoneStem(l.zoneId)))
      expect(stems.lastIndexOf(false)).toBeLessThan(stems.indexOf(true))
    }
  })

  it('top down: nothing above the mouth comes after anything under the jaw', () => {
    const ids = plan({ schools: { faceOrder: 'top-down', beardPasses: 'with-only' } }).lanes.map(
      (l) => zoneStem(l.zoneId),
    )
    const firstLow = ids.findIndex((id) => /^(under-chin|neck)/.test(id))
    expect(ids.findLastIndex((id) => /^(cheek|forehead|temple|nose)/.test(id))).toBeLessThan(
      firstLow,
    )
  })

  it('most work first: begins on the side with more to do', () => {
    const p = plan({
      schools: { faceOrder: 'most-work-first', beardPasses: 'with-only' },
      notes: { keptZones: ['cheek-lower-left'] },
    })
    const sides = groupsOf(p.lanes).flatMap(({ lanes }) => {
      const own = new Set(lanes.map((l) => zoneSide(l.zoneId)))
      return own.size === 1 && !own.has(undefined) ? [...own] : []
    })
    expect(sides[0]).toBe('right')
    expect(sides.slice(sides.indexOf('left')).every((s) => s === 'left')).toBe(true)
  })

  it('finishes a pass everywhere before the next begins, and lathers between them', () => {
    const { steps } = plan(CLOSE)
    const passes = steps.filter((s) => s.kind === 'stroke').map((s) => s.pass!)
    expect(passes).toEqual([...passes].sort())
    const between = steps.findIndex((s) => s.id === 'lather:2')
    expect(steps.slice(between).filter((s) => s.pass === 1)).toEqual([])
  })

  it('never lets a lane begin on lather that will have dried before it is done', () => {
    const { steps, lanes } = plan(CLOSE)
    const lasts = ROUTINE_CONSTANTS.latherLastsMin.byDefault
    const strokedMin = (s: (typeof steps)[number]) =>
      lanes
        .filter((l) => (s.laneIds ?? [s.laneId]).includes(l.id))
        .reduce((sum, l) => sum + l.seconds / 60, 0)
    let fresh = 0
    let renewed = 0
    steps.forEach((s, i) => {
      if (s.lays === 'lather') {
        // None is laid before it must be: the next lane would not have been done in time.
        const next = steps.slice(i).find((x) => x.kind === 'stroke')
        if (s.id.startsWith('lather:renew') && next) {
          renewed++
          expect(fresh + strokedMin(next)).toBeGreaterThan(lasts)
        }
        fresh = 0
      }
      if (s.kind !== 'stroke') return
      expect(fresh + strokedMin(s)).toBeLessThanOrEqual(lasts + 1e-9)
      fresh += s.minutes
    })
    expect(renewed).toBeGreaterThan(0)
  })

  it('counts of each place the closest that was done there, though a later stroke is turned back by hand', () => {
    const before = plan(CLOSE_TOUGH)
    const zone = before.zones.find((z) => z.passes.length > 1)!
    const second = before.lanes.filter((l) => l.zoneId === zone.zoneId && l.pass === 2)
    const edits = Object.fromEntries(
      // The first strokes across, the second ones with the grain.
      before.lanes
        .filter((l) => l.zoneId === zone.zoneId)
        .map((l) => [l.id, { way: l.pass === 1 ? 'across-clockwise' : 'with' } as const]),
    )
    const turned = plan({ ...CLOSE_TOUGH, choice: { style: 'closest', edits } })
    const passes = zoneIn(turned, zone.zoneId).passes
    const lanesOf = (pass: number) =>
      turned.lanes.filter((l) => l.zoneId === zone.zoneId && l.pass === pass)
    const mean = (pass: number) =>
      lanesOf(pass).reduce((s, l) => s + l.leftMm * l.areaCm2, 0) /
      lanesOf(pass).reduce((s, l) => s + l.areaCm2, 0)
    expect(second.length).toBeGreaterThan(0)
    expect(mean(2)).toBeGreaterThan(mean(1))
    expect(passes[1]!.leftMm).toBeCloseTo(passes[0]!.leftMm, 2)
  })

  it('strokes no blade beyond its life: a fresh one comes before the lane that it would not see through', () => {
    const coarse = {
      ...{ ...CLOSE, ...BEARS_MUCH },
      skin: { reactivity: 'tough', coarseness: 'coarse' },
    } as const
    const p = plan(coarse)
    const life = bladeLifeStrokes(DEFAULTS, 'face-shave', { ...SKIN, ...coarse.skin })
    const onBlade = new Map<string, number>()
    let fresh = 0
    for (const s of p.steps) {
      if (s.kind !== 'stroke') continue
      const [lane] = p.lanes.filter((l) => (s.laneIds ?? [s.laneId]).includes(l.id))
      const used = onBlade.get(lane!.bladeId) ?? 0
      if (s.freshBlade) {
        fresh++
        // No sooner than it must.
        expect(used + s.strokes!).toBeGreaterThan(life)
      } else if (used > 0) expect(used + s.strokes!).toBeLessThanOrEqual(life)
      onBlade.set(lane!.bladeId, (s.freshBlade ? 0 : used) + s.strokes!)
    }
    expect(fresh).toBeGreaterThan(0)
  })

  it('is searched for longer when asked, kept with the choice, and never worse', () => {
    const start = input(CLOSE_TOUGH)
    const first = makePlan(start)
    const search = planSearch(DEFAULTS, first, first.schools, 'right')!
    const state = search.step(20)
    expect(state.seconds).toBeLessThanOrEqual(state.firstSeconds + 1e-9)
    const jobs = jobsOf(first.lanes, SERVICES['face-shave'].lather)
    const problem = laneProblem(DEFAULTS, jobs, first.schools, 'face-shave', 'right')
    const at = state.order.map((id) => jobs.findIndex((j) => jobId(j) === id))
    expect(keepsOrder(problem, at)).toBe(true)
    const kept = makePlan({ ...start, choice: { ...start.choice, order: state.order } })
    expect(groupsOf(kept.lanes).map((g) => g.id)).toEqual(
      state.order.filter((id) => !id.startsWith('lather')),
    )
    // An order that no longer fits is not followed.
    const wrong = makePlan({
      ...start,
      choice: { ...start.choice, order: [...state.order].reverse() },
    })
    expect(wrong.lanes.map((l) => l.id)).toEqual(first.lanes.map((l) => l.id))
  })
})

describe('time', () => {
  it('is laid out in four bands that touch and add up', () => {
    const p = plan()
    const t = timetable(DEFAULTS, p)
    expect(t.totalMin).toBeCloseTo(p.totalMinutes, 9)
    for (const row of [t.worker, t.client]) {
      row.forEach((b, i) => expect(b.fromMin).toBeCloseTo(row[i - 1]?.toMin ?? 0, 9))
      expect(row.at(-1)!.toMin).toBeCloseTo(p.totalMinutes, 9)
    }
    expect(t.towel.map((b) => b.kind)).toEqual(['hot', 'cold'])
    for (const b of t.lather.filter((x) => x.kind === 'wet'))
      expect(b.toMin - b.fromMin).toBeLessThanOrEqual(
        ROUTINE_CONSTANTS.latherLastsMin.byDefault + 1e-9,
      )
  })

  it('fits into thirty minutes by dropping what buys least, and says what', () => {
    const whole = plan(CLOSE_TOUGH)
    expect(whole.totalMinutes).toBeGreaterThan(31)
    const fitted = plan({ ...CLOSE_TOUGH, choice: { style: 'closest', within: 30 } })
    expect(fitted.totalMinutes).toBeLessThanOrEqual(30.05)
    expect(fitted.dropped.length).toBeGreaterThan(0)
    // The skin of every zone is still gone over.
    expect(fitted.zones.map((z) => z.zoneId).sort()).toEqual(
      whole.zones.map((z) => z.zoneId).sort(),
    )
    const impossible = plan({ choice: { within: 5 } })
    expect(impossible.zones.every((z) => z.passes.length === 1)).toBe(true)
    expect(impossible.reasons.at(-1)!.text).toContain('cannot be reached')
  })

  it('counts a start, and each change of stance and turn', () => {
    const p = plan()
    const C = ORDER_CONSTANTS
    const steps = p.steps.filter((s) => s.kind === 'stroke')
    const groups = groupsOf(p.lanes)
    steps.forEach((s, i) => {
      const lane = groups[i]!.lead
      const before = groups[i - 1]?.lead
      const extra = s.minutes * 60 - groups[i]!.lanes.reduce((sum, l) => sum + l.seconds, 0)
      expect(extra).toBeGreaterThanOrEqual(C.laneStartSeconds.byDefault - 1e-9)
      if (before && before.pass === lane.pass && before.stance.hour !== lane.stance.hour)
        expect(extra).toBeGreaterThanOrEqual(
          C.laneStartSeconds.byDefault + C.stanceSeconds.byDefault - 1e-9,
        )
    })
  })
})

describe('edits by hand', () => {
  const first = plan(CLOSE)
  const close = (choice: PlanCase['choice'], more: PlanCase = {}) =>
    plan({ ...more, choice: { ...CLOSE.choice, ...choice } })
  const lane = first.lanes.find((l) => l.zoneId === 'cheek-lower-left' && l.pass === 2)!

  it('change one lane and what follows from it, and leave every other lane as it was', () => {
    const p = close({ edits: { [lane.id]: { way: 'against' } } })
    const now = p.lanes.find((l) => l.id === lane.id)!
    expect(now).toMatchObject({ relation: 'against', edited: true })
    expect(now.load).toBeGreaterThan(lane.load)
    expect(zoneIn(p, lane.zoneId).totalLoad).toBeGreaterThan(zoneIn(first, lane.zoneId).totalLoad)
    expect(zoneIn(p, lane.zoneId).rednessOdds).toBeGreaterThan(
      zoneIn(first, lane.zoneId).rednessOdds,
    )
    for (const other of first.lanes.filter((l) => l.id !== lane.id))
      expect(p.lanes.find((l) => l.id === other.id)).toEqual(other)
  })

  it('skip a lane: its time and load go, and it is named', () => {
    const p = close({ edits: { [lane.id]: { skip: true } } })
    expect(p.lanes.some((l) => l.id === lane.id)).toBe(false)
    expect(zoneIn(p, lane.zoneId).totalLoad).toBeLessThan(zoneIn(first, lane.zoneId).totalLoad)
    expect(p.totalMinutes).toBeLessThan(first.totalMinutes)
    expect(p.leftOut.some((z) => z.reason.includes('skipped by hand'))).toBe(true)
  })

  it('turn across the other way, or take another blade', () => {
    const ways = (['across-clockwise', 'across-anticlockwise'] as const).map((way) =>
      close({ edits: { [lane.id]: { way } } }).lanes.find((l) => l.id === lane.id)!,
    )
    expect(ways.every((l) => l.relation === 'across')).toBe(true)
    expect(strokeAngle(ways[0]!.strokeBearing, ways[1]!.strokeBearing)).toBeCloseTo(Math.PI, 3)
    const other = close({ edits: { [lane.id]: { bladeId: 'safety' } } })
    expect(other.lanes.find((l) => l.id === lane.id)!.bladeId).toBe('safety')
  })

  it('refuse a multi-blade cartridge against the grain', () => {
    const shin = plan({ service: 'body-shave' }).lanes.find((l) => l.zoneId === 'shin-left')!
    const edits = { [shin.id]: { bladeId: 'cartridge', way: 'against' } } as const
    expect(() => plan({ service: 'body-shave', choice: { edits } })).toThrow('never goes against')
  })

  it.each([
    ['cartridge', 'is not for hot-towel face shave'],
    ['surgical-14', 'is not for hot-towel face shave'],
    ['guarded', 'is not for hot-towel face shave'],
  ] as const)('refuse a %s on a beard, and say why', (bladeId, why) => {
    expect(() => close({ edits: { [lane.id]: { bladeId } } })).toThrow(why)
  })

  it('refuse a bare blade to hands that learn, and what the kit does not hold', () => {
    const shavette = { edits: { [lane.id]: { bladeId: 'shavette' } } } as const
    expect(() => close(shavette, { level: 'learning' })).toThrow('only for practised hands')
    expect(() => close(shavette, { kit: ['safety'] })).toThrow('The kit holds no shavette')
    expect(close(shavette).lanes.find((l) => l.id === lane.id)!.edited).toBe(true)
  })

  it('refuse a way that asking, hair or the pass forbids', () => {
    const edit = (way: 'against' | 'across-clockwise', id = lane.id) => ({
      edits: { [id]: { way } },
    })
    const first = plan({}).lanes.find((l) => l.pass === 1)!
    expect(() => plan({ choice: edit('against', first.id) })).toThrow('never the first pass')
    const iso = { isotretinoin: { yes: true } }
    expect(() => plan({ answers: iso, choice: edit('across-clockwise', first.id) })).toThrow(
      'With the grain only',
    )
    const fuzz = plan({ service: 'dermaplane' }).lanes[0]!.id
    expect(() => plan({ service: 'dermaplane', choice: edit('against', fuzz) })).toThrow(
      'never stroked against',
    )
  })

  it('tell on the lane and on the plan by how much what is allowed stands above the limit', () => {
    // Found by going through the lanes of the second pass: turned against, some stand above the limit.
    const mean = expectedMean(DEFAULTS, 'average')
    const unknown = { belief: believe(nothingSeen(DEFAULTS), skinPooling(DEFAULTS, mean)) }
    const usual = plan({ ...CLOSE, ...unknown })
    const over = usual.lanes
      .filter((l) => l.pass === 2)
      .map((l) => ({ l, p: close({ edits: { [l.id]: { way: 'against' } } }, unknown) }))
      .find(({ p }) => p.overLimit!.length > usual.overLimit!.length)!
    const zone = over.p.overLimit!.find((z) => !usual.overLimit!.some((u) => u.zoneId === z.zoneId))
    expect(zone!.zoneId).toBe(over.l.zoneId)
    expect(zone!.odds).toBeGreaterThan(zone!.limit)
    const points = Math.max(1, Math.round(100 * (zone!.odds - zone!.limit)))
    const lane = over.p.lanes.find((l) => l.id === over.l.id)!
    expect(lane.reasons[0]!.text).toContain(`${points} point`)
    expect(over.p.reasons[0]!.text).toContain(`${over.p.overLimit!.length} of`)
  })
})

describe('every plan, whatever the client', () => {
  const anyCase = fc.record({
    service: fc.constantFrom(...SERVICE_IDS.filter((s) => s !== 'beard-line')),
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
    level: fc.constantFrom('practised', 'learning'),
    choice: fc.record({ style: fc.constantFrom(...STYLES) }),
  }) as unknown as fc.Arbitrary<PlanCase & { service: ServiceId; schools: Partial<Schools> }>

  it('works each zone, keeps the limit after the first pass, gives reasons, adds up, and is the same twice', () => {
    fc.assert(
      fc.property(anyCase, (c) => {
        const p = plan(c)
        // Without anything remembered it comes to the same.
        expect(makePlan(input(c))).toEqual(p)
        // Between its edges the brow itself stays.
        const worked = serviceZones(c.service).filter((id) => !id.startsWith('brow-'))
        expect(p.zones.map((z) => z.zoneId).sort()).toEqual([...worked].sort())
        expect(p.totalMinutes).toBeCloseTo(
          p.steps.reduce((s, x) => s + x.minutes, 0),
          9,
        )
        expect(new Set(p.steps.map((s) => s.id)).size).toBe(p.steps.length)
        const jobs = jobsOf(p.lanes, SERVICES[c.service].lather)
        expect(jobs.length).toBeGreaterThan(0)
        for (const z of p.zones) {
          expect(z.reasons.length).toBeGreaterThan(0)
          for (const later of z.passes.slice(1))
            expect(later.rednessOdds).toBeLessThanOrEqual(
              SKIN_CONSTANTS.rednessLimit.byDefault + UNIT_CONSTANTS.band.byDefault,
            )
          expect(z.totalLoad).toBeCloseTo(
            p.lanes
              .filter((l) => l.zoneId === z.zoneId)
              .reduce((s, l) => s + (l.load * l.areaCm2) / z.areaCm2, 0),
            9,
          )
        }
        for (const l of p.lanes) {
          expect(l.reasons.every((r) => r.text.length > 5 && /^[PCH]$/.test(r.mark))).toBe(true)
          expect(l.usableWidthMm).toBeLessThanOrEqual(DEFAULTS(BLADES[l.bladeId].edgeMm) + 1)
          expect(BLADES[l.bladeId].practised && c.level === 'learning').toBe(false)
        }
        if (SERVICES[c.service].family === 'fuzz')
          expect(p.lanes.every((l) => l.pass === 1)).toBe(true)
        expect(p.kit.reduce((s, k) => s + k.cost, 0)).toBeCloseTo(p.cost, 9)
        expect(JSON.parse(JSON.stringify(p))).toEqual(p)
        expect({ ...DEFAULT_SCHOOLS, ...c.schools }).toEqual(p.schools)
        expect(bladeLifeStrokes(DEFAULTS, c.service, { ...SKIN, ...c.skin })).toBeGreaterThan(0)
      }),
      {
        numRuns: 10,
        // Once found: a stroke with −0 in it, which does not come back from storage.
        examples: [
          [
            {
              service: 'head-shave',
              skin: { ...SKIN, reactivity: 'tough', coarseness: 'fine' },
              schools: { beardPasses: 'with-across' },
              hand: 'left',
              level: 'practised',
              choice: { style: 'closest' },
            },
          ],
        ],
      },
    )
  }, 90_000)
})
