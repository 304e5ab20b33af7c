/** The database: SQLite through Sequelize, its settings on every connection, its migrations, its one write queue. */
import { copyFileSync, existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { Sequelize } from 'sequelize'
import sqlite3 from 'sqlite3'
import { Umzug } from 'umzug'
import { defineModels, type Models } from './models.ts'
import { MIGRATIONS } from './migrations.ts'
import { openReader, type Reader } from './reader.ts'
import { WriteQueue } from './writeQueue.ts'

export interface Database {
  readonly sequelize: Sequelize
  readonly models: Models
  /**
   * Runs a write as one transaction, after all earlier writes have ended. When it throws, nothing of it is kept.
   * What `select` reads in the meantime is what stood before.
   */
  readonly write: <T>(work: () => Promise<T>) => Promise<T>
  /** Reads plain rows, beside the models. */
  readonly select: Reader['select']
  readonly close: () => Promise<void>
}

/** Sequelize runs no hook after connecting to SQLite, so the pragmas are set where the connection is born. */
class TunedDatabase extends sqlite3.Database {
  constructor(file: string, mode: number, done?: (error: Error | null) => void) {
    super(file, mode, (error) => {
      if (error) return done?.(error)
      this.exec(
        'PRAGMA journal_mode=WAL; PRAGMA foreign_keys=ON; PRAGMA synchronous=FULL; PRAGMA busy_timeout=5000;',
        (failed) => done?.(failed),
      )
    })
  }
}

/** Copies of the file kept before migrations. */
const COPIES_KEPT = 3

/** Opens the database of a data folder, making it when it is not there, and brings it up to date. */
export async function openDatabase(dataDir: string): Promise<Database> {
  mkdirSync(dataDir, { recursive: true })
  const storage = join(dataDir, 'slow-tide.sqlite')
  const existed = existsSync(storage)
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage,
    logging: false,
    dialectModule: { ...sqlite3, Database: TunedDatabase },
    pool: { max: 4, idle: 60_000 },
  })
  const umzug = new Umzug({
    migrations: MIGRATIONS.map((m) => ({
      name: m.name,
      up: async () => {
        for (const statement of m.up) await sequelize.query(statement)
      },
    })),
    storage: {
      async executed() {
        await sequelize.query(
          'CREATE TABLE IF NOT EXISTS migrations (name TEXT PRIMARY KEY) WITHOUT ROWID',
        )
        const [rows] = await sequelize.query('SELECT name FROM migrations ORDER BY name')
        return (rows as { name: string }[]).map((r) => r.name)
      },
      async logMigration({ name }) {
        await sequelize.query('INSERT INTO migrations (name) VALUES (?)', { replacements: [name] })
      },
      async unlogMigration({ name }) {
        await sequelize.query('DELETE FROM migrations WHERE name = ?', { replacements: [name] })
      },
    },
    logger: undefined,
  })
  if (existed && (await umzug.pending()).length > 0) {
    await sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)')
    putAside(dataDir, storage)
  }
  await umzug.up()
  const reader = await openReader(storage)
  const writes = new WriteQueue()
  // Sequelize's own transactions each open the file anew; here it has one connection, and only the queue writes.
  const write = <T>(work: () => Promise<T>) =>
    writes.run(async () => {
      await sequelize.query('BEGIN IMMEDIATE')
      try {
        const done = await work()
        await sequelize.query('COMMIT')
        return done
      } catch (error) {
        // SQLite may have taken it back by itself already.
        await sequelize.query('ROLLBACK').catch(() => undefined)
        throw error
      }
    })
  return {
    sequelize,
    models: defineModels(sequelize),
    write,
    select: reader.select,
    close: async () => {
      await writes.drained()
      await reader.close()
      await sequelize.close()
    },
  }
}

function putAside(dataDir: string, storage: string): void {
  const stamp = new Date().toISOString().replace(/[:.]/g, '-')
  copyFileSync(storage, join(dataDir, `before-migration-${stamp}.sqlite`))
  const copies = readdirSync(dataDir)
    .filter((f) => f.startsWith('before-migration-'))
    .sort()
  for (const old of copies.slice(0, -COPIES_KEPT)) rmSync(join(dataDir, old))
}
