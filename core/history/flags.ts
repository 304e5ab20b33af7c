/** What a client waits for today, as plain flags: what stands in the way, what is owed, what is too soon. */
import type { Schools } from '../house/schools.ts'
import type { VisitWindow } from '../regrowth/nextVisit.ts'
import { SCREENING_CONSTANTS, type HouseRules } from '../screening/rules.ts'
import { screen, type Asked } from '../screening/screen.ts'
import type { ServiceId } from '../services.ts'
import { dateOf, dayWords, HOUR_MS } from '../time/dates.ts'
import { owedAnswer, type SkinAnswer } from './answers.ts'

/** A plain flag on the tide table. */
export interface TodayFlag {
  kind: 'coral' | 'brass' | 'kelp'
  text: string
  /** An answer that is owed: it is given at Return. */
  owed?: true
}

/** What the flags depend on. */
export interface FlagInput {
  readonly schools: Schools
  /** What the house has changed of the rules. */
  readonly rules?: HouseRules
  readonly nowMs: number
  readonly offsetMinutes: number
  /** The visit that is open or running. */
  readonly open?: {
    readonly service: ServiceId
    readonly state: string
    readonly slotAtMs: number | null
    readonly asked: Asked
  }
  readonly last?: {
    readonly endedAtMs: number
    readonly answers: readonly Pick<SkinAnswer, 'moment'>[]
  }
  readonly window: VisitWindow | null
}

/** The flags of a client, and how many answers and patch tests among them wait. */
export function todayFlags({
  schools,
  rules,
  nowMs,
  offsetMinutes,
  open,
  last,
  window,
}: FlagInput): {
  flags: TodayFlag[]
  owed: number
  patch: number
} {
  const flags: TodayFlag[] = []
  const date = dateOf(nowMs, offsetMinutes)
  let owed = 0
  let patch = 0
  if (open) {
    const test = open.asked.patchTest
    const screening = screen(open.service, open.asked, schools, date, nowMs, offsetMinutes, rules)
    const cause = screening.findings[0]?.reason ?? ''
    if (
      test?.result === 'waiting' &&
      test.placedAtMs !== undefined &&
      nowMs >= test.placedAtMs + SCREENING_CONSTANTS.patchTestHours.value * HOUR_MS
    ) {
      patch = 1
      flags.push({ kind: 'brass', text: 'Patch test to read today' })
    } else if (screening.verdict === 'postpone') {
      const until = screening.until ? ` until ${dayWords(screening.until, date)}` : ''
      flags.push({ kind: 'coral', text: `Postpone${until}: ${lower(cause)}` })
    } else if (screening.verdict === 'refer') {
      flags.push({ kind: 'coral', text: `Stop and refer: ${lower(cause)}` })
    }
    if (open.state === 'running') flags.push({ kind: 'coral', text: 'In the chair now' })
  }
  if (!last) {
    flags.push({ kind: 'kelp', text: 'First visit: no map yet' })
    return { flags, owed, patch }
  }
  const answer = owedAnswer(last.endedAtMs, last.answers, nowMs)
  if (answer) {
    owed = 1
    flags.push({ kind: 'brass', text: answer, owed: true })
  }
  if (window) {
    // By the day: nobody is sent away for the hour.
    const from = dateOf(window.fromMs, offsetMinutes)
    const slot = open?.slotAtMs != null ? dateOf(open.slotAtMs, offsetMinutes) : null
    const unsettled = date < dateOf(window.skinMs, offsetMinutes)
    const bookedTooSoon = slot !== null && slot < from
    if (date < from && (unsettled || bookedTooSoon)) {
      const what = unsettled ? 'Skin not settled' : 'Too soon'
      flags.push({ kind: 'coral', text: `${what}: wait until ${dayWords(from, date)}` })
    }
  }
  return { flags, owed, patch }
}

const lower = (s: string) => s.charAt(0).toLowerCase() + s.slice(1)
