/** The tide table: who is due, in the order in which they come due, and what each of them waits for. */
import { tideCurve } from '../../core/regrowth/tide.ts'
import { SCREENING_CONSTANTS } from '../../core/screening/rules.ts'
import { screen } from '../../core/screening/screen.ts'
import type { Schools } from '../../core/house/schools.ts'
import type { ServiceId } from '../../core/services.ts'
import { dateOf, DAY_MS, dayWords, HOUR_MS } from '../../core/time/dates.ts'
import type { Moment, Today, TodayFlag, TodayRow } from '../../contract/types.ts'
import { meanGrowth, meanLeft } from '../clients/learn.ts'
import type { Database } from '../db/connection.ts'
import { readHouse } from '../house/service.ts'
import { offsetMinutes } from '../visits/service.ts'
import { dueOverview, type Overview } from './overview.ts'

const BACK_DAYS = 42
const AHEAD_DAYS = 28
/** A curve is read from one earlier service before the line begins. */
const READ_BACK_DAYS = 120

/** When each answer is owed, hours after the service. */
const OWED: readonly { moment: Moment; fromHours: number; untilHours: number; words: string }[] = [
  { moment: '24h', fromHours: 24, untilHours: 96, words: 'Day 1 answer owed' },
  { moment: '48h', fromHours: 48, untilHours: 120, words: 'Day 2 answer owed' },
  { moment: '7d', fromHours: 168, untilHours: 336, words: 'Day 7 answer owed' },
]

export async function today(db: Database): Promise<Today> {
  const nowMs = Date.now()
  const fromMs = nowMs - BACK_DAYS * DAY_MS
  const untilMs = nowMs + AHEAD_DAYS * DAY_MS
  const [house, overview] = await Promise.all([
    readHouse(db),
    dueOverview(db, nowMs - READ_BACK_DAYS * DAY_MS),
  ])
  let answersOwed = 0
  let patchTestsToRead = 0
  const rows = overview.map((o): TodayRow => {
    const { flags, owed, patch } = flagsOf(o, house.schools, nowMs)
    answersOwed += owed
    patchTestsToRead += patch
    const growth = meanGrowth(o.growth)
    const slot = o.open?.slotAtMs ?? null
    return {
      client: { id: o.client.id, name: o.client.name, occupation: o.client.occupation },
      service: (o.open?.service ?? o.client.service) as ServiceId,
      visitId: o.open?.id ?? null,
      slotAtMs: slot,
      curve: growth
        ? tideCurve(o.services, meanLeft(o.last?.leftMm ?? null), growth, fromMs, nowMs, untilMs)
        : { past: [], ahead: [] },
      window: o.window && { fromMs: o.window.fromMs, toMs: o.window.toMs },
      dueMs: dueMs(slot, o, nowMs),
      flags,
    }
  })
  rows.sort((a, b) => a.dueMs - b.dueMs || a.client.name.localeCompare(b.client.name))
  return {
    nowMs,
    fromMs,
    untilMs,
    rows,
    answersOwed,
    patchTestsToRead,
    firstVisits: overview.filter((o) => !o.last).length,
  }
}

/** Booked today comes first, by the hour; then by the end of the window; a first visit without a time comes last. */
function dueMs(slotAtMs: number | null, o: Overview, nowMs: number): number {
  if (slotAtMs !== null) return slotAtMs
  return o.window?.toMs ?? nowMs + 365 * DAY_MS
}

function flagsOf(
  o: Overview,
  schools: Schools,
  nowMs: number,
): { flags: TodayFlag[]; owed: number; patch: number } {
  const flags: TodayFlag[] = []
  const offset = offsetMinutes(nowMs)
  const date = dateOf(nowMs, offset)
  let owed = 0
  let patch = 0
  if (o.open) {
    const test = o.open.asked.patchTest
    const screening = screen(o.open.service, o.open.asked, schools, date, nowMs, offset)
    if (
      test?.result === 'waiting' &&
      nowMs >= test.placedAtMs + SCREENING_CONSTANTS.patchTestHours.value * HOUR_MS
    ) {
      patch = 1
      flags.push({ kind: 'brass', text: 'Patch test to read today' })
    } else if (screening.verdict === 'postpone') {
      const cause = screening.findings[0]!.reason
      flags.push({
        kind: 'coral',
        text: screening.until
          ? `Postpone until ${dayWords(screening.until, date)}: ${lower(cause)}`
          : `Postpone: ${lower(cause)}`,
      })
    } else if (screening.verdict === 'refer') {
      flags.push({ kind: 'coral', text: `Stop and refer: ${lower(screening.findings[0]!.reason)}` })
    }
    if (o.open.state === 'running') flags.push({ kind: 'coral', text: 'In the chair now' })
  }
  if (!o.last) {
    flags.push({ kind: 'kelp', text: 'First visit: no map yet' })
    return { flags, owed, patch }
  }
  const hours = (nowMs - o.last.endedAtMs) / HOUR_MS
  const missing = OWED.filter(
    (m) =>
      hours >= m.fromHours &&
      hours <= m.untilHours &&
      !o.last!.answers.some((a) => a.moment === m.moment),
  )
  const latest = missing[missing.length - 1]
  if (latest) {
    owed = 1
    flags.push({ kind: 'brass', text: latest.words })
  }
  const windowed = o.window
  const unsettled = windowed !== null && nowMs < windowed.skinMs
  if (windowed && nowMs < windowed.fromMs && (unsettled || booked(o, windowed.fromMs))) {
    flags.push({
      kind: 'coral',
      text: `${unsettled ? 'Skin not settled' : 'Too soon'}: wait until ${dayWords(dateOf(windowed.fromMs, offset), date)}`,
    })
  }
  return { flags, owed, patch }
}

const booked = (o: Overview, fromMs: number) => o.open?.slotAtMs != null && o.open.slotAtMs < fromMs

const lower = (s: string) => s.charAt(0).toLowerCase() + s.slice(1)
