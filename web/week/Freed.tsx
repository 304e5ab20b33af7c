/** Hours of these days that came free and that nobody has taken since: each can be offered. */
import { Button, Group, Stack, Text, Title } from '@mantine/core'
import type { BookedRow, Week } from '../../contract/week.ts'
import { whenWords } from '../../core/time/index.ts'
import { cameFree } from '../../core/week/index.ts'
import { workerName } from './useBook.ts'

export function Freed({ week, onOffer }: { week: Week; onOffer: (a: BookedRow) => void }) {
  // An hour that is offered already is told beside the waiting list.
  const offered = week.offers.filter((o) => o.closedAtMs === null)
  const freed = cameFree(week.appointments, offered, week.nowMs)
  if (freed.length === 0) return null
  return (
    <Stack gap={4} component="section" aria-label="Came free">
      <Title order={3} fz={16}>
        Came free
      </Title>
      {freed.map((a) => (
        <Group key={a.id} justify="space-between" wrap="nowrap" gap="xs">
          <Text size="sm">
            {whenWords(a.startMs)}, {workerName(week, a.workerId)}: {a.client} cancelled
          </Text>
          <Button
            size="compact-sm"
            variant="line"
            flex="none"
            aria-label={`Offer ${whenWords(a.startMs)}`}
            onClick={() => onOffer(a)}
          >
            Offer it
          </Button>
        </Group>
      ))}
    </Stack>
  )
}
