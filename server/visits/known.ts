/** What the gate of a visit is asked with, read from the database; and the gate itself. */
import {
  feltAfter,
  pastOf,
  pastJobs,
  type JobWindow,
  type KeptPast,
  gate,
  heldWords,
  holding,
  knownOf,
  NO_FACTS,
  type GateFacts,
  type Busy,
  type Decision,
  type Gate,
  type VisitFinding,
} from '../../core/visit/index.ts'
import { homeSince, lastOfKind, type MissSeen, notCutAtHome } from '../../core/history/index.ts'
import { figuresOf } from '../../core/register/index.ts'
import { learnGrowth, windowAfter } from '../../core/history/index.ts'
import type { KeptHair } from '../../core/history/index.ts'
import { offsetHere } from '../../core/time/index.ts'
import type { House } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { json, type Json } from '../db/reader.ts'
import { HttpProblem } from '../http/problem.ts'
import { comesAgain, readyOf } from '../clients/model.ts'
import { readHome } from '../clients/readHome.ts'
import { courseOfClient } from '../studio/history.ts'
import { jobZones, type Job } from '../../core/services/index.ts'
import { jobsLeft, readHair, type VisitRecord } from './record.ts'

interface FactColumns {
  bornOn: string | null
  newcomer: 0 | 1
  past: Json<KeptPast[]>
  decisions: Json<Decision[]>
  busy: Json<Busy[]>
  misses: Json<(Omit<MissSeen, 'own'> & { own: 0 | 1 })[]>
}

/** Services of the house, the latest, whose second looks tell where is missed. */
const LOOKS_READ = 200

/** One query for all of it: the way to the database's thread and back costs more than the reading. */
const FACTS = `SELECT
  (SELECT bornOn FROM clients WHERE id = ?1) AS bornOn,
  ?4 AND EXISTS (SELECT 1 FROM visits WHERE clientId = ?1 AND state = 'finished' AND id <> ?2
    AND asked ->> '$.answers."first-ever".yes') AS newcomer,
  (SELECT json_group_array(json_object('visitId', p.id, 'jobs', json(${jobsLeft('p')}), 'endedAtMs', p.endedAtMs,
      'atChair', json(p.atChair),
      'answers', json((SELECT json_group_array(json_object('moment', moment, 'atMs', atMs, 'zones', json(zones),
          'feeling', json(feeling), 'source', source, 'toldAtMs', toldAtMs))
        FROM skin_answers WHERE visitId = p.id))))
    FROM (SELECT id, jobs, endedAtMs, atChair FROM visits
          WHERE clientId = ?1 AND state = 'finished' AND id <> ?2 AND ?4 AND (severe = 1 OR id IN (
            SELECT visitId FROM (SELECT visitId, ROW_NUMBER() OVER (PARTITION BY service, method ORDER BY endedAtMs DESC) AS nth
              FROM visit_jobs WHERE clientId = ?1 AND visitId <> ?2) WHERE nth = 1))
          ORDER BY endedAtMs DESC) p) AS past,
  (SELECT json_group_array(json_object('id', id, 'visitId', visitId, 'finding', finding, 'workerId', workerId,
      'workerName', workerName, 'reason', reason, 'atMs', atMs, 'takenBackAtMs', takenBackAtMs))
    FROM (SELECT * FROM decisions WHERE visitId = ?2 ORDER BY atMs)) AS decisions,
  (SELECT json_group_array(json_object('visitId', b.id, 'clientId', b.clientId, 'name', b.name, 'lastAtMs', b.lastAtMs))
    FROM (SELECT v.id, v.clientId, c.name,
            (SELECT MAX(atMs) FROM chair_events WHERE visitId = v.id) AS lastAtMs
          FROM visits v JOIN clients c ON c.id = v.clientId
          WHERE v.state = 'running' AND v.workerId = ?3 AND v.id <> ?2 AND ?4) b) AS busy,
  (SELECT json_group_array(json_object('own', own, 'zoneId', zoneId, 'hair', hair, 'looks', looks, 'missed', missed))
    FROM (SELECT l.own, z.key AS zoneId, z.value ->> 0 AS hair, COUNT(*) AS looks, SUM(z.value ->> 1) AS missed
      FROM (SELECT workerId = ?3 AS own, misses FROM visits WHERE misses IS NOT NULL AND ?4
            ORDER BY endedAtMs DESC LIMIT ${LOOKS_READ}) l, json_each(l.misses) z
      GROUP BY 1, 2, 3)) AS misses`

/** What is known beyond a visit itself. A finished one has its decisions alone: nothing more is held back there. */
export async function readFacts(
  db: Database,
  visit: Pick<VisitRecord, 'id' | 'clientId' | 'workerId' | 'jobs' | 'state' | 'skin' | 'schools'>,
  house: House,
  hair: readonly KeptHair[],
): Promise<GateFacts> {
  const open = visit.state === 'finished' ? 0 : 1
  const [row] = await db.select<FactColumns>(FACTS, [
    visit.clientId,
    visit.id,
    visit.workerId,
    open,
  ])
  const kept = json(row!.past)
  const figures = figuresOf(house.figures)
  const past = pastJobs(kept)
  const home = open ? await readHome(db, visit.clientId) : []
  const told = notCutAtHome(hair, home)
  const windows: JobWindow[] = []
  for (const job of visit.jobs) {
    const last = lastOfKind(past, job)
    const window = windowAfter(
      figures,
      last && { ...last, ...pick(job) },
      comesAgain(house, visit),
      learnGrowth(figures, visit.skin, last ? jobZones(last) : [], told),
      await readyOf(db, figures, { id: visit.clientId, skin: visit.skin }, last),
      home,
    )
    if (window) windows.push({ jobId: job.id, window })
  }
  return {
    ...NO_FACTS,
    past: kept.map(pastOf),
    windows,
    home: homeSince(home, Math.max(0, ...kept.map((p) => p.endedAtMs))),
    decisions: json(row!.decisions),
    busy: json(row!.busy),
    misses: json(row!.misses).map(({ own, ...m }) => ({ ...m, own: own === 1 })),
    ...feltAfter(kept, hair),
    ...(row!.newcomer && { course: await courseOfClient(db, figures, visit) }),
    ...(row!.bornOn && { bornOn: row!.bornOn }),
  }
}

/** A rhythm of its own counts as it is wished for now. */
const pick = ({ everyDays }: Job) => (everyDays === undefined ? {} : { everyDays })

/** The gate of a visit as it stands now. */
export async function gateOf(db: Database, visit: VisitRecord, house: House): Promise<Gate> {
  const facts = await readFacts(db, visit, house, await readHair(db, visit.clientId))
  return gate(
    knownOf(figuresOf(house.figures), visit, house, visit.schools, facts, Date.now(), offsetHere),
  )
}

/**
 * Refuses what the findings hold back, and tells all of them.
 * @throws HttpProblem 409 `held-back`
 */
export function refuseHeld(findings: readonly VisitFinding[], what: 'plan' | 'start'): void {
  const words = heldWords(findings, what)
  if (words === undefined) return
  throw new HttpProblem(
    409,
    'held-back',
    words,
    holding(findings, what).map((f) => ({ path: f.id, message: `${f.title}. ${f.text}` })),
  )
}
