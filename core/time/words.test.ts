import {
  atWords,
  dateWords,
  daysWords,
  fullDate,
  longDate,
  offsetHere,
  shortDate,
  timeWords,
  whenWords,
  writeTimesAs,
  dueWords,
  agoWords,
} from './words.ts'

/** In this machine's own time, as they are said. */
const at = (month: number, day: number, hour = 9, minute = 5) =>
  new Date(2026, month - 1, day, hour, minute).getTime()

describe('days and hours in words', () => {
  it('say the hour and the day the way a person writes them', () => {
    expect(timeWords(at(11, 26, 18, 6))).toBe('18:06')
    expect(dateWords(at(9, 3))).toBe('3 Sep')
    expect(whenWords(at(11, 26, 18, 16))).toBe('Thu 26 Nov, 18:16')
    expect(longDate(at(11, 26))).toBe('Thursday 26 November')
    expect(fullDate(at(9, 3))).toBe('3 September 2026')
    expect(shortDate(at(9, 3))).toBe('3 Sep 26')
  })

  it('leave the day away where it is today', () => {
    const noon = at(5, 20, 12, 5)
    expect(atWords(noon, at(5, 20, 23, 59))).toBe('12:05')
    expect(atWords(noon, at(5, 21, 0, 1))).toBe('20 May, 12:05')
    expect(atWords(noon, at(5, 19, 23, 59))).toBe('20 May, 12:05')
  })

  it('name a stretch of days once where it can', () => {
    expect(daysWords(at(11, 24), at(11, 26))).toBe('24–26 Nov')
    expect(daysWords(at(11, 28), at(12, 1))).toBe('28 Nov–1 Dec')
    expect(daysWords(at(11, 28, 1), at(11, 28, 23))).toBe('28 Nov')
  })

  it('know how far this machine is east of UTC, as its own calendar tells', () => {
    for (const ms of [at(1, 15), at(7, 15)]) {
      const d = new Date(ms)
      const asUtc = Date.UTC(
        d.getFullYear(),
        d.getMonth(),
        d.getDate(),
        d.getHours(),
        d.getMinutes(),
      )
      expect(offsetHere(ms)).toBe((asUtc - ms) / 60_000)
    }
  })
})

describe('as the house writes', () => {
  afterEach(() => writeTimesAs({ dates: 'dmy', clock: 24 }))

  it('the month first and twelve hours', () => {
    writeTimesAs({ dates: 'mdy', clock: 12 })
    expect(timeWords(at(11, 26, 18, 6))).toBe('6:06 PM')
    expect(dateWords(at(9, 3))).toBe('Sep 3')
    expect(whenWords(at(11, 26, 18, 16))).toBe('Thu Nov 26, 6:16 PM')
    expect(longDate(at(11, 26))).toBe('Thursday, November 26')
    expect(fullDate(at(9, 3))).toBe('September 3, 2026')
    expect(daysWords(at(11, 24), at(11, 26))).toBe('Nov 24–26')
    expect(daysWords(at(11, 28), at(12, 1))).toBe('Nov 28–Dec 1')
  })

  it('the year first', () => {
    writeTimesAs({ dates: 'ymd', clock: 24 })
    expect(fullDate(at(9, 3))).toBe('2026-09-03')
    expect(dateWords(at(9, 3))).toBe('Sep 3')
  })
})

describe('a day against others', () => {
  const now = at(11, 26, 12)
  it('lies before, within or after good days', () => {
    expect(dueWords(at(11, 29), at(12, 1), now)).toBe('in 3 days')
    expect(dueWords(at(11, 27), at(12, 1), now)).toBe('tomorrow')
    expect(dueWords(at(11, 24), at(11, 28), now)).toBe('due now')
    expect(dueWords(at(11, 24), at(11, 26), now)).toBe('due today, the last good day')
    expect(dueWords(at(11, 20), at(11, 25), now)).toBe('1 day late')
    expect(dueWords(at(11, 10), at(11, 15), now)).toBe('11 days late')
  })
  it('is today, yesterday or some days ago', () => {
    expect([at(11, 26, 1), at(11, 25, 23), at(11, 20)].map((ms) => agoWords(ms, now))).toEqual([
      'today',
      'yesterday',
      '6 days ago',
    ])
  })
})
