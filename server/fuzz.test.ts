/** Hostile requests to every route; short: `npm run fuzz` sends ten thousand. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { mulberry32 } from '../core/stats/index.ts'
import { fuzz } from './testing/fuzz.ts'
import { killAll, runBuilt } from './testing/process.ts'

const root = mkdtempSync(join(tmpdir(), 'slow-tide-fuzz-'))
afterAll(async () => {
  await killAll()
  rmSync(root, { recursive: true, force: true })
})

it('answers 500 hostile requests without one fault, and is there afterwards as before', async () => {
  const server = runBuilt(join(root, 'data'))
  const base = await server.serves
  const done = await fuzz(base, 500, mulberry32(4))
  expect(done.faults).toEqual([])
  // They do reach something: many are taken, many refused for what they hold.
  expect(done.statuses['200']).toBeGreaterThan(60)
  expect(done.statuses['422']).toBeGreaterThan(30)
  expect((await fetch(`${base}/api/today`)).status).toBe(200)
  await server.kill()
})
