/**
 * A server that is really killed (SIGKILL) between and during events, with two screens following, loses no event that it had
 * acknowledged; and many services at once. Short: `npm run soak` does two hundred kills, and fifty services for five minutes.
 */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { mulberry32 } from '../core/stats/index.ts'
import { killRun, soak, type Launched } from './testing/overTheWire.ts'
import { killAll, runBuilt } from './testing/process.ts'

const KILLS = 3
const dirs: string[] = []
/** Starts the server as it is built, on the same data and port each time. */
function launcher(): () => Promise<Launched> {
  const dir = mkdtempSync(join(tmpdir(), 'slow-tide-kill-'))
  dirs.push(dir)
  let port = '0'
  return async () => {
    const run = runBuilt(join(dir, 'data'), [], { PORT: port })
    const base = await run.serves
    port = new URL(base).port
    return { base, kill: run.kill }
  }
}

afterAll(async () => {
  await killAll()
  for (const dir of dirs) rmSync(dir, { recursive: true, force: true })
})

it(`loses nothing over ${KILLS} kills, and server, worker and wall agree after each`, async () => {
  const done = await killRun(KILLS, launcher(), mulberry32(5))
  expect(done).toMatchObject({ kills: KILLS, lost: 0, differences: 0 })
  expect(done.acknowledged).toBeGreaterThan(KILLS)
}, 240_000)

it('five services at once, each followed: nothing lost, nobody behind', async () => {
  const server = await launcher()()
  const done = await soak(server.base, 5, 3)
  expect(done).toMatchObject({ lost: 0, differences: 0 })
  expect(done.followMs).toHaveLength(done.events)
  await server.kill()
})
