/** Draws a part as it stands in the app: in our theme, with its keys and its addresses. */
import { MantineProvider } from '@mantine/core'
import { ModalsProvider } from '@mantine/modals'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render as draw } from '@testing-library/react'
import type { ReactNode } from 'react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { resolver, theme } from '../theme/theme.ts'

// What jsdom has not.
if (!('matchMedia' in window))
  Object.assign(window, {
    matchMedia: (query: string) => ({
      matches: false,
      media: query,
      addEventListener: () => {},
      removeEventListener: () => {},
      addListener: () => {},
      removeListener: () => {},
      dispatchEvent: () => false,
      onchange: null,
    }),
  })
Object.assign(document, { fonts: { addEventListener: () => {}, removeEventListener: () => {} } })
window.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
}
// The router asks for one at each way it goes.
Object.assign(window, {
  Request: class {
    readonly url: string
    readonly signal: AbortSignal | undefined
    readonly method = 'GET'
    readonly headers = new Headers()
    constructor(url: string, init?: { signal?: AbortSignal }) {
      this.url = url
      this.signal = init?.signal
    }
  },
})
window.CSS ??= { escape: (s: string) => s } as unknown as typeof CSS
Object.assign(Element.prototype, { scrollIntoView: () => {} })

/** A cache that asks once and is not kept. */
const fresh = () => new QueryClient({ defaultOptions: { queries: { retry: false } } })

export function render(part: ReactNode, path = '/', cache = fresh()) {
  const router = createMemoryRouter(
    [
      { path: '/away', element: <p>away</p> },
      { path: '*', element: part },
    ],
    { initialEntries: [path] },
  )
  const shown = draw(
    <MantineProvider theme={theme} cssVariablesResolver={resolver} env="test">
      <QueryClientProvider client={cache}>
        <ModalsProvider>
          <RouterProvider router={router} />
        </ModalsProvider>
      </QueryClientProvider>
    </MantineProvider>,
  )
  return { ...shown, router }
}

/** A function that remembers what it was called with. */
export function spy<A extends readonly unknown[]>() {
  const calls: A[] = []
  return Object.assign((...args: A) => void calls.push(args), { calls })
}
