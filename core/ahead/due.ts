/**
 * What is due today of a client's upkeep: skin whose hair shows and that is ready. What is nearly due joins a sitting where that
 * saves a visit and costs the skin little; both are said.
 */
import { hairSince, skinAfter, skinSince, type HomeWork } from '../history/index.ts'
import { constant, type Figures } from '../house/index.ts'
import {
  CLEAR_CONSTANTS,
  clearOddsOfAll,
  shownOdds,
  type Growth,
  type SkinOf,
  type VisitWindow,
} from '../regrowth/index.ts'
import { areaWords, byRoot, isPlanned, jobName, kindOfWork, type Work } from '../services/index.ts'
import type { Coarseness } from '../skin/index.ts'
import { DAY_MS } from '../time/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { upkeepLast, type Upkeep } from './upkeep.ts'

export const DUE_CONSTANTS = {
  shows: constant(0.5, 'probability', 'Hair of a zone is taken to show from these odds on', 'H'),
  nearlyShare: constant(
    0.35,
    '',
    'Work is nearly due when no more than this share of its rhythm is still to come',
    'H',
  ),
} as const

const C = DUE_CONSTANTS

/** A kind of work with what its dates hang on. */
export interface UpkeepOutlook extends Upkeep {
  readonly window: VisitWindow | null
  readonly growth: Readonly<Record<string, Growth>>
  readonly skin: SkinOf
  readonly home?: readonly HomeWork[]
  readonly coarse?: Coarseness
}

/** Where a kind of work stands today. */
export interface DueWork extends Work {
  readonly everyDays?: number | undefined
  readonly name: string
  /** `due`: hair shows and the skin is ready; `nearly`: it saves a visit to do it today; `waits`: its skin or its day is still to come. */
  readonly state: 'due' | 'nearly' | 'waits'
  /** Zones that are due, or that would be done along; all of its own while it waits. */
  readonly zones: readonly ZoneId[]
  /** Of its own zones those whose hair does not show yet, or whose skin is not ready, where others are due. */
  readonly later: readonly ZoneId[]
  readonly visitId: string
  readonly lastAtMs: number
  /** The window told for it. */
  readonly fromMs: number | null
  readonly toMs: number | null
  /** For `nearly`: how many days sooner than it is due, of how many; what its zones bear each time, mean, and how much more of it in a year. */
  readonly saves?: {
    readonly days: number
    readonly of: number
    readonly load: number
    readonly moreInAYear: number
  }
}

/** Where each kind of work stands today, what is due first. */
export function dueToday(
  figures: Figures,
  upkeeps: readonly UpkeepOutlook[],
  nowMs: number,
): DueWork[] {
  const rank = { due: 0, nearly: 1, waits: 2 }
  return upkeeps
    .map((u) => dueWork(figures, u, nowMs))
    .sort((a, b) => rank[a.state] - rank[b.state] || (a.fromMs ?? 0) - (b.fromMs ?? 0))
}

function dueWork(figures: Figures, upkeep: UpkeepOutlook, nowMs: number): DueWork {
  const { job, window, growth, skin } = upkeep
  const last = upkeepLast(upkeep)
  const days = (nowMs - job.endedAtMs) / DAY_MS
  const now = hairSince(figures, last, growth, upkeep.home)
  // Skin and nearness count from what was done last, at home too.
  const sinceMs = Math.max(job.endedAtMs, now.latest?.atMs ?? 0)
  const home = skinSince(figures, last, upkeep.home, upkeep.coarse)
  const clear = clearOddsOfAll(figures, [skinAfter(last), ...home], skin)
  const ready = (zone: string) => clear(nowMs, [zone]) >= figures(CLEAR_CONSTANTS.clearEnough)
  // What came out by its root is due when it is felt again; a rhythm of the client's own when it has passed.
  const kind = byRoot(job.method) ? 'felt' : 'seen'
  const shows = (zone: string) => {
    if (job.everyDays !== undefined) return days >= job.everyDays
    const grows = now.growth[zone]
    const left = now.leftMm?.[zone] ?? 0
    return grows !== undefined && shownOdds(figures, grows, kind, left, days) >= figures(C.shows)
  }
  const base = {
    ...{ service: job.service, method: job.method },
    ...(job.everyDays !== undefined && { everyDays: job.everyDays }),
    name: jobName({ ...job, zones: job.zones === null ? null : upkeep.zones }),
    ...{ visitId: job.visitId, lastAtMs: job.endedAtMs },
    ...{ fromMs: window?.fromMs ?? null, toMs: window?.toMs ?? null },
  }
  const due = upkeep.zones.filter((z) => shows(z) && ready(z))
  // The interval that skin or school asks for, or the client's own rhythm, has passed.
  const open = window !== null && nowMs >= window.fromMs
  if (open && due.length > 0) {
    const later = upkeep.zones.filter((z) => !due.includes(z))
    return { ...base, zones: due, later, state: 'due' }
  }
  const hairDays = (w: VisitWindow) => job.everyDays ?? w[kind].even
  const calm = upkeep.zones.filter(ready)
  const dueMs = window && Math.max(window.fromMs, job.endedAtMs + hairDays(window) * DAY_MS)
  const of = dueMs === null ? Infinity : (dueMs - sinceMs) / DAY_MS
  const rested = (nowMs - sinceMs) / DAY_MS
  const left = of - rested
  if (calm.length === upkeep.zones.length && left >= 0 && left <= figures(C.nearlyShare) * of) {
    const loads = upkeep.zones.map((z) => job.loads?.[z] ?? 0)
    const load = loads.reduce((s, l) => s + l, 0) / loads.length
    const saves = { days: left, of, load, moreInAYear: load * (365 / rested - 365 / of) }
    return { ...base, zones: upkeep.zones, later: [], state: 'nearly', saves }
  }
  return { ...base, zones: upkeep.zones, later: [], state: 'waits' }
}

/** Why work is due, nearly due or waits, in a sentence. */
export function dueWords(due: DueWork, day: (ms: number) => string): string {
  const { state, zones, later, saves, fromMs } = due
  switch (state) {
    case 'due':
      return later.length === 0
        ? 'Hair shows and the skin is ready.'
        : `Hair shows and the skin is ready on ${areaWords(zones)}; not yet on ${areaWords(later)}.`
    case 'nearly': {
      const { days, of, load, moreInAYear } = saves!
      const left = Math.max(1, Math.round(days))
      return `Due in ${left} ${left === 1 ? 'day' : 'days'}. Done now it saves a visit; its skin bears load ${load.toFixed(1)} after ${Math.round(of - days)} days instead of ${Math.round(of)}, ${moreInAYear.toFixed(1)} more in a year if kept up.`
    }
    case 'waits':
      return fromMs === null ? 'No day can be told yet.' : `Good from ${day(fromMs)}.`
  }
}

/** The work that the client usually comes for, where it was ever done. */
export const usualWork = (due: readonly DueWork[], service: Work['service']): DueWork | undefined =>
  due.find((d) => d.service === service && isPlanned(d.method))

/** The line of one kind of work on the tide line. */
export const lineOf = <L extends { readonly id: string }>(
  tide: { readonly others: readonly L[] } & L,
  work: Pick<Work, 'service' | 'method'> | undefined,
): L | undefined => work && [tide, ...tide.others].find((l) => l.id === kindOfWork(work))
