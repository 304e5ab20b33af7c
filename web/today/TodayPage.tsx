/** The tide table: one row per client, in the order in which they come due. */
import { useHotkeys } from '@mantine/hooks'
import { lazy, Suspense, useEffect, useState, type ReactNode } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Today, TodayRow } from '../../contract/types.ts'
import { SERVICE_IDS, SERVICES } from '../../core/services/index.ts'
import {
  DAY_MS,
  dateWords,
  daysWords,
  longDate,
  timeWords,
  whenWords,
} from '../../core/time/index.ts'
import { oddsWords } from '../../core/stats/index.ts'
import { useToday } from '../api/queries.ts'
import { More } from '../frame/More.tsx'
import { fetchAhead } from '../offline/ahead.ts'
import { noDialog } from '../state/dialog.ts'
import { telephone } from '../state/words.ts'

/** Fetched once the page stands, so that the first key of a name finds its field. */
const NewClient = lazy(() =>
  import('../clients/NewClient.tsx').then((m) => ({ default: m.NewClient })),
)

const SHOWN_MM = SERVICE_IDS.map((id) => SERVICES[id].hair.shownMm)
const CURVE = { width: 430, height: 50 }
/** Height of the curves, mm: one scale for terminal hair, one for fuzz. */

export function TodayPage() {
  const today = useToday()
  const [first] = today.data?.pages ?? []
  const rows = today.data?.pages.flatMap((p) => p.rows) ?? []
  const [adding, setAdding] = useState(false)
  useHotkeys([['N', () => noDialog() && setAdding(true)]])
  useEffect(() => {
    if (first) void fetchAhead(first)
  }, [first])
  return (
    <main className="page today">
      <div className="page-head">
        <h1>{longDate(first?.nowMs ?? Date.now())}</h1>
        <p>in the order the tide brings them in</p>
        <button className="strong" onClick={() => setAdding(true)}>
          New client <kbd>N</kbd>
        </button>
      </div>
      {today.isPending && <p role="status">Reading the tide table …</p>}
      {today.isError && (
        <p role="alert">
          {today.error.message}{' '}
          <button className="link" onClick={() => void today.refetch()}>
            Try again
          </button>
        </p>
      )}
      {first?.safety && (
        <p role="alert" className="problem">
          {first.safety} <Link to="/house?part=safety">To the backups</Link>
        </p>
      )}
      {first &&
        (rows.length === 0 ? (
          <div className="empty">
            <p>Nobody here yet. The first client takes half a minute.</p>
            <button className="strong" onClick={() => setAdding(true)}>
              Add the first client
            </button>
          </div>
        ) : (
          <Table
            today={{ ...first, rows }}
            more={<More of={today} shown={rows.length} total={first.total} />}
          />
        ))}
      <Suspense>
        <NewClient opened={adding} onClose={() => setAdding(false)} />
      </Suspense>
    </main>
  )
}

function Table({ today, more }: { today: Today; more: ReactNode }) {
  const at = (ms: number) => ((ms - today.fromMs) / (today.untilMs - today.fromMs)) * CURVE.width
  const ticks = [
    { at: today.nowMs - 28 * DAY_MS, text: '4 weeks ago' },
    { at: today.nowMs - 14 * DAY_MS, text: '2 weeks ago' },
    { at: today.nowMs, text: 'today' },
    { at: today.nowMs + 14 * DAY_MS, text: 'in 2 weeks' },
  ]
  return (
    <>
      <table className="tide-table">
        <thead>
          <tr>
            <th scope="col">Client</th>
            <th scope="col">Service</th>
            <th scope="col" className="ticks">
              <span className="hidden">Hair length, due window</span>
              <svg viewBox={`0 0 ${CURVE.width} 18`} width={CURVE.width} aria-hidden>
                {ticks.map((t) => (
                  <text
                    key={t.text}
                    x={at(t.at)}
                    y="13"
                    className={t.text === 'today' ? 'now' : ''}
                  >
                    {t.text}
                  </text>
                ))}
              </svg>
            </th>
            <th scope="col">To do</th>
          </tr>
        </thead>
        <tbody>
          {today.rows.map((row) => (
            <Row key={row.client.id} row={row} today={today} at={at} />
          ))}
        </tbody>
      </table>
      {more}
      <footer className="today-foot">
        {today.alarms > 0 && (
          <span className="alarm-count">
            <b>{today.alarms}</b> {today.alarms === 1 ? 'answer is' : 'answers are'} severe
          </span>
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
        <span className="key">
          Curve: hair length, {Math.max(...SHOWN_MM)} mm tall, {Math.min(...SHOWN_MM)} mm for fuzz
          and brows. Band: good days to come.
        </span>
      </footer>
    </>
  )
}

function Row({ row, today, at }: { row: TodayRow; today: Today; at: (ms: number) => number }) {
  const navigate = useNavigate()
  const to = `/clients/${row.client.id}/ask`
  const soon = row.slotAtMs !== null && Math.abs(row.slotAtMs - today.nowMs) < DAY_MS
  return (
    <tr
      className={row.flags.some((f) => f.kind === 'alarm') ? 'alarmed' : soon ? 'soon' : ''}
      onClick={() => void navigate(to)}
    >
      <td>
        <Link to={to} className="name" onClick={(e) => e.stopPropagation()}>
          {row.client.name}
        </Link>
        <small>{row.client.occupation}</small>
      </td>
      <td>
        {SERVICES[row.service].name}
        {row.slotAtMs !== null && (
          <small>
            {dateWords(row.slotAtMs) === dateWords(today.nowMs)
              ? timeWords(row.slotAtMs)
              : whenWords(row.slotAtMs)}
          </small>
        )}
      </td>
      <td>
        <Curve row={row} today={today} at={at} />
      </td>
      <td>
        {row.flags.map((f) => (
          <div key={f.text} className={`flag flag-${f.kind}`}>
            {f.kind === 'alarm' && (
              <b className="alarm-ring">
                {row.phone ? <Ring row={row} /> : 'No telephone is kept'}
              </b>
            )}
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
        {row.window && row.flags.length === 0 && (
          <small>
            {daysWords(row.window.fromMs, row.window.toMs)}
            {row.seenByEnd !== null &&
              `, seen by then ${oddsWords(row.seenByEnd).replaceAll(' ', '\u00a0')}\u00a0(H)`}
          </small>
        )}
      </td>
    </tr>
  )
}

function Ring({ row: { phone, flags } }: { row: TodayRow }) {
  const alarmed = flags.some((f) => f.kind === 'alarm')
  return (
    <a href={telephone(phone)} onClick={(e) => e.stopPropagation()}>
      {alarmed ? `Ring ${phone}` : phone}
    </a>
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
  const { past, ahead } = row.curve
  const band = row.window && {
    x: Math.max(0, at(row.window.fromMs)),
    end: Math.min(CURVE.width, at(row.window.toMs)),
  }
  const words = row.window
    ? `Good days ${dateWords(row.window.fromMs)} to ${dateWords(row.window.toMs)}. Hair now about ${(ahead[0]?.mm ?? 0).toFixed(1)} mm.`
    : 'No visit yet.'
  return (
    <svg
      viewBox={`0 0 ${CURVE.width} ${CURVE.height}`}
      width={CURVE.width}
      role="img"
      aria-label={words}
    >
      {band && band.end > band.x && (
        <rect x={band.x} y="2" width={band.end - band.x} height={base - 2} className="due-band" />
      )}
      <path d={`M0 ${base}H${CURVE.width}`} className="base-line" />
      {past.length > 0 && <path d={line(past)} className="hair-line" />}
      {ahead.length > 0 && (
        <path d={line(ahead.filter((p) => p.mm <= top))} className="hair-line ahead" />
      )}
      <path d={`M${at(today.nowMs)} 0V${CURVE.height}`} className="now-line" />
    </svg>
  )
}
