/** Events of the client that services are laid out for. */
import { focusWrong } from '../../ui/focusWrong.ts'
import { MomentField } from '../../ui/DateField.tsx'
import { useForm } from '@mantine/form'
import { named, PickOne } from '../../ui/PickOne.tsx'
import { Row, Rows } from '../../ui/Rows.tsx'
import { Problem } from '../../ui/Panel.tsx'
import { Button, Text, Title, Group, TextInput } from '@mantine/core'
import dayjs from 'dayjs'
import { useState } from 'react'
import {
  type ClientEvent,
  EVENT_NEEDS,
  EVENT_KINDS,
  type EventKind,
} from '../../../core/ahead/index.ts'
import { DAY_MS, whenWords } from '../../../core/time/index.ts'
import { useChangeClient } from '../../api/queries.ts'
import { tellDone } from '../../ui/notices.ts'
import { newId } from '../../state/words.ts'
import type { StationProps } from '../useStation.ts'

export function Events({ page }: StationProps) {
  const change = useChangeClient(page.client.id)
  const [adding, setAdding] = useState(false)
  const { events } = page.client
  const keep = (next: ClientEvent[]) => change.mutate({ events: next })
  const ahead = events.filter((e) => e.atMs > Date.now() - DAY_MS).sort((a, b) => a.atMs - b.atMs)
  return (
    <section>
      <Title order={2}>Events</Title>
      <Rows label="Events ahead">
        {ahead.map((e) => (
          <Row
            key={e.id}
            acts={
              <Button
                variant="bare"
                size="sm"
                onClick={() => {
                  keep(events.filter((x) => x.id !== e.id))
                  tellDone(`${e.title}: taken away.`, () => keep([...events]))
                }}
              >
                Take away
              </Button>
            }
          >
            {whenWords(e.atMs)}: {e.title}{' '}
            <Text span size="sm" c="dimmed">
              {EVENT_NEEDS[e.kind].name.toLowerCase()}
            </Text>
          </Row>
        ))}
      </Rows>
      {ahead.length === 0 && !adding && (
        <Text size="sm" c="dimmed">
          None ahead: a mask to seal, a concert, a portrait.
        </Text>
      )}
      {adding ? (
        <EventForm
          onKeep={(e) => {
            keep([...events, e])
            setAdding(false)
          }}
          onLeave={() => setAdding(false)}
        />
      ) : (
        <Button size="sm" onClick={() => setAdding(true)}>
          Add an event
        </Button>
      )}
      {change.isError && <Problem>{change.error.message}</Problem>}
    </section>
  )
}

function EventForm({ onKeep, onLeave }: { onKeep: (e: ClientEvent) => void; onLeave: () => void }) {
  const form = useForm<{ kind: EventKind; title: string; at: number }>({
    initialValues: {
      kind: 'mask-seal',
      title: '',
      at: dayjs().add(14, 'day').hour(10).startOf('hour').valueOf(),
    },
  })
  return (
    <form
      onSubmit={form.onSubmit(
        ({ kind, title, at }) =>
          onKeep({
            id: newId(),
            kind,
            title: title.trim() || EVENT_NEEDS[kind].name.toLowerCase(),
            atMs: at,
          }),
        focusWrong(form),
      )}
    >
      <Group gap="sm" align="flex-end">
        <PickOne
          label="What kind of event"
          w={200}
          data={named(EVENT_KINDS, (k) => EVENT_NEEDS[k].name)}
          value={form.values.kind}
          onChange={(kind) => form.setFieldValue('kind', kind)}
        />
        <TextInput
          label="What it is"
          maxLength={60}
          w={180}
          data-autofocus
          autoFocus
          {...form.getInputProps('title')}
        />
        <MomentField
          label="When"
          value={form.values.at}
          onChange={(at) => form.setFieldValue('at', at)}
        />
        <Button size="sm" type="submit">
          Keep
        </Button>
        <Button variant="bare" size="sm" onClick={onLeave}>
          Leave it
        </Button>
      </Group>
    </form>
  )
}
