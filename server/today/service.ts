/** The tide table: the day, what is owed, and who is due next, a page at a time; and what each of them waits for. */
import { figuresOf } from '../../core/register/index.ts'
import type { Figures } from '../../core/house/index.ts'
import { growthAfter, tideCurve } from '../../core/regrowth/index.ts'
import { serviceZones } from '../../core/services/index.ts'
import { upkeepLast } from '../../core/ahead/index.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { cutsAtHome, meanGrowth, meanLeft } from '../../core/history/index.ts'
import type { Today, TodayRow } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { runningLate } from '../../core/week/index.ts'
import { readAppointments } from '../week/book.ts'
import { lateToTell } from '../week/late.ts'
import { openDue } from '../week/visitOf.ts'
import { inTurns } from '../db/turns.ts'
import { readHouse } from '../house/service.ts'
import { freshen } from '../standing/standing.ts'
import { flagsOf } from './flags.ts'
import { overviewOf, type Overview, seenOf } from './overview.ts'

const BACK_DAYS = 42
const AHEAD_DAYS = 28
/** A curve is read from one earlier service before the line begins. */
const READ_BACK_DAYS = 120
/** Clients on a page. */
const PAGE = 60
/** A first visit without a time comes last. */
const NO_TIME_DAYS = 365

interface Counts {
  total: number
  alarms: number
  owed: number
  firstVisits: number
}

/** What is owed now: an answer whose time has come and is not over. */
const OWED = `(s.owedUntilMs >= $now AND EXISTS (SELECT 1 FROM json_each(s.owed) o
  WHERE o.value ->> 0 <= $now AND o.value ->> 1 >= $now))`

/** Clients whose patch test waits: few, and only looking at all that is known tells whether it can be read today. */
const WAITING = `SELECT clientId FROM visits WHERE state <> 'finished' AND asked ->> '$.patchTest.result' = 'waiting'`

/**
 * In the order in which they are shown: what alarms; the day; what is owed; who is due; whose good days are long over. All
 * that is ordered by stands in the standings, so that no visit is read.
 */
const ORDER = `SELECT s.clientId FROM standings s
  LEFT JOIN (SELECT clientId, MIN(slotAtMs) AS slotAtMs, MAX(state = 'running') AS running FROM visits
    WHERE state <> 'finished' GROUP BY clientId) v ON v.clientId = s.clientId
  ORDER BY CASE WHEN s.alarms > 0 THEN 0
      WHEN v.running OR v.slotAtMs BETWEEN $dayBegins AND $dayEnds OR s.clientId IN (${WAITING}) THEN 1
      WHEN ${OWED} THEN 2
      WHEN v.slotAtMs IS NULL AND s.dueToMs < $longAgo THEN 4 ELSE 3 END,
    COALESCE(v.slotAtMs, s.dueToMs, $noTime), s.nameKey
  LIMIT ${PAGE} OFFSET $from`

/** @param from how many clients to leave out: those of earlier pages */
export async function today(
  db: Database,
  safety: string | null = null,
  from = 0,
  nowMs = Date.now(),
): Promise<Today> {
  await openDue(db, nowMs)
  await freshen(db)
  const fromMs = nowMs - BACK_DAYS * DAY_MS
  const untilMs = nowMs + AHEAD_DAYS * DAY_MS
  const dayBegins = new Date(nowMs).setHours(0, 0, 0, 0)
  const [house, booked, order, waiting, counts] = await Promise.all([
    readHouse(db),
    readAppointments(db, dayBegins, new Date(nowMs).setHours(24, 0, 0, 0), nowMs),
    db.select<{ clientId: string }>(ORDER, {
      ...{
        $now: nowMs,
        $from: from,
        $dayBegins: dayBegins,
        $dayEnds: new Date(nowMs).setHours(24, 0, 0, 0),
      },
      ...{ $longAgo: fromMs, $noTime: nowMs + NO_TIME_DAYS * DAY_MS },
    }),
    db.select<{ clientId: string }>(WAITING),
    db.select<Counts>(
      `SELECT COUNT(*) AS total, COALESCE(SUM(s.alarms > 0), 0) AS alarms, COALESCE(SUM(${OWED}), 0) AS owed,
         COALESCE(SUM(s.visits = 0), 0) AS firstVisits FROM standings s`,
      { $now: nowMs },
    ),
  ])
  const shown = new Set(order.map((o) => o.clientId))
  const overview = await overviewOf(
    db,
    [...new Set([...shown, ...waiting.map((w) => w.clientId)])],
    nowMs - READ_BACK_DAYS * DAY_MS,
  )
  const figures = figuresOf(house.figures)
  const { total, alarms, owed, firstVisits } = counts[0]!
  let patchTestsToRead = 0
  const visitOf = new Map(booked.map((a) => [a.id, a.visitId]))
  const lateOf = new Map(runningLate(booked, nowMs).map((l) => [visitOf.get(l.id), l.lateMin]))
  const told = await inTurns(overview, (o): TodayRow[] => {
    const { flags, patch } = flagsOf(figures, o, house, nowMs)
    patchTestsToRead += patch
    if (!shown.has(o.client.id)) return []
    const late = o.open?.state === 'open' ? lateOf.get(o.open.id) : undefined
    return [{ ...rowOf(figures, o, flags, { fromMs, nowMs, untilMs }), lateMin: late ?? null }]
  })
  const rows = told.flat()
  const alarmed = (r: TodayRow) => Number(r.flags.some((f) => f.kind === 'alarm'))
  rows.sort(
    (a, b) =>
      alarmed(b) - alarmed(a) || a.dueMs - b.dueMs || a.client.name.localeCompare(b.client.name),
  )
  return {
    ...{ nowMs, fromMs, untilMs, alarms, rows, total, from, safety },
    ...{ answersOwed: owed, patchTestsToRead, firstVisits },
    lateToTell: (await lateToTell(db, booked, nowMs)).length,
  }
}

function rowOf(
  figures: Figures,
  o: Overview,
  flags: TodayRow['flags'],
  { fromMs, nowMs, untilMs }: { fromMs: number; nowMs: number; untilMs: number },
): Omit<TodayRow, 'lateMin'> {
  const own = o.next ? o.next.zones : serviceZones(o.client.service)
  const mean = meanGrowth(Object.fromEntries(own.map((z) => [z, o.growth[z]!])))
  const growth = mean && (o.next ? growthAfter(figures, mean, o.next.job.method) : mean)
  const slot = o.open?.slotAtMs ?? null
  const left = meanLeft(o.next ? upkeepLast(o.next).leftMm : null)
  const window = o.next?.window
  const cuts = o.next && cutsAtHome(figures, own, o.next.home)
  return {
    client: { id: o.client.id, name: o.client.name, occupation: o.client.occupation },
    service: o.open?.service ?? o.next?.job.service ?? o.client.service,
    visitId: o.open?.id ?? null,
    slotAtMs: slot,
    lastAtMs: o.past[0]?.endedAtMs ?? null,
    curve: growth
      ? tideCurve(figures, o.services, left, growth, fromMs, nowMs, untilMs, cuts)
      : { past: [], ahead: [] },
    window: window ? { fromMs: window.fromMs, toMs: window.toMs } : null,
    seenByEnd: seenByEnd(figures, o),
    phone: o.client.phone,
    dueMs: slot ?? window?.toMs ?? nowMs + NO_TIME_DAYS * DAY_MS,
    flags,
  }
}

/** Odds that hair is seen, where it is soonest, by the end of the window. */
const seenByEnd = (figures: Figures, o: Overview): number | null =>
  o.next?.window ? seenOf(figures, o)(o.next.window.toMs) : null
