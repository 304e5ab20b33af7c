import { DEFAULTS } from '../house/index.ts'
import { planInput, type PlanCase } from '../testing/plan.ts'
import { makePlan, stepZones, type Plan } from '../plan/index.ts'
import { ZONES } from '../testing/head.ts'
import type { ZoneId } from '../zones/index.ts'
import { executedLoads } from './outcome.ts'
import { play } from './play.ts'
import { replan, type Cause } from './replan.ts'
import { advance, replayLive } from './service.ts'
import type { Live } from './state.ts'

/** A service under way, after so many strokes. */
function under(c: PlanCase, strokes: number) {
  const input = planInput(c)
  const plan = makePlan(input)
  let id = 0
  const events = play(DEFAULTS, plan, {
    startMs: 0,
    bladeLife: 400,
    screen: 's',
    newId: () => `p${id++}`,
  })
  const done = events.filter((e) => e.kind === 'done' && e.stepId?.startsWith('press:'))
  const cut = strokes === 0 ? 1 : events.indexOf(done[strokes - 1]!) + 1
  return { input, live: replayLive(plan, events.slice(0, cut)) }
}

/** The service with its rest changed, which the state machine must take. */
const amended = (live: Live, r: ReturnType<typeof replan>) =>
  advance(live, {
    id: 'amend',
    screen: 's',
    n: 1e6,
    seq: live.state.seq + 1,
    kind: 'amended',
    atMs: live.state.lastAtMs,
    detail: { amendment: r.amendment },
  })

const red = (live: Live, zoneId: ZoneId, grade: number) =>
  advance(live, {
    id: 'red',
    screen: 's',
    n: 1e5,
    seq: live.state.seq + 1,
    kind: 'redness',
    atMs: live.state.lastAtMs,
    detail: { zoneId, grade },
  })

const strokesLeft = ({ plan, state }: Live) =>
  plan.steps.slice(state.index).filter((s) => s.kind === 'stroke')
const at = (zoneId: string) => ZONES.find((z) => z.id === zoneId)!.samples[0]!

const TOUGH: PlanCase = {
  service: 'face-shave',
  skin: { reactivity: 'tough' },
  choice: { style: 'closest' },
}

describe('planning the rest anew', () => {
  const { input, live } = under(TOUGH, 2)

  it.each<[string, Cause]>([
    ['a stop', { kind: 'stop' }],
    ['a zone skipped', { kind: 'skip-zone', zoneId: strokesLeft(live)[0]!.zoneId! }],
    ['gentler', { kind: 'gentler', leaveZone: false }],
    [
      'a place left out',
      { kind: 'leave-out', place: { zoneId: 'chin', ...at('chin'), radiusMm: 8 } },
    ],
  ])('keeps what is done, for %s', (_name, cause) => {
    const next = amended(live, replan(input, live, cause))
    const { index } = live.state
    expect(next.state.outcomes).toEqual(live.state.outcomes)
    expect(next.plan.steps.slice(0, index)).toEqual(live.plan.steps.slice(0, index))
    const done = new Set(Object.keys(live.state.outcomes))
    for (const s of next.plan.steps.slice(index)) expect(done.has(s.id)).toBe(false)
    // The close is never lost.
    expect(next.plan.steps[next.plan.steps.length - 1]!.id).toBe('close:soothe')
  })

  it('goes on without any one of the zones of a press', () => {
    const index = live.plan.steps.findIndex(
      (s, i) => i >= live.state.index && stepZones(s).length > 1,
    )
    const press = live.plan.steps[index]!
    const zoneId = stepZones(press).at(-1)!
    expect(zoneId).not.toBe(press.zoneId)
    const next = amended(live, replan(input, live, { kind: 'skip-zone', zoneId }))
    for (const s of strokesLeft(next)) expect(stepZones(s)).not.toContain(zoneId)
    const rest = next.plan.steps.find((s) => s.id === press.id)!
    expect([...stepZones(rest)].sort()).toEqual(
      stepZones(press)
        .filter((z) => z !== zoneId)
        .sort(),
    )
    expect(rest.strokes).toBeLessThan(press.strokes!)
  })

  it('stops: no stroke is left, the cooling and soothing are', () => {
    const next = amended(live, replan(input, live, { kind: 'stop' }))
    expect(strokesLeft(next)).toHaveLength(0)
    expect(next.plan.steps.slice(next.state.index).map((s) => s.id)).toEqual([
      'close:cold',
      'close:soothe',
    ])
  })

  it('gentler is one pass with the grain on what is left, at lower odds', () => {
    const hot = red(live, 'chin', 3)
    const r = replan(input, hot, { kind: 'gentler', zoneId: 'chin', leaveZone: true })
    const next = amended(hot, r)
    const left = strokesLeft(next)
    expect(left.length).toBeGreaterThan(2)
    for (const s of left) {
      expect(s).toMatchObject({ relation: 'with', pass: 1 })
      expect(stepZones(s)).not.toContain('chin')
    }
    expect(r.now).toBeLessThan(r.before)
    expect(r.oddsNow).toBeLessThan(r.oddsBefore)
    // No re-lather without a stroke after it.
    const rest = next.plan.steps.slice(next.state.index)
    rest.forEach((s, i) => {
      if (s.kind === 'lather') expect(rest[i + 1]!.kind).toBe('stroke')
    })
  })

  it('what was seen counts: redness raises the odds of what is left', () => {
    const stop = (l: Live) => replan(input, l, { kind: 'stop' }).oddsBefore
    const zone = strokesLeft(live)[0]!.zoneId!
    expect(stop(red(live, zone, 3))).toBeGreaterThan(stop(live) + 0.02)
    expect(stop(red(live, zone, 3))).toBeGreaterThan(stop(red(live, zone, 1)))
  })

  it('cuts lanes round a place: no cell within it is in a lane that is left, and no other lane changes', () => {
    const place = { zoneId: 'cheek-lower-left' as const, ...at('cheek-lower-left'), radiusMm: 9 }
    const { input: own, live: early } = under(TOUGH, 0)
    const r = replan(own, early, { kind: 'leave-out', place })
    const next = amended(early, r)
    const before = early.plan.lanes.filter((l) => l.zoneId === 'cheek-lower-left')
    const after = next.plan.lanes.filter((l) => l.zoneId === 'cheek-lower-left')
    const area = (lanes: Plan['lanes']) =>
      lanes.filter((l) => l.pass === 1).reduce((s, l) => s + l.areaCm2, 0)
    // A disc of 9 mm on nearly flat skin: π · 0.9² = 2.54 cm².
    expect(area(before) - area(after)).toBeGreaterThan(1.5)
    expect(area(before) - area(after)).toBeLessThan(3.1)
    for (const lane of after) {
      expect(Math.hypot(...lane.point.map((c, k) => c - place.point[k]!))).toBeGreaterThan(9)
    }
    const others = (p: Plan) => p.lanes.filter((l) => l.zoneId === 'chin')
    const whole = (p: Plan) =>
      p.lanes.filter((l) => l.stepId && !p.steps.some((s) => s.id === l.stepId))
    expect(whole(next.plan)).toEqual([])
    expect(others(next.plan)).toEqual(others(early.plan))
    expect(r.amendment.covers.map((c) => c.zoneId)).toContain('cheek-lower-left')
  })

  it('missed patches become short lanes with the grain, loaded as gone over again, before the second look ends', () => {
    const { input: own, live: end } = under(TOUGH, Infinity)
    const all = replayLive(end.plan, [])
    expect(all.state.index).toBe(0)
    let id = 0
    const events = play(DEFAULTS, end.plan, {
      startMs: 0,
      bladeLife: 400,
      screen: 's',
      newId: () => `p${id++}`,
    })
    const check = end.plan.steps.findIndex((s) => s.kind === 'check')
    const upTo = events.findIndex(
      (e) => e.stepId === end.plan.steps[check - 1]!.id && e.kind === 'done',
    )
    const looking = replayLive(end.plan, events.slice(0, upTo + 1))
    expect(looking.plan.steps[looking.state.index]!.kind).toBe('check')
    const places = (['jaw-left', 'neck-upper-right'] as const).map((zoneId) => ({
      zoneId,
      ...at(zoneId),
      radiusMm: 7,
    }))
    const next = amended(looking, replan(own, looking, { kind: 'missed', places }))
    const left = strokesLeft(next)
    expect(left.map((s) => s.zoneId).sort()).toEqual(['jaw-left', 'neck-upper-right'])
    for (const s of left) {
      const lane = next.plan.lanes.find((l) => l.id === s.laneId)!
      expect(lane.relation).toBe('with')
      expect(lane.areaCm2).toBeLessThan(2.2)
      expect(lane.load).toBeGreaterThan(1.3)
      expect(looking.plan.lanes.some((l) => l.id === lane.id)).toBe(false)
    }
    expect(next.plan.steps.slice(next.state.index).map((s) => s.kind)).toEqual([
      'stroke',
      'stroke',
      'check',
      'close',
      'close',
    ])
    // And their load is counted once they are done.
    const loads = (live: Live) =>
      executedLoads(live.plan, {
        ...live.state.outcomes,
        ...Object.fromEntries(strokesLeft(live).map((s) => [s.id, 'done' as const])),
      })
    expect(loads(next)['jaw-left']!).toBeGreaterThan(loads(looking)['jaw-left']!)
  })

  it('says so where nothing would change', () => {
    const { input: mild, live: soft } = under(
      { service: 'dermaplane', skin: { faceHair: 'fuzz', reactivity: 'average', bumpProne: true } },
      1,
    )
    expect(() => replan(mild, soft, { kind: 'gentler', leaveZone: false })).toThrow(
      'already as gentle',
    )
    const nape = { zoneId: 'nape-left' as const, ...at('nape-left'), radiusMm: 5 }
    const { input: beard, live: shave } = under(TOUGH, 2)
    expect(() => replan(beard, shave, { kind: 'missed', places: [nape] })).toThrow(
      'outside what this service works',
    )
    // One time over each place for fuzz (common practice).
    expect(() =>
      replan(mild, soft, {
        kind: 'missed',
        places: [{ zoneId: 'chin', ...at('chin'), radiusMm: 5 }],
      }),
    ).toThrow('never gone over twice')
    expect(() =>
      replan(mild, soft, {
        kind: 'leave-out',
        place: { zoneId: 'nape-left', ...at('nape-left'), radiusMm: 5 },
      }),
    ).toThrow('Nothing that is still to be done')
  })

  it('does the same on arms and legs', () => {
    const { input: body, live: legs } = under(
      { service: 'body-shave', skin: { reactivity: 'tough' }, choice: { style: 'closest' } },
      2,
    )
    const next = amended(legs, replan(body, legs, { kind: 'gentler', leaveZone: false }))
    for (const s of strokesLeft(next)) expect(s).toMatchObject({ relation: 'with', pass: 1 })
    const zone = legs.plan.zones[3]!
    const lane = legs.plan.lanes.find((l) => l.zoneId === zone.zoneId)!
    const r = replan(body, legs, {
      kind: 'leave-out',
      place: { zoneId: zone.zoneId, point: lane.point, normal: lane.normal, radiusMm: 15 },
    })
    expect(r.amendment.covers).toHaveLength(1)
  })
})
