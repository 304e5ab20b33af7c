/** The week: who comes when to whom, and whom the week wants. */
import { ActionIcon, Button, Group, Skeleton, Text, Title } from '@mantine/core'
import { IconArrowLeft, IconArrowRight } from '@tabler/icons-react'
import dayjs from 'dayjs'
import { useEffect, useRef, useState } from 'react'
import { useSearchParams } from 'react-router'
import type { BookedRow, WantRow, Week } from '../../contract/week.ts'
import type { Figures } from '../../core/house/index.ts'
import { oneJob, SERVICES } from '../../core/services/index.ts'
import { addDays, dateAt, daysBetween, offsetHere } from '../../core/time/index.ts'
import {
  GRID_MIN,
  LEAST_MIN,
  MIN_MS,
  momentAt,
  nearestThatWork,
  standsInBook,
  weekOf,
} from '../../core/week/index.ts'
import { useFigures } from '../state/figures.ts'
import { useClient, useHouse } from '../api/queries.ts'
import { useKeys } from '../keys/useKeys.ts'
import { useSettings } from '../state/shape.ts'
import { newId } from '../state/words.ts'
import { KeyButton } from '../ui/Act.tsx'
import { Problem } from '../ui/Panel.tsx'
import { Words } from '../ui/Words.tsx'
import { Adding, type Draft } from './Adding.tsx'
import { axisOf, DAYS, type View, VIEWS } from './axis.ts'
import { Chosen } from './Chosen.tsx'
import { DayList } from './DayList.tsx'
import { Freed } from './Freed.tsx'
import { Lanes } from './Lanes.tsx'
import { LoadAhead } from './LoadAhead.tsx'
import { OfferSlot, type Slot } from './OfferSlot.tsx'
import { Waiting } from './Waiting.tsx'
import { bookOf, type Change, daysOn, minutesOn, useBookActs, useWeek } from './useBook.ts'
import { Proposals, useProposals } from './Proposals.tsx'
import { Wants } from './Wants.tsx'
import css from './Week.module.css'

const ASIDES = [
  ['wants', 'Wanted'],
  ['waiting', 'Waiting'],
  ['load', 'Load'],
] as const
type Aside = (typeof ASIDES)[number][0]

const VIEW_WORDS = [
  ['day', 'Day'],
  ['week', 'Week'],
  ['four', 'Four weeks'],
] as const

/** The days that are looked at, as the address has them. */
function useSpan() {
  const [search, setSearch] = useSearchParams()
  const { firstDay } = useSettings()
  const today = dateAt(Date.now(), offsetHere)
  const asked = search.get('view')
  const view: View = VIEWS.find((v) => v === asked) ?? 'week'
  const on = /^\d{4}-\d\d-\d\d$/.test(search.get('from') ?? '') ? search.get('from')! : today
  const from = view === 'day' ? on : weekOf(on, firstDay)
  const go = (to: { from?: string; view?: View }) =>
    setSearch({ view: to.view ?? view, from: to.from ?? on }, { replace: true })
  const step = (by: 1 | -1) => go({ from: addDays(from, by * DAYS[view]) })
  return {
    ...{ view, from, days: DAYS[view], today, go, step, search },
    on: search.get('from') ?? undefined,
  }
}

/** Somebody who is to be given an hour, as the address has it: "?book=" and the client. */
function useAskedFor(span: ReturnType<typeof useSpan>, give: (draft: Draft) => void) {
  const told = useRef(give)
  told.current = give
  const at = useRef(span)
  at.current = span
  const asked = span.search.get('book') ?? ''
  const { data } = useClient(asked === 'new' ? '' : asked)
  const house = useHouse().data
  useEffect(() => {
    if (!asked || !house || (asked !== 'new' && !data)) return
    const { from, on, go } = at.current
    const day = momentAt(from, 0, offsetHere)
    const atMs = Number(at.current.search.get('at'))
    const startMs = onHalf(
      Math.max(
        Date.now(),
        atMs || Math.max(on === undefined ? 0 : day, data?.tide.window?.fromMs ?? 0),
      ),
    )
    const draft = { id: newId(), workerId: house.workerId, startMs }
    const due = data?.due[0]
    told.current(
      data
        ? {
            ...draft,
            seeks: true,
            client: data.client,
            service: due?.service ?? data.client.service,
          }
        : draft,
    )
    go({ from: dateAt(startMs, offsetHere) })
  }, [asked, data, house])
}

export function WeekPage() {
  const span = useSpan()
  const { view, from, days } = span
  const query = useWeek(from, days)
  const week = query.data
  const acts = useBookActs(week, { from, days })
  const house = useHouse()
  const figures = useFigures()
  const proposals = useProposals(from, days)
  const [picked, setPicked] = useState<string>()
  const [draft, setDraft] = useState<Draft>()
  useAskedFor(span, setDraft)
  // Whoever is to be given an hour gets the first that works, once the days are there.
  useEffect(() => {
    if (draft?.seeks && draft.client && week?.from === from && !query.isPlaceholderData) {
      const { client, service = 'face-shave', startMs, workerId } = draft
      const minutes = figures(SERVICES[service].slotMin)
      const jobs = [oneJob(draft.id, service)]
      const wanted = { clientId: client.id, workerId, minutes, jobs, fromMs: startMs }
      const first = firstHour(figures, week, wanted)
      setDraft({ ...draft, ...first, seeks: undefined })
    }
  }, [draft, week, from, figures, query.isPlaceholderData])
  const [slot, setSlot] = useState<Slot>()
  const [aside, setAside] = useState<Aside>('wants')
  const chosen = acts.appointments.find((a) => a.id === picked)
  const idle = !slot && !chosen && !draft
  const proposing = proposals.told !== undefined || proposals.asking || proposals.error !== null
  const resting = idle && !proposing
  const offer = ({ workerId, startMs }: { workerId: string; startMs: number }) =>
    setSlot({ workerId, atMs: Math.max(startMs, Date.now()) })
  const pick = (id: string | undefined) => {
    setSlot(undefined)
    setDraft(undefined)
    setPicked(id)
  }
  const place = (workerId: string, startMs: number) => {
    acts.clearAddError()
    setSlot(undefined)
    setPicked(undefined)
    setDraft((d) => ({ ...(d ?? { id: newId() }), workerId, startMs }))
  }
  const addNext = () => {
    const workerId = house.data?.workerId ?? week?.workers[0]?.id
    if (!workerId) return
    const now = Date.now()
    const inView = daysBetween(from, span.today) >= 0 && daysBetween(from, span.today) < days
    const startMs = inView
      ? dayjs(now).add(1, 'hour').startOf('hour').valueOf()
      : momentAt(from, 10, offsetHere)
    // At night it begins with the hours that are worked next.
    const wanted = { id: '', clientId: '', workerId, startMs, minutes: 30, jobs: [] }
    place(
      workerId,
      (week && nearestThatWork(figures, bookOf(week), wanted, 1)[0]?.startMs) ?? startMs,
    )
  }
  const close = () => {
    setSlot(undefined)
    setDraft(undefined)
    setPicked(undefined)
  }
  const order = acts.appointments.filter(standsInBook)
  const along = (by: 1 | -1) => {
    const at = order.findIndex((a) => a.id === picked)
    const next = at < 0 ? (by > 0 ? 0 : order.length - 1) : at + by
    if (order[next]) pick(order[next].id)
  }
  const nudge = (by: (a: BookedRow) => Change) => chosen && (() => acts.nudge(chosen.id, by))
  const others = week?.workers ?? []
  const move = (minutes: number) =>
    draft
      ? () => setDraft({ ...draft, startMs: minutesOn(draft.startMs, minutes) })
      : nudge((a) => ({ startMs: minutesOn(a.startMs, minutes) }))
  const moveDays = (by: number) =>
    draft
      ? () => setDraft({ ...draft, startMs: daysOn(draft.startMs, by) })
      : nudge((a) => ({ startMs: daysOn(a.startMs, by) }))
  useKeys({
    'week-before': () => span.step(-1),
    'week-after': () => span.step(1),
    'week-today': () => span.go({ from: span.today }),
    'week-day': () => span.go({ view: 'day' }),
    'week-week': () => span.go({ view: 'week' }),
    'week-four': () => span.go({ view: 'four' }),
    'week-undo': acts.undoLast,
    'week-next': () => along(1),
    'week-previous': () => along(-1),
    'week-earlier': move(-GRID_MIN),
    'week-later': move(GRID_MIN),
    'week-day-back': moveDays(-1),
    'week-day-on': moveDays(1),
    'week-shorter': nudge((a) => ({ minutes: Math.max(LEAST_MIN, a.minutes - GRID_MIN) })),
    'week-longer': nudge((a) => ({ minutes: a.minutes + GRID_MIN })),
    'week-other': nudge((a) => {
      const at = others.findIndex((w) => w.id === a.workerId)
      return { workerId: others[(at + 1) % others.length]!.id }
    }),
  })
  const last = addDays(from, days - 1)
  const title =
    view === 'day'
      ? dayjs(from).format('dddd D MMMM')
      : `${dayjs(from).format(dayjs(from).isSame(last, 'month') ? 'D' : 'D MMMM')} to ${dayjs(last).format('D MMMM')}`
  return (
    <main className={css.page} data-testid="week">
      <div className={css.main}>
        <Group gap="sm" wrap="nowrap" className={css.noPrint ?? ''}>
          <Title order={1} fz={30}>
            {title}
          </Title>
          <ActionIcon size={40} aria-label="The days before" onClick={() => span.step(-1)}>
            <IconArrowLeft size={20} />
          </ActionIcon>
          <ActionIcon size={40} aria-label="The days after" onClick={() => span.step(1)}>
            <IconArrowRight size={20} />
          </ActionIcon>
        </Group>
        <Group justify="space-between" gap="sm" mb={6} className={css.noPrint ?? ''}>
          <Words
            label="Days shown"
            data={VIEW_WORDS}
            value={view}
            onChange={(v) => span.go({ view: v })}
          />
          <Group gap="sm">
            {view === 'day' && (
              <Button variant="line" onClick={() => window.print()}>
                Print the day
              </Button>
            )}
            <KeyButton k="week-add" variant="line" onAct={addNext}>
              New appointment
            </KeyButton>
            {last >= span.today && (
              <KeyButton
                k="week-propose"
                variant="strong"
                disabled={proposals.asking}
                onAct={() => {
                  close()
                  proposals.ask()
                }}
              >
                {view === 'day'
                  ? 'Propose the day'
                  : view === 'week'
                    ? 'Propose the week'
                    : 'Propose four weeks'}
              </KeyButton>
            )}
          </Group>
        </Group>
        {query.isError && <Problem>{query.error.message}</Problem>}
        {query.isPending && <Skeleton h={420} role="status" aria-label="Opening the book" />}
        {week && (
          <>
            <Lanes
              week={{ ...week, appointments: acts.appointments }}
              axis={axisOf(week)}
              view={view}
              acts={acts}
              picked={picked}
              proposed={proposals.told?.proposals ?? []}
              draft={draft && { ...draft, minutes: draft.minutes ?? 45 }}
              onPick={pick}
              onDay={(date) => span.go({ view: 'day', from: date })}
              onPlace={place}
            />
            <DayList week={{ ...week, appointments: acts.appointments }} />
            {week.appointments.length === 0 && (
              <Text c="dimmed">
                Nobody is booked. Tap a lane at an hour, or a name at the side.
              </Text>
            )}
          </>
        )}
      </div>
      <aside className={css.side} aria-label="Beside the book">
        {week && slot && (
          <OfferSlot key={`${slot.workerId}${slot.atMs}`} week={week} slot={slot} onClose={close} />
        )}
        {week && !slot && chosen && (
          <Chosen
            week={{ ...week, appointments: acts.appointments }}
            a={chosen}
            acts={acts}
            onClose={close}
            onOffer={() => offer(chosen)}
          />
        )}
        {week && !slot && !chosen && draft && (
          <Adding
            week={week}
            draft={draft}
            acts={acts}
            onChange={(c) => {
              acts.clearAddError()
              setDraft({ ...draft, ...c })
            }}
            onClose={close}
            onDone={pick}
            onOffer={() => offer(draft)}
          />
        )}
        {week && idle && proposing && <Proposals week={week} of={proposals} acts={acts} />}
        {week && resting && (
          <Words label="Beside the book" data={ASIDES} value={aside} onChange={setAside} />
        )}
        {week && resting && aside !== 'load' && (
          <Freed week={{ ...week, appointments: acts.appointments }} onOffer={offer} />
        )}
        {week && resting && aside === 'waiting' && <Waiting week={week} />}
        {week && resting && aside === 'load' && <LoadAhead week={week} />}
        {week && resting && aside === 'wants' && (
          <Wants
            week={week}
            onWant={(w) => {
              setDraft({
                ...{ id: newId(), minutes: w.minutes, ...firstHour(figures, week, w) },
                client: { id: w.clientId, name: w.name },
                service: w.jobs[0]!.service,
              })
            }}
          />
        )}
      </aside>
    </main>
  )
}

/** The first hour that works within a client's good days, with whoever served them last. */
function firstHour(
  figures: Figures,
  week: Week,
  w: Pick<WantRow, 'clientId' | 'workerId' | 'minutes' | 'jobs' | 'fromMs'>,
): { readonly workerId: string; readonly startMs: number } {
  const { clientId, workerId, minutes, jobs } = w
  const startMs = onHalf(Math.max(w.fromMs, Date.now()))
  const wanted = { id: '', clientId, workerId, minutes, jobs, startMs }
  return nearestThatWork(figures, bookOf(week), wanted, 1)[0] ?? { workerId, startMs }
}

const onHalf = (ms: number) => Math.ceil(ms / (30 * MIN_MS)) * 30 * MIN_MS
