/** Clients brought in together: all or none, and taken back together. */
import type { BodyOf } from '../../contract/routes.ts'
import type { ImportRecord, ImportUndone } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { HttpProblem, notFound } from '../http/problem.ts'

/** Rows written at once: SQLite takes so many values in one statement. */
const AT_ONCE = 400

export async function listImports(db: Database, id?: string): Promise<ImportRecord[]> {
  return db.select<ImportRecord>(
    `SELECT id, atMs, source, clients, undoneAtMs FROM imports ${id === undefined ? '' : 'WHERE id = ?'}
     ORDER BY atMs DESC LIMIT 50`,
    id === undefined ? [] : [id],
  )
}

/**
 * Writes all in one transaction; the same import again changes nothing.
 * @throws HttpProblem 409 `id-taken` when a client of it is already here: then none is written
 */
export async function addImport(db: Database, body: BodyOf<'addImport'>): Promise<ImportRecord> {
  await db.write(async () => {
    const { Import, Client } = db.models
    if (await Import.findByPk(body.id)) return
    const ids = body.clients.map((c) => c.id)
    if (new Set(ids).size !== ids.length) {
      throw new HttpProblem(422, 'twice', 'Two of them have the same id. Nobody was brought in.')
    }
    const [taken] = await db.select(
      'SELECT name FROM clients WHERE id IN (SELECT value FROM json_each(?)) LIMIT 1',
      [JSON.stringify(ids)],
    )
    if (taken) {
      throw new HttpProblem(
        409,
        'id-taken',
        `"${String(taken['name'])}" is here already. Nobody was brought in.`,
      )
    }
    const atMs = Date.now()
    await Import.create({ id: body.id, atMs, source: body.source, clients: ids.length })
    for (let i = 0; i < body.clients.length; i += AT_ONCE) {
      await Client.bulkCreate(
        body.clients
          .slice(i, i + AT_ONCE)
          .map((c) => ({ ...c, importId: body.id, createdAtMs: atMs })),
      )
    }
  })
  return (await listImports(db, body.id))[0]!
}

/** Takes an import back as a whole. Clients who have had a visit since stay, and are named. */
export async function undoImport(db: Database, id: string): Promise<ImportUndone> {
  return db.write(async () => {
    const { Import } = db.models
    const found = await Import.findByPk(id)
    if (!found) throw notFound('That import')
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
