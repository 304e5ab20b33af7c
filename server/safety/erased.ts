/**
 * Who was erased, by number only. The list stands in the data, and a copy of it with every backup: what is restored is held
 * to it, so that nobody erased comes back.
 */
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { READ_ONLY, READ_WRITE, withPlain } from '../db/plain.ts'
import { photoFile } from '../photos/names.ts'
import { rmSync } from 'node:fs'
import { dataFile } from './folder.ts'

export interface Erased {
  readonly clientId: string
  readonly photos: readonly string[]
  readonly atMs: number
}

export const erasedFile = (folder: string) => join(folder, 'erased.json')

/** The list kept in a folder of backups. */
export function readErased(folder: string): Erased[] {
  const file = erasedFile(folder)
  return existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as Erased[]) : []
}

/** The list in a data file; empty where it cannot be read. */
export async function erasedIn(dataDir: string): Promise<Erased[]> {
  try {
    return await withPlain(dataFile(dataDir), READ_ONLY, async (open) => {
      const rows = await open.all<{ clientId: string; photos: string; atMs: number }>(
        'SELECT * FROM erased',
      )
      return rows.map((r) => ({ ...r, photos: JSON.parse(r.photos) as string[] }))
    })
  } catch {
    return []
  }
}

const union = (...lists: readonly (readonly Erased[])[]): Erased[] => [
  ...new Map(lists.flat().map((e) => [e.clientId, e])).values(),
]

/** Keeps the list with the backups of a folder; what stood there stays. */
export async function copyErased(dataDir: string, folder: string): Promise<void> {
  const all = union(readErased(folder), await erasedIn(dataDir))
  if (all.length === 0) return
  mkdirSync(folder, { recursive: true })
  const making = `${erasedFile(folder)}.new`
  writeFileSync(making, JSON.stringify(all))
  renameSync(making, erasedFile(folder))
}

/**
 * Erases again, in a restored folder, everybody on the lists.
 * @returns how many had come back
 */
export async function eraseAgain(
  restored: string,
  lists: readonly (readonly Erased[])[],
): Promise<number> {
  const all = union(...lists)
  let back = 0
  await withPlain(dataFile(restored), READ_WRITE, async (open) => {
    await open.exec('PRAGMA foreign_keys=ON; PRAGMA secure_delete=ON;')
    const known = await open.all("SELECT 1 FROM sqlite_master WHERE name = 'erased'")
    await open.exec('BEGIN')
    for (const { clientId, photos, atMs } of all) {
      const [had] = await open.all('SELECT 1 FROM clients WHERE id = ?', [clientId])
      if (had) back++
      await open.run('DELETE FROM clients WHERE id = ?', [clientId])
      if (known.length > 0)
        await open.run('INSERT OR REPLACE INTO erased (clientId, photos, atMs) VALUES (?, ?, ?)', [
          clientId,
          JSON.stringify(photos),
          atMs,
        ])
    }
    await open.exec('COMMIT')
    if (back > 0) await open.exec('VACUUM')
  })
  for (const { photos } of all)
    for (const id of photos)
      for (const size of ['whole', 'thumbnail'] as const)
        rmSync(photoFile(restored, id, size), { force: true })
  return back
}
