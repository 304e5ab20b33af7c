/** What a plan is made from. */
import {
  type Job,
  jobFor,
  type JobGroup,
  plannedGroups,
  type ServiceId,
  works,
} from '../services/index.ts'
import { DomainError } from '../errors.ts'
import type { Figures, Schools } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'
import type { SurfaceNotes } from '../hair/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { DrawnOutline } from '../lines/index.ts'
import type { Growth } from '../regrowth/index.ts'
import type { Screening } from '../screening/index.ts'
import type { Sensitivity, SkinBelief, SkinRecord } from '../skin/index.ts'
import type { BladeId, Level } from '../kit/index.ts'
import type { Room } from './handle.ts'
import type { Hand } from './hands.ts'
import { type Pace, type PaceKind, paceKind } from './pace.ts'
import type { PlanMemory } from './question.ts'
import type { DrawnLine, SkinFlow, SkinGround } from './skin.ts'
import type { Plan, PlanChoice } from './types.ts'

/** Everything a plan depends on. */
export interface PlanInput {
  readonly figures: Figures
  /** What the visit is to do. */
  readonly jobs: readonly Job[]
  readonly ground: SkinGround
  readonly flow: SkinFlow
  /** What the handle is cast against; left out where there is nothing to meet. */
  readonly room?: Room | undefined
  readonly lines: readonly DrawnLine[]
  readonly outlines: readonly DrawnOutline[]
  readonly client: SkinAndHair
  readonly screening: Screening
  readonly schools: Schools
  readonly hand: Hand
  readonly level: Level
  /** How long the worker's strokes take, and in other kinds of work where those differ. */
  readonly pace: Pace
  readonly paces?: Readonly<Partial<Record<PaceKind, Pace>>> | undefined
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
  readonly notes: Pick<SurfaceNotes, 'keptZones' | 'hair' | 'strays' | 'lengthMm' | 'heavier'>
  readonly house: Plan['house']
  readonly choice: PlanChoice
  /** Kept between plans of the same skin; a new one when grain, marks, lines, service or worker change. */
  readonly memory: PlanMemory
}

/** The same for jobs of one service and method, which are planned as one. */
export interface JobInput extends PlanInput {
  readonly group: JobGroup
  readonly service: ServiceId
  /** Id of the job that a zone is worked for. */
  readonly jobOf: (zone: ZoneId) => string
}

const ofGroup = (input: PlanInput, group: JobGroup): JobInput => ({
  ...input,
  group,
  service: group.service,
  pace: input.paces?.[paceKind(group.service)] ?? input.pace,
  jobOf: (zone) => jobFor(group, zone).id,
})

/** What of a sitting is planned stroke by stroke, each service and method for itself. */
export const inGroups = (input: PlanInput): JobInput[] =>
  plannedGroups(input.jobs).map((group) => ofGroup(input, group))

/**
 * The input of the jobs that work a zone; of the first planned ones where none does.
 * @throws DomainError `nothing-planned`
 */
export function inputFor(input: PlanInput, zone: ZoneId): JobInput {
  const groups = plannedGroups(input.jobs)
  const group = groups.find((g) => works(g, zone)) ?? groups[0]
  if (!group) {
    throw new DomainError(
      'nothing-planned',
      'Nothing of this sitting is done with a blade, so there are no strokes to plan.',
    )
  }
  return ofGroup(input, group)
}
