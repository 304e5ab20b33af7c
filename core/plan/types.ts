/** The plan of a service: what was decided, zone by zone, with the reasons. Plain data; it travels and is kept as it is. */
import type { Relation } from '../grain/relation.ts'
import type { ZoneId } from '../head/zones.ts'
import type { Mark } from '../house/constants.ts'
import type { Schools } from '../house/schools.ts'
import type { Screening } from '../screening/screen.ts'
import type { ServiceId } from '../services.ts'
import type { Stance } from './hands.ts'

/** Why something was decided, and where that comes from. */
export interface Reason {
  readonly text: string
  readonly mark: Mark
}

/** One pass over one zone. */
export interface PlannedPass {
  readonly pass: number
  readonly relation: Relation
  /** Radians clockwise from 12. */
  readonly strokeBearing: number
  readonly load: number
  /** Hours of smoothness of the zone with this pass as its last. */
  readonly smoothHours: number
  /** P(redness ≥ 2 within 48 h) with all passes up to this one. */
  readonly rednessOdds: number
}

/** A pass that was thought of and not planned. */
export interface RefusedPass {
  readonly relation: Relation
  readonly reason: string
  readonly load: number
  readonly gainHours: number
  readonly rednessOdds: number
}

/** What is planned for a zone. */
export interface ZonePlan {
  readonly zoneId: ZoneId
  readonly name: string
  /** Growth the plan was made with, radians, and whether it was read or guessed. */
  readonly growthDirection: number
  readonly grainSource: 'read' | 'guess'
  readonly blade: string
  readonly bladeAngleDeg: number
  readonly usableWidthMm: number
  readonly strokeLengthMm: number
  readonly areaCm2: number
  readonly passes: readonly PlannedPass[]
  readonly refused: readonly RefusedPass[]
  readonly totalLoad: number
  readonly smoothHours: number
  readonly rednessOdds: number
  readonly avoid: readonly string[]
  readonly reasons: readonly Reason[]
}

/** A zone of the service that is not worked. */
export interface LeftOut {
  readonly zoneId: ZoneId
  readonly name: string
  readonly reason: string
}

/** One step at the chair. */
export interface PlanStep {
  readonly id: string
  readonly kind: 'prepare' | 'stroke' | 'lather' | 'check' | 'close'
  readonly title: string
  readonly text: string
  readonly minutes: number
  /** Present on strokes. */
  readonly zoneId?: ZoneId
  readonly pass?: number
  readonly relation?: Relation
  readonly strokeBearing?: number
  readonly growthDirection?: number
  readonly bladeAngleDeg?: number
  readonly blade?: string
  readonly freeHand?: string
  readonly pullBearing?: number
  readonly stance?: Stance
  readonly headTurn?: string
  readonly strokes?: number
  readonly watch?: string
  readonly avoid?: readonly string[]
}

/** A whole plan. */
export interface Plan {
  readonly version: 1
  readonly service: ServiceId
  readonly schools: Schools
  readonly steps: readonly PlanStep[]
  readonly zones: readonly ZonePlan[]
  readonly leftOut: readonly LeftOut[]
  readonly totalMinutes: number
  readonly slotMinutes: number
  readonly reasons: readonly Reason[]
  readonly screening: Screening
  readonly noFragrance: boolean
}
