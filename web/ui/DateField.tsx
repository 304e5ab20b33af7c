/** A day: the usual answers first, then the calendar. */
import { DatePickerInput, type DatePickerInputProps } from '@mantine/dates'
import '@mantine/dates/styles.layer.css'
import dayjs from 'dayjs'
import { useDateShape } from '../state/shape.ts'
import { Words } from './Words.tsx'
import css from './DateField.module.css'

export const isoDaysAgo = (days: number) => dayjs().subtract(days, 'day').format('YYYY-MM-DD')

export function DateField({
  value,
  onChange,
  ...rest
}: Omit<DatePickerInputProps, 'value' | 'onChange' | 'type' | 'ref'> & {
  /** `YYYY-MM-DD`, or nothing. */
  value: string | undefined
  onChange: (value: string | undefined) => void
}) {
  const shape = useDateShape()
  return (
    <DatePickerInput
      valueFormat={shape.dayFormat}
      firstDayOfWeek={shape.firstDayOfWeek}
      placeholder="choose a day"
      {...rest}
      value={value ?? null}
      onChange={(v) => onChange(v ?? undefined)}
    />
  )
}

const USUAL = [
  ['0', 'today'],
  ['1', 'yesterday'],
  ['3', '3 days ago'],
  ['7', 'last week'],
] as const

/** When something last was: short answers, then the calendar. It keeps its place while nothing is asked. */
export function WhenRow({
  what,
  value,
  disabled = false,
  onChange,
}: {
  what: string
  value: string | undefined
  disabled?: boolean
  onChange: (value: string | undefined) => void
}) {
  const usual = USUAL.find(([days]) => value === isoDaysAgo(Number(days)))
  return (
    <div className={css.when}>
      <Words
        label={`${what}: when`}
        data={USUAL}
        value={usual?.[0]}
        disabled={disabled}
        onChange={(days) => onChange(isoDaysAgo(Number(days)))}
      />
      <DateField
        aria-label={`${what}: date`}
        value={value}
        maxDate={isoDaysAgo(0)}
        disabled={disabled}
        onChange={onChange}
        w={150}
      />
    </div>
  )
}
