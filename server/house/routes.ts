import type { Express, Response } from 'express'
import { mayChangeHouse } from '../../contract/rights.ts'
import type { House } from '../../contract/types.ts'
import { HttpProblem } from '../http/problem.ts'
import type { Who } from '../people/who.ts'
import type { Database } from '../db/connection.ts'
import { mount } from '../http/mount.ts'
import { changeHouse, readHouse } from './service.ts'

/** Where people sign in, who works at this screen is whoever has. */
const as = (house: House, response: Response): House => {
  const { workerId } = response.locals['who'] as Who
  return workerId === null ? house : { ...house, workerId }
}

export function houseRoutes(app: Express, db: Database): void {
  mount(app, 'house', async ({ response }) => as(await readHouse(db), response))
  mount(app, 'changeHouse', async ({ body, response }) => {
    const { asker, worker } = response.locals['who'] as Who
    const part = Object.keys(body).find((key) => !mayChangeHouse(asker, key))
    if (part !== undefined) {
      throw new HttpProblem(
        403,
        'no-right',
        `${worker} may not change that of the house. Ask the owner. Nothing was changed.`,
      )
    }
    return as(await changeHouse(db, body), response)
  })
}
