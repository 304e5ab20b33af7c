/** What was changed of the house, newest first. */
import { Table } from '@mantine/core'
import type { House } from '../../contract/types.ts'
import { atWords } from '../state/words.ts'

export function Changes({ changes }: { changes: House['changes'] }) {
  if (changes.length === 0) {
    return <p>Nothing was changed: everything is as it came.</p>
  }
  return (
    <Table>
      <Table.Thead>
        <Table.Tr>
          <Table.Th scope="col">When</Table.Th>
          <Table.Th scope="col">What</Table.Th>
          <Table.Th scope="col">From</Table.Th>
          <Table.Th scope="col">To</Table.Th>
        </Table.Tr>
      </Table.Thead>
      <Table.Tbody>
        {[...changes].reverse().map((c, i) => (
          <Table.Tr key={i}>
            <Table.Td>{atWords(c.atMs)}</Table.Td>
            <Table.Td>{c.what}</Table.Td>
            <Table.Td>{c.from}</Table.Td>
            <Table.Td>{c.to}</Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  )
}
