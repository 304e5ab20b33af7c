/** @jest-environment jsdom */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, renderHook, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import type { VisitPage } from '../../contract/types.ts'
import { usePasts } from '../state/past.ts'
import { useOptimisticSave, useWholeSave, whole, type SavedPart, type Whole } from './optimistic.ts'

const stored = { id: 'v', clientId: 'c', notes: 0, products: ['oil'] } as unknown as VisitPage

/** A house that answers when it is told to, with what it was sent. */
function house() {
  const sent: { what: unknown; answer: (over?: object) => void; refuse: () => void }[] = []
  const send = (page: VisitPage, what: unknown): Promise<VisitPage> =>
    new Promise((taken, refused) =>
      sent.push({
        what,
        answer: (over) => taken({ ...page, ...over }),
        refuse: () => refused(new Error('The house has no such product. Nothing was changed.')),
      }),
    )
  return { sent, send }
}

function setUp() {
  const cache = new QueryClient({ defaultOptions: { queries: { gcTime: Infinity } } })
  cache.setQueryData(['visit', 'v'], stored)
  const { sent, send } = house()
  const notes: SavedPart<number, number> = {
    part: 'notes',
    what: 'lines and hair',
    of: (page) => page.notes as unknown as number,
    put: (page, n) => ({ ...page, notes: n }) as unknown as VisitPage,
    apply: (value, step) => value + step,
    back: (step) => -step,
    send,
  }
  const products: SavedPart<readonly string[], Whole<readonly string[]>> = {
    ...whole(),
    part: 'products',
    what: 'products used',
    of: (page) => page.products,
    put: (page, p) => ({ ...page, products: [...p] }),
    send: (page, { to }) => send({ ...page, products: [...to] }, to),
  }
  const { result } = renderHook(
    () => ({ notes: useOptimisticSave('v', notes), products: useWholeSave('v', products) }),
    {
      wrapper: ({ children }: { children: ReactNode }) => (
        <QueryClientProvider client={cache}>{children}</QueryClientProvider>
      ),
    },
  )
  const shown = () => cache.getQueryData<{ notes: number; products: string[] }>(['visit', 'v'])!
  return { cache, sent, result, shown }
}

beforeEach(() => usePasts.setState({ past: {} }))

it('a step shows before the house has answered, and quick steps build on each other', async () => {
  const { result, shown, sent } = setUp()
  act(() => {
    result.current.notes.step(5)
    result.current.notes.step(2)
  })
  expect(shown().notes).toBe(7)
  await waitFor(() => expect(sent.map((s) => s.what)).toEqual([5, 2]))
})

it('an early answer does not undo what was entered since', async () => {
  const { result, shown, sent } = setUp()
  act(() => {
    result.current.notes.step(5)
    result.current.notes.step(2)
  })
  await waitFor(() => expect(sent).toHaveLength(2))
  await act(() => Promise.resolve(sent[0]!.answer({ notes: 5 })))
  expect(shown().notes).toBe(7)
  await act(() => Promise.resolve(sent[1]!.answer({ notes: 7.5 })))
  // The last answer is the house's word.
  await waitFor(() => expect(shown().notes).toBe(7.5))
})

it('takes back and makes again by steps that are sent like any other', async () => {
  const { result, shown, sent } = setUp()
  act(() => result.current.notes.step(5))
  expect(result.current.notes.canUndo).toBe(true)
  act(() => result.current.notes.undo())
  expect(shown().notes).toBe(0)
  act(() => result.current.notes.redo())
  expect(shown().notes).toBe(5)
  expect(result.current.notes.canRedo).toBe(false)
  await waitFor(() => expect(sent.map((s) => s.what)).toEqual([5, -5, 5]))
})

it('of one part touches no other, though both stand in one history', () => {
  const { result, shown } = setUp()
  act(() => result.current.notes.step(5))
  act(() => result.current.products.change((p) => [...p, 'balm']))
  expect(usePasts.getState().past['v']!.done.map((s) => s.part)).toEqual(['notes', 'products'])
  act(() => result.current.notes.undo())
  expect(shown()).toMatchObject({ notes: 0, products: ['oil', 'balm'] })
  act(() => result.current.products.undo())
  expect(shown().products).toEqual(['oil'])
})

it('a refusal is told, and the visit is asked for again', async () => {
  const { cache, result, sent } = setUp()
  act(() => result.current.products.change(() => ['unknown']))
  await waitFor(() => expect(sent).toHaveLength(1))
  await act(() => Promise.resolve(sent[0]!.refuse()))
  await waitFor(() => expect(result.current.products.error?.message).toMatch('no such product'))
  expect(cache.getQueryState(['visit', 'v'])!.isInvalidated).toBe(true)
})
