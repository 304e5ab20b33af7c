/** When to meet again (M10): from the latest of skin clear, least interval and clearances, to the date hair is seen. */
import type { SkinAndHair } from '../client.ts'
import { onZone, type ZoneId } from '../zones/index.ts'
import { constant, type Mark, type Figures, type Schools } from '../house/index.ts'
import { SERVICES, type ServiceId } from '../services/index.ts'
import { DAY_MS } from '../time/index.ts'
import { daysToLength, daysUntil, thresholdMm, type DayRange, type Growth } from './growth.ts'

export const INTERVAL_CONSTANTS = {
  razorTough: constant(1, 'days', 'Least interval between razor services, tough skin', 'H'),
  razorAverage: constant(2, 'days', 'Least interval between razor services, average skin', 'H'),
  razorReactive: constant(4, 'days', 'Least interval between razor services, reactive skin', 'H'),
  bumpProneExtra: constant(1, 'days', 'Added for bump-prone skin', 'H'),
  settleDays: constant(3, 'days', 'Free days after redness was last 1 or more', 'H'),
  leastWindow: constant(2, 'days', 'A window is at least this long', 'H'),
  windowShare: constant(0.25, '', 'and at least this share of the least interval', 'H'),
} as const

const I = INTERVAL_CONSTANTS

/** What the window depends on. */
export interface WindowInput {
  readonly service: ServiceId
  readonly client: SkinAndHair
  readonly schools: Schools
  readonly lastAtMs: number
  /** Zones of the last plan with what they left standing. */
  readonly zones: readonly { zoneId: ZoneId; name: string; leftMm: number }[]
  readonly growth: (zoneId: ZoneId) => Growth
  /** Latest readings of redness: when, and the worst grade. */
  readonly redness: readonly { atMs: number; grade: number }[]
  /** Latest clearance that a new service must wait for, if any. */
  readonly clearedAtMs?: number | undefined
}

export interface WindowReason {
  readonly text: string
  readonly mark: Mark
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
  const [firstZone] = [...input.zones].sort(
    (a, b) => seenDay(figures, input, a) - seenDay(figures, input, b),
  )
  if (!firstZone) return undefined
  const growth = input.growth(firstZone.zoneId)
  const felt = daysUntil(figures, growth, 'felt', firstZone.leftMm)
  const seen = daysUntil(figures, growth, 'seen', firstZone.leftMm)
  const at = (days: number) => input.lastAtMs + days * DAY_MS
  const least = leastDays(figures, input)
  const reasons: WindowReason[] = []

  const settled = skinSettles(figures, input.lastAtMs, input.redness)
  const { skinMs } = settled
  if (settled.wasRed) {
    reasons.push({
      text: settled.seenClear
        ? 'Skin was seen clear again.'
        : `Redness was last seen and not yet seen clear: ${figures(I.settleDays)} free days.`,
      mark: 'H',
    })
  }
  reasons.push({ text: least.text, mark: least.mark })
  const fromMs = Math.max(skinMs, at(least.days), input.clearedAtMs ?? -Infinity)
  const seenMs = at(seen.even)
  const leastWindow = Math.max(figures(I.leastWindow), figures(I.windowShare) * least.days)
  const toMs = Math.max(seenMs, fromMs + leastWindow * DAY_MS)
  reasons.push({
    text: `Hair is seen first ${onZone(firstZone.zoneId)}, about day ${dayFigure(seen.even)} (80 %: ${dayFigure(seen.early)}–${dayFigure(seen.late)}).`,
    mark: 'H',
  })
  if (seenMs < fromMs) {
    const skinDecides = fromMs > at(least.days)
    reasons.push({
      text: skinDecides
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

/** Day of even odds that hair is seen on a zone. */
function seenDay(figures: Figures, input: WindowInput, zone: WindowInput['zones'][number]): number {
  const { curve, mean } = input.growth(zone.zoneId)
  return daysToLength(figures, curve, zone.leftMm, mean, thresholdMm(figures, curve, 'seen'))
}

function leastDays(
  figures: Figures,
  input: WindowInput,
): { days: number; text: string; mark: Mark } {
  if (SERVICES[input.service].family === 'fuzz') {
    const weeks = Number(input.schools.fuzzInterval)
    return { days: weeks * 7, text: `School: every ${weeks} weeks.`, mark: 'C' }
  }
  const { reactivity, bumpProne } = input.client
  const base = { tough: I.razorTough, average: I.razorAverage, reactive: I.razorReactive }[
    reactivity
  ]
  const days = figures(base) + (bumpProne ? figures(I.bumpProneExtra) : 0)
  return {
    days,
    text: `Least interval for ${reactivity}${bumpProne ? ', bump-prone' : ''} skin: ${days} ${days === 1 ? 'day' : 'days'}.`,
    mark: 'H',
  }
}
