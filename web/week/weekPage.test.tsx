/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { BookedRow, Week } from '../../contract/week.ts'
import { oneJob } from '../../core/services/index.ts'
import { offsetHere } from '../../core/time/index.ts'
import { MIN_MS, momentAt, USUAL_STUDIO } from '../../core/week/index.ts'
import { aHouse } from '../testing/house.ts'
import { render } from '../testing/render.tsx'
import { Refusal, serve } from '../testing/serve.ts'
import { WeekPage } from './WeekPage.tsx'

const user = userEvent.setup()
/** A Monday that is long to come. */
const DAY = '2035-01-08'
const TEN = momentAt(DAY, 10, offsetHere)

const booked = (over: Partial<BookedRow> = {}): BookedRow => ({
  ...{ id: 'a1', clientId: 'c1', client: 'Sheet Bend', phone: '', visitId: null, workerId: 'w1' },
  ...{ startMs: TEN, minutes: 45, jobs: [oneJob('j', 'face-shave')], note: '', state: 'booked' },
  ...{ cancelledAtMs: null, visitState: null, startedAtMs: null, endedAtMs: null, mark: 3 },
  ...{ changedBy: '', missed: { of: 4, missed: 1 } },
  ...over,
})
const week = (over: Partial<Week> = {}): Week => ({
  ...{ from: DAY, days: 1, nowMs: Date.now(), closed: { weekdays: [0], dates: [] } },
  ...{
    studio: USUAL_STUDIO,
    away: [],
    appointments: [booked()],
    wants: [],
    more: 0,
    waiting: [],
    offers: [],
  },
  workers: [{ id: 'w1', name: 'Ines Marchetti-Roe', hours: null, services: null }],
  ...over,
})
const bar = () => screen.findByRole('button', { name: /^Sheet Bend, / })
const open = (answers: Parameters<typeof serve>[0] = {}) => {
  const asked = serve({ week: () => week(), house: () => aHouse(), ...answers })
  render(<WeekPage />, `/week?view=day&from=${DAY}`)
  return asked
}
const changes = (asked: ReturnType<typeof serve>) =>
  asked.filter((a) => a.route === 'changeAppointment').map((a) => a.body as object)

it('arrows that follow each other are one move, on what was seen last', async () => {
  const asked = open({
    changeAppointment: () => booked({ startMs: TEN + 15 * MIN_MS, mark: 4 }),
  })
  await user.click(await bar())
  await user.keyboard('{ArrowRight}{ArrowRight}{ArrowRight}')
  expect((await bar()).getAttribute('aria-label')).toMatch(/10:15 to 11:00/)
  await waitFor(() => expect(changes(asked)).toEqual([{ mark: 3, startMs: TEN + 15 * MIN_MS }]))
})

it('what the house refuses goes back to where it was', async () => {
  const asked = open({
    changeAppointment: () => {
      throw new Refusal(422, 'book', 'Ines has somebody then. Nothing was changed.')
    },
  })
  await user.click(await bar())
  await user.keyboard('{ArrowRight}')
  await waitFor(() => expect(changes(asked)).toHaveLength(1))
  await waitFor(async () =>
    expect((await bar()).getAttribute('aria-label')).toMatch(/10:00 to 10:45/),
  )
})

it('tells the house alone how often somebody did not come, with its range', async () => {
  open()
  await user.click(await bar())
  expect(await screen.findByText(/Did not come to 1 of 4;/)).toBeTruthy()
  expect(screen.getByText(/Only the house sees this/)).toBeTruthy()
})

it('a week that does not open says why', async () => {
  open({
    week: () => {
      throw new Refusal(500, 'fault', 'Something went wrong here.')
    },
  })
  expect(await screen.findByText('Something went wrong here.')).toBeTruthy()
})

it('all that is proposed is taken one by one; what is refused stays proposed, with its reason', async () => {
  const proposal = (clientId: string, name: string, hour: number) => ({
    ...{ clientId, name, workerId: 'w1', startMs: momentAt(DAY, hour, offsetHere), minutes: 45 },
    ...{ jobs: [oneJob('j', 'face-shave')], seen: 0.9, clear: 0.95, why: ['Because.'] },
  })
  const asked = open({
    week: () => week({ appointments: [] }),
    propose: () => ({
      proposals: [
        proposal('c1', 'Reef Point', 9),
        proposal('c2', 'Sheet Bend', 11),
        proposal('c3', 'Clove Hitch', 13),
      ],
      ...{ without: [], moves: [], within: 0, exact: true, choices: 3, tookMs: 5 },
    }),
    addAppointment: ({ body }) => {
      const { clientId, startMs } = body as { clientId: string; startMs: number }
      if (clientId === 'c2') throw new Refusal(422, 'book', 'Ines has somebody then.')
      return booked({ id: clientId, clientId, startMs })
    },
  })
  await user.click(await screen.findByRole('button', { name: /Propose the day/ }))
  expect(await screen.findByText('The best possible.')).toBeTruthy()
  await user.click(screen.getByRole('button', { name: /Take all 3/ }))
  await waitFor(() => expect(screen.queryByRole('button', { name: 'Take Clove Hitch' })).toBeNull())
  expect(screen.queryByRole('button', { name: 'Take Reef Point' })).toBeNull()
  expect(screen.getByRole('button', { name: 'Take Sheet Bend' })).toBeTruthy()
  expect(asked.filter((a) => a.route === 'addAppointment')).toHaveLength(3)
})
