/** Files as a failing disk, a slip or a thief of bytes leaves them: each says what is wrong and what to do, none opens as an empty studio. */
import {
  cpSync,
  mkdtempSync,
  openSync,
  closeSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
  writeSync,
} from 'node:fs'
import { spawnSync } from 'node:child_process'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import request from 'supertest'
import { openDatabase } from '../db/connection.ts'
import { newClient, openStudio } from '../testing/studio.ts'
import { killAll, runBuilt } from '../testing/process.ts'
import { send } from '../testing/overTheWire.ts'
import { dataFile, saidFile } from './folder.ts'
import { rescue } from './rescue.ts'
import { listBackups } from './backup.ts'
import { toProblem } from '../http/problem.ts'

const root = mkdtempSync(join(tmpdir(), 'slow-tide-damage-'))
let whole = ''
let n = 0
/** A copy of a folder with forty clients in it. */
const copy = () => {
  const dir = join(root, `c${++n}`, 'data')
  cpSync(whole, dir, { recursive: true })
  return dir
}
beforeAll(async () => {
  const studio = await openStudio()
  for (let i = 0; i < 40; i++)
    await request(studio.app)
      .post('/api/clients')
      .send(newClient({ name: `Client ${i} ${'of the long pier '.repeat(20)}`.slice(0, 78) }))
      .expect(201)
  await studio.db.sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)')
  whole = join(root, 'whole')
  cpSync(studio.dir, whole, { recursive: true })
  await studio.close()
})
afterAll(async () => {
  await killAll()
  disks.forEach((at) => at && spawnSync('umount', ['-l', at]))
  rmSync(root, { recursive: true, force: true })
})

const overwrite = (file: string, at: number, bytes: number) => {
  const f = openSync(file, 'r+')
  writeSync(f, Buffer.alloc(bytes, 0xa5), 0, bytes, at)
  closeSync(f)
}

const CASES: readonly (readonly [string, (dir: string) => void, string, RegExp])[] = [
  ['0 bytes', (d) => truncateSync(dataFile(d), 0), 'empty-file', /is empty \(0 bytes\)/],
  ['gone', (d) => rmSync(dataFile(d)), 'missing', /was a studio's, but its data file/],
  ['cut', (d) => truncateSync(dataFile(d), 40_960), 'damaged', /is damaged/],
  ['another file', (d) => writeFileSync(dataFile(d), 'tide '.repeat(900)), 'damaged', /is damaged/],
  [
    'overwritten within',
    (d) => overwrite(dataFile(d), statSync(dataFile(d)).size - 12_288, 12_288),
    'damaged',
    /is damaged/,
  ],
]

it.each(CASES)(
  'a data file that is %s says so, with the next step, and stays as it is',
  async (_name, harm, code, words) => {
    const dir = copy()
    harm(dir)
    const state = () => {
      try {
        return readFileSync(dataFile(dir)).toString('base64')
      } catch {
        return 'gone'
      }
    }
    const before = state()
    await expect(openDatabase(dir)).rejects.toMatchObject({
      code,
      message: expect.stringMatching(words) as string,
    })
    await expect(openDatabase(dir)).rejects.toThrow(/npm run restore/)
    expect(state()).toBe(before)
  },
)

it('a foreign database is no studio', async () => {
  const dir = copy()
  rmSync(dataFile(dir))
  const { MAKE, withPlain } = await import('../db/plain.ts')
  await withPlain(dataFile(dir), MAKE, (f) =>
    f.exec('CREATE TABLE songs (a); INSERT INTO songs VALUES (1)'),
  )
  await expect(openDatabase(dir)).rejects.toMatchObject({ code: 'not-ours' })
})

it('a log that was cut tells how many changes are missing', async () => {
  const dir = copy()
  const server = runBuilt(dir)
  const base = await server.serves
  for (let i = 0; i < 5; i++) await send(base, 'POST', '/api/clients', newClient())
  await server.kill('SIGKILL')
  const log = `${dataFile(dir)}-wal`
  expect(statSync(log).size).toBeGreaterThan(20_000)
  truncateSync(log, 8000)
  await expect(openDatabase(dir)).rejects.toMatchObject({
    code: 'shortened',
    message: expect.stringMatching(/the last \d+ of \d+ changes/) as string,
  })
  // Whoever goes on with what is there says so by deleting one file.
  rmSync(saidFile(dir))
  await (await openDatabase(dir)).close()
})

it('what can be read of a damaged file is read, into a folder of its own', async () => {
  const dir = copy()
  const size = statSync(dataFile(dir)).size
  // A page in the midst of what was entered.
  const bytes = readFileSync(dataFile(dir))
  const pageOf = (found: number) => Math.floor(found / 4096) * 4096
  let found = bytes.indexOf('Client 20 of the long pier')
  // The name stands in the index of names too: this is the page of the client's own row.
  while (!bytes.subarray(pageOf(found), pageOf(found) + 4096).includes('reactivity'))
    found = bytes.indexOf('Client 20 of the long pier', found + 1)
  const at = pageOf(found)
  expect(at).toBeGreaterThan(4096)
  overwrite(dataFile(dir), at, 4096)
  await expect(openDatabase(dir)).rejects.toMatchObject({ code: 'damaged' })
  const done = await rescue(dir, async (into) => (await openDatabase(into)).close())
  expect(done.tables['clients']!.read).toBeGreaterThan(20)
  expect(done.tables['clients']!.lost).toBeGreaterThan(0)
  expect(statSync(dataFile(dir)).size).toBe(size)
  const db = await openDatabase(done.into)
  const [row] = await db.select<{ n: number }>('SELECT COUNT(*) AS n FROM clients')
  expect(row!.n).toBe(done.tables['clients']!.read)
  await db.close()
  truncateSync(dataFile(dir), 0)
  await expect(rescue(dir, () => Promise.resolve())).rejects.toThrow()
})

/** A small disk of its own; undefined where this user may make none. */
const disk = (megabytes: number): string | undefined => {
  const at = mkdtempSync(join(root, 'disk-'))
  const made = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m`, 'none', at])
  return made.status === 0 ? at : undefined
}
const disks = [disk(4), disk(8)]
const withDisk = disks.every(Boolean) ? it : it.skip

withDisk(
  'a full disk: what cannot be kept is refused in a sentence, what was kept stays, and room mends it',
  async () => {
    const at = disks[0]!
    const dir = join(at, 'data')
    cpSync(whole, dir, { recursive: true })
    const server = runBuilt(dir)
    const base = await server.serves
    const ballast = join(at, 'ballast')
    expect(() => writeFileSync(ballast, Buffer.alloc(8 * 1024 * 1024))).toThrow(/ENOSPC/)
    const add = () =>
      fetch(`${base}/api/clients`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(newClient()),
      })
    let kept = 40
    let refused: Response | undefined
    for (let i = 0; i < 300 && !refused; i++) {
      const r = await add()
      if (r.ok) kept++
      else refused = r
    }
    expect(refused!.status).toBe(507)
    expect(await refused!.json()).toMatchObject({
      code: 'disk-full',
      detail: expect.stringMatching(/disk is full.*Nothing of it was kept/) as string,
    })
    // Reading goes on.
    const count = async () =>
      (await (await fetch(`${base}/api/health`)).json()) as { clients: number }
    expect((await count()).clients).toBe(kept)
    rmSync(ballast)
    expect((await add()).status).toBe(201)
    expect((await count()).clients).toBe(kept + 1)
    await server.kill('SIGKILL')
    const again = runBuilt(dir)
    const there = (await (await fetch(`${await again.serves}/api/health`)).json()) as {
      clients: number
    }
    expect(there.clients).toBe(kept + 1)
    await again.kill()
  },
)

withDisk(
  'a disk that is mounted for reading only: it says so, and a backup of it can be made',
  async () => {
    const at = disks[1]!
    const dir = join(at, 'data')
    cpSync(whole, dir, { recursive: true })
    spawnSync('mount', ['-o', 'remount,ro', at])
    const server = runBuilt(dir)
    expect(await server.ended).toBe(1)
    expect(server.said()).toMatch(/cannot be written\. Give this user the right/)
    const into = join(root, 'elsewhere')
    const backup = runBuilt(dir, ['backup', into])
    expect([await backup.ended, backup.said()]).toEqual([0, expect.stringMatching(/40 clients/)])
    expect(listBackups(into)).toHaveLength(1)
  },
)

it.each([
  ['SQLITE_FULL: database or disk is full', 507, 'disk-full'],
  ['SQLITE_READONLY: attempt to write a readonly database', 507, 'not-writable'],
  ['SQLITE_CORRUPT: database disk image is malformed', 500, 'damaged'],
])('%s is answered with a sentence of its own', (message, status, code) => {
  expect(toProblem(new Error(message))).toMatchObject({ status, code })
})
