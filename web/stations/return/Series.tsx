/** The visits ahead through a date: into a calendar, and the next one into the book. */
import { DateField } from '../../ui/DateField.tsx'
import css from './Return.module.css'
import { Button, Group, Text, Title } from '@mantine/core'
import { clientSeries, lineOf, usualWork, type SeriesVisit } from '../../../core/ahead/index.ts'
import { dateAt, dateWords, offsetHere } from '../../../core/time/index.ts'
import { useFigures } from '../../state/figures.ts'
import dayjs from 'dayjs'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import type { TideLineOf, VisitPage } from '../../../contract/types.ts'
import { address } from '../../api/call.ts'
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
              <IntoBook {...props} atMs={v.atMs} />
            )}
          </li>
        ))}
      </ol>
    </section>
  )
}

/** On to the book at that day, with the hours that work. */
function IntoBook({ page, atMs }: StationProps & { atMs: number }) {
  const from = dateAt(Math.max(atMs, Date.now()), offsetHere)
  return (
    <Button component={Link} size="sm" to={`/week?from=${from}&book=${page.client.id}`}>
      Book an hour
    </Button>
  )
}
