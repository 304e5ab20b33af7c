/** The load ahead: what each day takes of people, places, towels and blades, and what it brings. */
import type { Figures } from '../house/index.ts'
import { BLADES, type BladeId } from '../kit/index.ts'
import { isPlanned, type Job, SERVICES } from '../services/index.ts'
import { type IsoDate } from '../time/index.ts'
import { sum } from '../stats/index.ts'
import {
  type Appointment,
  type Book,
  capacityOf,
  endMs,
  MIN_MS,
  standsInBook,
  towelsOf,
  usesOf,
} from './book.ts'
import { freeOn, momentAt, openOn } from './hours.ts'

/** An appointment with what its plan lays out, where one was kept. */
export type Loaded = Appointment & { readonly blades?: Readonly<Record<string, number>> | null }

export interface DayLoad {
  readonly date: IsoDate
  /** Minutes that workers have, breaks and time away left out; and of them booked. */
  readonly hasMin: number
  readonly bookedMin: number
  readonly towels: number
  /** By kind. */
  readonly blades: Readonly<Record<string, number>>
  /** Share of the open hours that places are taken: of all chairs, all beds; null where there are none, or the house is closed. */
  readonly chairs: number | null
  readonly beds: number | null
  readonly income: number
  /** Appointments whose hour is over and that were not cancelled, and to how many of them nobody came. */
  readonly should: number
  readonly missed: number
}

/** What a sitting costs the client by the house's list. */
export const priceOf = (figures: Figures, jobs: readonly Job[]): number =>
  sum(
    [...new Set(jobs.filter((j) => isPlanned(j.method)).map((j) => j.service))].map((s) =>
      figures(SERVICES[s].price),
    ),
  )

/** Blades that a sitting takes: what its plan lays out, else one of the usual kind for each service. */
export function bladesOf(a: Pick<Loaded, 'jobs' | 'blades'>): Record<string, number> {
  if (a.blades) return { ...a.blades }
  const of: Record<string, number> = {}
  for (const job of a.jobs) {
    const [usual] = SERVICES[job.service].blades
    if (usual && isPlanned(job.method)) of[usual] = (of[usual] ?? 0) + 1
  }
  return of
}

export const bladeWords = (kind: string): string => BLADES[kind as BladeId]?.name ?? kind

export function dayLoad(
  figures: Figures,
  book: Omit<Book, 'appointments'> & { readonly appointments: readonly Loaded[] },
  date: IsoDate,
): DayLoad {
  const { offset, closed } = book
  const day = { fromMs: momentAt(date, 0, offset), toMs: momentAt(date, 24, offset) }
  const all = book.appointments.filter((a) => a.startMs >= day.fromMs && a.startMs < day.toMs)
  const own = all.filter(standsInBook)
  const open = openOn(closed, date, offset)
  const free = book.workers.flatMap((w) => freeOn(closed, w, book.away, date, offset))
  const blades: Record<string, number> = {}
  for (const a of own)
    for (const [kind, n] of Object.entries(bladesOf(a))) blades[kind] = (blades[kind] ?? 0) + n
  const taken = (of: 'chair' | 'bed') => {
    const has = capacityOf(book.studio, of)
    if (!open || has === 0) return null
    const ms = sum(
      own.flatMap((a) => usesOf(figures, a).map((u) => (u.of === of ? u.toMs - u.fromMs : 0))),
    )
    return ms / (has * (open.toMs - open.fromMs))
  }
  // Whoever was expected and is not cancelled should have come.
  const over = all.filter((a) => a.state !== 'cancelled' && endMs(a) < book.nowMs)
  return {
    date,
    hasMin: sum(free.map((f) => f.toMs - f.fromMs)) / MIN_MS,
    bookedMin: sum(own.map((a) => a.minutes)),
    towels: sum(own.map((a) => towelsOf(figures, a.jobs))),
    blades,
    chairs: taken('chair'),
    beds: taken('bed'),
    income: sum(own.map((a) => priceOf(figures, a.jobs))),
    should: over.length,
    missed: over.filter((a) => a.state === 'missed').length,
  }
}

/** Of each kind of blade, how many more than there are to hand the days take; the kinds that are counted alone. */
export function bladesShort(
  studio: Book['studio'],
  days: readonly Pick<DayLoad, 'blades'>[],
): { readonly kind: string; readonly takes: number; readonly has: number }[] {
  return Object.entries(studio.blades).flatMap(([kind, has]) => {
    const takes = sum(days.map((d) => d.blades[kind] ?? 0))
    return takes > has ? [{ kind, takes, has }] : []
  })
}
