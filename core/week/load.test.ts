import { DEFAULTS } from '../house/index.ts'
import { oneJob, SERVICES } from '../services/index.ts'
import { type Appointment, type Book, towelsOf, USUAL_STUDIO } from './book.ts'
import { bladesOf, bladesShort, dayLoad, type Loaded, priceOf } from './load.ts'
import { momentAt } from './hours.ts'

const DATE = '2026-12-01'
const at = (hour: number) => momentAt(DATE, hour, 0)
const FACE = [oneJob('f', 'face-shave')]
const PEEL = [oneJob('d', 'dermaplane')]
const a = (hour: number, over: Partial<Loaded> = {}): Loaded => ({
  ...{ id: `a${hour}`, clientId: `c${hour}`, workerId: 'w', startMs: at(hour), minutes: 60 },
  ...{ jobs: FACE, note: '', state: 'booked', cancelledAtMs: null, visitState: null },
  ...over,
})
const book = (appointments: readonly Appointment[], over: Partial<Book> = {}): Book => ({
  ...{ nowMs: at(8), offset: 0, closed: { weekdays: [0], dates: [] }, away: [], appointments },
  studio: USUAL_STUDIO,
  workers: [
    { id: 'w', name: 'Ines' },
    { id: 'v', name: 'Joren', hours: { '2': [[9, 12]] } },
  ],
  ...over,
}) // prettier-ignore

it('a day adds up by hand: nine hours and three, two chairs, one bed', () => {
  const load = dayLoad(DEFAULTS, book([a(9), a(11), a(13, { jobs: PEEL })]), DATE)
  expect(load).toMatchObject({ hasMin: 12 * 60, bookedMin: 180, should: 0, missed: 0 })
  expect(load.chairs).toBeCloseTo(2 / (2 * 9), 9)
  expect(load.beds).toBeCloseTo(1 / 9, 9)
  expect(load.towels).toBe(2 * towelsOf(DEFAULTS, FACE) + towelsOf(DEFAULTS, PEEL))
  expect(load.income).toBe(
    2 * DEFAULTS(SERVICES['face-shave'].price) + DEFAULTS(SERVICES.dermaplane.price),
  )
  expect(load.blades).toEqual({
    [SERVICES['face-shave'].blades[0]!]: 2,
    [SERVICES.dermaplane.blades[0]!]: 1,
  })
})

it('what was cancelled takes nothing; who did not come is told of those who should have', () => {
  const gone = [a(9, { state: 'missed' }), a(10, { state: 'cancelled' }), a(11), a(16)]
  const load = dayLoad(DEFAULTS, book(gone, { nowMs: at(13) }), DATE)
  expect(load).toMatchObject({ bookedMin: 120, should: 2, missed: 1 })
})

it('a closed day has nothing, and no share of nothing; another day is not counted', () => {
  const closed = { weekdays: [2], dates: [] }
  const load = dayLoad(DEFAULTS, book([a(9 + 24)], { closed }), DATE)
  expect(load).toMatchObject({ hasMin: 0, bookedMin: 0, chairs: null, beds: null, towels: 0 })
})

it('blades are those that the plan lays out, else one of the usual kind; kinds that run short are told', () => {
  expect(bladesOf(a(9, { blades: { shavette: 3 } }))).toEqual({ shavette: 3 })
  expect(priceOf(DEFAULTS, [{ ...FACE[0]!, method: 'wax' }])).toBe(0)
  const studio = { ...USUAL_STUDIO, blades: { shavette: 4, trimmer: 9 } }
  const days = [{ blades: { shavette: 3 } }, { blades: { shavette: 2, guarded: 8 } }]
  expect(bladesShort(studio, days)).toEqual([{ kind: 'shavette', takes: 5, has: 4 }])
})
