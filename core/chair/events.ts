/** What can happen at the chair: one event each, made by a screen, numbered there, put in order by the server. */
import type { Vec3 } from '../head/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { BladeId } from '../kit/index.ts'
import type { Lane, PlanStep } from '../plan/index.ts'
import type { ChairEventKind } from './kinds.ts'

/** What was done about a nick. */
export const NICK_CARE = ['pressure', 'styptic', 'cold', 'plaster'] as const
export type NickCare = (typeof NICK_CARE)[number]

/** Why a blade was put away. */
export const BLADE_ENDS = ['planned', 'tug', 'pressure', 'dropped', 'by-hand', 'end'] as const
export type BladeEnd = (typeof BLADE_ENDS)[number]

/** A change of the rest of the plan while the service runs. What is settled stays as it is. */
export interface Amendment {
  /** What was changed and why, in a sentence. */
  readonly text: string
  /** Number of settled steps after which the new rest follows. */
  readonly after: number
  /** The rest, in order. */
  readonly steps: readonly PlanStep[]
  /** Lanes that are new or stroked otherwise. */
  readonly lanes: readonly Lane[]
  /** Zones that were parted anew, as packed covers. */
  readonly covers: readonly { readonly zoneId: ZoneId; readonly cover: string }[]
}

/** What an event says besides its kind; each kind uses its own. */
export interface ChairDetail {
  /** started: another client of the worker is in the chair too, and both go on. */
  readonly beside?: true | undefined
  /** started: the screen was without the house, and began on what it knew. */
  readonly away?: true | undefined
  /** blade-opened. */
  readonly bladeId?: BladeId | undefined
  /** blade-changed. */
  readonly why?: BladeEnd | undefined
  /** nick-told: the id of the nick's event; taken-back: the id of what was wrongly recorded; resumed: the news looked at. */
  readonly of?: string | undefined
  /** Where on the skin: nicks, redness, a direction felt. */
  readonly zoneId?: ZoneId | undefined
  readonly point?: Vec3 | undefined
  readonly normal?: Vec3 | undefined
  /** felt: growth there, root to tip, a unit tangent. */
  readonly tangent?: Vec3 | undefined
  readonly sizeMm?: number | undefined
  readonly did?: readonly NickCare[] | undefined
  /** Blood touched the worker's skin or a tool that stays. */
  readonly contact?: boolean | undefined
  /** Redness 0 to 4, and whether the skin has risen. */
  readonly grade?: number | undefined
  readonly welt?: boolean | undefined
  /** Towel: as the probe showed it, and put right by its calibration. */
  readonly rawC?: number | undefined
  readonly tempC?: number | undefined
  /** How far off the reading may be. */
  readonly withinC?: number | undefined
  /** prepared: what was done while a towel worked. */
  readonly task?: string | undefined
  readonly amendment?: Amendment | undefined
  /** patches-left: places that were missed and are not gone over. */
  readonly patches?: readonly { readonly zoneId: ZoneId; readonly point: Vec3 }[] | undefined
  /** looked: the first reading at the chair; zones that are not named are clear. paused: where to look first. */
  readonly zones?: readonly { readonly zoneId: ZoneId; readonly redness: number }[] | undefined
}

/** What a screen says has happened, before the server has given it its place. */
export interface ToldEvent {
  readonly id: string
  /** The screen that made it, and its own number there, rising. */
  readonly screen: string
  readonly n: number
  readonly kind: ChairEventKind
  readonly atMs: number
  /** Step the event belongs to; absent where it belongs to none. */
  readonly stepId?: string | undefined
  /** Why a step was skipped. */
  readonly reason?: string | undefined
  readonly detail?: ChairDetail | undefined
}

/** One event in its place. */
export interface ChairEvent extends ToldEvent {
  /** 1, 2, 3 … without gaps, in the order in which they count. */
  readonly seq: number
}

/** An event before its screen has numbered it. */
export type Draft = Pick<ToldEvent, 'kind' | 'stepId' | 'reason' | 'detail'>
