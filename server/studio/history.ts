/** Finished visits as comparing and learning across visits need them, of one client or of all. */
import { readFigures } from '../house/service.ts'
import type { Figures } from '../../core/house/index.ts'
import type { SkinAndHair } from '../../core/client.ts'
import {
  courseNow,
  type CourseSession,
  type StudioClient,
  type VisitChoices,
  type VisitFacts,
} from '../../core/history/index.ts'
import {
  bumpsByZone,
  followedByZone,
  worstByZone,
  type SkinAnswer,
} from '../../core/looks/index.ts'
import { type Job, type ServiceId, servicesOf } from '../../core/services/index.ts'
import type { Reactivity } from '../../core/skin/index.ts'
import type { ClientHistory } from '../../contract/types.ts'
import { readClient } from '../clients/read.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { type AnswerColumns, groupAnswers } from '../visits/record.ts'

interface FactColumns {
  id: string
  clientId: string
  service: ServiceId
  workerId: string
  endedAtMs: number
  loads: Json<Record<string, number>> | null
  choices: Json<VisitChoices> | null
  products: Json<string[]> | null
  routine: string
  dueFromMs: number | null
  dueToMs: number | null
  first: 0 | 1 | null
  trial: 0 | 1 | null
  red: Json<Record<string, number>> | null
  /** Zones whose skin was torn by wax or thread: they say nothing of how skin takes a blade. */
  torn: Json<string[]>
}
const FACTS = `SELECT id, clientId, service, workerId, endedAtMs, loads, choices, products, routine, dueFromMs, dueToMs,
    (SELECT json_group_array(z.key) FROM json_each(visits.jobs) j, json_each(j.value, '$.loads') z
      WHERE j.value ->> '$.method' IN ('wax', 'thread') AND z.key IS NOT NULL) AS torn,
    asked ->> '$.answers."first-ever".yes' AS first,
    EXISTS (SELECT 1 FROM json_each(visits.jobs) WHERE value ->> '$.trial') AS trial,
    atChair ->> '$.redness' AS red
  FROM visits WHERE state = 'finished'`

/** Zones that are not zero: most are, and there are many visits. */
const told = (zones: ReadonlyMap<string, number> | undefined): Record<string, number> | null =>
  zones ? Object.fromEntries([...zones].filter(([, n]) => n > 0)) : null

function toFacts(figures: Figures, row: FactColumns, answers: readonly SkinAnswer[]): VisitFacts {
  const { endedAtMs, dueFromMs: from, dueToMs: to } = row
  const torn = json(row.torn)
  const loads = Object.fromEntries(
    Object.entries(json(row.loads) ?? {}).filter(([zone]) => !torn.includes(zone)),
  )
  const redAtChair = json(row.red) ?? {}
  return {
    visitId: row.id,
    service: row.service,
    workerId: row.workerId,
    endedAtMs,
    loads,
    worst: told(worstByZone(figures, { endedAtMs, loads, answers, redAtChair })),
    bumps: told(bumpsByZone(figures, { endedAtMs, answers })),
    dark: told(followedByZone({ endedAtMs, answers }, 'dark')),
    blackhead: told(followedByZone({ endedAtMs, answers }, 'blackhead')),
    choices: json(row.choices),
    products: json(row.products) ?? [],
    routine: row.routine,
    answered: answers.map((a) => a.moment),
    ...(row.first === 1 && { first: true }),
    ...(row.trial === 1 && { trial: true }),
    due: from !== null && to !== null ? { fromMs: from, toMs: to } : null,
  }
}

/** The last session of a newcomer's course in what is done now; undefined where they are none. */
export async function courseOfClient(
  db: Reads,
  figures: Figures,
  { clientId, skin, jobs }: CourseOf,
): Promise<CourseSession | undefined> {
  const { visits, looks } = await clientHistory(db, clientId)
  return courseNow(figures, skin, servicesOf(jobs), visits, looks)
}

/** Whose course, and of what. */
interface CourseOf {
  readonly clientId: string
  readonly skin: SkinAndHair
  readonly jobs: readonly Job[]
}

/** A client's visits, oldest first, with every look at the skin. */
export async function clientHistory(db: Reads, clientId: string): Promise<ClientHistory> {
  await readClient(db, clientId)
  const [figures, rows, given] = await Promise.all([
    readFigures(db),
    db.select<FactColumns>(`${FACTS} AND clientId = ? ORDER BY endedAtMs`, [clientId]),
    db.select<AnswerColumns>(
      `SELECT visitId, moment, atMs, zones, spots, feeling, source FROM skin_answers
       WHERE visitId IN (SELECT id FROM visits WHERE clientId = ?) ORDER BY atMs`,
      [clientId],
    ),
  ])
  const answers = groupAnswers(given)
  return {
    visits: rows.map((r) => toFacts(figures, r, answers.get(r.id) ?? [])),
    looks: [...answers].flatMap(([visitId, list]) => list.map((answer) => ({ visitId, answer }))),
  }
}

/** Finished visits of some clients, oldest first, with how their skin is. */
export async function visitFacts(db: Reads, ids: readonly string[]): Promise<StudioClient[]> {
  const [figures, clients, rows, given] = await Promise.all([
    readFigures(db),
    db.select<{ id: string; reactivity: Reactivity }>(
      `SELECT id, skin ->> '$.reactivity' AS reactivity FROM clients WHERE id IN (SELECT value FROM json_each(?))`,
      [ids],
    ),
    db.select<FactColumns>(
      `${FACTS} AND clientId IN (SELECT value FROM json_each(?)) ORDER BY endedAtMs`,
      [ids],
    ),
    db.select<AnswerColumns>(
      `SELECT a.visitId, a.moment, a.atMs, a.zones FROM visits v CROSS JOIN skin_answers a ON a.visitId = v.id
       WHERE v.clientId IN (SELECT value FROM json_each(?)) ORDER BY a.atMs`,
      [ids],
    ),
  ])
  const answers = groupAnswers(given)
  const byClient = new Map<string, VisitFacts[]>(clients.map((c) => [c.id, []]))
  for (const row of rows) {
    byClient.get(row.clientId)?.push(toFacts(figures, row, answers.get(row.id) ?? []))
  }
  return clients.map(({ id, reactivity }) => ({
    clientId: id,
    reactivity,
    visits: byClient.get(id)!,
  }))
}
