/** What the gate of a visit knows and says. */
import type { Figures, Mark, Schools } from '../house/index.ts'
import type { SurfaceNotes } from '../hair/index.ts'
import type { PastVisit } from '../looks/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { Level } from '../kit/index.ts'
import type { Job, Severity } from '../services/index.ts'
import type { Plan } from '../plan/index.ts'
import type { CourseSession, HomeWork } from '../history/index.ts'
import type { JobWindow } from './finish.ts'
import type { HouseRules, Asked, Screening, Trial } from '../screening/index.ts'
import type { IsoDate, Offset } from '../time/index.ts'

/** How a finding is lifted: `decide` is "I have seen the skin myself and decide", kept with name and reason. */
export type Lift =
  | 'ask'
  | 'sign'
  | 'read-patch'
  | 'read-grain'
  | 'wait'
  | 'look'
  | 'plan'
  | 'end-other'
  /** "Both go on", said with the start. */
  | 'beside'
  | 'decide'

/** Who may lift it. */
export type LiftedBy = 'client' | 'guardian' | 'clinician' | 'worker' | 'practised' | 'nobody'

/** What a finding holds back while it stands: keeping a plan and starting, starting alone, or nothing. */
export type Holds = 'plan' | 'start' | 'nothing'

/** What a finding is about. */
export type About =
  | 'questions'
  | 'rule'
  | 'mark'
  | 'consent'
  | 'aftermath'
  | 'unsettled'
  | 'too-soon'
  | 'home'
  | 'course'
  | 'nick'
  | 'map'
  | 'plan'
  | 'hand'
  | 'busy'
  | 'event'

/** One thing that is to be known before the blade. */
export interface VisitFinding {
  readonly about: About
  /** Names what it rests on too: when that changes it is another finding. */
  readonly id: string
  readonly severity: Severity
  /** A few words. */
  readonly title: string
  /** What to do, and why. */
  readonly text: string
  readonly mark: Mark
  readonly holds: Holds
  readonly lift: readonly Lift[]
  readonly by: LiftedBy
  readonly zones?: readonly ZoneId[] | undefined
  /** First day on which it no longer stands in the way. */
  readonly until?: IsoDate | undefined
  /** The visit that it comes from, or that is in the way. */
  readonly visitId?: string | undefined
  /** The word of a worker that lifted it. */
  readonly decided?: Decision | undefined
}

/** A worker's word, kept with name, hour and reason; it is never erased, only taken back. */
export interface Decision {
  readonly id: string
  readonly visitId: string
  /** Id of the finding that it lifts. */
  readonly finding: string
  readonly workerId: string
  readonly workerName: string
  readonly reason: string
  readonly atMs: number
  readonly takenBackAtMs: number | null
}

/** Another service that the same worker has under way. */
export interface Busy {
  readonly visitId: string
  readonly clientId: string
  readonly name: string
  readonly lastAtMs: number
}

/** Everything known that bears on whether a visit may go on. */
export interface Known {
  readonly figures: Figures
  readonly jobs: readonly Job[]
  readonly asked: Asked
  readonly trial?: Trial | undefined
  /** What was drawn at Read. */
  readonly notes?: Partial<Pick<SurfaceNotes, 'outlines' | 'lines'>> | undefined
  readonly schools: Schools
  readonly rules: HouseRules
  /** The house's own text to sign; the product's while empty. */
  readonly consentText: string
  readonly nowMs: number
  readonly offset: Offset
  /** Zones with a reading of their own. */
  readonly readZones: readonly string[]
  /** When the newest reading was made; undefined when there is none. */
  readonly readAtMs: number | undefined
  /** The last finished visit of each service and every one that was taken badly, newest first. */
  readonly past: readonly PastVisit[]
  /** The window told for each job by the last one of its kind. */
  readonly windows: readonly JobWindow[]
  readonly home?: readonly HomeWork[]
  /** The last session of a newcomer's course. */
  readonly course?: CourseSession | undefined
  readonly decisions: readonly Decision[]
  readonly worker: { readonly id: string; readonly level: Level } | undefined
  readonly plan: Plan | null
  readonly planMadeAtMs: number | null
  readonly busy: readonly Busy[]
}

/** What the gate says. */
export interface Gate {
  /** Gravest first. */
  readonly findings: readonly VisitFinding[]
  /** What asking comes to with all of it: plans go by this. */
  readonly screening: Screening
}
