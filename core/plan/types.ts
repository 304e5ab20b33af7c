/** The plan of a service: what was decided, lane by lane, with the reasons. Plain data; it travels and is kept as it is. */
import type { SkinRecord, Slip } from '../skin/index.ts'
import {
  type Film,
  type FilmsByZone,
  type HandMethod,
  type Job,
  leadJob,
  plannedGroups,
  type Style,
  type ServiceId,
  works,
} from '../services/index.ts'
import type { Relation } from '../grain/index.ts'
import type { HeavierSide } from '../hair/index.ts'
import type { Vec3 } from '../head/index.ts'
import { capital } from '../words.ts'
import { zoneInWords, type ZoneId } from '../zones/index.ts'
import { sum } from '../stats/index.ts'
import type { Mark, Schools } from '../house/index.ts'
import type { Screening } from '../screening/index.ts'
import type { BladeId } from '../kit/index.ts'
import type { Stance } from './hands.ts'

/** Why something was decided, and where that comes from. */
export interface Reason {
  readonly text: string
  readonly mark: Mark
}

/** One pass over one zone: its lanes together. */
export interface PlannedPass {
  readonly pass: number
  readonly relation: Relation
  /** Radians clockwise from 12 at the zone's middle; of several lanes that of the largest. */
  readonly strokeBearing: number
  readonly load: number
  /** Hair left standing where this pass is the last, mm. */
  readonly leftMm: number
  /** Hours of smoothness of the zone with this pass as its last. */
  readonly smoothHours: number
  /** P(redness ≥ 2 within 48 h) with all passes up to this one. */
  readonly rednessOdds: number
  /** P(many bumps within two weeks) with all passes up to this one. Absent in plans kept before this was told. */
  readonly bumpOdds?: number
}

/** A pass that was thought of and not planned. */
export interface RefusedPass {
  readonly relation: Relation
  /** The whole row of strokes, where it is more than one: "with, then across". */
  readonly words?: string
  readonly reason: string
  readonly load: number
  readonly gainHours: number
  readonly rednessOdds: number
}

/** What is planned for a zone. */
export interface ZonePlan {
  /** The job of the visit that works it. */
  readonly jobId: string
  readonly zoneId: ZoneId
  readonly name: string
  /** Growth over the worked part, radians clockwise from 12, and whether it was read or guessed. */
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
  readonly bumpOdds?: number
  readonly avoid: readonly string[]
  readonly reasons: readonly Reason[]
  /** What lies between blade and skin; absent in plans kept before zones differed in it. */
  readonly slip?: Slip
  /** Lane of each cell of the zone, packed (cover.ts). */
  readonly cover: string
}

/** Where the free hand holds the skin for a stroke. */
export interface Hold {
  readonly zoneId: ZoneId
  readonly point: Vec3
  readonly normal: Vec3
  /** The way it pulls, unit tangent: away from the blade. */
  readonly pull: Vec3
  readonly text: string
}

/**
 * How far the growth of a lane is known. A guess has a step in which it is felt; of what is unsure, more than a tenth may grow
 * over 45° otherwise, the stroke itself says to feel first.
 */
export type LaneGrain = 'read' | 'guess' | 'unsure'

/** The part of a zone that one stroke takes in one pass: a press, or what of it lies in the zone. */
export interface Lane {
  /** `zone:pass:letter`. */
  readonly id: string
  /** The job of the visit that it belongs to. */
  readonly jobId: string
  readonly zoneId: ZoneId
  readonly pass: number
  /** The step at the chair that it is done in, along with the other lanes of its press; its own id where it is absent. */
  readonly stepId?: string
  /** The lane's letter in the zone's cover. */
  readonly letter: string
  readonly relation: Relation
  /** Middle of the lane on the skin, and the stroke there as a unit tangent. */
  readonly point: Vec3
  readonly normal: Vec3
  readonly stroke: Vec3
  /** Radians clockwise from 12 at the lane's middle. */
  readonly strokeBearing: number
  readonly growthDirection: number
  /** The way of the stroke and of the growth in words: "down and back, toward the ear lobe". Absent in plans kept before they were told so. */
  readonly toward?: string
  readonly growsToward?: string
  /** Whether growth was read here: what is a guess, or was not read surely, is felt first. Absent in plans that were kept before this was told. */
  readonly grain?: LaneGrain
  /** Nine tenths of the lane keep the relation within this, degrees, the reader's own errors in it; says nothing where growth is a guess. */
  readonly withinDeg: number
  readonly areaCm2: number
  /** Along the stroke and across it, mm. */
  readonly lengthMm: number
  readonly widthMm: number
  readonly bladeId: BladeId
  readonly blade: string
  readonly bladeAngleDeg: number
  readonly usableWidthMm: number
  readonly strokeLengthMm: number
  readonly strokes: number
  readonly seconds: number
  readonly load: number
  readonly leftMm: number
  readonly stance: Stance
  readonly headTurn: string
  readonly freeHand: string
  /** Where it may hold, the best first: another is taken where one is nicked. Absent in plans kept before. */
  readonly holds?: readonly Hold[]
  readonly pullBearing: number
  readonly action: string
  readonly watch: string
  readonly avoid: readonly string[]
  readonly reasons: readonly Reason[]
  /** True when a hand has changed it. */
  readonly edited?: boolean
}

/** What a hand changes of a lane. */
export interface LaneEdit {
  readonly skip?: boolean | undefined
  readonly bladeId?: BladeId | undefined
  /** The stroke turned against the growth: across runs either way. */
  readonly way?: StrokeWay | undefined
}

export const STROKE_WAYS = ['with', 'across-clockwise', 'across-anticlockwise', 'against'] as const
export type StrokeWay = (typeof STROKE_WAYS)[number]

/** What is chosen of a plan: which of the three, what was changed by hand, how long it may take, the order searched for. */
export interface PlanChoice {
  readonly style: Style
  readonly edits: Readonly<Record<string, LaneEdit>>
  /** A plan of the front between the three: the one that is smooth for so many hours. */
  readonly hours?: number | undefined
  /** Minutes to fit into. */
  readonly within?: number | undefined
  /** Lanes in the order found by a longer search. */
  readonly order?: readonly string[] | undefined
}

export const FIRST_CHOICE: PlanChoice = { style: 'balanced', edits: {} }

/** A zone of the service that is not worked. */
export interface LeftOut {
  readonly zoneId: ZoneId
  readonly name: string
  readonly reason: string
  /** Only this pass of it, skipped by hand. */
  readonly skipped?: { readonly laneId: string; readonly pass: number }
}

/** What is done by hand in a sitting: recorded and timed, not planned stroke by stroke. */
export interface HandWork {
  readonly jobId: string
  readonly service: ServiceId
  readonly method: HandMethod
  readonly zones: readonly ZoneId[]
  /** As its step is named: "Wax: the lip". */
  readonly name: string
  readonly minutes: number
  /** Load on each of its zones, and hair left standing there, mm. */
  readonly load: number
  readonly leftMm: number
}

/** One step at the chair. */
export interface PlanStep {
  readonly id: string
  readonly kind: 'prepare' | 'feel' | 'hand' | 'stroke' | 'lather' | 'check' | 'close'
  readonly title: string
  /** The title where room is short and whose side it is stands beside it. */
  readonly short?: string
  readonly text: string
  readonly minutes: number
  /** The job of the visit that it belongs to; absent where it serves them all. */
  readonly jobId?: string
  /** Present on strokes and on what is done by hand; the rest of what a hand needs stands in the lane. */
  readonly zoneId?: ZoneId
  readonly pass?: number
  readonly laneId?: string
  /** All lanes of its press and the zones that they lie in, the largest first; absent where there is one. */
  readonly laneIds?: readonly string[]
  readonly zoneIds?: readonly ZoneId[]
  readonly relation?: Relation
  readonly strokeBearing?: number
  readonly growthDirection?: number
  readonly bladeAngleDeg?: number
  readonly blade?: string
  readonly freeHand?: string
  readonly pullBearing?: number
  readonly stance?: Stance
  readonly headTurn?: string
  readonly action?: string
  readonly strokes?: number
  readonly areaCm2?: number
  readonly leftMm?: number
  readonly watch?: string
  readonly avoid?: readonly string[]
  /** Cuts where it matters what is wet or warm: a towel lies, lather is fresh. */
  readonly lays?: 'towel' | 'lather'
  /** What lies under the blade instead of lather, and how long it stays wet. */
  readonly film?: Film | undefined
  /** Where zones differ in it: null where the skin is dry. */
  readonly films?: FilmsByZone | undefined
  /** Lather on what is not yet done; another pass brings its own. */
  readonly renews?: true
  /** The blade is changed before this one. */
  readonly freshBlade?: true
  /** Takes lather or film off again, for the next job of the sitting. */
  readonly wipes?: true
}

/** Ids of the lanes that a step does, the largest first. */
export const stepLanes = (step: Pick<PlanStep, 'laneId' | 'laneIds'>): readonly string[] =>
  step.laneIds ?? (step.laneId === undefined ? [] : [step.laneId])

/** Zones that a step works, the largest first. */
export const stepZones = (step: Pick<PlanStep, 'zoneId' | 'zoneIds'>): readonly ZoneId[] =>
  step.zoneIds ?? (step.zoneId === undefined ? [] : [step.zoneId])

/** How long steps take, minutes. */
export const stepMinutes = (steps: readonly Pick<PlanStep, 'minutes'>[]): number =>
  sum(steps.map((s) => s.minutes))

/** Lanes by area; those alike but for rounding keep their order, which is the hand's own. */
export const largestFirst = <L extends Pick<Lane, 'areaCm2'>>(lanes: readonly L[]): L[] =>
  [...lanes].sort((a, b) => Math.round(100 * (b.areaCm2 - a.areaCm2)))

/** The lanes that are done in one go with a lane, itself among them. */
export const lanesWith = (
  { lanes }: Pick<Plan, 'lanes'>,
  lane: Pick<Lane, 'id' | 'stepId'>,
): Lane[] => lanes.filter((l) => (l.stepId ?? l.id) === (lane.stepId ?? lane.id))

/** What to leave alone in lanes that are done in one go, each place named where there are several. */
export function avoidWords(lanes: readonly Pick<Lane, 'zoneId' | 'avoid'>[]): string[] {
  const zones = new Set(lanes.map((l) => l.zoneId))
  return [
    ...new Set(
      lanes.flatMap((l) =>
        l.avoid.map((a) =>
          zones.size > 1 ? `${capital(zoneInWords(l.zoneId))}: ${a}` : capital(a),
        ),
      ),
    ),
  ]
}

/** What to watch in lanes that are done in one go, the largest first. */
export const watchWords = (lanes: readonly Pick<Lane, 'watch'>[]): string =>
  [...new Set(lanes.flatMap((l) => l.watch.split(/(?<=[.!?]) /)))].filter(Boolean).join(' ')

/** What lies ready before the client sits down. */
export interface KitItem {
  readonly name: string
  readonly count: number
  readonly unit: string
  readonly cost: number
}

/** Lanes of one pass that are done in one go, across zones. */
export interface PlannedPress {
  /** That of its step. */
  readonly id: string
  readonly pass: number
  /** The largest first. */
  readonly laneIds: readonly string[]
  readonly areaCm2: number
  /** The stroke over the skin, from its start to its end, mm. */
  readonly path: readonly Vec3[]
  /** How far it turns on its way, degrees. */
  readonly turnDeg: number
  /** Its way in words, by both ends where it turns. Absent in plans kept before. */
  readonly toward?: string
  /** Share of it whose growth lies outside the tolerance. */
  readonly stray: number
}

/** What may be chosen instead: a plan of the front. */
export interface FrontPoint {
  /** P(any zone at redness 2 or more within 48 h). */
  readonly odds: number
  /** Hours smooth, mean over the skin. */
  readonly hours: number
  readonly minutes: number
  /**
   * Load of each of the front's zones and the hair that is left there, mm; null where it is left out. Absent in plans kept before
   * planning back tried them all.
   */
  readonly skin?: readonly (readonly [load: number, leftMm: number] | null)[]
}

/** The plans that no other beats in odds, hours and minutes at once. */
export interface PlanFront {
  readonly points: readonly FrontPoint[]
  /** The zones that `skin` of the points speaks of. */
  readonly zones?: readonly ZoneId[]
  /** The plan's own. */
  readonly at: number
  /** Where the three kinds lie; kinds that cannot be told from another are absent. */
  readonly offered: Partial<Readonly<Record<Style, number>>>
  /** Why fewer than three are offered. */
  readonly why?: string
}

/** Odds over the whole visit. */
export interface VisitOdds {
  /** P(any zone at redness 2 or more within 48 h). */
  readonly any: number
  /** Zones of which so many are to be expected. */
  readonly zones: number
  /** Answered visits of the client, the last eight at most, and how many of them had such a zone. */
  readonly record?: SkinRecord
}

/** Something that was left away to keep to a time. */
export interface Dropped {
  readonly relation: Relation
  /** The area, both sides together. */
  readonly zone: string
  readonly minutes: number
  /** Smoothness lost there, hours. */
  readonly hours: number
}

/** A whole plan. */
export interface Plan {
  readonly version: 2
  /** Seconds of its strokes over those of the house's figure: the pace of whoever works; 1 in plans kept before. */
  readonly pace: number
  /** What of the visit it plans. */
  readonly jobs: readonly Job[]
  /** That of its first job; of a zone `serviceIn` tells. */
  readonly service: ServiceId
  readonly style: Style
  readonly schools: Schools
  readonly steps: readonly PlanStep[]
  readonly zones: readonly ZonePlan[]
  readonly lanes: readonly Lane[]
  /** What is done by hand besides; absent in plans kept before sittings of several jobs. */
  readonly hand?: readonly HandWork[]
  /** Absent in plans kept before lanes were joined. */
  readonly presses?: readonly PlannedPress[]
  readonly front?: PlanFront
  readonly odds?: VisitOdds
  readonly leftOut: readonly LeftOut[]
  readonly totalMinutes: number
  readonly slotMinutes: number
  readonly kit: readonly KitItem[]
  readonly bladeCount: number
  readonly cost: number
  readonly dropped: readonly Dropped[]
  /** Zones whose odds of redness stand above the house's limit. Absent in plans kept before this was told. */
  readonly overLimit?: readonly {
    readonly zoneId: ZoneId
    readonly name: string
    readonly odds: number
    readonly limit: number
  }[]
  readonly reasons: readonly Reason[]
  readonly screening: Screening
  readonly noFragrance: boolean
  /** The side that was seen to have more work. */
  readonly heavier?: HeavierSide | undefined
  /** Only a trial strip is worked. */
  readonly trial?: true
  /** Changes of the house up to which this plan was made, and the figures that differ from the defaults. */
  readonly house: { readonly version: number; readonly changed: Readonly<Record<string, number>> }
  readonly choice: PlanChoice
}

/** The service by which a zone is worked in a plan. */
export const serviceIn = (plan: Pick<Plan, 'jobs' | 'service'>, zone: ZoneId): ServiceId =>
  (plan.jobs.length > 1 ? plannedGroups(plan.jobs) : []).find((g) => works(g, zone))?.service ??
  plan.service

/** Zones that a plan works, with strokes or by hand. */
export const zonesOfPlan = (plan: Pick<Plan, 'zones' | 'hand'>): ZoneId[] => [
  ...new Set([...plan.zones.map((z) => z.zoneId), ...(plan.hand ?? []).flatMap((h) => h.zones)]),
]

/** A plan that was kept before visits held jobs, as a plan of the visit's one job. */
export function withJobs(
  plan: Omit<Plan, 'jobs'> & Partial<Pick<Plan, 'jobs'>>,
  jobs: readonly Job[],
): Plan {
  if (plan.jobs) return plan as Plan
  const jobId = leadJob(jobs).id
  return {
    ...plan,
    jobs,
    zones: plan.zones.map((z) => ({ ...z, jobId })),
    lanes: plan.lanes.map((l) => ({ ...l, jobId })),
    steps: plan.steps.map((s) => (s.zoneId === undefined ? s : { ...s, jobId })),
  }
}
