/** Fills a data folder with many clients and visits, for measuring only: one real visit's data, copied. */
import { oneJob } from '../core/services/index.ts'
import { DEFAULTS } from '../core/house/index.ts'
import { executedLoads } from '../core/chair/outcome.ts'
import { leftStanding, play, replay } from '../core/chair/index.ts'
import { makePlan } from '../core/plan/index.ts'
import { RULES } from '../core/screening/index.ts'
import { mulberry32 } from '../core/stats/index.ts'
import { DAY_MS, HOUR_MS } from '../core/time/index.ts'
import { planInput } from '../core/testing/plan.ts'
import { randomUUID } from 'node:crypto'
import type { Database } from '../server/db/connection.ts'
import { packPlan } from '../server/visits/planStore.ts'
import { ensureWorkers } from '../server/house/service.ts'
import { SKIN } from '../core/testing/client.ts'

export interface Filled {
  readonly clientIds: string[]
  /** A finished visit of each client. */
  readonly visitIds: string[]
}

/** @param visits finished visits in all, spread evenly over the clients */
export async function fill(db: Database, clients: number, visits: number): Promise<Filled> {
  await ensureWorkers(db)
  const worker = (await db.models.Worker.findOne())!
  const random = mulberry32(9)
  const now = Date.now()
  const asked = { answers: Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])), spots: [] }
  const plan = makePlan(planInput())
  const packed = packPlan(plan)
  const events = play(DEFAULTS, plan, {
    startMs: now,
    bladeLife: 400,
    screen: '',
    newId: randomUUID,
  })
  const state = replay(plan, events)
  const loads = executedLoads(plan, state.outcomes)
  const leftMm = leftStanding(DEFAULTS, plan, state)
  const out: Filled = { clientIds: [], visitIds: [] }
  const each = Math.round(visits / clients)
  for (let c = 0; c < clients; c++) {
    const clientId = randomUUID()
    out.clientIds.push(clientId)
    const rows: object[] = []
    const plans: object[] = []
    const answers: {
      visitId: string
      moment: string
      atMs: number
      zones: { zoneId: string; redness: number; bumps: number }[]
    }[] = []
    for (let v = 0; v < each; v++) {
      const id = randomUUID()
      const endedAtMs = Math.round(now - (each - v) * 5 * DAY_MS * (0.9 + 0.2 * random()))
      rows.push({
        id,
        clientId,
        workerId: worker.id,
        jobs: [{ ...oneJob(id, 'face-shave'), loads, leftMm }],
        state: 'finished',
        slotAtMs: endedAtMs - HOUR_MS,
        createdAtMs: endedAtMs - HOUR_MS,
        startedAtMs: endedAtMs - HOUR_MS / 2,
        endedAtMs,
        routine: '',
        asked,
        worstRedness: 1,
        bumps: 0,
      })
      plans.push({ visitId: id, plan: packed, madeAtMs: endedAtMs })
      answers.push({
        visitId: id,
        moment: '24h',
        atMs: endedAtMs + DAY_MS,
        zones: [{ zoneId: 'chin', redness: 1, bumps: 0 }],
      })
      if (v === each - 1) out.visitIds.push(id)
    }
    await db.write(async () => {
      await db.models.Client.create({
        id: clientId,
        name: `Client ${c}`,
        calledName: '',
        pronouns: '',
        occupation: 'harbour hand',
        service: 'face-shave',
        skin: SKIN,
        createdAtMs: now,
      })
      await db.models.Visit.bulkCreate(rows as never[])
      await db.models.Plan.bulkCreate(plans as never[])
      await db.models.SkinAnswer.bulkCreate(answers)
    })
  }
  return out
}
