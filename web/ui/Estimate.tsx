/** A figure that is an estimate says so, and what stands behind it: by hover, focus or tap. */
import { Popover, UnstyledButton } from '@mantine/core'
import { IconBook2, IconHome, IconRosetteDiscountCheck } from '@tabler/icons-react'
import { lazy, Suspense, useRef, useState, type ReactNode } from 'react'
import type { Mark } from '../../core/house/index.ts'
import type { EstimateId } from '../../core/estimates/index.ts'
import css from './Estimate.module.css'

const Sheet = lazy(() => import('./EstimateSheet.tsx').then((m) => ({ default: m.EstimateSheet })))

const SIGNS = { H: IconHome, P: IconBook2, C: IconRosetteDiscountCheck } as const
const SAID: Readonly<Record<Mark, string>> = {
  H: 'a house estimate',
  P: 'published',
  C: 'common practice',
}
const PEEK_MS = 350

interface EstimateProps {
  readonly mark?: Mark | undefined
  /** Left out where only the mark is known. */
  readonly of?: EstimateId | undefined
  /** The figure; the sign alone when it is left out. */
  readonly children?: ReactNode
}

export function Estimate({ mark = 'H', of, children }: EstimateProps) {
  // A glance closes again by itself; what was opened by a press stays.
  const [open, setOpen] = useState<'glance' | 'stays' | undefined>()
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const glance = () => {
    clearTimeout(timer.current)
    timer.current = setTimeout(() => setOpen((o) => o ?? 'glance'), PEEK_MS)
  }
  const leave = () => {
    clearTimeout(timer.current)
    timer.current = setTimeout(() => setOpen((o) => (o === 'glance' ? undefined : o)), PEEK_MS)
  }
  const Sign = SIGNS[mark]
  return (
    <Popover
      opened={open !== undefined}
      onChange={(o) => !o && setOpen(undefined)}
      width={380}
      position="left-start"
      trapFocus={open === 'stays'}
      returnFocus
      withinPortal
    >
      <Popover.Target>
        <UnstyledButton
          component="span"
          role="button"
          tabIndex={0}
          className={css.figure}
          data-bare={children === undefined || undefined}
          aria-expanded={open !== undefined}
          aria-haspopup="dialog"
          onMouseEnter={glance}
          onMouseLeave={leave}
          onFocus={glance}
          onBlur={leave}
          onClick={(e) => {
            e.stopPropagation()
            setOpen(open === 'stays' ? undefined : 'stays')
          }}
          onKeyDown={(e) => {
            if (e.key !== 'Enter' && e.key !== ' ') return
            e.preventDefault()
            e.stopPropagation()
            setOpen('stays')
          }}
        >
          {children}
          <Sign size={14} stroke={1.6} className={css.sign} aria-hidden />
          <span className="hidden"> {SAID[mark]}</span>
        </UnstyledButton>
      </Popover.Target>
      <Popover.Dropdown onMouseEnter={() => clearTimeout(timer.current)} onMouseLeave={leave}>
        <Suspense fallback={null}>{open && <Sheet of={of} mark={mark} />}</Suspense>
      </Popover.Dropdown>
    </Popover>
  )
}
