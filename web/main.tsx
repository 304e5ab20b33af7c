import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/fraunces'
import './theme/layers.css'
import '@mantine/core/styles.layer.css'
import './theme/base.css'
import './theme/stage.css'
import './theme/cards.css'
import './theme/print.css'
import { setNonce } from 'get-nonce'
import { MantineProvider } from '@mantine/core'
import { QueryClientProvider } from '@tanstack/react-query'
import { lazy, StrictMode, Suspense } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import { queryClient } from './api/queries.ts'
import { keepOffline } from './offline/version.ts'
import { openOutbox } from './outbox/browser.ts'
import { router } from './router.tsx'
import { keepSendingLeft } from './stations/chair/left.ts'
import { resolver, theme } from './theme/theme.ts'

/** Of this page: what is styled by script carries it. */
const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce ?? ''
setNonce(nonce)

const Later = lazy(() => import('./ui/Later.tsx').then((m) => ({ default: m.Later })))

openOutbox()
keepOffline()
keepSendingLeft()

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <MantineProvider
      theme={theme}
      cssVariablesResolver={resolver}
      getStyleNonce={() => nonce}
      defaultColorScheme="light"
    >
      <QueryClientProvider client={queryClient}>
        <RouterProvider router={router} />
        <Suspense fallback={null}>
          <Later />
        </Suspense>
      </QueryClientProvider>
    </MantineProvider>
  </StrictMode>,
)
