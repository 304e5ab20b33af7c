/** A slot came free: who gains most from it. Those who are chosen get a message with a page of their own; the first has it. */
import { Checkbox, Group, Skeleton, Stack, Text, Title } from '@mantine/core'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import dayjs from 'dayjs'
import { useState } from 'react'
import type { FreeSlotAnswer, Week } from '../../contract/week.ts'
import { oneJob } from '../../core/services/index.ts'
import { oddsWords } from '../../core/stats/index.ts'
import { timeWords, whenWords } from '../../core/time/index.ts'
import { call } from '../api/call.ts'
import { newId } from '../state/words.ts'
import { KeyButton } from '../ui/Act.tsx'
import { Estimate } from '../ui/Estimate.tsx'
import { tellDone } from '../ui/notices.ts'
import { Problem } from '../ui/Panel.tsx'
import { shortWork, workerName } from './useBook.ts'
import css from './Week.module.css'

export interface Slot {
  readonly workerId: string
  readonly atMs: number
}
type GainRow = FreeSlotAnswer['rows'][number]

/** So many are chosen at first: more than one, so that somebody answers; few enough that not many hear that it is gone. */
const AT_FIRST = 3

export function OfferSlot({
  week,
  slot,
  onClose,
}: {
  week: Week
  slot: Slot
  onClose: () => void
}) {
  const cache = useQueryClient()
  const found = useQuery({
    queryKey: ['free-slot', slot.workerId, slot.atMs],
    queryFn: () => call('freeSlot', { query: { worker: slot.workerId, at: slot.atMs } }),
  })
  const rows = found.data?.rows ?? []
  const [picked, setPicked] = useState<readonly string[]>()
  const chosen = picked ?? rows.slice(0, AT_FIRST).map((r) => r.clientId)
  const toggle = (id: string) =>
    setPicked(chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id])
  const offer = useMutation({
    mutationFn: (free: NonNullable<FreeSlotAnswer['slot']>) =>
      call('addOffer', {
        body: {
          ...{ id: newId(), ...free },
          clients: rows
            .filter((r) => chosen.includes(r.clientId))
            .map(({ clientId, startMs, minutes, jobs }) => ({
              ...{ clientId, startMs, minutes },
              jobs: jobs.map((j) => ({
                ...{ ...oneJob(newId(), j.service), method: j.method, zones: j.zones },
              })),
            })),
        },
      }),
    onSuccess: () => {
      tellDone(
        chosen.length === 1
          ? 'A message is in the outbox'
          : `${chosen.length} messages are in the outbox`,
      )
      void cache.invalidateQueries({ queryKey: ['week'] })
      void cache.invalidateQueries({ queryKey: ['messages'] })
      onClose()
    },
  })
  const free = found.data?.slot
  return (
    <Stack gap="sm" component="section" aria-label="A free hour">
      <Group justify="space-between" wrap="nowrap" align="flex-start">
        <Title order={2} fz={22}>
          {free
            ? `${dayjs(free.fromMs).format('ddd D MMM')}, ${timeWords(free.fromMs)} to ${timeWords(free.toMs)} is free`
            : `${dayjs(slot.atMs).format('ddd D MMM')}, ${timeWords(slot.atMs)}`}
        </Title>
        <KeyButton k="week-leave" size="sm" variant="bare" flex="none" onAct={onClose}>
          Close
        </KeyButton>
      </Group>
      <Text size="sm" c="dimmed">
        With {workerName(week, slot.workerId)}. Whoever gains most stands first; share: hair is seen
        and skin is clear then.
      </Text>
      {found.isPending && <Skeleton h={180} role="status" aria-label="Looking who gains" />}
      <Problem>{found.error?.message}</Problem>
      {found.data && !free && <Text>That hour is taken, over, or not worked.</Text>}
      {free && rows.length === 0 && (
        <Text>Nobody who is due or waits would gain from it, or can come then.</Text>
      )}
      <ul className={css.wants}>
        {rows.map((r) => (
          <li key={r.clientId}>
            <Checkbox
              py={8}
              checked={chosen.includes(r.clientId)}
              onChange={() => toggle(r.clientId)}
              label={
                <>
                  <b>{r.name}</b>, <Estimate of="next-days">{oddsWords(r.odds)}</Estimate>
                </>
              }
              description={gainWords(r, week, slot.workerId)}
            />
          </li>
        ))}
      </ul>
      <Problem>{offer.error?.message}</Problem>
      {free && rows.length > 0 && (
        <KeyButton
          k="week-offer"
          variant="strong"
          disabled={chosen.length === 0}
          loading={offer.isPending}
          onAct={() => offer.mutate(free)}
        >
          {chosen.length === 1 ? 'Put a message' : `Put ${chosen.length} messages`} into the outbox
        </KeyButton>
      )}
    </Stack>
  )
}

/** Why somebody stands where they stand. */
function gainWords(r: GainRow, week: Week, workerId: string): string {
  const days = Math.round(Math.abs(r.toWindowDays))
  const window =
    r.toWindowDays === 0 || days === 0
      ? 'within the good days'
      : r.toWindowDays > 0
        ? `${days} ${days === 1 ? 'day' : 'days'} before the good days`
        : `good days over for ${days} ${days === 1 ? 'day' : 'days'}`
  return [
    `${timeWords(r.startMs)}, ${r.minutes} min, ${shortWork(r)}`,
    window,
    r.waits && 'on the waiting list',
    r.hasMs !== null && `gives back ${whenWords(r.hasMs)}`,
    !r.usualWorker && `not usually with ${workerName(week, workerId)}`,
  ]
    .filter(Boolean)
    .join('; ')
}
