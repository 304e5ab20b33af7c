/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { openOutbox } from '../outbox/browser.ts'
import { aVisit } from '../testing/house.ts'
import { render, spy } from '../testing/render.tsx'
import { Refusal, serve } from '../testing/serve.ts'
import { ReasonForm } from './ReasonForm.tsx'

const user = userEvent.setup()
beforeAll(openOutbox)

const form = (over: Partial<Parameters<typeof ReasonForm>[0]> = {}) =>
  render(
    <ReasonForm
      visitId="v1"
      workerId="w1"
      finding="consent"
      label="What did you see?"
      description="Kept with your name."
      act="Decide so"
      {...over}
    />,
  )

describe('a worker’s word', () => {
  it('is kept with who gave it and on what', async () => {
    const left = spy()
    const asked = serve({ decide: () => aVisit() })
    form({ onLeave: left })
    await user.type(screen.getByLabelText('What did you see?'), '  agreed by word of mouth ')
    await user.click(screen.getByRole('button', { name: 'Decide so' }))
    await waitFor(() => expect(left.calls).toHaveLength(1))
    expect(asked[0]).toMatchObject({
      route: 'decide',
      params: { id: 'v1' },
      body: { finding: 'consent', workerId: 'w1', reason: 'agreed by word of mouth' },
    })
  })

  it('is asked for in more than a grunt, and nothing is sent till then', async () => {
    const asked = serve({ decide: () => aVisit() })
    form()
    await user.type(screen.getByLabelText('What did you see?'), 'ok')
    await user.keyboard('{Enter}')
    expect(await screen.findByText(/A few words more/)).toBeTruthy()
    expect(asked).toHaveLength(0)
  })

  it('stays typed when it is refused, with why', async () => {
    serve({
      decide: () => {
        throw new Refusal(403, 'not-practised', 'Only somebody practised may decide this.')
      },
    })
    const left = spy()
    form({ onLeave: left })
    const field = screen.getByLabelText('What did you see?')
    await user.type(field, 'the skin is calm')
    await user.keyboard('{Enter}')
    expect(await screen.findByText('Only somebody practised may decide this.')).toBeTruthy()
    expect((field as HTMLInputElement).value).toBe('the skin is calm')
    expect(left.calls).toHaveLength(0)
  })

  it('is not taken from who may not give it', () => {
    form({ barred: true })
    expect(screen.getByLabelText<HTMLInputElement>('What did you see?').disabled).toBe(true)
    const act = screen.getByRole('button', { name: 'Decide so' })
    expect((act as HTMLButtonElement).disabled).toBe(true)
  })

  it('can be left be', async () => {
    const left = spy()
    form({ onLeave: left })
    await user.click(screen.getByRole('button', { name: 'Not now' }))
    expect(left.calls).toHaveLength(1)
  })
})
