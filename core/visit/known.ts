/** Puts together what the gate is asked with, the same way on the server and on the screen. */
import type { Reading } from '../grain/index.ts'
import type { Figures, Schools } from '../house/index.ts'
import type { Plan } from '../plan/index.ts'
import { withAge, type HouseRules, type Asked } from '../screening/index.ts'
import { dateAt, type Offset } from '../time/index.ts'
import type { Job } from '../services/index.ts'
import type { SurfaceNotes } from '../hair/index.ts'
import type { Level } from '../kit/index.ts'
import type { CourseSession, HomeWork, MissSeen } from '../history/index.ts'
import type { JobWindow } from './finish.ts'
import { trialOf } from './trial.ts'
import type { Busy, Decision, Known } from './types.ts'
import type { PastVisit } from '../looks/index.ts'

/** What is known beyond the visit itself. */
export interface GateFacts {
  /** The last finished visit of each kind of work before this one, newest first. */
  readonly past: readonly PastVisit[]
  /** The window told for each job by the last one of its kind. */
  readonly windows: readonly JobWindow[]
  /** What was taken off at home since the last of them. */
  readonly home?: readonly HomeWork[]
  readonly decisions: readonly Decision[]
  readonly busy: readonly Busy[]
  /** The last session of a newcomer's course. */
  readonly course?: CourseSession | undefined
  /** What the house's latest second looks found, zone by zone. */
  readonly misses?: readonly MissSeen[]
  /** When hair was felt again where a trial strip was worked. */
  readonly feltAtMs?: number
  /** The client's day of birth, where it is known: it counts before what was told of age. */
  readonly bornOn?: string
}

export const NO_FACTS: GateFacts = { past: [], windows: [], decisions: [], busy: [] }

/** A visit as far as the gate looks at it. */
export interface GatedVisit {
  readonly jobs: readonly Job[]
  readonly workerId: string
  readonly asked: Asked
  readonly notes?: Partial<Pick<SurfaceNotes, 'outlines' | 'lines'>> | undefined
  readonly readings: readonly Pick<Reading, 'zoneId' | 'atMs'>[]
  readonly plan: Plan | null
  readonly planMadeAtMs: number | null
}

/** What of the house bears on it. */
export interface GatedHouse {
  readonly schools: Schools
  readonly rules: HouseRules
  readonly consentText: string
  readonly workers: readonly { readonly id: string; readonly level: Level }[]
}

/** @param schools those that differ for the client */
export function knownOf(
  figures: Figures,
  visit: GatedVisit,
  house: GatedHouse,
  schools: Partial<Schools>,
  facts: GateFacts,
  nowMs: number,
  offset: Offset,
): Known {
  const { readings } = visit
  return {
    figures,
    jobs: visit.jobs,
    asked: withAge(figures, visit.asked, facts.bornOn, dateAt(nowMs, offset)),
    schools: { ...house.schools, ...schools },
    rules: house.rules,
    consentText: house.consentText,
    nowMs,
    offset,
    notes: visit.notes,
    trial: trialOf(figures, visit, facts),
    readZones: [...new Set(readings.map((r) => r.zoneId))],
    readAtMs: readings.length > 0 ? Math.max(...readings.map((r) => r.atMs)) : undefined,
    worker: house.workers.find((w) => w.id === visit.workerId),
    plan: visit.plan,
    planMadeAtMs: visit.planMadeAtMs,
    ...facts,
  }
}
