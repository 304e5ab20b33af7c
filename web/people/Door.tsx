/** Lets in whoever may come in; a screen that nobody touches locks itself, but for the service under way on it. */
import { useIdle } from '@mantine/hooks'
import { Loader } from '@mantine/core'
import { lazy, Suspense, useEffect } from 'react'
import { Navigate, useLocation } from 'react-router'
import type { Session } from '../../contract/types.ts'
import { useUnderWay } from '../state/underWay.ts'
import { useDoor, useSession } from './session.ts'

const FirstRun = lazy(() => import('./FirstRun.tsx').then((m) => ({ default: m.FirstRun })))
const SignIn = lazy(() => import('./SignIn.tsx').then((m) => ({ default: m.SignIn })))

/** When this browser was last touched: a page that is opened again late asks again. */
const LAST = 'slow-tide-touched'

export function Door({ children }: { children: React.ReactNode }) {
  const { data: session } = useSession()
  const { pathname } = useLocation()
  const underWay = useUnderWay((s) => s.visitId)
  const instead = session && insteadOf(session, pathname, underWay !== null)
  const locks = session?.mode === 'people' && !session.locked && !instead
  return (
    <>
      {locks && <LockWhenIdle minutes={session.idleMinutes} />}
      {/* The same place in the tree, so that nothing that is open closes when the answer comes. */}
      {instead ? (
        <Suspense fallback={<Loader m="xl" aria-label="Opening" />}>{instead}</Suspense>
      ) : (
        children
      )}
    </>
  )
}

/** What is shown in the place of every page; undefined where whoever is here may come in. */
function insteadOf(session: Session, pathname: string, underWay: boolean): React.ReactNode {
  if (pathname === '/pair') return undefined
  if (!session.letIn) return <Navigate to="/pair" replace />
  if (session.wall) {
    return pathname.endsWith('/wall') ? undefined : <Navigate to="/wall" replace />
  }
  if (session.mode === 'first-run') return <FirstRun />
  const signs = session.mode === 'people' || session.mode === 'demo'
  const goesOn = underWay && pathname.endsWith('/chair')
  if ((signs && !session.worker) || (session.locked && !goesOn)) return <SignIn session={session} />
  return undefined
}

function LockWhenIdle({ minutes }: { minutes: number }) {
  const { lock } = useDoor()
  const { mutate } = lock
  const idle = useIdle(minutes * 60_000, { initialState: false })
  useEffect(() => {
    const last = Number(localStorage.getItem(LAST) ?? Date.now())
    if (Date.now() - last > minutes * 60_000) mutate()
    const mark = () => localStorage.setItem(LAST, String(Date.now()))
    mark()
    const timer = setInterval(
      () => document.visibilityState === 'visible' && !idle && mark(),
      30_000,
    )
    return () => clearInterval(timer)
  }, [minutes, mutate, idle])
  useEffect(() => {
    if (idle) mutate()
  }, [idle, mutate])
  return null
}
