/** The outbox: what would be sent to this client, and when. Nothing leaves this machine. */
import { Button } from '@mantine/core'
import { useState } from 'react'
import type { Message } from '../../../contract/types.ts'
import { useChangeMessage } from '../../api/visitWrites.ts'
import { whenWords } from '../../../core/time/index.ts'
import type { StationProps } from '../useStation.ts'
import { NotYet } from './CareSheet.tsx'

export function Messages(props: StationProps) {
  const { visit } = props
  const [open, setOpen] = useState<string>()
  if (visit.state !== 'finished') return <NotYet {...props} />
  return (
    <>
      <h1>Messages</h1>
      <p className="soft">
        What would be sent, and when. Nothing leaves this machine: copy a text, or read it out.
      </p>
      {visit.messages.length === 0 && (
        <p>This visit was kept before messages were: copy the care sheet as text instead.</p>
      )}
      <ul className="message-list scroll" tabIndex={0} aria-label="Messages">
        {visit.messages.map((m) => (
          <li key={m.id} className={m.state === 'taken-back' ? 'taken-back' : ''}>
            <Button
              variant="bare"
              size="sm"

              aria-expanded={open === m.id}
              onClick={() => setOpen(open === m.id ? undefined : m.id)}
            >
              {m.subject}
            </Button>
            <span className="until">{stateWords(m)}</span>
            {open === m.id && <Opened key={m.id} message={m} visitId={visit.id} />}
          </li>
        ))}
      </ul>
    </>
  )
}

function stateWords(m: Message): string {
  if (m.state === 'taken-back') return 'taken back'
  return m.dueAtMs > Date.now()
    ? `goes ${whenWords(m.dueAtMs)}`
    : `would have gone ${whenWords(m.dueAtMs)}`
}

function Opened({ message, visitId }: { message: Message; visitId: string }) {
  const [text, setText] = useState(message.text)
  const change = useChangeMessage(visitId)
  const gone = message.state === 'taken-back'
  return (
    <div className="stack">
      <textarea
        className="text-input"
        rows={9}
        maxLength={4000}
        aria-label="Text of the message"
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
        onBlur={() => text !== message.text && change.mutate({ id: message.id, text })}
      />
      <div className="buttons">
        <Button onClick={() => void navigator.clipboard?.writeText(text)}>Copy</Button>
        <Button
          onClick={() => change.mutate({ id: message.id, state: gone ? 'waiting' : 'taken-back' })}
        >
          {gone ? 'Put it back' : 'Take it back'}
        </Button>
      </div>
      {change.isError && (
        <p role="alert" className="problem">
          {change.error.message}
        </p>
      )}
    </div>
  )
}
