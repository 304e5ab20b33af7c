import type { BookedRow, Week } from '../../contract/week.ts'
import { oneJob } from '../../core/services/index.ts'
import { offsetHere } from '../../core/time/index.ts'
import { MIN_MS, momentAt, USUAL_STUDIO } from '../../core/week/index.ts'
import { axisOf, hoursOf, momentIn, onDay, shareOf, shutIn } from './axis.ts'

const MONDAY = '2026-11-30'
const at = (hour: number, date = MONDAY) => momentAt(date, hour, offsetHere)

const row = (startMs: number, minutes: number): BookedRow => ({
  ...{ id: `a${startMs}`, clientId: 'c', client: 'Sheet Bend', phone: '', visitId: null },
  ...{ workerId: 'w', startMs, minutes, jobs: [oneJob('j', 'face-shave')], note: '' },
  ...{ state: 'booked', cancelledAtMs: null, visitState: null, startedAtMs: null, endedAtMs: null },
  ...{ mark: 1, changedBy: '', missed: { of: 0, missed: 0 } },
})
const week = (over: Partial<Week> = {}): Week => ({
  ...{ from: MONDAY, days: 7, nowMs: at(8), closed: { weekdays: [0], dates: [] } },
  ...{ studio: USUAL_STUDIO, away: [], appointments: [], wants: [], more: 0, waiting: [], offers: [] },
  workers: [{ id: 'w', name: 'Ines', hours: { '1': [[9, 12], [13, 18]] }, services: null }],
  ...over,
}) // prettier-ignore

it('the hours reach as far as the house is open, and as anything is booked', () => {
  expect(axisOf(week())).toEqual({ from: 9, to: 18 })
  expect(axisOf(week({ appointments: [row(at(18.5), 45)] }))).toEqual({ from: 9, to: 20 })
  expect(axisOf(week({ appointments: [row(at(7), 60)] }))).toEqual({ from: 7, to: 18 })
  expect(axisOf(week({ closed: { weekdays: [0, 1, 2, 3, 4, 5, 6], dates: [] } }))).toEqual({
    from: 9,
    to: 18,
  })
  expect(hoursOf({ from: 9, to: 11 })).toEqual([9, 10, 11])
})

it('a place in a lane is a moment on the five minutes, and back', () => {
  const axis = { from: 9, to: 18 }
  expect(shareOf(axis, MONDAY, at(13.5))).toBeCloseTo(0.5, 9)
  expect(momentIn(axis, MONDAY, 0.5)).toBe(at(13.5))
  expect(momentIn(axis, MONDAY, 0.1234) % (5 * MIN_MS)).toBe(0)
  for (const hour of [9, 10.25, 17.75])
    expect(momentIn(axis, MONDAY, shareOf(axis, MONDAY, at(hour)))).toBe(at(hour))
  expect(shareOf(axis, MONDAY, at(22))).toBe(1)
})

it('what is not worked is shut, with its reason where there is one', () => {
  const axis = { from: 9, to: 18 }
  const away = [
    { id: 'x', workerId: null, fromMs: at(16), toMs: at(18), why: 'fair', source: 'hand' as const },
  ]
  const shut = shutIn(week({ away }), axis, MONDAY, week().workers[0]!)
  expect(shut.map((s) => [Math.round(9 * s.from) + 9, Math.round(9 * s.to) + 9, s.why])).toEqual([
    [12, 13, ''],
    [16, 18, 'fair'],
  ])
  expect(shutIn(week(), axis, '2026-12-06', week().workers[0]!)).toEqual([
    { from: 0, to: 1, why: '' },
  ])
  const own = week({ appointments: [row(at(10), 45), row(at(10, '2026-12-01'), 45)] })
  expect(onDay(own, MONDAY)).toHaveLength(1)
})
