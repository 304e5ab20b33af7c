import { Anchor, Loader, Stack, Title } from '@mantine/core'
import { createBrowserRouter, Navigate, useRouteError } from 'react-router'
import { Frame } from './frame/Frame.tsx'
import { openAhead } from './api/queries.ts'
import { headBytes } from './head/headBytes.ts'
import { TodayPage } from './today/TodayPage.tsx'

/** A page that is fetched when it is first opened. */
const page = <N extends string>(load: () => Promise<Record<N, React.ComponentType>>, name: N) => ({
  lazy: async () => ({ Component: (await load())[name] }),
})

function Broken() {
  const error = useRouteError()
  return (
    <Stack component="main" className="page" role="alert" align="flex-start">
      <Title order={1}>This page did not open</Title>
      <p>{error instanceof Error ? error.message : 'Something unexpected happened.'}</p>
      <p>What was saved is kept. Reload the page, or go back to Today.</p>
      <Anchor href="/">Today</Anchor>
    </Stack>
  )
}

function Nowhere() {
  return (
    <Stack component="main" className="page" align="flex-start">
      <Title order={1}>There is no such page</Title>
      <Anchor href="/">Go to Today</Anchor>
    </Stack>
  )
}

export const router = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <Broken />,
    hydrateFallbackElement: <Loader m="xl" aria-label="Opening" />,
    children: [
      { path: '/', element: <TodayPage /> },
      { path: '/week', ...page(() => import('./week/WeekPage.tsx'), 'WeekPage') },
      { path: '/clients', ...page(() => import('./clients/ClientsPage.tsx'), 'ClientsPage') },
      {
        path: '/clients/import',
        ...page(() => import('./clients/ImportClients.tsx'), 'ImportClients'),
      },
      { path: '/kit', ...page(() => import('./kit/KitPage.tsx'), 'KitPage') },
      { path: '/practice', ...page(() => import('./practice/PracticePage.tsx'), 'PracticePage') },
      { path: '/house/:part?', ...page(() => import('./house/HousePage.tsx'), 'HousePage') },
      { path: '/clients/:clientId', element: <Navigate to="ask" replace /> },
      {
        path: '/clients/:clientId/cards/:card',
        ...page(() => import('./cards/CardPage.tsx'), 'CardPage'),
      },
      {
        path: '/clients/:clientId/:station',
        // Asked for while the page itself still comes.
        loader: ({ params, request }) => {
          // The drawing comes in parts that would else be asked for one after the other.
          void headBytes().catch(() => undefined)
          void import('./head/HeadCanvas.tsx').catch(() => undefined)
          void openAhead(params['clientId']!, new URL(request.url).searchParams.get('visit'))
          return null
        },
        ...page(() => import('./stations/ClientFrame.tsx'), 'ClientFrame'),
      },
      { path: '/pair', ...page(() => import('./people/PairPage.tsx'), 'PairPage') },
      { path: '/wall', ...page(() => import('./people/WallPage.tsx'), 'WallPage') },
      { path: '*', element: <Nowhere /> },
    ],
  },
])
