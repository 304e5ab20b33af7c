/** Hours of these days that came free and that nobody has taken since: each can be offered. */
import { Button, Group, Stack, Text, Title } from '@mantine/core'
import type { BookedRow, Week } from '../../contract/week.ts'
import { whenWords } from '../../core/time/index.ts'
import { endMs, standsInBook } from '../../core/week/index.ts'
import { workerName } from './useBook.ts'

/** What was cancelled, is still to come, and is free still; an hour that is offered already is told beside the waiting list. */
export function freedOf(week: Week): BookedRow[] {
  const overlaps = (a: BookedRow, fromMs: number, toMs: number) =>
    a.startMs < toMs && endMs(a) > fromMs
  return week.appointments.filter(
    (a) =>
      a.state === 'cancelled' &&
      a.startMs > week.nowMs &&
      !week.appointments.some(
        (b) => b.workerId === a.workerId && standsInBook(b) && overlaps(b, a.startMs, endMs(a)),
      ) &&
      !week.offers.some(
        (o) => o.workerId === a.workerId && o.closedAtMs === null && overlaps(a, o.fromMs, o.toMs),
      ),
  )
}

export function Freed({ week, onOffer }: { week: Week; onOffer: (a: BookedRow) => void }) {
  const freed = freedOf(week)
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
