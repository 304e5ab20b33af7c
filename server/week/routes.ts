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
import { baseOf } from '../answer/tokens.ts'
import { findClient } from '../clients/service.ts'
import type { Config } from '../config.ts'
import { bringInBusy, removeBusy } from './busy.ts'
import { newFeed, takeBackFeed } from './feed.ts'
import { tellLate } from './late.ts'
import { bookTable, readLoad } from './load.ts'
import { addOffer, freeSlot, removeOffer } from './offers.ts'
import { addWaiting, keepHours, removeWaiting } from './waiting.ts'
import { readWeek } from './week.ts'
import { NO_HOURS, readHours } from './wish.ts'

const REMOVED = { removed: true } as const

export function weekRoutes(
  app: Express,
  db: Database,
  work: Work,
  config: Pick<Config, 'publicUrl' | 'lan'>,
): void {
  mount(app, 'week', ({ query, response }) =>
    readWeek(db, query.from, query.days, baseOf(config, response)),
  )
  mount(app, 'weekLoad', ({ query }) => readLoad(db, query.from, query.days))
  mount(app, 'weekCsv', async ({ query, response }) => {
    const text = await bookTable(db, query.from, query.days)
    response
      .type('text/csv')
      .setHeader('Content-Disposition', `attachment; filename="book-${query.from}.csv"`)
    response.send(text)
  })
  mount(app, 'hours', async ({ params }) => {
    await findClient(db, params.id)
    return (await readHours(db, [params.id])).get(params.id) ?? NO_HOURS
  })
  mount(app, 'saveHours', async ({ params, body }) => {
    await keepHours(db, params.id, body)
    return body
  })
  mount(app, 'addWaiting', async ({ body }) => {
    await addWaiting(db, body)
    return REMOVED
  })
  mount(app, 'removeWaiting', async ({ params }) => {
    await removeWaiting(db, params.id)
    return REMOVED
  })
  mount(app, 'freeSlot', async ({ query }) => {
    await freshen(db)
    return freeSlot(db, query.worker, query.at)
  })
  mount(app, 'addOffer', async ({ body, response }) => {
    await addOffer(db, body, baseOf(config, response))
    return REMOVED
  })
  mount(app, 'removeOffer', async ({ params }) => {
    await removeOffer(db, params.id)
    return REMOVED
  })
  mount(app, 'tellLate', async ({ response }) => ({
    told: await tellLate(db, baseOf(config, response)),
  }))
  mount(app, 'newFeed', async ({ params, response }) => {
    response.status(201)
    return { url: await newFeed(db, params.id, baseOf(config, response)) }
  })
  mount(app, 'takeBackFeed', async ({ params }) => {
    await takeBackFeed(db, params.id)
    return REMOVED
  })
  mount(app, 'bringInBusy', ({ body }) => bringInBusy(db, work, body))
  mount(app, 'removeBusy', async ({ params }) => {
    await removeBusy(db, params.id)
    return REMOVED
  })
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
  mount(app, 'addAppointment', ({ body, response }) =>
    addAppointment(db, body, { base: baseOf(config, response) }),
  )
  mount(app, 'changeAppointment', ({ params, body, response }) =>
    changeAppointment(db, params.id, body, { base: baseOf(config, response) }),
  )
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
