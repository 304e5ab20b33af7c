/** When to meet again: the window with its odds, zone by zone; events; the visits through a date. */
import dayjs from 'dayjs'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import type { ClientEvent, VisitPage } from '../../../contract/types.ts'
import { EVENT_KINDS, EVENT_NEEDS, type EventKind } from '../../../core/care/backPlan.ts'
import { eventQuestion } from '../../../core/care/eventQuestion.ts'
import { MARK_WORDS } from '../../../core/house/constants.ts'
import type { ZoneId } from '../../../core/head/zones.ts'
import { clearOdds, seenOdds, zoneWindows, type OddsInput } from '../../../core/regrowth/odds.ts'
import { visitSeries, type SeriesVisit } from '../../../core/regrowth/series.ts'
import { DAY_MS } from '../../../core/time/dates.ts'
import { address } from '../../api/call.ts'
import { useAddVisit, useChangeClient, useChangeVisit, useVisit } from '../../api/queries.ts'
import { useView } from '../../state/view.ts'
import {
  dateWords,
  longDate,
  newId,
  offsetHere,
  percentWords,
  whenWords,
} from '../../state/words.ts'
import { useSchools, useScreening, type StationProps } from '../useStation.ts'
import { useZoneTints } from './useZoneTints.ts'

/** Zones told one by one: those that decide. */
const ZONES_TOLD = 6

/** The last service of the kind the client comes for: from it the next visit is counted, whichever one is looked at. */
function useLastFinished({ page, visit }: StationProps): VisitPage | undefined {
  const last = page.visits.find((v) => v.state === 'finished' && v.service === page.client.service)
  const own = visit.id === last?.id
  const other = useVisit(own ? null : last?.id)
  return own ? visit : other.data
}

export function NextVisit(props: StationProps) {
  const { page } = props
  const last = useLastFinished(props)
  const window = last?.window ?? page.tide.window
  const odds = useMemo((): OddsInput | undefined => {
    if (!last?.leftMm || last.endedAtMs === null) return undefined
    return {
      endedAtMs: last.endedAtMs,
      zones: Object.entries(last.leftMm).map(([zoneId, leftMm]) => ({
        zoneId: zoneId as ZoneId,
        leftMm,
        load: last.loads?.[zoneId] ?? 0,
      })),
      sensitivity: page.model.sensitivity,
      growth: page.model.growth,
      fading: page.model.fading,
      answers: last.answers,
    }
  }, [last, page.model])
  if (!window) {
    return (
      <>
        <h1>Next visit</h1>
        <p className="soft">The window of the next visit comes with the first service.</p>
      </>
    )
  }
  return (
    <>
      <h1>
        {dateWords(window.fromMs)} to {dateWords(window.toMs)}
      </h1>
      <div className="tab-body" tabIndex={0} role="region" aria-label="Next visit">
        {odds && (
          <p>
            Hair is seen by {dateWords(window.toMs)}:{' '}
            <b>{percentWords(seenOdds(odds, window.toMs))}</b>. Skin clear by{' '}
            {dateWords(window.fromMs)}: <b>{percentWords(clearOdds(odds, window.fromMs))}</b>, by{' '}
            {dateWords(window.toMs)}: <b>{percentWords(clearOdds(odds, window.toMs))}</b> (H).
          </p>
        )}
        <ul className="whys">
          {window.reasons.map((r) => (
            <li key={r.text}>
              {r.text} <abbr title={MARK_WORDS[r.mark]}>({r.mark})</abbr>
            </li>
          ))}
          <li>
            Earlier than {longDate(window.fromMs)} is too early for the skin; after{' '}
            {longDate(window.toMs)} hair shows.
          </li>
        </ul>
        {odds && <ZoneWindows odds={odds} fromMs={window.fromMs} />}
        <Events {...props} />
        {last && <Series {...props} last={last} />}
      </div>
    </>
  )
}

function ZoneWindows({ odds, fromMs }: { odds: OddsInput; fromMs: number }) {
  const choose = useView((s) => s.choose)
  const chosen = useView((s) => s.chosen)
  const [all, setAll] = useState(false)
  const windows = useMemo(() => zoneWindows(odds), [odds])
  useZoneTints(
    useMemo(
      () =>
        odds.zones.map((z) => ({
          zoneId: z.zoneId,
          share: seenOdds({ ...odds, zones: [z] }, fromMs),
        })),
      [odds, fromMs],
    ),
    '#2B7A82',
  )
  const shown = windows.filter((w, i) => all || i < ZONES_TOLD || w.zoneId === chosen)
  return (
    <section>
      <h2>Zone by zone</h2>
      <table className="list tight pick">
        <thead>
          <tr>
            <th scope="col">Zone</th>
            <th scope="col">clear enough from</th>
            <th scope="col">seen by</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((w) => (
            <tr key={w.zoneId} className={w.zoneId === chosen ? 'chosen' : ''}>
              <td>
                <button className="link" onClick={() => choose(w.zoneId)}>
                  {w.name}
                </button>
              </td>
              <td>{w.fromMs <= Date.now() ? 'now' : dateWords(w.fromMs)}</td>
              <td>{w.toMs === undefined ? 'not within 90 days' : dateWords(w.toMs)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {windows.length > shown.length && (
        <button className="link" onClick={() => setAll(true)}>
          All {windows.length} zones
        </button>
      )}
      <p className="soft">
        The head shows how likely hair is seen on {dateWords(fromMs)}: the fuller the colour, the
        likelier.
      </p>
    </section>
  )
}

function Events({ page }: StationProps) {
  const change = useChangeClient(page.client.id)
  const [adding, setAdding] = useState(false)
  const { events } = page.client
  const keep = (next: ClientEvent[]) => change.mutate({ events: next })
  const ahead = events.filter((e) => e.atMs > Date.now() - DAY_MS).sort((a, b) => a.atMs - b.atMs)
  return (
    <section>
      <h2>Events</h2>
      <ul className="plain-list">
        {ahead.map((e) => (
          <li key={e.id}>
            <span>
              {whenWords(e.atMs)}: {e.title}{' '}
              <small className="inline">{EVENT_NEEDS[e.kind].name.toLowerCase()}</small>
            </span>
            <button className="link" onClick={() => keep(events.filter((x) => x.id !== e.id))}>
              Take away
            </button>
          </li>
        ))}
      </ul>
      {ahead.length === 0 && !adding && (
        <p className="soft">None ahead: a mask to seal, a concert, a portrait.</p>
      )}
      {adding ? (
        <EventForm
          onKeep={(e) => {
            keep([...events, e])
            setAdding(false)
          }}
          onLeave={() => setAdding(false)}
        />
      ) : (
        <button className="strong small" onClick={() => setAdding(true)}>
          Add an event
        </button>
      )}
      {change.isError && (
        <p role="alert" className="problem">
          {change.error.message}
        </p>
      )}
    </section>
  )
}

function EventForm({ onKeep, onLeave }: { onKeep: (e: ClientEvent) => void; onLeave: () => void }) {
  const [kind, setKind] = useState<EventKind>('mask-seal')
  const [title, setTitle] = useState('')
  const [at, setAt] = useState(dayjs().add(14, 'day').format('YYYY-MM-DDT10:00'))
  const when = dayjs(at)
  return (
    <form
      className="event-form"
      onSubmit={(e) => {
        e.preventDefault()
        if (!when.isValid()) return
        onKeep({
          id: newId(),
          kind,
          title: title.trim() || EVENT_NEEDS[kind].name.toLowerCase(),
          atMs: when.valueOf(),
        })
      }}
    >
      <select
        className="text-input"
        aria-label="What kind of event"
        value={kind}
        onChange={(e) => setKind(e.currentTarget.value as EventKind)}
      >
        {EVENT_KINDS.map((k) => (
          <option key={k} value={k}>
            {EVENT_NEEDS[k].name}
          </option>
        ))}
      </select>
      <input
        className="text-input"
        aria-label="What it is"
        placeholder="What it is"
        maxLength={60}
        value={title}
        autoFocus
        onChange={(e) => setTitle(e.currentTarget.value)}
      />
      <input
        type="datetime-local"
        className="text-input"
        aria-label="When"
        value={at}
        onChange={(e) => setAt(e.currentTarget.value)}
      />
      <button className="strong small" type="submit">
        Keep
      </button>
      <button className="link" type="button" onClick={onLeave}>
        Leave it
      </button>
    </form>
  )
}

const KIND_WORDS: Record<SeriesVisit['kind'], string> = {
  whole: 'whole service',
  lip: 'upper lip alone',
  line: 'the line alone',
}

function useSeries(props: StationProps, last: VisitPage, throughMs: number): SeriesVisit[] {
  const { page, house, visit } = props
  const schools = useSchools(page, house)
  const screening = useScreening(props)
  return useMemo(() => {
    const { client, model } = page
    const window = last.window ?? page.tide.window
    if (!window || last.endedAtMs === null) return []
    const nowMs = Date.now()
    return visitSeries({
      service: client.service,
      lastAtMs: last.endedAtMs,
      window,
      nowMs,
      throughMs,
      growth: model.growth,
      leftMm: last.leftMm ?? {},
      events: client.events,
      question: (event, notBeforeMs) => ({
        ...eventQuestion(
          {
            service: client.service,
            skin: client.skin,
            model,
            schools,
            noFragrance: screening.noFragrance,
            products: house.products.filter((p) => visit.products.includes(p.id)),
            plan: last.service === client.service ? (last.plan ?? undefined) : undefined,
            nowMs,
            offset: offsetHere,
          },
          event.kind,
          event.atMs,
        ),
        notBeforeMs,
        notBeforeWhy: 'The skin is not ready before.',
      }),
    })
  }, [page, house, visit.products, schools, screening, last, throughMs])
}

function Series(props: StationProps & { last: VisitPage }) {
  const { page, last } = props
  const [through, setThrough] = useState(dayjs().add(8, 'week').format('YYYY-MM-DD'))
  const throughMs = dayjs(through).endOf('day').valueOf()
  const series = useSeries(props, last, Number.isFinite(throughMs) ? throughMs : Date.now())
  return (
    <section>
      <div className="row-between">
        <h2>Visits through</h2>
        <input
          type="date"
          className="text-input"
          aria-label="Through"
          value={through}
          min={dayjs().format('YYYY-MM-DD')}
          onChange={(e) => e.currentTarget.value && setThrough(e.currentTarget.value)}
        />
        <a
          className="strong small"
          href={address('seriesCalendar', { id: page.client.id }, { through })}
          download
        >
          Into a calendar
        </a>
      </div>
      {series.length === 0 && <p className="soft">That day lies before the next window.</p>}
      <ol className="series">
        {series.map((v, i) => (
          <li key={v.atMs} className={`series-${v.kind}`}>
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
        { id: newId(), service: page.client.service, workerId: house.workerId, slotAtMs },
        { onSuccess: () => void navigate(`/clients/${page.client.id}/return`) },
      )
    }
  }
  const error = add.error ?? move.error
  return (
    <>
      <button
        className="strong small"
        disabled={add.isPending || move.isPending || set || open?.state === 'running'}
        onClick={put}
      >
        {set ? 'On Today for then' : `Put on Today, ${whenWords(slotAtMs)}`}
      </button>
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
