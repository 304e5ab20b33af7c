/** Reasons, a dash before each, and what each leans on. */
import type { ReactNode } from 'react'
import type { Mark } from '../../core/house/index.ts'
import { Estimate } from './Estimate.tsx'
import css from './Whys.module.css'

export const Whys = ({
  reasons = [],
  children,
}: {
  reasons?: readonly { readonly text: string; readonly mark?: Mark | undefined }[]
  /** Before them. */
  children?: ReactNode
}) => (
  <ul className={css.whys}>
    {children}
    {reasons.map((r) => (
      <li key={r.text}>
        {r.text} {r.mark && <Estimate mark={r.mark} />}
      </li>
    ))}
  </ul>
)
