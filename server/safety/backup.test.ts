/** Backups of a server at work, taken back and compared; nobody erased comes back; nothing of them stays in the folder. */
import { randomUUID } from 'node:crypto'
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { basename, dirname, join } from 'node:path'
import fc from 'fast-check'
import sharp from 'sharp'
import request from 'supertest'
import type { House } from '../../contract/types.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { openDatabase } from '../db/connection.ts'
import { condemn, sweep } from '../photos/sweep.ts'
import { photoFile, photoNames } from '../photos/names.ts'
import { finishVisit, newClient, openStudio, plannedVisit, type Studio } from '../testing/studio.ts'
import { send } from '../testing/overTheWire.ts'
import { killAll, runBuilt } from '../testing/process.ts'
import { countsOf } from './archive.ts'
import { listBackups, makeBackup, noteOn, proveBackup, pruneBackups } from './backup.ts'
import { dataFile, finishSwap, usualBackups, writeCard } from './folder.ts'
import { restore } from './restore.ts'
import { keptBackups } from './retention.ts'

const root = mkdtempSync(join(tmpdir(), 'slow-tide-backup-'))
let n = 0
const place = () => {
  const dir = join(root, `p${++n}`)
  mkdirSync(dir)
  return join(dir, 'data')
}
afterAll(async () => {
  await killAll()
  rmSync(root, { recursive: true, force: true })
})

const api = (studio: Studio) => request(studio.app)
const picture = () =>
  sharp({ create: { width: 60, height: 40, channels: 3, background: '#b86' } })
    .jpeg()
    .toBuffer()

/** A client with a finished visit and a picture. */
async function served(studio: Studio, name: string) {
  const { client, visit } = await plannedVisit(studio.app)
  await api(studio)
    .patch(`/api/clients/${client.id}`)
    .send({ name, note: `${name} has a scar` })
    .expect(200)
  await finishVisit(studio.app, visit, Date.now() - 3_600_000)
  const photo = randomUUID()
  await api(studio)
    .post(`/api/visits/${visit.id}/photos`)
    .field('id', photo)
    .attach('photo', await picture(), 'x.jpg')
    .expect(201)
  return { id: client.id, name, visitId: visit.id, photo }
}

it('of a server at work holds all that was acknowledged when it was asked for, and goes back in its place', async () => {
  const dir = place()
  const server = runBuilt(dir)
  const base = await server.serves
  for (let i = 0; i < 40; i++) await send(base, 'POST', '/api/clients', newClient())
  let [going, more] = [true, 0]
  const writing = (async () => {
    for (; going; more++) await send(base, 'POST', '/api/clients', newClient())
  })()
  const backup = runBuilt(dir, ['backup'])
  expect([await backup.ended, backup.said()]).toEqual([
    0,
    expect.stringMatching(/read back and whole/),
  ])
  going = false
  await writing
  const [made] = listBackups(usualBackups(dir))
  expect(made!.counts['clients']).toBeGreaterThanOrEqual(40)
  expect(made!.counts['clients']).toBeLessThanOrEqual(40 + more)
  // Not while it runs.
  const early = runBuilt(dir, ['restore', made!.file])
  expect([await early.ended, early.said()]).toEqual([
    1,
    expect.stringContaining(`it is at ${base}`),
  ])
  await server.kill()
  const late = runBuilt(dir, ['restore', made!.file])
  expect([await late.ended, late.said()]).toEqual([
    0,
    expect.stringMatching(/Restored as of .*What was there before is at/),
  ])
  expect((await countsOf(dataFile(dir)))['clients']).toBe(made!.counts['clients'])
  const aside = readdirSync(dirname(dir)).find((f) => f.startsWith('data-aside-'))!
  expect((await countsOf(join(dirname(dir), aside, 'slow-tide.sqlite')))['clients']).toBe(40 + more)
})

describe('a studio', () => {
  let studio: Studio
  let gone: Awaited<ReturnType<typeof served>>
  let stays: Awaited<ReturnType<typeof served>>
  beforeAll(async () => {
    studio = await openStudio()
    gone = await served(studio, 'Quillon Vantreese')
    stays = await served(studio, 'Maris Oldfield')
  })
  afterAll(() => studio.close())

  it('is backed up with its pictures, on two disks, locked where it has a passphrase', async () => {
    const second = join(root, 'second')
    writeCard(studio.dir, { backups: { second } })
    const open = await makeBackup({ dataDir: studio.dir, why: 'asked' })
    expect(existsSync(join(second, basename(open.file)))).toBe(true)
    writeCard(studio.dir, { passphrase: 'four grey gulls', backups: {} })
    const locked = await makeBackup({
      dataDir: studio.dir,
      why: 'nightly',
      nowMs: Date.now() + 5000,
    })
    writeCard(studio.dir, { passphrase: '' })
    expect(readFileSync(locked.file).subarray(0, 21).toString()).toBe('age-encryption.org/v1')
    const into = place()
    await expect(restore(into, locked.file)).rejects.toMatchObject({ code: 'passphrase' })
    await expect(restore(into, locked.file, 'four grey guls')).rejects.toMatchObject({
      code: 'passphrase',
    })
    expect(existsSync(into)).toBe(false)
    const done = await restore(into, locked.file, 'four grey gulls')
    expect(done).toMatchObject({ clients: 2, visits: 2, erasedAgain: 0 })
    for (const { photo } of [gone, stays])
      expect(existsSync(photoFile(into, photo, 'whole'))).toBe(true)
    // Opened, it is the same studio.
    const db = await openDatabase(into)
    expect(await db.select('SELECT name FROM clients ORDER BY name')).toEqual([
      { name: 'Maris Oldfield' },
      { name: 'Quillon Vantreese' },
    ])
    await db.close()
  })

  it('finds a backup that was changed by one byte, and changes nothing', async () => {
    const [made] = listBackups(usualBackups(studio.dir)).filter((b) => b.why === 'asked')
    const torn = join(root, basename(made!.file))
    const bytes = readFileSync(made!.file)
    bytes[Math.floor(bytes.length / 2)]! ^= 1
    writeFileSync(torn, bytes)
    const into = place()
    await expect(restore(into, torn)).rejects.toMatchObject({ code: 'bad-backup' })
    await expect(restore(into, join(root, 'none.tar.gz'))).rejects.toMatchObject({
      code: 'bad-backup',
    })
    expect(readdirSync(dirname(into))).toEqual([])
    // Restoring for trial says so too, and keeps what it found.
    cpSync(made!.file, `${made!.file}.whole`)
    writeFileSync(made!.file, bytes)
    expect((await proveBackup(studio.dir, made!)).proven!.problem).toMatch(/differs/)
    renameSync(`${made!.file}.whole`, made!.file)
    expect((await proveBackup(studio.dir, made!)).proven!.problem).toBeUndefined()
    expect(
      listBackups(usualBackups(studio.dir)).find((b) => b.file === made!.file)!.proven!.atMs,
    ).toBeGreaterThan(0)
  })

  it('has nothing left of an erased client in any byte of its folder, and a backup does not bring them back', async () => {
    const before = await makeBackup({ dataDir: studio.dir, why: 'asked', nowMs: Date.now() + 9000 })
    const house = (await api(studio).get('/api/house')).body as House
    expect(house.workers.length).toBeGreaterThan(0)
    const traces = () =>
      (readdirSync(studio.dir, { recursive: true }) as string[])
        .map((f) => join(studio.dir, f))
        .filter((f) => statSync(f).isFile())
        .filter((f) => {
          const bytes = readFileSync(f)
          return [gone.name, 'Quillon', gone.visitId, gone.photo].some((t) => bytes.includes(t))
        })
        .map((f) => basename(f))
    expect(traces()).toContain('slow-tide.sqlite-wal')
    await api(studio).delete(`/api/clients/${gone.id}`).send({ confirmName: gone.name }).expect(200)
    // The number of who was erased stays, with the numbers of their pictures; nothing that says who it was.
    const [listed] = await studio.db.select<{ photos: string }>('SELECT photos FROM erased')
    expect(JSON.parse(listed!.photos)).toEqual([gone.photo])
    const left = traces().filter((f) => f !== 'slow-tide.sqlite')
    expect(left).toEqual([])
    const bytes = readFileSync(dataFile(studio.dir))
    for (const trace of [
      gone.name,
      'Quillon',
      'has a scar'.replace('has', `${gone.name} has`),
      gone.visitId,
    ])
      expect([trace, bytes.includes(trace)]).toEqual([trace, false])
    const into = place()
    const done = await restore(into, before.file)
    expect(done).toMatchObject({ clients: 1, erasedAgain: 1 })
    expect(existsSync(photoFile(into, gone.photo, 'whole'))).toBe(false)
    expect(existsSync(photoFile(into, stays.photo, 'whole'))).toBe(true)
    expect(readFileSync(dataFile(into)).includes(gone.name)).toBe(false)
  })

  it('deletes at its start what a kill left of pictures', async () => {
    mkdirSync(join(studio.dir, 'photos'), { recursive: true })
    const orphan = randomUUID()
    for (const name of photoNames(orphan)) writeFileSync(join(studio.dir, 'photos', name), 'x')
    await studio.db.write(() =>
      condemn(studio.db, [...photoNames(orphan), ...photoNames(stays.photo)]),
    )
    await sweep(studio.db, studio.dir)
    expect(existsSync(photoFile(studio.dir, orphan, 'whole'))).toBe(false)
    // A picture that has its row stays, whatever is written down.
    expect(existsSync(photoFile(studio.dir, stays.photo, 'whole'))).toBe(true)
  })

  it('sends pictures so that no screen keeps them', async () => {
    const r = await api(studio).get(`/api/photos/${stays.photo}`).expect(200)
    expect(r.headers['cache-control']).toBe('no-store')
  })
})

it('a swap that a kill cut short is ended at the next start', () => {
  const dir = place()
  const fresh = `${dir}-restoring-x`
  for (const [at, what] of [
    [dir, 'old'],
    [fresh, 'new'],
  ] as const) {
    mkdirSync(at)
    writeFileSync(join(at, 'which'), what)
  }
  const aside = `${dir}-aside-x`
  const swap = join(dirname(dir), '.data.swap.json')
  writeFileSync(swap, JSON.stringify({ fresh, aside }))
  // Killed after the first of the two steps.
  renameSync(dir, aside)
  finishSwap(dir)
  expect(readFileSync(join(dir, 'which'), 'utf8')).toBe('new')
  expect(readFileSync(join(aside, 'which'), 'utf8')).toBe('old')
  expect(existsSync(swap)).toBe(false)
})

describe('retention', () => {
  it('keeps seven days, four weeks and twelve months of nightly backups', () => {
    const now = Date.UTC(2026, 10, 28, 3)
    const nights = Array.from({ length: 800 }, (_, i) => now - i * DAY_MS)
    const kept = nights.filter((_, i) => keptBackups(nights, 0)[i])
    const ages = kept.map((t) => Math.round((now - t) / DAY_MS))
    // Sunday nights end the weeks of before, the last nights of months the months.
    expect(ages).toEqual([
      0, 1, 2, 3, 4, 5, 6, 13, 20, 28, 59, 89, 120, 151, 181, 212, 242, 273, 301, 332,
    ])
  })

  it('never leaves the newest out, keeps at most as many as it says, and pruning again prunes nothing', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 5e11 }), { minLength: 1, maxLength: 60 }),
        (times) => {
          const kept = times.filter((_, i) => keptBackups(times, 0)[i])
          expect(kept).toContain(Math.max(...times))
          expect(kept.length).toBeLessThanOrEqual(7 + 4 + 12)
          expect(keptBackups(kept, 0).every(Boolean)).toBe(true)
        },
      ),
    )
  })

  it('takes files away by it, but keeps a year what was made before the data changed', () => {
    const folder = join(root, 'nights')
    mkdirSync(folder)
    const now = Date.UTC(2026, 10, 28, 3)
    const put = (days: number, why: 'nightly' | 'before-step') => {
      const file = join(folder, `slow-tide-${why}-${days}.tar.gz`)
      writeFileSync(file, 'x')
      noteOn(
        { file, why, madeAtMs: now - days * DAY_MS, bytes: 1, step: '', counts: {}, sha256: '' },
        {},
      )
    }
    for (let d = 0; d < 40; d++) put(d, 'nightly')
    for (const d of [3, 200, 400]) put(d, 'before-step')
    pruneBackups(folder, now)
    const left = listBackups(folder)
    expect(left.filter((b) => b.why === 'before-step')).toHaveLength(2)
    expect(left.filter((b) => b.why === 'nightly')).toHaveLength(10)
    expect(readdirSync(folder)).toHaveLength(24)
  })
})
