/** All clients with their last service and window, in a handful of queries, however many clients there are. */
import { figuresOf } from '../../core/register/index.ts'
import type { Asked } from '../../core/screening/index.ts'
import type { SkinAndHair } from '../../core/client.ts'
import type { Schools } from '../../core/house/index.ts'
import type { VisitWindow, Growth } from '../../core/regrowth/index.ts'
import type { ServiceId } from '../../core/services/index.ts'
import type { AtChair, HairReading } from '../../core/looks/index.ts'
import type { Decision } from '../../core/visit/index.ts'
import { learnGrowth, windowAfter } from '../../core/history/index.ts'
import type { Database } from '../db/connection.ts'
import { json, type Row } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
import type { KeptVisit } from '../visits/known.ts'
import { groupAnswers } from '../visits/record.ts'

export interface OverviewClient {
  readonly id: string
  readonly name: string
  readonly calledName: string
  readonly occupation: string
  readonly phone: string
  readonly email: string
  readonly service: string
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
  readonly growth: Record<string, Growth>
  readonly window: VisitWindow | null
  /** Ends of services since `sinceMs`, rising, and the last one before it. */
  readonly services: number[]
}

/**
 * The order of the joins and the indices are said: SQLite would read every visit otherwise.
 * @param sinceMs how far back the ends of services are wanted; only the last of each client when left out
 */
export async function dueOverview(db: Database, sinceMs = Infinity): Promise<Overview[]> {
  const [house, clients, lasts, opens, recent, hair] = await Promise.all([
    readHouse(db),
    db.select(
      'SELECT id, name, calledName, occupation, phone, email, service, skin, schools FROM clients',
    ),
    db.select(
      `SELECT v.id, v.clientId, v.service, v.endedAtMs, v.loads, v.leftMm, v.atChair, g.visits FROM
         (SELECT clientId, service, MAX(endedAtMs) AS endedAtMs, COUNT(*) AS visits FROM visits
          WHERE state = 'finished' GROUP BY clientId, service) g
       CROSS JOIN visits v ON v.clientId = g.clientId AND v.service = g.service AND v.state = 'finished'
         AND v.endedAtMs = g.endedAtMs
       UNION ALL
       SELECT v.id, v.clientId, v.service, v.endedAtMs, v.loads, v.leftMm, v.atChair, 0 FROM visits v INDEXED BY visits_severe
       WHERE v.severe = 1 AND v.endedAtMs < (SELECT MAX(endedAtMs) FROM visits o
         WHERE o.clientId = v.clientId AND o.service = v.service AND o.state = 'finished')
       ORDER BY 4 DESC`,
    ),
    db.select(
      `SELECT id, clientId, workerId, service, state, slotAtMs, asked,
         CASE state WHEN 'running' THEN (SELECT MAX(atMs) FROM chair_events WHERE visitId = visits.id) END AS lastAtMs
       FROM visits WHERE state <> 'finished'`,
    ),
    Number.isFinite(sinceMs)
      ? db.select(
          `SELECT clientId, service, group_concat(endedAtMs) AS ends FROM visits INDEXED BY visits_by_end
           WHERE endedAtMs >= ? GROUP BY clientId, service`,
          [sinceMs],
        )
      : Promise.resolve([]),
    db.select('SELECT clientId, kind, days, zoneId, lengthMm, method, leftMm FROM hair_readings'),
  ])
  const named = [...lasts, ...opens].map((l) => String(l['id']))
  const [answers, decided] = await Promise.all([
    db.select(
      `SELECT visitId, moment, atMs, zones, '[]' AS spots, feeling, source, toldAtMs FROM skin_answers
       WHERE visitId IN (SELECT value FROM json_each(?))`,
      [lasts.map((l) => String(l['id']))],
    ),
    db.select(
      'SELECT * FROM decisions WHERE takenBackAtMs IS NULL AND visitId IN (SELECT value FROM json_each(?))',
      [named],
    ),
  ])
  const figures = figuresOf(house.figures)
  const decisions = decided as unknown as Decision[]
  const byClient = <T extends Row>(rows: T[]) => {
    const map = new Map<string, T[]>()
    for (const row of rows) {
      const key = row['clientId'] as string
      const list = map.get(key)
      if (list) list.push(row)
      else map.set(key, [row])
    }
    return map
  }
  const lastOf = byClient(lasts)
  const openOf = byClient(opens)
  const recentOf = byClient(recent)
  const hairOf = byClient(hair)
  const answersOf = groupAnswers(answers)
  return clients.map((row) => {
    const client = {
      ...(row as unknown as OverviewClient),
      skin: json<SkinAndHair>(row['skin'])!,
      schools: json<Partial<Schools>>(row['schools']) ?? {},
    }
    const openRow = openOf.get(client.id)?.[0]
    const service = client.service as ServiceId
    const kinds = lastOf.get(client.id) ?? []
    const past = kinds.map((r): KeptVisit => ({
      visitId: r['id'] as string,
      service: r['service'] as ServiceId,
      endedAtMs: r['endedAtMs'] as number,
      loads: json<Record<string, number>>(r['loads']),
      leftMm: json<Record<string, number>>(r['leftMm']),
      atChair: json<AtChair>(r['atChair']),
      answers: answersOf.get(r['id'] as string) ?? [],
    }))
    const own = new Set([...past.map((p) => p.visitId), openRow?.['id'] as string])
    const lastOfKind = past.find((p) => p.service === service)
    const growth = learnGrowth(
      figures,
      client.skin,
      service,
      (hairOf.get(client.id) ?? []) as unknown as (HairReading & { leftMm: number })[],
    )
    return {
      client,
      visits: kinds.reduce((sum, r) => sum + (r['visits'] as number), 0),
      past,
      decisions: decisions.filter((d) => own.has(d.visitId)),
      ...(lastOfKind && { lastOfKind }),
      ...(openRow && {
        open: {
          id: openRow['id'] as string,
          service: openRow['service'] as ServiceId,
          state: openRow['state'] as string,
          slotAtMs: openRow['slotAtMs'] as number | null,
          asked: json<Asked>(openRow['asked'])!,
          workerId: openRow['workerId'] as string,
          ...(openRow['lastAtMs'] !== null && { lastAtMs: openRow['lastAtMs'] as number }),
        },
      }),
      growth,
      window: windowAfter(
        figures,
        lastOfKind && { ...lastOfKind, redAtChair: lastOfKind.atChair?.redness },
        client.skin,
        { ...house.schools, ...client.schools },
        growth,
      ),
      services: (recentOf.get(client.id) ?? [])
        .filter((r) => r['service'] === service)
        .flatMap((r) => String(r['ends']).split(',').map(Number))
        .sort((a, b) => a - b),
    }
  })
}
