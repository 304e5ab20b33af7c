/** Signing in and out, and who works in the house. */
import { promisify } from 'node:util'
import type { Express, Request, Response } from 'express'
import type { People as PeoplePage } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { keepHouse } from '../house/service.ts'
import { mount } from '../http/mount.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { writeCard } from '../safety/folder.ts'
import { hashSecret, type Member, type People } from './people.ts'
import type { Who } from './who.ts'

const whoOf = (response: Response) => response.locals['who'] as Who

/** A new session in the place of the old one: nobody rides on a number known before. */
const signIn = async (request: Request, workerId: string) => {
  await promisify(request.session.regenerate.bind(request.session))()
  request.session.workerId = workerId
  await promisify(request.session.save.bind(request.session))()
}
const endSession = async ({ session }: Request) => {
  if (session) await promisify(session.destroy.bind(session))()
}

const refuse = (code: string, sentence: string) =>
  new HttpProblem(409, code, `${sentence} Nothing was changed.`)

export function peopleRoutes(app: Express, db: Database, people: People, dataDir: string): void {
  const as = (who: Who, member: Member): Who => ({
    ...who,
    asker: member.rank,
    workerId: member.id,
    worker: member.name,
    locked: false,
  })
  const page = async (): Promise<PeoplePage> => {
    people.forget()
    const [all, counts] = await Promise.all([people.all(), people.store().then((s) => s.counts())])
    return {
      people: all.map((m) => ({
        ...{ id: m.id, name: m.name, role: m.role, rank: m.rank, signsIn: m.secret !== null },
        ...{ gone: m.goneAtMs !== null, sessions: counts[m.id] ?? 0 },
      })),
    }
  }
  mount(app, 'session', ({ response }) => people.session(whoOf(response)))
  mount(app, 'signIn', async ({ body, response }) => {
    const who = whoOf(response)
    if (!who.letIn) throw new HttpProblem(403, 'not-paired', 'Pair this screen first.')
    const tried = { ...who, workerId: body.workerId, worker: await people.nameOf(body.workerId) }
    const told = (what: string, by: Who) =>
      people.trail.note({ who: by, use: 'people', what, clientId: null })
    const member = await people.compare(body.workerId, body.secret).catch((error: unknown) => {
      told('signInRefused', tried)
      throw error
    })
    await signIn(response.req, member.id)
    told('signIn', tried)
    return people.session(as(who, member))
  })
  mount(app, 'signOut', async ({ response }) => {
    const leaving = whoOf(response)
    if (leaving.workerId !== null)
      people.trail.note({ who: leaving, use: 'people', what: 'signOut', clientId: null })
    await endSession(response.req)
    return people.session({ ...whoOf(response), asker: 'nobody', workerId: null, locked: false })
  })
  mount(app, 'lockScreen', async ({ response }) => {
    const who = whoOf(response)
    const { session } = response.req
    if (session && who.workerId) {
      session.workerId = who.workerId
      session.locked = true
      await promisify(session.save.bind(session))()
      return people.session({ ...who, locked: true })
    }
    return people.session(who)
  })
  mount(app, 'signOutEverywhere', async ({ response }) => {
    const who = whoOf(response)
    if (who.workerId) await (await people.store()).endOf(who.workerId)
    await endSession(response.req)
    return people.session({ ...who, asker: 'nobody', workerId: null, locked: false })
  })
  mount(app, 'changeSecret', async ({ body, response }) => {
    const who = whoOf(response)
    const member = (await people.all()).find((m) => m.id === who.workerId)
    if (!member) throw refuse('nobody', 'Nobody is signed in.')
    if (member.secret !== null) await people.compare(member.id, body.before)
    const secret = await hashSecret(body.secret)
    await db.write(() => db.models.Worker.update({ secret }, { where: { id: member.id } }))
    people.forget()
    // Whoever knew the old ones is out.
    await (await people.store()).endOf(member.id)
    await signIn(response.req, member.id)
    return people.session(who)
  })
  mount(app, 'makeOwner', async ({ body, response }) => {
    if ((await people.mode()) !== 'first-run' && (await people.mode()) !== 'open') {
      throw refuse('begun', 'This house has its owner.')
    }
    if (!whoOf(response).letIn)
      throw new HttpProblem(403, 'not-paired', 'Begin at the machine itself.')
    const [first] = await people.all()
    if (!first) throw notFound('The first worker')
    const secret = body.secret === undefined ? null : await hashSecret(body.secret)
    await db.write(async () => {
      await db.models.Worker.update(
        { name: body.name, role: body.role || 'barber', hand: body.hand, rank: 'owner', secret },
        { where: { id: first.id } },
      )
      // Those who stood in until now worked on nobody.
      await db.sequelize.query(
        'DELETE FROM workers WHERE id <> ? AND secret IS NULL AND id NOT IN (SELECT workerId FROM visits)',
        { replacements: [first.id] },
      )
      await keepHouse(db, { name: body.house, workerId: first.id })
    })
    writeCard(dataDir, { begun: true })
    people.forget()
    if (secret !== null) {
      await people.store()
      await signIn(response.req, first.id)
    }
    const member = (await people.all()).find((m) => m.id === first.id)!
    return people.session(as(whoOf(response), member))
  })
  mount(app, 'people', page)
  mount(app, 'addWorker', async ({ body, response }) => {
    const secret = body.secret === undefined ? null : await hashSecret(body.secret)
    await db.write(async () => {
      const had = await db.models.Worker.findByPk(body.id)
      if (!had) await db.models.Worker.create({ ...body, secret })
    })
    response.status(201)
    return page()
  })
  mount(app, 'changeWorker', async ({ params, body }) => {
    const all = await people.all()
    const member = all.find((m) => m.id === params.id)
    if (!member) throw notFound('That worker')
    const owners = all.filter(
      (m) => m.rank === 'owner' && m.goneAtMs === null && m.id !== member.id,
    )
    const stays = body.gone !== true && (body.rank ?? member.rank) === 'owner'
    const signsIn = all.some((m) => m.secret !== null && m.goneAtMs === null)
    if (member.rank === 'owner' && !stays && owners.every((m) => signsIn && m.secret === null)) {
      throw refuse('last-owner', 'A house has at least one owner: make another one first.')
    }
    const secret =
      body.secret === undefined
        ? undefined
        : body.secret === null
          ? null
          : await hashSecret(body.secret)
    // Nobody is left who could let others in.
    const othersIn = owners.some((m) => m.secret !== null)
    if (
      secret === null &&
      member.rank === 'owner' &&
      !othersIn &&
      all.some((m) => m.id !== member.id && m.secret !== null)
    ) {
      throw refuse(
        'last-owner',
        'The last owner who signs in keeps their figures while others sign in.',
      )
    }
    await db.write(() =>
      db.models.Worker.update(
        {
          ...(body.rank !== undefined && { rank: body.rank }),
          ...(secret !== undefined && { secret }),
          ...(body.gone !== undefined && { goneAtMs: body.gone ? Date.now() : null }),
        },
        { where: { id: member.id } },
      ),
    )
    if (secret !== undefined || body.gone || body.signOut || body.rank)
      await (await people.store()).endOf(member.id)
    return page()
  })
  mount(app, 'trail', ({ query }) => people.trail.page(query))
}
