/** @jest-environment jsdom */
import { screen, waitFor, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { Today, TodayRow } from '../../contract/types.ts'
import { DAY_MS, HOUR_MS } from '../../core/time/index.ts'
import { takeSettings } from '../state/shape.ts'
import { render } from '../testing/render.tsx'
import { Refusal, serve } from '../testing/serve.ts'
import { USUAL_SETTINGS } from '../../core/house/index.ts'
import { TodayPage } from './TodayPage.tsx'

const user = userEvent.setup()
const NOW = new Date(2026, 10, 25, 10).getTime()

const row = (name: string, over: Partial<TodayRow> = {}): TodayRow => ({
  client: { id: `id-${name}`, name, occupation: 'diver' },
  ...{
    service: 'face-shave',
    visitId: null,
    slotAtMs: null,
    lateMin: null,
    lastAtMs: NOW - 6 * DAY_MS,
  },
  curve: { past: [], ahead: [{ atMs: NOW, mm: 2.54, lowMm: 2, highMm: 3 }] },
  ...{ window: { fromMs: NOW + DAY_MS, toMs: NOW + 3 * DAY_MS }, seenByEnd: 0.4 },
  ...{ phone: '0555 01 10', dueMs: NOW, flags: [] },
  ...over,
})
const today = (rows: TodayRow[], over: Partial<Today> = {}): Today => ({
  ...{ nowMs: NOW, alarms: 0, fromMs: NOW - 30 * DAY_MS, untilMs: NOW + 20 * DAY_MS, rows },
  ...{
    total: rows.length,
    from: 0,
    answersOwed: 2,
    lateToTell: 0,
    patchTestsToRead: 1,
    firstVisits: 0,
  },
  ...{ safety: null, ...over },
})
const show = (told: Today) => {
  serve({ today: () => told, client: () => ({}), visit: () => ({}) })
  return render(<TodayPage />)
}
const parts = () => screen.getAllByRole('rowheader').map((h) => h.textContent)
afterEach(() => takeSettings(USUAL_SETTINGS))

describe('Today', () => {
  it('says the first useful thing where nobody is here yet', async () => {
    show(today([]))
    expect(await screen.findByText(/Nobody here yet/)).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Add the first client' })).toBeTruthy()
  })

  it('what alarms stands first, what comes today before what is done and what is due', async () => {
    const alarm = { kind: 'alarm', ring: true, text: 'Severe', severity: 'stop' } as never
    show(
      today(
        [
          row('Due Later'),
          row('Done Today', { lastAtMs: NOW - HOUR_MS }),
          row('Comes Today', { slotAtMs: NOW + HOUR_MS }),
          row('Rings First', { flags: [alarm] }),
        ],
        { alarms: 1 },
      ),
    )
    await screen.findByRole('link', { name: 'Rings First' })
    const order = parts().filter((p) => p && /Look at once|Today|Finished|Owed/.test(p))
    expect(order).toEqual(['Look at once', 'Today', 'Finished today', 'Owed and due'])
    expect(screen.getByText(/answer is severe/)).toBeTruthy()
  })

  it('the next one is opened by the main key, and so is one who is a little late', async () => {
    const { router } = show(
      today([
        row('Much Later', { slotAtMs: NOW + 4 * HOUR_MS }),
        row('A Bit', { slotAtMs: NOW - HOUR_MS }),
      ]),
    )
    await user.click(await screen.findByRole('button', { name: /^Open A, 09:00/ }))
    await waitFor(() => expect(router.state.location.pathname).toBe('/clients/id-A Bit/ask'))
  })

  it('lengths are written as the house writes them', async () => {
    takeSettings({ ...USUAL_SETTINGS, length: 'inch' })
    show(today([row('In Inches')]))
    expect(await screen.findByRole('img', { name: /Hair now about 0\.100 in\./ })).toBeTruthy()
  })

  it('a house that does not answer is said so, and asked again', async () => {
    let tries = 0
    serve({
      today: () => {
        if (tries++ === 0) throw new Refusal(422, 'wrong', 'The day could not be read.')
        return today([row('Back Again')])
      },
      client: () => ({}),
    })
    render(<TodayPage />)
    expect(await screen.findByText('The day could not be read.')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Try again' }))
    expect(await screen.findByRole('link', { name: 'Back Again' })).toBeTruthy()
  })

  it('a backup that failed is told here too', async () => {
    show(today([], { safety: 'No backup was made last night: the disk is full.' }))
    const told = await screen.findByText(/No backup was made last night/)
    expect(within(told.parentElement!).getByRole('link', { name: 'To the backups' })).toBeTruthy()
  })
})
