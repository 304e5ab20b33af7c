/** Clients with their last services and window, in a handful of queries, however many there are. */
import { figuresOf } from '../../core/register/index.ts'
import type { Asked } from '../../core/screening/index.ts'
import type { SkinAndHair } from '../../core/client.ts'
import type { Schools } from '../../core/house/index.ts'
import type { VisitWindow, Growth } from '../../core/regrowth/index.ts'
import type { ServiceId } from '../../core/services/index.ts'
import type { AtChair, HairReading } from '../../core/looks/index.ts'
import type { Decision } from '../../core/visit/index.ts'
import { learnGrowth, type LoadedService, windowAfter } from '../../core/history/index.ts'
import { comesAgain } from '../clients/model.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { inTurns } from '../db/turns.ts'
import { readHouse } from '../house/service.ts'
import type { KeptVisit } from '../visits/known.ts'
import { type AnswerColumns, groupAnswers } from '../visits/record.ts'

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
  /** The last service of each kind and every one that was taken badly, the newest first; and the last of the kind the client comes for: growth and window follow that. */
  readonly past: readonly KeptVisit[]
  readonly lastOfKind?: KeptVisit
  /** Words of workers on the open visit, and on alarms of the last ones. */
  readonly decisions: readonly Decision[]
  readonly open?: {
    readonly id: string
    readonly service: ServiceId
    readonly state: string
    readonly slotAtMs: number | null
    readonly asked: Asked
    readonly workerId: string
    /** Last event of a service under way. */
    readonly lastAtMs?: number
  }
  readonly growth: Readonly<Record<string, Growth>>
  readonly window: VisitWindow | null
  /** From when the skin is clear enough after the last service of the kind. */
  readonly readyMs: number
  /** Ends of services since `sinceMs`, rising, and the last one before it. */
  readonly services: number[]
}

type ClientColumns = Omit<OverviewClient, 'skin' | 'schools'> & {
  skin: Json<SkinAndHair>
  schools: Json<Partial<Schools>> | null
  /** As it was made last. */
  readyMs: number | null
}
interface LastColumns {
  visitId: string
  clientId: string
  service: ServiceId
  endedAtMs: number
  loads: Json<Record<string, number>> | null
  leftMm: Json<Record<string, number>> | null
  atChair: Json<AtChair> | null
  visits: number
}
type OpenColumns = Omit<NonNullable<Overview['open']>, 'asked' | 'lastAtMs'> & {
  clientId: string
  asked: Json<Asked>
  lastAtMs: number | null
}
type HairColumns = HairReading & { clientId: string; leftMm: number }

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
  ready?: (client: OverviewClient, last: LoadedService | undefined) => Promise<number>,
): Promise<Overview[]> {
  const [house, clients, lasts, opens, recent, hair] = await Promise.all([
    readHouse(db),
    db.select<ClientColumns>(
      `SELECT c.id, c.name, c.calledName, c.bornOn, c.occupation, c.phone, c.email, c.service, c.skin, c.schools, s.readyMs
       FROM clients c JOIN standings s ON s.clientId = c.id WHERE c.id IN ${THESE}`,
      [ids],
    ),
    db.select<LastColumns>(
      `SELECT v.id AS visitId, v.clientId, v.service, v.endedAtMs, v.loads, v.leftMm, v.atChair, g.visits FROM
         (SELECT clientId, service, MAX(endedAtMs) AS endedAtMs, COUNT(*) AS visits FROM visits
          WHERE state = 'finished' AND clientId IN ${THESE} GROUP BY clientId, service) g
       CROSS JOIN visits v ON v.clientId = g.clientId AND v.service = g.service AND v.state = 'finished'
         AND v.endedAtMs = g.endedAtMs
       UNION ALL
       SELECT v.id AS visitId, v.clientId, v.service, v.endedAtMs, v.loads, v.leftMm, v.atChair, 0 FROM visits v INDEXED BY visits_severe
       WHERE v.severe = 1 AND v.clientId IN ${THESE} AND v.endedAtMs < (SELECT MAX(endedAtMs) FROM visits o
         WHERE o.clientId = v.clientId AND o.service = v.service AND o.state = 'finished')
       ORDER BY 4 DESC`,
      [ids, ids],
    ),
    db.select<OpenColumns>(
      `SELECT id, clientId, workerId, service, state, slotAtMs, asked,
         CASE state WHEN 'running' THEN (SELECT MAX(atMs) FROM chair_events WHERE visitId = visits.id) END AS lastAtMs
       FROM visits WHERE state <> 'finished' AND clientId IN ${THESE}`,
      [ids],
    ),
    Number.isFinite(sinceMs)
      ? db.select<{ clientId: string; service: ServiceId; ends: string }>(
          `SELECT clientId, service, group_concat(endedAtMs) AS ends FROM visits INDEXED BY visits_by_kind
           WHERE state = 'finished' AND clientId IN ${THESE} AND endedAtMs >= ? GROUP BY clientId, service`,
          [ids, sinceMs],
        )
      : Promise.resolve([]),
    db.select<HairColumns>(
      `SELECT clientId, kind, days, zoneId, lengthMm, method, leftMm FROM hair_readings
       WHERE clientId IN ${THESE}`,
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
  const answersOf = groupAnswers(answers)
  const rows = clients.map(({ readyMs, ...row }) => {
    const client: OverviewClient = {
      ...row,
      skin: json(row.skin),
      schools: json(row.schools) ?? {},
    }
    const kinds = lastOf.get(client.id) ?? []
    const past = kinds.map(({ visitId, ...r }): KeptVisit => ({
      visitId,
      service: r.service,
      endedAtMs: r.endedAtMs,
      loads: json(r.loads),
      leftMm: json(r.leftMm),
      atChair: json(r.atChair),
      answers: answersOf.get(visitId) ?? [],
    }))
    const lastOfKind = past.find((p) => p.service === client.service)
    const last = lastOfKind && { ...lastOfKind, redAtChair: lastOfKind.atChair?.redness }
    return { client, kinds, past, lastOfKind, last, readyMs: readyMs ?? last?.endedAtMs ?? 0 }
  })
  const readies = new Map<string, number>()
  if (ready) for (const r of rows) readies.set(r.client.id, await ready(r.client, r.last))
  return inTurns(rows, ({ client, kinds, past, lastOfKind, last, readyMs: kept }): Overview => {
    const openRow = openOf.get(client.id)?.[0]
    const { service } = client
    const readyMs = readies.get(client.id) ?? kept
    const own = new Set([...past.map((p) => p.visitId), openRow?.id])
    const growth = learnGrowth(figures, client.skin, service, hairOf.get(client.id) ?? [])
    return {
      client,
      visits: kinds.reduce((sum, r) => sum + r.visits, 0),
      past,
      decisions: decisions.filter((d) => own.has(d.visitId)),
      ...(lastOfKind && { lastOfKind }),
      ...(openRow && {
        open: {
          id: openRow.id,
          service: openRow.service,
          state: openRow.state,
          slotAtMs: openRow.slotAtMs,
          asked: json(openRow.asked),
          workerId: openRow.workerId,
          ...(openRow.lastAtMs !== null && { lastAtMs: openRow.lastAtMs }),
        },
      }),
      growth,
      readyMs,
      window: windowAfter(figures, last, comesAgain(house, client), growth, readyMs),
      services: (recentOf.get(client.id) ?? [])
        .filter((r) => r.service === service)
        .flatMap((r) => r.ends.split(',').map(Number))
        .sort((a, b) => a - b),
    }
  })
}
