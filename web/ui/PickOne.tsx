/** One of many, in a list that opens. */
import { Select, type SelectProps } from '@mantine/core'

export interface Pickable<T extends string> {
  readonly value: T
  readonly label: string
  readonly disabled?: boolean
}

export function PickOne<T extends string>({
  data,
  value,
  onChange,
  ...rest
}: Omit<SelectProps, 'data' | 'value' | 'onChange'> & {
  data: readonly Pickable<T>[]
  /** Nothing is chosen when it is left out. */
  value: T | undefined
  onChange: (value: T) => void
}) {
  return (
    <Select
      {...rest}
      data={[...data]}
      value={value ?? null}
      onChange={(v) => v !== null && onChange(v as T)}
    />
  )
}

/** The same list of zones everywhere. */
export const named = <T extends string>(
  ids: readonly T[],
  name: (id: T) => string,
): Pickable<T>[] => ids.map((value) => ({ value, label: name(value) }))
