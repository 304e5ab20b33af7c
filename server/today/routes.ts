import type { Express } from 'express'
import type { Database } from '../db/connection.ts'
import type { Caretaker } from '../safety/caretaker.ts'
import { baseOf } from '../answer/tokens.ts'
import type { Config } from '../config.ts'
import { sweepReminders } from '../week/reminders.ts'
import { mount } from '../http/mount.ts'
import { today } from './service.ts'

export function todayRoutes(
  app: Express,
  db: Database,
  caretaker: Caretaker,
  config: Pick<Config, 'publicUrl' | 'lan'>,
): void {
  mount(app, 'today', async ({ query, response }) => {
    await sweepReminders(db, baseOf(config, response))
    return today(db, caretaker.problem(Date.now()), query.from)
  })
}
