/** Starting and stopping, as a person does it: a taken port, a wrong one, Ctrl-C, the same data again. */
import { createServer, type AddressInfo } from 'node:net'
import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { readConfig, VERSION } from './config.ts'
import { openDatabase } from './db/connection.ts'
import { countsOf } from './safety/archive.ts'
import { listBackups } from './safety/backup.ts'
import { dataFile, usualBackups } from './safety/folder.ts'
import { killAll, runBuilt } from './testing/process.ts'

const dir = mkdtempSync(join(tmpdir(), 'slow-tide-start-'))
afterAll(async () => {
  await killAll()
  rmSync(dir, { recursive: true, force: true })
})

it('stops on Ctrl-C and starts again on the same data', async () => {
  const data = join(dir, 'data')
  for (let i = 0; i < 2; i++) {
    const server = runBuilt(data)
    const base = await server.serves
    const health = await (await fetch(`${base}/api/health`)).json()
    expect(health).toEqual({ ok: true, version: VERSION, clients: 0, visits: 0 })
    await server.kill('SIGINT')
    expect(await server.ended).toBe(0)
  }
})

it('says that a port is taken and what to do, and takes no other', async () => {
  const blocker = createServer()
  await new Promise<void>((resolve) => blocker.listen(0, '127.0.0.1', resolve))
  const { port } = blocker.address() as AddressInfo
  const server = runBuilt(join(dir, 'data'), [], { PORT: String(port) })
  expect(await server.ended).toBe(1)
  expect(server.said()).toContain(`Port ${port} is taken by another program. Stop that program`)
  await new Promise((resolve) => blocker.close(resolve))
})

it('refuses a second server on a folder with the address of the first, and takes over after a kill', async () => {
  const data = join(dir, 'data')
  const first = runBuilt(data)
  const base = await first.serves
  const second = runBuilt(data)
  expect(await second.ended).toBe(1)
  expect(second.said()).toContain(
    `Slow Tide already works on the folder ${data}: it is at ${base}/`,
  )
  await first.kill('SIGKILL')
  const third = runBuilt(data)
  await third.serves
  await third.kill()
})

it('begins the demo anew without deleting anything, and never in a studio’s own folder', async () => {
  const demo = join(dir, 'demo')
  const db = await openDatabase(demo, true)
  await db.write(() => db.models.Setting.create({ key: 'mark', value: 'of before' }))
  await db.close()
  const again = runBuilt(demo, ['--demo', '--fresh'])
  for (let i = 0; i < 600 && !again.said().includes('begins anew'); i++)
    await new Promise((r) => setTimeout(r, 50))
  await again.kill('SIGKILL')
  const aside = readdirSync(dir).find((f) => f.startsWith('demo-aside-'))!
  expect((await countsOf(dataFile(join(dir, aside))))['settings']).toBe(1)
  expect(listBackups(usualBackups(demo)).map((b) => b.why)).toEqual(['before-fresh'])
  for (const args of [['--demo'], ['--demo', '--fresh']]) {
    const refused = runBuilt(join(dir, 'data'), args)
    expect(await refused.ended).toBe(1)
    expect(refused.said()).toMatch(/not the demo's|no demo's folder/)
  }
})

it('says in one sentence what is wrong with a port that is none', async () => {
  const server = runBuilt(join(dir, 'data'), [], { PORT: 'harbour' })
  expect(await server.ended).toBe(1)
  expect(server.said().trim()).toBe('PORT must be a number from 0 to 65535; it is "harbour".')
})

describe('the configuration', () => {
  it('has its defaults', () => {
    expect(readConfig({})).toMatchObject({
      host: '127.0.0.1',
      port: 4170,
      logLevel: 'warn',
      version: VERSION,
    })
    expect(readConfig({}).dataDir).toMatch(/\/data$/)
    expect(readConfig({}, true).dataDir).toMatch(/\/data-demo$/)
  })

  it('honours what is set', () => {
    const set = { PORT: '0', SLOW_TIDE_DATA: '/elsewhere', SLOW_TIDE_HOSTS: 'a.example, b.example' }
    expect(readConfig(set)).toMatchObject({
      port: 0,
      dataDir: '/elsewhere',
      hosts: ['a.example', 'b.example'],
    })
    expect(readConfig({ PUBLIC_URL: 'https://c.example/' })).toMatchObject({
      publicUrl: 'https://c.example',
      hosts: ['c.example'],
    })
    expect(readConfig({ HOST: '0.0.0.0' }, false, true).host).toBe('0.0.0.0')
    expect(() => readConfig({ HOST: '0.0.0.0' })).toThrow('--lan')
    expect(() => readConfig({ PUBLIC_URL: 'c.example' })).toThrow('whole address')
    expect(() => readConfig({ PORT: '70000' })).toThrow('PORT must be a number')
  })
})
