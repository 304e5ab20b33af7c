/** A data folder as an earlier version left it, with as many visits as are wanted. */
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import { READ_WRITE, withPlain } from '../db/plain.ts'

const BEFORE = 'server/testing/before/0005'

/** Visits that the kept folder has. */
export const VISITS_BEFORE = 41

/**
 * Lays out a folder of the fifth step; its visits are copied, with their events and answers, until there are so many.
 * @returns how many visits it holds
 */
export async function oldFolder(dataDir: string, visits = VISITS_BEFORE): Promise<number> {
  mkdirSync(dataDir, { recursive: true })
  const file = join(dataDir, 'slow-tide.sqlite')
  writeFileSync(file, gunzipSync(readFileSync(`${BEFORE}.sqlite.gz`)))
  const rounds = Math.max(0, Math.ceil(visits / VISITS_BEFORE) - 1)
  await withPlain(file, READ_WRITE, async (db) => {
    const columns = async (table: string) =>
      (await db.all<{ name: string }>(`PRAGMA table_info(${table})`)).map((c) => c.name)
    const copy = async (table: string, changed: Record<string, string>, from = table) => {
      const names = await columns(table)
      await db.exec(
        `INSERT INTO ${table} (${names.join(', ')}) SELECT ${names
          .map((n) => changed[n] ?? n)
          .join(', ')} FROM ${from}, rounds`,
      )
    }
    await db.exec(`BEGIN;
      CREATE TEMP TABLE rounds AS WITH RECURSIVE r(k) AS (SELECT 1 UNION ALL SELECT k + 1 FROM r WHERE k < ${rounds})
        SELECT k FROM r WHERE k <= ${rounds};
      CREATE TEMP TABLE old_visits AS SELECT * FROM visits;
      CREATE TEMP TABLE old_events AS SELECT * FROM chair_events WHERE seq <= 12;
      CREATE TEMP TABLE old_answers AS SELECT * FROM skin_answers;`)
    await copy('visits', { id: "id || '-' || k", state: "'finished'" }, 'old_visits')
    await copy(
      'chair_events',
      { id: "id || '-' || k", visitId: "visitId || '-' || k" },
      'old_events',
    )
    await copy('skin_answers', { visitId: "visitId || '-' || k" }, 'old_answers')
    await db.exec('COMMIT')
  })
  return VISITS_BEFORE * (rounds + 1)
}
