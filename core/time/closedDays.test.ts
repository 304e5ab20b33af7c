import {
  humaneMs,
  openHours,
  ALWAYS_OPEN,
  closedDateWords,
  closedWords,
  isClosed,
  isClosedDate,
  nearestOpen,
  openFrom,
  openUntil,
  readClosedDate,
  USUALLY_CLOSED,
} from './closedDays.ts'
import { DAY_MS, HOUR_MS } from './dates.ts'

const utc = (text: string) => Date.parse(`${text}Z`)
const SUNDAYS = { weekdays: [0], dates: ['12-25', '2026-12-24'] }

describe('closed days', () => {
  it('are days of the week, days of every year, and single days', () => {
    // 29 November 2026 is a Sunday.
    expect(isClosed(SUNDAYS, '2026-11-29')).toBe(true)
    expect(isClosed(SUNDAYS, '2026-11-30')).toBe(false)
    expect(isClosed(SUNDAYS, '2026-12-24')).toBe(true)
    expect(isClosed(SUNDAYS, '2027-12-24')).toBe(false)
    expect(isClosed(SUNDAYS, '2029-12-25')).toBe(true)
    expect(isClosed(USUALLY_CLOSED, '2027-01-01')).toBe(true)
    expect(isClosed(ALWAYS_OPEN, '2026-11-29')).toBe(false)
  })

  it('leave open moments as they are, and give way to the next day or the one before, where the clock stands', () => {
    const open = utc('2026-12-23T10:00')
    expect(openFrom(SUNDAYS, open, 0)).toBe(open)
    expect(openUntil(SUNDAYS, open, 0)).toBe(open)
    // Thursday 24th, Friday 25th are closed.
    expect(openFrom(SUNDAYS, utc('2026-12-24T10:00'), 0)).toBe(utc('2026-12-26T00:00'))
    expect(openUntil(SUNDAYS, utc('2026-12-25T10:00'), 0)).toBe(utc('2026-12-23T23:59'))
    // Half past eleven in the evening of Saturday by UTC is Sunday an hour east of it.
    expect(openFrom(SUNDAYS, utc('2026-11-28T23:30'), 60)).toBe(utc('2026-11-29T23:00'))
    expect(openFrom(SUNDAYS, utc('2026-11-28T23:30'), () => 60)).toBe(utc('2026-11-29T23:00'))
  })

  it('are gone round by the nearest open day at the same hour, later rather than sooner, never too soon', () => {
    const sunday = utc('2026-11-29T10:00')
    const never = -Infinity
    expect(nearestOpen(SUNDAYS, sunday, 0, never)).toBe(sunday + DAY_MS)
    const two = { weekdays: [0, 1], dates: [] }
    expect(nearestOpen(two, sunday, 0, never)).toBe(sunday - DAY_MS)
    expect(nearestOpen(two, sunday, 0, sunday - HOUR_MS)).toBe(sunday + 2 * DAY_MS)
    expect(nearestOpen(ALWAYS_OPEN, sunday, 0, never)).toBe(sunday)
  })

  it('put nothing off for ever', () => {
    const all = { weekdays: [0, 1, 2, 3, 4, 5, 6], dates: [] }
    const ms = utc('2026-11-29T10:00')
    expect(openFrom(all, ms, 0)).toBe(ms)
    expect(openUntil(all, ms, 0)).toBe(ms)
    expect(nearestOpen(all, ms, 0, 0)).toBe(ms)
  })
})

describe('closed dates in words', () => {
  it('are read as people write them', () => {
    for (const [typed, kept] of [
      ['24 Dec', '12-24'],
      [' 24. December ', '12-24'],
      ['1 jan 2027', '2027-01-01'],
      ['12-24', '12-24'],
      ['2026-12-24', '2026-12-24'],
      ['29 Feb', '02-29'],
    ] as const)
      expect(readClosedDate(typed)).toBe(kept)
    for (const typed of ['', '31 Feb', '24 Foo', 'Dec 24', '29 Feb 2027', '13-01', '2026-1-1'])
      expect(readClosedDate(typed)).toBeUndefined()
    expect(isClosedDate('02-30')).toBe(false)
  })

  it('are said as they are read', () => {
    for (const date of ['12-24', '2026-12-24', '02-29'])
      expect(readClosedDate(closedDateWords(date))).toBe(date)
    expect(closedWords(SUNDAYS)).toBe('Sunday, 25 Dec, 24 Dec 2026')
    expect(closedWords(ALWAYS_OPEN)).toBe('never')
  })
})

describe('hours', () => {
  it('are nine to six unless the house says otherwise for a day of the week', () => {
    const closed = { weekdays: [0], dates: [], hours: { '4': [10, 20], '5': [9] } }
    expect(openHours(closed, '2026-11-26')).toEqual([10, 20])
    expect(openHours(closed, '2026-11-25')).toEqual([9, 18])
    // Half a pair is none.
    expect(openHours(closed, '2026-11-27')).toEqual([9, 18])
  })

  it('are humane: what falls into the night comes at nine', () => {
    const at = (hour: number, day = 26) => Date.UTC(2026, 10, day, hour)
    expect(humaneMs(at(10), 0)).toBe(at(10))
    expect(humaneMs(at(3), 0)).toBe(at(9))
    expect(humaneMs(at(21), 0)).toBe(at(9, 27))
    // By the clock of the place: nine there is eight by Greenwich.
    expect(humaneMs(at(3), 60)).toBe(at(8))
  })
})
