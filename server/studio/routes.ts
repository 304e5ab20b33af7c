import type { Express } from 'express'
import type { Database } from '../db/connection.ts'
import { mount } from '../http/mount.ts'
import { clientHistory, studioHistory } from './history.ts'

export function studioRoutes(app: Express, db: Database): void {
  mount(app, 'history', ({ params }) => clientHistory(db, params.id))
  mount(app, 'studio', () => studioHistory(db))
}
