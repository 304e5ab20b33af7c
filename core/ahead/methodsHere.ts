/** What each way of taking hair off would come to in one place for one client: odds, and a year of it; and how long hair is there now. */
import { constant, type Figures } from '../house/index.ts'
import {
  hairSince,
  HOME_TOOL_WORDS,
  homeSince,
  meanLeft,
  type AskMethod,
  type HomeWork,
  type MethodOdds,
  type PastJob,
} from '../history/index.ts'
import { BLADES } from '../kit/index.ts'
import { KIT_CONSTANTS } from '../plan/index.ts'
import {
  daysUntil,
  daysUntilLength,
  growthAfter,
  GROWTH_CONSTANTS,
  lengthAfter,
  shownOdds,
  type DayRange,
  type Growth,
} from '../regrowth/index.ts'
import {
  byRoot,
  HAND_METHODS,
  isPlanned,
  jobName,
  METHODS,
  type Method,
} from '../services/index.ts'
import { sum } from '../stats/index.ts'
import { DAY_MS } from '../time/index.ts'
import {
  changes,
  COARSE_BY,
  coarseGrowth,
  growthUnder,
  hairsLeft,
  laserGrowth,
  oddsUnder,
  together,
  type CoarseBy,
  type Part,
  type Supposed,
  type Together,
} from './methodsUnder.ts'
import type { ZoneId } from '../zones/index.ts'

export const YEAR_CONSTANTS = {
  bladeMin: constant(2, 'min', 'Blade, a zone, all passes', 'H'),
  guardedMin: constant(1.2, 'min', 'Guarded blade, a zone', 'H'),
  untouchedFuzz: constant(1.5, 'mm', 'Usual length of fuzz that was never worked', 'H'),
  untouched: constant(2, 'mm', 'Usual length of hair that was never worked here', 'H'),
} as const

const C = YEAR_CONSTANTS
const YEAR = 365.25

/** A year of a method in one place, as often as its hair asks for it. */
export interface MethodYear {
  /** Days from one visit to the next: even odds, and the range of 80 %. */
  readonly every: DayRange
  readonly visits: number
  /** Days of the year on which no hair is felt: mean, and between what it is with 80 % where every time comes early, or late. */
  readonly smooth: { readonly mean: number; readonly early: number; readonly late: number }
  /** Minutes at that place, and what is used up, in the house's money. */
  readonly minutes: number
  readonly cost: number
}

export interface MethodHere extends MethodOdds {
  /** Days until hair is felt again: even odds, and the range of 80 %. */
  readonly felt: DayRange
  /** None where hair never grows as long as the method needs, or is never smooth. */
  readonly year?: MethodYear
}

/** A place of a client as the adviser looks at it. */
export interface ZoneHere {
  readonly zoneId: ZoneId
  readonly methods: readonly MethodHere[]
  /** What was last done there, here or at home. */
  readonly last?: { readonly name: string; readonly atMs: number; readonly home: boolean }
  /** Length now, worked out from growth: mm. */
  readonly lengthMm: number
  /** Whether what was supposed changes anything here. */
  readonly supposed: Supposed
  /** Coarse hairs by one way, fuzz by a blade: on a face's fuzz. */
  readonly together: readonly (Together & { readonly coarse: CoarseBy })[]
}

export interface HereInput {
  readonly zoneId: ZoneId
  readonly growth: Growth
  /** Jobs of finished visits, newest first. */
  readonly past: readonly PastJob[]
  readonly home: readonly HomeWork[]
  readonly ask: AskMethod
  readonly nowMs: number
  /** What hair is supposed to be there; as it is when left out. */
  readonly supposed?: Supposed
}

/** A place of a client. */
export function zoneHere(figures: Figures, input: HereInput): ZoneHere {
  const { zoneId, ask, supposed = 'as-is' } = input
  const here = changes(supposed, zoneId, input.growth)
  const growth = growthUnder(figures, supposed, zoneId, input.growth)
  const laser = here && supposed === 'laser'
  return {
    zoneId,
    methods: METHODS.map((method) => {
      const { part, year } = partOf(figures, input, method, growth, laser)
      return { ...ask(method, zoneId), ...part.odds, felt: part.felt, ...(year && { year }) }
    }),
    together: COARSE_BY.flatMap((coarse) => {
      const both = togetherBy(figures, input, coarse)
      return both ? [{ coarse, ...both }] : []
    }),
    supposed: here ? supposed : 'as-is',
    ...lastAndLength(figures, input),
  }
}

/** One method on hair that grows so. */
function partOf(
  figures: Figures,
  input: HereInput,
  method: Method,
  grows: Growth,
  laser: boolean,
): { part: Part; year: MethodYear | undefined } {
  const leftMm = leftBy(figures, input, method)
  const growth = growthAfter(figures, grows, method)
  const felt = daysUntil(figures, growth, 'felt', leftMm)
  const share = isPlanned(method) ? 1 : hairsLeft(figures, laser)
  const minutes = share * minutesOf(figures, method)
  const odds = oddsUnder(figures, laser, input.ask(method, input.zoneId))
  return {
    part: {
      ...{ method, growth, leftMm, felt, minutes },
      every: everyOf(figures, growth, method, felt, leftMm),
      cost: costOf(figures, method),
      odds: { redness: odds.redness, bumps: odds.bumps },
    },
    year: yearOf(figures, growth, method, felt, leftMm, minutes),
  }
}

/** Coarse hairs by one way, the fuzz between by a blade. */
function togetherBy(figures: Figures, input: HereInput, by: CoarseBy): Together | undefined {
  if (!changes('hormonal', input.zoneId, input.growth)) return undefined
  const laser = by === 'laser'
  const coarse = laser ? laserGrowth(figures, coarseGrowth(figures)) : coarseGrowth(figures)
  // What laser left is cut with the fuzz.
  const method = laser ? 'guarded' : by
  return together(
    figures,
    partOf(figures, input, method, coarse, laser).part,
    partOf(figures, input, 'guarded', input.growth, false).part,
  )
}

/** Hair that a method leaves there, mm: the mean of the client's own times. */
function leftBy(
  figures: Figures,
  { past, zoneId }: Pick<HereInput, 'past' | 'zoneId'>,
  method: Method,
) {
  if (byRoot(method)) return 0
  const own = past.filter((p) => p.method === method).flatMap((p) => p.leftMm?.[zoneId] ?? [])
  if (own.length > 0) return sum(own) / own.length
  const left = isPlanned(method) ? undefined : HAND_METHODS[method].left
  return left ? figures(left) : meanLeft(null)
}

function yearOf(
  figures: Figures,
  growth: Growth,
  method: Method,
  felt: DayRange,
  left: number,
  minutes: number,
): MethodYear | undefined {
  if (felt.even <= 0) return undefined
  const every = everyOf(figures, growth, method, felt, left)
  if (!Number.isFinite(every.even)) return undefined
  const visits = YEAR / every.even
  const days = (f: number) => visits * Math.min(f, every.even)
  return {
    ...{ every, visits },
    smooth: {
      mean: visits * smoothDays(figures, growth, left, every.even),
      ...{ early: days(felt.early), late: days(felt.late) },
    },
    minutes: visits * minutes,
    cost: visits * costOf(figures, method),
  }
}

/** Steps over which the days between two visits are summed. */
const STEPS = 40

/** Mean of the days of `every` on which hair is not felt yet: the sum of the odds that it is not. */
function smoothDays(figures: Figures, growth: Growth, left: number, every: number): number {
  const step = every / STEPS
  const calm = (i: number) => 1 - shownOdds(figures, growth, 'felt', left, (i + 0.5) * step)
  return sum(Array.from({ length: STEPS }, (_, i) => calm(i) * step))
}

/** A cut is renewed when it is seen; what tears, when it is felt and long enough to be torn. */
function everyOf(
  figures: Figures,
  growth: Growth,
  method: Method,
  felt: DayRange,
  left: number,
): DayRange {
  if (!byRoot(method)) return daysUntil(figures, growth, 'seen', left)
  if (method !== 'wax') return felt
  const long = daysUntilLength(figures, growth, figures(GROWTH_CONSTANTS.waxMm), left)
  const later = (k: keyof DayRange) => Math.max(felt[k], long[k])
  return { even: later('even'), early: later('early'), late: later('late') }
}

function minutesOf(figures: Figures, method: Method): number {
  if (method === 'blade') return figures(C.bladeMin)
  return figures(isPlanned(method) ? C.guardedMin : HAND_METHODS[method].minutes)
}

function costOf(figures: Figures, method: Method): number {
  if (method === 'blade') return figures(BLADES.shavette.price) + figures(KIT_CONSTANTS.latherCost)
  if (isPlanned(method)) return figures(BLADES.guarded.price)
  const { uses } = HAND_METHODS[method]
  return uses ? figures(uses.cost) : 0
}

/** The last that was done to a place, and what grew since. */
function lastAndLength(
  figures: Figures,
  { zoneId, growth, past, home, nowMs }: HereInput,
): Pick<ZoneHere, 'last' | 'lengthMm'> {
  const job = past.find((p) => p.leftMm?.[zoneId] !== undefined)
  const [own] = homeSince(home, job?.endedAtMs ?? 0).filter((h) => h.zones.includes(zoneId))
  const untouched = figures(growth.curve === 'fuzz' ? C.untouchedFuzz : C.untouched)
  // Where nothing was ever done here, hair stood as it usually does until now, or until it was taken off at home.
  const endedAtMs = own ? own.atMs - 1 : nowMs
  const from = job ?? { endedAtMs, leftMm: { [zoneId]: untouched }, method: 'blade' }
  const now = hairSince(figures, from, { [zoneId]: growth }, home)
  const then = now.growth[zoneId]!
  const days = (nowMs - from.endedAtMs) / DAY_MS
  const last = own
    ? { name: HOME_TOOL_WORDS[own.tool], atMs: own.atMs, home: true }
    : job && { name: jobName({ ...job, zones: [zoneId] }), atMs: job.endedAtMs, home: false }
  return {
    ...(last && { last }),
    lengthMm: lengthAfter(figures, then, now.leftMm![zoneId]!, then.mean, days),
  }
}
