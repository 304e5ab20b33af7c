/** Lets in whoever may come in; a screen that nobody touches locks itself, but for the service under way on it. */
import { useIdle } from '@mantine/hooks'
import { useEffect } from 'react'
import { Navigate, useLocation } from 'react-router'
import { useUnderWay } from '../state/underWay.ts'
import { FirstRun } from './FirstRun.tsx'
import { useDoor, useSession } from './session.ts'
import { SignIn } from './SignIn.tsx'

/** When this browser was last touched: a page that is opened again late asks again. */
const LAST = 'slow-tide-touched'

export function Door({ children }: { children: React.ReactNode }) {
  const { data: session } = useSession()
  const { pathname } = useLocation()
  const underWay = useUnderWay((s) => s.visitId)
  if (!session) return children
  if (pathname === '/pair') return children
  if (!session.letIn) return <Navigate to="/pair" replace />
  if (session.wall) {
    return pathname === '/wall' || pathname.endsWith('/wall') ? (
      children
    ) : (
      <Navigate to="/wall" replace />
    )
  }
  if (session.mode === 'first-run') return <FirstRun />
  const signs = session.mode === 'people' || session.mode === 'demo'
  if (signs && !session.worker) return <SignIn session={session} />
  if (session.locked && !(underWay && pathname.endsWith('/chair')))
    return <SignIn session={session} />
  return (
    <>
      {session.mode === 'people' && !session.locked && (
        <LockWhenIdle minutes={session.idleMinutes} />
      )}
      {children}
    </>
  )
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
