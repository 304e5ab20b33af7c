/** Bringing data up to date: whole steps only, one backup of each state, and nothing from a newer version. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Sequelize } from 'sequelize'
import sqlite3 from 'sqlite3'
import { mulberry32 } from '../../core/stats/index.ts'
import { hashOf, unpack } from '../safety/archive.ts'
import { listBackups } from '../safety/backup.ts'
import { dataFile, usualBackups } from '../safety/folder.ts'
import { killsOfSteps } from '../testing/killsOfSteps.ts'
import { oldFolder } from '../testing/oldFolder.ts'
import { killAll } from '../testing/process.ts'
import { openDatabase } from './connection.ts'
import { migrate, stepsDone } from './migrate.ts'
import { READ_ONLY, READ_WRITE, withPlain } from './plain.ts'

const root = mkdtempSync(join(tmpdir(), 'slow-tide-migrate-'))
let n = 0
const folder = () => join(root, `f${++n}`, 'data')
afterAll(async () => {
  await killAll()
  rmSync(root, { recursive: true, force: true })
})

const stepsIn = (dir: string) => withPlain(dataFile(dir), READ_ONLY, (f) => stepsDone(f.all))

it('takes a step back whole when one of its statements fails', async () => {
  const dir = folder()
  await oldFolder(dir)
  const sequelize = new Sequelize({
    ...{ dialect: 'sqlite', storage: dataFile(dir), logging: false, dialectModule: sqlite3 },
  })
  const steps = (await stepsIn(dir)).map((name) => ({ name, up: [] }))
  const bad = {
    name: '9999-bad',
    up: ['ALTER TABLE clients ADD COLUMN berth TEXT', 'UPDATE nothing SET x = 1'],
  }
  const before: (string | undefined)[] = []
  const go = migrate(sequelize, dir, (from) => Promise.resolve(void before.push(from)), [
    ...steps,
    bad,
  ])
  await expect(go).rejects.toMatchObject({
    code: 'step-failed',
    message: expect.stringMatching(/9999-bad failed and was taken back/) as string,
  })
  await sequelize.close()
  expect(before).toEqual(['0005-return'])
  const columns = await withPlain(dataFile(dir), READ_ONLY, (f) =>
    f.all<{ name: string }>('PRAGMA table_info(clients)'),
  )
  expect(columns.map((c) => c.name)).not.toContain('berth')
})

it('makes one backup of the state before, that reads back, however often the start fails', async () => {
  const dir = folder()
  await oldFolder(dir)
  // A column that a later step adds: as a step that was left half done by an older version.
  await withPlain(dataFile(dir), READ_WRITE, (f) =>
    f.exec('ALTER TABLE skin_answers ADD COLUMN toldAtMs INTEGER'),
  )
  let state: string | undefined
  for (let i = 0; i < 5; i++) {
    await expect(openDatabase(dir)).rejects.toMatchObject({
      code: 'step-failed',
      message: expect.stringMatching(/duplicate column/) as string,
    })
    state ??= await hashOf(dataFile(dir))
  }
  expect(await hashOf(dataFile(dir))).toBe(state)
  const made = listBackups(usualBackups(dir))
  expect(made).toHaveLength(1)
  const manifest = await unpack(made[0]!.file, join(root, 'look'), undefined)
  expect(manifest.counts['visits']).toBe(41)
  // A backup that was broken since does not count.
  writeFileSync(made[0]!.file, 'torn')
  await expect(openDatabase(dir)).rejects.toThrow()
  expect(listBackups(usualBackups(dir))).toHaveLength(2)
})

it('refuses a folder of a newer version in a sentence, and leaves it as it is', async () => {
  const dir = folder()
  await (await openDatabase(dir)).close()
  await withPlain(dataFile(dir), READ_WRITE, (f) =>
    f.exec("INSERT INTO migrations VALUES ('0999-from-tomorrow')"),
  )
  const state = await hashOf(dataFile(dir))
  await expect(openDatabase(dir)).rejects.toMatchObject({
    code: 'newer',
    message: expect.stringMatching(
      /newer version of Slow Tide \(it has 0999-from-tomorrow\)/,
    ) as string,
  })
  expect(await hashOf(dataFile(dir))).toBe(state)
})

// Short: `npm run soak` does two hundred over twenty thousand visits.
it('killed in the midst of the steps, always opens, with everything, and no backup twice', async () => {
  const done = await killsOfSteps(5, 2000, mulberry32(3))
  expect(done).toMatchObject({ lost: 0, copiesTooMany: 0 })
  expect(done.within).toBeGreaterThan(1)
}, 240_000)
