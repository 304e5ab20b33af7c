/** The chair pressed hard: fifty services at once for five minutes, then two hundred kills. One JSON line a figure. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { mulberry32 } from '../core/stats/index.ts'
import { serve } from '../e2e/server.ts'
import { killsOfSteps } from '../server/testing/killsOfSteps.ts'
import { killRun, soak } from '../server/testing/overTheWire.ts'

type Figure = (name: string, value: number, unit: string) => void
const quantile = (list: readonly number[], q: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(q * list.length))]!

/** So many services at once for so many seconds, on a data folder of its own. */
export async function soakFigures(figure: Figure, services: number, seconds: number) {
  const served = await serve({ demo: false })
  const done = await soak(served.base, services, seconds)
  await served.kill()
  rmSync(served.dir, { recursive: true, force: true })
  const words = `ms, ${services} services for ${seconds} s`
  figure('chair.event.p50_ms', quantile(done.answerMs, 0.5), words)
  figure('chair.event.p99_ms', quantile(done.answerMs, 0.99), words)
  figure('chair.follow.p95_ms', quantile(done.followMs, 0.95), words)
  figure('chair.soak.events', done.events, 'events')
  figure('chair.soak.lost_events', done.lost, 'events')
  figure('chair.soak.differences', done.differences, 'services')
}

/** So many kills during services that two screens follow. */
export async function killFigures(figure: Figure, kills: number) {
  const dir = mkdtempSync(join(tmpdir(), 'slow-tide-kills-'))
  let port = '0'
  const done = await killRun(
    kills,
    async () => {
      const served = await serve({ demo: false, dir, port })
      port = new URL(served.base).port
      return served
    },
    mulberry32(11),
  )
  rmSync(dir, { recursive: true, force: true })
  figure('chair.kills', done.kills, 'kills')
  figure('chair.kills.acknowledged', done.acknowledged, 'events')
  figure('chair.kills.lost_events', done.lost, 'events')
  figure('chair.kills.differences', done.differences, 'places')
}

/** So many kills while twenty thousand visits take another shape. */
export async function stepFigures(figure: Figure, kills: number) {
  const done = await killsOfSteps(kills, 20_000, mulberry32(12))
  figure('steps.kills', done.kills, 'kills')
  figure('steps.kills_within', done.within, 'kills')
  figure('steps.lost', done.lost, 'folders')
  figure('steps.copies_too_many', done.copiesTooMany, 'backups')
}
