/**
 * What a client takes off at home between visits. Nobody there knows the grain: a stroke runs anyhow against it, which costs the
 * skin; hair begins anew where it was cut; and what is seen of hair and skin afterwards no longer speaks of the last service.
 */
import { constant, type Figures, type Schools } from '../house/index.ts'
import { stubbleLeftMm } from '../plan/index.ts'
import { growthAfter, type Growth, type PartCut, type Rest } from '../regrowth/index.ts'
import { LOAD_CONSTANTS, passLoadBy, type Coarseness, type ToolKind } from '../skin/index.ts'
import { areaWords } from '../services/index.ts'
import { DAY_MS, HOUR_MS } from '../time/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { KeptHair } from './learn.ts'

export const HOME_TOOLS = ['cartridge', 'safety', 'guarded', 'trimmer', 'epilator'] as const
export type HomeTool = (typeof HOME_TOOLS)[number]

export const HOME_TOOL_WORDS: Readonly<Record<HomeTool, string>> = {
  cartridge: 'cartridge razor',
  safety: 'safety razor',
  guarded: 'facial razor',
  trimmer: 'trimmer',
  epilator: 'epilator or wax',
}

/** Work that a client did at home, as it was told. */
export interface HomeWork {
  readonly id: string
  /** Noon of the day on which it was done. */
  readonly atMs: number
  readonly zones: readonly ZoneId[]
  readonly tool: HomeTool
  /** A fresh blade was taken for it. */
  readonly fresh: boolean
  /** The blade tugged, or is rusty. */
  readonly dull: boolean
  readonly source: 'client' | 'worker'
  readonly toldAtMs: number
}

export const HOME_CONSTANTS = {
  homeAgain: constant(
    0.5,
    '',
    'Share of the skin that is gone over once more at home, where nobody counts',
    'H',
  ),
  homeWear: constant(0.6, '', 'Used share of a blade’s life at home, mean', 'H'),
  homeRootLoad: constant(1.6, '', 'Load of an epilator or wax at home', 'H'),
  homeLookHours: constant(
    60,
    'h',
    'Home work so soon after a service hides how that skin took the service',
    'H',
  ),
} as const

const C = HOME_CONSTANTS

const KINDS: Readonly<Record<Exclude<HomeTool, 'epilator'>, ToolKind>> = {
  cartridge: 'cartridge',
  safety: 'headed',
  guarded: 'guarded',
  trimmer: 'trimmer',
}

/** Strokes that run anyhow against the growth: every angle from with to against is alike. */
const ANYHOW = Array.from({ length: 36 }, (_, i) => ((i + 0.5) / 36) * Math.PI)
const WITH = [0]

function loadOver(
  figures: Figures,
  tool: Exclude<HomeTool, 'epilator'>,
  angles: readonly number[],
  coarse: Coarseness,
): number {
  const fuzz = tool === 'guarded'
  const load = passLoadBy(figures, {
    tool: KINDS[tool],
    slip: 'damp',
    hair: fuzz ? 'fuzz' : 'terminal',
    wear: figures(C.homeWear),
    ...(!fuzz && { uncut: coarse }),
    again: false,
  })
  const once = angles.reduce((s, a) => s + load(a), 0) / angles.length
  // What is gone over once more bears the factor of that, too.
  return once * (1 + figures(C.homeAgain) * (figures(LOAD_CONSTANTS.goneOverAgain) - 1))
}

/** Load that home work gives to each of its zones, and what it would be with the grain alone. */
export function homeLoad(
  figures: Figures,
  tool: HomeTool,
  coarse: Coarseness,
): { readonly load: number; readonly withGrain: number } {
  if (tool === 'epilator') {
    const load = figures(C.homeRootLoad)
    return { load, withGrain: load }
  }
  return {
    load: loadOver(figures, tool, ANYHOW, coarse),
    withGrain: loadOver(figures, tool, WITH, coarse),
  }
}

/** Hair that it leaves standing, mm. */
export function homeLeftMm(figures: Figures, tool: HomeTool): number {
  if (tool === 'epilator') return 0
  const left = ANYHOW.map((a) => stubbleLeftMm(figures, a, KINDS[tool]))
  return left.reduce((s, mm) => s + mm, 0) / left.length
}

/** Home work after a moment, the latest first. */
export const homeSince = (home: readonly HomeWork[], sinceMs: number): HomeWork[] =>
  home.filter((h) => h.atMs > sinceMs).sort((a, b) => b.atMs - a.atMs)

/** Until when, from a service on, nothing of the hair that grows now was there: what was torn at home rests on, as after wax. */
function restAt(figures: Figures, growth: Growth, own: HomeWork, sinceMs: number): Rest {
  const untilDays = (own.atMs - sinceMs) / DAY_MS
  const torn = own.tool === 'epilator' ? growthAfter(figures, growth, 'wax').rest : undefined
  const days = untilDays + (torn?.days ?? 0)
  // A cut does not wake what still rests.
  if (growth.rest && growth.rest.days > days) return growth.rest
  return { days, spread: torn ? (torn.spread * torn.days) / days : 0 }
}

/** Hair as it stands since a service. */
export interface HairSince {
  readonly leftMm: Readonly<Record<string, number>> | null
  readonly growth: Readonly<Record<string, Growth>>
  /** The last work at home that touched its zones. */
  readonly latest: HomeWork | undefined
}

/** What was cut at home of some skin: the share of it, and the hair that was left, mm. */
export const cutsAtHome = (
  figures: Figures,
  zones: readonly ZoneId[],
  home: readonly HomeWork[],
): (PartCut & { readonly work: HomeWork })[] =>
  home.flatMap((work) => {
    const own = work.zones.filter((z) => zones.includes(z)).length
    const { atMs, tool } = work
    return own > 0
      ? [{ atMs, share: own / zones.length, leftMm: homeLeftMm(figures, tool), work }]
      : []
  })

/** Hair after a service with what was done at home since: where it was cut, it begins from there. */
export function afterHome(
  figures: Figures,
  last: {
    readonly endedAtMs: number
    readonly leftMm: Readonly<Record<string, number>> | null
  },
  growth: Readonly<Record<string, Growth>>,
  home: readonly HomeWork[],
): HairSince {
  const since = homeSince(home, last.endedAtMs)
  const leftMm = { ...last.leftMm }
  const grows = { ...growth }
  let latest: HomeWork | undefined
  for (const zone of Object.keys(leftMm)) {
    const own = since.find((h) => h.zones.includes(zone as ZoneId))
    if (!own) continue
    if (!latest || own.atMs > latest.atMs) latest = own
    leftMm[zone] = homeLeftMm(figures, own.tool)
    const before = grows[zone]
    if (before) grows[zone] = { ...before, rest: restAt(figures, before, own, last.endedAtMs) }
  }
  return { leftMm: last.leftMm && leftMm, growth: grows, latest }
}

/** Readings of hair that home work has not made worthless: after it hair was another's. */
export const notCutAtHome = (
  hair: readonly KeptHair[],
  home: readonly HomeWork[],
): readonly KeptHair[] =>
  home.length === 0
    ? hair
    : hair.filter((h) => {
        const endedAtMs = h.atMs - h.days * DAY_MS
        return !home.some(
          (w) =>
            w.atMs > endedAtMs &&
            w.atMs <= h.atMs &&
            (h.zoneId === null || w.zones.includes(h.zoneId as ZoneId)),
        )
      })

/** Zones whose skin no longer tells how it took a service: something was done there at home too soon after it. */
export const hiddenByHome = (
  figures: Figures,
  endedAtMs: number,
  home: readonly HomeWork[],
): ReadonlySet<string> =>
  new Set(
    home
      .filter((w) => w.atMs > endedAtMs && w.atMs < endedAtMs + figures(C.homeLookHours) * HOUR_MS)
      .flatMap((w) => w.zones),
  )

/** Uses of a home razor by the school chosen, the most of them. */
export const HOME_RAZOR_USES: Readonly<Record<Schools['homeRazor'], number>> = {
  once: 1,
  few: 4,
  many: 10,
}

/** How often a home razor was used since a fresh blade, and whether it is over. */
export function razorUses(
  home: readonly HomeWork[],
  tool: HomeTool,
  school: Schools['homeRazor'],
): {
  readonly uses: number
  readonly most: number
  readonly over: boolean
  readonly dull: boolean
} {
  const own = [...home].filter((h) => h.tool === tool).sort((a, b) => b.atMs - a.atMs)
  const fresh = own.findIndex((h) => h.fresh)
  const since = fresh < 0 ? own : own.slice(0, fresh + 1)
  const most = HOME_RAZOR_USES[school]
  const dull = since.some((h) => h.dull)
  return { uses: since.length, most, over: dull || since.length >= most, dull }
}

/** Home work in a few words: "the upper neck, cartridge razor". */
export const homeWords = ({ zones, tool }: Pick<HomeWork, 'zones' | 'tool'>): string =>
  `${areaWords(zones)}, ${HOME_TOOL_WORDS[tool]}`
