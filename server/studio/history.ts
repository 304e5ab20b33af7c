/** Finished visits as comparing and learning across visits need them, of one client or of all. */
import { readFigures } from '../house/service.ts'
import type { Figures } from '../../core/house/index.ts'
import type { VisitFacts, VisitChoices } from '../../core/history/index.ts'
import { bumpsByZone, worstByZone, type SkinAnswer } from '../../core/looks/index.ts'
import type { ServiceId } from '../../core/services/index.ts'
import type { Reactivity } from '../../core/skin/index.ts'
import type { ClientHistory, StudioHistory } from '../../contract/types.ts'
import { readClient } from '../clients/read.ts'
import type { Database } from '../db/connection.ts'
import { json, type Json } from '../db/reader.ts'
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
  red: Json<Record<string, number>> | null
}
const FACTS = `SELECT id, clientId, service, workerId, endedAtMs, loads, choices, products, routine, dueFromMs, dueToMs,
    atChair ->> '$.redness' AS red
  FROM visits WHERE state = 'finished'`

/** Visits gone through before others are let in: a service at the chair must not wait. */
const AT_ONCE = 200
const breathe = () => new Promise<void>((go) => setImmediate(go))

/** Zones that are not zero: most are, and there are many visits. */
const told = (zones: ReadonlyMap<string, number> | undefined): Record<string, number> | null =>
  zones ? Object.fromEntries([...zones].filter(([, n]) => n > 0)) : null

function toFacts(figures: Figures, row: FactColumns, answers: readonly SkinAnswer[]): VisitFacts {
  const { endedAtMs, dueFromMs: from, dueToMs: to } = row
  const loads = json(row.loads) ?? {}
  const redAtChair = json(row.red) ?? {}
  return {
    visitId: row.id,
    service: row.service,
    workerId: row.workerId,
    endedAtMs,
    loads,
    worst: told(worstByZone(figures, { endedAtMs, loads, answers, redAtChair })),
    bumps: told(bumpsByZone(figures, { endedAtMs, answers })),
    choices: json(row.choices),
    products: json(row.products) ?? [],
    routine: row.routine,
    answered: answers.map((a) => a.moment),
    due: from !== null && to !== null ? { fromMs: from, toMs: to } : null,
  }
}

/** A client's visits, oldest first, with every look at the skin. */
export async function clientHistory(db: Database, clientId: string): Promise<ClientHistory> {
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

/** Every client's visits, oldest first. */
export async function studioHistory(db: Database): Promise<StudioHistory> {
  const [figures, clients, rows, given] = await Promise.all([
    readFigures(db),
    db.select<{ id: string; name: string; reactivity: Reactivity }>(
      `SELECT id, name, skin ->> '$.reactivity' AS reactivity FROM clients ORDER BY name`,
    ),
    db.select<FactColumns>(`${FACTS} ORDER BY endedAtMs`),
    db.select<AnswerColumns>('SELECT visitId, moment, atMs, zones FROM skin_answers ORDER BY atMs'),
  ])
  await breathe()
  const answers = groupAnswers(given)
  const byClient = new Map<string, VisitFacts[]>()
  for (const [i, row] of rows.entries()) {
    if (i % AT_ONCE === 0) await breathe()
    const facts = toFacts(figures, row, answers.get(row.id) ?? [])
    const list = byClient.get(row.clientId)
    if (list) list.push(facts)
    else byClient.set(row.clientId, [facts])
  }
  return {
    nowMs: Date.now(),
    clients: clients.map(({ id, ...client }) => ({
      clientId: id,
      ...client,
      visits: byClient.get(id) ?? [],
    })),
  }
}
