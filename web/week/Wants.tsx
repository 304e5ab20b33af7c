/** Whose good days these are and who has no hour yet; what the days still have. */
import { Stack, Table, Text, Title, UnstyledButton } from '@mantine/core'
import dayjs from 'dayjs'
import type { Week, WantRow } from '../../contract/week.ts'
import { oddsWords, sum } from '../../core/stats/index.ts'
import {
  addDays,
  dateAt,
  dateWords,
  daysWords,
  dueWords,
  offsetHere,
} from '../../core/time/index.ts'
import {
  endMs,
  freeOn,
  MIN_MS,
  momentAt,
  standsInBook,
  towelsOf,
  without,
} from '../../core/week/index.ts'
import { useFigures } from '../state/figures.ts'
import { datesOf } from './axis.ts'
import { shortWork } from './useBook.ts'
import { TimeAway } from './TimeAway.tsx'
import css from './Week.module.css'

export function Wants({ week, onWant }: { week: Week; onWant: (w: WantRow) => void }) {
  return (
    <Stack gap="sm" component="section" aria-label="Who the week wants">
      <Title order={2} fz={22}>
        Who the week wants
      </Title>
      {week.wants.length === 0 && (
        <Text c="dimmed">Nobody whose good days these are is without an hour.</Text>
      )}
      <ul className={css.wants}>
        {week.wants.map((w) => (
          <li key={w.clientId}>
            <UnstyledButton className={css.want ?? ''} onClick={() => onWant(w)}>
              <span>
                <b>{w.name}</b>
                <small>
                  {w.held ?? `${shortWork(w)}, ${w.minutes} min`}
                  {w.event && `; before ${w.event.name}, ${dateWords(w.event.atMs)}`}
                </small>
              </span>
              <GoodDays week={week} w={w} />
              <span className={css.share}>
                {w.seenByEnd === null ? '' : oddsWords(w.seenByEnd)}
              </span>
            </UnstyledButton>
          </li>
        ))}
      </ul>
      {week.more > 0 && <Text size="sm">and {week.more} more</Text>}
      {week.wants.length > 0 && (
        <Text size="sm" c="dimmed">
          Band: good days. Share: hair is seen by their end. Tap a name to give an hour.
        </Text>
      )}
      <Free week={week} />
      <TimeAway week={week} />
    </Stack>
  )
}

const LINE = { width: 120, height: 24 }

/** The week as a line, the good days as a band on it. */
function GoodDays({ week, w }: { week: Week; w: WantRow }) {
  const from = momentAt(week.from, 0, offsetHere)
  const to = momentAt(addDays(week.from, week.days), 0, offsetHere)
  const x = (ms: number) =>
    Math.min(LINE.width, Math.max(0, ((ms - from) / (to - from)) * LINE.width))
  const late = w.toMs < Math.max(from, week.nowMs)
  return (
    <svg
      className={css.good}
      viewBox={`0 0 ${LINE.width} ${LINE.height}`}
      role="img"
      aria-label={
        late ? dueWords(w.fromMs, w.toMs, week.nowMs) : `good days ${daysWords(w.fromMs, w.toMs)}`
      }
    >
      <line x1={0} x2={LINE.width} y1={LINE.height - 3} y2={LINE.height - 3} />
      {Array.from({ length: week.days + 1 }, (_, i) => (
        <line
          key={i}
          x1={(i * LINE.width) / week.days}
          x2={(i * LINE.width) / week.days}
          y1={LINE.height - 7}
          y2={LINE.height - 3}
        />
      ))}
      {late ? (
        <text x={2} y={13}>
          {dueWords(w.fromMs, w.toMs, week.nowMs)}
        </text>
      ) : (
        <rect
          x={x(w.fromMs)}
          width={Math.max(3, x(w.toMs) - x(w.fromMs))}
          y={3}
          height={LINE.height - 6}
        />
      )}
    </svg>
  )
}

/** What each day still has. */
function Free({ week }: { week: Week }) {
  const figures = useFigures()
  const today = dateAt(week.nowMs, offsetHere)
  const dates = datesOf(week.from, week.days).filter((d) => d >= today)
  const told = dates.slice(0, 7).flatMap((date) => {
    const own = week.appointments.filter(
      (a) => standsInBook(a) && dateAt(a.startMs, offsetHere) === date,
    )
    const free = week.workers.flatMap((w) =>
      without(
        freeOn(week.closed, w, week.away, date, offsetHere),
        own.filter((a) => a.workerId === w.id).map((a) => ({ fromMs: a.startMs, toMs: endMs(a) })),
      ),
    )
    const minutes =
      sum(free.map((f) => Math.max(0, f.toMs - Math.max(f.fromMs, week.nowMs)))) / MIN_MS
    if (minutes < 1 && own.length === 0) return []
    const towels = sum(own.map((a) => towelsOf(figures, a.jobs)))
    return [{ date, minutes, towels, count: own.length }]
  })
  if (told.length === 0) return null
  return (
    <Table className={css.free ?? ''} captionSide="top">
      <Table.Caption>Still free</Table.Caption>
      <Table.Tbody>
        {told.map((t) => (
          <Table.Tr key={t.date}>
            <Table.Th scope="row">{dayjs(t.date).format('ddd D')}</Table.Th>
            <Table.Td>{hoursWords(t.minutes)}</Table.Td>
            <Table.Td>{t.count} booked</Table.Td>
            <Table.Td>{t.towels > 0 ? `${t.towels} towels` : ''}</Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  )
}

const hoursWords = (minutes: number) => {
  const m = Math.round(minutes / 5) * 5
  return m >= 60 ? `${Math.floor(m / 60)} h${m % 60 ? ` ${m % 60} min` : ''}` : `${m} min`
}
