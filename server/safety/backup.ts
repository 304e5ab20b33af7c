/** Making a backup of a folder, while a server may be at work on it: SQLite copies what stands at one moment. */
import {
  constants,
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statfsSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { create } from 'tar'
import { offsetHere } from '../../core/time/index.ts'
import { READ_ONLY, withPlain } from '../db/plain.ts'
import { photoNames } from '../photos/names.ts'
import {
  checkDataFile,
  ARCHIVE,
  countsOf,
  hashOf,
  lock,
  unpack,
  type Manifest,
  type Why,
} from './archive.ts'
import { copyErased } from './erased.ts'
import { backupFolders, DATA_FILE, dataFile, readCard, stamp } from './folder.ts'
import { keptBackups } from './retention.ts'
import { asTrouble, Trouble } from './trouble.ts'

/** A backup as it lies in a folder, told by the small file beside it. */
export interface Backup {
  readonly file: string
  readonly bytes: number
  readonly madeAtMs: number
  readonly why: Why
  readonly step: string
  readonly counts: Readonly<Record<string, number>>
  /** SHA-256 of the archive, hex. */
  readonly sha256: string
  /** When it was last restored for trial, and what was wrong then, if anything was. */
  readonly proven?: { readonly atMs: number; readonly problem?: string }
  /** What it was made before: tells whether that very state has a backup already. */
  readonly of?: string
}

export interface Progress {
  readonly part: string
  /** 0 to 1. */
  readonly done: number
}

export interface Making {
  readonly dataDir: string
  readonly why: Why
  readonly folder?: string
  readonly of?: string
  readonly nowMs?: number
  readonly onProgress?: (progress: Progress) => void
  readonly signal?: AbortSignal
}

const besideOf = (archive: string) => `${archive}.json`

/** Backups of a folder, the newest first. What cannot be read is left out. */
export function listBackups(folder: string): Backup[] {
  if (!existsSync(folder)) return []
  return readdirSync(folder)
    .filter((name) => ARCHIVE.test(name) && existsSync(besideOf(join(folder, name))))
    .flatMap((name) => {
      try {
        const told = JSON.parse(readFileSync(besideOf(join(folder, name)), 'utf8')) as Backup
        return [{ ...told, file: join(folder, name) }]
      } catch {
        return []
      }
    })
    .sort((a, b) => b.madeAtMs - a.madeAtMs)
}

/** Keeps with a backup what was found of it. */
export function noteOn(backup: Backup, change: Partial<Backup>): void {
  const { file, ...told } = { ...backup, ...change }
  writeFileSync(besideOf(file), JSON.stringify(told))
}

/** Room for the copy and its archive; said before anything is written. */
function refuseFull(folder: string, bytes: number): void {
  const { bavail, bsize } = statfsSync(folder)
  if (bavail * bsize > bytes * 2 + 1_000_000) return
  throw new Trouble(
    'disk-full',
    `There is no room for a backup in ${folder}: it needs ${Math.ceil((bytes * 2) / 1e6)} MB. Make room, or name another folder. What is saved is kept.`,
  )
}

/**
 * Makes a backup in the folder's own place for them, and a second copy where the house named one.
 * @throws Trouble when it cannot be made or does not verify; what was begun is taken away
 */
export async function makeBackup(making: Making): Promise<Backup> {
  const { dataDir, why, onProgress, signal } = making
  const [folder, second] = making.folder ? [making.folder] : backupFolders(dataDir)
  const madeAtMs = making.nowMs ?? Date.now()
  const said = (part: string, done: number) => {
    if (signal?.aborted)
      throw new Trouble('bad-backup', 'The backup was stopped. Nothing was kept of it.')
    onProgress?.({ part, done })
  }
  let work: string | undefined
  try {
    mkdirSync(folder!, { recursive: true })
    sweepUnfinished(folder!)
    refuseFull(folder!, statSync(dataFile(dataDir)).size)
    work = mkdtempSync(join(folder!, '.making-'))
    const inside = join(work, 'inside')
    mkdirSync(join(inside, 'photos'), { recursive: true })
    said('Copying the data', 0.05)
    const copy = join(inside, DATA_FILE)
    await copyData(dataFile(dataDir), copy)
    const { steps } = await checkDataFile(copy)
    const files: Record<string, string> = { [DATA_FILE]: await hashOf(copy) }
    const missing: string[] = []
    const photos = await photosIn(copy)
    for (const [i, name] of photos.entries()) {
      said('Copying the pictures', 0.2 + (0.4 * i) / photos.length)
      const from = join(dataDir, 'photos', name)
      if (!existsSync(from)) {
        missing.push(name)
        continue
      }
      copyFileSync(from, join(inside, 'photos', name), constants.COPYFILE_FICLONE)
      files[`photos/${name}`] = await hashOf(join(inside, 'photos', name))
    }
    const manifest: Manifest = {
      ...{ format: 'slow-tide-backup', version: 1, madeAtMs, why, step: steps.at(-1) ?? '' },
      ...{ counts: await countsOf(copy), files, missing },
    }
    writeFileSync(join(inside, 'manifest.json'), JSON.stringify(manifest, null, 1))
    said('Packing', 0.6)
    const packed = join(work, 'packed')
    await create({ file: packed, cwd: inside, gzip: { level: 1 }, portable: true }, [
      'manifest.json',
      DATA_FILE,
      'photos',
    ])
    const passphrase = readCard(dataDir)?.passphrase
    if (passphrase) {
      said('Locking', 0.75)
      await lock(packed, `${packed}.age`, passphrase)
    }
    const name = `slow-tide-${stamp(madeAtMs)}-${why}.tar.gz${passphrase ? '.age' : ''}`
    const ready = passphrase ? `${packed}.age` : packed
    said('Reading it back', 0.85)
    await unpack(ready.endsWith('.age') ? ready : packed, join(work, 'again'), passphrase)
    const backup: Backup = {
      ...{ file: join(folder!, name), bytes: statSync(ready).size, madeAtMs, why },
      ...{ step: manifest.step, counts: manifest.counts, sha256: await hashOf(ready) },
      ...(making.of !== undefined && { of: making.of }),
    }
    said('Keeping it', 0.95)
    renameSync(ready, backup.file)
    noteOn(backup, {})
    await copyErased(dataDir, folder!)
    if (second) await copyTo(dataDir, second, backup)
    onProgress?.({ part: 'Done', done: 1 })
    return backup
  } catch (error) {
    throw asTrouble(error, folder!)
  } finally {
    if (work) rmSync(work, { recursive: true, force: true })
  }
}

/** What a kill left of a backup that was being made. */
function sweepUnfinished(folder: string): void {
  for (const name of readdirSync(folder))
    if (
      name.startsWith('.making-') &&
      Date.now() - statSync(join(folder, name)).mtimeMs > 3_600_000
    )
      rmSync(join(folder, name), { recursive: true, force: true })
}

/** From a folder that cannot be written too: a file without a log is then read as it stands. */
async function copyData(from: string, to: string): Promise<void> {
  const into = `VACUUM INTO '${to.replaceAll("'", "''")}'`
  try {
    await withPlain(from, READ_ONLY, (open) => open.exec(into))
  } catch (error) {
    if (
      !/READONLY|CANTOPEN|readonly|unable to open/.test(String(error)) ||
      existsSync(`${from}-wal`)
    )
      throw error
    rmSync(to, { force: true })
    await withPlain(`file:${encodeURI(from)}?immutable=1`, READ_ONLY, (open) => open.exec(into))
  }
}

async function photosIn(file: string): Promise<string[]> {
  return withPlain(file, READ_ONLY, async (open) => {
    const has = await open.all("SELECT 1 FROM sqlite_master WHERE name = 'photos'")
    if (has.length === 0) return []
    const rows = await open.all<{ id: string }>('SELECT id FROM photos ORDER BY id')
    return rows.flatMap((r) => photoNames(r.id))
  })
}

async function copyTo(dataDir: string, second: string, backup: Backup): Promise<void> {
  mkdirSync(second, { recursive: true })
  const there = { ...backup, file: join(second, basename(backup.file)) }
  copyFileSync(backup.file, `${there.file}.new`)
  if ((await hashOf(`${there.file}.new`)) !== backup.sha256) {
    throw new Trouble(
      'bad-backup',
      `The copy in ${second} differs from the backup. Look at that disk.`,
    )
  }
  renameSync(`${there.file}.new`, there.file)
  noteOn(there, {})
  await copyErased(dataDir, second)
}

/**
 * The one backup before the shape of the data changes: made once of the same state, read back, and kept until it is a
 * year old, whatever later starts do.
 */
export async function backupBefore(dataDir: string, from: string): Promise<void> {
  const of = `${from} ${await hashOf(dataFile(dataDir))}`
  const [folder] = backupFolders(dataDir)
  for (const made of listBackups(folder!).filter((b) => b.of === of))
    if ((await hashOf(made.file).catch(() => '')) === made.sha256) return
  await makeBackup({ dataDir, why: 'before-step', of })
}

/** Takes away what retention does not keep. Those before a step or before a fresh start stay a year. */
export function pruneBackups(folder: string, nowMs: number): void {
  const all = listBackups(folder)
  const dated = all.filter((b) => b.why === 'nightly' || b.why === 'asked')
  const kept = keptBackups(
    dated.map((b) => b.madeAtMs),
    offsetHere(nowMs),
  )
  const old = all.filter((b) => !dated.includes(b) && nowMs - b.madeAtMs > 366 * 86_400_000)
  for (const b of [...dated.filter((_, i) => !kept[i]), ...old]) {
    rmSync(b.file, { force: true })
    rmSync(besideOf(b.file), { force: true })
  }
}

/** Restores a backup into a folder of its own, compares it, and takes that folder away again. */
export async function proveBackup(
  dataDir: string,
  backup: Backup,
  onProgress?: (progress: Progress) => void,
): Promise<Backup> {
  const trial = mkdtempSync(join(dirname(backup.file), '.making-trial-'))
  const atMs = Date.now()
  let proven: Backup['proven']
  try {
    onProgress?.({ part: 'Restoring for trial', done: 0.3 })
    if ((await hashOf(backup.file)) !== backup.sha256)
      throw new Error('The archive differs from what was written.')
    await unpack(backup.file, trial, readCard(dataDir)?.passphrase)
    proven = { atMs }
  } catch (error) {
    proven = { atMs, problem: error instanceof Error ? error.message : String(error) }
  } finally {
    rmSync(trial, { recursive: true, force: true })
  }
  noteOn(backup, { proven })
  onProgress?.({ part: 'Done', done: 1 })
  return { ...backup, proven }
}
