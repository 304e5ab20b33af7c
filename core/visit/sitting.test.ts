/** A sitting of several jobs from the questions to what it leaves, and what comes again of it. */
import { dueToday, upkeepLast, upkeepsOf, type UpkeepOutlook } from '../ahead/index.ts'
import { begin, play, replan, replayLive, type Draft } from '../chair/index.ts'
import { through } from '../testing/chair.ts'
import {
  learnGrowth,
  readyAfter,
  sumLoads,
  windowAfter,
  type HomeWork,
  type PastJob,
} from '../history/index.ts'
import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { makePlan } from '../plan/index.ts'
import { daysUntil, growthAfter, lengthAfter, priorGrowth } from '../regrowth/index.ts'
import { screen } from '../screening/index.ts'
import { HAND_METHODS, jobZones, METHOD_CONSTANTS, oneJob, type Job } from '../services/index.ts'
import { NEW_SKIN, SKIN } from '../testing/client.ts'
import { NOTHING, planInput } from '../testing/plan.ts'
import { askedAll, knownVisit, NOW } from '../testing/visit.ts'
import { ALWAYS_OPEN, DAY_MS } from '../time/index.ts'
import { finishService } from './finish.ts'
import { gate } from './gate.ts'

const START = Date.UTC(2026, 4, 20, 9)
const HEAD = oneJob('head', 'head-shave')
const FUZZ: Job = {
  ...oneJob('fuzz', 'facial-razor'),
  zones: ['forehead-left', 'forehead-right'],
}
const LIP: Job = {
  ...{ id: 'lip', service: 'facial-razor', method: 'wax' },
  zones: ['upper-lip-left', 'upper-lip-right'],
}
const JOBS = [HEAD, FUZZ, LIP]
const CLIENT = { ...SKIN, faceHair: 'fuzz' as const }
const PLAN = makePlan(planInput({ jobs: JOBS, skin: CLIENT }))

function served(besides: (step: string) => readonly Draft[] = () => []) {
  let n = 0
  const events = play(DEFAULTS, PLAN, {
    ...{ startMs: START, bladeLife: 400, screen: 's', newId: () => `e${++n}` },
    besides: ({ plan, state }) => besides(plan.steps[state.index]?.id ?? ''),
  })
  return replayLive(PLAN, events, begin(PLAN))
}
const finish = (live = served()) =>
  finishService(
    DEFAULTS,
    {
      ...{ plan: live.plan, state: live.state, skin: CLIENT, calledName: 'Ada' },
      ...{ products: [], answers: [], hair: [], skinOf: NEW_SKIN },
    },
    { name: 'Lantern Quay', products: [], closed: ALWAYS_OPEN },
    (ms) => `at ${ms}`,
    0,
  )

describe('asking of a sitting', () => {
  const ask = (jobs: readonly Job[], answers: object) =>
    screen(
      DEFAULTS,
      jobs,
      { answers: { ...NOTHING, ...answers }, spots: [] },
      DEFAULT_SCHOOLS,
      '2026-05-20',
      START,
      0,
    )

  it('is one: the strictest of its rules, and whose it is', () => {
    const retinoid = { 'retinoid-cream': { yes: true, date: '2026-05-18' } }
    expect(ask([HEAD], retinoid).verdict).toBe('go')
    expect(ask([FUZZ], retinoid).until).toBe('2026-05-23')
    // Wax waits longest, and says so.
    const both = ask(JOBS, retinoid)
    expect([both.verdict, both.until]).toEqual(['postpone', '2026-05-25'])
    expect(both.findings.filter((f) => f.ruleId === 'retinoid-cream')).toHaveLength(1)
    expect(both.findings[0]!.text).toMatch(/^Wax: the lip: /)
    // What all of them ask alike is nobody's own.
    const all = ask(JOBS, { infection: { yes: true } })
    expect(all.findings[0]!.text).toMatch(/^Do not work today/)
  })

  it('counts each question once, and asks what concerns any of them', () => {
    const open = screen(
      DEFAULTS,
      JOBS,
      { answers: {}, spots: [] },
      DEFAULT_SCHOOLS,
      '2026-05-20',
      START,
      0,
    )
    const each = JOBS.map(
      (j) =>
        screen(DEFAULTS, [j], { answers: {}, spots: [] }, DEFAULT_SCHOOLS, '2026-05-20', START, 0)
          .unanswered,
    )
    expect(open.unanswered).toBe(Math.max(...each))
  })

  it('keeps what is torn from thinned skin for half a year, by the root alone (common practice)', () => {
    const took = { isotretinoin: { yes: true, date: '2026-03-01' } }
    expect(ask([HEAD], took).verdict).toBe('go')
    expect(ask([LIP], took).verdict).toBe('postpone')
    expect(ask([{ ...LIP, method: 'tweezers' }], took).verdict).toBe('go')
  })

  it('is signed once, for all that is done', () => {
    const known = knownVisit({ jobs: JOBS, asked: askedAll('head-shave') })
    expect(gate(known).findings.find((f) => f.about === 'consent')!.title).toMatch(/text.*changed/)
  })
})

describe('what a sitting leaves', () => {
  const end = finish()

  it('is kept job by job, and adds up zone by zone', () => {
    const [head, fuzz, lip] = end.jobs
    expect(Object.keys(lip!.loads)).toEqual(LIP.zones)
    expect(lip!.loads['upper-lip-left']).toBe(DEFAULTS(METHOD_CONSTANTS.waxLoad))
    expect(lip!.leftMm).toEqual({ 'upper-lip-left': 0, 'upper-lip-right': 0 })
    expect(lip!.choices).toBeNull()
    expect(Object.keys(fuzz!.loads).sort()).toEqual([...FUZZ.zones!].sort())
    expect(fuzz!.choices!.blade).not.toBe(head!.choices!.blade)
    for (const zone of jobZones(HEAD)) expect(head!.loads[zone]).toBeGreaterThan(0)
    expect(Object.keys(sumLoads(end.jobs))).toHaveLength(jobZones(HEAD).length + 4)
  })

  it('has a window for each job by its own rhythm: a shave in days, fuzz in weeks, wax when it is over', () => {
    const days = end.jobs.map((j) => Math.round((j.dueFromMs! - end.endedAtMs) / DAY_MS))
    expect(days[0]).toBeLessThan(7)
    expect(days[1]).toBe(28)
    expect(days[2]).toBe(DEFAULTS(METHOD_CONSTANTS.waxLasts))
    const own = finish({
      ...served(),
      plan: { ...PLAN, jobs: [HEAD, FUZZ, { ...LIP, everyDays: 30 }] },
    })
    expect(Math.round((own.jobs[2]!.dueFromMs! - own.endedAtMs) / DAY_MS)).toBe(30)
    // The word before the next visit speaks of what is due first.
    expect(end.messages.find((m) => m.kind === 'next')!.text).toMatch(/next hot-towel head shave/)
    expect(end.messages[0]!.subject).toMatch(/head shave, .*and wax: the lip/)
  })

  it('sends home one sheet with the strictest of each', () => {
    const until = (id: string) => end.care.clearances.find((c) => c.id === id)!
    expect(end.care.clearances.map((c) => c.id)).toEqual([
      ...new Set(end.care.clearances.map((c) => c.id)),
    ])
    // Fuzz keeps out of the sun longer than a shave does.
    expect((until('sun').untilMs - end.endedAtMs) / 3_600_000).toBe(72)
    expect(until('sun').text).toMatch(/facial razor/)
    const sorted = end.care.clearances.map((c) => c.untilMs)
    expect(sorted).toEqual([...sorted].sort((a, b) => a - b))
  })

  it('tells of what was left by hand, and skin that reddened leaves its wax', () => {
    let told = false
    const left = served((step) => {
      if (told || step !== 'hand:lip') return []
      told = true
      return [{ kind: 'skipped', stepId: 'hand:lip', reason: 'the client said no' }]
    })
    const after = finish(left)
    expect(after.jobs[2]!.loads).toEqual({})
    expect(after.atChair.leftOut['upper-lip-left']).toBe('the client said no')
    expect(after.jobs[2]!.dueFromMs).toBeNull()
    const input = planInput({ jobs: JOBS, skin: CLIENT })
    const begun = begin(PLAN)
    const atHand = through(begun, (l) => l.plan.steps[l.state.index]?.id === 'hand:lip')
    const { amendment } = replan(input, atHand, {
      ...{ kind: 'gentler', zoneId: 'upper-lip-left', leaveZone: true },
    })
    const hand = amendment.steps.find((s) => s.id === 'hand:lip')!
    expect(hand.zoneIds).toEqual(['upper-lip-right'])
    expect(hand.minutes).toBeCloseTo(DEFAULTS(HAND_METHODS.wax.minutes), 9)
    // What is still stroked is stroked by its own service.
    expect(new Set(amendment.lanes.map((l) => l.jobId))).toEqual(new Set(['head', 'fuzz']))
  })
})

describe('hair that came out by its root', () => {
  const growth = priorGrowth(DEFAULTS, 'shin-left', 'limb')
  const after = growthAfter(DEFAULTS, growth, 'wax')

  it('is felt again when wax is said to be over: four to six weeks hold 80 % (common practice)', () => {
    const { even, early, late } = daysUntil(DEFAULTS, after, 'felt', 0)
    expect(even).toBeCloseTo(35, 0)
    expect(early).toBeGreaterThan(26)
    expect(early).toBeLessThan(30)
    expect(late).toBeGreaterThan(40)
    expect(late).toBeLessThan(45)
    expect(growthAfter(DEFAULTS, growth, 'blade')).toBe(growth)
  })

  it('rests first and then grows as it always did', () => {
    const rest = after.rest!.days
    expect(lengthAfter(DEFAULTS, after, 0, 0.2, rest - 1)).toBe(0)
    expect(lengthAfter(DEFAULTS, after, 0, 0.2, rest + 10)).toBeCloseTo(2, 9)
  })
})

describe('what comes again', () => {
  const past = (job: Job, daysAgo: number, over: Partial<PastJob> = {}): PastJob => ({
    ...job,
    loads: Object.fromEntries(jobZones(job).map((z) => [z, 1])),
    leftMm: Object.fromEntries(jobZones(job).map((z) => [z, job.method === 'wax' ? 0 : 0.12])),
    ...{ visitId: `v${daysAgo}`, endedAtMs: NOW - daysAgo * DAY_MS, answers: [], redAtChair: {} },
    ...over,
  })
  const outlook = (
    list: readonly PastJob[],
    skin = CLIENT,
    home: readonly HomeWork[] = [],
  ): UpkeepOutlook[] =>
    upkeepsOf(DEFAULTS, list, 'head-shave', NOW).map((u) => {
      const last = upkeepLast(u)
      const growth = learnGrowth(DEFAULTS, skin, u.zones, [])
      const readyMs = readyAfter(DEFAULTS, last, NEW_SKIN, home)
      const comes = { skin, schools: DEFAULT_SCHOOLS, closed: ALWAYS_OPEN, offset: 0 }
      const window = windowAfter(DEFAULTS, last, comes, growth, readyMs, home)
      return { ...u, window, growth, skin: NEW_SKIN, home }
    })

  it('is each kind of work, the usual one first, until another takes its skin or nobody asks for long', () => {
    const kinds = (list: readonly PastJob[]) =>
      upkeepsOf(DEFAULTS, list, 'head-shave', NOW).map((u) => u.job.id)
    expect(kinds([past(LIP, 2), past(HEAD, 5), past(FUZZ, 20)])).toEqual(['head', 'lip', 'fuzz'])
    // Lip by blade since: the wax is given up. Tweezed strays give nothing up.
    const blade: Job = { ...LIP, id: 'blade', method: 'guarded' }
    expect(kinds([past(blade, 2), past(LIP, 40)])).toEqual(['blade'])
    expect(kinds([past({ ...LIP, id: 'strays', method: 'tweezers' }, 2), past(LIP, 40)])).toEqual([
      'strays',
      'lip',
    ])
    expect(kinds([past(HEAD, 300), past(FUZZ, 300)])).toEqual(['head'])
  })

  it('is due when hair shows and skin and rhythm are ready', () => {
    const [head] = dueToday(DEFAULTS, outlook([past(HEAD, 6)]), NOW)
    expect(head).toMatchObject({ state: 'due', service: 'head-shave', later: [] })
    expect(head!.zones.length).toBe(jobZones(HEAD).length)
    const [young] = dueToday(DEFAULTS, outlook([past(HEAD, 1)]), NOW)
    expect(young!.state).toBe('waits')
  })

  it('joins a sitting when it is nearly due, and says what that saves and costs', () => {
    const list = [past(HEAD, 6), past(FUZZ, 30)]
    const due = dueToday(DEFAULTS, outlook(list), NOW)
    expect(due.map((d) => [d.name.split(':')[0], d.state])).toEqual([
      ['Hot-towel head shave', 'due'],
      ['Guarded facial razor', 'nearly'],
    ])
    const { saves } = due[1]!
    expect(saves!.days).toBeGreaterThan(0)
    expect(saves!.days / saves!.of).toBeLessThanOrEqual(0.35)
    expect(saves!.load).toBe(1)
    expect(saves!.moreInAYear).toBeCloseTo(365 / 30 - 365 / saves!.of, 9)
    // Shaved at home yesterday, hair and skin begin anew: that saves nothing.
    const zones = jobZones(FUZZ)
    const home: HomeWork = {
      ...{ id: 'h', atMs: NOW - DAY_MS, zones, tool: 'guarded', fresh: true, dull: false },
      ...{ source: 'client', toldAtMs: NOW },
    }
    const shaved = dueToday(DEFAULTS, outlook(list, CLIENT, [home]), NOW)
    expect(shaved.find((d) => d.service === 'facial-razor')!.state).toBe('waits')
    // Too early by far it waits.
    const early = dueToday(DEFAULTS, outlook([past(HEAD, 6), past(FUZZ, 12)]), NOW)
    expect(early.find((d) => d.service === 'facial-razor')!.state).toBe('waits')
  })
})
