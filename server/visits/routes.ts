import type { Express } from 'express'
import { tellChair, type Chair } from '../chair/chair.ts'
import { changeClient } from '../clients/service.ts'
import type { Database } from '../db/connection.ts'
import { mount } from '../http/mount.ts'
import { HttpProblem } from '../http/problem.ts'
import type { Who } from '../people/who.ts'
import { decide, takeBackDecision } from './decisions.ts'
import { settle, type Writers } from './differences.ts'
import { visitPage } from './page.ts'
import * as followUp from './followUp.ts'
import * as visits from './service.ts'

export function visitRoutes(app: Express, db: Database, chair: Chair): void {
  /** A change of what the chair stands on: who follows is told. */
  const changed = async <T>(id: string, work: Promise<T>): Promise<T> => {
    const done = await work
    chair.desk.changed(id)
    return done
  }
  mount(app, 'addVisit', async ({ params, body, response }) => {
    const page = await visits.addVisit(db, params.id, body)
    response.status(201)
    return page
  })
  mount(app, 'visit', ({ params }) => visitPage(db, params.id))
  mount(app, 'changeVisit', ({ params, body }) =>
    changed(params.id, visits.changeVisit(db, params.id, body)),
  )
  mount(app, 'saveAsked', ({ params, body }) =>
    changed(params.id, visits.saveAsked(db, params.id, body)),
  )
  mount(app, 'editReadings', ({ params, body }) =>
    changed(params.id, visits.editReadings(db, params.id, body)),
  )
  mount(app, 'saveNotes', ({ params, body }) => visits.saveNotes(db, params.id, body))
  mount(app, 'savePlan', ({ params, body }) =>
    changed(params.id, visits.savePlan(db, params.id, body)),
  )
  mount(app, 'saveProducts', ({ params, body }) =>
    visits.saveProducts(db, params.id, body.products),
  )
  mount(app, 'saveSkinAnswer', async ({ params, body }) => {
    const { moment } = params
    const page = await followUp.saveSkinAnswer(db, params.id, { ...body, moment })
    // As it stands: put together with what another screen entered it may be graver than either.
    await tellChair(
      db,
      chair,
      page.clientId,
      page.answers.find((a) => a.moment === moment)!,
    )
    return page
  })
  mount(app, 'removeSkinAnswer', ({ params }) =>
    followUp.removeSkinAnswer(db, params.id, params.moment),
  )
  mount(app, 'addHairReading', ({ params, body }) => followUp.addHairReading(db, params.id, body))
  mount(app, 'decide', ({ params, body, response }) => {
    const { workerId } = response.locals['who'] as Who
    if (workerId !== null && workerId !== body.workerId) {
      throw new HttpProblem(
        403,
        'not-yours',
        'A word is given in one’s own name. Sign in as that worker. Nothing was kept.',
      )
    }
    return changed(params.id, decide(db, params.id, body))
  })
  mount(app, 'settle', async ({ params, body }) => {
    const writers: Writers = {
      changeClient: (clientId, change) => changeClient(db, clientId, change),
      saveAsked: (id, asked) => changed(id, visits.saveAsked(db, id, asked)),
      saveNotes: (id, notes) => visits.saveNotes(db, id, notes),
      saveSkinAnswer: (id, answer) => followUp.saveSkinAnswer(db, id, answer),
    }
    await settle(db, writers, params.id, body.take)
    return { removed: true as const }
  })
  mount(app, 'takeBackDecision', ({ params }) => takeBackDecision(db, params.id))
  mount(app, 'removeHairReading', ({ params }) => followUp.removeHairReading(db, params.id))
}
