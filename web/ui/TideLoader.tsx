/** Waiting: a tide that rises. It stands still where motion is not wanted. */
import type { MantineLoaderComponent } from '@mantine/core'
import { forwardRef } from 'react'
import css from './TideLoader.module.css'

export const TideLoader: MantineLoaderComponent = forwardRef(
  ({ style, className, ...rest }, ref) => (
    <span {...rest} ref={ref} style={style} className={`${css.loader} ${className ?? ''}`}>
      <svg viewBox="0 0 48 24" aria-hidden>
        <path pathLength="1" d="M2 20c7-22 16-22 24 0 5 12 11 12 20 0" />
      </svg>
    </span>
  ),
)
TideLoader.displayName = 'TideLoader'
