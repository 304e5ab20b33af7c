/** @jest-environment jsdom */
import { act, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { render } from '../testing/render.tsx'
import { serve } from '../testing/serve.ts'
import { openFind, useFind } from './finding.ts'
import { FindSpotlight } from './Spotlight.tsx'

const user = userEvent.setup()
const row = (id: string, name: string) => ({
  id,
  name,
  occupation: 'organ builder',
  service: 'face-shave',
})

/** Find over clients that come when they are let. */
function setUp() {
  let give: (rows: object[]) => void = () => {}
  serve({
    clients: () =>
      new Promise((go) => (give = (rows) => go({ rows, total: rows.length, from: 0 }))),
    client: () => ({}),
    session: () => ({ mode: 'open', worker: null, wall: false }),
  })
  act(openFind)
  const shown = render(<FindSpotlight times={1} field="find-words" />)
  return { ...shown, give: (rows: object[]) => act(() => give(rows)) }
}

describe('Find', () => {
  it('offers rooms and acts with their keys before anything is typed', async () => {
    setUp()
    expect(await screen.findByText('New client')).toBeTruthy()
    for (const room of ['Today', 'Clients', 'Kit', 'Practice', 'House'])
      expect(screen.getAllByText(room).length).toBeGreaterThan(0)
  })

  it('Enter before the clients came takes the first of them', async () => {
    const { router, give } = setUp()
    await user.type(await screen.findByLabelText('Find a client, a page or an act'), 'organ')
    await user.keyboard('{Enter}')
    expect(router.state.location.pathname).toBe('/')
    await waitFor(() => expect(useFind.getState().words).toBe('organ'))
    await new Promise((r) => setTimeout(r, 150))
    give([row('c7', 'Bram Tolliver'), row('c8', 'Mara Quill')])
    await waitFor(() => expect(router.state.location.pathname).toBe('/clients/c7/ask'))
  })

  it('a room is gone to by its name alone', async () => {
    const { router, give } = setUp()
    await user.type(await screen.findByLabelText('Find a client, a page or an act'), 'kit')
    await new Promise((r) => setTimeout(r, 150))
    give([])
    await waitFor(() =>
      expect(document.querySelector('[data-selected]')?.textContent).toContain('Kit'),
    )
    await user.keyboard('{Enter}')
    await waitFor(() => expect(router.state.location.pathname).toBe('/kit'))
  })

  it('says so when there is nothing of that name', async () => {
    const { give } = setUp()
    await user.type(await screen.findByLabelText('Find a client, a page or an act'), 'zzz')
    await new Promise((r) => setTimeout(r, 150))
    give([])
    expect(await screen.findByText('Nothing of that name.')).toBeTruthy()
  })
})
