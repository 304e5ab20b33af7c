/** The part of a panel that scrolls, with the head of a table that stays. */
import type { ReactNode, Ref } from 'react'
import css from './Scroll.module.css'

export const Scroll = ({
  label,
  children,
  ref,
}: {
  label: string
  children: ReactNode
  ref?: Ref<HTMLDivElement>
}) => (
  <div className={css.scroll} tabIndex={0} role="region" aria-label={label} ref={ref}>
    {children}
  </div>
)
