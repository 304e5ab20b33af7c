/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { SERVICES } from '../../core/services/index.ts'
import { openOutbox } from '../outbox/browser.ts'
import { aClient, aHouse, aVisit } from '../testing/house.ts'
import { render } from '../testing/render.tsx'
import { Refusal, serve } from '../testing/serve.ts'
import { Imports } from './Imports.tsx'
import { NewClient } from './NewClient.tsx'
import { NoticeBoard } from '../ui/NoticeBoard.tsx'

const user = userEvent.setup()
beforeAll(openOutbox)
const add = () => screen.findByRole('button', { name: 'Add and start asking' })

describe('a new client', () => {
  it('needs a name, said at its field, and nothing is sent', async () => {
    const asked = serve({ house: () => aHouse() })
    render(<NewClient />)
    await waitFor(async () => expect(((await add()) as HTMLButtonElement).disabled).toBe(false))
    await user.click(await add())
    expect(await screen.findByText('A client needs a name.')).toBeTruthy()
    // The hand is put where it is needed.
    expect(document.activeElement).toBe(screen.getByLabelText(/^Name/))
    expect(asked.map((a) => a.route)).toEqual(['house'])
  })

  it('begins their visit at once, with the service that they came for, and goes to Ask', async () => {
    const asked = serve({
      house: () => aHouse(),
      addClient: ({ body }) => aClient(body),
      addVisit: () => aVisit(),
    })
    const { router } = render(<NewClient />)
    await user.type(await screen.findByLabelText(/^Name/), 'Ada Reef')
    await user.type(screen.getByLabelText('Telephone'), '0555 01 20')
    await user.click(screen.getByRole('combobox', { name: /Service wanted/ }))
    await user.click(await screen.findByRole('option', { name: SERVICES.dermaplane.name }))
    await user.click(await add())
    await waitFor(() => expect(router.state.location.pathname).toMatch(/^\/clients\/[\w-]+\/ask$/))
    const [client, visit] = asked.slice(1)
    expect(client).toMatchObject({
      route: 'addClient',
      // Who comes for fuzz work is begun with fuzz.
      body: {
        name: 'Ada Reef',
        phone: '0555 01 20',
        service: 'dermaplane',
        skin: { faceHair: 'fuzz' },
      },
    })
    expect(visit).toMatchObject({
      route: 'addVisit',
      params: { id: (client!.body as { id: string }).id },
      body: { workerId: 'w1', jobs: [{ service: 'dermaplane' }] },
    })
  })

  it('what the house refuses is said, and what was typed stays', async () => {
    serve({
      house: () => aHouse(),
      addClient: () => {
        throw new Refusal(409, 'full', 'The disk is full. Nothing was added.')
      },
    })
    render(<NewClient />)
    await user.type(await screen.findByLabelText(/^Name/), 'Ada Reef')
    await user.click(await add())
    expect(await screen.findByText('The disk is full. Nothing was added.')).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>(/^Name/).value).toBe('Ada Reef')
  })

  it('a telephone that is none is said so where it stands', async () => {
    const asked = serve({ house: () => aHouse() })
    render(<NewClient />)
    await user.type(await screen.findByLabelText(/^Name/), 'Ada Reef')
    await user.type(screen.getByLabelText('Telephone'), 'ring me')
    await user.click(await add())
    expect(await screen.findByText('is not a telephone number')).toBeTruthy()
    expect(asked.some((a) => a.route === 'addClient')).toBe(false)
  })
})

describe('what was imported before', () => {
  const record = { id: 'i1', atMs: 0, source: 'people.csv', clients: 3, undoneAtMs: null }

  it('is taken back as a whole, and who stays is named', async () => {
    const asked = serve({
      imports: () => [record],
      undoImport: () => ({ removed: 2, kept: ['Stays Here'] }),
    })
    render(
      <>
        <Imports />
        <NoticeBoard />
      </>,
    )
    await user.click(await screen.findByRole('button', { name: 'Take all of it back' }))
    expect(
      await screen.findByText(
        '2 clients were taken back. These have had a visit since and stay: Stays Here.',
      ),
    ).toBeTruthy()
    expect(asked.find((a) => a.route === 'undoImport')!.params).toEqual({ id: 'i1' })
  })

  it('says so when there was nothing', async () => {
    serve({ imports: () => [] })
    render(<Imports />)
    expect(await screen.findByText(/Nothing was imported so far/)).toBeTruthy()
  })
})
