/**
 * What a service is: one record that every station reads. A new service is one file with such a record and one line in the
 * list of index.ts; a question about a service that its record does not answer is a field that is missing here.
 */
import type { SkinAndHair } from '../client.ts'
import type { Relation } from '../grain/index.ts'
import type { ViewId } from '../head/index.ts'
import type { Constant, Figures, Schools } from '../house/index.ts'
import type { BladeId, Level } from '../kit/index.ts'
import type { ToolKind } from '../skin/index.ts'
import type { ZoneId, ZoneStem } from '../zones/index.ts'
import type { RuleEffect } from './effect.ts'

/** Razor services cut terminal hair; fuzz services take vellus hair and dead skin. */
export type ServiceFamily = 'razor' | 'fuzz'

/** How the client is placed for a service. */
export type Posture = 'reclined' | 'upright' | 'lying'

/** What part of a zone is worked: a share of its area, counted from one edge. */
export interface Worked {
  readonly share: number
  /** The edge the share is counted from; of a whole zone it does not matter. */
  readonly from: 'top' | 'bottom' | 'front'
  /** No part of the whole service: worked where it is asked for. */
  readonly byWish?: true
}

/** The three kinds of plan that are laid side by side. */
export const STYLES = ['gentlest', 'balanced', 'closest'] as const
export type Style = (typeof STYLES)[number]

/** Where a stroke is wanted: turned against the growth, or one way over the whole zone whatever the growth. */
export type Wanted = Relation | 'fixed'

/** What the choice of blades hangs on. */
export interface BladeWish {
  readonly level: Level
  readonly client: Pick<SkinAndHair, 'reactivity' | 'bumpProne'>
}

/** Blades that a plan keeps to. */
export interface BladeSet {
  readonly ids: readonly BladeId[]
  readonly why: string
}

/** What the strokes of a zone hang on. */
export interface StrokeWish {
  /** Tool of the razor work. */
  readonly tool: ToolKind
  /** True where another tool goes before it. */
  readonly toolBefore: boolean
  /** What was asked calls for strokes with the grain alone. */
  readonly careful: boolean
  readonly bumpProne: boolean
  readonly curlTight: boolean
  /** Fine, sparse hair on a client known to take it. */
  readonly thin: boolean
  readonly schools: Schools
}

/** Gives a reason for the plan; without a mark it is common practice. */
export type Say = (text: string) => void

/** A step before the first stroke or after the last one. */
export interface RoutineStep {
  readonly id: string
  readonly title: string
  readonly text: string
  readonly minutes: number
  /** What is laid on the skin with it. */
  readonly lays?: 'towel' | 'lather'
  /** What lies under the blade instead of lather, and how long it stays wet. */
  readonly film?: Film | undefined
  /** Where zones differ in it: null where the skin is dry. */
  readonly films?: FilmsByZone | undefined
}

/** What lies under the blade by zone, null on dry skin. */
export type FilmsByZone = Readonly<Partial<Record<ZoneId, Film | null>>>

/** What lies under the blade instead of lather. */
export interface Film {
  readonly name: string
  readonly lastsMin: number
}

/** What the words and times of the routine hang on. */
export interface RoutineWish {
  readonly figures: Figures
  readonly schools: Schools
  /** "; nothing scented", or nothing. */
  readonly plain: string
  /** What lies under the blade in each zone that is worked, where fuzz is taken off. */
  readonly slips?:
    readonly { readonly zoneId: ZoneId; readonly slip: Schools['fuzzSlip'] }[] | undefined
  /** Reactive skin: nothing rubs within a day of a blade. */
  readonly sensitive?: boolean | undefined
}

export interface Service {
  readonly id: string
  readonly name: string
  /** In a word, where there is room for no more. */
  readonly short: string
  readonly family: ServiceFamily
  /** Where it takes place: on the head, or on the flat outlines of the body. */
  readonly ground: 'head' | 'body'
  /** How the client is placed: lying back with the head at the worker's end, sitting up, or lying down. */
  readonly posture: Posture
  /** What it takes of the house's places. */
  readonly station: 'chair' | 'bed'
  /** Usual time on the book, minutes. */
  readonly slotMin: Constant
  /** By the house's list. */
  readonly price: Constant
  /** Zones worked, with the part of each that usually carries the hair, in the order in which they are named. */
  readonly zones: Partial<Readonly<Record<ZoneStem, Worked>>>
  /**
   * Only a band along the drawn lines is worked, not the zones between them: the zones that each kind of line borders. Others
   * stay, though a line ends beside them.
   */
  readonly alongLines?: Readonly<Partial<Record<string, readonly ZoneStem[]>>>
  /** Kinds of lines without which it is not planned: what lies between them stays. */
  readonly edges?: readonly string[]
  /** What stays unless it is asked for, and why. */
  readonly keeps?: { readonly stems: readonly ZoneStem[]; readonly why: string }
  /** Hand tools that lie ready besides the blades. */
  readonly tools?: readonly string[]

  /** Steps before the first stroke. */
  readonly prepare: (wish: RoutineWish) => readonly RoutineStep[]
  /** Lather lies under the blade: it dries and is renewed. */
  readonly lather: boolean
  /** What the second look does. */
  readonly secondLook: string
  /** What cools the skin at the end: the towel that was kept back, a compress, or nothing. */
  readonly cools: 'towel' | 'compress' | 'nothing'
  /** Towels laid out; a figure of the house, or a plain number. */
  readonly towels: Constant | number

  /** Blades that serve, the usual ones first. */
  readonly blades: readonly BladeId[]
  /** A tool that may go before them, where the house's school says so. */
  readonly first?: { readonly id: BladeId; readonly when: (schools: Schools) => boolean }
  /** Sets of them that a plan may keep to, the usual one first, with the reason where there is one to tell; all of them when left out. */
  readonly sets?: (wish: BladeWish) => readonly BladeSet[]
  /** The blade is changed halfway where the school changes it by feel. */
  readonly changesByFeel?: boolean
  /** The school for bump-prone beards, clippers alone among its answers, speaks of this service. */
  readonly clippersSchool?: boolean
  /** The rows of strokes that a zone may get by school and trade, each in order, the gentlest first, with their reasons. */
  readonly sequences: (wish: StrokeWish, say: Say) => readonly (readonly Wanted[])[]
  /** The blade, once it is a razor, goes with the grain alone. */
  readonly withOnly?: boolean
  /**
   * What decides the order of lanes: the house's school for faces, the heavier side first, bands one after the other, or the
   * fewest changes alone.
   */
  readonly order: 'school' | 'heavier-side' | 'fewest-changes' | readonly (readonly ZoneStem[])[]

  /** Views in which it is shown on paper; none on the body. */
  readonly views: readonly ViewId[]
  /** What is measured: in words; up to what length a row of Today shows it, and the tide line its forecast, mm. */
  readonly hair: { readonly words: string; readonly shownMm: number; readonly lineMm: number }
  /** Where the rules of asking differ from those of the family, by rule. */
  readonly asking: Readonly<Record<string, Partial<RuleEffect>>>
  /** The usual school wants a patch test before the first one. */
  readonly patchTest?: boolean
  /** Make-up goes where it works. */
  readonly underMakeUp: boolean
  /** What may be done alone between two whole services. */
  readonly between?: Between
}

/** A part of a service that may be done alone between whole ones. */
export interface Between {
  readonly kind: 'lip' | 'line'
  /** Hair of these places decides, when it is felt or seen again. */
  readonly stems: readonly ZoneStem[]
  readonly hair: 'felt' | 'seen'
  readonly leastDays: Constant
  readonly mostDays: number
  readonly why: (days: number) => string
}

const WHOLE: Worked = { share: 1, from: 'top' }

/** Zones worked as a whole. */
export function whole<S extends ZoneStem>(...stems: S[]): Record<S, Worked> {
  return Object.fromEntries(stems.map((s) => [s, WHOLE])) as Record<S, Worked>
}

/** A share of a zone, counted from an edge. */
export const part = (share: number, from: Worked['from']): Worked => ({ share, from })

/** The same where it is only worked if it is asked for. */
export const byWish = (worked: Worked): Worked => ({ ...worked, byWish: true })

/** The school's say on how often a beard is gone over. */
export const schoolSays = (words: string) => `School: ${words.toLowerCase()}.`
