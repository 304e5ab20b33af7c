/**
 * A backup is one archive: a gzipped tar with `manifest.json` first, the data file, and the pictures; locked with a
 * passphrase by age (age-encryption.org/v1) when the house has one.
 */
import { createHash } from 'node:crypto'
import { createReadStream, createWriteStream, existsSync, readFileSync } from 'node:fs'
import { mkdir } from 'node:fs/promises'
import { join } from 'node:path'
import { Readable, Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream } from 'node:stream/web'
import { Decrypter, Encrypter } from 'age-encryption'
import { extract } from 'tar'
import type { BACKUP_WHYS } from '../../contract/safety.ts'
import { READ_ONLY, withPlain } from '../db/plain.ts'
import { stepsDone } from '../db/migrate.ts'
import { DATA_FILE } from './folder.ts'
import { Trouble } from './trouble.ts'

export const ARCHIVE = /^slow-tide-(.+)\.tar\.gz(\.age)?$/

export type Why = (typeof BACKUP_WHYS)[number]

export interface Manifest {
  readonly format: 'slow-tide-backup'
  readonly version: 1
  readonly madeAtMs: number
  readonly why: Why
  /** The last step of the data's shape. */
  readonly step: string
  /** Rows of each table. */
  readonly counts: Readonly<Record<string, number>>
  /** SHA-256 of each file in the archive, hex. */
  readonly files: Readonly<Record<string, string>>
  /** Pictures that the data names and that were not there. */
  readonly missing: readonly string[]
}

export async function hashOf(file: string): Promise<string> {
  const hash = createHash('sha256')
  await pipeline(createReadStream(file), hash)
  return hash.digest('hex')
}

/** Rows of each table of a data file. */
export async function countsOf(file: string): Promise<Record<string, number>> {
  return withPlain(file, READ_ONLY, async (open) => {
    const tables = await open.all<{ name: string }>(
      "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%' ORDER BY name",
    )
    const counts: Record<string, number> = {}
    for (const { name } of tables) {
      const [row] = await open.all<{ n: number }>(`SELECT COUNT(*) AS n FROM "${name}"`)
      counts[name] = row!.n
    }
    return counts
  })
}

/** What a whole data file must answer. */
export async function checkDataFile(file: string): Promise<{ steps: string[] }> {
  return withPlain(file, READ_ONLY, async (open) => {
    const [row] = await open.all<{ integrity_check: string }>('PRAGMA integrity_check(1)')
    if (row?.integrity_check !== 'ok') throw new Error(`SQLITE_CORRUPT: ${row?.integrity_check}`)
    const broken = await open.all('PRAGMA foreign_key_check')
    if (broken.length > 0) throw new Error(`SQLITE_CORRUPT: ${broken.length} rows hang on nothing`)
    return { steps: await stepsDone(open.all) }
  })
}

export async function lock(from: string, to: string, passphrase: string): Promise<void> {
  const age = new Encrypter()
  age.setPassphrase(passphrase)
  const locked = await age.encrypt(
    Readable.toWeb(createReadStream(from)) as unknown as globalThis.ReadableStream<Uint8Array>,
  )
  await pipeline(Readable.fromWeb(locked as unknown as ReadableStream), createWriteStream(to))
}

async function unlock(from: string, to: string, passphrase: string): Promise<void> {
  const age = new Decrypter()
  age.addPassphrase(passphrase)
  try {
    const open = await age.decrypt(
      Readable.toWeb(createReadStream(from)) as unknown as globalThis.ReadableStream<Uint8Array>,
    )
    await open.pipeTo(
      Writable.toWeb(createWriteStream(to)) as globalThis.WritableStream<Uint8Array>,
    )
  } catch (error) {
    throw new Trouble(
      'passphrase',
      `The backup ${from} does not open with that passphrase. Nothing was changed.`,
      error,
    )
  }
}

/**
 * Unpacks an archive into a folder of its own and holds every file to its manifest.
 * @throws Trouble `bad-backup` with what differs, `passphrase`
 */
export async function unpack(
  archive: string,
  into: string,
  passphrase: string | undefined,
): Promise<Manifest> {
  if (!existsSync(archive)) {
    throw new Trouble('bad-backup', `There is no backup ${archive}. Nothing was changed.`)
  }
  await mkdir(into, { recursive: true })
  let tar = archive
  if (archive.endsWith('.age')) {
    if (!passphrase) {
      throw new Trouble(
        'passphrase',
        `The backup ${archive} is locked. Give its passphrase in SLOW_TIDE_PASSPHRASE. Nothing was changed.`,
      )
    }
    tar = join(into, 'unlocked.tar.gz')
    await unlock(archive, tar, passphrase)
  }
  const bad = (what: string, cause?: unknown) =>
    new Trouble(
      'bad-backup',
      `The backup ${archive} is not whole: ${what}. Nothing was changed; take another one.`,
      cause,
    )
  let manifest: Manifest
  try {
    await extract({ file: tar, cwd: into, strict: true })
    manifest = JSON.parse(readFileSync(join(into, 'manifest.json'), 'utf8')) as Manifest
  } catch (error) {
    throw bad('it cannot be unpacked', error)
  }
  if (manifest.format !== 'slow-tide-backup') throw bad('it is no backup of Slow Tide')
  for (const [file, hash] of Object.entries(manifest.files)) {
    const path = join(into, file)
    if (!existsSync(path)) throw bad(`${file} is missing`)
    if ((await hashOf(path)) !== hash) throw bad(`${file} differs from its manifest`)
  }
  const data = join(into, DATA_FILE)
  try {
    await checkDataFile(data)
  } catch (error) {
    throw bad('its data file is damaged', error)
  }
  if (JSON.stringify(await countsOf(data)) !== JSON.stringify(manifest.counts)) {
    throw bad('its tables hold other rows than it says')
  }
  return manifest
}
