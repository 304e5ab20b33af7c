/** All clients with their last service and window, in a handful of queries, however many clients there are. */
import type { Asked } from '../../core/screening/screen.ts'
import type { SkinAndHair } from '../../core/client.ts'
import type { Schools } from '../../core/house/schools.ts'
import type { VisitWindow } from '../../core/regrowth/nextVisit.ts'
import type { Growth } from '../../core/regrowth/growth.ts'
import type { ServiceId } from '../../core/services.ts'
import type { HairReading, SkinAnswer } from '../../contract/types.ts'
import { learnGrowth } from '../../core/history/learn.ts'
import { windowAfter } from '../../core/history/window.ts'
import type { Database } from '../db/connection.ts'
import { json, type Row } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
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

interface PastService {
  readonly id: string
  readonly service: ServiceId
  readonly endedAtMs: number
  readonly leftMm: Record<string, number> | null
  readonly answers: SkinAnswer[]
}

export interface Overview {
  readonly client: OverviewClient
  /** Finished visits. */
  readonly visits: number
  /** The last service of any kind, and the last of the kind the client comes for: growth and window follow that. */
  readonly last?: PastService
  readonly lastOfKind?: PastService
  readonly open?: {
    readonly id: string
    readonly service: ServiceId
    readonly state: string
    readonly slotAtMs: number | null
    readonly asked: Asked
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
      `SELECT v.id, v.clientId, v.service, v.endedAtMs, v.leftMm, g.visits FROM
         (SELECT clientId, service, MAX(endedAtMs) AS endedAtMs, COUNT(*) AS visits FROM visits
          WHERE state = 'finished' GROUP BY clientId, service) g
       CROSS JOIN visits v ON v.clientId = g.clientId AND v.service = g.service AND v.state = 'finished'
         AND v.endedAtMs = g.endedAtMs
       ORDER BY v.endedAtMs DESC`,
    ),
    db.select(
      `SELECT id, clientId, service, state, slotAtMs, asked FROM visits WHERE state <> 'finished'`,
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
  const answers = lasts.length
    ? await db.select(
        'SELECT visitId, moment, atMs, zones FROM skin_answers WHERE visitId IN (SELECT value FROM json_each(?))',
        [lasts.map((l) => String(l['id']))],
      )
    : []
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
    const past = kinds.map((r): PastService => ({
      id: r['id'] as string,
      service: r['service'] as ServiceId,
      endedAtMs: r['endedAtMs'] as number,
      leftMm: json<Record<string, number>>(r['leftMm']),
      answers: answersOf.get(r['id'] as string) ?? [],
    }))
    const [last] = past
    const lastOfKind = past.find((p) => p.service === service)
    const growth = learnGrowth(
      client.skin,
      service,
      (hairOf.get(client.id) ?? []) as unknown as (HairReading & { leftMm: number })[],
    )
    return {
      client,
      visits: kinds.reduce((sum, r) => sum + (r['visits'] as number), 0),
      ...(last && { last }),
      ...(lastOfKind && { lastOfKind }),
      ...(openRow && {
        open: {
          id: openRow['id'] as string,
          service: openRow['service'] as ServiceId,
          state: openRow['state'] as string,
          slotAtMs: openRow['slotAtMs'] as number | null,
          asked: json<Asked>(openRow['asked'])!,
        },
      }),
      growth,
      window: windowAfter(lastOfKind, client.skin, { ...house.schools, ...client.schools }, growth),
      services: (recentOf.get(client.id) ?? [])
        .filter((r) => r['service'] === service)
        .flatMap((r) => String(r['ends']).split(',').map(Number))
        .sort((a, b) => a - b),
    }
  })
}
