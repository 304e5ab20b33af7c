import type { Express } from 'express'
import type { ChairDesk } from '../chair/desk.ts'
import type { Database } from '../db/connection.ts'
import type { Who } from '../people/who.ts'
import type { Trail } from '../people/trail.ts'
import { mount } from '../http/mount.ts'
import { clearTraces } from '../safety/traces.ts'
import * as clients from './service.ts'
import { seriesCalendar } from './series.ts'
import { addHomeWork, removeHomeWork } from './homeWork.ts'
import { earlierTide } from './tide.ts'
import { methodsFor } from './methods.ts'
import type { Work } from '../work/work.ts'
import { takeOut, takeOutCsv } from './takeOut.ts'

export function clientRoutes(
  app: Express,
  db: Database,
  desk: ChairDesk,
  dataDir: string,
  trail: Trail,
  work: Work,
): void {
  mount(app, 'clients', ({ query }) => clients.listClients(db, query))
  mount(app, 'knownClients', () => clients.knownClients(db))
  mount(app, 'addClient', async ({ body, response }) => {
    const client = await clients.addClient(db, body)
    response.status(201)
    return client
  })
  mount(app, 'client', ({ params, response }) => {
    const { asker } = response.locals['who'] as Who
    return clients.clientPage(db, params.id, asker === 'front-desk')
  })
  mount(app, 'tide', ({ params, query }) => earlierTide(db, params.id, query.back, query.work))
  mount(app, 'methods', ({ params, query }) =>
    methodsFor(db, params.id, query.zone, query.supposed),
  )
  mount(app, 'addHomeWork', ({ params, body }) => addHomeWork(db, params.id, body))
  mount(app, 'removeHomeWork', ({ params }) => removeHomeWork(db, params.id))
  mount(app, 'changeClient', ({ params, body }) => clients.changeClient(db, params.id, body))
  mount(app, 'eraseClient', async ({ params, body }) => {
    const { confirmName } = body
    await clients.eraseClient(db, params.id, confirmName)
    desk.forgetAll()
    await clearTraces(db, dataDir)
    return { erased: true as const }
  })
  mount(app, 'takeOutClient', async ({ params, response }) => {
    const out = await takeOut(db, params.id)
    response.setHeader('Content-Disposition', 'attachment; filename="client.json"')
    return out
  })
  mount(app, 'readingsCsv', async ({ params, response }) => {
    const out = await takeOutCsv(db, params.id)
    response
      .type('text/csv')
      .setHeader('Content-Disposition', 'attachment; filename="readings.csv"')
    response.send(out)
  })
  mount(app, 'seriesCalendar', async ({ params, query, response }) => {
    const out = await seriesCalendar(db, params.id, query.through)
    response
      .type('text/calendar')
      .setHeader('Content-Disposition', 'attachment; filename="visits.ics"')
    response.send(out)
  })
  mount(app, 'record', async ({ params, response }) => {
    const uses = await trail.ofClient(params.id)
    const out = Buffer.from(await work.run('record', { clientId: params.id, uses }))
    response
      .type('application/pdf')
      .setHeader('Content-Disposition', 'inline; filename="everything-kept.pdf"')
    response.send(out)
  })
  mount(app, 'report', async ({ params, response }) => {
    const out = Buffer.from(await work.run('report', { clientId: params.id }))
    response
      .type('application/pdf')
      .setHeader('Content-Disposition', 'inline; filename="report.pdf"')
    response.send(out)
  })
}
