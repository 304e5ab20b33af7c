import { DEFAULT_SCHOOLS } from '../house/schools.ts'
import type { VisitWindow } from '../regrowth/nextVisit.ts'
import { RULES } from '../screening/rules.ts'
import type { Asked } from '../screening/screen.ts'
import { DAY_MS, HOUR_MS } from '../time/dates.ts'
import { todayFlags, type FlagInput } from './flags.ts'
import { windowAfter } from './window.ts'
import { priorGrowth } from '../regrowth/growth.ts'

const NOW = Date.UTC(2026, 4, 20, 9)
const NO: Asked = {
  answers: Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])),
  spots: [],
}
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
const flags = (over: Partial<FlagInput> = {}) =>
  todayFlags({
    schools: DEFAULT_SCHOOLS,
    nowMs: NOW,
    offsetMinutes: 0,
    last: { endedAtMs: NOW - 20 * DAY_MS, answers: [] },
    window: window(),
    ...over,
  })
const texts = (over?: Partial<FlagInput>) => flags(over).flags.map((f) => f.text)
const open = (asked: Asked, over: Partial<NonNullable<FlagInput['open']>> = {}) => ({
  service: 'dermaplane' as const,
  state: 'open',
  slotAtMs: NOW,
  asked,
  ...over,
})

describe('flags on the tide table', () => {
  it('are none when nothing waits', () => {
    expect(texts()).toEqual([])
    expect(texts({ open: open(NO) })).toEqual([])
  })

  it('greet a first visit', () => {
    const input: FlagInput = {
      schools: DEFAULT_SCHOOLS,
      nowMs: NOW,
      offsetMinutes: 0,
      window: null,
    }
    expect(todayFlags(input)).toEqual({
      flags: [{ kind: 'kelp', text: 'First visit: no map yet' }],
      owed: 0,
      patch: 0,
    })
  })

  it('tell what postpones, until when, and what is to be referred', () => {
    const cream = {
      ...NO,
      answers: { ...NO.answers, 'retinoid-cream': { yes: true, date: '2026-05-19' } },
    }
    expect(texts({ open: open(cream) })).toEqual(['Postpone until 24 May: retinoid cream'])
    const acne = { ...NO, answers: { ...NO.answers, 'widespread-acne': { yes: true } } }
    expect(texts({ open: open(acne) })).toEqual([
      'Postpone: acne or pustules over much of the area',
    ])
    const sore = { ...NO, answers: { ...NO.answers, infection: { yes: true } } }
    expect(texts({ open: open(sore) })[0]).toMatch(/^Stop and refer: cold sore/)
  })

  it('ask for the patch test once it can be read, and not before', () => {
    const test = (hours: number): Asked => ({
      ...NO,
      answers: { ...NO.answers, 'first-ever': { yes: true } },
      patchTest: { zoneId: 'jaw-left', placedAtMs: NOW - hours * HOUR_MS, result: 'waiting' },
    })
    expect(flags({ open: open(test(26)) })).toMatchObject({
      patch: 1,
      flags: [{ text: 'Patch test to read today' }],
    })
    expect(texts({ open: open(test(5)) })[0]).toMatch(/^Postpone until 21 May/)
  })

  it('tell who sits in the chair', () => {
    expect(texts({ open: open(NO, { state: 'running' }) })).toEqual(['In the chair now'])
  })

  it('count what is owed', () => {
    expect(flags({ last: { endedAtMs: NOW - 30 * HOUR_MS, answers: [] } })).toMatchObject({
      owed: 1,
      flags: [{ kind: 'brass' }],
    })
    expect(
      flags({ last: { endedAtMs: NOW - 30 * HOUR_MS, answers: [{ moment: '24h' }] } }).owed,
    ).toBe(0)
  })

  it('hold back when skin is not settled, or when booked too soon, and say until when', () => {
    const late = window({ fromMs: NOW + 2 * DAY_MS, skinMs: NOW + 2 * DAY_MS })
    expect(texts({ window: late })).toEqual(['Skin not settled: wait until 22 May'])
    const settled = window({ fromMs: NOW + 2 * DAY_MS })
    expect(texts({ window: settled })).toEqual([])
    expect(texts({ window: settled, open: open(NO) })).toEqual(['Too soon: wait until 22 May'])
    expect(texts({ window: settled, open: open(NO, { slotAtMs: NOW + 3 * DAY_MS }) })).toEqual([])
    // Nobody is told on a day to wait until that same day.
    const laterToday = window({ fromMs: NOW + 2 * HOUR_MS, skinMs: NOW + 2 * HOUR_MS })
    expect(texts({ window: laterToday, open: open(NO) })).toEqual([])
  })
})

describe('the window after a service', () => {
  const skin = {
    reactivity: 'average',
    faceHair: 'beard',
    coarseness: 'medium',
    curl: 'straight',
    bumpProne: false,
  } as const
  const growth = { chin: priorGrowth('chin', 'beard') }
  const after = (answers: { moment: 'now' | '24h' | '48h'; atMs: number; redness: number }[]) =>
    windowAfter(
      {
        service: 'face-shave',
        endedAtMs: 0,
        leftMm: { chin: 0.12, 'jaw-left': 0.12 },
        answers: answers.map((a) => ({
          moment: a.moment,
          atMs: a.atMs,
          zones: [{ zoneId: 'chin', redness: a.redness, bumps: 0 }],
        })),
      },
      skin,
      DEFAULT_SCHOOLS,
      growth,
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
    expect(windowAfter(undefined, skin, DEFAULT_SCHOOLS, growth)).toBeNull()
    expect(
      windowAfter(
        { service: 'face-shave', endedAtMs: 0, leftMm: null, answers: [] },
        skin,
        DEFAULT_SCHOOLS,
        growth,
      ),
    ).toBeNull()
    expect(
      windowAfter(
        { service: 'face-shave', endedAtMs: 0, leftMm: {}, answers: [] },
        skin,
        DEFAULT_SCHOOLS,
        growth,
      ),
    ).toBeNull()
  })
})
