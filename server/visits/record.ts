/** A visit as it is kept: its own row, and what hangs on it. */
import type { Job, ServiceId } from '../../core/services/index.ts'
import { NOTHING_AT_CHAIR, type AtChair, type SkinAnswer } from '../../core/looks/index.ts'
import type { SkinAndHair } from '../../core/client.ts'
import type { LeftByJob } from '../../core/history/index.ts'
import type { KeptHair } from '../../core/history/index.ts'
import type { ChairEvent } from '../../core/chair/index.ts'
import type { ReadBy, Reading } from '../../core/grain/index.ts'
import type { SurfaceNotes } from '../../core/hair/index.ts'
import type { Schools } from '../../core/house/index.ts'
import type { Plan } from '../../core/plan/index.ts'
import type { Asked } from '../../core/screening/index.ts'
import type { Message, Photo, VisitState } from '../../contract/types.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { notFound } from '../http/problem.ts'
import { type PlanColumn, unpackPlan } from './planStore.ts'

export interface VisitRecord {
  readonly id: string
  readonly clientId: string
  readonly workerId: string
  readonly jobs: Job[]
  /** What each of them left; nothing before the end. */
  readonly left: LeftByJob[]
  /** That of the first job. */
  readonly service: ServiceId
  readonly state: VisitState
  readonly slotAtMs: number | null
  readonly startedAtMs: number | null
  readonly endedAtMs: number | null
  readonly routine: string
  readonly worstRedness: number | null
  readonly bumps: number | null
  readonly asked: Asked
  /** Load given, and hair left standing, mm, by zone. */
  readonly loads: Record<string, number> | null
  readonly leftMm: Record<string, number> | null
  /** What happened to the skin at the chair; nothing before the end. */
  readonly atChair: AtChair
  /** Until when a link page of it is open. */
  readonly linkUntilMs: number | null
  readonly plan: Plan | null
  readonly planMadeAtMs: number | null
  /** In the order in which they happened. */
  readonly events: ChairEvent[]
  readonly answers: SkinAnswer[]
  readonly products: string[]
  readonly photos: Photo[]
  readonly messages: Message[]
  /** What Read noted besides the grain. */
  readonly notes: SurfaceNotes
  /** The readings that this visit works from: its own and those of earlier visits, as they stood when it ended. */
  readonly readings: Reading[]
  /** Who made them, and how many. */
  readonly readBy: ReadBy[]
  /** The client's skin and hair, and the schools that differ for them, as they are now. */
  readonly skin: SkinAndHair
  readonly schools: Partial<Schools>
}

const EVENTS = `(SELECT json_group_array(json_object(
        'id', id, 'seq', seq, 'screen', screen, 'n', n, 'kind', kind, 'atMs', atMs, 'stepId', stepId, 'reason', reason,
        'detail', json(detail)))
      FROM (SELECT * FROM chair_events WHERE visitId = v.id ORDER BY seq))`

/** The column of jobs without what was chosen: it is long, and read for itself. */
export const jobsLeft = (visits: string): string =>
  `(SELECT json_group_array(json_remove(j.value, '$.choices', '$.dueFromMs', '$.dueToMs')) FROM json_each(${visits}.jobs) j)`

/** Readings of a visit's map: its own and those of earlier visits, as they stood when it ended. */
const OF_THE_MAP = `FROM readings r JOIN visits rv ON rv.id = r.visitId WHERE r.clientId = v.clientId
            AND (v.endedAtMs IS NULL OR rv.createdAtMs <= v.createdAtMs)
            AND (r.goneAtMs IS NULL OR r.goneAtMs > v.endedAtMs)`

/**
 * One query for all of it: the way to the database's thread and back costs more than the reading. Parts that are
 * lists come as JSON.
 */
const RECORD = `
  SELECT v.id, v.clientId, v.workerId, ${jobsLeft('v')} AS jobs, v.service, v.state, v.slotAtMs, v.startedAtMs, v.endedAtMs, v.routine,
    v.worstRedness, v.bumps, v.asked, v.notes, v.loads, v.leftMm, v.atChair, c.skin, c.schools, p.plan, p.madeAtMs AS planMadeAtMs,
    v.products, ${EVENTS} AS events,
    (SELECT json_group_array(json_object('id', id, 'visitId', visitId, 'atMs', atMs, 'width', width, 'height', height))
      FROM (SELECT * FROM photos WHERE visitId = v.id ORDER BY atMs)) AS photos,
    (SELECT json_group_array(json_object('id', id, 'visitId', visitId, 'clientId', v.clientId, 'to', c.name,
        'kind', kind, 'subject', subject, 'text', text, 'dueAtMs', dueAtMs, 'state', state))
      FROM (SELECT * FROM messages WHERE visitId = v.id ORDER BY dueAtMs)) AS messages,
    (SELECT MAX(expiresAtMs) FROM answer_links WHERE visitId = v.id AND takenBackAtMs IS NULL) AS linkUntilMs,
    (SELECT json_group_array(json_object('moment', moment, 'atMs', atMs, 'zones', json(zones), 'spots', json(spots),
        'feeling', json(feeling), 'source', source, 'toldAtMs', toldAtMs))
      FROM skin_answers WHERE visitId = v.id) AS answers,
    (SELECT json_group_array(json_object(
        'id', id, 'zoneId', zoneId, 'at', json(at), 'method', method, 'atMs', atMs,
        'answers', json(answers)))
      FROM (SELECT r.* ${OF_THE_MAP} ORDER BY r.atMs)) AS readings,
    (SELECT json_group_array(json_object('workerId', workerId, 'readings', n))
      FROM (SELECT rv.workerId, COUNT(*) AS n ${OF_THE_MAP} GROUP BY rv.workerId ORDER BY rv.workerId)) AS readBy
  FROM visits v JOIN clients c ON c.id = v.clientId LEFT JOIN plans p ON p.visitId = v.id`

type KeptEvent = Omit<ChairEvent, 'stepId' | 'reason' | 'detail'> & {
  stepId: string | null
  reason: string | null
  detail: ChairEvent['detail'] | null
}

function toEvents(column: Json<KeptEvent[]>): ChairEvent[] {
  return json(column).map(({ stepId, reason, detail, ...event }) => ({
    ...event,
    ...(stepId !== null && { stepId }),
    ...(reason !== null && { reason }),
    ...(detail !== null && { detail }),
  }))
}
type KeptReading = Omit<Reading, 'point' | 'normal' | 'tangent' | 'answers'> & {
  answers: Reading['answers'] | null
  at: Pick<Reading, 'point' | 'normal' | 'tangent'>
}

/** A job as lists of visits tell it. */
export const shortJob = ({ service, method, zones, trial }: LeftByJob) => ({
  ...{ service, method, zones },
  ...(trial && { trial }),
})

/** A job as it is kept: with what it left once it is done. */
type KeptJob = Job & Partial<Pick<LeftByJob, 'loads' | 'leftMm'>>

/** What a visit is to do. */
const toJobs = (column: Json<KeptJob[]>): Job[] =>
  json(column).map(({ id, service, zones, method, everyDays }) => ({
    ...{ id, service, zones, method },
    ...(everyDays !== undefined && { everyDays }),
  }))

/** What its jobs left. */
export const toLeft = (column: Json<KeptJob[]>): LeftByJob[] =>
  json(column).map(({ loads, leftMm, ...job }) => ({
    ...job,
    ...{ loads: loads ?? null, leftMm: leftMm ?? null },
  }))

/** Columns that hold the record's own values as JSON, those that hold more than it tells, and the plan, packed. */
type AsJson = 'asked' | 'notes' | 'loads' | 'leftMm' | 'skin' | 'products' | 'photos' | 'messages'
type RecordColumns = Omit<
  VisitRecord,
  | AsJson
  | 'atChair'
  | 'schools'
  | 'jobs'
  | 'left'
  | 'plan'
  | 'events'
  | 'answers'
  | 'readings'
  | 'readBy'
> & { [K in AsJson]: Json<VisitRecord[K]> } & {
  atChair: Json<AtChair> | null
  schools: Json<Partial<Schools>> | null
  jobs: Json<KeptJob[]>
  plan: PlanColumn
  events: Json<KeptEvent[]>
  answers: Json<(SkinAnswer & { toldAtMs: number | null })[]>
  readings: Json<KeptReading[]>
  readBy: Json<ReadBy[]>
}

function toRecord(row: RecordColumns): VisitRecord {
  const jobs = toJobs(row.jobs)
  return {
    ...row,
    asked: json(row.asked),
    notes: json(row.notes),
    loads: json(row.loads),
    leftMm: json(row.leftMm),
    atChair: json(row.atChair) ?? NOTHING_AT_CHAIR,
    jobs,
    left: toLeft(row.jobs),
    plan: unpackPlan(row.plan, jobs),
    skin: json(row.skin),
    schools: json(row.schools) ?? {},
    events: toEvents(row.events),
    products: json(row.products),
    photos: json(row.photos),
    messages: json(row.messages),
    answers: json(row.answers).map(({ toldAtMs, ...answer }) => ({
      ...answer,
      ...(toldAtMs !== null && { toldAtMs }),
    })),
    readBy: json(row.readBy),
    readings: json(row.readings).map(({ at, answers, ...reading }) => ({
      ...reading,
      ...at,
      ...(answers && { answers }),
    })),
  }
}

/** Reads a visit with all that hangs on it. */
export async function readVisit(db: Reads, id: string): Promise<VisitRecord> {
  const [row] = await db.select<RecordColumns>(`${RECORD} WHERE v.id = ?`, [id])
  if (!row) throw notFound('That visit')
  return toRecord(row)
}

/** What the chair needs of a visit; undefined when there is no such visit. */
export async function readChair(
  db: Reads,
  id: string,
): Promise<{ clientId: string; plan: Plan | null; events: ChairEvent[] } | undefined> {
  const [row] = await db.select<Pick<RecordColumns, 'clientId' | 'jobs' | 'plan' | 'events'>>(
    `SELECT v.clientId, v.jobs, p.plan, ${EVENTS} AS events
     FROM visits v LEFT JOIN plans p ON p.visitId = v.id WHERE v.id = ?`,
    [id],
  )
  return (
    row && {
      clientId: row.clientId,
      plan: unpackPlan(row.plan, toJobs(row.jobs)),
      events: toEvents(row.events),
    }
  )
}

/** All visits of a client, oldest first. */
export async function readVisits(db: Reads, clientId: string): Promise<VisitRecord[]> {
  const rows = await db.select<RecordColumns>(
    `${RECORD} WHERE v.clientId = ? ORDER BY v.createdAtMs`,
    [clientId],
  )
  return rows.map(toRecord)
}

/** When a client's hair was felt, seen or measured, with what each service had left standing. */
export async function readHair(db: Reads, clientId: string): Promise<KeptHair[]> {
  const rows = await db.select<Omit<KeptHair, 'byRoot'> & { byRoot: number }>(
    `SELECT id, visitId, kind, days, zoneId, lengthMm, method, leftMm, byRoot, atMs FROM hair_readings
     WHERE clientId = ? ORDER BY atMs`,
    [clientId],
  )
  return rows.map(({ byRoot, ...h }) => ({ ...h, ...(byRoot > 0 && { byRoot: true }) }))
}

/** A row of answers; spots, feeling and source where they were asked for. */
export interface AnswerColumns {
  visitId: string
  moment: SkinAnswer['moment']
  atMs: number
  zones: Json<SkinAnswer['zones']>
  spots?: Json<NonNullable<SkinAnswer['spots']>>
  feeling?: Json<NonNullable<SkinAnswer['feeling']>>
  source?: NonNullable<SkinAnswer['source']>
  toldAtMs?: number | null
}

/** Answers by visit. */
export function groupAnswers(rows: readonly AnswerColumns[]): Map<string, SkinAnswer[]> {
  const byVisit = new Map<string, SkinAnswer[]>()
  for (const row of rows) {
    const { visitId, moment, atMs, zones, spots, feeling, source, toldAtMs } = row
    const list = byVisit.get(visitId) ?? []
    list.push({
      moment,
      atMs,
      zones: json(zones),
      ...(spots !== undefined && { spots: json(spots) }),
      ...(feeling !== undefined && { feeling: json(feeling) }),
      ...(source !== undefined && { source }),
      ...(toldAtMs != null && { toldAtMs }),
    })
    byVisit.set(visitId, list)
  }
  return byVisit
}
