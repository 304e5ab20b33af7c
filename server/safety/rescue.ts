/**
 * Reading what can still be read of a damaged data file, into a new folder: each table row by row, around what is broken.
 * The damaged folder stays as it is.
 */
import { cpSync, copyFileSync, existsSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { openPlain, READ_WRITE, withPlain, type PlainFile } from '../db/plain.ts'
import { DATA_FILE, dataFile, readCard, stamp, writeCard } from './folder.ts'
import { Trouble } from './trouble.ts'

export interface Rescued {
  readonly into: string
  /** Rows read of each table, and rows that could not be. */
  readonly tables: Readonly<Record<string, { readonly read: number; readonly lost: number }>>
  /** Rows left out because what they hang on was lost. */
  readonly orphans: number
}

/**
 * @param make makes an empty data file of today's shape in a folder
 */
export async function rescue(
  dataDir: string,
  make: (into: string) => Promise<void>,
  nowMs = Date.now(),
): Promise<Rescued> {
  if (!existsSync(dataFile(dataDir))) {
    throw new Trouble(
      'missing',
      `There is no data file in ${dataDir} to read from. Type "npm run restore" to take a backup.`,
    )
  }
  const into = `${dataDir}-rescued-${stamp(nowMs)}`
  // Read from a copy: opening may change a log.
  const copy = join(into, 'from')
  mkdirSync(copy, { recursive: true })
  for (const ending of ['', '-wal'])
    if (existsSync(dataFile(dataDir) + ending))
      copyFileSync(dataFile(dataDir) + ending, join(copy, DATA_FILE + ending))
  await make(into)
  let from: PlainFile
  try {
    from = await openPlain(join(copy, DATA_FILE), READ_WRITE)
    await from.exec('PRAGMA writable_schema=ON; PRAGMA cell_size_check=OFF')
    await from.all('SELECT COUNT(*) AS n FROM sqlite_master')
  } catch (error) {
    throw new Trouble(
      'damaged',
      `Nothing can be read of the data file in ${dataDir}: it is no longer a database. Type "npm run restore" to take a backup. Nothing was changed.`,
      error,
    )
  }
  try {
    const done = await withPlain(dataFile(into), READ_WRITE, (to) => copyTables(from, to))
    const photos = join(dataDir, 'photos')
    if (existsSync(photos)) cpSync(photos, join(into, 'photos'), { recursive: true })
    const card = readCard(dataDir)
    if (card) writeCard(into, card)
    return { into, ...done }
  } finally {
    await from.close().catch(() => undefined)
  }
}

async function copyTables(from: PlainFile, to: PlainFile): Promise<Omit<Rescued, 'into'>> {
  const tables: Record<string, { read: number; lost: number }> = {}
  await to.exec('PRAGMA foreign_keys=OFF')
  // What is kept of each client beside their visits is made anew from what was read.
  const names = await to.all<{ name: string }>(
    `SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%' AND name NOT LIKE 'client_names%'
       AND name NOT IN ('migrations', 'standings', 'client_sums')`,
  )
  for (const { name } of names) {
    const here = (
      await to.all<{ name: string; hidden: number }>(`PRAGMA table_xinfo("${name}")`)
    ).filter((c) => c.hidden === 0)
    let there: { name: string; hidden: number }[] = []
    try {
      there = (
        await from.all<{ name: string; hidden: number }>(`PRAGMA table_xinfo("${name}")`)
      ).filter((c) => c.hidden === 0)
    } catch {
      // Of this table not even the columns can be read.
    }
    const columns = here.map((c) => c.name).filter((c) => there.some((t) => t.name === c))
    tables[name] =
      columns.length === 0 ? { read: 0, lost: 0 } : await copyRows(from, to, name, columns)
  }
  // What hangs on something that was lost would be shown as broken: it is left out, and counted.
  let orphans = 0
  for (;;) {
    const broken = await to.all<{ table: string; rowid: number | null }>('PRAGMA foreign_key_check')
    const rows = broken.filter((b) => b.rowid !== null)
    if (rows.length === 0) break
    for (const { table, rowid } of rows)
      await to.run(`DELETE FROM "${table}" WHERE rowid = ?`, [rowid])
    orphans += rows.length
  }
  await to.exec(`DELETE FROM skin_answers WHERE visitId NOT IN (SELECT id FROM visits)`)
  return { tables, orphans }
}

/** Rows in the order of their keys; where a page is broken, reading goes on from the other end. */
async function copyRows(
  from: PlainFile,
  to: PlainFile,
  table: string,
  columns: readonly string[],
): Promise<{ read: number; lost: number }> {
  const list = columns.map((c) => `"${c}"`).join(', ')
  const put = `INSERT OR REPLACE INTO "${table}" (${list}) VALUES (${columns.map(() => '?').join(', ')})`
  let read = 0
  const keep = async (rows: readonly object[]) => {
    await to.exec('BEGIN')
    for (const row of rows) await to.run(put, Object.values(row))
    await to.exec('COMMIT')
    read += rows.length
  }
  try {
    await keep(await from.all(`SELECT ${list} FROM "${table}"`))
    return { read, lost: 0 }
  } catch {
    // Not as a whole, then row by row.
  }
  let lost = 0
  try {
    const [ends] = await from.all<{ first: number | null; last: number | null }>(
      `SELECT MIN(rowid) AS first, MAX(rowid) AS last FROM "${table}"`,
    )
    const { first, last } = ends!
    if (first === null || last === null) return { read, lost }
    for (let at = first; at <= last;) {
      const until = Math.min(last, at + 63)
      try {
        await keep(
          await from.all(`SELECT ${list} FROM "${table}" WHERE rowid BETWEEN ? AND ?`, [at, until]),
        )
      } catch {
        await to.exec('ROLLBACK').catch(() => undefined)
        for (let one = at; one <= until; one++) {
          try {
            await keep(await from.all(`SELECT ${list} FROM "${table}" WHERE rowid = ?`, [one]))
          } catch {
            await to.exec('ROLLBACK').catch(() => undefined)
            lost++
          }
        }
      }
      at = until + 1
    }
  } catch {
    // A table without row numbers, or one whose root is gone: what was read stands.
    lost++
  }
  return { read, lost }
}
