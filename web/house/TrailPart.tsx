/** The trail: who looked at, changed, took out or erased what; of one client, or of one worker. */
import { Alert, Button, Group, Stack, Table, Text } from '@mantine/core'
import { useInfiniteQuery } from '@tanstack/react-query'
import { Link, useSearchParams } from 'react-router'
import { trailWords } from '../../contract/trailWords.ts'
import type { House } from '../../contract/types.ts'
import { whenWords } from '../../core/time/index.ts'
import { PickOne } from '../ui/PickOne.tsx'
import { call } from '../api/call.ts'

const EVERYBODY = 'everybody'

export function TrailPart({ house }: { house: House }) {
  const [search, setSearch] = useSearchParams()
  const client = search.get('client') ?? ''
  const worker = search.get('worker') ?? ''
  const trail = useInfiniteQuery({
    queryKey: ['trail', client, worker],
    queryFn: ({ pageParam }) =>
      call('trail', {
        query: {
          ...(client && { client }),
          ...(worker && { worker }),
          ...(pageParam > 0 && { before: pageParam }),
        },
      }),
    initialPageParam: 0,
    getNextPageParam: (last) => (last.more ? last.rows.at(-1)!.seq : undefined),
  })
  const rows = trail.data?.pages.flatMap((p) => p.rows) ?? []
  const choose = (change: Record<string, string>) =>
    setSearch(
      Object.fromEntries(Object.entries({ client, worker, ...change }).filter(([, v]) => v)),
      { replace: true },
    )
  const name = client && rows.find((r) => r.clientId === client)?.client
  return (
    <Stack>
      {trail.data?.pages[0]?.whole === false && (
        <Alert c="var(--coral)" role="alert" title="The trail does not hold together">
          Somebody changed the data file beside Slow Tide. Stop it and type npm run verify; compare
          with a backup of before.
        </Alert>
      )}
      <Group align="flex-end">
        <PickOne
          label="Of whom"
          w={220}
          data={[
            { value: EVERYBODY, label: 'everybody' },
            ...house.workers.map((w) => ({ value: w.id, label: w.name })),
          ]}
          value={worker || EVERYBODY}
          onChange={(id) => choose({ worker: id === EVERYBODY ? '' : id })}
        />
        {client && (
          <Group gap="xs">
            <Text>About {name || 'one client'}.</Text>
            <Button size="compact-sm" onClick={() => choose({ client: '' })}>
              About all
            </Button>
          </Group>
        )}
      </Group>
      {trail.isError && (
        <Text role="alert" c="red">
          {trail.error.message}
        </Text>
      )}
      {trail.isPending && <p role="status">Reading the trail …</p>}
      {trail.data && rows.length === 0 && (
        <Text>
          Nothing yet. Looks and changes are written down from now on and never taken out.
        </Text>
      )}
      {rows.length > 0 && (
        <Table aria-label="Trail">
          <Table.Thead>
            <Table.Tr>
              <Table.Th>When</Table.Th>
              <Table.Th>Who</Table.Th>
              <Table.Th>What</Table.Th>
              <Table.Th>Of whom</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {rows.map((r) => (
              <Table.Tr key={r.seq}>
                <Table.Td>{whenWords(r.atMs)}</Table.Td>
                <Table.Td>
                  {r.worker || 'a screen'}
                  <Text size="sm" c="dimmed">
                    {r.screen}
                  </Text>
                </Table.Td>
                <Table.Td>{trailWords(r.use, r.what)}</Table.Td>
                <Table.Td>
                  {r.clientId === null ? (
                    ''
                  ) : r.client === null ? (
                    'somebody erased since'
                  ) : (
                    <Link to={`/house/trail?client=${r.clientId}`}>{r.client}</Link>
                  )}
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      )}
      {trail.hasNextPage && (
        <Button onClick={() => void trail.fetchNextPage()} loading={trail.isFetchingNextPage}>
          Earlier
        </Button>
      )}
    </Stack>
  )
}
