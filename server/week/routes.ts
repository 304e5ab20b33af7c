import type { Express } from 'express'
import { figuresOf } from '../../core/register/index.ts'
import type { Database } from '../db/connection.ts'
import { mount } from '../http/mount.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { dayOf } from './due.ts'
import { readHouse } from '../house/service.ts'
import { addAppointment, changeAppointment, removeAppointment } from './appointments.ts'
import { lengthOf } from './length.ts'
import { freshen } from '../standing/standing.ts'
import type { Work } from '../work/work.ts'
import { readWeek } from './week.ts'

const REMOVED = { removed: true } as const

export function weekRoutes(app: Express, db: Database, work: Work): void {
  mount(app, 'week', ({ query }) => readWeek(db, query.from, query.days))
  mount(app, 'appointmentLength', async ({ params, query }) => {
    const figures = figuresOf((await readHouse(db)).figures)
    const services = query.services.split(',')
    const of = { clientId: params.id, workerId: query.worker, services }
    return {
      ...(await lengthOf(db, figures, of)),
      ...(await dayOf(db, params.id, query.at ?? Date.now())),
    }
  })
  mount(app, 'propose', async ({ body, response }) => {
    const given = new AbortController()
    response.on('close', () => given.abort())
    await freshen(db)
    return work.run('propose', body, given.signal)
  })
  mount(app, 'addAppointment', ({ body }) => addAppointment(db, body))
  mount(app, 'changeAppointment', ({ params, body }) => changeAppointment(db, params.id, body))
  mount(app, 'removeAppointment', async ({ params }) => {
    await removeAppointment(db, params.id)
    return REMOVED
  })
  mount(app, 'addAway', async ({ body }) => {
    const house = await readHouse(db)
    if (body.workerId !== null && !house.workers.some((w) => w.id === body.workerId))
      throw new HttpProblem(
        422,
        'no-such-worker',
        'That worker is not of this house. Nothing was changed.',
      )
    await db.write(() => db.models.Away.bulkCreate([body], { ignoreDuplicates: true }))
    return REMOVED
  })
  mount(app, 'removeAway', async ({ params }) => {
    const gone = await db.write(() => db.models.Away.destroy({ where: { id: params.id } }))
    if (gone === 0) throw notFound('That time away')
    return REMOVED
  })
}
