/** One of a few, side by side: the chosen word stands over a line of tide. */
import { SegmentedControl, type SegmentedControlProps } from '@mantine/core'
import type { ReactNode } from 'react'

export interface Word<T extends string> {
  readonly value: T
  readonly label: ReactNode
  readonly disabled?: boolean
}

export function Words<T extends string>({
  label,
  data,
  value,
  onChange,
  wraps = false,
  ...rest
}: {
  /** What is chosen, for those who do not see it. */
  label: string
  data: readonly (Word<T> | readonly [T, string])[]
  /** Nothing is chosen when it is left out. */
  value: T | undefined
  onChange: (value: T) => void
  /** Goes on in the next row where there is no room. */
  wraps?: boolean
} & Omit<SegmentedControlProps, 'data' | 'value' | 'onChange' | 'label'>) {
  return (
    <SegmentedControl
      {...rest}
      {...(wraps && { style: { flexWrap: 'wrap' } })}
      aria-label={label}
      data={data.map((d) =>
        isPair(d)
          ? { value: d[0], label: d[1] }
          : { value: d.value, label: d.label, disabled: d.disabled ?? false },
      )}
      value={value ?? ''}
      onChange={(v) => onChange(v as T)}
    />
  )
}

const isPair = <T extends string>(d: Word<T> | readonly [T, string]): d is readonly [T, string] =>
  Array.isArray(d)
