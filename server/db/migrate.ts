/** Brings a data file up to date: each step with its entry in one transaction, so that a kill leaves a step whole or undone. */
import type { Sequelize } from 'sequelize'
import { Umzug } from 'umzug'
import { Trouble, troubleCode } from '../safety/trouble.ts'
import { MIGRATIONS, type Migration } from './migrations.ts'

/** The steps a file has behind it; none for a file that was never a data file of ours. */
export async function stepsDone(
  ask: <T extends object>(sql: string) => Promise<T[]>,
): Promise<string[]> {
  const known = await ask<{ name: string }>(
    "SELECT name FROM sqlite_master WHERE type = 'table' AND name = 'migrations'",
  )
  if (known.length === 0) return []
  return (await ask<{ name: string }>('SELECT name FROM migrations ORDER BY name')).map(
    (r) => r.name,
  )
}

/** @throws Trouble `newer` when a file has steps that this version does not know */
export function refuseNewer(done: readonly string[], what: string): void {
  const unknown = done.filter((name) => !MIGRATIONS.some((m) => m.name === name))
  if (unknown.length === 0) return
  throw new Trouble(
    'newer',
    `${what} was written by a newer version of Slow Tide (it has ${unknown.join(', ')}). Start that version; this one has changed nothing.`,
  )
}

/**
 * @param before runs once, before the first step that is still to be done
 * @throws Trouble `newer`, `step-failed`
 */
export async function migrate(
  sequelize: Sequelize,
  dataDir: string,
  before: (from: string | undefined) => Promise<void>,
  steps: readonly Migration[] = MIGRATIONS,
): Promise<void> {
  const umzug = new Umzug({
    migrations: steps.map((step) => ({ name: step.name, up: () => doStep(sequelize, step) })),
    storage: {
      executed: () =>
        stepsDone(
          async <T extends object>(sql: string) =>
            (await sequelize.query(sql))[0] as unknown as T[],
        ),
      // Written down within the step itself.
      logMigration: () => Promise.resolve(),
      unlogMigration: () => Promise.resolve(),
    },
    logger: undefined,
  })
  const done = (await umzug.executed()).map((m) => m.name)
  const all = await stepsDone(
    async <T extends object>(sql: string) => (await sequelize.query(sql))[0] as unknown as T[],
  )
  if (steps === MIGRATIONS) refuseNewer(all, `The folder ${dataDir}`)
  if ((await umzug.pending()).length === 0) return
  await before(done.at(-1))
  try {
    await umzug.up()
  } catch (error) {
    if (troubleCode(error) === 'disk-full') throw error
    const name = /Migration (\S+)/.exec(String(error))?.[1] ?? 'a step'
    throw new Trouble(
      'step-failed',
      `The data in ${dataDir} could not be brought to this version: ${name} failed and was taken back, so the data is as it was. A backup of it was made before. Start the version you had before, or type "npm run restore" to take a backup. (${error instanceof Error && error.cause instanceof Error ? error.cause.message : String(error)})`,
      error,
    )
  }
}

async function doStep(sequelize: Sequelize, step: Migration): Promise<void> {
  await sequelize.query('BEGIN IMMEDIATE')
  try {
    await sequelize.query(
      'CREATE TABLE IF NOT EXISTS migrations (name TEXT PRIMARY KEY) WITHOUT ROWID',
    )
    for (const statement of step.up) await sequelize.query(statement)
    await sequelize.query('INSERT INTO migrations (name) VALUES (?)', { replacements: [step.name] })
    await sequelize.query('COMMIT')
  } catch (error) {
    await sequelize.query('ROLLBACK').catch(() => undefined)
    throw error
  }
}
