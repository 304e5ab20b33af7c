/** Clients: found, added, changed, taken out, erased; and the page that holds all about one. */
import type { BodyOf } from '../../contract/routes.ts'
import { figuresOf } from '../../core/register/index.ts'
import { eachText } from '../../core/client.ts'
import { windowAfter } from '../../core/history/index.ts'
import type {
  Client,
  ClientPage,
  ClientRow as ListRow,
  VisitSummary,
} from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import type { ClientRecord } from '../db/models.ts'
import { readHouse } from '../house/service.ts'
import { photoNames } from '../photos/names.ts'
import { condemn } from '../photos/sweep.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { dueOverview } from '../today/overview.ts'
import { modelFrom, readHistory } from './model.ts'
import { readClient } from './read.ts'
import { tideNow } from './tide.ts'

export function toClient(row: ClientRecord): Client {
  return {
    id: row.id,
    name: row.name,
    ...eachText((field) => row[field]),
    service: row.service,
    skin: row.skin,
    schools: row.schools,
    events: row.events,
    createdAtMs: row.createdAtMs,
  }
}

export async function findClient(db: Database, id: string): Promise<ClientRecord> {
  const client = await db.models.Client.findByPk(id)
  if (!client) throw notFound('That client')
  return client
}

/** Lists clients whose name or occupation holds the words sought. */
export async function listClients(
  db: Database,
  query: { find: string; sort: string },
): Promise<ListRow[]> {
  const overview = await dueOverview(db)
  const words = query.find.trim().toLocaleLowerCase()
  const rows = overview
    .filter(({ client }) =>
      [client.name, client.calledName, client.occupation].some((s) =>
        s.toLocaleLowerCase().includes(words),
      ),
    )
    .map(({ client, visits, past: [last], window }): ListRow => ({
      id: client.id,
      name: client.name,
      calledName: client.calledName,
      occupation: client.occupation,
      phone: client.phone,
      email: client.email,
      service: client.service,
      visits,
      lastAtMs: last?.endedAtMs ?? null,
      dueFromMs: window?.fromMs ?? null,
      dueToMs: window?.toMs ?? null,
    }))
  const by: Record<string, (a: ListRow, b: ListRow) => number> = {
    name: (a, b) => a.name.localeCompare(b.name),
    due: (a, b) =>
      (a.dueToMs ?? Infinity) - (b.dueToMs ?? Infinity) || a.name.localeCompare(b.name),
    last: (a, b) => (b.lastAtMs ?? 0) - (a.lastAtMs ?? 0) || a.name.localeCompare(b.name),
  }
  return rows.sort(by[query.sort])
}

export async function addClient(db: Database, body: BodyOf<'addClient'>): Promise<Client> {
  const row = await db.write(async () => {
    const same = await db.models.Client.findByPk(body.id)
    return same ?? db.models.Client.create({ ...body, createdAtMs: Date.now() })
  })
  return toClient(row)
}

export async function changeClient(
  db: Database,
  id: string,
  change: BodyOf<'changeClient'>,
): Promise<Client> {
  const row = await db.write(async () => (await findClient(db, id)).update(change))
  return toClient(row)
}

/** Erases a client and all that hangs on them. The name must be typed, so that it cannot happen by a slip. */
export async function eraseClient(db: Database, id: string, confirmName: string): Promise<void> {
  await db.write(async () => {
    const client = await findClient(db, id)
    if (client.name.trim() !== confirmName.trim()) {
      throw new HttpProblem(
        422,
        'name-differs',
        `Type "${client.name}" to erase. Nothing was erased.`,
      )
    }
    await forgetClients(db, [id])
  })
}

/**
 * Part of a write: these clients go, with all that hangs on them, their pictures are to go, and they are on the list that
 * a restored backup is held to.
 */
export async function forgetClients(db: Database, ids: readonly string[]): Promise<void> {
  const photos = await db.select<{ id: string; clientId: string }>(
    `SELECT p.id, v.clientId FROM photos p JOIN visits v ON v.id = p.visitId
     WHERE v.clientId IN (SELECT value FROM json_each(?))`,
    [ids],
  )
  await condemn(
    db,
    photos.flatMap((p) => photoNames(p.id)),
  )
  const atMs = Date.now()
  for (const id of ids) {
    const own = photos.filter((p) => p.clientId === id).map((p) => p.id)
    await db.sequelize.query(
      'INSERT OR REPLACE INTO erased (clientId, photos, atMs) VALUES (?, ?, ?)',
      {
        replacements: [id, JSON.stringify(own), atMs],
      },
    )
  }
  await db.models.Client.destroy({ where: { id: [...ids] } })
}

/** @param desk true for whom sees names and times only: nothing is told of how skin took anything */
export async function clientPage(db: Database, id: string, desk = false): Promise<ClientPage> {
  const client = await readClient(db, id)
  const { service } = client
  const [history, house] = await Promise.all([readHistory(db, id), readHouse(db)])
  const figures = figuresOf(house.figures)
  const model = modelFrom(figures, history, client.skin, service)
  const visits = history.visits.map(
    ({ loads: _loads, leftMm: _left, redAtChair: _red, ...summary }): VisitSummary =>
      desk ? { ...summary, worstRedness: null, bumps: null, routine: '' } : summary,
  )
  const nothing = { ...history, visits: [], answers: new Map(), hair: [] }
  const open = visits.find((v) => v.state !== 'finished')
  const finished = history.visits.filter((v) => v.state === 'finished')
  const last = finished.find((v) => v.service === service)
  const leftMm = last?.leftMm() ?? null
  const nowMs = Date.now()
  const window = windowAfter(
    figures,
    last && {
      service,
      endedAtMs: last.endedAtMs!,
      leftMm,
      answers: history.answers.get(last.id) ?? [],
      redAtChair: last.redAtChair(),
    },
    client.skin,
    { ...house.schools, ...client.schools },
    model.growth,
  )
  const tide = tideNow(figures, { client, visits, leftMm, growth: model.growth, window, nowMs })
  return {
    client,
    visits,
    currentVisitId: open?.id ?? visits[0]?.id ?? null,
    model: desk ? modelFrom(figures, nothing, client.skin, service) : model,
    tide,
  }
}
