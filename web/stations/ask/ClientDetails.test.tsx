/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { openOutbox } from '../../outbox/browser.ts'
import { aClient } from '../../testing/house.ts'
import { render } from '../../testing/render.tsx'
import { Refusal, serve } from '../../testing/serve.ts'
import { ClientDetails } from './ClientDetails.tsx'

const user = userEvent.setup()
const session = () => ({ mode: 'open', worker: null, wall: false, house: 'Lantern Quay' })
beforeAll(openOutbox)

const setUp = (over = {}, refuse?: () => never) => {
  const client = aClient({ phone: '0555 01 10', ...over })
  const asked = serve({
    session,
    changeClient: refuse ?? (({ body }) => ({ ...client, ...(body as object) })),
  })
  render(<ClientDetails client={client} />)
  return { client, changes: () => asked.filter((a) => a.route === 'changeClient') }
}

describe('the person', () => {
  it('each field is kept when it is left, and only if it was changed', async () => {
    const { changes } = setUp()
    await user.click(screen.getByLabelText('Telephone'))
    await user.tab()
    expect(changes()).toHaveLength(0)
    await user.type(screen.getByLabelText('Likes to be called'), 'Toby')
    await user.tab()
    await waitFor(() => expect(changes()).toHaveLength(1))
    expect(changes()[0]!.body).toMatchObject({ calledName: 'Toby' })
    expect(changes()[0]!.params).toEqual({ id: 'c1' })
  })

  it('what cannot be kept says why at its field, and stays typed', async () => {
    const { changes } = setUp()
    const mail = screen.getByLabelText('E-mail')
    await user.type(mail, 'toby at home')
    await user.tab()
    expect(await screen.findByText('is not an e-mail address')).toBeTruthy()
    expect((mail as HTMLInputElement).value).toBe('toby at home')
    expect(changes()).toHaveLength(0)
    // Put right it is kept.
    await user.clear(mail)
    await user.type(mail, 'toby@example.org')
    await user.tab()
    await waitFor(() => expect(changes()).toHaveLength(1))
    expect(screen.queryByText('is not an e-mail address')).toBeNull()
  })

  it('a name cannot be taken away', async () => {
    const { changes } = setUp()
    await user.clear(screen.getByLabelText('Name'))
    await user.tab()
    expect(await screen.findByText('A client needs a name.')).toBeTruthy()
    expect(changes()).toHaveLength(0)
  })

  it('what the house refuses stands at the field that it is about', async () => {
    setUp({}, () => {
      throw new Refusal(409, 'erased', 'This client was erased meanwhile.')
    })
    await user.type(screen.getByLabelText('Note'), 'prefers the window')
    await user.tab()
    expect(await screen.findByText('This client was erased meanwhile.')).toBeTruthy()
    expect(screen.getByLabelText<HTMLInputElement>('Note').value).toBe('prefers the window')
  })

  it('the day of birth is typed or chosen, and tells the age', async () => {
    const { changes } = setUp()
    expect(screen.getByText(/a guardian signs/)).toBeTruthy()
    await user.type(screen.getByLabelText('Born on'), '3 Apr 1990')
    await user.tab()
    await waitFor(() => expect(changes()).toHaveLength(1))
    expect(changes()[0]!.body).toMatchObject({ bornOn: '1990-04-03' })
  })

  it('an age that is known is told in years', () => {
    const year = new Date().getFullYear() - 30
    setUp({ bornOn: `${year}-01-01` })
    expect(screen.getByText('30 years')).toBeTruthy()
  })

  it('who may neither export nor erase is not offered it', async () => {
    serve({
      session: () => ({
        ...session(),
        mode: 'people',
        worker: { id: 'w', name: 'L', rank: 'learner' },
      }),
    })
    render(<ClientDetails client={aClient()} />)
    await waitFor(() =>
      expect(screen.queryByRole('button', { name: 'Erase this client' })).toBeNull(),
    )
  })

  it('is erased only under its very name', async () => {
    const asked = serve({ session, eraseClient: () => ({ ok: true }) })
    const { router } = render(<ClientDetails client={aClient()} />)
    await user.click(await screen.findByRole('button', { name: 'Erase this client' }))
    const erase = await screen.findByRole('button', { name: 'Erase for good' })
    expect((erase as HTMLButtonElement).disabled).toBe(true)
    await user.type(screen.getByLabelText('Type “Tobias Arkwell”'), 'Tobias Arkwel')
    expect((erase as HTMLButtonElement).disabled).toBe(true)
    await user.type(screen.getByLabelText('Type “Tobias Arkwell”'), 'l')
    await user.click(erase)
    await waitFor(() => expect(router.state.location.pathname).toBe('/clients'))
    expect(asked.find((a) => a.route === 'eraseClient')!.body).toEqual({
      confirmName: 'Tobias Arkwell',
    })
  })
})
