/** Files that are to go: written down in the same transaction that makes them so, deleted after it, and again at every start. */
import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import type { Database } from '../db/connection.ts'
import { photoFolder } from './names.ts'

/** Part of a write: these files of the picture folder are to go, at once or from a moment on. */
export async function condemn(
  db: Database,
  names: readonly string[],
  fromMs = Date.now(),
): Promise<void> {
  for (const path of names)
    await db.sequelize.query('INSERT OR IGNORE INTO files_to_delete (path, atMs) VALUES (?, ?)', {
      replacements: [path, fromMs],
    })
}

/** Part of a write: these go at once, though a later moment was written down. */
export async function recondemn(db: Database, names: readonly string[]): Promise<void> {
  await spare(db, names)
  await condemn(db, names)
}

/** Part of a write: these stay. */
export async function spare(db: Database, names: readonly string[]): Promise<void> {
  for (const path of names)
    await db.sequelize.query('DELETE FROM files_to_delete WHERE path = ?', { replacements: [path] })
}

/** Deletes what is to go by now and belongs to no picture; at a start, when nothing is under way, all of it. */
export async function sweep(db: Database, dataDir: string, nowMs = Date.now()): Promise<void> {
  const rows = await db.select<{ path: string }>(
    `SELECT path FROM files_to_delete WHERE atMs <= ? AND NOT EXISTS
       (SELECT 1 FROM photos WHERE path IN (id || '.jpg', id || '-small.jpg'))`,
    [nowMs],
  )
  if (rows.length === 0) return
  const paths = rows.map((r) => r.path)
  for (const path of paths) await rm(join(photoFolder(dataDir), path), { force: true })
  await db.write(() => spare(db, paths))
}
