/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { Session } from '../../contract/types.ts'
import { render, spy } from '../testing/render.tsx'
import { Refusal, serve } from '../testing/serve.ts'
import { PairPage } from './PairPage.tsx'
import { SignIn } from './SignIn.tsx'

const user = userEvent.setup()
const session = (over: Partial<Session> = {}): Session => ({
  ...{ mode: 'people', house: 'Lantern Quay', nowMs: Date.UTC(2026, 10, 25), worker: null },
  ...{ letIn: true, wall: false, locked: false, demoSecrets: {}, idleMinutes: 5 },
  workers: [
    { id: 'w1', name: 'Ines Marchetti-Roe' },
    { id: 'w2', name: 'Joren Aldous' },
  ],
  ...over,
})
const secret = () => screen.getByLabelText<HTMLInputElement>(/your figures or passphrase/)

describe('the door', () => {
  it('takes figures by the keys on the screen, and lets in', async () => {
    const back = spy()
    const asked = serve({
      signIn: () => session({ worker: { id: 'w2', name: 'J', rank: 'worker' } }),
    })
    render(<SignIn session={session()} onBack={back} />)
    await user.click(screen.getByRole('button', { name: 'Joren' }))
    for (const k of ['4', '7', '0', '1', '9'])
      await user.click(screen.getByRole('button', { name: k }))
    await user.click(screen.getByRole('button', { name: 'Take the last one back' }))
    expect(secret().value).toBe('4701')
    await user.click(screen.getByRole('button', { name: 'Come in' }))
    await waitFor(() => expect(back.calls).toHaveLength(1))
    expect(asked[0]).toMatchObject({ route: 'signIn', body: { workerId: 'w2', secret: '4701' } })
  })

  it('wrong figures are said so at the field, and are gone from it', async () => {
    serve({
      signIn: () => {
        throw new Refusal(401, 'wrong', 'Those are not the figures. 4 more tries.')
      },
    })
    render(<SignIn session={session()} />)
    await user.type(secret(), '1111{Enter}')
    expect(await screen.findByText('Those are not the figures. 4 more tries.')).toBeTruthy()
    await waitFor(() => expect(secret().value).toBe(''))
  })

  it('asks nothing while nothing is typed', async () => {
    const asked = serve({})
    render(<SignIn session={session()} />)
    await user.keyboard('{Enter}')
    expect(asked).toHaveLength(0)
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Come in' }).disabled).toBe(true)
  })

  it('what was typed for one is not sent for another', async () => {
    serve({})
    render(<SignIn session={session()} />)
    await user.type(secret(), '47')
    await user.click(screen.getByRole('button', { name: 'Joren' }))
    expect(secret().value).toBe('')
  })

  it('tells who has forgotten theirs where new ones come from', async () => {
    render(<SignIn session={session()} />)
    await user.click(screen.getByRole('button', { name: 'forgotten' }))
    expect((await screen.findByRole('status')).textContent).toMatch(/The owner gives new ones/)
  })

  it('of the demo says its figures, of a studio never', () => {
    const { unmount } = render(
      <SignIn session={session({ mode: 'demo', demoSecrets: { 'Ines Marchetti-Roe': '2580' } })} />,
    )
    expect(screen.getByText(/Ines 2580/)).toBeTruthy()
    unmount()
    render(<SignIn session={session()} />)
    expect(screen.queryByText(/2580/)).toBeNull()
  })
})

describe('a new screen', () => {
  it('is let in by its code, and goes where it belongs', async () => {
    const asked = serve({ pairScreen: () => ({ kind: 'wall' }) })
    const { router } = render(<PairPage />, '/pair?code=KELP-42')
    await user.click(screen.getByRole('button', { name: 'Let this screen in' }))
    await waitFor(() => expect(router.state.location.pathname).toBe('/wall'))
    expect(asked[0]!.body).toEqual({ code: 'KELP-42' })
  })

  it('says why a code does not open, and wants one', async () => {
    serve({
      pairScreen: () => {
        throw new Refusal(403, 'code', 'That code is used or too old.')
      },
    })
    render(<PairPage />)
    await user.click(screen.getByRole('button', { name: 'Let this screen in' }))
    expect(await screen.findByText('Type the code.')).toBeTruthy()
    await user.type(screen.getByLabelText('Code'), 'OLD{Enter}')
    expect(await screen.findByText('That code is used or too old.')).toBeTruthy()
  })
})
