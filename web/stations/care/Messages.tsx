/** The outbox: what would be sent to this client, and when. Nothing leaves this machine. */
import { Button, CopyButton, Group, Stack, Text, Textarea } from '@mantine/core'
import { useState } from 'react'
import type { Message } from '../../../contract/types.ts'
import { useChangeMessage } from '../../api/visitWrites.ts'
import { whenWords } from '../../../core/time/index.ts'
import type { StationProps } from '../useStation.ts'
import { Problem } from '../../ui/Panel.tsx'
import { RowButton } from '../../ui/RowButton.tsx'
import { Row, Rows } from '../../ui/Rows.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import css from './Care.module.css'
import { NotYet } from './CareSheet.tsx'

export function Messages(props: StationProps) {
  const { visit } = props
  const [open, setOpen] = useState<string>()
  if (visit.state !== 'finished') return <NotYet {...props} />
  return (
    <>
      <h1>Messages</h1>
      <Text size="sm" c="dimmed">
        What would be sent, and when. Nothing leaves this machine: copy a text, or read it out.
      </Text>
      {visit.messages.length === 0 && (
        <p>This visit was kept before messages were: copy the care sheet as text instead.</p>
      )}
      <Scroll label="Messages">
        <Rows>
          {visit.messages.map((m) => (
            <Row key={m.id} acts={<Text size="sm">{stateWords(m)}</Text>}>
              <RowButton
                aria-expanded={open === m.id}
                onClick={() => setOpen(open === m.id ? undefined : m.id)}
              >
                <span className={m.state === 'taken-back' ? css.gone : ''}>{m.subject}</span>
              </RowButton>
              {open === m.id && <Opened key={m.id} message={m} visitId={visit.id} />}
            </Row>
          ))}
        </Rows>
      </Scroll>
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
    <Stack gap="xs" pb="sm">
      <Textarea
        rows={9}
        maxLength={4000}
        aria-label="Text of the message"
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
        onBlur={() => text !== message.text && change.mutate({ id: message.id, text })}
      />
      <Group gap="xs">
        <CopyButton value={text}>
          {({ copied, copy }) => <Button onClick={copy}>{copied ? 'Copied' : 'Copy'}</Button>}
        </CopyButton>
        <Button
          onClick={() => change.mutate({ id: message.id, state: gone ? 'waiting' : 'taken-back' })}
        >
          {gone ? 'Put it back' : 'Take it back'}
        </Button>
      </Group>
      <Problem>{change.error?.message}</Problem>
    </Stack>
  )
}
