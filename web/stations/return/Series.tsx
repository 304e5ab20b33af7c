/** The visits ahead through a date: into a calendar, and the next one onto Today. */
import { DateField } from '../../ui/DateField.tsx'
import css from './Return.module.css'
import { Button, Group, Text, Title } from '@mantine/core'
import { oneJob } from '../../../core/services/index.ts'
import { clientSeries, lineOf, usualWork, type SeriesVisit } from '../../../core/ahead/index.ts'
import { dateWords, offsetHere, whenWords } from '../../../core/time/index.ts'
import { useFigures } from '../../state/figures.ts'
import dayjs from 'dayjs'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import type { TideLineOf, VisitPage } from '../../../contract/types.ts'
import { address } from '../../api/call.ts'
import { useAddVisit, useChangeVisit } from '../../api/visitWrites.ts'
import { newId } from '../../state/words.ts'
import { useScreening } from '../useGate.ts'
import { useSchools, type StationProps } from '../useStation.ts'

const KIND_WORDS: Record<SeriesVisit['kind'], string> = {
  whole: 'whole service',
  lip: 'upper lip alone',
  line: 'the line alone',
}

function useSeries(props: StationProps, last: VisitPage, throughMs: number): SeriesVisit[] {
  const figures = useFigures()
  const { page, house, visit } = props
  const schools = useSchools(page, house)
  const screening = useScreening(props)
  return useMemo(() => {
    const { client, model } = page
    const window = lineOf<TideLineOf>(page.tide, usualWork(page.due, client.service))?.window
    if (!window || last.endedAtMs === null) return []
    return clientSeries(figures, {
      service: client.service,
      skin: client.skin,
      model,
      schools,
      noFragrance: screening.noFragrance,
      products: house.products.filter((p) => visit.products.includes(p.id)),
      events: client.events,
      window,
      last: {
        endedAtMs: last.endedAtMs,
        leftMm: last.leftMm,
        plan: last.service === client.service ? (last.plan ?? undefined) : undefined,
      },
      nowMs: Date.now(),
      throughMs,
      closed: house.closed,
      offset: offsetHere,
    })
  }, [figures, page, house, visit.products, schools, screening, last, throughMs])
}

export function Series(props: StationProps & { last: VisitPage }) {
  const { page, last } = props
  const [through, setThrough] = useState(dayjs().add(8, 'week').format('YYYY-MM-DD'))
  const throughMs = dayjs(through).endOf('day').valueOf()
  const series = useSeries(props, last, Number.isFinite(throughMs) ? throughMs : Date.now())
  return (
    <section>
      <Group justify="space-between" gap="sm">
        <Title order={2}>Visits through</Title>
        <DateField
          aria-label="Through"
          w={150}
          value={through}
          minDate={dayjs().format('YYYY-MM-DD')}
          onChange={(day) => day && setThrough(day)}
        />
        <Button
          component="a"
          size="sm"
          href={address('seriesCalendar', { id: page.client.id }, { through })}
          download
        >
          Into a calendar
        </Button>
      </Group>
      {series.length === 0 && (
        <Text size="sm" c="dimmed">
          That day lies before the next window.
        </Text>
      )}
      <ol className={css.series} data-testid="series">
        {series.map((v, i) => (
          <li key={v.atMs} data-kind={v.kind}>
            <b>{dateWords(v.atMs)}</b> {v.event ? `for ${v.event.title}` : KIND_WORDS[v.kind]}
            <small>
              {dateWords(v.fromMs)} to {dateWords(v.toMs)}. {v.why}
            </small>
            {v.kind === 'whole' && i === series.findIndex((x) => x.kind === 'whole') && (
              <IntoToday {...props} atMs={v.atMs} />
            )}
          </li>
        ))}
      </ol>
    </section>
  )
}

/** Begins the next visit with this day as its slot, or moves the one that is open. */
function IntoToday({ page, house, atMs }: StationProps & { atMs: number }) {
  const open = page.visits.find((v) => v.state !== 'finished')
  const add = useAddVisit(page.client.id)
  const move = useChangeVisit(open?.id ?? '')
  const navigate = useNavigate()
  const slotAtMs = onTheHour(atMs)
  const set = open?.slotAtMs === slotAtMs
  const put = () => {
    if (open) move.mutate({ slotAtMs })
    else {
      add.mutate(
        {
          ...{ id: newId(), jobs: [oneJob(newId(), page.client.service)] },
          ...{ workerId: house.workerId, slotAtMs },
        },
        { onSuccess: () => void navigate(`/clients/${page.client.id}/return`) },
      )
    }
  }
  const error = add.error ?? move.error
  return (
    <>
      <Button
        size="sm"

        disabled={add.isPending || move.isPending || set || open?.state === 'running'}
        onClick={put}
      >
        {set ? 'On Today for then' : `Put on Today, ${whenWords(slotAtMs)}`}
      </Button>
      {error && (
        <span role="alert" className="problem">
          {error.message}
        </span>
      )}
    </>
  )
}

/** The full hour of a working day nearest to a moment. */
function onTheHour(ms: number): number {
  const at = dayjs(ms).startOf('hour')
  const hour = Math.min(16, Math.max(9, at.hour()))
  return at.hour(hour).valueOf()
}
