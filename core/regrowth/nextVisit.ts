/** When to meet again (M10): from the latest of skin clear, least interval and clearances, to the date hair is seen. */
import type { SkinAndHair } from '../client.ts'
import { onZone, type ZoneId } from '../zones/index.ts'
import { constant, type Mark, type Figures, type Schools } from '../house/index.ts'
import { type Job, lastsDays, methodFacts, SERVICES } from '../services/index.ts'
import { capital } from '../words.ts'
import {
  type ClosedDays,
  dateAt,
  dayWords,
  DAY_MS,
  type Offset,
  openFrom,
  openUntil,
} from '../time/index.ts'
import {
  daysToLength,
  daysUntil,
  shownOdds,
  noticedMm,
  type DayRange,
  type Growth,
} from './growth.ts'

export const INTERVAL_CONSTANTS = {
  razorTough: constant(1, 'days', 'Least interval between razor services, tough skin', 'H'),
  razorAverage: constant(2, 'days', 'Least interval between razor services, average skin', 'H'),
  razorReactive: constant(4, 'days', 'Least interval between razor services, reactive skin', 'H'),
  bumpProneExtra: constant(1, 'days', 'Added for bump-prone skin', 'H'),
  settleDays: constant(3, 'days', 'Free days after redness was last 1 or more', 'H'),
  restAtHome: constant(
    4,
    'days',
    'Skin that was worked at home rests so long, at most, before the next service',
    'H',
  ),
  trialDays: constant(
    7,
    'days',
    'A trial strip is followed until hair is felt, about so long',
    'C',
  ),
  leastWindow: constant(2, 'days', 'A window is at least this long', 'H'),
  windowShare: constant(0.25, '', 'and at least this share of the least interval', 'H'),
} as const

const I = INTERVAL_CONSTANTS

/** What the window depends on. */
export interface WindowInput extends Pick<Job, 'service' | 'method' | 'everyDays'> {
  /** Only a trial strip was worked: the whole comes once it was followed. */
  readonly trial?: true | undefined
  readonly client: SkinAndHair
  readonly schools: Schools
  readonly lastAtMs: number
  /** Zones of the last plan with what they left standing. */
  readonly zones: readonly { zoneId: ZoneId; name: string; leftMm: number }[]
  readonly growth: (zoneId: ZoneId) => Growth
  /** Latest readings of redness: when, and the worst grade. */
  readonly redness: readonly { atMs: number; grade: number }[]
  /** From when the skin is clear enough, by what is believed of it (`skinReadyMs`). */
  readonly readyMs: number
  /** When the client last took hair off there themselves: the interval counts from then. */
  readonly atHomeMs?: number | undefined
  /** Latest clearance that a new service must wait for, if any. */
  readonly clearedAtMs?: number | undefined
  /** Days on which nobody serves; `offset` tells which day a moment lies on. */
  readonly closed: ClosedDays
  readonly offset: Offset
}

export interface WindowReason {
  readonly text: string
  /** Left out for what is no figure: the days on which the house is closed. */
  readonly mark?: Mark
}

/** The window of the next visit. */
export interface VisitWindow {
  readonly fromMs: number
  readonly toMs: number
  /** When the skin is, or is taken to be, clear. */
  readonly skinMs: number
  readonly felt: DayRange
  readonly seen: DayRange
  /** Zone where hair is seen first. */
  readonly firstZone: string
  readonly reasons: readonly WindowReason[]
}

/** Computes the window; undefined when the last plan had no zones. */
export function nextVisitWindow(figures: Figures, input: WindowInput): VisitWindow | undefined {
  const first = seenFirst(figures, input)
  if (!first) return undefined
  const { zone: firstZone, seen } = first
  const felt = daysUntil(figures, input.growth(firstZone.zoneId), 'felt', firstZone.leftMm)
  const at = (days: number) => input.lastAtMs + days * DAY_MS
  const { atHomeMs } = input
  const day = (ms: number) => dayWords(dateAt(ms, input.offset))
  const least = leastDays(figures, input)
  const reasons: WindowReason[] = []

  const settled = skinSettles(figures, input.lastAtMs, input.redness)
  const skinMs = Math.max(settled.skinMs, input.readyMs)
  if (atHomeMs !== undefined)
    reasons.push({
      text: `Hair was taken off at home on ${day(atHomeMs)}: skin and hair count from then.`,
      mark: 'H',
    })
  if (settled.wasRed) {
    reasons.push({
      text: settled.seenClear
        ? `Skin was seen clear ${settled.skinMs < (atHomeMs ?? -Infinity) ? 'before that' : 'again'}.`
        : `Redness was last seen and not yet seen clear: ${figures(I.settleDays)} free days.`,
      mark: 'H',
    })
  }
  if (input.readyMs > Math.max(settled.skinMs, at(least.days))) {
    reasons.push({
      text:
        settled.wasRed || atHomeMs !== undefined
          ? `By how this skin settles, it is likely clear from ${day(input.readyMs)} on. A look may show it sooner.`
          : `Nobody has looked since its first hours: by how this skin takes such a service, it is likely clear from ${day(input.readyMs)} on. A look may show it sooner.`,
      mark: 'H',
    })
  }
  reasons.push({ text: least.text, mark: least.mark })
  const intervalMs = Math.max(
    at(least.days),
    (atHomeMs ?? -Infinity) + Math.min(least.days, figures(I.restAtHome)) * DAY_MS,
  )
  const readyMs = Math.max(skinMs, intervalMs, input.clearedAtMs ?? -Infinity)
  const fromMs = openFrom(input.closed, readyMs, input.offset)
  const seenMs = at(seen.even)
  const leastWindow = Math.max(figures(I.leastWindow), figures(I.windowShare) * least.days)
  const wantedMs = Math.max(seenMs, fromMs + leastWindow * DAY_MS)
  // Closed days at its end are given up; opening and closing lie on open days.
  const toMs = Math.max(openUntil(input.closed, wantedMs, input.offset), fromMs)
  if (fromMs !== readyMs) {
    reasons.push({ text: `The house is closed on ${day(readyMs)}.` })
  }
  reasons.push({
    text: `Hair is seen first ${onZone(firstZone.zoneId)}, about day ${dayFigure(seen.even)} (80 %: ${dayFigure(seen.early)}–${dayFigure(seen.late)}).`,
    mark: 'H',
  })
  if (seenMs < fromMs) {
    const skinDecides = skinMs > at(least.days)
    reasons.push({
      text:
        seenMs >= readyMs
          ? 'Hair shows while the house is closed.'
          : skinDecides
            ? 'Hair shows before the skin is ready: the skin decides.'
            : 'Hair shows before the interval is over: the interval decides.',
      mark: 'H',
    })
  }
  return {
    fromMs,
    toMs,
    skinMs,
    felt,
    seen,
    firstZone: firstZone.name,
    reasons,
  }
}

/** When skin is, or is taken to be, clear: seen so, or some free days after it was last seen red. */
export function skinSettles(
  figures: Figures,
  endedAtMs: number,
  redness: readonly { readonly atMs: number; readonly grade: number }[],
): { readonly skinMs: number; readonly wasRed: boolean; readonly seenClear: boolean } {
  const lastRedMs = Math.max(...redness.filter((r) => r.grade >= 1).map((r) => r.atMs), -Infinity)
  if (lastRedMs === -Infinity) return { skinMs: endedAtMs, wasRed: false, seenClear: false }
  const clear = redness.filter((r) => r.grade === 0 && r.atMs > lastRedMs).map((r) => r.atMs)
  return {
    skinMs: clear.length > 0 ? Math.min(...clear) : lastRedMs + figures(I.settleDays) * DAY_MS,
    wasRed: true,
    seenClear: clear.length > 0,
  }
}

const dayFigure = (days: number) => (days < 10 ? days.toFixed(1) : String(Math.round(days)))

type WorkedZone = WindowInput['zones'][number]

/**
 * The zone on which hair is seen soonest, and when. Days cost much and odds little: a zone is sooner when its odds are more
 * than even at the day of the one that was taken for the first.
 */
function seenFirst(
  figures: Figures,
  { zones, growth }: WindowInput,
): { zone: WorkedZone; seen: DayRange } | undefined {
  const about = (z: WorkedZone) => {
    const grows = growth(z.zoneId)
    const { curve, mean, rest } = grows
    const seenMm = noticedMm(figures, grows, 'seen')
    return (rest?.days ?? 0) + daysToLength(figures, curve, z.leftMm, mean, seenMm)
  }
  const from = (zone: WorkedZone) => ({
    zone,
    seen: daysUntil(figures, growth(zone.zoneId), 'seen', zone.leftMm),
  })
  const [soonest] = [...zones].sort((a, b) => about(a) - about(b))
  if (!soonest) return undefined
  let best = from(soonest)
  for (;;) {
    let [most, sooner]: [number, WorkedZone | undefined] = [0.5 + 1e-6, undefined]
    for (const z of zones) {
      if (z === best.zone) continue
      const odds = shownOdds(figures, growth(z.zoneId), 'seen', z.leftMm, best.seen.even)
      if (odds > most) [most, sooner] = [odds, z]
    }
    const next = sooner && from(sooner)
    // Days are found to a rounding: two alike to it must not take turns for ever.
    if (!next || !(next.seen.even < best.seen.even)) return best
    best = next
  }
}

function leastDays(
  figures: Figures,
  input: WindowInput,
): { days: number; text: string; mark: Mark } {
  const { method, everyDays } = input
  if (input.trial) {
    const days = figures(I.trialDays)
    return {
      days,
      text: `A trial strip is followed until hair is felt, about ${days} days; then the whole.`,
      mark: 'C',
    }
  }
  const every =
    everyDays === undefined ? undefined : `${everyDays} ${everyDays === 1 ? 'day' : 'days'}`
  const lasts = lastsDays(figures, method)
  if (lasts !== undefined) {
    return every !== undefined && everyDays !== undefined
      ? { days: everyDays, text: `Own rhythm: every ${every}.`, mark: 'H' }
      : {
          days: lasts,
          text: `${capital(methodFacts(method).name)} lasts about ${lasts} days.`,
          mark: method === 'wax' ? 'C' : 'H',
        }
  }
  if (SERVICES[input.service].family === 'fuzz') {
    if (every !== undefined && everyDays !== undefined)
      return { days: everyDays, text: `Own rhythm: every ${every}.`, mark: 'H' }
    const weeks = Number(input.schools.fuzzInterval)
    return { days: weeks * 7, text: `School: every ${weeks} weeks.`, mark: 'C' }
  }
  const { reactivity, bumpProne } = input.client
  const base = { tough: I.razorTough, average: I.razorAverage, reactive: I.razorReactive }[
    reactivity
  ]
  const days = figures(base) + (bumpProne ? figures(I.bumpProneExtra) : 0)
  if (everyDays !== undefined && everyDays > days)
    return { days: everyDays, text: `Own rhythm: every ${every}.`, mark: 'H' }
  return {
    days,
    text: `Least interval for ${reactivity}${bumpProne ? ', bump-prone' : ''} skin: ${days} ${days === 1 ? 'day' : 'days'}.`,
    mark: 'H',
  }
}
