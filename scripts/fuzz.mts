/** `npm run fuzz [requests] [seed]`: hostile requests to every route of the built server; none may be a fault, and memory stays bounded. */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { mulberry32 } from '../core/stats/index.ts'
import { fuzz } from '../server/testing/fuzz.ts'
import { runBuilt } from '../server/testing/process.ts'

const [requests = 10_000, seed = Date.now() % 100_000] = process.argv.slice(2).map(Number)
const MOST_GROWTH_MB = 200
const root = mkdtempSync(join(tmpdir(), 'slow-tide-fuzz-'))
const server = runBuilt(join(root, 'data'))
const base = await server.serves
const residentMb = () => {
  const { pid } = JSON.parse(readFileSync(join(root, 'data', 'server.json'), 'utf8')) as {
    pid: number
  }
  return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024
}
await fuzz(base, 500, mulberry32(seed + 1))
const before = residentMb()
const done = await fuzz(base, requests, mulberry32(seed))
const grown = residentMb() - before
await server.kill()
rmSync(root, { recursive: true, force: true })
const figure = (name: string, value: number, unit: string) =>
  console.log(JSON.stringify({ name, value, unit }))
figure('fuzz.requests', done.sent, `requests, seed ${seed}`)
for (const [status, n] of Object.entries(done.statuses))
  figure(`fuzz.status.${status}`, n, 'answers')
figure('fuzz.faults', done.faults.length, 'answers')
figure('fuzz.memory_growth', Math.round(grown), 'MB')
for (const fault of done.faults.slice(0, 30)) console.error(fault)
process.exit(done.faults.length > 0 || grown > MOST_GROWTH_MB ? 1 : 0)
