/** Making links and taking them back: for the house's own screens. */
import type { Express } from 'express'
import type { Database } from '../db/connection.ts'
import { mount } from '../http/mount.ts'
import { addLink, takeBackLinks } from './links.ts'

export function linkRoutes(app: Express, db: Database, publicUrl: string | undefined): void {
  mount(app, 'addLink', async ({ params, response }) => {
    const { req } = response
    const base = publicUrl ?? `${req.protocol}://${req.get('host')}`
    response.status(201)
    return addLink(db, params.id, base)
  })
  mount(app, 'takeBackLinks', ({ params }) => takeBackLinks(db, params.id))
}
