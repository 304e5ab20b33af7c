/** What two screens entered differently without knowing of each other: both are kept until somebody has chosen. */
import { randomUUID } from 'node:crypto'
import { joinThree, withField, type Manner } from '../../core/merge/index.ts'
import { ANSWER_MANNER, ASKED_MANNER, CLIENT_MANNER, NOTES_MANNER } from '../../core/visit/index.ts'
import type { Difference } from '../../contract/types.ts'
import type { JoinedRoute } from '../../contract/joined.ts'
import type { Database } from '../db/connection.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { notFound } from '../http/problem.ts'
import { underWay } from '../people/who.ts'
import { readClient } from '../clients/read.ts'
import { readVisit } from './record.ts'

const MANNERS: Readonly<Record<JoinedRoute, Manner>> = {
  changeClient: CLIENT_MANNER,
  saveAsked: ASKED_MANNER,
  saveNotes: NOTES_MANNER,
  saveSkinAnswer: ANSWER_MANNER,
}

const run = (db: Database, sql: string, replacements: unknown[]) =>
  db.sequelize.query(sql, { replacements })

export interface AboutEntry {
  readonly what: JoinedRoute
  readonly clientId: string
  readonly visitId: string | null
  /** The field that it is all of: the moment of an answer. */
  readonly under?: string
}

/**
 * Part of a write: an entry that was made on what a screen knew then, with what stands here now.
 * @param mine as it arrived
 * @param theirs as it stands; undefined while nothing does
 * @returns what is to stand
 */
export async function joined<T extends object>(
  db: Database,
  { what, clientId, visitId, under }: AboutEntry,
  mine: T,
  theirs: object | undefined,
): Promise<T> {
  const { basis, who } = underWay.getStore() ?? {}
  if (!basis || !theirs) return mine
  const plain = <V>(v: V) => JSON.parse(JSON.stringify(v ?? {})) as V
  const { value, differ } = joinThree(plain(basis.was), plain(mine), plain(theirs), MANNERS[what])
  for (const d of differ) {
    const path = JSON.stringify(under === undefined ? d.path : [under, ...d.path])
    // Entered once more while nobody has chosen: the later one stands for both.
    await run(
      db,
      'DELETE FROM differences WHERE what = ? AND path = ? AND clientId = ? AND visitId IS ? AND settledAtMs IS NULL',
      [...[what, path, clientId, visitId]],
    )
    // JSON knows no "not there": null stands for it.
    await run(
      db,
      `INSERT INTO differences (id, what, path, clientId, visitId, mine, theirs, worker, enteredAtMs, atMs)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      [
        ...[randomUUID(), what, path, clientId, visitId],
        ...[JSON.stringify(d.mine ?? null), JSON.stringify(d.theirs ?? null)],
        ...[who?.worker ?? '', basis.atMs, Date.now()],
      ],
    )
  }
  return value
}

type Columns = Omit<Difference, 'path' | 'mine' | 'theirs'> & {
  path: Json<string[]>
  mine: Json<Difference['mine']>
  theirs: Json<Difference['theirs']>
}
const SELECT =
  'SELECT id, what, visitId, clientId, path, mine, theirs, worker, enteredAtMs, atMs FROM differences'
const toDifference = (row: Columns): Difference => ({
  ...row,
  path: json(row.path),
  mine: json(row.mine),
  theirs: json(row.theirs),
})

/** Those of a client that nobody has chosen of yet. */
export async function openDifferences(db: Reads, clientId: string): Promise<Difference[]> {
  const rows = await db.select<Columns>(
    `${SELECT} WHERE clientId = ? AND settledAtMs IS NULL ORDER BY atMs`,
    [clientId],
  )
  return rows.map(toDifference)
}

/** Writes a field as one of two had it; by the same ways as when it is entered. */
export interface Writers {
  readonly changeClient: (clientId: string, change: never) => Promise<unknown>
  readonly saveAsked: (visitId: string, asked: never) => Promise<unknown>
  readonly saveNotes: (visitId: string, notes: never) => Promise<unknown>
  readonly saveSkinAnswer: (visitId: string, answer: never) => Promise<unknown>
}

/** @param take which of the two is to stand */
export async function settle(
  db: Database,
  writers: Writers,
  id: string,
  take: 'mine' | 'theirs',
): Promise<void> {
  const [row] = await db.select<Columns>(`${SELECT} WHERE id = ? AND settledAtMs IS NULL`, [id])
  if (!row) throw notFound('That difference')
  const { what, path, visitId, clientId, ...both } = toDifference(row)
  const field = both[take] ?? undefined
  /** Writes only what is not there already: a service that has begun takes no other answer, but may be agreed with. */
  const put = async <T extends object>(
    now: T,
    at: readonly string[],
    write: (next: T) => unknown,
  ) => {
    const next = withField(now, at, field)
    if (JSON.stringify(next) !== JSON.stringify(now)) await write(next)
  }
  if (what === 'changeClient') {
    const client = await readClient(db, clientId)
    const top = path[0] as keyof typeof client
    await put(client, path, (next) => writers.changeClient(clientId, { [top]: next[top] } as never))
  } else {
    const visit = await readVisit(db, visitId!)
    const [moment, ...rest] = path
    if (what === 'saveAsked') {
      await put(visit.asked, path, (next) => writers.saveAsked(visit.id, next as never))
    } else if (what === 'saveNotes') {
      await put(visit.notes, path, (next) => writers.saveNotes(visit.id, next as never))
    } else {
      const answer = visit.answers.find((a) => a.moment === moment)
      if (!answer) throw notFound('That answer')
      const { toldAtMs: _told, ...own } = answer
      await put(own, rest, (next) => writers.saveSkinAnswer(visit.id, next as never))
    }
  }
  await db.write(() =>
    run(db, 'UPDATE differences SET settledAtMs = ?, taken = ? WHERE id = ?', [
      Date.now(),
      take,
      id,
    ]),
  )
}
