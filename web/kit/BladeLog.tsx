/** What became of blades at the chair: opened, changed, binned. */
import { Problem } from '../ui/Panel.tsx'
import { Table, Title } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import type { KitEvent } from '../../core/chair/index.ts'
import { BLADES } from '../../core/kit/index.ts'
import { whenWords } from '../../core/time/index.ts'
import { call } from '../api/call.ts'

const WHY_WORDS: Readonly<Record<KitEvent['why'], string>> = {
  '': '',
  planned: 'as planned',
  tug: 'it tugged',
  pressure: 'it needed pressure',
  dropped: 'dropped',
  'by-hand': 'by hand',
  end: 'end of the service',
}
const SHOWN = 12

export function BladeLog() {
  const log = useQuery({ queryKey: ['kit-events'], queryFn: () => call('kitEvents') })
  return (
    <section>
      <Title order={2}>Blades opened and binned</Title>
      {log.isError && <Problem>{log.error.message}</Problem>}
      {log.data?.counts.length === 0 && <p>None yet: the chair writes them down by itself.</p>}
      {log.data && log.data.counts.length > 0 && (
        <>
          <Table>
            <Table.Thead>
              <Table.Tr>
                <Table.Th scope="col">Blade</Table.Th>
                <Table.Th data-num scope="col">
                  Opened
                </Table.Th>
                <Table.Th data-num scope="col">
                  Put away
                </Table.Th>
                <Table.Th data-num scope="col">
                  of these tugged or pressed
                </Table.Th>
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {log.data.counts.map((c) => (
                <Table.Tr key={c.bladeId}>
                  <Table.Td>{BLADES[c.bladeId].name}</Table.Td>
                  <Table.Td data-num>{c.opened}</Table.Td>
                  <Table.Td data-num>{c.put}</Table.Td>
                  <Table.Td data-num>{c.failed}</Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
          <Title order={3}>The latest</Title>
          <ul>
            {log.data.events.slice(0, SHOWN).map((e) => (
              <li key={e.id}>
                {whenWords(e.atMs)}: {BLADES[e.bladeId].name} {e.kind}
                {e.kind !== 'opened' && ` after ${e.strokes} strokes`}
                {e.why && `, ${WHY_WORDS[e.why]}`}
                {e.client && ` (${e.client})`}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}
