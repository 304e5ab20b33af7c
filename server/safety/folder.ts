/**
 * A data folder: what lies in it, whose it is, and that one server at a time has it. What must be readable when the data
 * file is not (where its backups are) stands beside it in `studio.json`.
 */
import { randomUUID } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { MAKE, openPlain, type PlainFile } from '../db/plain.ts'
import { asTrouble, Trouble } from './trouble.ts'

export const DATA_FILE = 'slow-tide.sqlite'
export const dataFile = (dataDir: string) => join(dataDir, DATA_FILE)
/** How many writes were acknowledged, as last told: a log that is shorter than that has lost some. */
export const saidFile = (dataDir: string) => join(dataDir, 'slow-tide.said')

/** What is known of a folder without opening its data file. */
export interface StudioCard {
  readonly id: string
  readonly madeAtMs: number
  /** True for the demo's own folder. */
  readonly demo: boolean
  /** Whether the first run has made its owner. */
  readonly begun?: boolean
  /** Folders for backups that the house named; the second is on another disk. */
  readonly backups: { readonly folder?: string; readonly second?: string }
  /** Backups are locked with it when it is set; it protects what leaves this folder, which holds the data unlocked. */
  readonly passphrase?: string
}

const cardFile = (dataDir: string) => join(dataDir, 'studio.json')

/** The card of a folder; undefined where there is none. A card that cannot be read is none. */
export function readCard(dataDir: string): StudioCard | undefined {
  try {
    return JSON.parse(readFileSync(cardFile(dataDir), 'utf8')) as StudioCard
  } catch {
    return undefined
  }
}

export function writeCard(dataDir: string, change: Partial<StudioCard>): StudioCard {
  const card: StudioCard = {
    ...(readCard(dataDir) ?? { id: randomUUID(), madeAtMs: Date.now(), demo: false, backups: {} }),
    ...change,
  }
  // Whole or not at all.
  const making = `${cardFile(dataDir)}.new`
  writeFileSync(making, JSON.stringify(card, null, 2), { mode: 0o600 })
  renameSync(making, cardFile(dataDir))
  return card
}

/** Where backups of a folder go when the house named no place: beside it, not in it. */
export const usualBackups = (dataDir: string) => `${dataDir}-backups`

export const backupFolders = (dataDir: string, given?: string): readonly string[] => {
  const { backups = {} } = readCard(dataDir) ?? {}
  const first = given ?? backups.folder ?? usualBackups(dataDir)
  return backups.second ? [first, backups.second] : [first]
}

/** A name with the moment in it that sorts by time. */
export const stamp = (atMs: number) => new Date(atMs).toISOString().replace(/[:.]/g, '-')

/** Puts a whole folder aside under a name of its own; nothing is deleted. */
export function setAside(dataDir: string, atMs: number): string {
  const aside = `${dataDir}-aside-${stamp(atMs)}`
  renameSync(dataDir, aside)
  return aside
}

const swapFile = (dataDir: string) => join(dirname(dataDir), `.${basename(dataDir)}.swap.json`)

/** Puts `fresh` in the place of a folder. A kill in between is made good at the next start. */
export function swapIn(dataDir: string, fresh: string, atMs: number): string {
  const aside = `${dataDir}-aside-${stamp(atMs)}`
  writeFileSync(swapFile(dataDir), JSON.stringify({ fresh, aside }))
  finishSwap(dataDir)
  return aside
}

/** Ends a swap that was begun, if one was. */
export function finishSwap(dataDir: string): void {
  const file = swapFile(dataDir)
  if (!existsSync(file)) return
  const { fresh, aside } = JSON.parse(readFileSync(file, 'utf8')) as {
    fresh: string
    aside: string
  }
  if (existsSync(fresh)) {
    if (existsSync(dataDir) && !existsSync(aside)) renameSync(dataDir, aside)
    renameSync(fresh, dataDir)
  }
  rmSync(file)
}

export interface FolderLock {
  /** Tells others where this server is. */
  readonly tell: (address: string) => void
  readonly release: () => Promise<void>
}

/**
 * Takes a folder for this process. The lock is the operating system's, held through SQLite: it ends with the process,
 * however that ends.
 * @throws Trouble `in-use` with the address of who has it, `not-writable`
 */
export async function lockFolder(dataDir: string): Promise<FolderLock> {
  const told = join(dataDir, 'server.json')
  let file: PlainFile | undefined
  try {
    mkdirSync(dataDir, { recursive: true })
    file = await openPlain(join(dataDir, 'lock.sqlite'), MAKE)
    await file.exec('PRAGMA journal_mode=MEMORY; BEGIN EXCLUSIVE')
  } catch (error) {
    await file?.close().catch(() => undefined)
    if (!/SQLITE_BUSY|locked/.test(String(error))) throw asTrouble(error, dataDir)
    let address = ''
    try {
      address = (JSON.parse(readFileSync(told, 'utf8')) as { address: string }).address
    } catch {
      // It has only just begun, or does not serve.
    }
    throw new Trouble(
      'in-use',
      address
        ? `Slow Tide already works on the folder ${dataDir}: it is at ${address}. Open that, or stop it first.`
        : `Another Slow Tide works on the folder ${dataDir} just now. Stop it first, or wait until it has ended.`,
    )
  }
  const held = file
  return {
    tell: (address) => writeFileSync(told, JSON.stringify({ address, pid: process.pid })),
    release: async () => {
      rmSync(told, { force: true })
      await held.close()
    },
  }
}
