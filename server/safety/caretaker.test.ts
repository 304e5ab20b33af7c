/** The nights and weeks of a studio: what is done by itself, when it is made up for, and what is said when it fails. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { DAY_MS, HOUR_MS } from '../../core/time/index.ts'
import { openStudio, type Studio } from '../testing/studio.ts'
import { listBackups, makeBackup } from './backup.ts'
import { Caretaker, lastNight, PROVEN_EVERY_MS, type Tools } from './caretaker.ts'
import { backupFolders, writeCard } from './folder.ts'
import { toolsHere } from './tools.ts'

let studio: Studio
const done: string[] = []
let breaks: string | undefined
/** The night that it is. */
let clock = Date.now()
let tools: Tools
beforeAll(async () => {
  studio = await openStudio()
  const real = toolsHere(studio.dir)
  tools = {
    backup: async (why, said, stop) => {
      if (breaks !== undefined) throw new Error(breaks)
      done.push(why)
      await makeBackup({ dataDir: studio.dir, why, nowMs: clock, onProgress: said, signal: stop })
    },
    prove: async (file, said, stop) => {
      done.push('prove')
      await real.prove(file, said, stop)
    },
  }
})
afterAll(() => studio.close())
const took = () => done.splice(0)

it('knows the last night’s hour, whatever the time', () => {
  const night = lastNight(Date.now())
  expect(new Date(night).getHours()).toBe(3)
  expect(lastNight(night)).toBe(night)
  expect(lastNight(night - 1)).toBe(lastNight(night - 2))
  expect(night - lastNight(night - 1)).toBeGreaterThanOrEqual(23 * HOUR_MS)
  expect(Date.now() - night).toBeLessThan(25 * HOUR_MS)
})

it('backs up once a night and restores the newest for trial once a week, and makes up what was missed', async () => {
  const caretaker = new Caretaker(studio.db, studio.dir, tools)
  // At noon: before the night's hour the next night is still the same day, of which one backup is kept.
  const now = lastNight(Date.now()) + 9 * HOUR_MS
  clock = now
  await caretaker.look(now)
  expect(took()).toEqual(['nightly', 'prove'])
  await caretaker.look(now + 60_000)
  expect(took()).toEqual([])
  const [backup] = listBackups(backupFolders(studio.dir)[0]!)
  expect(backup!.proven!.atMs).toBeGreaterThan(0)
  expect(backup!.proven!.problem).toBeUndefined()
  // The next night, however late it is looked.
  const later = lastNight(now) + DAY_MS + 5 * HOUR_MS
  clock = later
  await caretaker.look(later)
  expect(took()).toEqual(['nightly'])
  clock = now + PROVEN_EVERY_MS + DAY_MS
  await caretaker.look(clock)
  expect(took()).toEqual(['nightly', 'prove'])
  expect(caretaker.problem(clock)).toBeNull()
  expect(caretaker.problem(clock + 4 * DAY_MS)).toMatch(/^The last backup is \d days old/)
})

it('says what failed until it succeeds, and begins nothing twice', async () => {
  const caretaker = new Caretaker(studio.db, studio.dir, tools)
  const far = Date.now() + 40 * DAY_MS
  breaks = 'The disk of the backups is full.'
  await caretaker.look(far)
  expect(caretaker.problem(Date.now())).toBe('The disk of the backups is full.')
  expect(caretaker.state(Date.now()).failure).toMatchObject({ what: 'backup' })
  breaks = undefined
  const two = await Promise.allSettled([caretaker.backup('asked'), caretaker.backup('asked')])
  expect(two.map((t) => t.status).sort()).toEqual(['fulfilled', 'rejected'])
  expect(caretaker.problem(Date.now())).toBeNull()
  caretaker.close()
})

it('keeps a copy on the second disk where there is one', async () => {
  const second = mkdtempSync(join(tmpdir(), 'slow-tide-second-'))
  writeCard(studio.dir, { backups: { second } })
  await makeBackup({ dataDir: studio.dir, why: 'asked' })
  expect(listBackups(second)).toHaveLength(1)
  const state = new Caretaker(studio.db, studio.dir, tools).state(Date.now())
  expect(state.backups.filter((b) => b.onSecond).map((b) => b.why)).toEqual(['asked'])
  rmSync(second, { recursive: true, force: true })
})
