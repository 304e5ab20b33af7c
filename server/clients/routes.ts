import type { Express } from 'express'
import type { Client } from '../../contract/types.ts'
import type { ChairDesk } from '../chair/desk.ts'
import type { Database } from '../db/connection.ts'
import { mount } from '../http/mount.ts'
import { dropPhoto } from '../photos/store.ts'
import * as clients from './service.ts'

export function clientRoutes(app: Express, db: Database, desk: ChairDesk, dataDir: string): void {
  mount(app, 'clients', ({ query }) => clients.listClients(db, query))
  mount(app, 'addClient', async ({ body, response }) => {
    const client = await clients.addClient(db, body as Omit<Client, 'createdAtMs'>)
    response.status(201)
    return client
  })
  mount(app, 'client', ({ params }) => clients.clientPage(db, params.id))
  mount(app, 'changeClient', ({ params, body }) =>
    clients.changeClient(db, params.id, body as Partial<Client>),
  )
  mount(app, 'eraseClient', async ({ params, body }) => {
    const { confirmName } = body as { confirmName: string }
    const { photos } = await clients.eraseClient(db, params.id, confirmName)
    desk.forgetAll()
    await Promise.all(photos.map((id) => dropPhoto(dataDir, id)))
    return { erased: true as const }
  })
  mount(app, 'takeOutClient', async ({ params, response }) => {
    const out = await clients.takeOut(db, params.id)
    response.setHeader('Content-Disposition', 'attachment; filename="client.json"')
    return out
  })
}
