/** Finished visits as comparing and learning across visits need them, of one client or of all. */
import { readFigures } from '../house/service.ts'
import type { Figures } from '../../core/house/index.ts'
import type { VisitFacts, VisitChoices } from '../../core/history/index.ts'
import { bumpsByZone, worstByZone, type SkinAnswer } from '../../core/looks/index.ts'
import type { Reactivity } from '../../core/skin/index.ts'
import type { ClientHistory, StudioHistory } from '../../contract/types.ts'
import { readClient } from '../clients/read.ts'
import type { Database } from '../db/connection.ts'
import { json, type Row } from '../db/reader.ts'
import { groupAnswers } from '../visits/record.ts'

const FACTS = `SELECT id, clientId, service, workerId, endedAtMs, loads, choices, products, routine, dueFromMs, dueToMs,
    atChair ->> '$.redness' AS red
  FROM visits WHERE state = 'finished'`

/** Visits gone through before others are let in: a service at the chair must not wait. */
const AT_ONCE = 200
const breathe = () => new Promise<void>((go) => setImmediate(go))

/** Zones that are not zero: most are, and there are many visits. */
const told = (zones: ReadonlyMap<string, number> | undefined): Record<string, number> | null =>
  zones ? Object.fromEntries([...zones].filter(([, n]) => n > 0)) : null

function toFacts(figures: Figures, row: Row, answers: readonly SkinAnswer[]): VisitFacts {
  const endedAtMs = row['endedAtMs'] as number
  const loads = json<Record<string, number>>(row['loads']) ?? {}
  const redAtChair = json<Record<string, number>>(row['red']) ?? {}
  const [from, to] = [row['dueFromMs'] as number | null, row['dueToMs'] as number | null]
  return {
    visitId: row['id'] as string,
    service: row['service'] as VisitFacts['service'],
    workerId: row['workerId'] as string,
    endedAtMs,
    loads,
    worst: told(worstByZone(figures, { endedAtMs, loads, answers, redAtChair })),
    bumps: told(bumpsByZone(figures, { endedAtMs, answers })),
    choices: json<VisitChoices>(row['choices']),
    products: json<string[]>(row['products']) ?? [],
    routine: row['routine'] as string,
    answered: answers.map((a) => a.moment),
    due: from !== null && to !== null ? { fromMs: from, toMs: to } : null,
  }
}

/** A client's visits, oldest first, with every look at the skin. */
export async function clientHistory(db: Database, clientId: string): Promise<ClientHistory> {
  await readClient(db, clientId)
  const [figures, rows, given] = await Promise.all([
    readFigures(db),
    db.select(`${FACTS} AND clientId = ? ORDER BY endedAtMs`, [clientId]),
    db.select(
      `SELECT visitId, moment, atMs, zones, spots, feeling, source FROM skin_answers
       WHERE visitId IN (SELECT id FROM visits WHERE clientId = ?) ORDER BY atMs`,
      [clientId],
    ),
  ])
  const answers = groupAnswers(given)
  return {
    visits: rows.map((r) => toFacts(figures, r, answers.get(r['id'] as string) ?? [])),
    looks: [...answers].flatMap(([visitId, list]) => list.map((answer) => ({ visitId, answer }))),
  }
}

/** Every client's visits, oldest first. */
export async function studioHistory(db: Database): Promise<StudioHistory> {
  const [figures, clients, rows, given] = await Promise.all([
    readFigures(db),
    db.select(`SELECT id, name, skin ->> '$.reactivity' AS reactivity FROM clients ORDER BY name`),
    db.select(`${FACTS} ORDER BY endedAtMs`),
    db.select('SELECT visitId, moment, atMs, zones FROM skin_answers ORDER BY atMs'),
  ])
  await breathe()
  const answers = groupAnswers(given)
  const byClient = new Map<string, VisitFacts[]>()
  for (const [i, row] of rows.entries()) {
    if (i % AT_ONCE === 0) await breathe()
    const facts = toFacts(figures, row, answers.get(row['id'] as string) ?? [])
    const list = byClient.get(row['clientId'] as string)
    if (list) list.push(facts)
    else byClient.set(row['clientId'] as string, [facts])
  }
  return {
    nowMs: Date.now(),
    clients: clients.map((c) => ({
      clientId: c['id'] as string,
      name: c['name'] as string,
      reactivity: c['reactivity'] as Reactivity,
      visits: byClient.get(c['id'] as string) ?? [],
    })),
  }
}
