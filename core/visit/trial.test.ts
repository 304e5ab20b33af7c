/** A newcomer at the gate: the strip that is drawn, the strip that was worked, and what the last session lets do. */
import { DEFAULT_SCHOOLS, DEFAULTS } from '../house/index.ts'
import type { CourseSession } from '../history/index.ts'
import type { Outline } from '../lines/index.ts'
import { makePlan } from '../plan/index.ts'
import type { SkinAnswer } from '../looks/index.ts'
import type { Asked } from '../screening/index.ts'
import { oneJob } from '../services/index.ts'
import { planInput } from '../testing/plan.ts'
import { askedAll, knownVisit, NOW, pastVisit } from '../testing/visit.ts'
import { DAY_MS } from '../time/index.ts'
import { gate, heldWords } from './gate.ts'
import { feltAfter, trialOf } from './trial.ts'
import type { JobWindow } from './finish.ts'
import type { Known } from './types.ts'

const service = 'dermaplane'
const STRIP = { schools: { ...DEFAULT_SCHOOLS, firstTry: 'strip' } } as const
const first = (): Asked => ({
  ...askedAll(service),
  answers: { ...askedAll(service).answers, 'first-ever': { yes: true } },
})
const TAP = { zoneId: 'jaw-left', point: [50, -80, 40], normal: [1, 0, 0] } as const
const outline: Outline = {
  ...{ id: 'o', kind: 'trial', drawnAtMs: NOW - 3 * DAY_MS },
  taps: [TAP, TAP, TAP],
}
const looked = (redness: number, days: number, bumps = 0): SkinAnswer => ({
  moment: '24h',
  atMs: NOW - days * DAY_MS,
  zones: redness + bumps > 0 ? [{ zoneId: 'jaw-left', redness, bumps }] : [],
})
/** A strip worked so many days ago. */
const tried = (daysAgo: number, answers: readonly SkinAnswer[] = []) =>
  pastVisit({
    jobs: [{ ...oneJob('job', service), trial: true }],
    endedAtMs: NOW - daysAgo * DAY_MS,
    ...{ zones: ['jaw-left'], worked: ['jaw-left'], answers },
  })
const known = (over: Partial<Known> & { drawn?: boolean; feltAtMs?: number } = {}): Known => {
  const { drawn, feltAtMs, ...rest } = over
  const base = knownVisit({ service, asked: first(), ...rest })
  const notes = drawn ? { outlines: [outline] } : {}
  return {
    ...base,
    notes,
    trial: trialOf(
      DEFAULTS,
      { jobs: base.jobs, notes },
      { past: base.past, ...(feltAtMs !== undefined && { feltAtMs }) },
    ),
  }
}
const firstEver = (k: Known) => gate(k).findings.find((f) => f.id.startsWith('rule:first-ever'))
const mayPlan = (k: Known) => heldWords(gate(k).findings, 'plan') === undefined

describe('a first treatment', () => {
  it('by the cautious school waits for a strip; a strip drawn now may be worked, by either school', () => {
    expect(firstEver(known(STRIP))).toMatchObject({
      severity: 'postpone',
      text: expect.stringMatching(/Draw a trial strip/),
    })
    for (const schools of [STRIP.schools, DEFAULT_SCHOOLS]) {
      expect(mayPlan(known({ schools }))).toBe(false)
      expect(mayPlan(known({ schools, drawn: true }))).toBe(true)
    }
    // A small spot is enough for the other school.
    expect(firstEver(known())?.text).toMatch(/patch test/)
  })

  it('waits until the strip was looked at, then until hair was felt or a week is over', () => {
    const at = (days: number, answers?: readonly SkinAnswer[], more = {}) =>
      firstEver(known({ ...STRIP, past: [tried(days, answers)], ...more }))
    expect(at(3)?.text).toMatch(/Nobody has told how the trial strip/)
    expect(at(3, [looked(0, 2)])).toMatchObject({ severity: 'postpone', until: '2026-05-24' })
    expect(at(3, [looked(0, 2)], { feltAtMs: NOW - DAY_MS })?.severity).toBe('note')
    expect(at(7, [looked(0, 6)])?.severity).toBe('note')
    expect(at(8, [looked(2, 7), looked(0, 3, 3)])).toMatchObject({
      severity: 'take-care',
      text: expect.stringMatching(/redness 2 and 3 bumps/),
    })
    // The other side is not the strip.
    const other = {
      ...looked(0, 2),
      zones: [{ zoneId: 'jaw-right', redness: 3, bumps: 5 }],
    } as const
    expect(at(8, [other])).toMatchObject({ severity: 'note' })
    // Read a day later like a patch test, by the other school.
    expect(firstEver(known({ past: [tried(2, [looked(0, 1)])] }))?.severity).toBe('note')
  })

  it('goes no further where the strip reacted, whatever is drawn', () => {
    const past = [tried(8, [looked(3, 7)])]
    expect(firstEver(known({ ...STRIP, past }))?.severity).toBe('stop')
    expect(firstEver(known({ ...STRIP, past, drawn: true }))?.severity).toBe('stop')
  })

  it('a strip that is only begun is none, and lets nothing be planned', () => {
    const notes = { outlines: [{ ...outline, taps: [TAP, TAP] }] }
    expect(trialOf(DEFAULTS, { jobs: [oneJob('job', service)], notes }, { past: [] })).toBe(
      undefined,
    )
  })

  it('a reaction ends it where no patch test is asked for at all', () => {
    const none = { schools: { ...DEFAULT_SCHOOLS, patchTest: 'none' } } as const
    expect(firstEver(known({ ...none, past: [tried(8, [looked(3, 7)])] }))?.severity).toBe('stop')
    expect(mayPlan(known({ ...none, past: [tried(8, [looked(0, 7)])] }))).toBe(true)
  })

  it('hair felt on the strip is told by the last strip alone', () => {
    const kept = [
      {
        ...tried(3),
        jobs: [{ ...oneJob('job', service), trial: true, loads: null, leftMm: null }],
      },
    ] as const
    const told = (kind: 'felt' | 'not-felt', visitId: string) => ({ visitId, kind, days: 2 })
    expect(feltAfter(kept, [told('felt', 'past')])).toEqual({ feltAtMs: NOW - DAY_MS })
    expect(feltAfter(kept, [told('not-felt', 'past'), told('felt', 'another')])).toEqual({})
  })

  it('says no more once the whole was worked', () => {
    const whole = pastVisit({ jobs: [oneJob('job', service)], endedAtMs: NOW - DAY_MS })
    expect(trialOf(DEFAULTS, { jobs: [oneJob('job', service)] }, { past: [whole, tried(9)] })).toBe(
      undefined,
    )
  })

  it('holds back a plan of the whole once a strip is drawn, and one of a strip that is gone', () => {
    const plan = makePlan(planInput({ service }))
    const kept = { plan, planMadeAtMs: NOW, drawn: true }
    const behind = (k: Known) => gate(k).findings.find((f) => f.id === 'drawn-newer')
    expect(behind(known(kept))).toMatchObject({
      holds: 'start',
      text: expect.stringMatching(/the only place to work/),
    })
    expect(behind(known({ ...kept, plan: { ...plan, trial: true } }))).toBeUndefined()
    expect(behind(known({ plan: { ...plan, trial: true }, planMadeAtMs: NOW }))?.text).toMatch(
      /strip is gone/,
    )
    const newer = known({ ...kept, plan: { ...plan, trial: true }, planMadeAtMs: NOW - 9 * DAY_MS })
    expect(behind(newer)?.text).toMatch(/trial strip/)
  })
})

describe('a long nick', () => {
  const nicked = (daysAgo: number, mm: number) =>
    knownVisit({
      past: [pastVisit({ endedAtMs: NOW - daysAgo * DAY_MS, nickMm: { chin: mm } })],
    })
  const found = (k: Known) => gate(k).findings.find((f) => f.about === 'nick')

  it('leaves its place out of the next plan until its days are over', () => {
    expect(gate(nicked(3, 6)).screening.leaveOutZones).toEqual(['chin'])
    expect(found(nicked(3, 6))).toMatchObject({ severity: 'leave-out', until: '2026-05-24' })
    expect(found(nicked(3, 2))).toBeUndefined()
    expect(found(nicked(7, 6))).toBeUndefined()
  })

  it('unless a worker has seen it closed and says so; elsewhere it is nobody’s matter', () => {
    const { id } = found(nicked(3, 6))!
    const decision = {
      ...{ id: 'd', visitId: 'v', finding: id, workerId: 'w', workerName: 'Ines' },
      ...{ reason: 'closed', atMs: NOW, takenBackAtMs: null },
    }
    expect(gate({ ...nicked(3, 6), decisions: [decision] }).screening.leaveOutZones).toEqual([])
    expect(found({ ...nicked(3, 6), jobs: [oneJob('job', 'head-shave')] })).toBeUndefined()
  })
})

describe('the course at the gate', () => {
  const session = (over: Partial<CourseSession>): CourseSession => ({
    ...{ visitId: 'p', endedAtMs: NOW - 28 * DAY_MS, nth: 1, bumps: 14, worst: 1, mark: 'H' },
    ...{ expected: { mean: 3, low: 0, high: 7 }, verdict: 'change', why: 'Many.' },
    ...over,
  })
  const at = (over: Partial<CourseSession>, more: Partial<Known> = {}) =>
    gate(knownVisit({ service, course: session(over), ...more }))

  it('a change is told, and the strokes follow it', () => {
    expect(at({ thing: 'with-grain' }).screening).toMatchObject({ withGrainOnly: true })
    expect(at({ thing: 'one-pass' }).screening).toMatchObject({ onePass: true })
    const { findings, screening } = at({ thing: 'film' })
    expect(findings.find((f) => f.about === 'course')?.text).toMatch(/A film of gel or lotion/)
    expect(screening).toMatchObject({ onePass: false, withGrainOnly: false })
  })

  it('a week more is a week more: nothing is planned before it, unless a worker decides', () => {
    const windows = [
      {
        jobId: 'job',
        window: {
          ...({ toMs: NOW + 9 * DAY_MS } as JobWindow['window']),
          fromMs: NOW - 2 * DAY_MS,
        },
      },
    ]
    const held = at({ thing: 'wait' }, { windows })
    expect(heldWords(held.findings, 'plan')).toMatch(/Session 1 of .*: a week more/)
    const past = windows.map((w) => ({ ...w, window: { ...w.window, fromMs: NOW - 9 * DAY_MS } }))
    const free = at({ thing: 'wait' }, { windows: past })
    expect(free.findings.some((f) => f.about === 'course')).toBe(false)
  })

  it('a worker may decide otherwise, and then the strokes do not follow', () => {
    const decisions = [
      {
        ...{ id: 'd', visitId: 'v', finding: 'course:p:change', workerId: 'w', workerName: 'Ines' },
        ...{ reason: 'was the lotion', atMs: NOW, takenBackAtMs: null },
      },
    ]
    const { findings, screening } = at({ thing: 'one-pass' }, { decisions })
    expect(screening.onePass).toBe(false)
    expect(findings.find((f) => f.about === 'course')?.decided).toBeDefined()
  })

  it('a stop holds the plan; what went well says nothing; what nobody told is asked for', () => {
    expect(heldWords(at({ verdict: 'stop' }).findings, 'plan')).toMatch(/Session 1 of .*: stop/)
    expect(at({ verdict: 'go-on' }).findings.some((f) => f.about === 'course')).toBe(false)
    const waits = at({ verdict: 'wait', nth: 0 })
    expect(heldWords(waits.findings, 'plan')).toBeUndefined()
    expect(waits.findings.find((f) => f.about === 'course')?.title).toMatch(
      /trial strip .* not told/,
    )
  })
})
