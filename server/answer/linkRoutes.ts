/** Making links and taking them back: for the house's own screens. */
import type { Express } from 'express'
import type { Database } from '../db/connection.ts'
import type { Config } from '../config.ts'
import { mount } from '../http/mount.ts'
import { addLink, takeBackLinks } from './links.ts'
import { baseOf } from './tokens.ts'

export function linkRoutes(app: Express, db: Database, config: Config): void {
  mount(app, 'addLink', async ({ params, response }) => {
    response.status(201)
    return addLink(db, params.id, baseOf(config, response))
  })
  mount(app, 'takeBackLinks', ({ params }) => takeBackLinks(db, params.id))
}
