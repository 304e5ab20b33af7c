/** A file of clients looked through: which column is what, and what becomes of each line. */
import { Checkbox, Fieldset, ScrollArea, SimpleGrid, Table, Text } from '@mantine/core'
import { PickOne } from '../ui/PickOne.tsx'
import {
  IMPORT_FIELD_IDS,
  IMPORT_FIELDS,
  type ClientDraft,
  type ImportField,
  type Mapping,
} from '../../core/formats/index.ts'
import type { ReadFile } from '../workers/import.worker.ts'

/** Lines shown at once; the rest is counted. */
const SHOWN = 60
/** A column that is nothing. */
const NONE = 'none'

export function MappingRow({
  read,
  mapping,
  onMapping,
}: {
  read: ReadFile
  mapping: Mapping
  onMapping: (m: Mapping) => void
}) {
  return (
    <Fieldset legend="Which column is what" variant="unstyled">
      <SimpleGrid cols={{ base: 1, sm: 3, md: 4 }} spacing="sm">
        {IMPORT_FIELD_IDS.map((field: ImportField) => (
          <PickOne
            key={field}
            label={IMPORT_FIELDS[field].title}
            data={[
              { value: NONE, label: '–' },
              ...read.columns!.map((c, i) => ({
                value: String(i),
                label: `${c}${read.samples?.[i] ? ` (${read.samples[i]})` : ''}`,
              })),
            ]}
            value={mapping[field] === undefined ? NONE : String(mapping[field])}
            onChange={(value) => {
              const { [field]: _was, ...rest } = mapping
              onMapping(value === NONE ? rest : { ...rest, [field]: Number(value) })
            }}
          />
        ))}
      </SimpleGrid>
    </Fieldset>
  )
}

export function Preview({
  drafts,
  unread,
  takes,
  onTurn,
}: {
  drafts: readonly ClientDraft[]
  unread: NonNullable<ReadFile['unread']>
  takes: (d: ClientDraft) => boolean
  onTurn: (line: number) => void
}) {
  const more = drafts.length + unread.length - SHOWN
  return (
    <>
      <ScrollArea.Autosize
        mah="44vh"
        viewportProps={{ tabIndex: 0, role: 'region', 'aria-label': 'What would be imported' }}
      >
        <Table>
          <Table.Thead>
            <Table.Tr>
              <Table.Th scope="col">Take</Table.Th>
              <Table.Th scope="col">Line</Table.Th>
              <Table.Th scope="col">Name</Table.Th>
              <Table.Th scope="col">Does</Table.Th>
              <Table.Th scope="col">Telephone</Table.Th>
              <Table.Th scope="col">E-mail</Table.Th>
              <Table.Th scope="col">What was noticed</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {unread.slice(0, SHOWN).map((u) => (
              <Table.Tr key={`u${u.line}`} c="dimmed">
                <Table.Td />
                <Table.Td data-num>{u.line}</Table.Td>
                <Table.Td colSpan={4}>not read</Table.Td>
                <Table.Td>{u.why}</Table.Td>
              </Table.Tr>
            ))}
            {drafts.slice(0, Math.max(0, SHOWN - unread.length)).map((d) => (
              <Table.Tr key={d.line}>
                <Table.Td>
                  <Checkbox
                    aria-label={`Take ${d.name || `line ${d.line}`}`}
                    checked={takes(d)}
                    disabled={d.problems.length > 0}
                    onChange={() => onTurn(d.line)}
                  />
                </Table.Td>
                <Table.Td data-num>{d.line}</Table.Td>
                <Table.Td>
                  {d.name}
                  {d.calledName && <small>“{d.calledName}”</small>}
                </Table.Td>
                <Table.Td>{d.occupation}</Table.Td>
                <Table.Td>{d.phone}</Table.Td>
                <Table.Td>{d.email}</Table.Td>
                <Table.Td>
                  {[
                    ...d.problems,
                    ...(d.same !== undefined ? [`Seems to be ${d.same}.`] : []),
                    ...d.mended,
                  ].join(' ')}
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </ScrollArea.Autosize>
      {more > 0 && (
        <Text size="sm" c="dimmed">
          and {more} more lines like these.
        </Text>
      )}
    </>
  )
}
