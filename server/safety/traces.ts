/** After erasing: files go, the list goes to the backups, and the data file and its log are written anew without what was there. */
import type { Database } from '../db/connection.ts'
import { sweep } from '../photos/sweep.ts'
import { copyErased } from './erased.ts'
import { backupFolders } from './folder.ts'

/** Below this a file is written anew within a blink. */
const SMALL_BYTES = 64 * 1024 * 1024

const underWay = async (db: Database) =>
  (await db.select("SELECT 1 FROM visits WHERE state = 'running' LIMIT 1")).length > 0

/** Whether the file still holds pages of what was erased: kept until it has been written anew. */
const OWED = 'scrub'

export async function clearTraces(db: Database, dataDir: string): Promise<void> {
  await sweep(db, dataDir)
  for (const folder of backupFolders(dataDir))
    await copyErased(dataDir, folder).catch(() => undefined)
  await db.write(async () => {
    await db.sequelize.query("INSERT OR REPLACE INTO settings (key, value) VALUES (?, 'true')", {
      replacements: [OWED],
    })
  })
  const [size] = await db.select<{ bytes: number }>(
    'SELECT page_count * page_size AS bytes FROM pragma_page_count(), pragma_page_size()',
  )
  // What was deleted is overwritten already (secure_delete); a service under way is not held up for the rest.
  // Erased is erased: where the file is too busy to be written anew just now, that stays owed, and is done at night.
  try {
    if (size!.bytes < SMALL_BYTES || !(await underWay(db))) await scrubIfOwed(db)
    else await db.sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)')
  } catch (error) {
    console.error('The file could not be written anew after erasing; it is done at night.', error)
  }
}

/** Writes the file anew where that is owed and nothing is under way. Asked at start, and at night. */
export async function scrubIfOwed(db: Database): Promise<void> {
  if ((await db.select('SELECT 1 FROM settings WHERE key = ?', [OWED])).length === 0) return
  await db.scrub()
  await db.write(() =>
    db.sequelize.query('DELETE FROM settings WHERE key = ?', { replacements: [OWED] }),
  )
}
