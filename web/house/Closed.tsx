/** Days on which the house is closed: no window opens, no visit is laid on them. */
import { Chip, Group, Stack, TagsInput } from '@mantine/core'
import { useState } from 'react'
import {
  type ClosedDays,
  closedDateWords,
  readClosedDate,
  weekdayWords,
} from '../../core/time/index.ts'

const MONDAY_FIRST = [1, 2, 3, 4, 5, 6, 0]

export function Closed({
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
    <Stack gap="xs">
      <Chip.Group
        multiple
        value={closed.weekdays.map(String)}
        onChange={(days) => onChange({ ...closed, weekdays: days.map(Number) })}
      >
        <Group gap={4} role="group" aria-label="Closed on these days of the week">
          {MONDAY_FIRST.map((day) => (
            <Chip
              key={day}
              value={String(day)}
              // A house that never opens has no next visit.
              disabled={closed.weekdays.length === 6 && !closed.weekdays.includes(day)}
            >
              {weekdayWords(day).slice(0, 3)}
            </Chip>
          ))}
        </Group>
      </Chip.Group>
      <TagsInput
        size="md"
        label="and on these dates"
        description="24 Dec: every year. 24 Dec 2026: that year only."
        placeholder="24 Dec"
        value={closed.dates.map(closedDateWords)}
        onChange={keepDates}
        error={wrong}
        clearable={false}
        maxTags={200}
      />
    </Stack>
  )
}
