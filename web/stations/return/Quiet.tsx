/** Quiet hours: what meets the client's skin every week, and the hour of the next visit that meets least of it. */
import { Button, Group, NumberInput, Text, Title } from '@mantine/core'
import { useMemo, useState } from 'react'
import { quietHours, HABIT_WORDS, type QuietHour } from '../../../core/ahead/index.ts'
import { HABIT_KINDS, type Habit } from '../../../core/client.ts'
import type { VisitWindow } from '../../../core/regrowth/index.ts'
import { offsetHere, weekdayWords, whenWords } from '../../../core/time/index.ts'
import { listWords } from '../../../core/words.ts'
import { useChangeClient } from '../../api/queries.ts'
import { useFigures } from '../../state/figures.ts'
import { Estimate } from '../../ui/Estimate.tsx'
import { Problem } from '../../ui/Panel.tsx'
import { PickOne } from '../../ui/PickOne.tsx'
import { Row, Rows } from '../../ui/Rows.tsx'
import { Toggles } from '../../ui/Toggles.tsx'
import { useSchools, type StationProps } from '../useStation.ts'

const NONE: readonly Habit[] = []
const WEEK = [1, 2, 3, 4, 5, 6, 0]
const FIRST: Habit = { kind: 'sport', days: [2], fromHour: 18, toHour: 20 }
const MOST_TOLD = 3

export function Quiet({ page, visit, house, window }: StationProps & { window: VisitWindow }) {
  const figures = useFigures()
  const schools = useSchools(page, house)
  const save = useChangeClient(page.client.id)
  const { skin, service } = page.client
  const habits = skin.habits ?? NONE
  const [adding, setAdding] = useState<Habit>()
  const minutes = visit.plan?.totalMinutes ?? 45
  const best = useMemo(
    () =>
      quietHours(figures, {
        ...{ service, skin, schools, habits, minutes, nowMs: Date.now() },
        ...{ fromMs: window.fromMs, toMs: window.toMs, closed: house.closed, offset: offsetHere },
      }).slice(0, MOST_TOLD),
    [figures, service, skin, schools, habits, minutes, window, house.closed],
  )
  const put = (next: readonly Habit[]) =>
    save.mutate({ skin: { ...skin, habits: next.length > 0 ? next : undefined } })
  return (
    <section aria-label="The quiet hour">
      <Title order={2} mt="md">
        The <Estimate of="quiet">quiet hour</Estimate>
      </Title>
      {habits.length === 0 && (
        <Text size="sm" c="dimmed">
          Tell what meets this skin every week: the hour of the next visit that meets least of it is
          found.
        </Text>
      )}
      {best.map((q, i) => (
        <Text key={q.atMs} size="sm" fw={i === 0 ? 700 : undefined}>
          {whenWords(q.atMs)}: {meetsWords(q)}.
        </Text>
      ))}
      {habits.length > 0 && (
        <Rows label="Every week">
          {habits.map((h, i) => (
            <Row
              key={i}
              acts={
                <Button
                  variant="bare"
                  size="sm"
                  onClick={() => put(habits.filter((_, j) => j !== i))}
                >
                  Take away
                </Button>
              }
            >
              {HABIT_WORDS[h.kind]}, {listWords(h.days.map(weekdayWords))}, {h.fromHour} to{' '}
              {h.toHour}
            </Row>
          ))}
        </Rows>
      )}
      <Problem>{save.error?.message}</Problem>
      {adding ? (
        <NewHabit
          habit={adding}
          onChange={setAdding}
          onDone={() => {
            put([...habits, adding])
            setAdding(undefined)
          }}
          onLeave={() => setAdding(undefined)}
        />
      ) : (
        <Button size="sm" my={6} onClick={() => setAdding(FIRST)}>
          Something every week
        </Button>
      )}
    </section>
  )
}

const meetsWords = ({ meets }: QuietHour): string =>
  meets.length === 0
    ? 'meets nothing'
    : `meets ${listWords(meets.map((m) => `${Math.round(m.hours)} h of ${HABIT_WORDS[m.kind]}`))}`

function NewHabit({
  habit,
  onChange,
  onDone,
  onLeave,
}: {
  habit: Habit
  onChange: (habit: Habit) => void
  onDone: () => void
  onLeave: () => void
}) {
  const { kind, days, fromHour, toHour } = habit
  const hour = (label: string, value: number, of: (n: number) => Partial<Habit>) => (
    <NumberInput
      aria-label={label}
      w={86}
      min={0}
      max={24}
      suffix=" h"
      value={value}
      onChange={(v) => typeof v === 'number' && onChange({ ...habit, ...of(v) })}
    />
  )
  const wrong = days.length === 0 || toHour <= fromHour
  return (
    <Group gap="xs" my={6} role="group" aria-label="Something every week">
      <PickOne
        w={170}
        aria-label="What"
        data={HABIT_KINDS.map((k) => ({ value: k, label: HABIT_WORDS[k] }))}
        value={kind}
        onChange={(k) => onChange({ ...habit, kind: k })}
      />
      {hour('From', fromHour, (n) => ({ fromHour: n }))}
      {hour('To', toHour, (n) => ({ toHour: n }))}
      <Toggles
        label="Days"
        of={WEEK.map((d) => ({
          id: String(d),
          name: weekdayWords(d).slice(0, 3),
          on: days.includes(d),
        }))}
        onToggle={(id, on) =>
          onChange({
            ...habit,
            days: on ? [...days, Number(id)] : days.filter((d) => d !== Number(id)),
          })
        }
      />
      <Button size="sm" disabled={wrong} onClick={onDone}>
        Keep
      </Button>
      <Button variant="bare" size="sm" onClick={onLeave}>
        Not now
      </Button>
    </Group>
  )
}
