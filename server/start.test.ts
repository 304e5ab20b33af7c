/** Starting and stopping, as a person does it: a taken port, a wrong one, Ctrl-C, the same data again. */
import { spawn } from 'node:child_process'
import { createServer, type AddressInfo } from 'node:net'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { readConfig, VERSION } from './config.ts'

const dir = mkdtempSync(join(tmpdir(), 'slow-tide-start-'))
afterAll(() => rmSync(dir, { recursive: true, force: true }))

function run(env: Record<string, string>) {
  const child = spawn(process.execPath, ['dist/server/main.js'], {
    env: { ...process.env, SLOW_TIDE_DATA: dir, LOG_LEVEL: 'silent', NODE_OPTIONS: '', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  child.stdout.on('data', (c: Buffer) => (said += c.toString()))
  child.stderr.on('data', (c: Buffer) => (said += c.toString()))
  const ended = new Promise<number | null>((resolve) => child.once('exit', (code) => resolve(code)))
  const says = async (what: RegExp) => {
    for (let i = 0; i < 300 && !what.test(said); i++) await new Promise((r) => setTimeout(r, 50))
    expect(said).toMatch(what)
  }
  return { child, ended, says, said: () => said }
}

it('takes the next free port when one is taken, says so, stops on Ctrl-C, and starts again on the same data', async () => {
  const blocker = createServer()
  await new Promise<void>((resolve) => blocker.listen(0, '127.0.0.1', resolve))
  const { port } = blocker.address() as AddressInfo
  for (let i = 0; i < 2; i++) {
    const server = run({ PORT: String(port) })
    await server.says(/Slow Tide is at/)
    expect(server.said()).toContain(`Port ${port} is taken; using `)
    const base = /http:\/\/[\d.]+:\d+/.exec(server.said())![0]
    const health = await (await fetch(`${base}/api/health`)).json()
    expect(health).toEqual({ ok: true, version: VERSION, clients: 0, visits: 0 })
    server.child.kill('SIGINT')
    expect(await server.ended).toBe(0)
  }
  await new Promise((resolve) => blocker.close(resolve))
})

it('says in one sentence what is wrong with a port that is none', async () => {
  const server = run({ PORT: 'harbour' })
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
  })

  it('honours what is set', () => {
    expect(readConfig({ HOST: '0.0.0.0', PORT: '0', SLOW_TIDE_DATA: '/elsewhere' })).toMatchObject({
      host: '0.0.0.0',
      port: 0,
      dataDir: '/elsewhere',
    })
    expect(() => readConfig({ PORT: '70000' })).toThrow('PORT must be a number')
  })
})
