/** A day: written, or chosen from a calendar; the usual answers first where they are asked for. */
import { Group } from '@mantine/core'
import { DateInput, TimePicker, type DateInputProps } from '@mantine/dates'
import '@mantine/dates/styles.layer.css'
import dayjs from 'dayjs'
import { useRef, useState } from 'react'
import { useDateShape } from '../state/shape.ts'
import { Words } from './Words.tsx'
import css from './DateField.module.css'

export const isoDaysAgo = (days: number) => dayjs().subtract(days, 'day').format('YYYY-MM-DD')

export function DateField({
  value,
  onChange,
  ...rest
}: Omit<DateInputProps, 'value' | 'onChange' | 'type' | 'ref'> & {
  /** `YYYY-MM-DD`, or nothing. */
  value: string | undefined
  onChange: (value: string | undefined) => void
}) {
  const shape = useDateShape()
  const { typed, ...hand } = useTyped(value, onChange)
  return (
    <DateInput
      valueFormat={shape.dayFormat}
      firstDayOfWeek={shape.firstDayOfWeek}
      placeholder="a day"
      {...rest}
      {...hand}
      value={typed ?? null}
    />
  )
}

/** A day is taken when it is written to its end: the days that half a word would mean are nobody's answer. */
function useTyped(value: string | undefined, onChange: (value: string | undefined) => void) {
  const typing = useRef(false)
  const [half, setHalf] = useState<{ readonly day: string | undefined }>()
  const take = () => {
    typing.current = false
    if (half && half.day !== value) onChange(half.day)
    setHalf(undefined)
  }
  return {
    typed: half ? half.day : value,
    onChange: (day: string | null) =>
      typing.current ? setHalf({ day: day ?? undefined }) : onChange(day ?? undefined),
    onBlur: take,
    onKeyDown: (e: React.KeyboardEvent) => {
      if (e.key === 'Enter') take()
      else if (e.key.length === 1 || e.key === 'Backspace' || e.key === 'Delete')
        typing.current = true
    },
  }
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

/** A moment: its day and its hour. */
export function MomentField({
  label,
  value,
  minDate,
  maxDate,
  onChange,
}: {
  label: string
  /** Milliseconds; nothing is chosen when it is left out. */
  value: number | undefined
  minDate?: string
  maxDate?: string
  onChange: (ms: number) => void
}) {
  const shape = useDateShape()
  const at = value === undefined ? undefined : dayjs(value)
  const day = at?.format('YYYY-MM-DD')
  const hour = at?.format('HH:mm') ?? ''
  const told = (d: string | undefined, h: string) => {
    const next = dayjs(`${d}T${h}`)
    if (d && h && next.isValid()) onChange(next.valueOf())
  }
  return (
    <Group gap="xs" align="flex-end" role="group" aria-label={label}>
      <DateField
        label={label}
        w={150}
        value={day}
        {...(minDate && { minDate })}
        {...(maxDate && { maxDate })}
        onChange={(d) => told(d, hour || '12:00')}
      />
      <TimePicker
        aria-label={`${label}: hour`}
        format={shape.hourFormat === 'HH:mm' ? '24h' : '12h'}
        hoursInputLabel={`${label}: hours`}
        minutesInputLabel={`${label}: minutes`}
        value={hour}
        onChange={(h) => told(day, h)}
      />
    </Group>
  )
}
