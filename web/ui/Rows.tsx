/** A list whose rows part by a hair line: the words at the left, what can be done at the right. */
import type { ReactNode } from 'react'
import css from './Rows.module.css'

export const Rows = ({ label, children }: { label?: string; children: ReactNode }) => (
  <ul className={css.rows} aria-label={label}>
    {children}
  </ul>
)

export const Row = ({
  children,
  acts,
  chosen = false,
}: {
  children: ReactNode
  acts?: ReactNode
  chosen?: boolean
}) => (
  <li className={css.row} data-chosen={chosen || undefined}>
    <div className={css.words}>{children}</div>
    {acts && <div className={css.acts}>{acts}</div>}
  </li>
)
