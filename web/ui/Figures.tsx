/** A row of figures: what each is, in small, over its value in large. */
import { Group } from '@mantine/core'
import type { ReactNode } from 'react'
import css from './Figures.module.css'

export const Figures = ({ children, label }: { children: ReactNode; label?: string }) => (
  <Group component="dl" className={css.row} gap={0} wrap="wrap" align="stretch" aria-label={label}>
    {children}
  </Group>
)

export const Figure = ({
  name,
  children,
  wide = false,
}: {
  name: ReactNode
  children: ReactNode
  /** Takes the room that is left. */
  wide?: boolean
}) => (
  <div className={css.figure} data-wide={wide || undefined}>
    <dt>{name}</dt>
    <dd>{children}</dd>
  </div>
)
