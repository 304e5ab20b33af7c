/** The studio as a whole: rates with their intervals, and no ranking of people who did too little to be compared. */
import { constant, type Figures } from '../house/index.ts'
import { clopperPearson, garwood, type Interval, sum } from '../stats/index.ts'
import { DAY_MS } from '../time/index.ts'
import type { ClientVisits } from './effects.ts'
import { settledMoments } from '../looks/index.ts'

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

export function studioView(
  figures: Figures,
  clients: readonly ClientVisits[],
  nowMs: number,
): StudioView {
  let visits = 0
  let [red, answeredServices] = [0, 0]
  let [given, asked] = [0, 0]
  let [onTime, tooEarly, tooLate] = [0, 0, 0]
  const workers = new Map<string, { nicks: number; lanes: number }>()
  const zones = new Map<string, { nicks: number; lanes: number }>()
  const add = (map: typeof workers, id: string, nicks: number, lanes: number) => {
    const had = map.get(id) ?? { nicks: 0, lanes: 0 }
    map.set(id, { nicks: had.nicks + nicks, lanes: had.lanes + lanes })
  }
  for (const client of clients) {
    client.visits.forEach((v, i) => {
      visits++
      if (v.worst) {
        answeredServices++
        if (Math.max(0, ...Object.values(v.worst)) >= 2) red++
      }
      const settled = settledMoments(figures, v.endedAtMs, v.answered, nowMs)
      asked += settled.length
      given += settled.filter((m) => m.came).length
      const next = client.visits.slice(i + 1).find((n) => n.service === v.service)
      if (v.due && next) {
        const grace = figures(S.graceDays) * DAY_MS
        if (next.endedAtMs < v.due.fromMs - grace) tooEarly++
        else if (next.endedAtMs > v.due.toMs + grace) tooLate++
        else onTime++
      }
      for (const [zoneId, z] of Object.entries(v.choices?.zones ?? {})) {
        add(workers, v.workerId, z.nicks, z.lanes)
        add(zones, zoneId, z.nicks, z.lanes)
      }
    })
  }
  const rows = (map: typeof workers) =>
    [...map.entries()]
      .filter(([, w]) => w.lanes >= figures(S.leastLanes))
      .map(([id, w]) => ({ id, ...perThousand(w.nicks, w.lanes) }))
  const all = [...workers.values()]
  return {
    visits,
    clients: clients.length,
    red: share(red, answeredServices),
    answered: share(given, asked),
    onTime: share(onTime, onTime + tooEarly + tooLate),
    tooEarly,
    tooLate,
    nicks: perThousand(sum(all.map((w) => w.nicks)), sum(all.map((w) => w.lanes))),
    byWorker: rows(workers),
    byZone: rows(zones).sort((a, b) => b.lanes - a.lanes),
    tooFew: workers.size - rows(workers).length,
  }
}
