/** What is typed and not kept yet is not lost by a slip: leaving the page asks first. */
import { modals } from '@mantine/modals'
import { useEffect } from 'react'
import { useBlocker } from 'react-router'

export function useLeaveAsks(unsaved: boolean): void {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      unsaved && currentLocation.pathname !== nextLocation.pathname,
  )
  useEffect(() => {
    if (blocker.state !== 'blocked') return
    modals.openConfirmModal({
      title: 'Leave without keeping it?',
      children: 'What you typed here is not kept yet.',
      labels: { confirm: 'Leave', cancel: 'Stay' },
      onConfirm: blocker.proceed,
      onCancel: blocker.reset,
      onClose: blocker.reset,
    })
  }, [blocker])
  useEffect(() => {
    if (!unsaved) return
    const ask = (e: BeforeUnloadEvent) => e.preventDefault()
    window.addEventListener('beforeunload', ask)
    return () => window.removeEventListener('beforeunload', ask)
  }, [unsaved])
}
