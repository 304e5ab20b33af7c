/** The outbox of the house: what would be sent to whom, and when. Nothing leaves this machine. */
import { Problem } from '../ui/Panel.tsx'
import { Stack, Table } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { call } from '../api/call.ts'
import { whenWords } from '../../core/time/index.ts'

const SHOWN = 60

export function Outbox() {
  const all = useQuery({ queryKey: ['messages'], queryFn: () => call('messages') })
  const now = Date.now()
  const waiting = all.data?.filter((m) => m.state === 'waiting') ?? []
  const ahead = waiting.filter((m) => m.dueAtMs > now).reverse()
  const before = waiting.filter((m) => m.dueAtMs <= now)
  return (
    <Stack gap="md">
      <p>
        A stand-in for messages: nothing leaves this machine. Texts are read, changed, copied and
        taken back at the client’s Care.
      </p>
      {all.isError && <Problem>{all.error.message}</Problem>}
      {all.data && waiting.length === 0 && (
        <p>Nothing is waiting: messages are written when a service is finished.</p>
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
            {[...ahead, ...before].slice(0, SHOWN).map((m) => (
              <Table.Tr key={m.id}>
                <Table.Td>
                  {m.dueAtMs > now ? whenWords(m.dueAtMs) : `was ${whenWords(m.dueAtMs)}`}
                </Table.Td>
                <Table.Td>
                  <Link to={`/clients/${m.clientId}/care?visit=${m.visitId}`}>{m.to}</Link>
                </Table.Td>
                <Table.Td>{m.subject}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      )}
    </Stack>
  )
}
