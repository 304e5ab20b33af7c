/** Days as rows, a lane for each worker, hours to the right. What is booked can be dragged, drawn longer, and moved by keys. */
import {
  DndContext,
  MouseSensor,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core'
import { UnstyledButton } from '@mantine/core'
import dayjs from 'dayjs'
import { useRef } from 'react'
import type { BookedRow, Week } from '../../contract/week.ts'
import { type IsoDate, dateAt, isClosed, offsetHere, timeWords } from '../../core/time/index.ts'
import {
  endMs,
  GRID_MIN,
  isSettled,
  lateWords,
  LEAST_MIN,
  MIN_MS,
  runningLate,
  standsInBook,
  STATUS_WORDS,
  statusOf,
} from '../../core/week/index.ts'
import { useFigures } from '../state/figures.ts'
import { type Axis, datesOf, hoursOf, momentIn, shareOf, shutIn, type View } from './axis.ts'
import { type BookActs, firstName, shortWork, workerName, workOf } from './useBook.ts'
import type { Proposed } from './Proposals.tsx'
import css from './Week.module.css'

interface LanesProps {
  readonly week: Week
  readonly axis: Axis
  readonly view: View
  readonly acts: BookActs
  readonly picked: string | undefined
  /** An hour that is being given to somebody. */
  readonly draft:
    { readonly workerId: string; readonly startMs: number; readonly minutes: number } | undefined
  /** Hours that are proposed: nothing is booked yet. */
  readonly proposed: readonly Proposed[]
  readonly onPick: (id: string | undefined) => void
  readonly onDay: (date: IsoDate) => void
  /** An empty place was tapped. */
  readonly onPlace: (workerId: string, startMs: number) => void
}

export function Lanes(props: LanesProps) {
  const { week, axis, view, acts } = props
  const figures = useFigures()
  const late = new Map(
    runningLate(
      acts.appointments.filter(
        (a) => dateAt(a.startMs, offsetHere) === dateAt(week.nowMs, offsetHere),
      ),
      week.nowMs,
    ).map((l) => [l.id, l.lateMin]),
  )
  const width = useRef(1)
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 5 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 180, tolerance: 8 } }),
  )
  const hours = axis.to - axis.from
  const onDragEnd = ({ active, over, delta }: DragEndEvent) => {
    const [kind, id] = String(active.id).split(':') as ['move' | 'long', string]
    const a = acts.appointments.find((x) => x.id === id)
    if (!a) return
    const minutes = Math.round((delta.x / width.current) * ((hours * 60) / GRID_MIN)) * GRID_MIN
    const who = (workerId: string) => workerName(week, workerId)
    if (kind === 'long') {
      const next = Math.max(LEAST_MIN, a.minutes + minutes)
      if (next !== a.minutes) acts.change(id, { minutes: next }, `${a.client}: ${next} min`)
      return
    }
    const [date, workerId] = over
      ? (String(over.id).split('|') as [IsoDate, string])
      : [undefined, a.workerId]
    const own = dateAt(a.startMs, offsetHere)
    const grid = GRID_MIN * MIN_MS
    const share = shareOf(axis, own, a.startMs) + delta.x / width.current
    const startMs =
      date && date !== own
        ? momentIn(axis, date, share)
        : Math.round((a.startMs + minutes * MIN_MS) / grid) * grid
    if (startMs === a.startMs && workerId === a.workerId) return
    acts.change(
      id,
      { startMs, ...(workerId !== a.workerId && { workerId }) },
      `${a.client}: ${dayjs(startMs).format('ddd')} ${timeWords(startMs)}, ${who(workerId)}`,
    )
  }
  return (
    <DndContext
      sensors={sensors}
      onDragEnd={onDragEnd}
      autoScroll={{ layoutShiftCompensation: false }}
    >
      <div className={css.lanes} data-view={view} role="group" aria-label="The book">
        <div className={css.hours} aria-hidden>
          <div
            ref={(e) => {
              if (e) width.current = e.getBoundingClientRect().width
            }}
            className={css.scale}
          >
            {hoursOf(axis).map((h) => (
              <span key={h} style={{ left: `${(100 * (h - axis.from)) / hours}%` }}>
                {h}
              </span>
            ))}
          </div>
        </div>
        {datesOf(week.from, week.days).map((date) => {
          const closed = isClosed(week.closed, date)
          const own = acts.appointments.filter((a) => dateAt(a.startMs, offsetHere) === date)
          if (closed && own.length === 0)
            return (
              <section key={date} className={css.day} data-closed>
                <DayName date={date} nowMs={week.nowMs} onDay={props.onDay} />
                <p className={css.closed}>closed</p>
              </section>
            )
          return (
            <section key={date} className={css.day} aria-label={dayjs(date).format('dddd D MMMM')}>
              <DayName date={date} nowMs={week.nowMs} onDay={props.onDay} />
              <div className={css.workers}>
                {week.workers.map((w) => (
                  <Lane
                    key={w.id}
                    {...props}
                    date={date}
                    worker={w}
                    hours={hours}
                    late={late}
                    own={own.filter(
                      (a) =>
                        a.workerId === w.id &&
                        (standsInBook(a) || statusOf(figures, a) !== 'cancelled'),
                    )}
                  />
                ))}
              </div>
            </section>
          )
        })}
      </div>
    </DndContext>
  )
}

const DayName = ({
  date,
  nowMs,
  onDay,
}: {
  date: IsoDate
  nowMs: number
  onDay: (date: IsoDate) => void
}) => (
  <h2 className={css.dayName} data-today={dateAt(nowMs, offsetHere) === date || undefined}>
    <UnstyledButton onClick={() => onDay(date)} className={css.dayLink ?? ''}>
      {dayjs(date).format('ddd')} <small>{dayjs(date).format('D MMM')}</small>
    </UnstyledButton>
  </h2>
)

function Lane({
  week,
  axis,
  view,
  date,
  worker,
  own,
  acts,
  picked,
  proposed,
  draft,
  hours,
  late,
  onPick,
  onDay,
  onPlace,
}: LanesProps & {
  date: IsoDate
  worker: Week['workers'][number]
  own: readonly BookedRow[]
  hours: number
  /** Minutes by which it will begin late. */
  late: ReadonlyMap<string, number>
}) {
  const { setNodeRef, isOver } = useDroppable({ id: `${date}|${worker.id}` })
  const now = week.nowMs
  const today = dateAt(now, offsetHere) === date
  const levels = Math.max(1, ...own.map((a) => (levelOf(own, a) ?? 0) + 1))
  const here =
    draft && draft.workerId === worker.id && dateAt(draft.startMs, offsetHere) === date
      ? draft
      : undefined
  return (
    <div className={css.row}>
      <span className={css.who}>{firstName(worker.name)}</span>
      <div
        ref={setNodeRef}
        className={css.lane}
        data-over={isOver || undefined}
        data-testid={`lane-${date}-${firstName(worker.name)}`}
        style={{ '--hours': hours, '--levels': levels } as React.CSSProperties}
        onClick={(e) => {
          if (view === 'four') return onDay(date)
          if (e.target !== e.currentTarget) return
          const box = e.currentTarget.getBoundingClientRect()
          onPlace(worker.id, momentIn(axis, date, (e.clientX - box.left) / box.width))
        }}
      >
        {shutIn(week, axis, date, worker).map((s) => (
          <span
            key={s.from}
            className={css.shut}
            data-away={s.why !== '' || undefined}
            style={{ left: `${100 * s.from}%`, width: `${100 * (s.to - s.from)}%` }}
          >
            {s.why}
          </span>
        ))}
        {today && shareOf(axis, date, now) < 1 && (
          <span
            className={css.now}
            style={{ left: `${100 * shareOf(axis, date, now)}%` }}
            aria-hidden
          />
        )}
        {proposed
          .filter((p) => p.workerId === worker.id && dateAt(p.startMs, offsetHere) === date)
          .map((p) => (
            <span
              key={p.clientId}
              className={css.proposed}
              style={placeOf(axis, date, p.startMs, p.minutes)}
              role="img"
              aria-label={`Proposed: ${p.name}, ${timeWords(p.startMs)}`}
            >
              {view !== 'four' && `${firstName(p.name)}, ${shortWork(p)}`}
            </span>
          ))}
        {here && (
          <span
            className={css.draft}
            style={placeOf(axis, date, here.startMs, here.minutes)}
            aria-hidden
          />
        )}
        {own.map((a, i) => (
          <Block
            key={a.id}
            {...{ week, axis, date, view, a, acts }}
            picked={a.id === picked}
            onPick={onPick}
            room={roomAfter(axis, date, a, own[i + 1])}
            level={levelOf(own, a)}
            lateMin={late.get(a.id)}
          />
        ))}
      </div>
    </div>
  )
}

const placeOf = (axis: Axis, date: IsoDate, startMs: number, minutes: number) => {
  const from = shareOf(axis, date, startMs)
  return {
    left: `${100 * from}%`,
    width: `${100 * (shareOf(axis, date, startMs + minutes * MIN_MS) - from)}%`,
  }
}
/** Of appointments of one lane at the same time each has a height of its own. */
function levelOf(own: readonly BookedRow[], a: BookedRow): number | undefined {
  const beside = own.filter(
    (b) => standsInBook(a) && standsInBook(b) && b.startMs < endMs(a) && endMs(b) > a.startMs,
  )
  return beside.length > 1 ? beside.indexOf(a) : undefined
}
/** How much room a name has before the next one begins, as a share of the lane. */
const roomAfter = (axis: Axis, date: IsoDate, a: BookedRow, next: BookedRow | undefined) =>
  (next ? shareOf(axis, date, next.startMs) : 1) - shareOf(axis, date, a.startMs)

function Block({
  week,
  axis,
  date,
  view,
  a,
  acts,
  picked,
  level,
  lateMin,
  room,
  onPick,
}: Pick<LanesProps, 'week' | 'axis' | 'view' | 'acts' | 'onPick'> & {
  date: IsoDate
  a: BookedRow
  picked: boolean
  /** Beside how many others it lies that began before; none where nobody is at the same time. */
  level: number | undefined
  lateMin: number | undefined
  room: number
}) {
  const figures = useFigures()
  const fixed = isSettled(a) || view === 'four'
  const move = useDraggable({ id: `move:${a.id}`, disabled: fixed })
  const long = useDraggable({ id: `long:${a.id}`, disabled: fixed })
  const status = statusOf(figures, a)
  const from = shareOf(axis, date, a.startMs)
  const share = shareOf(axis, date, endMs(a)) - from
  const pulled = long.transform
    ? `calc(${100 * share}% + ${long.transform.x}px)`
    : `${100 * share}%`
  const work = workOf(a)
  const label = `${a.client}, ${work}, ${dayjs(a.startMs).format('dddd')} ${timeWords(a.startMs)} to ${timeWords(endMs(a))}, ${workerName(week, a.workerId)}, ${STATUS_WORDS[status]}${level === undefined ? '' : ', overlaps another'}${lateMin === undefined ? '' : `, ${lateWords(lateMin)}`}`
  return (
    <div
      ref={move.setNodeRef}
      className={css.block}
      data-status={status}
      data-picked={picked || undefined}
      data-clash={level !== undefined || undefined}
      data-dragging={move.isDragging || undefined}
      data-level={level ?? undefined}
      style={
        {
          '--level': level,
          left: `${100 * from}%`,
          width: pulled,
          ...(move.transform && {
            transform: `translate(${move.transform.x}px, ${move.transform.y}px)`,
          }),
        } as React.CSSProperties
      }
    >
      {view === 'four' && <span className={css.bar} role="img" aria-label={label} />}
      {view !== 'four' && (
        <UnstyledButton
          className={css.bar ?? ''}
          {...move.listeners}
          aria-pressed={picked}
          aria-label={label}
          onClick={() => {
            acts.sendMoves()
            onPick(picked ? undefined : a.id)
          }}
        />
      )}
      {view !== 'four' && (
        <span
          className={css.name}
          style={{ maxWidth: `calc(${(100 * room) / Math.max(share, 1e-6)}% - 6px)` }}
          aria-hidden
        >
          {lateMin !== undefined && <b className={css.late}>+{lateMin} </b>}
          {view === 'day'
            ? `${a.client}, ${work.toLowerCase()}`
            : `${firstName(a.client)}, ${shortWork(a)}`}
        </span>
      )}
      {picked && !fixed && (
        <UnstyledButton
          className={css.grip ?? ''}
          {...long.listeners}
          ref={long.setNodeRef}
          tabIndex={-1}
          aria-label="Draw it longer or shorter"
        />
      )}
    </div>
  )
}
