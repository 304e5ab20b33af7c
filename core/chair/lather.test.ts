import { DEFAULTS } from '../house/index.ts'
import { groupsOf, makePlan } from '../plan/index.ts'
import { planInput } from '../testing/plan.ts'
import { kitEvents } from './kit.ts'
import { filmNow, latherNow } from './lather.ts'
import { play } from './play.ts'
import { advance, replayLive } from './service.ts'
import { begin } from './state.ts'
import type { ChairEvent } from './events.ts'

const plan = makePlan(planInput({ skin: { reactivity: 'tough' }, choice: { style: 'closest' } }))
let id = 0
const events = play(DEFAULTS, plan, {
  startMs: 0,
  bladeLife: 120,
  screen: 's',
  newId: () => `p${id++}`,
})
const upTo = (last: (e: ChairEvent) => boolean) =>
  replayLive(plan, events.slice(0, events.findIndex(last) + 1))
const MIN = 60_000

describe('lather', () => {
  it('lies on all that is worked, six minutes long, and only on what still waits', () => {
    const fresh = upTo((e) => e.stepId === 'prepare:lather' && e.kind === 'done')
    const at = fresh.state.lastAtMs
    const first = latherNow(DEFAULTS, fresh, at)
    // Zones of the first pass: another pass brings its own lather.
    const zones = new Set(plan.lanes.filter((l) => l.pass === 1).map((l) => l.zoneId))
    expect(new Set(first.map((l) => l.zoneId))).toEqual(zones)
    expect(first.every((l) => l.leftMs === 6 * MIN)).toBe(true)
    expect(latherNow(DEFAULTS, fresh, at + 7 * MIN).every((l) => l.leftMs === -MIN)).toBe(true)
    const done = plan.lanes.filter((l) => l.zoneId === plan.lanes[0]!.zoneId && l.pass === 1)
    const last = plan.steps.findLast((s) => done.some((l) => l.stepId === s.id))!
    const later = upTo((e) => e.kind === 'done' && e.stepId === last.id)
    expect(latherNow(DEFAULTS, later, later.state.lastAtMs).map((l) => l.zoneId)).not.toContain(
      done[0]!.zoneId,
    )
  })

  it('a film has the clock of its zone; dry skin has none', () => {
    const mixed = makePlan(
      planInput({
        service: 'dermaplane',
        notes: { hair: { chin: { slip: 'damp' }, 'cheek-lower-left': { slip: 'oil' } } },
      }),
    )
    let n = 0
    const all = play(DEFAULTS, mixed, {
      ...{ startMs: 0, bladeLife: 400, screen: 's', newId: () => `f${n++}` },
    })
    const at = all.findIndex((e) => e.kind === 'done' && e.stepId === 'prepare:surface')
    const live = replayLive(mixed, all.slice(0, at + 1))
    const clocks = latherNow(DEFAULTS, live, live.state.lastAtMs)
    expect(clocks.map((c) => [c.zoneId, c.leftMs / MIN])).toEqual([
      ['chin', 2],
      ['cheek-lower-left', 20],
    ])
    expect(filmNow(live, 'chin')).toMatchObject({ name: 'damp skin' })
    expect(filmNow(live, 'jaw-left')).toBeNull()
  })

  it('renewed by hand is fresh again on what is not yet done', () => {
    const some = upTo((e) => e.kind === 'done' && e.stepId === groupsOf(plan.lanes)[1]!.id)
    const atMs = some.state.lastAtMs + 5 * MIN
    const again = advance(some, {
      id: 'r',
      seq: some.state.seq + 1,
      screen: 's',
      n: 1e6,
      kind: 're-lathered',
      atMs,
    })
    for (const l of latherNow(DEFAULTS, again, atMs)) expect(l.leftMs).toBe(6 * MIN)
  })

  it('is never dry under a stroke of a service that goes by the pedal', () => {
    let live = begin(plan)
    let strokes = 0
    for (const event of events) {
      const step = live.plan.steps[live.state.index]
      if (event.kind === 'done' && step?.zoneId) {
        const began = event.atMs - step.minutes * MIN
        const own = latherNow(DEFAULTS, live, began).find((l) => l.zoneId === step.zoneId)
        expect(own!.leftMs).toBeGreaterThan(0)
        strokes++
      }
      live = advance(live, event)
    }
    expect(strokes).toBe(groupsOf(plan.lanes).length)
  })
})

describe('blades as the kit sees them', () => {
  it('opens one before each that is put away, and counts every stroke once', () => {
    let live = begin(plan)
    let k = 0
    const kit = events.flatMap((e) => {
      const rows = kitEvents('visit', live, e, () => `k${k++}`)
      live = advance(live, e)
      return rows
    })
    const away = kit.filter((e) => e.kind !== 'opened')
    expect(away).toHaveLength(kit.length - away.length)
    expect(away.reduce((s, e) => s + e.strokes, 0)).toBe(
      plan.lanes.reduce((s, l) => s + l.strokes, 0),
    )
    // With a life of 120 strokes a face takes more than one.
    expect(away.length).toBeGreaterThan(1)
    expect(away.filter((e) => e.why === 'end').length).toBeGreaterThan(0)
    expect(
      away.every((e) => e.strokes <= 120 + Math.max(...plan.lanes.map((l) => l.strokes))),
    ).toBe(true)
  })
})
