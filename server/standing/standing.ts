/**
 * What stands of each client: when they are due, what is owed, what alarms; and what their visits add to the studio. Kept
 * beside the data it is made of, so that Today, the list and the studio need not read every visit. The database itself
 * marks what has changed, whoever writes; here it is made anew.
 */
import { figuresOf } from '../../core/register/index.ts'
import { owedStretches } from '../../core/looks/index.ts'
import { readyOf } from '../clients/model.ts'
import type { Database } from '../db/connection.ts'
import { coalesced } from '../db/turns.ts'
import { readHouse } from '../house/service.ts'
import { overviewOf } from '../today/overview.ts'
import { flagsOf } from '../today/flags.ts'
import type { Work } from '../work/work.ts'
import { foldName } from './foldName.ts'

/** Clients gone through before others are let in: a service at the chair must not wait. */
const AT_ONCE = 50
const SUMS_AT_ONCE = 40

/** Makes the standings anew whose client has changed. */
export const freshen = coalesced(freshenAll)

async function freshenAll(db: Database): Promise<void> {
  for (;;) {
    const stale = await db.select<{ clientId: string; mark: number }>(
      `SELECT clientId, mark FROM standings WHERE mark <> madeFor LIMIT ${AT_ONCE}`,
    )
    if (stale.length === 0) return
    const marks = new Map(stale.map((s) => [s.clientId, s.mark]))
    const nowMs = Date.now()
    const house = await readHouse(db)
    const figures = figuresOf(house.figures)
    const overview = await overviewOf(db, [...marks.keys()], Infinity, (client, last) =>
      readyOf(db, figures, client, last),
    )
    const rows = overview.map((o) => {
      const [last] = o.past
      const owed = last ? owedStretches(figures, last.endedAtMs, last.answers) : []
      const { flags } = flagsOf(figures, o, house, nowMs)
      return {
        clientId: o.client.id,
        mark: marks.get(o.client.id)!,
        nameKey: foldName(o.client.name),
        visits: o.visits,
        lastAtMs: last?.endedAtMs ?? null,
        dueFromMs: o.next?.window?.fromMs ?? null,
        dueToMs: o.next?.window?.toMs ?? null,
        readyOf: o.readyOf,
        alarms: flags.filter((f) => f.kind === 'alarm').length,
        owed,
        owedUntilMs: Math.max(0, ...owed.map(([, to]) => to)),
      }
    })
    // Who was erased meanwhile has no row any more; who changed again keeps the newer mark.
    // Where nothing can be written (a full disk) Today is shown all the same, in the order that was kept.
    const kept = await tried(db, () =>
      db.sequelize.query(
        `UPDATE standings SET ${KEPT.map((k) => `${k} = j.value ->> '$.${k}'`).join(', ')}, madeFor = j.value ->> '$.mark'
         FROM json_each(?) j WHERE standings.clientId = j.value ->> '$.clientId'`,
        { replacements: [JSON.stringify(rows)] },
      ),
    )
    if (!kept) return
  }
}

/** @returns false when it could not be written */
const tried = (db: Database, work: () => Promise<unknown>): Promise<boolean> =>
  db.write(work).then(
    () => true,
    () => false,
  )

/** Columns that are made anew. */
const KEPT = 'nameKey visits lastAtMs dueFromMs dueToMs readyOf alarms owed owedUntilMs'.split(' ')

/** Who was never served adds nothing. */
const STALE_SUMS = 'visits > 0 AND (sumsMark <> sumsFor OR sumsUntilMs <= ?)'

/** How many clients' sums are old, and of how many. */
export async function staleSums(db: Database): Promise<{ left: number; of: number }> {
  await freshen(db)
  const [row] = await db.select<{ n: number; of: number }>(
    `SELECT SUM(${STALE_SUMS}) AS n, SUM(visits > 0) AS "of" FROM standings`,
    [Date.now()],
  )
  return { left: row?.n ?? 0, of: row?.of ?? 0 }
}

/** Makes the sums anew that are old. */
export const freshenSums = coalesced(sumAll)

async function sumAll(db: Database, work: Work): Promise<void> {
  await freshen(db)
  for (;;) {
    const nowMs = Date.now()
    const stale = await db.select<{ clientId: string; mark: number }>(
      `SELECT clientId, sumsMark AS mark FROM standings WHERE ${STALE_SUMS} LIMIT ${SUMS_AT_ONCE}`,
      [nowMs],
    )
    if (stale.length === 0) return
    const marks = new Map(stale.map((s) => [s.clientId, s.mark]))
    const made = await work.run('sums', { clientIds: [...marks.keys()], nowMs })
    const rows = JSON.stringify(
      made.map(({ sums, ...m }) => ({
        ...m,
        mark: marks.get(m.clientId),
        sums: JSON.stringify(sums),
      })),
    )
    const kept = await tried(db, async () => {
      await db.sequelize.query(
        `INSERT OR REPLACE INTO client_sums (clientId, sums)
         SELECT j.value ->> '$.clientId', j.value ->> '$.sums' FROM json_each(?) j
         WHERE EXISTS (SELECT 1 FROM clients WHERE id = j.value ->> '$.clientId')`,
        { replacements: [rows] },
      )
      await db.sequelize.query(
        `UPDATE standings SET sumsFor = j.value ->> '$.mark', sumsUntilMs = j.value ->> '$.untilMs'
         FROM json_each(?) j WHERE standings.clientId = j.value ->> '$.clientId'`,
        { replacements: [rows] },
      )
    })
    if (!kept) return
  }
}

/** Standings are made anew so soon after a change, and sums after so many turns: Today and the studio find them made. */
const TURN_MS = 3000
const SUMS_EACH = 20

/**
 * Keeps both fresh in the background.
 * @returns what ends it
 */
export function keepFresh(db: Database, work: Work): () => Promise<void> {
  let turn = 0
  let doing: Promise<void> = Promise.resolve()
  let over = false
  const timer = setInterval(() => {
    if (over) return
    turn++
    doing = doing
      .then(() => freshen(db))
      .then(() => (turn % SUMS_EACH === 0 && !over ? freshenSums(db, work) : undefined))
      // A full disk, say: what is old is made anew when it is asked for.
      .catch(() => undefined)
  }, TURN_MS)
  timer.unref()
  return async () => {
    over = true
    clearInterval(timer)
    await doing
  }
}

/** Everything anew, from the visits themselves. */
export async function rebuild(db: Database, work: Work): Promise<number> {
  await db.write(() =>
    db.sequelize.query('UPDATE standings SET mark = mark + 1, sumsMark = sumsMark + 1'),
  )
  await freshen(db)
  await freshenSums(db, work)
  return (await staleSums(db)).of
}
