import { createBrowserRouter, Navigate, useRouteError } from 'react-router'
import { Frame } from './frame/Frame.tsx'
import { TodayPage } from './today/TodayPage.tsx'

/** A page that is fetched when it is first opened. */
const page = <N extends string>(load: () => Promise<Record<N, React.ComponentType>>, name: N) => ({
  lazy: async () => ({ Component: (await load())[name] }),
})

function Broken() {
  const error = useRouteError()
  return (
    <main className="page" role="alert">
      <h1>This page did not open</h1>
      <p>{error instanceof Error ? error.message : 'Something unexpected happened.'}</p>
      <p>What was saved is kept. Reload the page, or go back to Today.</p>
      <a href="/">Today</a>
    </main>
  )
}

function Nowhere() {
  return (
    <main className="page">
      <h1>There is no such page</h1>
      <a href="/">Go to Today</a>
    </main>
  )
}

export const router = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <Broken />,
    hydrateFallbackElement: <div className="page">Opening …</div>,
    children: [
      { path: '/', element: <TodayPage /> },
      { path: '/clients', ...page(() => import('./clients/ClientsPage.tsx'), 'ClientsPage') },
      {
        path: '/clients/import',
        ...page(() => import('./clients/ImportClients.tsx'), 'ImportClients'),
      },
      { path: '/kit', ...page(() => import('./kit/KitPage.tsx'), 'KitPage') },
      { path: '/practice', ...page(() => import('./practice/PracticePage.tsx'), 'PracticePage') },
      { path: '/house', ...page(() => import('./house/HousePage.tsx'), 'HousePage') },
      { path: '/clients/:clientId', element: <Navigate to="ask" replace /> },
      {
        path: '/clients/:clientId/cards/:card',
        ...page(() => import('./cards/CardPage.tsx'), 'CardPage'),
      },
      {
        path: '/clients/:clientId/:station',
        ...page(() => import('./stations/ClientFrame.tsx'), 'ClientFrame'),
      },
      { path: '/pair', ...page(() => import('./people/PairPage.tsx'), 'PairPage') },
      { path: '/wall', ...page(() => import('./people/WallPage.tsx'), 'WallPage') },
      { path: '*', element: <Nowhere /> },
    ],
  },
])
