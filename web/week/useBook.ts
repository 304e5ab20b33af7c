/** The book on this screen: what is shown of it, and every act on it. A change shows at once; what the house refuses goes back, with its reason. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import type { ToldBody } from '../../contract/routes.ts'
import type { BookedRow, Week } from '../../contract/week.ts'
import { SERVICES, leadJob } from '../../core/services/index.ts'
import { addDays, dateAt, offsetHere, whenWords } from '../../core/time/index.ts'
import { type Book, hourAt, isSettled, MIN_MS, momentAt } from '../../core/week/index.ts'
import { call } from '../api/call.ts'
import { write } from '../outbox/browser.ts'
import { tellDone, tellFailed } from '../ui/notices.ts'

const weekKey = (from: string, days: number) => ['week', from, days]

export const useWeek = (from: string, days: number) =>
  useQuery({
    queryKey: weekKey(from, days),
    queryFn: () => call('week', { query: { from, days } }),
    refetchInterval: 30_000,
    placeholderData: (before) => before,
  })

/** A week as the core looks hours up in it. */
export const bookOf = (week: Week): Book => ({
  ...{ nowMs: Date.now(), offset: offsetHere, closed: week.closed, studio: week.studio },
  ...{ workers: week.workers, away: week.away, appointments: week.appointments },
})

export type Change = Omit<ToldBody<'changeAppointment'>, 'mark'>

/** An appointment to be made, with the client's name. */
export type NewBody = ToldBody<'addAppointment'> & { readonly client: string }

/** Keys that follow each other are one move. */
const KEYS_MS = 600

export const firstName = (name: string) => name.split(' ')[0]!
export const workerName = (week: Pick<Week, 'workers'>, id: string) =>
  firstName(week.workers.find((w) => w.id === id)?.name ?? '')

export const workOf = (a: Pick<BookedRow, 'jobs'>) =>
  SERVICES[leadJob(a.jobs).service].name +
  (a.jobs.length > 1 ? ` and ${a.jobs.length - 1} more` : '')

/** The same in a word. */
export const shortWork = (a: Pick<BookedRow, 'jobs'>) =>
  [...new Set(a.jobs.map((j) => SERVICES[j.service].short))].join(' + ')

export type BookActs = ReturnType<typeof useBookActs>

export function useBookActs(week: Week | undefined, key: { from: string; days: number }) {
  const cache = useQueryClient()
  const queryKey = weekKey(key.from, key.days)
  /** What is moved by keys and not sent yet. */
  const [moving, setMoving] = useState<{ readonly id: string; readonly change: Change }>()
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const shown = (id: string) =>
    cache.getQueryData<Week>(queryKey)?.appointments.find((a) => a.id === id)

  const put = (id: string, change: Partial<BookedRow>) =>
    cache.setQueryData<Week>(
      queryKey,
      (now) =>
        now && {
          ...now,
          appointments: now.appointments.map((a) => (a.id === id ? { ...a, ...change } : a)),
        },
    )
  const settle = () => {
    void cache.invalidateQueries({ queryKey: ['week'] })
    void cache.invalidateQueries({ queryKey: ['today'] })
    void cache.invalidateQueries({ queryKey: ['client'] })
    void cache.invalidateQueries({ queryKey: ['visit'] })
  }
  const about = (a: Pick<BookedRow, 'clientId' | 'client'>) => ({
    clientId: a.clientId,
    what: `the appointment of ${a.client}`,
  })
  const changing = useMutation({
    mutationFn: ({ a, change }: { a: BookedRow; change: Change }) =>
      write(
        'changeAppointment',
        { params: { id: a.id }, body: { mark: a.mark, ...change } },
        about(a),
      ),
    onSettled: settle,
  })
  /** Changes an appointment; what it was is brought back by Undo. */
  const change = (id: string, change: Change, words?: string) => {
    const a = shown(id)
    if (!a) return
    const before: Change = Object.fromEntries(
      Object.keys(change).map((k) => [k, a[k as keyof Change & keyof BookedRow]]),
    )
    put(id, { ...(change as Partial<BookedRow>), mark: a.mark + 1 })
    // Each by itself: of many at once every one is answered.
    changing.mutateAsync({ a, change }).then(
      (now) => {
        put(id, now)
        if (words) toldWithUndo(words, () => undo(id, before))
      },
      (error: Error) => {
        put(id, a)
        tellFailed(error.message)
      },
    )
  }
  const undo = (id: string, before: Change) => change(id, before)
  const latestUndo = useRef<() => void>(undefined)
  /** Of what was done last alone: the one before is part of how the book stands. */
  const toldWithUndo = (words: string, back: () => void) => {
    const once = () => {
      latestUndo.current = undefined
      back()
    }
    latestUndo.current = once
    tellDone(words, once, 'book')
  }

  const sendMoves = () => {
    clearTimeout(timer.current)
    const now = moving
    setMoving(undefined)
    if (!now || !week) return
    const a = shown(now.id)
    if (!a) return
    const next = { ...a, ...(now.change as Partial<BookedRow>) }
    change(
      now.id,
      now.change,
      `${a.client}: ${whenWords(next.startMs)}, ${workerName(week, next.workerId)}`,
    )
  }
  const latest = useRef(sendMoves)
  latest.current = sendMoves
  /** Moves by keys: shown at once, sent when the hand rests. */
  const nudge = (id: string, by: (a: BookedRow) => Change) => {
    const a = shown(id)
    if (!a || isSettled(a)) return
    if (moving && moving.id !== id) sendMoves()
    const from = moving?.id === id ? { ...a, ...(moving.change as Partial<BookedRow>) } : a
    setMoving({ id, change: { ...(moving?.id === id && moving.change), ...by(from) } })
    clearTimeout(timer.current)
    timer.current = setTimeout(() => latest.current(), KEYS_MS)
  }

  const adding = useMutation({
    mutationFn: (body: NewBody) => {
      const { client, ...told } = body
      return write('addAppointment', { body: told }, about({ clientId: body.clientId, client }))
    },
    onSettled: settle,
  })
  const removing = useMutation({
    mutationFn: (a: BookedRow) => write('removeAppointment', { params: { id: a.id } }, about(a)),
    onSuccess: settle,
    onError: (error) => tellFailed(error.message),
  })
  /** Books one after the other, whatever becomes of the others; Undo takes all of them back. */
  const addAll = async (bodies: readonly NewBody[], done?: (a: BookedRow) => void) => {
    const made: BookedRow[] = []
    for (const body of bodies) {
      try {
        const a = await adding.mutateAsync(body)
        made.push(a)
        done?.(a)
      } catch (error) {
        if (bodies.length > 1) tellFailed(`${body.client}: ${(error as Error).message}`)
      }
    }
    const [one] = made
    if (!one) return
    toldWithUndo(
      made.length === 1
        ? `${one.client} is booked: ${whenWords(one.startMs)}`
        : `${made.length} are booked`,
      () => made.forEach((a) => removing.mutate(a)),
    )
  }

  /** As they stand with what keys have moved. */
  const appointments = (week?.appointments ?? []).map((a) =>
    moving?.id === a.id ? { ...a, ...(moving.change as Partial<BookedRow>) } : a,
  )
  return {
    ...{ appointments, change, nudge, addAll, sendMoves },
    undoLast: () => latestUndo.current?.(),
    adding: adding.isPending,
    addError: adding.error,
    clearAddError: () => adding.reset(),
  }
}

/** By so many days, at the same hour of the clock. */
export function daysOn(startMs: number, days: number): number {
  const date = dateAt(startMs, offsetHere)
  return momentAt(addDays(date, days), hourAt(startMs, offsetHere), offsetHere)
}
export const minutesOn = (startMs: number, minutes: number) => startMs + minutes * MIN_MS
