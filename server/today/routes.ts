import type { Express } from 'express'
import type { Database } from '../db/connection.ts'
import type { Caretaker } from '../safety/caretaker.ts'
import { mount } from '../http/mount.ts'
import { today } from './service.ts'

export function todayRoutes(app: Express, db: Database, caretaker: Caretaker): void {
  mount(app, 'today', ({ query }) => today(db, caretaker.problem(Date.now()), query.from))
}
