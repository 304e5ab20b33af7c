/** When somebody works, day by day, with their breaks; and what they may do. */
import { Button, MultiSelect, SimpleGrid, Stack, TextInput } from '@mantine/core'
import { useState } from 'react'
import type { House } from '../../contract/types.ts'
import { SERVICE_IDS, SERVICES } from '../../core/services/index.ts'
import { openHours, weekdayWords } from '../../core/time/index.ts'
import { readStretches, stretchWords, type WorkerHours } from '../../core/week/index.ts'

import { WorkerCalendar } from './WorkerCalendar.tsx'

type Worker = House['workers'][number]

const MONDAY_FIRST = [1, 2, 3, 4, 5, 6, 0]
/** A date of each day of the week: the house's hours hang on that alone. */
const dateOf = (day: number) => `2026-01-${String(4 + day).padStart(2, '0')}`

export function WorkerWeek({
  worker,
  closed,
  onKeep,
}: {
  worker: Worker
  closed: House['closed']
  onKeep: (change: Partial<Worker>) => void
}) {
  const [open, setOpen] = useState(false)
  const first = worker.name.split(' ')[0]!
  const keepDay = (day: number, stretches: readonly (readonly number[])[] | undefined) => {
    const { [day]: _before, ...rest } = worker.hours ?? {}
    const hours: WorkerHours = stretches ? { ...rest, [day]: stretches } : rest
    onKeep({ hours: Object.keys(hours).length > 0 ? hours : null })
  }
  return (
    <>
      <Button
        variant="bare"
        size="compact-sm"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        style={{ alignSelf: 'start' }}
      >
        Hours and services of {first}
      </Button>
      {open && (
        <Stack gap="sm" pb="sm">
          <SimpleGrid cols={{ base: 2, sm: 3, lg: 4 }} maw={820}>
            {MONDAY_FIRST.map((day) => (
              <Day
                key={day}
                name={weekdayWords(day)}
                stretches={worker.hours?.[day]}
                house={
                  closed.weekdays.includes(day)
                    ? 'closed'
                    : stretchWords([openHours(closed, dateOf(day))])
                }
                onKeep={(s) => keepDay(day, s)}
              />
            ))}
          </SimpleGrid>
          <MultiSelect
            maw={620}
            label={`What ${first} may do`}
            description="Nothing chosen: everything the house does."
            data={SERVICE_IDS.map((id) => ({ value: id, label: SERVICES[id].name }))}
            value={[...(worker.services ?? [])]}
            onChange={(v) => onKeep({ services: v.length > 0 ? v : null })}
            clearable
          />
          <WorkerCalendar worker={worker} />
        </Stack>
      )}
    </>
  )
}

function Day({
  name,
  stretches,
  house,
  onKeep,
}: {
  name: string
  stretches: readonly (readonly number[])[] | undefined
  /** As the house is open. */
  house: string
  onKeep: (stretches: readonly (readonly number[])[] | undefined) => void
}) {
  const kept = stretches ? stretchWords(stretches) : ''
  const [wrong, setWrong] = useState<string>()
  return (
    <TextInput
      key={kept}
      label={name}
      placeholder={house}
      defaultValue={kept}
      error={wrong}
      onBlur={(e) => {
        const typed = e.currentTarget.value.trim()
        if (typed === kept) return setWrong(undefined)
        const read = typed === '' ? undefined : readStretches(typed)
        if (typed !== '' && !read)
          return setWrong('Write 9–12:30, 13–18, or off. What was kept stays.')
        setWrong(undefined)
        onKeep(read)
      }}
    />
  )
}
