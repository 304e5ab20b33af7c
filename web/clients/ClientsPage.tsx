/** All clients: found, sorted, chosen among; only the rows that are seen are drawn, however many there are. */
import {
  Button,
  Checkbox,
  Group,
  Menu,
  Skeleton,
  Stack,
  Table,
  Text,
  TextInput,
  Title,
} from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { IconColumns, IconSearch } from '@tabler/icons-react'
import {
  columnVisibilityFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
} from '@tanstack/react-table'
import { useVirtualizer } from '@tanstack/react-virtual'
import { memo, useMemo, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { ClientRow } from '../../contract/types.ts'
import { SERVICES } from '../../core/services/index.ts'
import { agoWords, DAY_MS, dueWords } from '../../core/time/index.ts'
import { useClientRows, useClients, type ClientsAsked } from '../api/clientRows.ts'
import { KeyButton } from '../ui/Act.tsx'
import { Problem } from '../ui/Panel.tsx'
import { Words } from '../ui/Words.tsx'
import { addClient } from './adding.ts'
import css from './ClientsPage.module.css'

const WHICH = [
  ['all', 'all'],
  ['due', 'due this week'],
  ['late', 'late'],
  ['new', 'never here'],
] as const
const SORTS = [
  ['name', 'by name'],
  ['due', 'by due day'],
  ['last', 'by last visit'],
] as const

/** Only what is seen is asked of the server, which finds and sorts; the table knows columns. */
const features = tableFeatures({ columnVisibilityFeature })
type Column = ColumnDef<typeof features, ClientRow, unknown>

const column = (
  id: string,
  header: string,
  cell: (c: ClientRow) => React.ReactNode,
  hides = true,
): Column => ({ id, header, enableHiding: hides, cell: ({ row }) => cell(row.original) })

const COLUMNS: Column[] = [
  column(
    'name',
    'Client',
    (c) => (
      <Link className={css.name} to={`/clients/${c.id}/ask`} onClick={(e) => e.stopPropagation()}>
        {c.name}
        {c.calledName && <small> called {c.calledName}</small>}
      </Link>
    ),
    false,
  ),
  column('work', 'Known as', (c) => c.occupation),
  column('service', 'Service', (c) => SERVICES[c.service].name),
  column('visits', 'Visits', (c) => c.visits || ''),
  column('last', 'Last here', (c) =>
    c.lastAtMs === null ? 'never yet' : agoWords(c.lastAtMs, Date.now()),
  ),
  column('stands', 'Where it stands', (c) => <Stands row={c} />),
  column('due', 'Due', (c) => <Due row={c} />),
  column('phone', 'Telephone', (c) => c.phone),
]
const HIDDEN_AT_FIRST = { visits: false, phone: false }
const ROW_PX = 44

export function ClientsPage() {
  const [words, setWords] = useState('')
  const [find] = useDebouncedValue(words, 120)
  const [sort, setSort] = useState<ClientsAsked['sort']>('name')
  const [which, setWhich] = useState<ClientsAsked['which']>('all')
  const asked = useMemo(() => ({ find, sort, which }), [find, sort, which])
  const first = useClients(asked)
  const total = first.data?.total ?? 0
  const [columnVisibility, setVisibility] = useState<Record<string, boolean>>(HIDDEN_AT_FIRST)
  const everyone = find === '' && which === 'all'
  return (
    <main className={css.page}>
      <Group justify="space-between" wrap="nowrap" gap="md">
        <Group align="baseline" gap="md">
          <Title order={1}>Clients</Title>
          {first.data && (
            <Text c="dimmed">
              {total} {everyone ? 'in this house' : 'found'}
            </Text>
          )}
        </Group>
        <KeyButton k="new-client" variant="strong" onAct={addClient}>
          New client
        </KeyButton>
      </Group>
      <Group gap="lg" my="sm">
        <TextInput
          aria-label="Find by name or occupation"
          placeholder="Find by name or occupation"
          leftSection={<IconSearch size={18} stroke={1.5} />}
          value={words}
          onChange={(e) => setWords(e.currentTarget.value)}
          w={300}
        />
        <Words label="Which" data={WHICH} value={which} onChange={setWhich} />
        <Words label="Order" data={SORTS} value={sort} onChange={setSort} />
        <Group gap="sm" ml="auto">
          <Menu closeOnItemClick={false}>
            <Menu.Target>
              <Button variant="bare" leftSection={<IconColumns size={18} stroke={1.5} />}>
                Columns
              </Button>
            </Menu.Target>
            <Menu.Dropdown>
              {COLUMNS.filter((c) => c.enableHiding).map((c) => (
                <Menu.Item
                  key={c.id}
                  component="div"
                  onClick={() => setVisibility((v) => ({ ...v, [c.id!]: !(v[c.id!] ?? true) }))}
                >
                  <Checkbox
                    label={c.header as string}
                    checked={columnVisibility[c.id!] ?? true}
                    readOnly
                    tabIndex={-1}
                  />
                </Menu.Item>
              ))}
            </Menu.Dropdown>
          </Menu>
          <Button component={Link} variant="bare" to="/clients/import">
            Import
          </Button>
        </Group>
      </Group>
      <Problem>{first.error?.message}</Problem>
      {first.isPending && <Waiting />}
      {first.data && total === 0 && (
        <Stack align="flex-start" py="xl">
          <Text size="lg">{find ? `Nobody matches “${find}”.` : 'Nobody here.'}</Text>
          <Button onClick={addClient}>Add a client</Button>
        </Stack>
      )}
      {total > 0 && (
        <List
          asked={asked}
          total={total}
          visibility={columnVisibility}
          onVisibility={setVisibility}
        />
      )}
    </main>
  )
}

const Waiting = () => (
  <Stack gap="sm" role="status" aria-label="Looking up clients">
    {Array.from({ length: 12 }, (_, i) => (
      <Skeleton key={i} h={26} />
    ))}
  </Stack>
)

function List({
  asked,
  total,
  visibility,
  onVisibility,
}: {
  asked: ClientsAsked
  total: number
  visibility: Record<string, boolean>
  onVisibility: React.Dispatch<React.SetStateAction<Record<string, boolean>>>
}) {
  const box = useRef<HTMLDivElement>(null)
  const rows = useVirtualizer({
    count: total,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
    initialRect: { width: 1200, height: 640 },
  })
  const seen = rows.getVirtualItems()
  const rowAt = useClientRows(asked, total, seen[0]?.index ?? 0, seen.at(-1)?.index ?? 0)
  const data = seen.flatMap((v) => rowAt(v.index) ?? [])
  const table = useTable({
    features,
    columns: COLUMNS,
    data,
    getRowId: (c) => c.id,
    state: { columnVisibility: visibility },
    onColumnVisibilityChange: onVisibility,
  })
  const columns = table.getVisibleLeafColumns()
  const byId = new Map(table.getRowModel().rows.map((r) => [r.id, r]))
  const above = seen[0]?.start ?? 0
  const below = rows.getTotalSize() - (seen.at(-1)?.end ?? 0)
  return (
    <div className={css.box} ref={box} tabIndex={0} role="region" aria-label="Clients">
      <Table className={css.table} aria-rowcount={total + 1}>
        <thead>
          <tr>
            {columns.map((c) => (
              <th key={c.id} scope="col" data-column={c.id}>
                {c.columnDef.header as string}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {above > 0 && <tr aria-hidden style={{ height: above }} />}
          {seen.map((v) => {
            const client = rowAt(v.index)
            const row = client && byId.get(client.id)
            return (
              <Row
                key={v.index}
                at={v.index}
                client={client}
                shown={columns.map((c) => c.id).join()}
                cells={() => row?.getVisibleCells() ?? []}
                count={columns.length}
              />
            )
          })}
          {below > 0 && <tr aria-hidden style={{ height: below }} />}
        </tbody>
      </Table>
    </div>
  )
}

/** A row is drawn anew only when its client or the columns change. */
const Row = memo(
  function Row({
    at,
    client,
    cells,
    count,
  }: {
    at: number
    client: ClientRow | undefined
    shown: string
    cells: () => readonly {
      id: string
      column: { columnDef: Column }
      row: { original: ClientRow }
    }[]
    count: number
  }) {
    const navigate = useNavigate()
    if (!client)
      return (
        <tr aria-rowindex={at + 2}>
          <td colSpan={count}>
            <Skeleton h={18} />
          </td>
        </tr>
      )
    return (
      <tr aria-rowindex={at + 2} onClick={() => void navigate(`/clients/${client.id}/ask`)}>
        {cells().map((c) => (
          <td key={c.id}>{(c.column.columnDef.cell as (of: unknown) => React.ReactNode)(c)}</td>
        ))}
      </tr>
    )
  },
  (a, b) => a.client === b.client && a.shown === b.shown && a.at === b.at,
)

function Due({ row: { dueFromMs, dueToMs, visits } }: { row: ClientRow }) {
  if (dueFromMs === null || dueToMs === null)
    return visits === 0 ? 'first visit' : 'after the next visit'
  const late = dueToMs < Date.now()
  return <span data-late={late || undefined}>{dueWords(dueFromMs, dueToMs, Date.now())}</span>
}

/** Width of the little line, px, and how many windows' ends it shows. */
const LINE = { wide: 110, high: 26 }

/** Growth since the last visit against the good days. */
function Stands({ row: { lastAtMs, dueFromMs, dueToMs } }: { row: ClientRow }) {
  if (lastAtMs === null || dueFromMs === null || dueToMs === null) return null
  const until = Math.max(dueToMs + (dueToMs - lastAtMs) * 0.4, lastAtMs + DAY_MS)
  const x = (ms: number) =>
    Math.min(1, Math.max(0, (ms - lastAtMs) / (until - lastAtMs))) * (LINE.wide - 4) + 2
  const now = x(Date.now())
  const y = LINE.high - 5 - ((now - 2) / LINE.wide) * (LINE.high - 9)
  return (
    <svg
      width={LINE.wide}
      height={LINE.high}
      className={css.stands}
      data-late={Date.now() > dueToMs || undefined}
      aria-hidden
    >
      <rect
        x={x(dueFromMs)}
        y={2}
        width={Math.max(2, x(dueToMs) - x(dueFromMs))}
        height={LINE.high - 6}
      />
      <path className={css.base} d={`M0 ${LINE.high - 4}H${LINE.wide}`} />
      <path d={`M2 ${LINE.high - 5}L${now} ${y}`} />
      <circle cx={now} cy={y} r={3} />
    </svg>
  )
}
