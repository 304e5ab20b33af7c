import type { Express } from 'express'
import type { Database } from '../db/connection.ts'
import { mount } from '../http/mount.ts'
import { changeHouse, readHouse } from './service.ts'

export function houseRoutes(app: Express, db: Database): void {
  mount(app, 'house', () => readHouse(db))
  mount(app, 'changeHouse', ({ body }) => changeHouse(db, body))
}
