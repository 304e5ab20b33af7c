/** The studio as a whole: rates with their intervals, and no ranking of people who did too little to be compared. */
import { constant, type Figures } from '../house/index.ts'
import { clopperPearson, garwood, type Interval, sum } from '../stats/index.ts'
import { DAY_MS } from '../time/index.ts'
import type { ClientVisits } from './effects.ts'
import type { VisitFacts } from './facts.ts'
import { nextSettledMs, settledMoments } from '../looks/index.ts'

export const STUDIO_CONSTANTS = {
  leastLanes: constant(
    30,
    'lanes',
    'Nicks of a worker or zone are told from so many lanes on',
    'H',
  ),
  graceDays: constant(
    2,
    'days',
    'A return this long after the window still counts as on time',
    'H',
  ),
} as const

const S = STUDIO_CONSTANTS

/** A share with its exact 95 % range. */
export interface Share extends Interval {
  readonly hits: number
  readonly of: number
  readonly share: number
}

/** A rate per thousand with its exact 95 % range. */
export interface PerThousand extends Interval {
  readonly count: number
  readonly lanes: number
  readonly rate: number
}

export interface StudioView {
  readonly visits: number
  readonly clients: number
  /** Answered services whose worst grade was 2 or more. */
  readonly red: Share
  /** Answers that were asked for and came. */
  readonly answered: Share
  /** Returns within the window that was told. */
  readonly onTime: Share
  readonly tooEarly: number
  readonly tooLate: number
  readonly nicks: PerThousand
  /** Only those with enough lanes, in the order of their names. */
  readonly byWorker: readonly (PerThousand & { readonly id: string })[]
  /** By kind of blade, most lanes first. */
  readonly byTool: readonly (PerThousand & { readonly id: string })[]
  /** Most lanes first. */
  readonly byZone: readonly (PerThousand & { readonly id: string })[]
  /** Workers left out because they did too few lanes. */
  readonly tooFew: number
}

const share = (hits: number, of: number): Share => ({
  hits,
  of,
  share: of > 0 ? hits / of : 0,
  ...clopperPearson(hits, of),
})

const perThousand = (count: number, lanes: number): PerThousand => {
  const range = lanes > 0 ? garwood(count, lanes) : { low: 0, high: Infinity }
  return {
    count,
    lanes,
    rate: lanes > 0 ? (1000 * count) / lanes : 0,
    low: 1000 * range.low,
    high: 1000 * range.high,
  }
}

/** Nicks and lanes by id. */
type Tally = Record<string, [nicks: number, lanes: number]>

/** What a client's visits add to the studio's rates. */
export interface RateSums {
  readonly visits: number
  /** Answered, and reddened to 2 or more. */
  readonly answered: number
  readonly red: number
  readonly asked: number
  readonly given: number
  readonly onTime: number
  readonly tooEarly: number
  readonly tooLate: number
  readonly workers: Readonly<Tally>
  readonly zones: Readonly<Tally>
  /** By kind of blade; absent in sums kept before it was told. */
  readonly tools?: Readonly<Tally> | undefined
  /** When time alone changes these sums, because an answer can no longer come; null when it never will. */
  readonly changesAtMs: number | null
}

/** @param all a client's visits, oldest first */
export function rateSums(figures: Figures, all: readonly VisitFacts[], nowMs: number): RateSums {
  let [answered, red, asked, given] = [0, 0, 0, 0]
  let [onTime, tooEarly, tooLate] = [0, 0, 0]
  let changesAtMs = Infinity
  const workers: Tally = {}
  const zones: Tally = {}
  const tools: Tally = {}
  const add = (to: Tally, id: string, nicks: number, lanes: number) => {
    const had = to[id] ?? [0, 0]
    to[id] = [had[0] + nicks, had[1] + lanes]
  }
  all.forEach((v, i) => {
    if (v.worst) {
      answered++
      if (Math.max(0, ...Object.values(v.worst)) >= 2) red++
    }
    const settled = settledMoments(figures, v.endedAtMs, v.answered, nowMs)
    asked += settled.length
    given += settled.filter((m) => m.came).length
    changesAtMs = Math.min(changesAtMs, nextSettledMs(figures, v.endedAtMs, v.answered, nowMs))
    const next = all.slice(i + 1).find((n) => n.service === v.service)
    if (v.due && next) {
      const grace = figures(S.graceDays) * DAY_MS
      if (next.endedAtMs < v.due.fromMs - grace) tooEarly++
      else if (next.endedAtMs > v.due.toMs + grace) tooLate++
      else onTime++
    }
    for (const [zoneId, z] of Object.entries(v.choices?.zones ?? {})) {
      add(workers, v.workerId, z.nicks, z.lanes)
      add(zones, zoneId, z.nicks, z.lanes)
      add(tools, z.tool, z.nicks, z.lanes)
    }
  })
  return {
    visits: all.length,
    ...{ answered, red, asked, given, onTime, tooEarly, tooLate, workers, zones, tools },
    changesAtMs: Number.isFinite(changesAtMs) ? changesAtMs : null,
  }
}

export const studioView = (
  figures: Figures,
  clients: readonly ClientVisits[],
  nowMs: number,
): StudioView =>
  viewOf(
    figures,
    clients.map((c) => rateSums(figures, c.visits, nowMs)),
  )

/** The view of what was summed, one entry a client. */
export function viewOf(figures: Figures, clients: readonly RateSums[]): StudioView {
  const total = (of: (s: RateSums) => number) => sum(clients.map(of))
  const tally = (of: (s: RateSums) => Readonly<Tally>) => {
    const all = new Map<string, { nicks: number; lanes: number }>()
    for (const client of clients) {
      for (const [id, [nicks, lanes]] of Object.entries(of(client))) {
        const had = all.get(id) ?? { nicks: 0, lanes: 0 }
        all.set(id, { nicks: had.nicks + nicks, lanes: had.lanes + lanes })
      }
    }
    return all
  }
  const workers = tally((s) => s.workers)
  const rows = (map: typeof workers) =>
    [...map.entries()]
      .filter(([, w]) => w.lanes >= figures(S.leastLanes))
      .map(([id, w]) => ({ id, ...perThousand(w.nicks, w.lanes) }))
  const all = [...workers.values()]
  const [onTime, tooEarly, tooLate] = [
    total((s) => s.onTime),
    total((s) => s.tooEarly),
    total((s) => s.tooLate),
  ]
  return {
    visits: total((s) => s.visits),
    clients: clients.length,
    red: share(
      total((s) => s.red),
      total((s) => s.answered),
    ),
    answered: share(
      total((s) => s.given),
      total((s) => s.asked),
    ),
    onTime: share(onTime, onTime + tooEarly + tooLate),
    tooEarly,
    tooLate,
    nicks: perThousand(sum(all.map((w) => w.nicks)), sum(all.map((w) => w.lanes))),
    byWorker: rows(workers),
    byTool: rows(tally((s) => s.tools ?? {})).sort((a, b) => b.lanes - a.lanes),
    byZone: rows(tally((s) => s.zones)).sort((a, b) => b.lanes - a.lanes),
    tooFew: workers.size - rows(workers).length,
  }
}
