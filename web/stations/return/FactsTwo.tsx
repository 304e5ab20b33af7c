/** What was planned, done and answered at two visits, side by side. */
import { Table, Group } from '@mantine/core'
import { useFigures } from '../../state/figures.ts'
import type { VisitPage } from '../../../contract/types.ts'
import { address } from '../../api/call.ts'
import { dateWords } from '../../../core/time/index.ts'
import type { Two } from '../../../core/history/index.ts'
import { visitInWords } from '../../../core/visit/index.ts'

export function FactsTwo({ then, now }: Two<VisitPage>) {
  const figures = useFigures()
  const [before, after] = [then, now].map((v) => visitInWords(figures, v))
  return (
    <Table>
      <Table.Thead>
        <Table.Tr>
          <Table.Th scope="col">
            <span className="hidden">What</span>
          </Table.Th>
          {[then, now].map((v) => (
            <Table.Th key={v.id} scope="col">
              {v.endedAtMs ? dateWords(v.endedAtMs) : 'this visit'}
            </Table.Th>
          ))}
        </Table.Tr>
      </Table.Thead>
      <Table.Tbody>
        {before!.map(({ name, words }, i) => (
          <Table.Tr key={name}>
            <Table.Th scope="row">{name}</Table.Th>
            <Table.Td>{words}</Table.Td>
            <Table.Td>{after![i]!.words}</Table.Td>
          </Table.Tr>
        ))}
        <Table.Tr>
          <Table.Th scope="row">Pictures</Table.Th>
          <Table.Td>
            <Thumbs visit={then} />
          </Table.Td>
          <Table.Td>
            <Thumbs visit={now} />
          </Table.Td>
        </Table.Tr>
      </Table.Tbody>
    </Table>
  )
}

function Thumbs({ visit }: { visit: VisitPage }) {
  if (visit.photos.length === 0) return <>none</>
  return (
    <Group gap={6}>
      {visit.photos.map((p) => (
        <a key={p.id} href={address('photo', { id: p.id })} target="_blank" rel="noreferrer">
          <img
            height={44}
            src={`${address('photo', { id: p.id })}?size=thumbnail`}
            alt={`Skin, ${dateWords(p.atMs)}`}
          />
        </a>
      ))}
    </Group>
  )
}
