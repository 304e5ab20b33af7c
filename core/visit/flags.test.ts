import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { priorGrowth, type VisitWindow } from '../regrowth/index.ts'
import type { Asked } from '../screening/index.ts'
import { askedAll, knownVisit, NOW, pastVisit } from '../testing/visit.ts'
import { ALWAYS_OPEN, DAY_MS, HOUR_MS } from '../time/index.ts'
import type { Known } from './types.ts'
import { alarmId, todayFlags, type FlagInput } from './flags.ts'
import type { SkinAnswer } from '../looks/index.ts'
import { windowAfter } from '../history/index.ts'
import { SKIN } from '../testing/client.ts'

const NO = askedAll('dermaplane')
const range = { even: 3, early: 2, late: 4 }
const window = (over: Partial<VisitWindow> = {}): VisitWindow => ({
  fromMs: NOW - DAY_MS,
  toMs: NOW + DAY_MS,
  skinMs: NOW - 2 * DAY_MS,
  felt: range,
  seen: range,
  firstZone: 'Chin',
  reasons: [],
  ...over,
})
const past = [pastVisit({ endedAtMs: NOW - 20 * DAY_MS })]
type Case = NonNullable<Parameters<typeof knownVisit>[0]>
const flags = (known: Case = {}, open?: Partial<NonNullable<FlagInput['open']>>) =>
  todayFlags(DEFAULTS, {
    known: knownVisit({ service: 'dermaplane', past, window: window(), ...known }),
    ...(open && { open: { id: 'v', state: 'open', slotAtMs: NOW, ...open } }),
  })
const texts = (...given: Parameters<typeof flags>) => flags(...given).flags.map((f) => f.text)

describe('flags on the tide table', () => {
  it('are none when nothing waits', () => {
    expect(texts()).toEqual([])
    expect(texts({}, {})).toEqual([])
  })

  it('greet a first visit', () => {
    expect(flags({ past: [], window: null })).toEqual({
      flags: [{ kind: 'kelp', text: 'First visit: no map yet' }],
      owed: 0,
      patch: 0,
    })
  })

  it('tell what postpones, until when, and what is to be referred', () => {
    const yes = (id: string, more = {}) => ({
      asked: { ...NO, answers: { ...NO.answers, [id]: { yes: true, ...more } } },
    })
    expect(texts(yes('retinoid-cream', { date: '2026-05-19' }), {})).toEqual([
      'Postpone until 24 May: retinoid cream',
    ])
    expect(texts(yes('widespread-acne'), {})).toEqual([
      'Postpone: acne or pustules over much of the area',
    ])
    expect(texts(yes('infection'), {})[0]).toMatch(/^Stop and refer: cold sore/)
    // Nobody is expected: then nothing waits for it.
    expect(texts(yes('infection'))).toEqual([])
  })

  it('ask for the patch test once it can be read, and neither before nor too late', () => {
    const test = (hours: number): { asked: Asked } => ({
      asked: {
        ...NO,
        answers: { ...NO.answers, 'first-ever': { yes: true } },
        patchTest: { zoneId: 'jaw-left', placedAtMs: NOW - hours * HOUR_MS, result: 'waiting' },
      },
    })
    expect(flags(test(26), {})).toMatchObject({
      patch: 1,
      flags: [{ text: 'Patch test to read today' }],
    })
    expect(texts(test(5), {})[0]).toMatch(/^Postpone until 21 May/)
    expect(flags(test(60), {}).patch).toBe(0)
  })

  it('tell who sits in the chair, and what was left open', () => {
    expect(texts({}, { state: 'running', lastAtMs: NOW - HOUR_MS })).toEqual(['In the chair now'])
    expect(flags({}, { state: 'running', lastAtMs: NOW - 16 * HOUR_MS }).flags).toEqual([
      {
        kind: 'coral',
        text: 'Left open since 19 May: end it',
        to: { station: 'chair', visitId: 'v' },
      },
    ])
  })

  it('count what is owed', () => {
    const ended = { endedAtMs: NOW - 30 * HOUR_MS }
    expect(flags({ past: [pastVisit(ended)] })).toMatchObject({
      owed: 1,
      flags: [{ kind: 'brass', to: { station: 'return', visitId: 'past' } }],
    })
    const answers = [{ moment: '24h' as const, atMs: NOW - 6 * HOUR_MS, zones: [] }]
    expect(flags({ past: [pastVisit({ ...ended, answers })] }).owed).toBe(0)
  })

  it('hold back when skin is not settled, or when booked too soon, and say until when', () => {
    const red = (hoursAgo: number, redness: number): SkinAnswer => ({
      moment: '24h',
      atMs: NOW - hoursAgo * HOUR_MS,
      zones: [{ zoneId: 'chin', redness, bumps: 0 }],
    })
    const ended = NOW - 3 * DAY_MS
    const unsettled = [pastVisit({ endedAtMs: ended, answers: [red(24, 2)] })]
    expect(texts({ past: unsettled })).toContain('Skin not settled: wait until 22 May')
    const clear = [
      pastVisit({ endedAtMs: ended, answers: [red(30, 2), { ...red(2, 0), moment: '48h' }] }),
    ]
    expect(texts({ past: clear })).toEqual([])
    const settled = { window: window({ fromMs: NOW + 2 * DAY_MS }) }
    expect(texts(settled)).toEqual([])
    expect(texts(settled, {})).toEqual(['Too soon: wait until 22 May'])
    expect(texts(settled, { slotAtMs: NOW + 3 * DAY_MS })).toEqual([])
    // Where nothing but a look is wanting, that is said.
    const unseen = { window: window({ fromMs: NOW + 2 * DAY_MS, skinMs: NOW + 2 * DAY_MS }) }
    expect(texts(unseen, {})).toEqual(['Look first: skin likely clear from 22 May (H)'])
    // Nobody is told on a day to wait until that same day.
    expect(texts({ window: window({ fromMs: NOW + 2 * HOUR_MS }) }, {})).toEqual([])
  })

  it('alarm for a severe answer of the client until somebody has looked into it', () => {
    const bad = pastVisit({
      endedAtMs: NOW - 3 * DAY_MS,
      answers: [
        {
          moment: '48h',
          atMs: NOW - 12 * HOUR_MS,
          toldAtMs: NOW - 12 * HOUR_MS,
          zones: [{ zoneId: 'chin', redness: 4, bumps: 0, pustules: 35 }],
          feeling: { stinging: 9 },
          source: 'client',
        },
      ],
    })
    const [alarm] = flags({ past: [bad] }).flags
    expect(alarm).toEqual({
      kind: 'alarm',
      text: '19 May: redness 4, severe, 35 bumps, some with pus, stinging 9 of 10',
      to: { station: 'return', visitId: 'past' },
      ring: true,
    })
    const word = {
      id: 'd',
      visitId: 'past',
      finding: alarmId('past'),
      workerId: 'w',
      workerName: 'Ines',
      reason: 'rang: cooler already',
      atMs: NOW - HOUR_MS,
      takenBackAtMs: null,
    }
    const alarms = (decisions: Known['decisions']) =>
      flags({ past: [bad], decisions }).flags.filter((f) => f.kind === 'alarm')
    expect(alarms([word])).toEqual([])
    // Taken back, or worse since: it rings again.
    expect(alarms([{ ...word, takenBackAtMs: NOW }])).toHaveLength(1)
    expect(alarms([{ ...word, atMs: NOW - 20 * HOUR_MS }])).toHaveLength(1)
  })
})

describe('the window after a service', () => {
  const growth = { chin: priorGrowth(DEFAULTS, 'chin', 'beard') }
  const COMES = { skin: SKIN, schools: DEFAULT_SCHOOLS, closed: ALWAYS_OPEN, offset: 0 }
  const after = (answers: { moment: 'now' | '24h' | '48h'; atMs: number; redness: number }[]) =>
    windowAfter(
      DEFAULTS,
      {
        service: 'face-shave',
        method: 'blade',
        endedAtMs: 0,
        leftMm: { chin: 0.12, 'jaw-left': 0.12 },
        answers: answers.map((a) => ({
          moment: a.moment,
          atMs: a.atMs,
          zones: [{ zoneId: 'chin', redness: a.redness, bumps: 0 }],
        })),
      },
      COMES,
      growth,
      0,
    )!

  it('does not hold slight redness at the chair against the skin', () => {
    expect(after([{ moment: 'now', atMs: 1, redness: 3 }]).fromMs).toBe(2 * DAY_MS)
  })

  it('waits for skin that was red a day later, until it was seen clear', () => {
    const red = { moment: '24h' as const, atMs: DAY_MS, redness: 2 }
    expect(after([red]).fromMs).toBe(4 * DAY_MS)
    expect(after([red, { moment: '48h', atMs: 2 * DAY_MS, redness: 0 }]).fromMs).toBe(2 * DAY_MS)
  })

  it('is nothing without a service, or when nothing was left standing', () => {
    expect(windowAfter(DEFAULTS, undefined, COMES, growth, 0)).toBeNull()
    expect(
      windowAfter(
        DEFAULTS,
        { service: 'face-shave', method: 'blade', endedAtMs: 0, leftMm: null, answers: [] },
        COMES,
        growth,
        0,
      ),
    ).toBeNull()
    expect(
      windowAfter(
        DEFAULTS,
        { service: 'face-shave', method: 'blade', endedAtMs: 0, leftMm: {}, answers: [] },
        COMES,
        growth,
        0,
      ),
    ).toBeNull()
  })
})
