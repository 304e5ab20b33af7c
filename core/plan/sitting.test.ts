/** Sittings of several jobs: what is planned as one, in what order, how long, what each of them leaves. */
import fc from 'fast-check'
import { DEFAULTS } from '../house/index.ts'
import { anyZoneOdds } from '../skin/index.ts'
import {
  checkSitting,
  handJobs,
  jobName,
  jobsWords,
  oneJob,
  plannedGroups,
  serviceZones,
  type Job,
} from '../services/index.ts'
import { planInput } from '../testing/plan.ts'
import type { ZoneId } from '../zones/index.ts'
import { fit } from './fit.ts'
import { makePlan } from './makePlan.ts'
import { serviceIn, stepLanes, stepZones, type Plan, type PlanStep } from './types.ts'

const job = (id: string, over: Partial<Job>): Job => ({ ...oneJob(id, 'face-shave'), ...over })
const HEAD = oneJob('head', 'head-shave')
const FUZZ = job('fuzz', { service: 'facial-razor', zones: ['forehead-left', 'forehead-right'] })
const LIP = job('lip', {
  service: 'facial-razor',
  zones: ['upper-lip-left', 'upper-lip-right'],
  method: 'wax',
})
const BROWS = job('brows', {
  service: 'brow-tidy',
  zones: ['glabella'],
  method: 'tweezers',
  everyDays: 9,
})
const SKIN = { faceHair: 'fuzz' as const }
const sitting = (...jobs: Job[]) => makePlan(planInput({ jobs, skin: SKIN }))
const at = (plan: Plan, is: (s: PlanStep) => boolean) => plan.steps.findIndex(is)
const of = (plan: Plan, id: string) => (s: PlanStep) =>
  s.kind === 'stroke' && s.jobId === id && !!plan

describe('what is planned as one', () => {
  it('is the same service by the same method, however many jobs it was put down as', () => {
    const cheeks = job('a', { zones: ['cheek-lower-left', 'cheek-lower-right'] })
    const chin = job('b', { zones: ['chin', 'cheek-lower-left'] })
    const [group, ...more] = plannedGroups([cheeks, LIP, chin])
    expect(more).toEqual([])
    expect(group!.jobs.map((j) => j.id)).toEqual(['a', 'b'])
    expect([...group!.zones!].sort()).toEqual(['cheek-lower-left', 'cheek-lower-right', 'chin'])
    expect(handJobs([cheeks, LIP, chin, BROWS]).map((j) => j.id)).toEqual(['lip', 'brows'])
  })

  it('gives skin that two services would work to the first', () => {
    const face = oneJob('face', 'face-shave')
    const line = oneJob('line', 'beard-line')
    const [first, second] = plannedGroups([face, line])
    expect(first!.zones).toBeNull()
    const own = new Set(serviceZones('face-shave'))
    expect(second!.zones!.length).toBeGreaterThan(0)
    expect(second!.zones!.filter((z) => own.has(z))).toEqual([])
  })

  it.each([
    ['two-grounds', [HEAD, oneJob('legs', 'body-shave')]],
    ['nothing-of-its-own', [oneJob('a', 'facial-razor'), job('b', { ...FUZZ, method: 'guarded' })]],
    ['root-and-blade', [job('a', { ...FUZZ, zones: ['upper-lip-left'] }), LIP]],
    ['twice-by-hand', [LIP, { ...LIP, id: 'c', method: 'thread' }]],
    ['not-its-skin', [{ ...HEAD, zones: ['chin'] }]],
    ['no-job', []],
  ] as const)('refuses %s in words', (code, jobs) => {
    expect(() => checkSitting(jobs as readonly Job[])).toThrow(
      expect.objectContaining({ code, message: expect.stringMatching(/\w{4}.*\.$/) }),
    )
  })

  it('is named by what it is and where', () => {
    expect(jobName(HEAD)).toBe('Hot-towel head shave')
    expect(jobName(LIP)).toBe('Wax: the lip')
    expect(jobName(FUZZ)).toBe('Guarded facial razor: the forehead')
    expect(jobName({ ...FUZZ, method: 'guarded', service: 'dermaplane' })).toMatch(/guarded blade/)
    expect(jobsWords([HEAD, LIP, BROWS])).toBe(
      'Hot-towel head shave, wax: the lip and tweezers: the brows',
    )
  })
})

describe('a service put down as several jobs', () => {
  const whole = makePlan(planInput({ jobs: [oneJob('all', 'face-shave')] }))
  const figures = (plan: Plan) =>
    Object.fromEntries(
      plan.zones.map((z) => [
        z.zoneId,
        [z.totalLoad, z.smoothHours, z.passes.map((p) => [p.relation, p.leftMm])],
      ]),
    )

  it('gets the same load and leaves the same hair as in one (property)', () => {
    const zones = serviceZones('face-shave')
    fc.assert(
      fc.property(
        fc.array(fc.boolean(), { minLength: zones.length, maxLength: zones.length }),
        (side) => {
          const [a, b] = [true, false].map((s) => zones.filter((_, i) => side[i] === s))
          fc.pre(a!.length > 0 && b!.length > 0)
          const jobs = [job('a', { zones: a! }), job('b', { zones: b! })]
          const parted = makePlan(planInput({ jobs }))
          expect(figures(parted)).toEqual(figures(whole))
          expect(parted.totalMinutes).toBeCloseTo(whole.totalMinutes, 9)
          for (const z of parted.zones) expect(z.jobId).toBe(a!.includes(z.zoneId) ? 'a' : 'b')
        },
      ),
      { numRuns: 6 },
    )
  })

  it('of one side alone is planned there for either hand', () => {
    const zones: ZoneId[] = ['cheek-lower-left', 'jaw-left']
    for (const hand of ['right', 'left'] as const) {
      const plan = makePlan(planInput({ jobs: [job('a', { zones })], hand }))
      expect(plan.zones.map((z) => z.zoneId).sort()).toEqual([...zones].sort())
    }
  })
})

describe('a sitting of several jobs', () => {
  const plan = sitting(HEAD, LIP, FUZZ, BROWS)
  const apart = [HEAD, LIP, FUZZ, BROWS].map((j) => sitting(j))

  it('is prepared once and closed once, with the coolest close', () => {
    const ids = plan.steps.map((s) => s.id)
    expect(new Set(ids).size).toBe(ids.length)
    for (const id of ['prepare:cleanse', 'check', 'close:cold', 'close:soothe'])
      expect(ids.filter((x) => x === id)).toHaveLength(1)
    expect(ids.at(-1)).toBe('close:soothe')
    expect(plan.steps.find((s) => s.id === 'close:cold')!.title).toBe('Cold towel')
    expect(plan.steps.find((s) => s.id === 'check')!.text).toMatch(/facial razor: .*head shave: /)
  })

  it('goes dry before wet, strays before fuzz, fuzz before lather (common practice)', () => {
    const tweezers = at(plan, (s) => s.id === 'hand:brows')
    const wax = at(plan, (s) => s.id === 'hand:lip')
    const fuzz = at(plan, of(plan, 'fuzz'))
    const lather = at(plan, (s) => s.lays === 'lather')
    const head = at(plan, of(plan, 'head'))
    expect([tweezers, wax, fuzz, lather, head]).toEqual(
      [tweezers, wax, fuzz, lather, head].sort((a, b) => a - b),
    )
    expect(tweezers).toBeGreaterThan(0)
    // Whatever is to be felt is felt on dry skin.
    expect(Math.max(...plan.steps.map((s, i) => (s.kind === 'feel' ? i : -1)))).toBeLessThan(lather)
  })

  it('takes no longer than its jobs apart', () => {
    const sum = apart.reduce((s, p) => s + p.totalMinutes, 0)
    expect(plan.totalMinutes).toBeLessThan(sum)
    expect(plan.slotMinutes).toBeLessThanOrEqual(apart.reduce((s, p) => s + p.slotMinutes, 0))
    expect(plan.totalMinutes).toBeCloseTo(
      plan.steps.reduce((s, x) => s + x.minutes, 0),
      9,
    )
  })

  it('is never longer than its jobs apart, whichever they are (property)', () => {
    const some: readonly Job[] = [
      FUZZ,
      LIP,
      BROWS,
      job('chin', { zones: ['chin'] }),
      job('jaw', { service: 'dermaplane', zones: ['jaw-left', 'jaw-right'] }),
      job('cheeks', {
        service: 'face-shave',
        zones: ['cheek-lower-left', 'cheek-lower-right'],
        method: 'trimmer',
      }),
    ]
    fc.assert(
      fc.property(fc.shuffledSubarray([...some], { minLength: 2, maxLength: 4 }), (jobs) => {
        const together = sitting(...jobs)
        const alone = jobs.reduce((s, j) => s + sitting(j).totalMinutes, 0)
        expect(together.totalMinutes).toBeLessThanOrEqual(alone + 1e-9)
        const ids = together.steps.map((s) => s.id)
        expect(new Set(ids).size).toBe(ids.length)
      }),
      { numRuns: 8 },
    )
  })

  it('has one price, one kit and the odds of all its skin together', () => {
    expect(plan.cost).toBeLessThan(apart.reduce((s, p) => s + p.cost, 0))
    expect(plan.kit.filter((k) => k.name === 'gloves')).toHaveLength(1)
    expect(plan.kit.map((k) => k.name)).toEqual(
      expect.arrayContaining(['wax and strips', 'tweezers', 'towels']),
    )
    const input = planInput({ jobs: plan.jobs, skin: SKIN })
    const loads: Record<string, number> = {}
    for (const z of plan.zones) loads[z.zoneId] = z.totalLoad
    for (const h of plan.hand!) for (const z of h.zones) loads[z] = (loads[z] ?? 0) + h.load
    expect(plan.odds!.any).toBeCloseTo(anyZoneOdds(input.belief, loads), 9)
    const own = plan.front!.points[plan.front!.at]!
    expect(own.odds).toBeCloseTo(plan.odds!.any, 3)
    // What is told of a plan of the front is what it takes, but for the order that is found.
    expect(Math.abs(own.minutes - plan.totalMinutes)).toBeLessThan(2.5)
  })

  it('tells every stroke, zone and step whose it is, and by which service', () => {
    for (const z of plan.zones)
      expect(serviceIn(plan, z.zoneId)).toBe(z.jobId === 'head' ? 'head-shave' : 'facial-razor')
    const lanes = new Map(plan.lanes.map((l) => [l.id, l]))
    for (const step of plan.steps.filter((s) => s.kind === 'stroke'))
      for (const id of stepLanes(step)) expect(lanes.get(id)!.jobId).toBe(step.jobId)
    const wax = plan.steps.find((s) => s.id === 'hand:lip')!
    expect(stepZones(wax)).toEqual(LIP.zones)
    expect(wax.text).toMatch(/against it/)
  })

  it('leaves out what asking leaves out, of what is done by hand too, and a job of which nothing is left', () => {
    const input = planInput({ jobs: [HEAD, LIP, FUZZ], skin: SKIN })
    const screening = {
      ...input.screening,
      leaveOutZones: ['upper-lip-left', ...FUZZ.zones!] as ZoneId[],
    }
    const left = makePlan({ ...input, screening })
    expect(left.hand!.map((h) => h.zones)).toEqual([['upper-lip-right']])
    expect(left.zones.every((z) => z.jobId === 'head')).toBe(true)
    expect(left.leftOut.map((z) => z.zoneId)).toEqual(
      expect.arrayContaining(['upper-lip-left', 'forehead-left']),
    )
  })

  it('of what is done by hand alone has no strokes, and is closed as the method asks', () => {
    const lip = sitting(LIP)
    expect([lip.zones, lip.lanes, lip.front]).toEqual([[], [], undefined])
    expect(lip.steps.map((s) => s.id)).toEqual([
      ...['prepare:cleanse', 'hand:lip', 'check', 'close:cold', 'close:soothe'],
    ])
    expect(sitting(BROWS).steps.map((s) => s.id)).not.toContain('close:cold')
  })

  it('puts the line last or first by school, and wipes off the lather between', () => {
    const lines = planInput({ jobs: [oneJob('line', 'beard-line')] })
    expect(lines.jobs).toHaveLength(1)
    const part = (
      service: 'head-shave' | 'beard-line',
      lineInSitting: 'line-last' | 'line-first',
    ) => {
      const input = planInput({ service, schools: { lineInSitting } })
      return { input: { ...input, service, schools: input.schools }, zones: [], lanes: [] }
    }
    const ids = (school: 'line-last' | 'line-first') =>
      fit([part('beard-line', school), part('head-shave', school)], [], undefined, {
        figures: DEFAULTS,
        noFragrance: false,
      }).walked.steps.map((s) => s.id)
    const last = ids('line-last')
    expect(last.indexOf('prepare:comb')).toBeGreaterThan(last.indexOf('prepare:lather'))
    expect(last.some((id) => id.startsWith('prepare:wipe'))).toBe(true)
    const first = ids('line-first')
    expect(first.indexOf('prepare:comb')).toBeLessThan(first.indexOf('prepare:lather'))
    expect(first.some((id) => id.startsWith('prepare:wipe'))).toBe(false)
  })

  it('fits into a time by dropping what buys least, whosever it is', () => {
    const two = [oneJob('face', 'face-shave'), job('brow', { ...FUZZ, service: 'dermaplane' })]
    const input = planInput({
      jobs: two,
      skin: { reactivity: 'tough' },
      choice: { style: 'closest' },
    })
    const long = makePlan(input)
    const short = makePlan({ ...input, choice: { ...input.choice, within: long.totalMinutes - 3 } })
    expect(short.dropped.length).toBeGreaterThan(0)
    expect(short.totalMinutes).toBeLessThan(long.totalMinutes - 2.9)
    expect(short.zones.filter((z) => z.jobId === FUZZ.id)).toHaveLength(2)
  })
})
