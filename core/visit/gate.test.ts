import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import type { SkinAnswer } from '../looks/index.ts'
import { makePlan } from '../plan/index.ts'
import { RULES, NOTHING_ASKED, type Asked, patchRefusal } from '../screening/index.ts'
import { SEVERITY_ORDER } from '../services/index.ts'
import type { PatchTest } from '../screening/asked.ts'
import { planInput } from '../testing/plan.ts'
import { askedAll, knownVisit, NOW, pastVisit } from '../testing/visit.ts'
import { addDays, DAY_MS, HOUR_MS } from '../time/index.ts'
import { eventNotes } from './events.ts'
import { checkDecision, gate, heldWords, holding } from './gate.ts'
import { newsAtChair } from './skin.ts'
import type { Decision, Known } from './types.ts'
import fc from 'fast-check'

const TODAY = '2026-05-20'
const PLAN = makePlan(planInput({}))
const ready = (over: NonNullable<Parameters<typeof knownVisit>[0]> = {}) =>
  knownVisit({ plan: PLAN, planMadeAtMs: NOW - 60_000, ...over })
const found = (known: Known, about: string) => gate(known).findings.filter((f) => f.about === about)
const may = (known: Known, what: 'plan' | 'start' = 'start') =>
  heldWords(gate(known).findings, what) === undefined
const word = (finding: string, over: Partial<Decision> = {}): Decision => ({
  id: 'd',
  visitId: 'v',
  finding,
  workerId: 'w',
  workerName: 'Ines',
  reason: 'cool and pale today',
  atMs: NOW,
  takenBackAtMs: null,
  ...over,
})
const answers = (id: string, more: object = {}): Asked => ({
  ...askedAll(),
  answers: { ...askedAll().answers, [id]: { yes: true, ...more } },
})

describe('the gate', () => {
  it('lets a visit begin at which nothing stands in the way', () => {
    expect(may(ready())).toBe(true)
    expect(gate(ready()).screening.verdict).toBe('go')
  })

  it('holds back a new client of whom nothing is known, at the plan and at the start', () => {
    const known = knownVisit({ asked: NOTHING_ASKED, readZones: [] })
    const { findings } = gate(known)
    expect(findings.map((f) => f.id)).toEqual(
      expect.arrayContaining(['unasked', 'consent', 'unread', 'no-plan']),
    )
    expect(heldWords(findings, 'plan')).toMatch(/^No plan is kept yet. 18 questions are open/)
    expect(heldWords(findings, 'start')).toMatch(/And 2 more stand in the way/)
  })

  it('asks what was answered last time only once more, before the start', () => {
    const still = {
      ...askedAll(),
      answers: Object.fromEntries(
        Object.entries(askedAll().answers).map(([id, a]) => [id, { ...a, still: 'ask' as const }]),
      ),
    }
    expect(may(ready({ asked: still }), 'plan')).toBe(true)
    expect(may(ready({ asked: still }))).toBe(false)
    expect(found(ready({ asked: still }), 'questions')[0]).toMatchObject({ lift: ['ask'] })
  })

  it('wants the text of today signed, by the school of the house', () => {
    const without = { ...askedAll(), consent: undefined }
    expect(may(ready({ asked: without }))).toBe(false)
    expect(may(ready({ asked: without, schools: { ...DEFAULT_SCHOOLS, consent: 'none' } }))).toBe(
      true,
    )
    expect(found(ready({ consentText: 'Another text.' }), 'consent')[0]!.title).toMatch(/changed/)
    const each = { ...DEFAULT_SCHOOLS, consent: 'each' } as const
    expect(found(ready({ schools: each }), 'consent')[0]!.title).toMatch(/earlier visit/)
    const today = { ...askedAll(), consent: { ...askedAll().consent!, signedAtMs: NOW - HOUR_MS } }
    expect(may(ready({ schools: each, asked: today }))).toBe(true)
    // Agreed by word of mouth, kept with name and reason; for a minor nobody's word stands in.
    expect(may(ready({ asked: without, decisions: [word('consent')] }))).toBe(true)
    const guardians = { ...askedAll().consent!, asGuardian: true }
    const ofAge = { ...askedAll(), consent: guardians }
    expect(may(ready({ asked: ofAge }))).toBe(false)
    expect(found(ready({ asked: ofAge }), 'consent')[0]!.title).toMatch(/guardian’s/)
    const child = { ...answers('under-age'), consent: guardians }
    expect(found(ready({ asked: child }), 'consent')).toEqual([])
    const own = { ...answers('under-age'), consent: askedAll().consent! }
    expect(may(ready({ asked: own, decisions: [word('consent')] }))).toBe(false)
    expect(found(ready({ asked: own }), 'consent')[0]!.title).toMatch(/own/)
    const minor = { ...answers('under-age'), consent: undefined }
    expect(may(ready({ asked: minor, decisions: [word('consent')] }))).toBe(false)
  })

  it.each([
    ['infection', {}, 'stop', []],
    ['blood-thinners', {}, 'postpone', ['ask', 'wait']],
    ['under-age', {}, 'postpone', ['sign']],
    ['sunburn', { date: TODAY }, 'postpone', ['wait']],
    ['acids', { date: TODAY }, 'postpone', ['wait', 'decide']],
  ])('says of %s how it is lifted', (id, more, severity, lift) => {
    const known = ready({ asked: answers(id, more) })
    const [f] = found(known, 'rule')
    expect(f).toMatchObject({ severity, lift, holds: 'plan' })
    expect(may(known, 'plan')).toBe(false)
    const decided = { ...known, decisions: [word(f!.id)] }
    expect(may(decided, 'plan')).toBe(lift.includes('decide'))
  })

  it('takes a word for what it was given for, not for what came after', () => {
    const acids = ready({ asked: answers('acids', { date: TODAY }) })
    const [f] = found(acids, 'rule')
    const later = ready({
      asked: answers('acids', { date: addDays(TODAY, 1) }),
      decisions: [word(f!.id)],
    })
    expect(may(later, 'plan')).toBe(false)
    expect(may({ ...acids, decisions: [word(f!.id, { takenBackAtMs: NOW })] }, 'plan')).toBe(false)
    expect(gate({ ...acids, decisions: [word(f!.id)] }).screening.verdict).toBe('go')
  })

  it('keeps who may decide: the practised, with a reason, and only what is theirs', () => {
    const { findings } = gate(ready({ asked: answers('acids', { date: TODAY }) }))
    const { id } = findings.find((f) => f.about === 'rule')!
    const practised = { id: 'w', level: 'practised' } as const
    expect(checkDecision(findings, id, practised, 'has healed').id).toBe(id)
    expect(() => checkDecision(findings, id, { id: 'w', level: 'learning' }, 'why')).toThrow(
      'practised',
    )
    expect(() => checkDecision(findings, id, practised, ' ')).toThrow('why')
    expect(() => checkDecision(findings, 'rule:none', practised, 'why')).toThrow('no longer')
    const stop = gate(ready({ asked: answers('infection') })).findings
    expect(() =>
      checkDecision(stop, stop.find((f) => f.about === 'rule')!.id, practised, 'why'),
    ).toThrow('not lifted by a worker')
  })

  it('notices what a kept plan does not know, and a map that is newer', () => {
    const eczema = ready({ asked: answers('flare') })
    expect(found(eczema, 'plan')[0]).toMatchObject({ id: 'plan-behind', holds: 'start' })
    expect(found(eczema, 'plan')[0]!.text).toMatch(/with the grain only; nothing scented/)
    const mole = {
      id: 'm',
      kind: 'mole' as const,
      zoneId: 'chin' as const,
      point: [0, 0, 0] as const,
      normal: [0, 0, 1] as const,
      radiusMm: 4,
    }
    expect(may(ready({ asked: { ...askedAll(), spots: [mole] } }))).toBe(false)
    const newer = ready({ readAtMs: NOW })
    expect(found(newer, 'plan').map((f) => f.id)).toEqual(['map-newer'])
    expect(may(newer)).toBe(true)
  })

  it('names a plan above the limit, and by how much', () => {
    const over = {
      ...PLAN,
      overLimit: [{ zoneId: 'chin' as const, name: 'Chin', odds: 0.34, limit: 0.2 }],
    }
    const [f] = found(ready({ plan: over }), 'plan')
    expect(f).toMatchObject({ id: 'over-limit', severity: 'take-care', holds: 'nothing' })
    expect(f!.text).toMatch(/34 %; the house’s limit is 20 %/)
  })

  it('keeps bare blades out of hands that learn, and one client to a worker', () => {
    const learner = { id: 'w', level: 'learning' } as const
    expect(found(ready({ worker: learner }), 'hand')[0]).toMatchObject({ holds: 'start' })
    const busy = [{ visitId: 'other', clientId: 'c', name: 'Bram', lastAtMs: NOW }]
    expect(found(ready({ busy }), 'busy')[0]).toMatchObject({
      title: 'Bram is still in the chair',
      lift: ['end-other', 'beside'],
      visitId: 'other',
    })
    expect(may(ready({ busy }))).toBe(false)
    // However many there are, they are one finding.
    const more = [...busy, { visitId: 'x', clientId: 'd', name: 'Cato', lastAtMs: NOW + 1 }]
    expect(found(ready({ busy: more }), 'busy').map((f) => f.title)).toEqual([
      'Cato and 1 more are still in the chair',
    ])
  })

  it('calls a guess a guess', () => {
    const [f] = found(ready({ readZones: [] }), 'map')
    expect(f).toMatchObject({ severity: 'take-care', title: 'No zone has been read' })
    const none = { ...PLAN, lanes: PLAN.lanes.map((l) => ({ ...l, grain: 'read' as const })) }
    expect(found(ready({ plan: none }), 'map')).toEqual([])
  })
})

describe('a patch test', () => {
  const test = (hoursAgo: number, over: Partial<PatchTest> = {}): PatchTest => ({
    zoneId: 'jaw-left',
    placedAtMs: NOW - hoursAgo * HOUR_MS,
    result: 'waiting',
    ...over,
  })
  const first = (patchTest: PatchTest): Known =>
    knownVisit({
      service: 'dermaplane',
      asked: {
        ...askedAll('dermaplane'),
        answers: { ...askedAll().answers, 'first-ever': { yes: true } },
        patchTest,
      },
    })
  const calm = (hoursAgo: number, before: PatchTest | undefined = test(hoursAgo)) =>
    patchRefusal(DEFAULTS, before, test(hoursAgo, { result: 'calm', readAtMs: NOW }), NOW)

  it('is called calm inside its window only, and never by the tap that places it', () => {
    expect(calm(0.01)).toMatch('too early')
    expect(calm(23)).toMatch('too early')
    expect(calm(24.1)).toBeUndefined()
    expect(calm(47.9)).toBeUndefined()
    expect(calm(49)).toMatch('too late')
    expect(calm(30, test(2))).toMatch('Place the patch test first')
    expect(
      patchRefusal(DEFAULTS, undefined, test(30, { result: 'calm', readAtMs: NOW }), NOW),
    ).toMatch('Place the patch test first')
    expect(patchRefusal(DEFAULTS, undefined, test(-2), NOW)).toMatch('after now')
  })

  it('tells of a reaction at any time', () => {
    for (const hours of [0.1, 30, 90]) {
      const reacted = test(hours, { result: 'reacted', readAtMs: NOW })
      expect(patchRefusal(DEFAULTS, test(hours), reacted, NOW)).toBeUndefined()
      expect(gate(first(reacted)).screening.verdict).toBe('refer')
    }
  })

  it('that was called calm too early or too late is no calm test', () => {
    const read = (placed: number, readAgo: number) =>
      test(placed, { result: 'calm', readAtMs: NOW - readAgo * HOUR_MS })
    expect(may(first(read(30, 29.9)), 'plan')).toBe(false)
    expect(may(first(read(90, 10)), 'plan')).toBe(false)
    expect(may(first(read(30, 2)), 'plan')).toBe(true)
    // Kept before the hour of reading was: the word counts.
    expect(may(first(test(400, { result: 'calm' })), 'plan')).toBe(true)
  })
})

describe('skin that took it badly', () => {
  const look = (over: Partial<SkinAnswer>): SkinAnswer => ({
    moment: '48h',
    atMs: NOW - 12 * HOUR_MS,
    zones: [],
    source: 'client',
    ...over,
  })
  const zone = (zoneId: string, redness: number, bumps = 0, pustules = 0) => ({
    zoneId,
    redness,
    bumps,
    pustules,
  })
  const after = (list: readonly SkinAnswer[], over = {}) => [
    pastVisit({ endedAtMs: NOW - 12 * DAY_MS, answers: list, ...over }),
  ]
  const old = { atMs: NOW - 9 * DAY_MS }

  it.each<[string, Partial<SkinAnswer>]>([
    ['severe redness', { zones: [{ zoneId: 'chin', redness: 4, bumps: 0 }] }],
    ['pus', { zones: [zone('chin', 0, 0, 1)] }],
    ['many bumps', { zones: [zone('chin', 0, 12)] }],
    ['strong stinging', { feeling: { stinging: 7 } }],
    ['spreading', { feeling: { spreading: true } }],
  ])('is a finding of the next visit for %s', (_name, part) => {
    const past = after([look({ ...old, ...part })])
    expect(found(ready({ past }), 'aftermath')).toHaveLength(1)
  })

  it.each<[string, Partial<SkinAnswer>]>([
    ['moderate redness', { zones: [zone('chin', 3)] }],
    ['eleven bumps', { zones: [zone('chin', 0, 11)] }],
    ['some stinging', { feeling: { stinging: 6 } }],
  ])('is none for %s', (_name, part) => {
    expect(found(ready({ past: after([look({ ...old, ...part })]) }), 'aftermath')).toEqual([])
  })

  it('leaves out the zones it was told of, or waits as a whole', () => {
    const some = ready({
      past: after([look({ ...old, zones: [{ zoneId: 'chin', redness: 4, bumps: 0 }] })]),
    })
    expect(found(some, 'aftermath')[0]).toMatchObject({
      severity: 'leave-out',
      zones: ['chin'],
      holds: 'nothing',
    })
    expect(gate(some).screening.leaveOutZones).toEqual(['chin'])
    // A plan that was kept without knowing it is behind.
    expect(may(some)).toBe(false)
    const wide = ready({
      past: after([
        look({
          ...old,
          zones: [{ zoneId: 'chin', redness: 4, bumps: 0 }],
          feeling: { spreading: true },
        }),
      ]),
    })
    expect(found(wide, 'aftermath')[0]).toMatchObject({ severity: 'postpone', holds: 'plan' })
    expect(gate(wide).screening.verdict).toBe('postpone')
  })

  it('stands until somebody has seen it calm, or worked there since, or decides', () => {
    const bad = look({ ...old, zones: [{ zoneId: 'chin', redness: 4, bumps: 0 }] })
    const stands = (list: SkinAnswer[], more: Partial<Known> = {}) =>
      found(ready({ past: after(list), ...more }), 'aftermath').filter((f) => !f.decided).length
    const calm = look({ moment: '7d', atMs: NOW - 5 * DAY_MS, zones: [] })
    expect(stands([bad, calm])).toBe(1)
    expect(stands([bad, { ...calm, source: 'seen' }])).toBe(0)
    expect(stands([bad, { ...calm, source: 'seen', zones: [zone('chin', 2)] }])).toBe(1)
    const later = pastVisit({ visitId: 'later', service: 'beard-line', endedAtMs: NOW - DAY_MS })
    expect(
      found(ready({ past: [later, ...after([bad])] }), 'aftermath').map((f) => f.visitId),
    ).toEqual([])
    // One that left it out has not worked there: the older answer still stands.
    const around = { ...later, worked: ['jaw-left'] }
    expect(found(ready({ past: [around, ...after([bad])] }), 'aftermath')).toHaveLength(1)
    const [f] = found(ready({ past: after([bad]) }), 'aftermath')
    expect(stands([bad], { decisions: [word(f!.id)] })).toBe(0)
    // Worse again: another finding, which that word does not lift.
    const worse = look({
      moment: '7d',
      atMs: NOW - 2 * DAY_MS,
      zones: [{ zoneId: 'chin', redness: 4, bumps: 0 }],
    })
    expect(stands([bad, worse], { decisions: [word(f!.id)] })).toBe(1)
  })

  it('told twice of two places holds both, until each telling was followed by a calm look', () => {
    const first = look({ ...old, moment: '24h', zones: [{ zoneId: 'chin', redness: 4, bumps: 0 }] })
    const second = look({ moment: '48h', atMs: NOW - 8 * DAY_MS, zones: [zone('jaw-left', 4)] })
    const zones = (list: SkinAnswer[]) =>
      found(ready({ past: after(list) }), 'aftermath').flatMap((f) => f.zones ?? [])
    expect(zones([first, second])).toEqual(['chin', 'jaw-left'])
    // Seen calm in between: only what was told after it stands.
    const between = look({ moment: 'h90', atMs: NOW - 8.5 * DAY_MS, zones: [], source: 'seen' })
    expect(zones([first, between, second])).toEqual(['jaw-left'])
  })

  it('elsewhere than this service works is only told', () => {
    const legs = after([look({ ...old, zones: [zone('shin-left', 4)] })], {
      service: 'body-shave',
      zones: ['shin-left', 'shin-right', 'calf-left', 'calf-right'],
    })
    expect(found(ready({ past: legs }), 'aftermath')[0]).toMatchObject({
      severity: 'take-care',
      holds: 'nothing',
    })
  })

  it('holds as "not settled" at the plan too, by the day, what reddened at the chair among it', () => {
    const red = after([look({ moment: '24h', atMs: NOW - DAY_MS, zones: [zone('chin', 2)] })])
    expect(found(ready({ past: red }), 'unsettled')[0]).toMatchObject({
      severity: 'postpone',
      holds: 'plan',
      until: '2026-05-22',
    })
    expect(may(ready({ past: red }), 'plan')).toBe(false)
    const atChair = [pastVisit({ endedAtMs: NOW - DAY_MS, redAtChair: { chin: 2 } })]
    expect(may(ready({ past: atChair }), 'plan')).toBe(false)
    const clear = [
      pastVisit({
        endedAtMs: NOW - 2 * DAY_MS,
        redAtChair: { chin: 2 },
        answers: [look({ moment: '24h', atMs: NOW - DAY_MS })],
      }),
    ]
    expect(may(ready({ past: clear }), 'plan')).toBe(true)
    // Two visits that wait are one finding, the longer wait; one word says that the skin was seen.
    const two = [
      pastVisit({ visitId: 'new', endedAtMs: NOW - DAY_MS, redAtChair: { chin: 2 } }),
      pastVisit({
        visitId: 'old',
        answers: [look({ moment: '7d', atMs: NOW - HOUR_MS, zones: [zone('chin', 2)] })],
      }),
    ]
    const waits = found(ready({ past: two }), 'unsettled')
    expect(waits).toEqual([expect.objectContaining({ visitId: 'old', until: '2026-05-23' })])
    expect(may(ready({ past: two, decisions: [word(waits[0]!.id)] }), 'plan')).toBe(true)
    // Red skin elsewhere does not hold this service.
    expect(
      may(ready({ past: red, service: 'head-shave', asked: askedAll('head-shave') }), 'plan'),
    ).toBe(true)
  })
})

describe('whatever is known', () => {
  const anyAnswer = fc.record(
    {
      yes: fc.boolean(),
      date: fc.integer({ min: -200, max: 0 }).map((d) => addDays(TODAY, d)),
      still: fc.constant('ask' as const),
    },
    { requiredKeys: ['yes'] },
  )
  const anyAsked: fc.Arbitrary<Asked> = fc.record({
    answers: fc.dictionary(fc.constantFrom(...RULES.map((r) => r.id)), anyAnswer, { maxKeys: 20 }),
    spots: fc.constant([]),
    consent: fc.option(fc.constant(askedAll().consent!), { nil: undefined }),
  })
  const anyLook: fc.Arbitrary<SkinAnswer> = fc.record({
    moment: fc.constantFrom('24h', '48h', '7d'),
    atMs: fc.integer({ min: 0, max: 9 * 24 }).map((h) => NOW - h * HOUR_MS),
    zones: fc.array(
      fc.record({
        zoneId: fc.constantFrom('chin', 'jaw-left', 'neck-lower-left'),
        redness: fc.integer({ min: 0, max: 4 }),
        bumps: fc.integer({ min: 0, max: 20 }),
      }),
      { maxLength: 3 },
    ),
    source: fc.constantFrom('seen', 'phone', 'client'),
  })
  const anyKnown = fc
    .record({
      asked: anyAsked,
      answers: fc.array(anyLook, { maxLength: 3 }),
      withPlan: fc.boolean(),
      level: fc.constantFrom('practised', 'learning'),
      busy: fc.boolean(),
    })
    .map(({ asked, answers: list, withPlan, level, busy }) =>
      knownVisit({
        asked,
        past: [pastVisit({ answers: list })],
        plan: withPlan ? PLAN : null,
        planMadeAtMs: NOW,
        worker: { id: 'w', level },
        busy: busy ? [{ visitId: 'o', clientId: 'c', name: 'B', lastAtMs: NOW }] : [],
      }),
    )

  it('what holds the plan holds the start; graver comes first; a stop or postpone always holds', () => {
    fc.assert(
      fc.property(anyKnown, (known) => {
        const { findings, screening } = gate(known)
        const grave = findings.map((f) => SEVERITY_ORDER.indexOf(f.severity))
        expect(grave).toEqual([...grave].sort((a, b) => b - a))
        for (const f of findings) {
          if (f.severity === 'stop' || f.severity === 'postpone')
            expect(f.holds).not.toBe('nothing')
        }
        const plan = holding(findings, 'plan')
        expect(holding(findings, 'start')).toEqual(expect.arrayContaining(plan))
        // What stops a plan from being made never lets a service start.
        if (['postpone', 'refer'].includes(screening.verdict))
          expect(plan.length).toBeGreaterThan(0)
        if (screening.unanswered > 0) expect(plan.length).toBeGreaterThan(0)
      }),
      { numRuns: 300 },
    )
  })

  it('a word lifts one finding and no other, and never a stop', () => {
    fc.assert(
      fc.property(anyKnown, fc.nat(), (known, pick) => {
        const { findings } = gate(known)
        if (findings.length === 0) return
        const chosen = findings[pick % findings.length]!
        const next = gate({ ...known, decisions: [word(chosen.id)] }).findings
        const held = (list: typeof findings) => holding(list, 'start').map((f) => f.id)
        // A plan may know less or more once zones are opened again.
        const rest = (ids: string[]) => ids.filter((id) => id !== chosen.id && id !== 'plan-behind')
        expect(rest(held(next))).toEqual(rest(held(findings)))
        const still = held(next).includes(chosen.id)
        expect(still).toBe(chosen.holds !== 'nothing' && !chosen.lift.includes('decide'))
      }),
      { numRuns: 300 },
    )
  })
})

describe('events of the client', () => {
  it('that lie near are a note, the nearest first; those past or far off are not', () => {
    const at = (id: string, days: number) =>
      ({ id, kind: 'other', title: id, atMs: NOW + days * DAY_MS }) as const
    const notes = eventNotes(
      [at('gala', 12), at('dive', 1), at('past', -1), at('far', 90), at('tonight', 0.2)] as never,
      NOW,
      0,
    )
    expect(notes.map((n) => n.title)).toEqual(['Tonight today', 'Dive in 1 day', 'Gala in 12 days'])
    expect(notes.every((n) => n.holds === 'nothing')).toBe(true)
  })
})

describe('an answer that comes in while its client is in the chair', () => {
  it('is told there when it is severe, with the place and who said it', () => {
    const severe = { zones: [{ zoneId: 'chin', redness: 4, bumps: 0 }], feeling: { stinging: 8 } }
    expect(newsAtChair(DEFAULTS, { ...severe, source: 'client' })).toEqual({
      words:
        'The client has answered about an earlier visit: redness 4, severe, stinging 8 of 10; chin.',
      zones: [{ zoneId: 'chin', redness: 4 }],
    })
    expect(newsAtChair(DEFAULTS, { ...severe, source: 'seen' })!.words).toMatch(
      /^Written down about an earlier visit/,
    )
    expect(newsAtChair(DEFAULTS, { zones: [], feeling: { spreading: true } })!.words).toMatch(
      /no place in particular/,
    )
    expect(
      newsAtChair(DEFAULTS, { zones: [{ zoneId: 'chin', redness: 2, bumps: 0 }], feeling: {} }),
    ).toBeUndefined()
  })
})
