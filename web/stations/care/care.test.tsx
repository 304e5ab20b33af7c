/** @jest-environment jsdom */
import { QueryClient } from '@tanstack/react-query'
import { screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { Message } from '../../../contract/types.ts'
import type { Product } from '../../../core/care/index.ts'
import { HOUR_MS } from '../../../core/time/index.ts'
import { openOutbox } from '../../outbox/browser.ts'
import { aStation, aVisit } from '../../testing/house.ts'
import { render } from '../../testing/render.tsx'
import { Refusal, serve } from '../../testing/serve.ts'
import { Messages } from './Messages.tsx'
import { Products } from './Products.tsx'

const user = userEvent.setup()
beforeAll(openOutbox)

const message = (over: Partial<Message> = {}): Message => ({
  ...{ id: 'm1', visitId: 'v1', clientId: 'c1', to: 'toby@example.org', kind: 'care' },
  ...{ subject: 'How it looks', text: 'Is it red?', dueAtMs: Date.now() + 5 * HOUR_MS },
  ...{ state: 'waiting', ...over },
})
const finished = (over: object = {}) =>
  aStation({ visit: { state: 'finished', endedAtMs: Date.now() - HOUR_MS, ...over } })

describe('what would be sent', () => {
  it('is told before the service is over as not yet', () => {
    render(<Messages {...aStation({})} />)
    expect(screen.queryByRole('heading', { name: 'Messages' })).toBeNull()
  })

  it('says when it goes, when it would have gone, and what was taken back', () => {
    const messages = [
      message(),
      message({ id: 'm2', subject: 'A day after', dueAtMs: Date.now() - HOUR_MS }),
      message({ id: 'm3', subject: 'Next visit', state: 'taken-back' }),
    ]
    render(<Messages {...finished({ messages })} />)
    expect(screen.getByText(/^goes /)).toBeTruthy()
    expect(screen.getByText(/^would have gone /)).toBeTruthy()
    expect(screen.getByText('taken back')).toBeTruthy()
  })

  it('its text is kept when the field is left, and only if it differs', async () => {
    const asked = serve({ changeMessage: () => message() })
    render(<Messages {...finished({ messages: [message()] })} />)
    await user.click(screen.getByRole('button', { name: 'How it looks' }))
    const text = screen.getByLabelText('Text of the message')
    await user.click(text)
    await user.tab()
    expect(asked).toHaveLength(0)
    await user.type(text, ' Does it sting?')
    await user.tab()
    await waitFor(() =>
      expect(asked[0]).toMatchObject({
        ...{ route: 'changeMessage', params: { id: 'm1' } },
        body: { text: 'Is it red? Does it sting?' },
      }),
    )
  })

  it('is taken back, and put back', async () => {
    const asked = serve({ changeMessage: () => message() })
    render(
      <Messages
        {...finished({
          messages: [message(), message({ id: 'm3', subject: 'Next visit', state: 'taken-back' })],
        })}
      />,
    )
    await user.click(screen.getByRole('button', { name: 'How it looks' }))
    await user.click(screen.getByRole('button', { name: 'Take it back' }))
    await waitFor(() => expect(asked[0]!.body).toEqual({ state: 'taken-back' }))
    await user.click(screen.getByRole('button', { name: 'Next visit' }))
    await user.click(screen.getByRole('button', { name: 'Put it back' }))
    await waitFor(() => expect(asked[1]!.body).toEqual({ state: 'waiting' }))
  })

  it('of a visit kept before there were any says what to do instead', () => {
    render(<Messages {...finished({ messages: [] })} />)
    expect(screen.getByText(/copy the care sheet as text instead/)).toBeTruthy()
  })
})

describe('products used', () => {
  const balm: Product = { id: 'balm', name: 'Balm', use: 'after', holds: ['fragrance'] }
  const oil: Product = { id: 'oil', name: 'Oil', use: 'before', holds: [] }
  const allergic = { answers: { allergy: { yes: true, kinds: ['fragrance'] } }, spots: [] }

  function setUp(visit: object, answer: (body: object) => unknown = () => aVisit()) {
    const asked = serve({ saveProducts: ({ body }) => answer(body) })
    const station = aStation({ visit, house: { products: [balm, oil] } })
    const cache = new QueryClient()
    // What is tapped builds on the visit that is shown.
    cache.setQueryData(['visit', 'v1'], station.visit)
    render(<Products {...station} />, '/', cache)
    return asked
  }

  it('what is tapped is sent with what was there', async () => {
    const asked = setUp({ products: ['oil'] }, (body) => aVisit(body))
    expect(screen.getByRole('heading', { name: '1 product used' })).toBeTruthy()
    await user.click(screen.getByRole('button', { name: /^Balm/ }))
    await waitFor(() =>
      expect(asked.find((a) => a.route === 'saveProducts')?.body).toEqual({
        products: ['oil', 'balm'],
      }),
    )
  })

  it('what the client is allergic to alarms once it was used', () => {
    setUp({ asked: allergic, products: ['balm'] })
    expect(screen.getByRole('alert').textContent).toMatch(/Balm/)
  })

  it('and nothing alarms for what was not', () => {
    setUp({ asked: allergic, products: ['oil'] })
    expect(screen.queryByRole('alert')).toBeNull()
  })

  it('a product that the house no longer has is refused in words', async () => {
    setUp({ products: [] }, () => {
      throw new Refusal(422, 'no-product', 'The house has no such product. Nothing was changed.')
    })
    await user.click(screen.getByRole('button', { name: /^Oil/ }))
    expect(await screen.findByText(/The house has no such product/)).toBeTruthy()
  })
})
