import { DEFAULTS } from '../house/index.ts'
import { oneJob } from '../services/index.ts'
import { DAY_MS } from '../time/index.ts'
import { type Appointment, type Book, MIN_MS, USUAL_STUDIO } from './book.ts'
import { cameFree, type Candidate, freeAround, rankFreed } from './freed.ts'
import { momentAt } from './hours.ts'
import {
  bothWishes,
  isAny,
  NO_WISHES,
  suits,
  type Wishes,
  wishesProblem,
  wishWords,
} from './wishes.ts'

const TUESDAY = '2026-12-01'
const at = (hour: number, date = TUESDAY) => momentAt(date, hour, 0)
const JOBS = [oneJob('f', 'face-shave')]
const book = (appointments: Appointment[] = []): Book => ({
  ...{ nowMs: at(8), offset: 0, closed: { weekdays: [0], dates: [] }, away: [] },
  ...{ studio: USUAL_STUDIO, workers: [{ id: 'w', name: 'Ines' }], appointments },
})
const taken = (startMs: number, minutes: number): Appointment => ({
  ...{ id: `a${startMs}`, clientId: 'x', workerId: 'w', startMs, minutes, jobs: JOBS, note: '' },
  ...{ state: 'booked', cancelledAtMs: null, visitState: null },
})
const due = (clientId: string, over: Partial<Candidate> = {}): Candidate => ({
  ...{ clientId, jobs: JOBS, minutes: () => 45, waits: false, lastWorkerId: 'w' },
  ...{ fromMs: at(0), toMs: at(24), odds: () => 0.8 },
  ...over,
})
const SLOT = { workerId: 'w', fromMs: at(10), toMs: at(12) }
const ranked = (candidates: Candidate[], b = book(), slot = SLOT) =>
  rankFreed(DEFAULTS, b, slot, candidates).map((g) => candidates[g.candidate]!.clientId)

const W = (over: Partial<Wishes>): Wishes => ({ ...NO_WISHES, ...over })

describe('free time round an hour', () => {
  const free = [{ fromMs: at(9), toMs: at(18) }]
  it('ends where somebody else is booked, and with the hours that are worked', () => {
    const b = book([taken(at(9), 45), taken(at(15), 60)])
    expect(freeAround(free, b, 'w', at(11))).toEqual({
      ...{ workerId: 'w', fromMs: at(9.75), toMs: at(15) },
    })
    expect(freeAround(free, b, 'w', at(17))).toMatchObject({ fromMs: at(16), toMs: at(18) })
    expect(freeAround(free, b, 'w', at(15.5))).toBeUndefined()
    expect(freeAround(free, b, 'w', at(19))).toBeUndefined()
    expect(freeAround(free, b, 'other', at(15.5))).toMatchObject({ fromMs: at(9), toMs: at(18) })
  })
})

it('what came free is told until somebody has it, it is offered, or it is over', () => {
  const off = (hour: number): Appointment => ({ ...taken(at(hour), 45), state: 'cancelled' })
  const free = (all: Appointment[], offered: (typeof SLOT)[] = [], nowMs = at(8)) =>
    cameFree(all, offered, nowMs).map((a) => a.startMs)
  expect(free([off(10), off(14)])).toEqual([at(10), at(14)])
  expect(free([off(10), taken(at(10.5), 45)])).toEqual([])
  expect(free([off(10), { ...taken(at(10), 45), workerId: 'v' }])).toEqual([at(10)])
  expect(free([off(10), off(14)], [], at(12))).toEqual([at(14)])
  expect(free([off(10), off(14)], [SLOT])).toEqual([at(14)])
})

describe('who gains from a slot that came free', () => {
  it('more odds gain more; the waiting list, the usual worker and who is served first count', () => {
    expect(ranked([due('less', { odds: () => 0.5 }), due('more', { odds: () => 0.9 })])).toEqual([
      'more',
      'less',
    ])
    expect(ranked([due('due'), due('waits', { waits: true })])[0]).toBe('waits')
    expect(ranked([due('other', { lastWorkerId: 'v' }), due('usual')])[0]).toBe('usual')
    expect(ranked([due('due'), due('first', { first: true })])[0]).toBe('first')
  })

  it('nobody is offered what does not fit, what is held back, or what they cannot come to', () => {
    expect(ranked([due('long', { minutes: () => 150 })])).toEqual([])
    expect(ranked([due('held', { odds: () => 0, first: true, waits: true })])).toEqual([])
    expect(ranked([due('late riser', { wishes: W({ fromHour: 14 }) })])).toEqual([])
    expect(ranked([due('not Tuesdays', { wishes: W({ days: [1, 3] }) })])).toEqual([])
    expect(ranked([due('too late', { beforeMs: at(10) })])).toEqual([])
    expect(ranked([due('at last', { beforeMs: at(11) })])).toEqual(['at last'])
  })

  it('whoever has an hour gains the difference, and without a wish only by a sooner one', () => {
    const has = (startMs: number) => ({ id: 'h', startMs, workerId: 'w' })
    const rising = (ms: number) => (ms > at(12) ? 0.9 : 0.6)
    expect(ranked([due('later is better', { has: has(at(15)), odds: rising })])).toEqual([])
    expect(ranked([due('sooner', { has: has(at(15)), waits: true })])).toEqual(['sooner'])
    expect(ranked([due('earlier already', { has: has(at(9)), waits: true })])).toEqual([])
    const wishes = W({ fromHour: 10 })
    expect(ranked([due('asked', { has: has(at(9)), waits: true, wishes })])).toEqual(['asked'])
  })

  it('tells how far it is to the good days', () => {
    const far = (fromMs: number, toMs: number) =>
      rankFreed(DEFAULTS, book(), SLOT, [due('c', { fromMs, toMs })])[0]!.toWindowDays
    expect(far(at(0), at(24))).toBe(0)
    expect(far(at(10) + 3 * DAY_MS, at(10) + 5 * DAY_MS)).toBeGreaterThan(2.9)
    expect(far(at(10) - 5 * DAY_MS, at(11) - 2 * DAY_MS)).toBeLessThan(-1.9)
  })

  it('starts on the five minutes within the slot, beside what else is taken', () => {
    const b = book([taken(at(10), 30)])
    const [gain] = rankFreed(DEFAULTS, b, { ...SLOT, fromMs: at(10.5) }, [due('c')])
    expect(gain!.startMs % (5 * MIN_MS)).toBe(0)
    expect(gain!.startMs).toBeGreaterThanOrEqual(at(10.5))
  })
})

describe('when somebody can come', () => {
  const hour = { startMs: at(16), minutes: 60, workerId: 'w' }
  it('days, hours and workers are each held to; nothing told is any', () => {
    expect(suits(NO_WISHES, hour, 0)).toBe(true)
    expect(isAny(NO_WISHES)).toBe(true)
    expect(suits(W({ days: [2] }), hour, 0)).toBe(true)
    expect(suits(W({ days: [3] }), hour, 0)).toBe(false)
    expect(suits(W({ fromHour: 16, toHour: 17 }), hour, 0)).toBe(true)
    expect(suits(W({ toHour: 16.5 }), hour, 0)).toBe(false)
    expect(suits(W({ fromHour: 16.25 }), hour, 0)).toBe(false)
    expect(suits(W({ workerId: 'v' }), hour, 0)).toBe(false)
    // Over at midnight is over on its own day; hours are those of the house.
    expect(suits(W({ toHour: 24 }), { ...hour, startMs: at(23) }, 0)).toBe(true)
    expect(suits(W({ fromHour: 17 }), hour, 60)).toBe(true)
  })

  it('two wishes are both held to; two that leave nothing leave nothing', () => {
    const both = bothWishes(W({ days: [1, 2], fromHour: 9 }), W({ days: [2, 3], fromHour: 15 }))
    expect(both).toEqual(W({ days: [2], fromHour: 15 }))
    for (const none of [
      bothWishes(W({ days: [1] }), W({ days: [2] })),
      bothWishes(W({ workerId: 'v' }), W({ workerId: 'w' })),
      bothWishes(W({ toHour: 12 }), W({ fromHour: 15 })),
    ])
      for (let h = 0; h < 23; h++)
        expect(suits(none, { startMs: at(h), minutes: 45, workerId: 'w' }, 0)).toBe(false)
  })

  it('are told in words, Monday first, and refused where they end before they begin', () => {
    const words = W({ days: [0, 2, 4], fromHour: 15.5, toHour: 19, workerId: 'w' })
    expect(wishWords(words, () => 'Ines')).toBe('Tue, Thu, Sun; 15:30 to 19; with Ines')
    expect(wishWords(NO_WISHES, () => '')).toBe('')
    expect(wishesProblem(W({ fromHour: 12, toHour: 12 }))).toMatch(/begin before they end/)
  })
})
