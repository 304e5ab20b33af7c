/** What a plan is made from. */
import { plannedJob, type Job, type ServiceId } from '../services/index.ts'
import type { Figures, Schools } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'
import type { SurfaceNotes } from '../hair/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { Growth } from '../regrowth/index.ts'
import type { Screening } from '../screening/index.ts'
import type { Sensitivity, SkinBelief, SkinRecord } from '../skin/index.ts'
import type { BladeId, Level } from '../kit/index.ts'
import type { Room } from './handle.ts'
import type { Hand } from './hands.ts'
import type { Pace } from './pace.ts'
import type { PlanMemory } from './question.ts'
import type { DrawnLine, SkinFlow, SkinGround } from './skin.ts'
import type { Plan, PlanChoice } from './types.ts'

/** Everything a plan depends on. */
export interface PlanInput {
  readonly figures: Figures
  /** What of the visit is planned: one job so far. */
  readonly jobs: readonly Job[]
  readonly ground: SkinGround
  readonly flow: SkinFlow
  /** What the handle is cast against; left out where there is nothing to meet. */
  readonly room?: Room | undefined
  readonly lines: readonly DrawnLine[]
  readonly client: SkinAndHair
  readonly screening: Screening
  readonly schools: Schools
  readonly hand: Hand
  readonly level: Level
  /** How long the worker's strokes take. */
  readonly pace: Pace
  /** Blades the house owns. */
  readonly kit: readonly BladeId[]
  readonly sensitivity: (zoneId: ZoneId) => Sensitivity
  /** What is believed of the client's skin as a whole. */
  readonly belief: SkinBelief
  /** Bumps and ingrown hairs per unit load. */
  readonly bumps: (zoneId: ZoneId) => Sensitivity
  /** The client's own record of visits on which a zone reddened. */
  readonly record?: SkinRecord | undefined
  readonly growth: (zoneId: ZoneId) => Growth
  /** What Read noted besides the grain. */
  readonly notes: Pick<SurfaceNotes, 'keptZones' | 'hair' | 'strays'>
  readonly house: Plan['house']
  readonly choice: PlanChoice
  /** Kept between plans of the same skin; a new one when grain, marks, lines, service or worker change. */
  readonly memory: PlanMemory
}

/** The same with the job that is planned. */
export interface JobInput extends PlanInput {
  readonly job: Job
  readonly service: ServiceId
}

/** @throws DomainError `several-jobs` */
export const ofJob = (input: PlanInput): JobInput => {
  const job = plannedJob(input.jobs)
  return { ...input, job, service: job.service }
}
