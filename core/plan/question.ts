/** What planning a zone depends on, and what is remembered between plans of the same skin. */
import type { Figures, Schools } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'
import type { SurfaceNotes } from '../hair/index.ts'
import type { Vec3 } from '../head/index.ts'
import type { Landmarks } from '../head/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { Growth } from '../regrowth/index.ts'
import type { Screening } from '../screening/index.ts'
import type { ServiceId } from '../services/index.ts'
import type { Sensitivity, SkinRecord } from '../skin/index.ts'
import type { BladeId, Level } from '../kit/index.ts'
import type { findStance, Room } from './handle.ts'
import type { Hand, Hazard } from './hands.ts'
import type { Front } from './front.ts'
import type { LaneShape } from './lanes.ts'
import type { PressMap } from './presses.ts'
import type { ZoneSkin } from './skin.ts'
import type { ToolChoice } from './tools.ts'
import type { Pace } from './pace.ts'
import type { Hold, PlanChoice } from './types.ts'

/** What planning a zone depends on besides its skin. */
export interface ZoneQuestion {
  readonly figures: Figures
  readonly service: ServiceId
  /** Id of the job that a zone is worked for. */
  readonly jobOf: (zone: ZoneId) => string
  readonly client: SkinAndHair
  readonly screening: Screening
  readonly schools: Schools
  readonly record?: SkinRecord | undefined
  readonly hand: Hand
  readonly level: Level
  readonly pace: Pace
  readonly kit: readonly BladeId[]
  readonly tools: ToolChoice
  readonly room: Room | undefined
  /** What directions are told by; none on the body. */
  readonly landmarks: Landmarks | undefined
  readonly hazards: readonly Hazard[]
  readonly sensitivity: (zoneId: ZoneId) => Sensitivity
  readonly bumps: (zoneId: ZoneId) => Sensitivity
  readonly growth: (zoneId: ZoneId) => Growth
  /** Mean used share of a blade's life in this service, 0 to 1. */
  readonly wear: number
  /** The way across of a lane: that of its press. */
  readonly acrossOf: (skin: ZoneSkin, lane: LaneShape) => { chart: number; why: string }
  readonly notes: Pick<SurfaceNotes, 'keptZones' | 'hair' | 'strays' | 'lengthMm' | 'heavier'>
  readonly choice: PlanChoice
  readonly memory: PlanMemory
}

/** A zone parted into lanes. */
export interface Parted {
  readonly shapes: readonly LaneShape[]
  readonly packed: string
  /** Slivers beside eye, lip or brow that are left to tweezers, cm². */
  readonly tweezeCm2: number
}

/** What does not change while plans of the same skin are compared and edited. */
export class PlanMemory {
  readonly skins = new Map<ZoneId, ZoneSkin>()
  /** Presses and the parts of zones in them, by what parts them. */
  readonly presses = new Map<string, { map: PressMap; parted: ReadonlyMap<ZoneId, Parted> }>()
  readonly lanes = new Map<string, LaneMeasure>()
  readonly stances = new Map<string, ReturnType<typeof findStance>>()
  readonly holds = new Map<string, readonly Hold[]>()
  /** Fronts, by all that they hang on. */
  readonly fronts = new Map<string, Front>()
  /** Orders found, by all that they hang on. */
  readonly orders = new Map<string, readonly number[]>()
}

/** What a lane measures in one direction of stroke. */
export interface LaneMeasure {
  readonly stroke: Vec3
  readonly extent: { lengthMm: number; widthMm: number }
  readonly radiusMm: number
}
