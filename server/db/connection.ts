/** The database: SQLite through Sequelize, its settings on every connection, its migrations, its one write queue. */
import {
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs'
import { join } from 'node:path'
import { QueryTypes, Sequelize } from 'sequelize'
import sqlite3 from 'sqlite3'
import { backupBefore } from '../safety/backup.ts'
import { dataFile, finishSwap, readCard, saidFile, writeCard } from '../safety/folder.ts'
import { asTrouble, NEXT_STEP, Trouble } from '../safety/trouble.ts'
import { migrate, stepsDone } from './migrate.ts'
import { defineModels, type Models } from './models.ts'
import { READ_WRITE, withPlain } from './plain.ts'
import { openReader, type Reader } from './reader.ts'
import { WriteQueue } from './writeQueue.ts'

/** Writes its part within a transaction; gives back what to do once that has ended. */
export type WritePart = (
  run: (sql: string, values: unknown[]) => Promise<unknown>,
) => Promise<(kept: boolean) => void>

export interface Database {
  readonly sequelize: Sequelize
  readonly models: Models
  /**
   * Runs a write as one transaction, after all earlier writes have ended. When it throws, nothing of it is kept.
   * What `select` reads in the meantime is what stood before.
   */
  readonly write: <T>(work: () => Promise<T>) => Promise<T>
  /** What is written with every write, in its transaction; it is told whether that was kept. */
  readonly withEachWrite: (part: WritePart) => void
  /** Reads plain rows, beside the models. */
  readonly select: Reader['select']
  /**
   * Writes the file anew without what was erased, and empties its log. Only while nothing else is under way: it holds up
   * every write.
   */
  readonly scrub: () => Promise<void>
  readonly close: () => Promise<void>
}

/** Sequelize runs no hook after connecting to SQLite, so the pragmas are set where the connection is born. */
class TunedDatabase extends sqlite3.Database {
  constructor(file: string, mode: number, done?: (error: Error | null) => void) {
    super(file, mode, (error) => {
      if (error) return done?.(error)
      this.exec(
        'PRAGMA journal_mode=WAL; PRAGMA foreign_keys=ON; PRAGMA synchronous=FULL; PRAGMA busy_timeout=5000; PRAGMA secure_delete=ON;',
        (failed) => done?.(failed),
      )
    })
  }
}

const connect = (storage: string) =>
  new Sequelize({
    dialect: 'sqlite',
    storage,
    logging: false,
    dialectModule: { ...sqlite3, Database: TunedDatabase },
    pool: { max: 4, idle: 60_000 },
  })

/** Larger files are looked through by every backup, not by every start. */
const LOOKED_THROUGH_BYTES = 128 * 1024 * 1024

/**
 * Looks at what lies in a folder before anything is opened for writing: nothing that was a studio opens as an empty one.
 * @returns false when the folder is new
 * @throws Trouble `missing`, `empty-file`, `not-ours`, `damaged`, `not-writable`
 */
async function examine(dataDir: string): Promise<boolean> {
  const storage = dataFile(dataDir)
  if (!existsSync(storage)) {
    const rest = [saidFile(dataDir), `${storage}-wal`, join(dataDir, 'photos')].some(existsSync)
    if (!rest && !readCard(dataDir)) return false
    throw new Trouble(
      'missing',
      `The folder ${dataDir} was a studio's, but its data file slow-tide.sqlite is not there. ${NEXT_STEP}`,
    )
  }
  if (statSync(storage).size === 0) {
    throw new Trouble('empty-file', `The data file in ${dataDir} is empty (0 bytes). ${NEXT_STEP}`)
  }
  // Opened for writing from the start: a log that is left over is read with it.
  await withPlain(storage, READ_WRITE, async (file) => {
    const steps = await stepsDone(file.all)
    if (steps.length === 0) {
      throw new Trouble(
        'not-ours',
        `The file slow-tide.sqlite in ${dataDir} is no data of Slow Tide. ${NEXT_STEP}`,
      )
    }
    // A file of many years would hold up the start: the nightly backup looks through all of it.
    const [check] =
      statSync(storage).size > LOOKED_THROUGH_BYTES
        ? [{ quick_check: 'ok' }]
        : await file.all<{ quick_check: string }>('PRAGMA quick_check(1)')
    if (check?.quick_check !== 'ok') {
      throw new Trouble(
        'damaged',
        `The data file in ${dataDir} is damaged (${check?.quick_check ?? 'unreadable'}). ${NEXT_STEP}`,
      )
    }
    await refuseShortened(dataDir, file.all)
    // Where it cannot be written, better said now than at the first tap.
    await file.exec('BEGIN IMMEDIATE; ROLLBACK')
  })
  return true
}

/** @throws Trouble `shortened` when fewer writes are there than were acknowledged */
async function refuseShortened(
  dataDir: string,
  ask: <T extends object>(sql: string) => Promise<T[]>,
): Promise<void> {
  if (!existsSync(saidFile(dataDir))) return
  const said = Number(readFileSync(saidFile(dataDir), 'utf8'))
  const known = await ask("SELECT 1 FROM sqlite_master WHERE name = 'ledger'")
  const [row] = known.length > 0 ? await ask<{ writes: number }>('SELECT writes FROM ledger') : []
  const there = row?.writes ?? 0
  if (!(said > there)) return
  throw new Trouble(
    'shortened',
    `The log of the data in ${dataDir} is shorter than it was: the last ${said - there} of ${said} changes that had been saved are not there. ${NEXT_STEP} To go on with what is there, delete the file slow-tide.said in that folder and start again.`,
  )
}

/** Makes a new data file under another name, so that a kill leaves no half-made one. */
async function makeAnew(dataDir: string): Promise<void> {
  const making = `${dataFile(dataDir)}.making`
  for (const ending of ['', '-wal', '-shm']) rmSync(`${making}${ending}`, { force: true })
  const sequelize = connect(making)
  await migrate(sequelize, dataDir, () => Promise.resolve())
  await sequelize.close()
  renameSync(making, dataFile(dataDir))
}

/**
 * Opens the database of a data folder, making it when the folder is new, and brings it up to date.
 * @param demo marks a folder that is made now as the demo's
 * @throws Trouble when it cannot be opened as it is; nothing is changed then
 */
export async function openDatabase(dataDir: string, demo = false): Promise<Database> {
  try {
    finishSwap(dataDir)
    mkdirSync(dataDir, { recursive: true })
    if (!(await examine(dataDir))) {
      await makeAnew(dataDir)
      writeCard(dataDir, { demo })
    }
    const sequelize = connect(dataFile(dataDir))
    try {
      await migrate(sequelize, dataDir, async (from) => {
        await sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)')
        await backupBefore(dataDir, from ?? 'nothing')
      })
      if (!readCard(dataDir)) writeCard(dataDir, {})
      return await openReady(dataDir, sequelize)
    } catch (error) {
      await sequelize.close()
      throw error
    }
  } catch (error) {
    throw asTrouble(error, dataDir)
  }
}

async function openReady(dataDir: string, sequelize: Sequelize): Promise<Database> {
  const reader = await openReader(dataFile(dataDir))
  const writes = new WriteQueue()
  const said = openSync(saidFile(dataDir), existsSync(saidFile(dataDir)) ? 'r+' : 'w')
  // Sequelize's own transactions each open the file anew; here it has one connection, and only the queue writes.
  const parts: WritePart[] = []
  const run = (sql: string, replacements: unknown[]) => sequelize.query(sql, { replacements })
  const write = <T>(work: () => Promise<T>) =>
    writes.run(async () => {
      const ended: ((kept: boolean) => void)[] = []
      await sequelize.query('BEGIN IMMEDIATE')
      try {
        const done = await work()
        for (const part of parts) ended.push(await part(run))
        const [ledger] = await sequelize.query<{ writes: number }>(
          'UPDATE ledger SET writes = writes + 1 RETURNING writes',
          { type: QueryTypes.SELECT },
        )
        await sequelize.query('COMMIT')
        // Said after it is kept: what was said is never more than what is there.
        writeSync(said, `${ledger!.writes}`.padStart(16), 0)
        for (const tell of ended) tell(true)
        return done
      } catch (error) {
        // SQLite may have taken it back by itself already.
        await sequelize.query('ROLLBACK').catch(() => undefined)
        for (const tell of ended) tell(false)
        throw error
      }
    })
  return {
    sequelize,
    models: defineModels(sequelize),
    write,
    withEachWrite: (part) => void parts.push(part),
    select: reader.select,
    scrub: () =>
      writes.run(async () => {
        await sequelize.query('VACUUM')
        await sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)')
      }),
    close: async () => {
      await writes.drained()
      await reader.close()
      await sequelize.close()
      closeSync(said)
    },
  }
}
