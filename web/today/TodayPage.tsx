/** Today: who comes, who was here, what is owed, who is due, in the order in which the tide brings them in. */
import { Anchor, Button, Group, Skeleton, Stack, Table, Text, Title } from '@mantine/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Fragment, useEffect, type ReactNode } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Today, TodayRow } from '../../contract/types.ts'
import { SERVICE_IDS, SERVICES } from '../../core/services/index.ts'
import { lateWords } from '../../core/week/index.ts'
import { oddsWords } from '../../core/stats/index.ts'
import {
  DAY_MS,
  dateWords,
  daysWords,
  dueWords,
  longDate,
  timeWords,
  whenWords,
} from '../../core/time/index.ts'
import { call } from '../api/call.ts'
import { useToday } from '../api/queries.ts'
import { addClient } from '../clients/adding.ts'
import { More } from '../frame/More.tsx'
import { fetchAhead } from '../offline/ahead.ts'
import { useUnits } from '../state/shape.ts'
import { telephone } from '../state/words.ts'
import { KeyButton } from '../ui/Act.tsx'
import { Estimate } from '../ui/Estimate.tsx'
import { tellDone } from '../ui/notices.ts'
import { Problem } from '../ui/Panel.tsx'
import css from './TodayPage.module.css'

const SHOWN_MM = SERVICE_IDS.map((id) => SERVICES[id].hair.shownMm)
const CURVE = { width: 430, height: 50 }

export function TodayPage() {
  const today = useToday()
  const navigate = useNavigate()
  const [first] = today.data?.pages ?? []
  const rows = today.data?.pages.flatMap((p) => p.rows) ?? []
  useEffect(() => {
    if (first) void fetchAhead(first)
  }, [first])
  const next = first && nextOf(rows, first.nowMs)
  return (
    <main className={css.page} data-testid="today">
      <Group justify="space-between" gap="md" mb="sm" className={css.top ?? ''}>
        <Group align="baseline" gap="md">
          <Title order={1}>{longDate(first?.nowMs ?? Date.now())}</Title>
          <Text c="dimmed">in the order the tide brings them in</Text>
        </Group>
        <Group gap="sm">
          <KeyButton k="new-client" variant={next ? 'line' : 'strong'} onAct={addClient}>
            New client
          </KeyButton>
          {next && (
            <KeyButton
              k="open-next"
              variant="strong"
              onAct={() => void navigate(`/clients/${next.client.id}/ask`)}
            >
              Open {next.client.name.split(' ')[0]}, {timeWords(next.slotAtMs!)}
            </KeyButton>
          )}
        </Group>
      </Group>
      {today.isPending && <Waiting />}
      {today.isError && (
        <Group>
          <Problem>{today.error.message}</Problem>
          <Button variant="bare" size="sm" onClick={() => void today.refetch()}>
            Try again
          </Button>
        </Group>
      )}
      {first && first.lateToTell > 0 && <Late many={first.lateToTell} />}
      {first?.safety && (
        <Problem>
          {first.safety} <Link to="/house/safety">To the backups</Link>
        </Problem>
      )}
      {first &&
        (rows.length === 0 ? (
          <Stack align="flex-start" py="xl">
            <Text size="lg">Nobody here yet. The first client takes half a minute.</Text>
            <Button onClick={addClient}>Add the first client</Button>
          </Stack>
        ) : (
          <DayTable
            today={{ ...first, rows }}
            more={<More of={today} shown={rows.length} total={first.total} />}
          />
        ))}
    </main>
  )
}

/** Those who are still to come and will wait: one tap puts a message for each into the outbox. */
function Late({ many }: { many: number }) {
  const cache = useQueryClient()
  const tell = useMutation({
    mutationFn: () => call('tellLate', { body: {} }),
    onSuccess: ({ told }) => {
      tellDone(told === 1 ? 'A message is in the outbox' : `${told} messages are in the outbox`)
      void cache.invalidateQueries({ queryKey: ['today'] })
      void cache.invalidateQueries({ queryKey: ['messages'] })
    },
  })
  return (
    <Group gap="sm" mb="xs" role="note">
      <Text c="var(--coral)">
        The day runs late: {many} {many === 1 ? 'client does' : 'clients do'} not know yet.
      </Text>
      <Button size="sm" variant="line" loading={tell.isPending} onClick={() => tell.mutate()}>
        Tell {many === 1 ? 'them' : 'all of them'}
      </Button>
      <Problem>{tell.error?.message}</Problem>
    </Group>
  )
}

const Waiting = () => (
  <Stack gap="lg" role="status" aria-label="Reading the tide table">
    {Array.from({ length: 9 }, (_, i) => (
      <Skeleton key={i} h={36} />
    ))}
  </Stack>
)

const sameDay = (a: number | null, b: number) => a !== null && dateWords(a) === dateWords(b)

/** Who comes next today, or was to come a while ago and is not here yet. */
const nextOf = (rows: readonly TodayRow[], nowMs: number) =>
  rows
    .filter((r) => sameDay(r.slotAtMs, nowMs) && r.slotAtMs! > nowMs - DAY_MS / 8)
    .sort((a, b) => a.slotAtMs! - b.slotAtMs!)[0]

/** The parts of the day: what alarms and comes, what is done, and the tide beyond. */
function partsOf({ rows, nowMs }: Today): [string, TodayRow[]][] {
  const part = (r: TodayRow) => {
    if (r.flags.some((f) => f.kind === 'alarm')) return 'Look at once'
    if (sameDay(r.slotAtMs, nowMs)) return 'Today'
    if (sameDay(r.lastAtMs, nowMs)) return 'Finished today'
    return 'Owed and due'
  }
  const names = ['Look at once', 'Today', 'Finished today', 'Owed and due']
  return names.flatMap((name) => {
    const own = rows.filter((r) => part(r) === name)
    return own.length > 0 ? [[name, own] as [string, TodayRow[]]] : []
  })
}

function DayTable({ today, more }: { today: Today; more: ReactNode }) {
  const { hair } = useUnits()
  const at = (ms: number) => ((ms - today.fromMs) / (today.untilMs - today.fromMs)) * CURVE.width
  const ticks = [
    { at: today.nowMs - 28 * DAY_MS, text: '4 weeks ago' },
    { at: today.nowMs - 14 * DAY_MS, text: '2 weeks ago' },
    { at: today.nowMs, text: 'today' },
    { at: today.nowMs + 14 * DAY_MS, text: 'in 2 weeks' },
  ]
  const parts = partsOf(today)
  return (
    <>
      <Table className={css.table} layout="fixed">
        <Table.Thead>
          <Table.Tr>
            <Table.Th scope="col">Client</Table.Th>
            <Table.Th scope="col">Service</Table.Th>
            <Table.Th scope="col">
              <span className="hidden">Hair length, due window</span>
              <svg viewBox={`0 0 ${CURVE.width} 18`} width={CURVE.width} aria-hidden>
                {ticks.map((t) => (
                  <text key={t.text} x={at(t.at)} y="13" data-now={t.text === 'today' || undefined}>
                    {t.text}
                  </text>
                ))}
              </svg>
            </Table.Th>
            <Table.Th scope="col">To do</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {parts.map(([name, rows]) => (
            <Fragment key={name}>
              {parts.length > 1 && (
                <Table.Tr className={css.part}>
                  <Table.Th colSpan={4} scope="rowgroup">
                    {name}
                  </Table.Th>
                </Table.Tr>
              )}
              {rows.map((row) => (
                <Row key={row.client.id} row={row} today={today} at={at} />
              ))}
            </Fragment>
          ))}
        </Table.Tbody>
      </Table>
      {more}
      <footer className={css.foot}>
        {today.alarms > 0 && (
          <Text span c="var(--coral)">
            <b>{today.alarms}</b> {today.alarms === 1 ? 'answer is' : 'answers are'} severe
          </Text>
        )}
        <span>
          <b>{today.answersOwed}</b> {today.answersOwed === 1 ? 'answer' : 'answers'} owed
        </span>
        <span>
          <b>{today.patchTestsToRead}</b> patch {today.patchTestsToRead === 1 ? 'test' : 'tests'} to
          read
        </span>
        <span>
          <b>{today.firstVisits}</b> first {today.firstVisits === 1 ? 'visit' : 'visits'}
        </span>
        <Text span size="sm" c="dimmed" className={css.key}>
          Curve: hair, {hair(Math.max(...SHOWN_MM), 0)} tall ({hair(Math.min(...SHOWN_MM), 0)} for
          fuzz and brows). Band: good days.
        </Text>
      </footer>
    </>
  )
}

function Row({ row, today, at }: { row: TodayRow; today: Today; at: (ms: number) => number }) {
  const navigate = useNavigate()
  const to = `/clients/${row.client.id}/ask`
  const alarmed = row.flags.some((f) => f.kind === 'alarm')
  return (
    <Table.Tr
      className={css.row}
      data-alarmed={alarmed || undefined}
      onClick={() => void navigate(to)}
    >
      <Table.Td>
        <Link to={to} className={css.name} onClick={(e) => e.stopPropagation()}>
          {row.client.name}
        </Link>
        <small>{row.client.occupation}</small>
      </Table.Td>
      <Table.Td>
        {SERVICES[row.service].name}
        <small>
          {slotWords(row, today.nowMs)}
          {row.lateMin !== null && (
            <Text span inherit c="var(--coral)">
              {' '}
              {lateWords(row.lateMin)}
            </Text>
          )}
        </small>
      </Table.Td>
      <Table.Td>
        <Curve row={row} today={today} at={at} />
      </Table.Td>
      <Table.Td>
        {row.flags.map((f) => (
          <div key={f.text} className={css.flag} data-kind={f.kind}>
            {f.kind === 'alarm' && <b>{row.phone ? <Ring row={row} /> : 'No telephone is kept'}</b>}
            {f.to ? (
              <Link
                to={`/clients/${row.client.id}/${f.to.station}?visit=${f.to.visitId}`}
                onClick={(e) => e.stopPropagation()}
              >
                {f.text}
              </Link>
            ) : (
              f.text
            )}
            {f.ring && f.kind !== 'alarm' && row.phone && (
              <>
                {' · '}
                <Ring row={row} />
              </>
            )}
          </div>
        ))}
        {row.window && row.flags.length === 0 && <Window row={row} nowMs={today.nowMs} />}
      </Table.Td>
    </Table.Tr>
  )
}

function slotWords({ slotAtMs, lastAtMs }: TodayRow, nowMs: number): string {
  if (slotAtMs !== null) return sameDay(slotAtMs, nowMs) ? timeWords(slotAtMs) : whenWords(slotAtMs)
  return sameDay(lastAtMs, nowMs) ? `done ${timeWords(lastAtMs!)}` : ''
}

/** When they are due, in words; how sure it is that hair is not seen before. */
function Window({ row, nowMs }: { row: TodayRow; nowMs: number }) {
  const { fromMs, toMs } = row.window!
  const late = toMs < nowMs
  return (
    <Text size="sm" c={late ? 'var(--coral)' : 'dimmed'}>
      {dueWords(fromMs, toMs, nowMs)}
      {!late && `, ${daysWords(fromMs, toMs)}`}
      {!late && row.seenByEnd !== null && (
        <>
          ; <Estimate of="next-days">seen by then {oddsWords(row.seenByEnd)}</Estimate>
        </>
      )}
    </Text>
  )
}

function Ring({ row: { phone, flags } }: { row: TodayRow }) {
  const alarmed = flags.some((f) => f.kind === 'alarm')
  return (
    <Anchor href={telephone(phone)} onClick={(e) => e.stopPropagation()}>
      {alarmed ? `Ring ${phone}` : phone}
    </Anchor>
  )
}

function Curve({ row, today, at }: { row: TodayRow; today: Today; at: (ms: number) => number }) {
  const top = SERVICES[row.service].hair.shownMm
  const base = CURVE.height - 5
  // The forecast ends where it leaves the scale.
  const y = (mm: number) => base - (Math.min(mm, top) / top) * (base - 4)
  const line = (points: readonly { atMs: number; mm: number }[]) =>
    points
      .map((p, i) => `${i === 0 ? 'M' : 'L'}${at(p.atMs).toFixed(1)} ${y(p.mm).toFixed(1)}`)
      .join('')
  const { hair } = useUnits()
  const { past, ahead } = row.curve
  const band = row.window && {
    x: Math.max(0, at(row.window.fromMs)),
    end: Math.min(CURVE.width, at(row.window.toMs)),
  }
  const words = row.window
    ? `Good days ${dateWords(row.window.fromMs)} to ${dateWords(row.window.toMs)}. Hair now about ${hair(ahead[0]?.mm ?? 0)}.`
    : 'No visit yet.'
  return (
    <svg
      viewBox={`0 0 ${CURVE.width} ${CURVE.height}`}
      width={CURVE.width}
      role="img"
      aria-label={words}
    >
      {band && band.end > band.x && (
        <rect x={band.x} y="2" width={band.end - band.x} height={base - 2} className={css.due} />
      )}
      <path d={`M0 ${base}H${CURVE.width}`} className={css.base} />
      {past.length > 0 && <path d={line(past)} className={css.hair} />}
      {ahead.length > 0 && (
        <path d={line(ahead.filter((p) => p.mm <= top))} className={css.ahead} />
      )}
      <path d={`M${at(today.nowMs)} 0V${CURVE.height}`} className={css.now} />
    </svg>
  )
}
