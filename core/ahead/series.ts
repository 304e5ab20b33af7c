/**
 * The visits ahead, through a date: whole services each in its window, the last of them set by an event where there is one, and
 * the lip or the line alone between them.
 */
import { median } from '../stats/index.ts'
import { planBack, type EventQuestion } from './backPlan.ts'
import type { EventKind } from './eventKinds.ts'
import { constant, type Figures } from '../house/index.ts'
import { SERVICES, type ServiceId, type Between } from '../services/index.ts'
import {
  type ClosedDays,
  DAY_MS,
  nearestOpen,
  type Offset,
  openFrom,
  openUntil,
} from '../time/index.ts'
import { daysUntil, type Growth, type VisitWindow } from '../regrowth/index.ts'
import { zoneStem, type ZoneId } from '../zones/index.ts'

export const SERIES_CONSTANTS = {
  most: constant(40, 'visits', 'At most so many visits are laid out', 'H'),
} as const

const S = SERIES_CONSTANTS

/** An event of the client that services are laid out for. */
export interface ClientEvent {
  readonly id: string
  readonly kind: EventKind
  readonly title: string
  readonly atMs: number
}

export interface SeriesVisit {
  readonly kind: 'whole' | Between['kind']
  readonly atMs: number
  /** The window it lies in. */
  readonly fromMs: number
  readonly toMs: number
  /** The event that it is for. */
  readonly event?: ClientEvent
  readonly why: string
}

export interface SeriesInput {
  readonly service: ServiceId
  readonly lastAtMs: number
  readonly window: Pick<VisitWindow, 'fromMs' | 'toMs'>
  readonly nowMs: number
  readonly throughMs: number
  readonly growth: Readonly<Record<string, Growth>>
  readonly leftMm: Readonly<Record<string, number>>
  readonly events: readonly ClientEvent[]
  /** Days on which no visit is laid; `offset` tells which day a moment lies on. */
  readonly closed: ClosedDays
  readonly offset: Offset
  /** The question of planning back from an event, for a service not before `notBeforeMs`. */
  readonly question: (event: ClientEvent, notBeforeMs: number) => EventQuestion
}

/** What may be done alone between whole services: which, and at least how many days apart. */
export function aloneBetween(
  figures: Figures,
  service: ServiceId,
  growth: Readonly<Record<string, Growth>>,
  leftMm: Readonly<Record<string, number>>,
): { kind: Between['kind']; everyDays: number; why: string } | undefined {
  const { between } = SERVICES[service]
  if (!between) return undefined
  const first = Math.min(
    ...Object.keys(growth)
      .filter((z) => between.stems.includes(zoneStem(z as ZoneId)))
      .map((z) => daysUntil(figures, growth[z]!, between.hair, leftMm[z] ?? 0.15).even),
  )
  const days = Math.max(figures(between.leastDays), Math.min(first, between.mostDays))
  return { kind: between.kind, everyDays: days, why: between.why(Math.round(days)) }
}

/** Lays the visits out. Empty when the date lies before the first window. */
export function visitSeries(figures: Figures, input: SeriesInput): SeriesVisit[] {
  const { window, lastAtMs, nowMs, throughMs } = input
  const wide = window.toMs - window.fromMs
  // From one service to the middle of the next window: the step that repeats.
  const opens = window.fromMs - lastAtMs
  const step = opens + wide / 2
  const events = input.events
    .filter((e) => e.atMs > nowMs && e.atMs <= throughMs + DAY_MS)
    .sort((a, b) => a.atMs - b.atMs)
  const whole: SeriesVisit[] = []
  let last = lastAtMs
  const add = (atMs: number, why: string, event?: ClientEvent) => {
    const { closed, offset } = input
    const earliestMs = Math.round(Math.max(nowMs, last + opens))
    // Planning back from an event keeps to open days itself, and must not be moved past the event.
    const onMs = event
      ? Math.round(atMs)
      : nearestOpen(closed, Math.round(atMs), offset, earliestMs)
    const fromMs = openFrom(closed, earliestMs, offset)
    const toMs = openUntil(closed, Math.round(Math.max(last + opens + wide, nowMs)), offset)
    whole.push({
      kind: 'whole',
      atMs: onMs,
      fromMs: Math.min(fromMs, onMs),
      toMs: Math.max(toMs, onMs),
      why,
      ...(event && { event }),
    })
    last = onMs
  }
  /** Plain visits up to `untilMs`, drawn out or together so that the one after them lands on it. */
  const fillTo = (untilMs: number, landing: boolean) => {
    const first = Math.max(nowMs, last + step)
    const span = untilMs - last
    const n = landing ? Math.max(1, Math.round(span / step)) : Infinity
    // Never closer than the window opens.
    const each = landing ? Math.max(opens, span / n) : step
    let at = landing ? Math.max(nowMs, last + each) : first
    while (
      at <= untilMs - (landing ? Math.max(opens, each * 0.6) : 0) &&
      whole.length < figures(S.most)
    ) {
      add(
        at,
        landing ? 'Spaced so that the one before the event fits.' : 'In the middle of its window.',
      )
      at = last + each
    }
  }
  for (const event of events) {
    if (whole.length >= figures(S.most)) break
    const target = planBack(figures, input.question(event, last + opens))
    if (!target.fits && !target.outOfHours && target.bestMs < last + opens) continue
    fillTo(target.bestMs, true)
    const again = planBack(figures, input.question(event, last + opens))
    if (again.bestMs <= last) continue
    add(
      again.bestMs,
      again.fits ? `For ${event.title}.` : `For ${event.title}, the nearest that is possible.`,
      event,
    )
  }
  fillTo(throughMs, false)
  return withAlone(figures, input, whole)
}

/** Puts the lip or the line alone where there is room between whole services. */
function withAlone(
  figures: Figures,
  input: SeriesInput,
  whole: readonly SeriesVisit[],
): SeriesVisit[] {
  const alone = aloneBetween(figures, input.service, input.growth, input.leftMm)
  if (!alone) return [...whole]
  const every = alone.everyDays * DAY_MS
  const out: SeriesVisit[] = []
  let last = input.lastAtMs
  for (const next of [...whole, undefined]) {
    const end = next?.atMs ?? input.throughMs
    // Half a step before the whole service it is not worth coming.
    for (
      let at = last + every;
      at < end - every * 0.5 && out.length < 3 * figures(S.most);
      at += every
    ) {
      const { closed, offset, nowMs } = input
      const onMs = nearestOpen(closed, Math.round(at), offset, nowMs)
      // Closed days in a row may bring two together, or push one onto the whole service.
      if (at <= nowMs || onMs >= end || onMs <= (out.at(-1)?.atMs ?? 0)) continue
      out.push({
        kind: alone.kind,
        atMs: onMs,
        fromMs: Math.min(openFrom(closed, onMs - DAY_MS, offset), onMs),
        toMs: Math.max(openUntil(closed, onMs + DAY_MS, offset), onMs),
        why: alone.why,
      })
    }
    if (!next) break
    out.push(next)
    last = next.atMs
  }
  return out
}

/** Days between visits where nothing else is known (house estimate). */
const USUAL_GAP_DAYS = 14
const GAPS = 5

/** Days between the last visits of a client: the middle of the gaps. */
export function usualGapDays(visits: readonly { readonly endedAtMs: number | null }[]): number {
  const ends = visits
    .flatMap((v) => (v.endedAtMs === null ? [] : [v.endedAtMs]))
    .sort((a, b) => b - a)
  const gaps = ends.slice(1, GAPS + 1).map((e, i) => (ends[i]! - e) / DAY_MS)
  return median(gaps) ?? USUAL_GAP_DAYS
}
