/**
 * What stands round the head: the views at its left, what can be done at its right, under it what is shown and how it was
 * found. The head stays mounted; a station writes its own words into these places.
 */
import { Group } from '@mantine/core'
import { useEffect, type ReactNode } from 'react'
import { createPortal } from 'react-dom'
import { create } from 'zustand'
import css from './Stage.module.css'

type Slot = 'acts' | 'shown' | 'how' | 'foot'
const useSlots = create<Partial<Record<Slot, HTMLElement | null>>>(() => ({}))
const keep = (slot: Slot) => (element: HTMLElement | null) => useSlots.setState({ [slot]: element })
const refs = { acts: keep('acts'), shown: keep('shown'), how: keep('how'), foot: keep('foot') }

export function Stage({
  label,
  views,
  across = false,
  children,
}: {
  label: string
  views?: ReactNode
  /** The picture needs the whole width: what to do stands in a row above it. */
  across?: boolean
  children: ReactNode
}) {
  return (
    <section
      className={`${css.stage} no-print`}
      data-across={across || undefined}
      aria-label={label}
    >
      <div className={css.picture}>{children}</div>
      <div className={css.views}>{views}</div>
      <div className={css.acts} ref={refs.acts} />
      <Group className={css.under} justify="space-between" gap="xs" wrap="nowrap">
        <div ref={refs.shown} className={css.slot} />
        <div ref={refs.how} className={css.slot} />
      </Group>
    </section>
  )
}

function In({ slot, children }: { slot: Slot; children: ReactNode }) {
  const at = useSlots((s) => s[slot])
  return at ? createPortal(children, at) : null
}
/** Right of the head: what to do. */
export const StageActs = ({ label, children }: { label: string; children: ReactNode }) => (
  <In slot="acts">
    <div role="group" aria-label={label} className={css.actsList}>
      {children}
    </div>
  </In>
)
/** Under the head, left: what is shown. */
export const StageShown = ({ children }: { children: ReactNode }) => (
  <In slot="shown">{children}</In>
)
/** Under the head, right: how it was found. */
export const StageHow = ({ children }: { children: ReactNode }) => <In slot="how">{children}</In>

/** Where a station may put its own things in the place of the tide line. */
export const FootSlot = () => <div ref={refs.foot} />
const useTaken = create<{ readonly by: number }>(() => ({ by: 0 }))
export const useFootTaken = (): boolean => useTaken((s) => s.by > 0)

/** In the place of the tide line, full width. */
export function FootInstead({ children }: { children: ReactNode }) {
  useEffect(() => {
    useTaken.setState((s) => ({ by: s.by + 1 }))
    return () => useTaken.setState((s) => ({ by: s.by - 1 }))
  }, [])
  return <In slot="foot">{children}</In>
}
