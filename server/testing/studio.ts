/** A server on a real SQLite file in its own folder, for tests. */
import { oneJob, type ServiceId } from '../../core/services/index.ts'
import { DEFAULTS } from '../../core/house/index.ts'
import { consentText, RULES, type Asked } from '../../core/screening/index.ts'
import { readingsOf } from '../../core/testing/readings.ts'
import { play, type ChairDetail, type ToldEvent } from '../../core/chair/index.ts'
import type { ChairEventKind } from '../../core/chair/kinds.ts'
import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import type { Express } from 'express'
import pino from 'pino'
import request from 'supertest'
import type { Client, House, VisitPage } from '../../contract/types.ts'
import { createApp } from '../app.ts'
import type { Chair } from '../chair/chair.ts'
import type { Config } from '../config.ts'
import { openDatabase, type Database } from '../db/connection.ts'
import { People } from '../people/people.ts'
import { ensureWorkers } from '../house/service.ts'
import { SKIN } from '../../core/testing/client.ts'

export interface Studio {
  readonly app: Express
  readonly db: Database
  readonly dir: string
  readonly config: Config
  readonly people: People
  readonly close: () => Promise<void>
}

/** @param from a data folder to begin with; it stays as it is */
export async function openStudio(from?: string): Promise<Studio> {
  const root = mkdtempSync(join(tmpdir(), 'slow-tide-'))
  // Backups lie beside it.
  const dir = join(root, 'data')
  if (from) cpSync(from, dir, { recursive: true })
  const db = await openDatabase(dir)
  // What survives a failing machine is tested with machines that fail; here each write need not wait for the disk.
  await db.sequelize.query('PRAGMA synchronous=OFF')
  await ensureWorkers(db)
  const config: Config = {
    host: '127.0.0.1',
    port: 0,
    dataDir: dir,
    version: 'test',
    webDir: undefined,
    logLevel: 'silent',
    answerHost: '127.0.0.1',
    hosts: [],
    lanPort: 0,
    trustPort: 0,
  }
  const people = new People(db, config)
  const app = createApp(db, config, pino({ level: 'silent' }), { people })
  // What the contract says of an answer holds of every answer that any test is given.
  app.enable('check answers')
  return {
    app,
    db,
    dir,
    config,
    people,
    close: async () => {
      await people.close()
      await db.close()
      rmSync(root, { recursive: true, force: true })
    },
  }
}

export const NO_TO_ALL = Object.fromEntries(RULES.map((r) => [r.id, { yes: false }]))

/** All asked, nothing found, and signed. */
export const askedAll = (service: ServiceId = 'face-shave'): Asked => ({
  answers: NO_TO_ALL,
  spots: [],
  consent: {
    text: consentText([oneJob('', service)]),
    name: 'Ada Reef',
    asGuardian: false,
    signedAtMs: Date.now() - 60_000,
    path: 'M10.0 60.0L60.0 40.0L120.0 60.0',
  },
})

/** A map of every zone of a service, as an edit. */
export const mapOf = (service: ServiceId = 'face-shave') => ({
  remove: [],
  add: readingsOf(service, Date.now() - 60_000, randomUUID),
})

export const newClient = (over: Partial<Client> = {}) => ({
  id: randomUUID(),
  name: 'Ada Reef',
  calledName: '',
  pronouns: '',
  occupation: 'rigger',
  service: 'face-shave',
  skin: SKIN,
  ...over,
})

/**
 * A client with an open visit, asked, read and planned.
 * @param read false leaves the map to the guesses
 */
export async function plannedVisit(
  app: Express,
  service = 'face-shave',
  read = true,
  choice: object = {},
  over: Partial<Client> = {},
): Promise<{ client: Client; visit: VisitPage }> {
  const house = (await request(app).get('/api/house')).body as House
  const client = (
    await request(app)
      .post('/api/clients')
      .send(newClient({ service: service as never, ...over }))
      .expect(201)
  ).body as Client
  const id = randomUUID()
  await request(app)
    .post(`/api/clients/${client.id}/visits`)
    .send({
      id,
      jobs: [oneJob(randomUUID(), service as ServiceId)],
      workerId: house.workerId,
      slotAtMs: null,
    })
    .expect(201)
  const kind = service as ServiceId
  await request(app).put(`/api/visits/${id}/asked`).send(askedAll(kind)).expect(200)
  if (read) await request(app).post(`/api/visits/${id}/readings`).send(mapOf(kind)).expect(200)
  const visit = (await request(app).put(`/api/visits/${id}/plan`).send(choice).expect(200))
    .body as VisitPage
  return { client, visit }
}

const SCREEN = '11111111-1111-4111-8111-111111111111'

/** An event as a screen tells it; of one screen unless another is named. */
export const chairEvent = (
  n: number,
  kind: ChairEventKind,
  stepId?: string,
  atMs = Date.now(),
  more: Partial<ToldEvent> = {},
): ToldEvent => ({
  id: randomUUID(),
  screen: SCREEN,
  n,
  kind,
  atMs,
  ...(stepId !== undefined && { stepId }),
  // Tests have many services of one worker under way at once.
  ...(kind === 'started' && { detail: { beside: true } }),
  ...more,
})

/** All events of a service that goes by its plan, as the screen tells them. */
export function wholeService(visit: VisitPage, startMs: number): ToldEvent[] {
  const events = play(DEFAULTS, visit.plan!, {
    startMs,
    bladeLife: 400,
    screen: SCREEN,
    newId: randomUUID,
  })
  return events.map(({ seq: _seq, ...event }) =>
    event.kind === 'started' ? { ...event, detail: { beside: true } } : event,
  )
}

/**
 * Goes through the whole service beside the screens, in one write: tests that begin after it need not wait for each tap.
 * @param stretch how much longer than planned all of it takes
 */
export async function finishVisit(
  app: Express,
  visit: VisitPage,
  startMs: number,
  stretch = 1,
  patches: NonNullable<ChairDetail['patches']> = [],
): Promise<void> {
  const { writer } = app.get('chair') as Chair
  const at = (ms: number) => Math.round(startMs + stretch * (ms - startMs))
  const all = wholeService(visit, startMs).flatMap((e): ToldEvent[] => {
    if (e.stepId !== 'check' || patches.length === 0) return [e]
    const left = { kind: 'patches-left' as const, detail: { patches } }
    return [{ ...e, ...left, id: randomUUID(), screen: randomUUID(), n: 1 }, e]
  })
  await Promise.all(all.map((e) => writer.add(visit.id, { ...e, atMs: at(e.atMs) })))
}
