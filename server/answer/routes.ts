/** The link page's routes. They stand alone: a second port may serve them and nothing else. */
import { jobsWords, type ServiceId, serviceZones, zonesOfJobs } from '../../core/services/index.ts'
import { homeWords } from '../../core/history/index.ts'
import type { ZoneId } from '../../core/zones/index.ts'
import { keepHome } from '../clients/homeWork.ts'
import { readHome } from '../clients/readHome.ts'
import { HttpProblem } from '../http/problem.ts'
import { sendPage } from '../http/headers.ts'
import { dateWords, addDays, dateOf, HOUR_MS, offsetHere } from '../../core/time/index.ts'
import { figuresOf } from '../../core/register/index.ts'
import {
  areasWorked,
  zonesOfArea,
  momentAfter,
  momentAt,
  momentHours,
  momentsAhead,
  answerByZone,
  type ClientAnswer,
  type HairKindTold,
  hairToldOf,
  severeSigns,
  type SkinAnswer,
} from '../../core/looks/index.ts'
import { zonesToLookAt } from '../../core/chair/index.ts'
import { clientAnswerSchema, homeFormSchema } from '../../contract/followUp.ts'
import type { Database } from '../db/connection.ts'
import { tellChair, type Chair } from '../chair/chair.ts'
import { readFigures, readHouse } from '../house/service.ts'
import { keepAnswer, keepHair } from '../visits/followUp.ts'
import { readVisit, type VisitRecord } from '../visits/record.ts'
import { hostile } from '../../contract/keys.ts'
import { ownKinds, ownPages } from '../http/door.ts'
import { visitOfToken } from './links.ts'
import type { Config } from '../config.ts'
import { hourRoutes, hourPartOf } from './hourRoutes.ts'
import { baseOf, digestOf } from './tokens.ts'
import {
  closedPage,
  type HomeForm,
  homeThanksPage,
  questionsPage,
  thanksPage,
  tooMuchPage,
} from './page.ts'
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { randomUUID } from 'node:crypto'
import express, { Router, type ErrorRequestHandler } from 'express'
import { rateLimit } from 'express-rate-limit'
import { type Schema, ValidationError } from 'yup'

/** Tries of one address in a minute: plenty for a person, few for a guesser of 256 bits. */
const TRIES_A_MINUTE = 60
/** The six answers need less than two; a form is never longer. */
/** Of one link, from all addresses together. */
const TRIES_OF_A_LINK = 30
const MOST_BYTES = '12kb'

const face = () =>
  readFileSync(
    createRequire(import.meta.url).resolve(
      '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2',
    ),
  )

/** A form as it is sent. */
type Form = Record<string, unknown> | undefined

/** What a form goes through before it is read. */
const FORM = [
  ownPages,
  ownKinds(() => 'application/x-www-form-urlencoded'),
  express.urlencoded({ extended: false, limit: MOST_BYTES, parameterLimit: 60 }),
] as const

/**
 * What a form tells.
 * @throws ValidationError in words for whoever filled it in
 */
async function given<T>(schema: Schema<T>, body: Form): Promise<T> {
  refuseOdd(body)
  return schema.validate(body ?? {}, { abortEarly: false, stripUnknown: false })
}

/**
 * @param config where clients find such pages; left out where no message is written from here
 */
export function answerRoutes(
  db: Database,
  chair: Chair,
  config: Pick<Config, 'publicUrl' | 'lan'> = {},
  triesAMinute = TRIES_A_MINUTE,
): Router {
  const router = Router()
  let font: Buffer | undefined
  router.get('/answer-face.woff2', (_request, response) => {
    response.type('font/woff2').setHeader('Cache-Control', 'public, max-age=31536000, immutable')
    response.send((font ??= face()))
  })
  const pages = ['/answer', '/hour']
  const onePage = ['/answer/:token', '/hour/:token']
  router.use(
    pages,
    rateLimit({
      windowMs: 60_000,
      limit: triesAMinute,
      standardHeaders: true,
      legacyHeaders: false,
      handler: (_request, response) => void sendPage(response.status(429), tooMuchPage()),
    }),
    (_request, response, next) => {
      response.setHeader('Cache-Control', 'no-store')
      response.type('html')
      next()
    },
  )
  // From whatever address: one link is asked a few times, not hundreds.
  router.use(
    onePage,
    rateLimit({
      windowMs: 60_000,
      limit: TRIES_OF_A_LINK,
      standardHeaders: false,
      legacyHeaders: false,
      validate: false,
      keyGenerator: (request) => digestOf(String(request.params.token)),
      handler: (_request, response) => void sendPage(response.status(429), tooMuchPage()),
    }),
  )
  router.get('/answer/:token', async (request, response) => {
    const visit = await visitOfToken(db, request.params.token)
    if (!visit) return sendPage(response.status(404), closedPage())
    sendPage(response, await askOrThank(db, visit, request.params.token))
  })
  router.post<'/answer/:token', { token: string }, string, Form>(
    '/answer/:token',
    ...FORM,
    async (request, response) => {
      const visit = await visitOfToken(db, request.params.token)
      if (!visit) return sendPage(response.status(404), closedPage())
      let told: ClientAnswer
      try {
        told = await given(clientAnswerSchema, request.body)
      } catch (error) {
        if (!(error instanceof ValidationError)) throw error
        const problem = `Not sent yet: ${error.errors[0]}`
        return sendPage(
          response.status(422),
          await askOrThank(db, visit, request.params.token, {
            problem,
            ...(request.body && { given: request.body }),
          }),
        )
      }
      const kept = await keep(db, visit.id, told)
      if (kept) await tellChair(db, chair, visit.clientId, kept)
      const now = (await visitOfToken(db, request.params.token)) ?? visit
      sendPage(
        response.status(kept ? 200 : 409),
        await thanks(db, now, kept === undefined, request.params.token),
      )
    },
  )
  router.post<'/answer/:token/home', { token: string }, string, Form>(
    '/answer/:token/home',
    ...FORM,
    async (request, response) => {
      const visit = await visitOfToken(db, request.params.token)
      if (!visit) return sendPage(response.status(404), closedPage())
      try {
        const told = await given(homeFormSchema, request.body)
        const worked = await workedAtHome(db, visit)
        const zones = told.areas.flatMap((a) => zonesOfArea(a, worked)) as ZoneId[]
        const { date, tool, fresh, dull } = told
        await db.write(() =>
          keepHome(
            db,
            visit.clientId,
            { id: randomUUID(), date, tool, fresh, dull, zones },
            'client',
          ),
        )
      } catch (error) {
        const why =
          error instanceof ValidationError
            ? error.errors[0]
            : error instanceof HttpProblem
              ? error.message
              : undefined
        if (why === undefined) throw error
        return sendPage(
          response.status(422),
          await askOrThank(db, visit, request.params.token, {
            homeProblem: `Not sent yet: ${why}`,
          }),
        )
      }
      const { name } = await readHouse(db)
      sendPage(response, homeThanksPage(name))
    },
  )
  hourRoutes(router, db, { form: FORM, baseFor: (response) => baseOf(config, response) })
  const tooLarge: ErrorRequestHandler = (error, _request, response, next) => {
    const { status } = error as { status?: number }
    if (!status || status < 400 || status >= 500) return next(error)
    sendPage(response.status(status), tooMuchPage())
  }
  router.use(pages, tooLarge)
  return router
}

/** A form has each field once; only the places on the skin may be several. */
function refuseOdd(body: unknown): void {
  const odd =
    hostile(body)?.path ??
    Object.entries(body ?? {}).find(([key, v]) => key !== 'areas' && typeof v !== 'string')?.[0]
  if (odd !== undefined)
    throw new ValidationError('the form was changed on its way. Fill it in again.')
}

async function askOrThank(
  db: Database,
  visit: VisitRecord,
  token: string,
  tried: {
    readonly problem?: string
    readonly given?: Record<string, unknown>
    readonly homeProblem?: string
  } = {},
): Promise<string> {
  const { problem, given, homeProblem } = tried
  const house = await readHouse(db)
  const figures = figuresOf(house.figures)
  const moment = momentAt(figures, visit.endedAtMs!, Date.now())
  if (visit.answers.some((a) => a.moment === moment && a.source === 'client')) {
    return thanks(db, visit, true, token, homeProblem)
  }
  const [client] = await db.select('SELECT name, calledName FROM clients WHERE id = ?', [
    visit.clientId,
  ])
  return questionsPage({
    house: house.name,
    // The first name is enough for a page that anybody holding the phone may see.
    name: String(client!['calledName'] || String(client!['name']).split(' ')[0]),
    what: jobsWords(visit.jobs),
    worked: zonesToLookAt(visit.plan, visit.loads, visit.atChair),
    when: momentAfter(moment),
    ...(problem !== undefined && { problem }),
    ...(given && { given }),
    home: await homeFormOf(db, visit, token, homeProblem),
    hour: await hourPartOf(db, visit.clientId, `/answer/${token}/hour`),
  })
}

/** Zones that a client may tell of: those of all that they come for. */
async function workedAtHome(db: Database, visit: VisitRecord): Promise<string[]> {
  const [client] = await db.select<{ service: ServiceId }>(
    'SELECT service FROM clients WHERE id = ?',
    [visit.clientId],
  )
  return [
    ...new Set<string>([
      ...zonesOfJobs(visit.jobs),
      ...serviceZones(client!.service),
      ...zonesToLookAt(visit.plan, visit.loads, visit.atChair),
    ]),
  ]
}

async function homeFormOf(
  db: Database,
  visit: VisitRecord,
  token: string,
  problem?: string,
): Promise<HomeForm> {
  const worked = await workedAtHome(db, visit)
  const [last] = await readHome(db, visit.clientId)
  const nowMs = Date.now()
  return {
    action: `/answer/${token}/home`,
    today: dateOf(nowMs, offsetHere(nowMs)),
    worked,
    ...(last && {
      last: { areas: areasWorked(last.zones), tool: last.tool, words: homeWords(last) },
    }),
    ...(problem !== undefined && { problem }),
  }
}

/** Thanks; what to do now when it is severe; and only such moments as still come. */
async function thanks(
  db: Database,
  visit: VisitRecord,
  again: boolean,
  token: string,
  homeProblem?: string,
): Promise<string> {
  const { name, figures: changed } = await readHouse(db)
  const figures = figuresOf(changed)
  const nowMs = Date.now()
  const moment = momentAt(figures, visit.endedAtMs!, nowMs)
  const stands = visit.answers.find((a) => a.moment === moment)
  const closesMs = visit.linkUntilMs ?? nowMs
  return thanksPage({
    house: name,
    again,
    severe: stands !== undefined && severeSigns(figures, stands).length > 0,
    ahead: momentsAhead(figures, visit.endedAtMs!, nowMs, closesMs).map(
      (m) => `on ${dateWords(visit.endedAtMs! + momentHours(figures, m) * HOUR_MS)}`,
    ),
    home: await homeFormOf(db, visit, token, homeProblem),
    hour: await hourPartOf(db, visit.clientId, `/answer/${token}/hour`),
  })
}

/** Keeps an answer for the moment that has come; none when that moment has one already: what is there stays. */
async function keep(
  db: Database,
  visitId: string,
  told: ClientAnswer,
): Promise<SkinAnswer | undefined> {
  return db.write(async () => {
    const visit = await readVisit(db, visitId)
    const atMs = Date.now()
    const figures = await readFigures(db)
    const moment = momentAt(figures, visit.endedAtMs!, atMs)
    if (visit.answers.some((a) => a.moment === moment)) return undefined
    const { zones, feeling } = answerByZone(
      told,
      zonesToLookAt(visit.plan, visit.loads, visit.atChair),
    )
    const answer = { moment, atMs, zones, spots: [], feeling, source: 'client' } as const
    await keepAnswer(db, visit, answer)
    const today = dateOf(atMs, offsetHere(atMs))
    for (const { kind, daysAgo } of hairToldOf(told)) {
      const date = addDays(today, -daysAgo)
      const after = Date.parse(`${date}T12:00:00`) > visit.endedAtMs!
      // Told of no zone in particular: of where hair shows first. Only the first telling of each counts; "not yet" may come again.
      if (after && !(await hairKnown(db, visitId, kind, date))) {
        await keepHair(db, visit, { id: randomUUID(), kind, date, zoneId: null })
      }
    }
    return answer
  })
}

/** Whether a visit has it already: hair is felt for the first time once, and not yet on many days. */
const hairKnown = async (db: Database, visitId: string, kind: HairKindTold, date: string) =>
  (
    await db.select(
      `SELECT 1 FROM hair_readings WHERE visitId = ? AND kind = ? AND (kind NOT LIKE 'not-%' OR atMs = ?) LIMIT 1`,
      [visitId, kind, Date.parse(`${date}T12:00:00`)],
    )
  ).length > 0
