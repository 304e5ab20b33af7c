/** A server on a real SQLite file in its own folder, for tests. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import type { Express } from 'express'
import pino from 'pino'
import request from 'supertest'
import { RULES } from '../../core/screening/rules.ts'
import type { ChairEvent, ChairEventKind } from '../../core/chair/service.ts'
import type { Client, House, VisitPage } from '../../contract/types.ts'
import { createApp } from '../app.ts'
import { openDatabase, type Database } from '../db/connection.ts'
import { ensureWorkers } from '../house/service.ts'

export interface Studio {
  readonly app: Express
  readonly db: Database
  readonly dir: string
  readonly close: () => Promise<void>
}

export async function openStudio(): Promise<Studio> {
  const dir = mkdtempSync(join(tmpdir(), 'slow-tide-'))
  const db = await openDatabase(dir)
  await ensureWorkers(db)
  const config = {
    host: '127.0.0.1',
    port: 0,
    dataDir: dir,
    version: 'test',
    webDir: undefined,
    logLevel: 'silent',
  }
  return {
    app: createApp(db, config, pino({ level: 'silent' })),
    db,
    dir,
    close: async () => {
      await db.close()
      rmSync(dir, { recursive: true, force: true })
    },
  }
}

export const NO_TO_ALL = Object.fromEntries(RULES.map((r) => [r.id, { yes: false }]))

export const newClient = (over: Partial<Client> = {}) => ({
  id: randomUUID(),
  name: 'Ada Reef',
  calledName: '',
  pronouns: '',
  occupation: 'rigger',
  service: 'face-shave',
  skin: {
    reactivity: 'average',
    faceHair: 'beard',
    coarseness: 'medium',
    curl: 'straight',
    bumpProne: false,
  },
  ...over,
})

/** A client with an open visit, asked and planned. */
export async function plannedVisit(
  app: Express,
  service = 'face-shave',
): Promise<{ client: Client; visit: VisitPage }> {
  const house = (await request(app).get('/api/house')).body as House
  const client = (
    await request(app)
      .post('/api/clients')
      .send(newClient({ service: service as never }))
      .expect(201)
  ).body as Client
  const id = randomUUID()
  await request(app)
    .post(`/api/clients/${client.id}/visits`)
    .send({ id, service, workerId: house.workerId, slotAtMs: null })
    .expect(201)
  await request(app)
    .put(`/api/visits/${id}/asked`)
    .send({ answers: NO_TO_ALL, spots: [] })
    .expect(200)
  const visit = (await request(app).put(`/api/visits/${id}/plan`).expect(200)).body as VisitPage
  return { client, visit }
}

export const chairEvent = (
  seq: number,
  kind: ChairEventKind,
  stepId?: string,
  atMs = Date.now(),
): ChairEvent => ({
  id: randomUUID(),
  seq,
  kind,
  atMs,
  ...(stepId !== undefined && { stepId }),
})

/** All events of a service that goes by its plan. */
export function wholeService(visit: VisitPage, startMs: number): ChairEvent[] {
  const steps = visit.plan!.steps
  return [
    chairEvent(1, 'started', undefined, startMs),
    ...steps.map((s, i) => chairEvent(i + 2, 'done', s.id, startMs + (i + 1) * 60_000)),
    chairEvent(steps.length + 2, 'finished', undefined, startMs + (steps.length + 1) * 60_000),
  ]
}

export async function finishVisit(app: Express, visit: VisitPage, startMs: number): Promise<void> {
  for (const e of wholeService(visit, startMs))
    await request(app).post(`/api/visits/${visit.id}/events`).send(e).expect(200)
}
