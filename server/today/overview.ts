/** Clients with their last services and window, in a handful of queries, however many there are. */
import { figuresOf } from '../../core/register/index.ts'
import type { Outline } from '../../core/lines/index.ts'
import type { Asked } from '../../core/screening/index.ts'
import type { SkinAndHair } from '../../core/client.ts'
import type { Figures, Schools } from '../../core/house/index.ts'
import { seenOdds, workedZones, type VisitWindow, type Growth } from '../../core/regrowth/index.ts'
import { type Job, kindOfWork, type ServiceId, serviceZones } from '../../core/services/index.ts'
import type { AtChair, HairReading } from '../../core/looks/index.ts'
import {
  type Decision,
  feltAfter,
  type GateFacts,
  type KeptPast,
  pastJobs,
} from '../../core/visit/index.ts'
import { type Upkeep, upkeepLast, upkeepsOf } from '../../core/ahead/index.ts'
import {
  hairSince,
  type HomeWork,
  learnGrowth,
  type LoadedService,
  notCutAtHome,
  windowAfter,
} from '../../core/history/index.ts'
import { comesAgain } from '../clients/model.ts'
import { type HomeColumns, homeOf } from '../clients/readHome.ts'
import { soonestUpkeep } from '../clients/upkeep.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { inTurns } from '../db/turns.ts'
import { readHouse } from '../house/service.ts'
import { courseOfClient } from '../studio/history.ts'
import { type AnswerColumns, groupAnswers, jobsLeft, toLeft } from '../visits/record.ts'

/** A kind of work that a client comes for. */
export interface OverviewUpkeep extends Upkeep {
  readonly window: VisitWindow | null
  readonly home: readonly HomeWork[]
}

export interface OverviewClient {
  readonly id: string
  readonly name: string
  readonly calledName: string
  readonly bornOn: string
  readonly occupation: string
  readonly phone: string
  readonly email: string
  readonly service: ServiceId
  readonly skin: SkinAndHair
  readonly schools: Partial<Schools>
}

export interface Overview {
  readonly client: OverviewClient
  /** Finished visits. */
  readonly visits: number
  /** The last visit of each kind of work and every one that was taken badly, the newest first. */
  readonly past: readonly KeptPast[]
  /** Each kind of work that the client comes for, with its window; and the one that is due first. */
  readonly upkeeps: readonly OverviewUpkeep[]
  readonly next?: OverviewUpkeep
  /** Words of workers on the open visit, and on alarms of the last ones. */
  readonly decisions: readonly Decision[]
  readonly open?: {
    readonly id: string
    readonly service: ServiceId
    readonly jobs: readonly Job[]
    readonly state: string
    readonly slotAtMs: number | null
    readonly asked: Asked
    /** What was drawn at Read that is all that may be worked, or rests. */
    readonly outlines: readonly Outline[]
    readonly workerId: string
    /** Last event of a service under way. */
    readonly lastAtMs?: number
    /** What a newcomer's sessions so far say of this one. */
    readonly newcomer?: Pick<GateFacts, 'course' | 'feltAtMs'>
  }
  readonly growth: Readonly<Record<string, Growth>>
  /** From when the skin is clear enough after the last of each kind of work. */
  readonly readyOf: Readonly<Record<string, number>>
  /** Ends of the work that is due first since `sinceMs`, rising. */
  readonly services: number[]
}

/** Tells from when the skin is clear enough after a job. */
type Ready = (client: OverviewClient, last: LoadedService) => Promise<number>

type ClientColumns = Omit<OverviewClient, 'skin' | 'schools'> & {
  skin: Json<SkinAndHair>
  schools: Json<Partial<Schools>> | null
  /** As it was made last. */
  readyOf: Json<Record<string, number>> | null
}
interface LastColumns {
  visitId: string
  clientId: string
  endedAtMs: number
  jobs: Parameters<typeof toLeft>[0]
  atChair: Json<AtChair> | null
}
type OpenColumns = Omit<
  NonNullable<Overview['open']>,
  'asked' | 'jobs' | 'lastAtMs' | 'outlines' | 'newcomer'
> & {
  newcomer: 0 | 1
  outlines: Json<Outline[]> | null
  clientId: string
  jobs: Parameters<typeof toLeft>[0]
  asked: Json<Asked>
  lastAtMs: number | null
}
type HairColumns = HairReading & { clientId: string; visitId: string; leftMm: number }

const THESE = '(SELECT value FROM json_each(?))'

/**
 * Some clients with their last services and windows. The order of the joins and the indices are said: SQLite would read
 * every visit otherwise.
 * @param sinceMs how far back the ends of services are wanted; Infinity for only the last of each client
 * @param ready tells anew from when the skin is clear enough; the standings' own when left out
 * @returns in no order
 */
export async function overviewOf(
  db: Reads,
  ids: readonly string[],
  sinceMs: number,
  ready?: Ready,
): Promise<Overview[]> {
  const [house, clients, counts, lasts, opens, recent, hair, atHome] = await Promise.all([
    readHouse(db),
    db.select<ClientColumns>(
      `SELECT c.id, c.name, c.calledName, c.bornOn, c.occupation, c.phone, c.email, c.service, c.skin, c.schools, s.readyOf
       FROM clients c JOIN standings s ON s.clientId = c.id WHERE c.id IN ${THESE}`,
      [ids],
    ),
    db.select<{ clientId: string; visits: number }>(
      `SELECT clientId, COUNT(*) AS visits FROM visits INDEXED BY visits_by_kind
       WHERE state = 'finished' AND clientId IN ${THESE} GROUP BY clientId`,
      [ids],
    ),
    db.select<LastColumns>(
      `SELECT v.id AS visitId, v.clientId, v.endedAtMs, ${jobsLeft('v')} AS jobs, v.atChair FROM
         (SELECT visitId FROM (SELECT visitId, MAX(endedAtMs) FROM visit_jobs WHERE clientId IN ${THESE} GROUP BY clientId, service, method)
          UNION SELECT id FROM visits INDEXED BY visits_severe WHERE severe = 1 AND clientId IN ${THESE}) l
       CROSS JOIN visits v ON v.id = l.visitId WHERE v.state = 'finished' ORDER BY v.endedAtMs DESC`,
      [ids, ids],
    ),
    db.select<OpenColumns>(
      `SELECT id, clientId, workerId, service, jobs, state, slotAtMs, asked,
         notes -> '$.outlines' AS outlines,
         EXISTS (SELECT 1 FROM visits n WHERE n.clientId = visits.clientId AND n.state = 'finished'
           AND n.asked ->> '$.answers."first-ever".yes') AS newcomer,
         CASE state WHEN 'running' THEN (SELECT MAX(atMs) FROM chair_events WHERE visitId = visits.id) END AS lastAtMs
       FROM visits WHERE state <> 'finished' AND clientId IN ${THESE}`,
      [ids],
    ),
    Number.isFinite(sinceMs)
      ? db.select<{ clientId: string; kind: string; ends: string }>(
          `SELECT clientId, service || ':' || method AS kind, group_concat(endedAtMs) AS ends FROM visit_jobs
           WHERE clientId IN ${THESE} AND endedAtMs >= ? GROUP BY clientId, service, method`,
          [ids, sinceMs],
        )
      : Promise.resolve([]),
    db.select<HairColumns>(
      `SELECT clientId, visitId, kind, days, zoneId, lengthMm, method, leftMm, atMs FROM hair_readings
       WHERE byRoot = 0 AND clientId IN ${THESE}`,
      [ids],
    ),
    db.select<HomeColumns>(
      `SELECT id, clientId, atMs, zones, tool, fresh, dull, source, toldAtMs FROM home_work WHERE clientId IN ${THESE}`,
      [ids],
    ),
  ])
  const named = [...lasts.map((l) => l.visitId), ...opens.map((o) => o.id)]
  const [answers, decisions] = await Promise.all([
    db.select<AnswerColumns>(
      `SELECT visitId, moment, atMs, zones, '[]' AS spots, feeling, source, toldAtMs FROM skin_answers
       WHERE visitId IN (SELECT value FROM json_each(?))`,
      [lasts.map((l) => l.visitId)],
    ),
    db.select<Decision>(
      'SELECT * FROM decisions WHERE takenBackAtMs IS NULL AND visitId IN (SELECT value FROM json_each(?))',
      [named],
    ),
  ])
  const figures = figuresOf(house.figures)
  const byClient = <T extends { clientId: string }>(rows: T[]) => {
    const map = new Map<string, T[]>()
    for (const row of rows) {
      const list = map.get(row.clientId)
      if (list) list.push(row)
      else map.set(row.clientId, [row])
    }
    return map
  }
  const lastOf = byClient(lasts)
  const openOf = byClient(opens)
  const recentOf = byClient(recent)
  const hairOf = byClient(hair)
  const homesOf = byClient(atHome)
  const answersOf = groupAnswers(answers)
  const visitsOf = new Map(counts.map((c) => [c.clientId, c.visits]))
  const nowMs = Date.now()
  const rows = clients.map(({ readyOf, ...row }) => {
    const client: OverviewClient = {
      ...row,
      skin: json(row.skin),
      schools: json(row.schools) ?? {},
    }
    const past = (lastOf.get(client.id) ?? []).map(({ visitId, ...r }): KeptPast => ({
      visitId,
      jobs: toLeft(r.jobs),
      endedAtMs: r.endedAtMs,
      atChair: json(r.atChair),
      answers: answersOf.get(visitId) ?? [],
    }))
    const upkeeps = upkeepsOf(figures, pastJobs(past), client.service, nowMs)
    return { client, past, upkeeps, readyOf: json(readyOf) ?? {} }
  })
  const newcomers = new Map<string, NonNullable<NonNullable<Overview['open']>['newcomer']>>()
  for (const { clientId, jobs, newcomer } of opens) {
    const row = newcomer ? rows.find((r) => r.client.id === clientId) : undefined
    if (!row) continue
    const of = { clientId, skin: row.client.skin, jobs: toLeft(jobs) }
    newcomers.set(clientId, {
      course: await courseOfClient(db, figures, of),
      ...feltAfter(row.past, hairOf.get(clientId) ?? []),
    })
  }
  const readies = new Map<string, Record<string, number>>()
  if (ready)
    for (const { client, upkeeps } of rows) {
      const of: Record<string, number> = {}
      for (const u of upkeeps) of[kindOfWork(u.job)] = await ready(client, upkeepLast(u))
      readies.set(client.id, of)
    }
  return inTurns(rows, ({ client, past, upkeeps: own, readyOf: kept }): Overview => {
    const openRow = openOf.get(client.id)?.[0]
    const readyOf = readies.get(client.id) ?? kept
    const named = new Set([...past.map((p) => p.visitId), openRow?.id])
    const zones = [...new Set([...serviceZones(client.service), ...own.flatMap((u) => u.zones)])]
    const home = (homesOf.get(client.id) ?? []).map(homeOf)
    const hairTold = notCutAtHome(hairOf.get(client.id) ?? [], home)
    const growth = learnGrowth(figures, client.skin, zones, hairTold)
    const upkeeps = own.map((u): OverviewUpkeep => {
      const last = upkeepLast(u)
      const readyMs = readyOf[kindOfWork(last)] ?? last.endedAtMs
      return {
        ...{ ...u, home },
        window: windowAfter(figures, last, comesAgain(house, client), growth, readyMs, home),
      }
    })
    const next = soonestUpkeep(upkeeps)
    return {
      client,
      visits: visitsOf.get(client.id) ?? 0,
      past,
      upkeeps,
      ...(next && { next }),
      decisions: decisions.filter((d) => named.has(d.visitId)),
      ...(openRow && {
        open: {
          id: openRow.id,
          service: openRow.service,
          jobs: toLeft(openRow.jobs),
          state: openRow.state,
          slotAtMs: openRow.slotAtMs,
          asked: json(openRow.asked),
          outlines: openRow.outlines ? json(openRow.outlines) : [],
          workerId: openRow.workerId,
          ...(newcomers.has(client.id) && { newcomer: newcomers.get(client.id)! }),
          ...(openRow.lastAtMs !== null && { lastAtMs: openRow.lastAtMs }),
        },
      }),
      growth,
      readyOf,
      services: (recentOf.get(client.id) ?? [])
        .filter((r) => next && r.kind === kindOfWork(next.job))
        .flatMap((r) => r.ends.split(',').map(Number))
        .sort((a, b) => a - b),
    }
  })
}

/** Odds that hair of the work that is due first is seen somewhere, at any moment. */
export function seenOf(
  figures: Figures,
  { next, growth }: Pick<Overview, 'next' | 'growth'>,
): (atMs: number) => number {
  if (!next) return () => 0
  const last = upkeepLast(next)
  const own = Object.fromEntries(next.zones.map((z) => [z, growth[z]!]))
  const now = hairSince(figures, last, own, next.home)
  const zones = workedZones(now.leftMm ?? {})
  return (atMs) => seenOdds(figures, { endedAtMs: last.endedAtMs, growth: now.growth, zones }, atMs)
}
