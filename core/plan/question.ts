/** What planning a zone depends on, and what is remembered between plans of the same skin. */
import type { Figures, Schools } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'
import type { SurfaceNotes } from '../hair/index.ts'
import type { Vec3 } from '../head/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { Growth } from '../regrowth/index.ts'
import type { Screening } from '../screening/index.ts'
import type { ServiceId } from '../services/index.ts'
import type { Sensitivity } from '../skin/index.ts'
import type { BladeId, Level } from '../kit/index.ts'
import type { Cover } from './cover.ts'
import type { findStance, Room } from './handle.ts'
import type { Hand, Hazard } from './hands.ts'
import type { LaneShape } from './lanes.ts'
import type { ZoneSkin } from './skin.ts'
import type { ToolChoice } from './tools.ts'
import type { PlanChoice } from './types.ts'

/** What planning a zone depends on besides its skin. */
export interface ZoneQuestion {
  readonly figures: Figures
  readonly service: ServiceId
  readonly jobId: string
  readonly client: SkinAndHair
  readonly screening: Screening
  readonly schools: Schools
  readonly hand: Hand
  readonly level: Level
  readonly kit: readonly BladeId[]
  readonly tools: ToolChoice
  readonly room?: Room | undefined
  readonly hazards: readonly Hazard[]
  readonly sensitivity: (zoneId: ZoneId) => Sensitivity
  readonly growth: (zoneId: ZoneId) => Growth
  readonly notes: Pick<SurfaceNotes, 'keptZones' | 'hair' | 'strays'>
  readonly choice: PlanChoice
  readonly memory: PlanMemory
}

/** What does not change while plans of the same skin are compared and edited. */
export class PlanMemory {
  readonly skins = new Map<ZoneId, ZoneSkin>()
  readonly covers = new Map<string, { cover: Cover; shapes: LaneShape[]; packed: string }>()
  readonly lanes = new Map<string, LaneMeasure>()
  /** Orders found, by all that they hang on. */
  readonly orders = new Map<string, readonly number[]>()
}

/** What a lane measures in one direction of stroke. */
export interface LaneMeasure {
  readonly stroke: Vec3
  readonly extent: { lengthMm: number; widthMm: number }
  readonly radiusMm: number
  readonly stances: Map<string, ReturnType<typeof findStance>>
  anchor?: string
}
