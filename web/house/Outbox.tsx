/** The outbox of the house: what would be sent to whom, and when. Nothing leaves this machine. */
import { Problem } from '../ui/Panel.tsx'
import { Button, CopyButton, Group, Stack, Table, Text } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { Message } from '../../contract/types.ts'
import { Link } from 'react-router'
import { call } from '../api/call.ts'
import { HOUR_MS, whenWords } from '../../core/time/index.ts'

const SHOWN = 60
/** What was due so lately may still be on its way. */
const LATELY_MS = 12 * HOUR_MS

/** Of an hour in the book: opened here, since no visit holds it. */
function HourText({ message: m }: { message: Message }) {
  const [open, setOpen] = useState(false)
  const cache = useQueryClient()
  const back = useMutation({
    mutationFn: () =>
      call('changeMessage', { params: { id: m.id }, body: { state: 'taken-back' } }),
    onSuccess: () => void cache.invalidateQueries({ queryKey: ['messages'] }),
  })
  return (
    <>
      <Button variant="bare" size="compact-sm" aria-expanded={open} onClick={() => setOpen(!open)}>
        {m.subject}
      </Button>
      {open && (
        <Stack gap="xs">
          <Text size="sm" style={{ whiteSpace: 'pre-wrap', overflowWrap: 'anywhere' }}>
            {m.text}
          </Text>
          <Group gap="xs">
            <CopyButton value={m.text}>
              {({ copied, copy }) => (
                <Button size="sm" onClick={copy}>
                  {copied ? 'Copied' : 'Copy'}
                </Button>
              )}
            </CopyButton>
            <Button size="sm" loading={back.isPending} onClick={() => back.mutate()}>
              Take it back
            </Button>
          </Group>
          <Problem>{back.error?.message}</Problem>
        </Stack>
      )}
    </>
  )
}

export function Outbox() {
  const all = useQuery({ queryKey: ['messages'], queryFn: () => call('messages') })
  const now = Date.now()
  const waiting = all.data?.filter((m) => m.state === 'waiting') ?? []
  const later = (a: Message, b: Message) => b.dueAtMs - a.dueAtMs
  const before = waiting.filter((m) => m.dueAtMs <= now).sort(later)
  const lately = before.filter((m) => m.dueAtMs > now - LATELY_MS)
  const ahead = waiting.filter((m) => m.dueAtMs > now).sort((a, b) => later(b, a))
  const order = [...lately, ...ahead, ...before.slice(lately.length)]
  return (
    <Stack gap="md">
      <p>
        A stand-in for messages: nothing leaves this machine. Texts of a visit are read, changed,
        copied and taken back at the client’s Care; those of an hour in the book here.
      </p>
      {all.isError && <Problem>{all.error.message}</Problem>}
      {all.data && waiting.length === 0 && (
        <p>
          Nothing is waiting: messages are written when a service is finished, and for hours in the
          book.
        </p>
      )}
      {waiting.length > 0 && (
        <Table>
          <Table.Thead>
            <Table.Tr>
              <Table.Th scope="col">When</Table.Th>
              <Table.Th scope="col">To</Table.Th>
              <Table.Th scope="col">What</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {order.slice(0, SHOWN).map((m) => (
              <Table.Tr key={m.id}>
                <Table.Td>
                  {m.dueAtMs > now ? whenWords(m.dueAtMs) : `was ${whenWords(m.dueAtMs)}`}
                </Table.Td>
                <Table.Td>
                  <Link
                    to={
                      m.visitId === null
                        ? `/clients/${m.clientId}/return`
                        : `/clients/${m.clientId}/care?visit=${m.visitId}`
                    }
                  >
                    {m.to}
                  </Link>
                </Table.Td>
                <Table.Td>{m.visitId === null ? <HourText message={m} /> : m.subject}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      )}
      {order.length > SHOWN && <Text c="dimmed">and {order.length - SHOWN} more</Text>}
    </Stack>
  )
}
