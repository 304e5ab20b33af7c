import fc from 'fast-check'
import { DEFAULTS } from '../house/index.ts'
import { type Job, oneJob, type ServiceId } from '../services/index.ts'
import { dateAt, HOUR_MS, USUALLY_CLOSED } from '../time/index.ts'
import {
  type Appointment,
  type Book,
  breaches,
  MIN_MS,
  mostTaken,
  nearestThatWork,
  startsOn,
  statusOf,
  type Wanted,
} from './book.ts'

const utc = (text: string) => Date.parse(`${text}Z`)
const NOW = utc('2026-12-01T08:00')
const job = (service: ServiceId): Job[] => [oneJob(service, service)]

const appointment = (
  over: Partial<Appointment> & Pick<Appointment, 'id' | 'startMs'>,
): Appointment => ({
  ...{ clientId: over.id, workerId: 'ines', minutes: 45, jobs: job('face-shave'), note: '' },
  ...{ state: 'booked', cancelledAtMs: null, visitState: null },
  ...over,
})
const book = (appointments: readonly Appointment[] = [], over: Partial<Book> = {}): Book => ({
  ...{ nowMs: NOW, offset: 0, closed: USUALLY_CLOSED, away: [], appointments },
  workers: [
    {
      id: 'ines',
      name: 'Ines Marchetti',
      hours: {
        '2': [
          [9, 12.5],
          [13, 18],
        ],
        '4': [],
      },
    },
    { id: 'joren', name: 'Joren Task', services: ['dermaplane', 'face-shave'] },
  ],
  studio: { chairs: 2, beds: 1, towels: 8, blades: {}, reminders: [] },
  ...over,
})
const wanted = (at: string, over: Partial<Wanted> = {}): Wanted => ({
  ...{ id: 'new', clientId: 'ada', workerId: 'ines', minutes: 45, jobs: job('face-shave') },
  startMs: utc(`2026-12-${at}`),
  ...over,
})
const kinds = (b: Book, w: Wanted) => breaches(DEFAULTS, b, w).map((x) => x.kind)

describe('what speaks against an hour', () => {
  it.each([
    ['01T10:00', {}, []],
    ['01T10:02', {}, ['grid']],
    ['01T10:00', { minutes: 0 }, ['length']],
    ['01T10:00', { minutes: 600 }, ['length', 'hours']],
    ['01T07:00', {}, ['past', 'hours']],
    ['06T10:00', {}, ['closed']],
    ['25T10:00', {}, ['closed']],
    ['01T17:30', {}, ['hours']],
    ['01T12:00', {}, ['break']],
    ['03T10:00', {}, ['hours']],
    ['03T10:00', { workerId: 'joren' }, []],
    ['02T10:00', { workerId: 'joren', jobs: job('head-shave') }, ['licence']],
    ['02T10:00', { workerId: 'nobody' }, ['worker']],
  ] as const)('%s %o: %o', (at, over, said) => {
    expect(kinds(book(), wanted(at, over))).toEqual(said)
  })

  it('says it in a sentence with the hours that are meant', () => {
    const text = (b: Book, w: Wanted) =>
      breaches(DEFAULTS, b, w)
        .map((x) => x.text)
        .join(' ')
    expect(text(book(), wanted('01T12:00'))).toMatch(
      /^Ines has a break from \d\d:\d\d to \d\d:\d\d\.$/,
    )
    expect(text(book(), wanted('03T10:00'))).toBe('Ines does not work on that day.')
    const away = [
      {
        id: 'a',
        workerId: null,
        why: 'harbour fair',
        fromMs: utc('2026-12-01T10:00'),
        toMs: utc('2026-12-01T12:00'),
      },
    ]
    expect(text(book([], { away }), wanted('01T10:30'))).toMatch(
      /^The house is closed from .* to .*: harbour fair\.$/,
    )
  })

  it('a worker, a client, a bed and warm towels are had once at a time; what is cancelled or missed frees them', () => {
    const at = utc('2026-12-01T10:00')
    const other = appointment({ id: 'x', startMs: at })
    expect(kinds(book([other]), wanted('01T10:30'))).toEqual(['overlap'])
    expect(kinds(book([other]), wanted('01T10:45'))).toEqual([])
    for (const state of ['cancelled', 'missed'] as const)
      expect(kinds(book([{ ...other, state }]), wanted('01T10:30'))).toEqual([])
    // The same appointment, moved, is not in its own way.
    expect(kinds(book([other]), wanted('01T10:30', { id: 'x' }))).toEqual([])
    const same = { clientId: 'x', workerId: 'joren' }
    expect(kinds(book([other]), wanted('01T10:30', same))).toEqual(['client'])
    const lying = appointment({ id: 'y', startMs: at, jobs: job('dermaplane') })
    expect(
      kinds(book([lying]), wanted('01T10:30', { workerId: 'joren', jobs: job('dermaplane') })),
    ).toEqual(['bed'])
    const few = book([other], {
      studio: { chairs: 2, beds: 0, towels: 3, blades: {}, reminders: [] },
    })
    expect(kinds(few, wanted('01T10:15', { workerId: 'joren' }))).toEqual(['towels'])
    expect(kinds(few, wanted('01T10:40', { workerId: 'joren' }))).toEqual([])
    expect(
      breaches(
        DEFAULTS,
        few,
        wanted('01T15:00', { workerId: 'joren', jobs: job('dermaplane') }),
      )[0]!.text,
    ).toBe('The house has no bed.')
  })
})

it('most that is taken at once is most where one begins', () => {
  const use = (fromMs: number, toMs: number, many = 1) => ({ of: 'x', many, fromMs, toMs })
  const uses = [use(0, 10), use(5, 15, 2), use(10, 20), { ...use(0, 20, 9), of: 'y' }]
  expect(mostTaken(uses, 'x', { fromMs: 0, toMs: 20 })).toBe(3)
  expect(mostTaken(uses, 'x', { fromMs: 15, toMs: 20 })).toBe(1)
  expect(mostTaken(uses, 'x', { fromMs: 20, toMs: 30 })).toBe(0)
})

it('how it stands follows from what is kept and from its visit', () => {
  const a = appointment({ id: 'a', startMs: NOW })
  const of = (over: Partial<Appointment>) => statusOf(DEFAULTS, { ...a, ...over })
  expect(of({})).toBe('booked')
  expect(of({ visitState: 'open', state: 'arrived' })).toBe('arrived')
  expect(of({ visitState: 'running' })).toBe('in-chair')
  expect(of({ visitState: 'finished', state: 'booked' })).toBe('done')
  expect(of({ state: 'cancelled', cancelledAtMs: NOW - 23 * HOUR_MS })).toBe('cancelled-late')
  expect(of({ state: 'cancelled', cancelledAtMs: NOW - 25 * HOUR_MS })).toBe('cancelled')
})

describe('the nearest hours that work', () => {
  const day = fc.record({
    id: fc.uuid(),
    startMs: fc.integer({ min: 0, max: 5 * 24 * 12 }).map((n) => NOW + n * 5 * MIN_MS),
    minutes: fc.integer({ min: 2, max: 24 }).map((n) => 5 * n),
    workerId: fc.constantFrom('ines', 'joren'),
    jobs: fc.constantFrom(job('face-shave'), job('dermaplane')),
    state: fc.constantFrom('booked' as const, 'cancelled' as const),
  })

  it('are all there are by trying every five minutes, and nothing speaks against any of them', () => {
    fc.assert(
      fc.property(
        fc.array(day, { maxLength: 25 }),
        fc.integer({ min: 1, max: 5 }),
        (many, towels) => {
          const b = book(many.map(appointment), {
            studio: { chairs: 1, beds: 1, towels, blades: {}, reminders: [] },
          })
          const w = wanted('02T11:00')
          for (const worker of b.workers) {
            const found = startsOn(DEFAULTS, b, w, worker, '2026-12-02')
            const tried: number[] = []
            for (let at = utc('2026-12-02T00:00'); at < utc('2026-12-03T00:00'); at += 5 * MIN_MS)
              if (kinds(b, { ...w, startMs: at, workerId: worker.id }).length === 0) tried.push(at)
            expect(found).toEqual(tried)
          }
          for (const h of nearestThatWork(DEFAULTS, b, w))
            expect(kinds(b, { ...w, ...h })).toEqual([])
        },
      ),
      { numRuns: 25 },
    )
  })

  it('are the nearest of the wanted worker, or of another who is nearer, on other days where the day is full', () => {
    const full = [appointment({ id: 'x', startMs: utc('2026-12-01T09:00'), minutes: 480 })]
    const [first] = nearestThatWork(DEFAULTS, book(full), wanted('01T10:00'))
    expect(first).toEqual({ workerId: 'joren', startMs: utc('2026-12-01T10:00') })
    const alone = book(full, { workers: book().workers.slice(0, 1) })
    const hours = nearestThatWork(DEFAULTS, alone, wanted('01T10:00'))
    expect(hours).toHaveLength(3)
    expect(
      hours.every(
        (h) => dateAt(h.startMs, 0) > '2026-12-01' || h.startMs >= utc('2026-12-01T17:00'),
      ),
    ).toBe(true)
    expect(nearestThatWork(DEFAULTS, book([], { workers: [] }), wanted('01T10:00'))).toEqual([])
  })
})
