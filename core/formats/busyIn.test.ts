/**
 * Busy times out of calendars. Rules are held to worked examples of RFC 5545 (Internet Calendaring and Scheduling, section 3.8.5.3,
 * from memory), summer time to the zones of the file and of the time zone database.
 */
import { DEFAULTS } from '../house/index.ts'
import { oneJob } from '../services/index.ts'
import { bookCsv } from './bookCsv.ts'
import { busyIn } from './busyIn.ts'

const YEAR = { fromMs: Date.UTC(1997, 0, 1), toMs: Date.UTC(1998, 6, 1) }
const cal = (...events: string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//test//EN', ...events, 'END:VCALENDAR'].join('\r\n')
let n = 0
const event = (...lines: string[]) =>
  ['BEGIN:VEVENT', `UID:u${n++}`, 'DTSTAMP:19970101T000000Z', ...lines, 'END:VEVENT'].join('\r\n')
const starts = (text: string, within = YEAR, offset: number | ((ms: number) => number) = 0) =>
  busyIn(text, within, offset).busy.map((b) => new Date(b.fromMs).toISOString().slice(0, 16))

/** New York as RFC 5545 describes it for 1997. */
const NEW_YORK = [
  ...['BEGIN:VTIMEZONE', 'TZID:America/New_York', 'BEGIN:STANDARD', 'DTSTART:19671029T020000'],
  ...['RRULE:FREQ=YEARLY;BYDAY=-1SU;BYMONTH=10', 'TZOFFSETFROM:-0400', 'TZOFFSETTO:-0500'],
  ...['END:STANDARD', 'BEGIN:DAYLIGHT', 'DTSTART:19870405T020000'],
  ...['RRULE:FREQ=YEARLY;BYDAY=1SU;BYMONTH=4', 'TZOFFSETFROM:-0500', 'TZOFFSETTO:-0400'],
  ...['END:DAYLIGHT', 'END:VTIMEZONE'],
].join('\r\n')

describe('rules that come again', () => {
  const tz = 'DTSTART;TZID=America/New_York:19970902T090000'
  const daily = (rule: string) => cal(NEW_YORK, event(tz, 'DURATION:PT1H', rule))

  it('ten times daily, and until a day over the end of summer time (RFC 5545)', () => {
    const ten = starts(daily('RRULE:FREQ=DAILY;COUNT=10'))
    expect(ten).toHaveLength(10)
    expect([ten[0], ten[9]]).toEqual(['1997-09-02T13:00', '1997-09-11T13:00'])
    const until = starts(daily('RRULE:FREQ=DAILY;UNTIL=19971224T000000Z'))
    expect(until).toHaveLength(113)
    // Nine in the morning stays nine by the clock on the wall there.
    expect(until).toContain('1997-10-25T13:00')
    expect(until).toContain('1997-10-26T14:00')
  })

  it('weekly on two days, and the first Friday of ten months (RFC 5545)', () => {
    const weekly = starts(daily('RRULE:FREQ=WEEKLY;COUNT=10;WKST=SU;BYDAY=TU,TH'))
    expect(weekly.map((d) => d.slice(5, 10))).toEqual([
      ...['09-02', '09-04', '09-09', '09-11', '09-16', '09-18', '09-23', '09-25', '09-30', '10-02'],
    ])
    const friday = cal(
      NEW_YORK,
      event('DTSTART;TZID=America/New_York:19970905T090000', 'DURATION:PT1H', 'RRULE:FREQ=MONTHLY;COUNT=10;BYDAY=1FR'),
    ) // prettier-ignore
    expect(starts(friday).map((d) => d.slice(0, 10))).toEqual([
      ...['1997-09-05', '1997-10-03', '1997-11-07', '1997-12-05', '1998-01-02', '1998-02-06'],
      ...['1998-03-06', '1998-04-03', '1998-05-01', '1998-06-05'],
    ])
  })

  it('leaves out what is excepted, moved or called off, and what takes no time', () => {
    const own = ['UID:series', 'DTSTAMP:19970101T000000Z']
    const part = (...lines: string[]) =>
      ['BEGIN:VEVENT', ...own, ...lines, 'END:VEVENT'].join('\r\n')
    const text = cal(
      part('DTSTART:19970902T090000Z', 'DTEND:19970902T100000Z', 'RRULE:FREQ=DAILY;COUNT=5', 'EXDATE:19970903T090000Z'),
      part('RECURRENCE-ID:19970904T090000Z', 'DTSTART:19970904T150000Z', 'DTEND:19970904T160000Z'),
      part('RECURRENCE-ID:19970905T090000Z', 'DTSTART:19970905T090000Z', 'DTEND:19970905T100000Z', 'STATUS:CANCELLED'),
      event('DTSTART:19970910T090000Z', 'DTEND:19970910T100000Z', 'TRANSP:TRANSPARENT'),
    ) // prettier-ignore
    expect(starts(text)).toEqual(['1997-09-02T09:00', '1997-09-04T15:00', '1997-09-06T09:00'])
    expect(busyIn(text, YEAR, 0)).toMatchObject({ events: 4, free: 1 })
  })
})

describe('zones and days', () => {
  it('a zone by its name alone, over the change to summer time', () => {
    const text = (day: string) =>
      cal(event(`DTSTART;TZID=Europe/Berlin:2026${day}T100000`, `DTEND;TZID=Europe/Berlin:2026${day}T110000`)) // prettier-ignore
    const within = { fromMs: Date.UTC(2026, 0, 1), toMs: Date.UTC(2027, 0, 1) }
    expect(starts(text('0328'), within)).toEqual(['2026-03-28T09:00'])
    expect(starts(text('0329'), within)).toEqual(['2026-03-29T08:00'])
  })

  it('hours of no zone and whole days are by the clock of the house', () => {
    const east = 120
    expect(starts(cal(event('DTSTART:19970902T090000', 'DURATION:PT30M')), YEAR, east)).toEqual([
      '1997-09-02T07:00',
    ])
    const day = cal(event('DTSTART;VALUE=DATE:19970902', 'DTEND;VALUE=DATE:19970904'))
    expect(busyIn(day, YEAR, east).busy).toEqual([
      { fromMs: Date.UTC(1997, 8, 1, 22), toMs: Date.UTC(1997, 8, 3, 22) },
    ])
  })

  it('what touches is one, what lies outside is left out or cut', () => {
    const text = cal(
      event('DTSTART:19970902T090000Z', 'DTEND:19970902T100000Z'),
      event('DTSTART:19970902T100000Z', 'DTEND:19970902T120000Z'),
      event('DTSTART:19961231T230000Z', 'DTEND:19970101T020000Z'),
      event('DTSTART:20200101T230000Z', 'DTEND:20200102T020000Z'),
    )
    expect(busyIn(text, YEAR, 0).busy).toEqual([
      { fromMs: YEAR.fromMs, toMs: Date.UTC(1997, 0, 1, 2) },
      { fromMs: Date.UTC(1997, 8, 2, 9), toMs: Date.UTC(1997, 8, 2, 12) },
    ])
  })
})

describe('what cannot be read is refused with a sentence, and soon', () => {
  const again = (rule: string) => cal(event('DTSTART:19970902T090000Z', 'DURATION:PT1H', rule))
  it.each([
    ['no calendar', 'hello', /no calendar file/],
    ['nothing', '', /no calendar file/],
    ['cut off', 'BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART', /broken|begins/],
    ['a page', '<html>BEGIN:VCALENDAR', /no calendar file/],
    ['no beginning', cal(event('SUMMARY:x')), /when it begins/],
    ['every second', again('RRULE:FREQ=SECONDLY'), /again within a day/],
    ['30 February', again('RRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30'), /day that there is not/],
    ['day 400', again('RRULE:FREQ=YEARLY;BYYEARDAY=400'), /broken|cannot be read|there is not/],
    ['week 54', again('RRULE:FREQ=YEARLY;BYWEEKNO=54'), /broken|cannot be read/],
    ['nonsense', again('RRULE:FREQ=NONSENSE'), /cannot be read|broken/],
    ['a date that is none', cal(event('DTSTART:pears', 'DURATION:PT1H')), /cannot be read|broken/],
  ])('%s', (_what, text, why) => {
    const beganMs = performance.now()
    expect(() => busyIn(text, YEAR, 0)).toThrow(why)
    expect(() => busyIn(text, YEAR, 0)).toThrow(/Nothing was taken from it/)
    expect(performance.now() - beganMs).toBeLessThan(4000)
  })

  it('too many events, or times without end, are no calendar of one worker', () => {
    const many = cal(...Array.from({ length: 5001 }, () => event('DTSTART:19970902T090000Z')))
    expect(() => busyIn(many, YEAR, 0)).toThrow(/5001 events/)
    // Daily since the year 1: walked for so long and no longer.
    expect(() => busyIn(again('RRULE:FREQ=DAILY').replace('19970902T09', '01970902T09'), YEAR, 0)).toThrow(/too often/) // prettier-ignore
    expect(() => busyIn(`BEGIN:VCALENDAR${'x'.repeat(2_000_001)}`, YEAR, 0)).toThrow(/too long/)
  })

  it('ten thousand lines are read', () => {
    const day = (i: number) => `1997${String(1 + (i % 12)).padStart(2, '0')}${String(1 + (i % 28)).padStart(2, '0')}` // prettier-ignore
    const lines = Array.from({ length: 1650 }, (_, i) => event(`DTSTART:${day(i)}T0${i % 10}0000Z`, 'DURATION:PT15M')) // prettier-ignore
    const text = cal(...lines)
    expect(text.split('\r\n').length).toBeGreaterThan(9_900)
    const { busy, events } = busyIn(text, YEAR, 0)
    expect(events).toBe(1650)
    expect(busy.length).toBeGreaterThan(300)
    for (const [i, b] of busy.entries())
      if (i > 0) expect(b.fromMs).toBeGreaterThan(busy[i - 1]!.toMs)
  })
})

it('the book as a table: by the clock of the house, and no cell runs anything', () => {
  const startMs = Date.UTC(2026, 11, 3, 9)
  const text = bookCsv(
    DEFAULTS,
    [
      {
        ...{ id: 'a', clientId: 'c', client: '=HYPERLINK("x")', workerId: 'w', worker: 'Ines' },
        ...{ startMs, minutes: 45, jobs: [oneJob('j', 'face-shave')], note: 'rang, twice' },
        ...{ state: 'booked', cancelledAtMs: null, visitState: null },
        ...{ startedAtMs: null, endedAtMs: null },
      },
    ],
    60,
  )
  const [head, row] = text.split('\r\n')
  expect(head).toMatch(/^begins,ends,minutes,client,worker,work,state/)
  expect(row).toMatch(/^2026-12-03 10:00,2026-12-03 10:45,45,"'=HYPERLINK\(""x""\)",Ines,/)
  expect(row).toContain('"rang, twice"')
})
