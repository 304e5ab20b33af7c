import { ALWAYS_OPEN, HOUR_MS, type Offset } from '../time/index.ts'
import {
  freeOn,
  hourAt,
  hoursOn,
  hoursProblem,
  momentAt,
  openOn,
  readStretches,
  stretchWords,
  weekOf,
  without,
} from './hours.ts'

const utc = (text: string) => Date.parse(`${text}Z`)
/** Minutes east of Greenwich in Paris, by the rule of the European Union: the last Sundays of March and October, 01:00 UTC. */
const PARIS: Offset = (ms) =>
  ms >= utc('2026-03-29T01:00') && ms < utc('2026-10-25T01:00') ? 120 : 60

describe('the clock on the wall', () => {
  it('shows the hour that is meant, on days on which the clocks change too', () => {
    expect(momentAt('2026-12-01', 9.5, 60)).toBe(utc('2026-12-01T08:30'))
    expect(momentAt('2026-03-28', 9, PARIS)).toBe(utc('2026-03-28T08:00'))
    expect(momentAt('2026-03-29', 9, PARIS)).toBe(utc('2026-03-29T07:00'))
    expect(momentAt('2026-10-25', 9, PARIS)).toBe(utc('2026-10-25T08:00'))
    for (const date of ['2026-03-28', '2026-03-29', '2026-03-30', '2026-10-25', '2026-10-26'])
      for (const hour of [0, 1.5, 4, 12, 23])
        expect(hourAt(momentAt(date, hour, PARIS), PARIS)).toBe(hour)
  })

  it('of an hour that is left out shows the next, of one that comes twice the first', () => {
    expect(momentAt('2026-03-29', 2.5, PARIS)).toBe(utc('2026-03-29T01:30'))
    expect(hourAt(momentAt('2026-03-29', 2.5, PARIS), PARIS)).toBe(3.5)
    expect(momentAt('2026-10-25', 2.5, PARIS)).toBe(utc('2026-10-25T00:30'))
  })

  it('leaves a day of changed clocks its hours: nine to six is nine hours of work on each', () => {
    for (const date of ['2026-03-29', '2026-10-25']) {
      const open = openOn(ALWAYS_OPEN, date, PARIS)!
      expect(open.toMs - open.fromMs).toBe(9 * HOUR_MS)
    }
    // One that is open all night is an hour shorter.
    const night = { ...ALWAYS_OPEN, hours: { '0': [0, 24] } }
    const of = (date: string) => openOn(night, date, PARIS)!
    expect(of('2026-03-29').toMs - of('2026-03-29').fromMs).toBe(23 * HOUR_MS)
    expect(of('2026-10-25').toMs - of('2026-10-25').fromMs).toBe(25 * HOUR_MS)
  })
})

describe('the hours of a worker', () => {
  const ines = {
    id: 'ines',
    name: 'Ines',
    hours: {
      '2': [
        [9, 12.5],
        [13, 17],
      ],
      '3': [],
    },
  }
  it('are the house’s where they say nothing, their own with a break, or none', () => {
    const at = (date: string) => hoursOn(ALWAYS_OPEN, ines, date, 0)
    expect(at('2026-11-30')).toEqual([
      { fromMs: utc('2026-11-30T09:00'), toMs: utc('2026-11-30T18:00') },
    ])
    expect(at('2026-12-01')).toEqual([
      { fromMs: utc('2026-12-01T09:00'), toMs: utc('2026-12-01T12:30') },
      { fromMs: utc('2026-12-01T13:00'), toMs: utc('2026-12-01T17:00') },
    ])
    expect(at('2026-12-02')).toEqual([])
    expect(hoursOn({ ...ALWAYS_OPEN, dates: ['12-01'] }, ines, '2026-12-01', 0)).toEqual([])
  })

  it('lose what lies outside the house’s, and what somebody is away', () => {
    const late = { ...ALWAYS_OPEN, hours: { '2': [11, 20] } }
    expect(hoursOn(late, ines, '2026-12-01', 0)[0]!.fromMs).toBe(utc('2026-12-01T11:00'))
    const away = (workerId: string | null, from: string, to: string) => ({
      ...{ id: from, workerId, why: '' },
      ...{ fromMs: utc(`2026-12-01T${from}`), toMs: utc(`2026-12-01T${to}`) },
    })
    const all = [
      away('ines', '09:30', '10:00'),
      away('joren', '09:00', '18:00'),
      away(null, '16:00', '18:00'),
    ]
    expect(
      freeOn(ALWAYS_OPEN, ines, all, '2026-12-01', 0).map((s) => [
        hourAt(s.fromMs, 0),
        hourAt(s.toMs, 0),
      ]),
    ).toEqual([
      [9, 9.5],
      [10, 12.5],
      [13, 16],
    ])
    expect(without([{ fromMs: 0, toMs: 4 }], [{ fromMs: -1, toMs: 9 }])).toEqual([])
  })

  it('are refused where they make no day', () => {
    expect(
      hoursProblem({
        '1': [
          [9, 12],
          [13, 18],
        ],
      }),
    ).toBeUndefined()
    expect(hoursProblem({ '1': [[12, 12]] })).toMatch(/begins before it ends/)
    expect(
      hoursProblem({
        '1': [
          [9, 13],
          [12, 18],
        ],
      }),
    ).toMatch(/do not overlap/)
  })
})

it('a week begins on the house’s first day', () => {
  // 1 December 2026 is a Tuesday.
  expect(weekOf('2026-12-01', 1)).toBe('2026-11-30')
  expect(weekOf('2026-12-01', 0)).toBe('2026-11-29')
  expect(weekOf('2026-11-30', 1)).toBe('2026-11-30')
  expect(weekOf('2026-12-04', 6)).toBe('2026-11-28')
})

it('hours are read as people write them, and written as they are read', () => {
  for (const [typed, read] of [
    [
      '9-12.30, 13-18',
      [
        [9, 12.5],
        [13, 18],
      ],
    ],
    ['9:00–18:00', [[9, 18]]],
    ['10 to 16', [[10, 16]]],
    ['off', []],
  ] as const) {
    expect(readStretches(typed)).toEqual(read)
    expect(readStretches(stretchWords(read))).toEqual(read)
  }
  for (const typed of ['', '9', '18-9', '9-13, 12-18', '9-25', '9:75-10', 'morning'])
    expect(readStretches(typed)).toBeUndefined()
})
