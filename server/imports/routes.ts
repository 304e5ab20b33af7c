import type { Express } from 'express'
import type { Database } from '../db/connection.ts'
import { mount } from '../http/mount.ts'
import type { Work } from '../work/work.ts'
import { addImport, listImports, undoImport } from './service.ts'

export function importRoutes(app: Express, db: Database, work: Work): void {
  mount(app, 'imports', () => listImports(db))
  mount(app, 'addImport', async ({ response }) => {
    const text = response.req.body as string
    const record = await addImport(db, await work.run('broughtIn', { text }))
    response.status(201)
    return record
  })
  mount(app, 'undoImport', ({ params }) => undoImport(db, params.id))
}
