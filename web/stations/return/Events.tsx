/** Events of the client that services are laid out for. */
import { Button } from '@mantine/core'
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
      <h2>Events</h2>
      <ul className="plain-list">
        {ahead.map((e) => (
          <li key={e.id}>
            <span>
              {whenWords(e.atMs)}: {e.title}{' '}
              <small className="inline">{EVENT_NEEDS[e.kind].name.toLowerCase()}</small>
            </span>
            <Button
              variant="bare"
              size="sm"
              onClick={() => keep(events.filter((x) => x.id !== e.id))}
            >
              Take away
            </Button>
          </li>
        ))}
      </ul>
      {ahead.length === 0 && !adding && (
        <p className="soft">None ahead: a mask to seal, a concert, a portrait.</p>
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
      {change.isError && (
        <p role="alert" className="problem">
          {change.error.message}
        </p>
      )}
    </section>
  )
}

function EventForm({ onKeep, onLeave }: { onKeep: (e: ClientEvent) => void; onLeave: () => void }) {
  const [kind, setKind] = useState<EventKind>('mask-seal')
  const [title, setTitle] = useState('')
  const [at, setAt] = useState(dayjs().add(14, 'day').format('YYYY-MM-DDT10:00'))
  const when = dayjs(at)
  return (
    <form
      className="event-form"
      onSubmit={(e) => {
        e.preventDefault()
        if (!when.isValid()) return
        onKeep({
          id: newId(),
          kind,
          title: title.trim() || EVENT_NEEDS[kind].name.toLowerCase(),
          atMs: when.valueOf(),
        })
      }}
    >
      <select
        className="text-input"
        aria-label="What kind of event"
        value={kind}
        onChange={(e) => setKind(e.currentTarget.value as EventKind)}
      >
        {EVENT_KINDS.map((k) => (
          <option key={k} value={k}>
            {EVENT_NEEDS[k].name}
          </option>
        ))}
      </select>
      <input
        className="text-input"
        aria-label="What it is"
        placeholder="What it is"
        maxLength={60}
        value={title}
        autoFocus
        onChange={(e) => setTitle(e.currentTarget.value)}
      />
      <input
        type="datetime-local"
        className="text-input"
        aria-label="When"
        value={at}
        onChange={(e) => setAt(e.currentTarget.value)}
      />
      <Button size="sm" type="submit">
        Keep
      </Button>
      <Button variant="bare" size="sm" type="button" onClick={onLeave}>
        Leave it
      </Button>
    </form>
  )
}
