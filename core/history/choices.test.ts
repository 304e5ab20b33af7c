import { DEFAULTS } from '../house/index.ts'
import { play, replay, type Draft } from '../chair/index.ts'
import { executedLoads } from '../chair/outcome.ts'
import { makePlan } from '../plan/index.ts'
import { planInput } from '../testing/plan.ts'
import { choicesOf } from './choices.ts'
import { answerByZone, areasWorked, AREAS, type ClientAnswer } from '../looks/index.ts'
import { learnOverStudio } from './studioLearn.ts'
import { ALL_ZONE_IDS, isSkin, zoneStem } from '../zones/index.ts'
import { serviceZones } from '../services/index.ts'

const plan = makePlan(planInput())
let n = 0
const newId = () => `id-${n++}`
const run = (besides?: Parameters<typeof play>[2]['besides']) =>
  replay(
    plan,
    play(DEFAULTS, plan, {
      startMs: 0,
      bladeLife: 400,
      screen: '',
      newId,
      ...(besides && { besides }),
    }),
  )

describe('what was done at a visit', () => {
  it('names every worked zone with the most against the grain, its passes and its lanes', () => {
    const found = choicesOf(plan, run(), 400)
    const loads = executedLoads(plan, run().outcomes)
    expect(Object.keys(found.zones).sort()).toEqual(Object.keys(loads).sort())
    for (const zone of plan.zones) {
      const lanes = plan.lanes.filter((l) => l.zoneId === zone.zoneId)
      const own = found.zones[zone.zoneId]!
      expect(own.lanes).toBe(lanes.length)
      expect(own.passes).toBe(new Set(lanes.map((l) => l.pass)).size)
      const order = ['with', 'across', 'against']
      expect(own.relation).toBe(
        lanes.map((l) => l.relation).sort((a, b) => order.indexOf(b) - order.indexOf(a))[0],
      )
      expect(own.wear).toBeGreaterThanOrEqual(0)
      expect(own.wear).toBeLessThanOrEqual(1)
    }
    expect(found.slip).toBe('full')
    expect(found.exfoliate).toBe(plan.schools.exfoliate)
    expect(plan.lanes.map((l) => l.blade)).toContain(found.blade)
  })

  it('counts a nick where it was, and a lane left out not at all', () => {
    let [nicked, skipped, left] = ['', '', '']
    const state = run((live): Draft[] => {
      const step = live.plan.steps[live.state.index]!
      if (step.kind !== 'stroke') return []
      if (!nicked) {
        nicked = step.zoneId!
        return [
          {
            kind: 'nick',
            stepId: step.id,
            detail: { sizeMm: 2, did: ['pressure'], contact: false },
          },
        ]
      }
      if (!skipped && step.zoneId !== nicked) {
        skipped = step.zoneId!
        left = step.id
        return [{ kind: 'skipped', stepId: step.id, reason: 'sore' }]
      }
      return []
    })
    const found = choicesOf(plan, state, 400)
    expect(found.zones[nicked]!.nicks).toBe(1)
    // A press may hold several parts of the zone.
    const gone = plan.lanes.filter((l) => l.zoneId === skipped && l.stepId === left)
    const all = plan.lanes.filter((l) => l.zoneId === skipped).length
    expect(gone.length).toBeGreaterThan(0)
    expect(found.zones[skipped]?.lanes ?? 0).toBe(all - gone.length)
  })

  it('wears a blade as strokes go by', () => {
    const found = choicesOf(plan, run(), 400)
    const wears = plan.steps.flatMap((s) =>
      s.kind === 'stroke' && s.zoneId ? [found.zones[s.zoneId]!.wear] : [],
    )
    expect(Math.max(...wears)).toBeGreaterThan(Math.min(...wears))
  })
})

describe('what a client answers', () => {
  const answer = (over: Partial<ClientAnswer> = {}): ClientAnswer => ({
    redness: 2,
    areas: [],
    bumps: 0,
    pus: false,
    spreading: false,
    stinging: 0,
    itch: 0,
    dryness: 0,
    hair: 'no',
    since: 0,
    words: '',
    ...over,
  })
  const worked = serviceZones('face-shave')

  it('has a place for every zone of skin but the ears', () => {
    const named = new Set<string>(Object.values(AREAS).flatMap((a) => a.stems as readonly string[]))
    const missing = ALL_ZONE_IDS.filter((z) => isSkin(z) && !named.has(zoneStem(z)))
    expect(missing).toEqual([])
    expect(areasWorked(worked)).toContain('neck')
    expect(areasWorked(worked)).not.toContain('legs')
  })

  it('speaks for the places named, or for all of them; bumps are spread and none is lost', () => {
    const { zones } = answerByZone(answer({ areas: ['chin'], bumps: 3 }), worked)
    expect(new Set(zones.map((z) => zoneStem(z.zoneId as never)))).toEqual(
      new Set(['chin', 'under-lip']),
    )
    expect(zones.reduce((s, z) => s + z.bumps, 0)).toBe(3)
    expect(answerByZone(answer(), worked).zones).toHaveLength(worked.length)
    expect(answerByZone(answer({ redness: 0 }), worked).zones).toEqual([])
    const pus = answerByZone(answer({ areas: ['chin'], bumps: 2, pus: true }), worked).zones
    expect(pus.reduce((s, z) => s + (z.pustules ?? 0), 0)).toBe(2)
    expect(pus.reduce((s, z) => s + z.bumps, 0)).toBe(0)
  })
})

it('learning over the studio puts together what each client’s visits add', () => {
  const visit = (i: number) => ({
    visitId: `v${i}`,
    service: 'face-shave' as const,
    workerId: 'w',
    endedAtMs: i * 7 * 86_400_000,
    loads: { chin: 1 },
    worst: { chin: i % 3 },
    bumps: null,
    choices: choicesOf(plan, run(), 400),
    products: [],
    routine: '',
    answered: ['24h'],
    due: null,
  })
  const learned = learnOverStudio(
    DEFAULTS,
    Array.from({ length: 6 }, (_, c) => ({
      clientId: `c${c}`,
      reactivity: 'average' as const,
      visits: Array.from({ length: 5 }, (_x, i) => visit(i)),
    })),
    0,
  )
  expect(learned.calibration.visits).toBe(24)
  expect(learned.view.visits).toBe(30)
  expect(learned.skin.clients.average).toBe(6)
  expect(learned.effects[0]!.outcome).toBe('redness')
})
