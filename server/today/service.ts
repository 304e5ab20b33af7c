/** The tide table: who is due, in the order in which they come due, and what each of them waits for. */
import { figuresOf } from '../../core/register/index.ts'
import type { Figures } from '../../core/house/index.ts'
import { seenOdds, workedZones, tideCurve } from '../../core/regrowth/index.ts'
import { DAY_MS, offsetHere } from '../../core/time/index.ts'
import { NOTHING_ASKED } from '../../core/screening/index.ts'
import { knownOf, todayFlags, pastOf } from '../../core/visit/index.ts'
import { meanGrowth, meanLeft } from '../../core/history/index.ts'
import type { House, Today, TodayRow } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { readHouse } from '../house/service.ts'
import { dueOverview, type Overview } from './overview.ts'

const BACK_DAYS = 42
const AHEAD_DAYS = 28
/** A curve is read from one earlier service before the line begins. */
const READ_BACK_DAYS = 120

export async function today(
  db: Database,
  safety: string | null = null,
  nowMs = Date.now(),
): Promise<Today> {
  const fromMs = nowMs - BACK_DAYS * DAY_MS
  const untilMs = nowMs + AHEAD_DAYS * DAY_MS
  const [house, overview] = await Promise.all([
    readHouse(db),
    dueOverview(db, nowMs - READ_BACK_DAYS * DAY_MS),
  ])
  const figures = figuresOf(house.figures)
  let answersOwed = 0
  let alarms = 0
  let patchTestsToRead = 0
  const rows = overview.map((o): TodayRow => {
    const { flags, owed, patch } = flagsOf(figures, o, house, nowMs)
    if (flags.some((f) => f.kind === 'alarm')) alarms++
    answersOwed += owed
    patchTestsToRead += patch
    const growth = meanGrowth(o.growth)
    const slot = o.open?.slotAtMs ?? null
    return {
      client: { id: o.client.id, name: o.client.name, occupation: o.client.occupation },
      service: o.open?.service ?? o.client.service,
      visitId: o.open?.id ?? null,
      slotAtMs: slot,
      curve: growth
        ? tideCurve(
            figures,
            o.services,
            meanLeft(o.lastOfKind?.leftMm ?? null),
            growth,
            fromMs,
            nowMs,
            untilMs,
          )
        : { past: [], ahead: [] },
      window: o.window && { fromMs: o.window.fromMs, toMs: o.window.toMs },
      seenByEnd: seenByEnd(figures, o),
      phone: o.client.phone,
      dueMs: dueMs(slot, o, nowMs),
      flags,
    }
  })
  const alarmed = (r: TodayRow) => Number(r.flags.some((f) => f.kind === 'alarm'))
  rows.sort(
    (a, b) =>
      alarmed(b) - alarmed(a) || a.dueMs - b.dueMs || a.client.name.localeCompare(b.client.name),
  )
  return {
    nowMs,
    fromMs,
    untilMs,
    alarms,
    rows,
    answersOwed,
    patchTestsToRead,
    safety,
    firstVisits: overview.filter((o) => o.past.length === 0).length,
  }
}

/** The flags of a client: of the visit that is open, or of the one that would be opened. */
function flagsOf(figures: Figures, o: Overview, house: House, nowMs: number) {
  const { open, client, past, window, decisions } = o
  const visit = {
    service: open?.service ?? client.service,
    workerId: open?.workerId ?? house.workerId,
    asked: open?.asked ?? NOTHING_ASKED,
    // What the map and the plan say is told at the stations.
    readings: [],
    plan: null,
    planMadeAtMs: null,
  }
  const facts = { past: past.map(pastOf), window, decisions, busy: [] }
  const known = knownOf(figures, visit, house, client.schools, facts, nowMs, offsetHere)
  return todayFlags(figures, { known, ...(open && { open }) })
}

/** Odds that hair is seen, where it is soonest, by the end of the window. */
function seenByEnd(figures: Figures, { window, lastOfKind, growth }: Overview): number | null {
  if (!window || !lastOfKind?.leftMm) return null
  const { endedAtMs, leftMm } = lastOfKind
  return seenOdds(figures, { endedAtMs, growth, zones: workedZones(leftMm) }, window.toMs)
}

/** Booked today comes first, by the hour; then by the end of the window; a first visit without a time comes last. */
function dueMs(slotAtMs: number | null, o: Overview, nowMs: number): number {
  if (slotAtMs !== null) return slotAtMs
  return o.window?.toMs ?? nowMs + 365 * DAY_MS
}
