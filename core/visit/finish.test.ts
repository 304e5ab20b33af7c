import { begin, play, replayLive, type Draft, type Live } from '../chair/index.ts'
import { NOTHING_AT_CHAIR } from '../looks/index.ts'
import { DEFAULTS } from '../house/index.ts'
import { makePlan } from '../plan/index.ts'
import { NEW_SKIN, SKIN } from '../testing/client.ts'
import { planInput } from '../testing/plan.ts'
import { ALWAYS_OPEN, DAY_MS, HOUR_MS, humaneMs } from '../time/index.ts'
import { afterService, finishService, type Ending, type FinishingHouse } from './finish.ts'

const PLAN = makePlan(planInput())
const START = Date.UTC(2026, 4, 20, 9)
const HOUSE: FinishingHouse = {
  name: 'Lantern Quay',
  closed: ALWAYS_OPEN,
  products: [
    { id: 'peel', name: 'Enzyme peel', use: 'after', holds: ['acid'] },
    { id: 'balm', name: 'Plain balm', use: 'after', holds: [] },
  ],
}

/** A whole service, with what happens besides before the first stroke. */
function served(besides: readonly Draft[] = []): Live {
  let n = 0
  let told = false
  const events = play(DEFAULTS, PLAN, {
    ...{ startMs: START, bladeLife: 400, screen: 's', newId: () => `e${++n}` },
    besides: ({ plan, state }) => {
      if (told || plan.steps[state.index]?.kind !== 'stroke') return []
      told = true
      return besides
    },
  })
  return replayLive(PLAN, events, begin(PLAN))
}
const ending = (live: Live, over: Partial<Ending> = {}): Ending => ({
  ...{ plan: live.plan, state: live.state, skin: SKIN, calledName: 'Ada' },
  ...{ products: [], answers: [], hair: [], skinOf: NEW_SKIN, ...over },
})
const finish = (live: Live, over: Partial<Ending> = {}) =>
  finishService(DEFAULTS, ending(live, over), HOUSE, (ms) => `at ${ms - START}`, 0)

describe('what ending a service leaves', () => {
  const calm = finish(served())

  it('is kept by job: what it was, load and hair by zone, what was chosen, the window told', () => {
    expect(calm.jobs).toHaveLength(1)
    const [job] = calm.jobs
    expect(job).toMatchObject(PLAN.jobs[0]!)
    const zones = PLAN.zones.map((z) => z.zoneId).sort()
    expect(Object.keys(job!.loads).sort()).toEqual(zones)
    expect(Object.keys(job!.leftMm).sort()).toEqual(zones)
    expect(Object.values(job!.loads).every((l) => l > 0)).toBe(true)
    expect(job!.choices!.zones).toBeDefined()
    expect(job!.dueToMs!).toBeGreaterThan(job!.dueFromMs!)
    expect(job!.dueFromMs!).toBeGreaterThan(calm.endedAtMs)
    expect(Number.isInteger(job!.dueFromMs)).toBe(true)
  })

  it('of a calm service: a first look that is clear, nothing at the chair, care from its end', () => {
    expect(calm.firstLook).toMatchObject({ moment: 'now', atMs: calm.endedAtMs, zones: [] })
    expect(calm.atChair).toEqual(NOTHING_AT_CHAIR)
    expect(calm.summary).toMatchObject({ worstRedness: null, severe: 0, gradeSum: null })
    expect(calm.care.endedAtMs).toBe(calm.endedAtMs)
    expect(calm.care.today).toEqual([])
  })

  it('sends the care at once, asks at each moment, and reminds the day before the window', () => {
    expect(calm.messages[0]!.kind).toBe('care')
    expect(calm.messages.map((m) => m.kind).sort()).toEqual([
      'care',
      'next',
      'question',
      'question',
      'question',
    ])
    const due = (kind: string) =>
      calm.messages.filter((m) => m.kind === kind).map((m) => m.dueAtMs - calm.endedAtMs)
    expect(due('care')).toEqual([0])
    expect(due('question')).toEqual([24 * HOUR_MS, 48 * HOUR_MS, 7 * DAY_MS])
    const [reminder] = calm.messages.filter((m) => m.kind === 'next')
    // The day before, at an hour at which nobody is woken.
    expect(reminder!.dueAtMs).toBe(humaneMs(calm.jobs[0]!.dueFromMs! - DAY_MS, 0))
    expect(calm.messages.every((m) => m.text.startsWith('Hello Ada,'))).toBe(true)
    expect(calm.messages.every((m) => m.text.trimEnd().endsWith('Lantern Quay'))).toBe(true)
    // In the order in which they are due.
    const times = calm.messages.map((m) => m.dueAtMs)
    expect(times).toEqual([...times].sort((a, b) => a - b))
  })

  it('of a service that reddened and nicked: told in care, looks and messages alike', () => {
    const end = finish(
      served([
        { kind: 'redness', detail: { zoneId: 'chin', grade: 3 } },
        { kind: 'nick', detail: { zoneId: 'chin' } },
      ]),
    )
    expect(end.atChair).toMatchObject({ redness: { chin: 3 }, nicks: { chin: 1 } })
    expect(end.summary.worstRedness).toBe(3)
    expect(end.care.today.join(' ')).toMatch(/moderate on the chin.*nick on the chin/s)
    const question = end.messages.find((m) => m.kind === 'question')!
    expect(question.text).toContain('chin')
    const swim = (c: typeof end.care) => c.clearances.find((x) => x.id === 'swimming')!.untilMs
    expect(swim(end.care) - end.endedAtMs).toBeGreaterThan(swim(calm.care) - calm.endedAtMs)
    // Skin that reddened waits for its window no shorter than skin that did not.
    expect(end.jobs[0]!.dueFromMs! - end.endedAtMs).toBeGreaterThanOrEqual(
      calm.jobs[0]!.dueFromMs! - calm.endedAtMs,
    )
  })

  it('read off anew keeps the looks that came meanwhile, and counts its own first look once', () => {
    const live = served([{ kind: 'redness', detail: { zoneId: 'chin', grade: 2 } }])
    const first = finish(live)
    const later = {
      ...{ moment: '24h' as const, atMs: first.endedAtMs + DAY_MS, source: 'seen' as const },
      zones: [{ zoneId: 'chin', redness: 4, bumps: 0 }],
    }
    const anew = finish(live, { answers: [first.firstLook!, later] })
    expect(anew.firstLook).toEqual(first.firstLook)
    expect(anew.summary).toMatchObject({ worstRedness: 4, severe: 1 })
    expect(anew.jobs).toEqual(first.jobs)
  })

  it('hangs on what was put on: after an acid light waits longer, and no second one', () => {
    const until = (end: ReturnType<typeof finish>, id: string) =>
      end.care.clearances.find((c) => c.id === id)!.untilMs - end.endedAtMs
    const acid = finish(served(), { products: ['peel'] })
    const balm = finish(served(), { products: ['balm', 'none such'] })
    expect(until(acid, 'sun')).toBeGreaterThan(until(calm, 'sun'))
    expect(until(acid, 'acids')).toBeGreaterThan(until(calm, 'acids'))
    expect(balm.care).toEqual(calm.care)
  })

  it('stands the same afterwards while nothing was answered, and has no care without a plan', () => {
    const facts = {
      ...{ jobs: calm.jobs, skin: SKIN, schools: PLAN.schools, plan: PLAN, products: [] },
      ...{ endedAtMs: calm.endedAtMs, answers: [] },
      atChair: calm.atChair,
    }
    const house = { ...HOUSE, offset: 0 }
    const after = afterService(DEFAULTS, facts, house, [], NEW_SKIN)
    expect(after.care).toEqual(calm.care)
    expect(Math.round(after.windows[0]!.window.fromMs)).toBe(calm.jobs[0]!.dueFromMs)
    expect(afterService(DEFAULTS, { ...facts, plan: null }, house, [], NEW_SKIN).care).toBeNull()
    const nothing = calm.jobs.map((j) => ({ ...j, leftMm: null }))
    expect(
      afterService(DEFAULTS, { ...facts, jobs: nothing }, house, [], NEW_SKIN).windows,
    ).toEqual([])
  })
})
