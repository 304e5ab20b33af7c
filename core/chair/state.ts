/** Where a service stands: the state that events lead to, and the plan as amended so far. */
import type { Vec3 } from '../head/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { BladeId } from '../kit/index.ts'
import type { Plan } from '../plan/index.ts'
import type { BladeEnd, NickCare } from './events.ts'

export interface Nick {
  /** Id of the event. */
  readonly id: string
  readonly stepId: string
  readonly atMs: number
  readonly zoneId?: ZoneId | undefined
  readonly point?: Vec3 | undefined
  readonly normal?: Vec3 | undefined
  readonly sizeMm?: number | undefined
  readonly did?: readonly NickCare[] | undefined
  readonly contact?: boolean | undefined
}

/** A blade opened for this client. */
export interface OpenedBlade {
  /** Undefined in services kept before blades were told apart. */
  readonly bladeId?: BladeId | undefined
  readonly openedAtMs: number
  readonly strokes: number
  /** Set when it tugged or needed pressure: it is changed before the next stroke. */
  readonly worn?: 'tug' | 'pressure' | undefined
  /** Why it was put away; a blade in use has none. */
  readonly end?: BladeEnd | undefined
  readonly endedAtMs?: number | undefined
}

/** A towel from the warmer to the skin. */
export interface Towel {
  readonly outAtMs: number
  readonly reads: readonly {
    readonly atMs: number
    readonly tempC: number
    /** How far off it may be. */
    readonly withinC: number
  }[]
  readonly askedAtMs?: number | undefined
  /** When it was felt on the worker's wrist and the client was asked: it may be laid. */
  readonly wristAtMs?: number | undefined
  readonly laidAtMs?: number | undefined
  readonly offAtMs?: number | undefined
}

export interface RedSpot {
  /** Id of the event. */
  readonly id: string
  readonly stepId: string
  readonly zoneId: ZoneId
  readonly grade: number
  readonly welt: boolean
  readonly atMs: number
}

/** A direction of growth felt at the chair, where none had been read. */
export interface Felt {
  /** Id of the event, and of the reading that it becomes. */
  readonly id: string
  readonly atMs: number
  readonly point: Vec3
  readonly normal: Vec3
  readonly tangent: Vec3
}

/** A patch that was missed and left. */
export interface LeftPatch {
  readonly zoneId: ZoneId
  readonly point: Vec3
}

/** What came in while the service ran and wants a look before the next stroke. */
export interface News {
  /** The event that told it last: whoever goes on names it, so that nobody goes on from what they have not heard. */
  readonly id: string
  readonly words: string
  readonly zones: readonly ZoneId[]
}

/** Where a service stands. */
export interface ChairState {
  readonly status: 'waiting' | 'running' | 'paused' | 'finished'
  /** What somebody must look at before the service goes on; absent in a pause of the worker's own. */
  readonly pausedFor?: News | undefined
  /** Index of the current step; the number of steps when all are settled. */
  readonly index: number
  /** What became of each step. */
  readonly outcomes: Readonly<Record<string, 'done' | 'skipped'>>
  readonly skipReasons: Readonly<Record<string, string>>
  readonly nicks: readonly Nick[]
  readonly tugs: readonly { stepId: string; atMs: number; pressure: boolean }[]
  readonly redness: readonly RedSpot[]
  readonly blades: readonly OpenedBlade[]
  /** For each stroke step done, the blade it was done with (index into `blades`). */
  readonly onBlade: Readonly<Record<string, number>>
  readonly towels: Readonly<Record<string, Towel>>
  /** When each zone was last lathered. */
  readonly lathered: Readonly<Record<string, number>>
  /** When implements went into the disinfectant. */
  readonly soakedAtMs?: number | undefined
  readonly prepared: readonly string[]
  /** How long each stroke step took that was gone through undisturbed, seconds. */
  readonly laneSeconds: Readonly<Record<string, number>>
  /** Since when the current step has gone on undisturbed; absent after anything else was told in it. */
  readonly steadyMs?: number | undefined
  /** What was changed of the plan on the way. */
  readonly amendments: readonly { readonly text: string; readonly atMs: number }[]
  readonly looked?: readonly { readonly zoneId: ZoneId; readonly redness: number }[] | undefined
  /** Directions felt where the plan only guessed, by zone. */
  readonly felt: Readonly<Partial<Record<ZoneId, Felt>>>
  readonly patchesLeft: readonly LeftPatch[]
  /** Ids of events that were taken back. */
  readonly takenBack: readonly string[]
  /** Id of the event that started the service. */
  readonly startId?: string | undefined
  readonly startedAtMs?: number | undefined
  readonly finishedAtMs?: number | undefined
  /** Worked time up to the last event, without pauses; a clock that was set back adds nothing. */
  readonly spentMs: number
  readonly lastAtMs: number
  /** Number of the last event that counted. */
  readonly seq: number
}

export const BEFORE_START: ChairState = {
  status: 'waiting',
  index: 0,
  outcomes: {},
  skipReasons: {},
  nicks: [],
  tugs: [],
  redness: [],
  blades: [],
  onBlade: {},
  laneSeconds: {},
  towels: {},
  lathered: {},
  prepared: [],
  amendments: [],
  felt: {},
  patchesLeft: [],
  takenBack: [],
  spentMs: 0,
  lastAtMs: 0,
  seq: 0,
}

/** What of a plan the chair follows. */
export type ChairPlan = Pick<Plan, 'steps'> & Partial<Pick<Plan, 'lanes' | 'zones'>>

/** A service under way: the plan as amended so far, and where it stands. */
export interface Live<P extends ChairPlan = Plan> {
  readonly plan: P
  readonly state: ChairState
}

export const begin = <P extends ChairPlan>(plan: P): Live<P> => ({ plan, state: BEFORE_START })
