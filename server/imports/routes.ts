import type { Express } from 'express'
import type { Database } from '../db/connection.ts'
import { mount } from '../http/mount.ts'
import { addImport, listImports, undoImport } from './service.ts'

export function importRoutes(app: Express, db: Database): void {
  mount(app, 'imports', () => listImports(db))
  mount(app, 'addImport', async ({ body, response }) => {
    const record = await addImport(db, body)
    response.status(201)
    return record
  })
  mount(app, 'undoImport', ({ params }) => undoImport(db, params.id))
}
