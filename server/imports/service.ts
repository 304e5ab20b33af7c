/** Clients brought in together: all or none, and taken back together. */
import { CLIENT_TEXT_IDS } from '../../core/client.ts'
import type { ImportRecord, ImportUndone } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import type { BroughtIn } from './broughtIn.ts'

export async function listImports(db: Database, id?: string): Promise<ImportRecord[]> {
  return db.select<ImportRecord>(
    `SELECT id, atMs, source, clients, undoneAtMs FROM imports ${id === undefined ? '' : 'WHERE id = ?'}
     ORDER BY atMs DESC LIMIT 50`,
    id === undefined ? [] : [id],
  )
}

/** Imports that were given up before they had begun to be written; the last ones. */
const givenUp: string[] = []
const GIVEN_UP_KEPT = 100

/**
 * Writes them some at a time, so that a service at the chair does not wait. The same import again writes what is missing of
 * it and nothing else: whoever was erased since stays erased. Taken back meanwhile, it goes no further.
 * @throws HttpProblem 409 `id-taken` when a client of it is already here, `given-up` when it was taken back before it came:
 * then none is written
 */
export async function addImport(db: Database, brought: BroughtIn): Promise<ImportRecord> {
  const { id, source, count, ids, parts } = brought
  const { Import } = db.models
  const undone = await db.write(async () => {
    if (givenUp.includes(id)) {
      throw new HttpProblem(409, 'given-up', 'This import was given up. Nobody was brought in.')
    }
    const had = await Import.findByPk(id)
    if (had) return had.undoneAtMs !== null
    const [taken] = await db.select(
      'SELECT name FROM clients WHERE id IN (SELECT value FROM json_each(?)) LIMIT 1',
      [ids],
    )
    if (taken) {
      throw new HttpProblem(
        409,
        'id-taken',
        `"${String(taken['name'])}" is here already. Nobody was brought in.`,
      )
    }
    await Import.create({ id, atMs: Date.now(), source, clients: count })
    return false
  })
  for (const part of undone ? [] : parts) {
    const stands = await db.write(async () => {
      const [row] = await db.select('SELECT undoneAtMs FROM imports WHERE id = ?', [id])
      if (row?.['undoneAtMs'] !== null) return false
      await db.sequelize.query(WRITE, { replacements: [id, Date.now(), part] })
      await db.sequelize.query(STAND, { replacements: [part] })
      return true
    })
    if (!stands) break
  }
  return (await listImports(db, id))[0]!
}

const TEXTS = ['name', ...CLIENT_TEXT_IDS, 'service'] as const
/** The database takes them out of the JSON itself, on its own thread. */
const WRITE = `INSERT INTO clients (id, ${TEXTS.join(', ')}, skin, importId, createdAtMs)
  SELECT j.value ->> '$.id', ${TEXTS.map((t) => `COALESCE(j.value ->> '$.${t}', '')`).join(', ')},
    j.value -> '$.skin', ?, ? FROM json_each(?) j
  WHERE NOT EXISTS (SELECT 1 FROM clients WHERE id = j.value ->> '$.id')
    AND NOT EXISTS (SELECT 1 FROM erased WHERE clientId = j.value ->> '$.id')`
/** Who never came stands as they begin, but for their name. */
const STAND = `UPDATE standings SET nameKey = j.value ->> '$.nameKey', madeFor = mark FROM json_each(?) j
  WHERE standings.clientId = j.value ->> '$.id' AND mark = 1`

/** Takes an import back as a whole. Clients who have had a visit since stay, and are named. */
export async function undoImport(db: Database, id: string): Promise<ImportUndone> {
  return db.write(async () => {
    const { Import } = db.models
    const found = await Import.findByPk(id)
    if (!found) {
      givenUp.push(id)
      givenUp.splice(0, givenUp.length - GIVEN_UP_KEPT)
      throw notFound('That import')
    }
    const kept = await db.select(
      `SELECT name FROM clients c WHERE importId = ? AND EXISTS (SELECT 1 FROM visits WHERE clientId = c.id)
       ORDER BY name LIMIT 50`,
      [id],
    )
    const [count] = await db.select(
      `SELECT COUNT(*) AS n FROM clients c
       WHERE importId = ? AND NOT EXISTS (SELECT 1 FROM visits WHERE clientId = c.id)`,
      [id],
    )
    // On the list too: an older backup brings nobody back who was taken out again.
    await db.sequelize.query(
      `INSERT OR REPLACE INTO erased (clientId, photos, atMs)
       SELECT id, '[]', ? FROM clients c
       WHERE importId = ? AND NOT EXISTS (SELECT 1 FROM visits WHERE clientId = c.id)`,
      { replacements: [Date.now(), id] },
    )
    await db.sequelize.query(
      `DELETE FROM clients WHERE importId = ?
       AND NOT EXISTS (SELECT 1 FROM visits WHERE clientId = clients.id)`,
      { replacements: [id] },
    )
    await found.update({ undoneAtMs: Date.now() })
    return { removed: Number(count!['n']), kept: kept.map((k) => String(k['name'])) }
  })
}
