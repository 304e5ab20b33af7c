/**
 * Screens of other machines: each is let in once, by a code that the owner reads out or shows as a picture, and keeps a
 * token of its own from then on. A screen on the wall only shows.
 */
import { randomBytes, randomInt, randomUUID } from 'node:crypto'
import type { Express } from 'express'
import { rateLimit } from 'express-rate-limit'
import QRCode from 'qrcode'
import { ADDRESSES } from '../../contract/addresses.ts'
import type { Screens } from '../../contract/types.ts'
import type { Config } from '../config.ts'
import type { Database } from '../db/connection.ts'
import { mount } from '../http/mount.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { digestOf, SCREEN_COOKIE, type People } from './people.ts'

const CODE_MS = 10 * 60_000
const SCREEN_MS = 366 * 86_400_000
/** Without signs that are read for each other. */
const SIGNS = '23456789ABCDEFGHJKMNPQRSTUVWXYZ'
const SIGNS_OF_A_CODE = 8
/** A code is gone after so many wrong ones, whoever typed them. */
const WRONG_CODES = 10

type Screen = Screens['screens'][number]

export function screenRoutes(app: Express, db: Database, people: People, config: Config): void {
  /** The one code that is open; only its digest is compared. */
  let pairing: { code: string; name: string; kind: 'tablet' | 'wall'; untilMs: number } | undefined
  let wrong = 0
  const page = async (): Promise<Screens> => {
    const screens = await db.select<Screen>(
      'SELECT id, name, kind, pairedAtMs, seenAtMs, takenBackAtMs FROM screens ORDER BY pairedAtMs DESC',
    )
    const lan = config.lan?.() ?? null
    const open = pairing && pairing.untilMs > Date.now() ? pairing : undefined
    const url = open && `${lan?.url ?? ''}/pair?code=${open.code}`
    return {
      lan,
      screens,
      pairing: open
        ? {
            code: open.code,
            name: open.name,
            untilMs: open.untilMs,
            url: url!,
            qr: await QRCode.toString(url!, { type: 'svg', margin: 1 }),
          }
        : null,
    }
  }
  mount(app, 'screens', page)
  mount(app, 'newPairing', async ({ body }) => {
    if (!config.lan) {
      throw new HttpProblem(
        409,
        'this-machine-only',
        'Slow Tide is reached from this machine only. Stop it and type "npm start -- --lan" to let other screens in.',
      )
    }
    if (!(await people.all()).some((m) => m.secret !== null && m.goneAtMs === null)) {
      throw new HttpProblem(
        409,
        'nobody-signs-in',
        'First give yourself figures at House, People: on other screens people sign in. Nothing was changed.',
      )
    }
    const code = Array.from({ length: SIGNS_OF_A_CODE }, () => SIGNS[randomInt(SIGNS.length)]).join(
      '',
    )
    pairing = { ...body, code, untilMs: Date.now() + CODE_MS }
    wrong = 0
    return page()
  })
  app.use(
    ADDRESSES.pairScreen.path,
    rateLimit({
      windowMs: 60_000,
      limit: 10,
      standardHeaders: true,
      legacyHeaders: false,
      validate: false,
    }),
  )
  mount(app, 'pairScreen', async ({ body, response }) => {
    const typed = body.code.toUpperCase().replace(/[^0-9A-Z]/g, '')
    const open = pairing && pairing.untilMs > Date.now() ? pairing : undefined
    if (!open || digestOf(typed) !== digestOf(open.code)) {
      if (open && ++wrong >= WRONG_CODES) pairing = undefined
      throw new HttpProblem(
        401,
        'wrong-code',
        'That code opens nothing. Ask for a new one: House, Screens.',
      )
    }
    pairing = undefined
    const token = randomBytes(32).toString('base64url')
    await db.write(() =>
      db.models.Screen.create({
        ...{ id: randomUUID(), name: open.name, kind: open.kind },
        ...{ digest: digestOf(token), pairedAtMs: Date.now() },
      }),
    )
    response.cookie(SCREEN_COOKIE, token, {
      ...{ httpOnly: true, sameSite: 'strict', secure: response.req.secure, path: '/' },
      maxAge: SCREEN_MS,
    })
    return { name: open.name, kind: open.kind }
  })
  mount(app, 'changeScreen', async ({ params }) => {
    const done = await db.write(() =>
      db.models.Screen.update(
        { takenBackAtMs: Date.now() },
        { where: { id: params.id, takenBackAtMs: null } },
      ),
    )
    if (done[0] === 0 && !(await db.models.Screen.findByPk(params.id)))
      throw notFound('That screen')
    people.forget()
    return page()
  })
  mount(app, 'wall', async () => ({
    running: await db.select<{ visitId: string; clientId: string; name: string; worker: string }>(
      `SELECT v.id AS visitId, v.clientId, COALESCE(NULLIF(c.calledName, ''), c.name) AS name, w.name AS worker
       FROM visits v JOIN clients c ON c.id = v.clientId JOIN workers w ON w.id = v.workerId
       WHERE v.state = 'running' ORDER BY v.startedAtMs DESC`,
    ),
  }))
}
