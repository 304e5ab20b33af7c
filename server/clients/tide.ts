/** The tide line of a client: from some visits back to the next window; or a stretch of earlier visits. */
import { readFigures } from '../house/service.ts'
import type { Figures } from '../../core/house/index.ts'
import { learnGrowth, meanGrowth, meanLeft } from '../../core/history/index.ts'
import { type Growth, type VisitWindow, tideCurve } from '../../core/regrowth/index.ts'
import { SERVICES, type ServiceId } from '../../core/services/index.ts'
import { DAY_MS } from '../../core/time/index.ts'
import type { Client, Tide, VisitSummary } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { json, type Json } from '../db/reader.ts'
import { readHair } from '../visits/record.ts'
import { readClient } from './read.ts'

/** Visits on a stretch of the line: more would run into each other. */
const SHOWN = 8

/** How far back and ahead the line looks: far enough for eight visits, at most a year back. */
function spanNow(visits: readonly VisitSummary[], nowMs: number, toMs: number | undefined) {
  const ended = visits.filter((v) => v.endedAtMs !== null).map((v) => v.endedAtMs!)
  const eighth =
    ended.sort((a, b) => b - a)[SHOWN - 1] ?? ended[ended.length - 1] ?? nowMs - 30 * DAY_MS
  const back = Math.min(Math.max(nowMs - eighth, 14 * DAY_MS), 365 * DAY_MS)
  const ahead = Math.max((toMs ?? nowMs) - nowMs + back * 0.06, back * 0.24)
  return { fromMs: nowMs - back * 1.04, untilMs: nowMs + ahead }
}

/** What the line measures, and how high it is drawn at most: fuzz stays short whatever it is taken off for. */
function measured(service: ServiceId, growth: Growth): Pick<Tide, 'hairWords' | 'topMm'> {
  const { words, lineMm } = SERVICES[service].hair
  return { hairWords: growth.curve === 'fuzz' ? 'Fuzz' : words, topMm: lineMm }
}

const endsOf = (visits: readonly VisitSummary[], service: ServiceId): number[] =>
  visits
    .filter((v) => v.state === 'finished' && v.service === service)
    .map((v) => v.endedAtMs!)
    .sort((a, b) => a - b)

/** The line up to now and on to the next window. */
export function tideNow(
  figures: Figures,
  f: {
    readonly client: Client
    /** Newest first. */
    readonly visits: readonly VisitSummary[]
    readonly leftMm: Readonly<Record<string, number>> | null
    readonly growth: Readonly<Record<string, Growth>>
    readonly window: VisitWindow | null
    readonly nowMs: number
  },
): Tide {
  const { visits, window, nowMs } = f
  const { service } = f.client
  const growth = meanGrowth(f.growth)!
  const span = spanNow(visits, nowMs, window?.toMs)
  const shown = visits.filter((v) => (v.endedAtMs ?? v.slotAtMs ?? nowMs) >= span.fromMs)
  return {
    curve: tideCurve(
      figures,
      endsOf(visits, service),
      meanLeft(f.leftMm),
      growth,
      span.fromMs,
      nowMs,
      span.untilMs,
    ),
    ...measured(service, growth),
    visits: shown,
    window,
    nowMs,
    earlier: shown.length < visits.length,
    ...span,
  }
}

/** A stretch of earlier visits, so many stretches back; the line ends where the later one begins. */
export async function earlierTide(db: Database, id: string, back: number): Promise<Tide> {
  const client = await readClient(db, id)
  const [rows, hair, figures] = await Promise.all([
    db.select<VisitSummary & { leftMm: Json<Record<string, number>> | null }>(
      `SELECT id, service, state, slotAtMs, startedAtMs, endedAtMs, routine, worstRedness, bumps, leftMm
       FROM visits WHERE clientId = ? AND state = 'finished' ORDER BY endedAtMs DESC LIMIT ?`,
      [id, SHOWN * (back + 1) + 1],
    ),
    readHair(db, id),
    readFigures(db),
  ])
  const all = rows.map(({ leftMm: _left, ...v }) => v)
  const visits = all.slice(SHOWN * back, SHOWN * (back + 1))
  const nowMs = Date.now()
  const growth = meanGrowth(learnGrowth(figures, client.skin, client.service, hair))!
  const newest = visits[0]?.endedAtMs ?? nowMs
  const oldest = visits.at(-1)?.endedAtMs ?? nowMs
  const pad = Math.max(DAY_MS, (newest - oldest) * 0.06)
  const span = { fromMs: oldest - pad, untilMs: Math.min(nowMs, newest + 2 * pad) }
  const leftMm = json(rows[0]?.leftMm)
  const { past } = tideCurve(
    figures,
    endsOf(all, client.service),
    meanLeft(leftMm),
    growth,
    span.fromMs,
    span.untilMs,
    span.untilMs,
  )
  return {
    curve: { past, ahead: [] },
    ...measured(client.service, growth),
    visits,
    window: null,
    nowMs,
    earlier: rows.length > SHOWN * (back + 1),
    ...span,
  }
}
