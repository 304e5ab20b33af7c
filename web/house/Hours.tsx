/** When the house is open: each day between two posts; the days of the year on which it is closed. */
import { RangeSlider, Switch, TagsInput, Text, Title } from '@mantine/core'
import { useEffect, useState } from 'react'
import {
  type ClosedDays,
  closedDateWords,
  readClosedDate,
  timeWords,
  USUAL_HOURS,
  weekdayWords,
} from '../../core/time/index.ts'
import css from './House.module.css'

const MONDAY_FIRST = [1, 2, 3, 4, 5, 6, 0]
const EARLIEST = 6
const LATEST = 22

/** "9:00", as the house writes it. */
const hourWords = (hour: number) =>
  timeWords(new Date(2026, 0, 1, Math.floor(hour), (hour % 1) * 60).getTime())

export function Hours({
  closed,
  onChange,
}: {
  closed: ClosedDays
  onChange: (closed: ClosedDays) => void
}) {
  return (
    <>
      {MONDAY_FIRST.map((day) => (
        <Day key={day} day={day} closed={closed} onChange={onChange} />
      ))}
      <Title order={2} mt="lg" mb="xs">
        Closed on these days
      </Title>
      <Dates closed={closed} onChange={onChange} />
    </>
  )
}

function Day({
  day,
  closed,
  onChange,
}: {
  day: number
  closed: ClosedDays
  onChange: (closed: ClosedDays) => void
}) {
  const open = !closed.weekdays.includes(day)
  const kept = closed.hours?.[day] ?? USUAL_HOURS
  const [from, to] = [kept[0]!, kept[1]!]
  const [now, setNow] = useState<[number, number]>([from, to])
  useEffect(() => setNow([from, to]), [from, to])
  const name = weekdayWords(day)
  const keep = ([from, to]: [number, number]) =>
    onChange({ ...closed, hours: { ...closed.hours, [day]: [from, to] } })
  return (
    <div className={css.day} role="group" aria-label={name}>
      <Text fw={650}>{name}</Text>
      <Switch
        aria-label={`Open on ${name}`}
        checked={open}
        // A house that never opens has no next visit.
        disabled={open && closed.weekdays.length === 6}
        onChange={(e) =>
          onChange({
            ...closed,
            weekdays: e.currentTarget.checked
              ? closed.weekdays.filter((d) => d !== day)
              : [...closed.weekdays, day],
          })
        }
      />
      {open ? (
        <RangeSlider
          h={44}
          min={EARLIEST}
          max={LATEST}
          step={0.5}
          minRange={1}
          value={now}
          onChange={setNow}
          onChangeEnd={keep}
          thumbFromLabel={`${name}: opens`}
          thumbToLabel={`${name}: closes`}
        />
      ) : (
        <span className={css.closed} />
      )}
      <Text>{open ? `${hourWords(now[0])} to ${hourWords(now[1])}` : 'closed'}</Text>
    </div>
  )
}

function Dates({
  closed,
  onChange,
}: {
  closed: ClosedDays
  onChange: (closed: ClosedDays) => void
}) {
  const [wrong, setWrong] = useState<string>()
  const keepDates = (typed: readonly string[]) => {
    const read = typed.map((t) => [t, readClosedDate(t)] as const)
    const bad = read.find(([, date]) => date === undefined)
    setWrong(
      bad &&
        `“${bad[0]}” is no day. Write 24 Dec, or 24 Dec 2026 for one year only. The other days stay.`,
    )
    const dates = [...new Set(read.flatMap(([, date]) => date ?? []))]
    if (dates.join() !== closed.dates.join()) onChange({ ...closed, dates })
  }
  return (
    <TagsInput
      maw={560}
      aria-label="Dates on which the house is closed"
      description="24 Dec: every year. 24 Dec 2026: that year only. No window opens and no visit is laid on them."
      placeholder="24 Dec"
      value={closed.dates.map(closedDateWords)}
      onChange={keepDates}
      error={wrong}
      clearable={false}
      maxTags={200}
    />
  )
}
