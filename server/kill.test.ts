/**
 * A server that is really killed (SIGKILL) between and during events, with two screens following, loses no event that it had
 * acknowledged; and many services at once. Short: `npm run soak` does two hundred kills, and fifty services for five minutes.
 */
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { mulberry32 } from '../core/stats/index.ts'
import { killRun, soak, type Launched } from './testing/overTheWire.ts'

const KILLS = 8
const dirs: string[] = []
const running = new Set<Launched>()

/** Starts the server as it is built, on the same data and port each time. */
function launcher(): () => Promise<Launched> {
  const dir = mkdtempSync(join(tmpdir(), 'slow-tide-kill-'))
  dirs.push(dir)
  let port = '0'
  return () =>
    new Promise((resolve, reject) => {
      const child = spawn(process.execPath, ['dist/server/main.js'], {
        env: {
          ...process.env,
          SLOW_TIDE_DATA: dir,
          PORT: port,
          LOG_LEVEL: 'silent',
          NODE_OPTIONS: '',
        },
        stdio: ['ignore', 'pipe', 'pipe'],
      })
      let said = ''
      const launched = (base: string): Launched => ({
        base,
        kill: (signal = 'SIGTERM') =>
          new Promise((gone) => {
            running.delete(self)
            if (child.exitCode !== null || child.signalCode !== null) return gone()
            child.once('exit', () => gone())
            child.kill(signal)
          }),
      })
      let self: Launched
      child.stdout.on('data', (chunk: Buffer) => {
        said += chunk.toString()
        const found = /http:\/\/[\d.]+:\d+/.exec(said)
        if (!found) return
        port = new URL(found[0]).port
        self = launched(found[0])
        running.add(self)
        resolve(self)
      })
      child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()))
      child.on('exit', () => reject(new Error(`The server ended: ${said}`)))
    })
}

afterAll(async () => {
  await Promise.all([...running].map((s) => s.kill('SIGKILL')))
  for (const dir of dirs) rmSync(dir, { recursive: true, force: true })
})

it(`loses nothing over ${KILLS} kills, and server, worker and wall agree after each`, async () => {
  const done = await killRun(KILLS, launcher(), mulberry32(5))
  expect(done).toMatchObject({ kills: KILLS, lost: 0, differences: 0 })
  expect(done.acknowledged).toBeGreaterThan(KILLS)
}, 240_000)

it('eight services at once, each followed: nothing lost, nobody behind', async () => {
  const server = await launcher()()
  const done = await soak(server.base, 8, 8)
  expect(done).toMatchObject({ lost: 0, differences: 0 })
  expect(done.followMs).toHaveLength(done.events)
  await server.kill()
})
