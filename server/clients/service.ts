/** Clients: found, added, changed, taken out, erased; and the page that holds all about one. */
import type { AnswerOf, BodyOf, QueryOf } from '../../contract/routes.ts'
import { figuresOf } from '../../core/register/index.ts'
import { eachText } from '../../core/client.ts'
import { dueToday } from '../../core/ahead/index.ts'
import type { Client, ClientPage, VisitSummary } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import type { Reads } from '../db/reader.ts'
import type { ClientRecord } from '../db/models.ts'
import { readHouse } from '../house/service.ts'
import { photoNames } from '../photos/names.ts'
import { condemn } from '../photos/sweep.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { foldName } from '../standing/foldName.ts'
import { freshen } from '../standing/standing.ts'
import { overviewOf } from '../today/overview.ts'
import { joined, openDifferences } from '../visits/differences.ts'
import { shortJob } from '../visits/record.ts'
import { modelNow, readHistory } from './model.ts'
import { readClient } from './read.ts'
import { tideNow } from './tide.ts'
import { upkeepOutlooks } from './upkeep.ts'

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

const PAGE = 100
const SORTS = {
  name: 's.nameKey, s.num',
  due: 's.dueToMs IS NULL, s.dueToMs, s.nameKey, s.num',
  last: 's.lastAtMs IS NULL, s.lastAtMs DESC, s.nameKey, s.num',
} as const

/** Who is due within a week; who is late; who was never here. */
const WHICH = {
  all: '1',
  due: 's.dueToMs >= $now AND s.dueFromMs < $now + 7 * 86400000',
  late: 's.dueToMs < $now',
  new: 's.visits = 0',
} as const

/** What is sought as a query of SQLite's index of words: each word is the beginning of one of theirs. */
const wordsOf = (find: string): string =>
  (find.match(/[\p{L}\p{N}]+/gu) ?? []).map((word) => `"${word}"*`).join(' ')

/** Lists clients a page at a time: those with words in name or occupation that begin as what is sought. */
export async function listClients(
  db: Database,
  query: QueryOf<'clients'>,
): Promise<AnswerOf<'clients'>> {
  await freshen(db)
  const words = wordsOf(query.find)
  const pages = async (found: string, values: Record<string, string>) => {
    const where = `WHERE (${found}) AND (${WHICH[query.which]})`
    const told = { ...values, ...(/\$now/.test(where) && { $now: Date.now() }) }
    const [order, [count]] = await Promise.all([
      db.select<{ clientId: string }>(
        `SELECT s.clientId FROM standings s ${where} ORDER BY ${SORTS[query.sort]} LIMIT ${PAGE} OFFSET $from`,
        { ...told, $from: query.from },
      ),
      db.select<{ n: number }>(`SELECT COUNT(*) AS n FROM standings s ${where}`, told),
    ])
    return { ids: order.map((o) => o.clientId), total: count!.n }
  }
  const all = query.find.trim() === ''
  const begun = all
    ? await pages('1', {})
    : words
      ? await pages('s.num IN (SELECT rowid FROM client_names WHERE client_names MATCH $words)', {
          $words: words,
        })
      : { ids: [], total: 0 }
  // Where no word begins so, within a name.
  const { ids, total } =
    begun.total > 0 || all
      ? begun
      : await pages('instr(s.nameKey, $part) > 0', { $part: foldName(query.find) })
  const byId = new Map((await overviewOf(db, ids, Infinity)).map((o) => [o.client.id, o]))
  const rows = ids.flatMap((id) => byId.get(id) ?? [])
  return {
    total,
    rows: rows.map(({ client, visits, past: [last], next }) => ({
      id: client.id,
      name: client.name,
      calledName: client.calledName,
      occupation: client.occupation,
      phone: client.phone,
      email: client.email,
      service: client.service,
      visits,
      lastAtMs: last?.endedAtMs ?? null,
      dueFromMs: next?.window?.fromMs ?? null,
      dueToMs: next?.window?.toMs ?? null,
    })),
  }
}

/** Everybody by name, telephone and mail: what an import looks for to find who is here already. */
export const knownClients = (db: Database): Promise<AnswerOf<'knownClients'>> =>
  db.select('SELECT name, phone, email FROM clients')

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
  const row = await db.write(async () => {
    const found = await findClient(db, id)
    const now = found.toJSON() as unknown as Record<string, unknown>
    const theirs = Object.fromEntries(Object.keys(change).map((key) => [key, now[key]]))
    const about = { what: 'changeClient', clientId: id, visitId: null } as const
    return found.update(await joined(db, about, change, theirs))
  })
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
export async function clientPage(db: Reads, id: string, desk = false): Promise<ClientPage> {
  const client = await readClient(db, id)
  const [history, house, differences] = await Promise.all([
    readHistory(db, id),
    readHouse(db),
    openDifferences(db, id),
  ])
  const figures = figuresOf(house.figures)
  const model = modelNow(figures, history, client.skin)
  const visits = history.visits.map(({ left, redAtChair: _red, ...told }): VisitSummary => {
    const jobs = left().map(shortJob)
    const summary = { ...told, jobs }
    return desk ? { ...summary, worstRedness: null, bumps: null, routine: '' } : summary
  })
  const nothing = { ...history, visits: [], answers: new Map(), hair: [] }
  const open = visits.find((v) => v.state !== 'finished')
  const nowMs = Date.now()
  const upkeeps = upkeepOutlooks(figures, history, client, house, nowMs)
  const tide = tideNow(figures, {
    ...{ client, visits, upkeeps, growth: model.growth, nowMs },
    home: history.home,
  })
  return {
    client,
    visits,
    currentVisitId: open?.id ?? visits[0]?.id ?? null,
    model: desk ? modelNow(figures, nothing, client.skin) : model,
    tide,
    home: desk ? [] : [...history.home],
    due: desk ? [] : dueToday(figures, upkeeps, nowMs),
    // To be settled by those who work at the chair.
    differences: desk ? [] : differences,
  }
}
