/** Time that is not to be had: of one of the workers, or of the house. */
import { Button, Group, Select, Stack, Text, TextInput, Title } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import dayjs from 'dayjs'
import { useState } from 'react'
import type { Week } from '../../contract/week.ts'
import { offsetHere } from '../../core/time/index.ts'
import { awayWords } from '../../core/week/index.ts'
import { write } from '../outbox/browser.ts'
import { useMay } from '../people/session.ts'
import { newId } from '../state/words.ts'
import { MomentField } from '../ui/DateField.tsx'
import { tellDone } from '../ui/notices.ts'
import { Problem } from '../ui/Panel.tsx'
import { workerName } from './useBook.ts'

const HOUSE = 'house'
/** Not of a client: sent in an order of its own. */
const ABOUT = { clientId: 'away', what: 'time away' }

export function TimeAway({ week }: { week: Week }) {
  const may = useMay()
  const cache = useQueryClient()
  const again = () => void cache.invalidateQueries({ queryKey: ['week'] })
  const [open, setOpen] = useState(false)
  const remove = useMutation({
    mutationFn: (id: string) => write('removeAway', { params: { id } }, ABOUT),
    onSuccess: again,
  })
  if (!may('addAway')) return null
  const who = (id: string | null) => (id === null ? 'The house' : workerName(week, id))
  return (
    <Stack gap={4} component="section" aria-label="Time away">
      <Title order={3} fz={16}>
        Away
      </Title>
      {week.away.some((a) => a.source === 'calendar') && (
        <Text size="sm" c="dimmed">
          Busy by their calendar:{' '}
          {[
            ...new Set(
              week.away.filter((a) => a.source === 'calendar').map((a) => who(a.workerId)),
            ),
          ].join(', ')}
          . It is changed at House.
        </Text>
      )}
      {week.away
        .filter((a) => a.source === 'hand')
        .map((a) => (
          <Group key={a.id} justify="space-between" wrap="nowrap" gap="xs">
            <Text size="sm">
              {who(a.workerId)}, {awayWords(a, offsetHere)}
              {a.why && `: ${a.why}`}
            </Text>
            <Button
              variant="bare"
              size="compact-sm"
              flex="none"
              aria-label={`Take out: ${who(a.workerId)}, ${a.why}`}
              onClick={() => remove.mutate(a.id)}
            >
              Take out
            </Button>
          </Group>
        ))}
      <Problem>{remove.error?.message}</Problem>
      {open ? (
        <Form
          week={week}
          onDone={() => {
            setOpen(false)
            again()
          }}
        />
      ) : (
        <Button size="sm" style={{ alignSelf: 'start' }} onClick={() => setOpen(true)}>
          Somebody is away
        </Button>
      )}
    </Stack>
  )
}

function Form({ week, onDone }: { week: Week; onDone: () => void }) {
  const morning = dayjs(week.from).hour(9)
  const start = morning.isBefore(week.nowMs)
    ? dayjs(week.nowMs).add(1, 'day').startOf('day').hour(9)
    : morning
  const [workerId, setWorkerId] = useState<string>(week.workers[0]?.id ?? HOUSE)
  const [fromMs, setFrom] = useState(start.valueOf())
  const [toMs, setTo] = useState(start.hour(18).valueOf())
  const [why, setWhy] = useState('')
  const add = useMutation({
    mutationFn: () =>
      write(
        'addAway',
        {
          body: {
            ...{ id: newId(), workerId: workerId === HOUSE ? null : workerId, fromMs, toMs, why },
          },
        },
        ABOUT,
      ),
    onSuccess: () => {
      tellDone('Kept as away')
      onDone()
    },
  })
  return (
    <Stack gap="xs">
      <Select
        label="Who"
        allowDeselect={false}
        data={[
          ...week.workers.map((w) => ({ value: w.id, label: w.name })),
          { value: HOUSE, label: 'The house: closed' },
        ]}
        value={workerId}
        onChange={(v) => v && setWorkerId(v)}
      />
      <MomentField label="From" value={fromMs} onChange={setFrom} />
      <MomentField label="Until" value={toMs} onChange={setTo} />
      <TextInput
        label="Why"
        maxLength={80}
        value={why}
        onChange={(e) => setWhy(e.currentTarget.value)}
      />
      <Problem>{toMs <= fromMs ? 'It ends before it begins.' : (add.error?.message ?? '')}</Problem>
      <Button
        variant="line"
        disabled={toMs <= fromMs}
        loading={add.isPending}
        onClick={() => add.mutate()}
      >
        Keep
      </Button>
    </Stack>
  )
}
