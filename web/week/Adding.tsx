/** Somebody is given an hour: who, for what, how long; from when is tapped in the book or chosen from the hours that work. */
import { Button, Group, NumberInput, Select, Stack, Text, TextInput, Title } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import dayjs from 'dayjs'
import { useState } from 'react'
import type { AppointmentLength, Week } from '../../contract/week.ts'
import { oneJob, SERVICE_IDS, SERVICES, type ServiceId } from '../../core/services/index.ts'
import { dateAt, daysWords, offsetHere, timeWords, whenWords } from '../../core/time/index.ts'
import {
  breaches,
  GRID_MIN,
  LEAST_MIN,
  MIN_MS,
  MOST_MIN,
  nearestThatWork,
} from '../../core/week/index.ts'
import { call } from '../api/call.ts'
import { useFigures } from '../state/figures.ts'
import { newId } from '../state/words.ts'
import { KeyButton } from '../ui/Act.tsx'
import { Estimate } from '../ui/Estimate.tsx'
import { Problem } from '../ui/Panel.tsx'
import { bookOf, type BookActs, workerName } from './useBook.ts'
import { ClientHours } from './ClientHours.tsx'
import { WhoComes } from './WhoComes.tsx'
import css from './Week.module.css'

/** What is being given an hour. */
export interface Draft {
  readonly id: string
  readonly workerId: string
  readonly startMs: number
  readonly client?: { readonly id: string; readonly name: string } | undefined
  readonly service?: ServiceId | undefined
  /** As somebody has said; else as it is expected to take. */
  readonly minutes?: number | undefined
  /** The first hour that works from there on is still looked for. */
  readonly seeks?: true | undefined
}

export function Adding({
  week,
  draft,
  acts,
  onChange,
  onClose,
  onDone,
  onOffer,
}: {
  week: Week
  draft: Draft
  acts: BookActs
  onChange: (change: Partial<Draft>) => void
  onClose: () => void
  onDone: (id: string) => void
  /** Who would gain from that hour? */
  onOffer: () => void
}) {
  const figures = useFigures()
  const [note, setNote] = useState('')
  const { client, workerId, startMs } = draft
  const service = draft.service ?? 'face-shave'
  const length = useQuery({
    queryKey: ['length', client?.id, workerId, service, dateAt(startMs, offsetHere)],
    queryFn: () =>
      call('appointmentLength', {
        params: { id: client!.id },
        query: { worker: workerId, services: service, at: startMs },
      }),
    enabled: client !== undefined,
    placeholderData: (before) => before,
  })
  const minutes = draft.minutes ?? length.data?.minutes ?? figures(SERVICES[service].slotMin)
  const jobs = [oneJob(draft.id, service)]
  const wanted = { id: draft.id, clientId: client?.id ?? '', workerId, startMs, minutes, jobs }
  const book = bookOf(week)
  const why = breaches(figures, book, wanted)
  const near = why.length > 0 ? nearestThatWork(figures, book, wanted) : []
  return (
    <Stack gap="sm" component="section" aria-label="A new appointment">
      <Group justify="space-between" wrap="nowrap" align="flex-start">
        <Title order={2} fz={22}>
          {dayjs(startMs).format('ddd D MMM')}, {timeWords(startMs)}
        </Title>
        <KeyButton k="week-leave" size="sm" variant="bare" flex="none" onAct={onClose}>
          Close
        </KeyButton>
      </Group>
      <WhoComes
        client={client}
        onChange={(c) =>
          onChange({ client: c, ...(c && { service: c.service }), minutes: undefined })
        }
      />
      <Select
        label="For"
        allowDeselect={false}
        data={SERVICE_IDS.map((id) => ({ value: id, label: SERVICES[id].name }))}
        value={service}
        onChange={(v) => v && onChange({ service: v, minutes: undefined })}
      />
      <Group gap="sm" align="flex-end" wrap="nowrap">
        <Select
          label="With"
          allowDeselect={false}
          data={week.workers.map((w) => ({ value: w.id, label: w.name }))}
          value={workerId}
          onChange={(v) => v && onChange({ workerId: v })}
        />
        <NumberInput
          label="Minutes"
          w={110}
          min={LEAST_MIN}
          max={MOST_MIN}
          step={GRID_MIN}
          value={minutes}
          onChange={(v) =>
            Number(v) > 0 && onChange({ minutes: Math.round(Number(v) / GRID_MIN) * GRID_MIN })
          }
        />
      </Group>
      <Text size="sm" c="dimmed" className={css.kept}>
        {length.data && (
          <>
            The service takes about {Math.round(length.data.midMin)} min,{' '}
            <Estimate of="book-length">
              {Math.round(length.data.lowMin)} to {Math.round(length.data.highMin)}
            </Estimate>
            , and {length.data.besidesMin} for greeting and cleaning.
          </>
        )}
      </Text>
      {client && length.data && <DayWords of={length.data} startMs={startMs} />}
      {client && <ClientHours week={week} client={client} />}
      <TextInput
        label="Note"
        maxLength={300}
        value={note}
        onChange={(e) => setNote(e.currentTarget.value)}
      />
      {why.length > 0 && (
        <div role="note" className={css.against}>
          <Text size="sm">{why.map((w) => w.text).join(' ')}</Text>
          <Group gap="xs" mt={6}>
            {near.map((h) => (
              <Button key={`${h.workerId}${h.startMs}`} size="sm" onClick={() => onChange(h)}>
                {whenWords(h.startMs)}, {workerName(week, h.workerId)}
              </Button>
            ))}
          </Group>
        </div>
      )}
      <Problem>{acts.addError?.message}</Problem>
      <Button
        variant="strong"
        disabled={!client || why.length > 0}
        loading={acts.adding}
        onClick={() =>
          client &&
          void acts.addAll(
            [
              {
                ...wanted,
                clientId: client.id,
                jobs: [oneJob(newId(), service)],
                note,
                client: client.name,
              },
            ],
            (a) => onDone(a.id),
          )
        }
      >
        Book {timeWords(startMs)} to {timeWords(startMs + minutes * MIN_MS)}
      </Button>
      {!client && (
        <Button variant="line" size="sm" onClick={onOffer}>
          Who would gain from this hour?
        </Button>
      )}
    </Stack>
  )
}

/** Whether skin and hair are ready then; what is known and would stop it is told before an hour is promised. */
function DayWords({ of, startMs }: { of: AppointmentLength; startMs: number }) {
  const { held, good } = of
  if (held !== null)
    return (
      <Text size="sm" c="var(--coral)" role="note">
        {held}. As it is known now, the service will not begin on that day.
      </Text>
    )
  if (!good) return null
  const days = <Estimate of="next-days">{daysWords(good.fromMs, good.toMs)}</Estimate>
  return startMs < good.fromMs ? (
    <Text size="sm" c="var(--coral)" role="note">
      Before the good days, {days}.
    </Text>
  ) : (
    <Text size="sm" c="dimmed">
      {startMs > good.toMs ? 'Good days were ' : 'Within the good days, '}
      {days}.
    </Text>
  )
}
