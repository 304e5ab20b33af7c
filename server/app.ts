/** The web application: security, limits, log, routes, files. */
import compression from 'compression'
import { constants } from 'node:zlib'
import express, { type Express } from 'express'
import type { Logger } from 'pino'
import { linkRoutes } from './answer/linkRoutes.ts'
import { closedPage } from './answer/page.ts'
import { answerRoutes } from './answer/routes.ts'
import { openChair, type Chair } from './chair/chair.ts'
import { chairRoutes } from './chair/routes.ts'
import { careRoutes } from './care/routes.ts'
import { clientRoutes } from './clients/routes.ts'
import type { Config } from './config.ts'
import type { Database } from './db/connection.ts'
import { HEADERS, sendPage } from './http/headers.ts'
import { ownHosts, ownKinds, ownPages } from './http/door.ts'
import { httpLog } from './http/log.ts'
import { mount } from './http/mount.ts'
import { answerProblem, unknownRoute } from './http/problem.ts'
import { serveWeb } from './http/static.ts'
import { importRoutes } from './imports/routes.ts'
import { Caretaker } from './safety/caretaker.ts'
import { safetyRoutes } from './safety/routes.ts'
import { toolsHere } from './safety/tools.ts'
import { studioRoutes } from './studio/routes.ts'
import { houseRoutes } from './house/routes.ts'
import { People } from './people/people.ts'
import { peopleRoutes } from './people/routes.ts'
import { screenRoutes } from './people/screens.ts'
import { photoRoutes } from './photos/routes.ts'
import { todayRoutes } from './today/routes.ts'
import { feedRoutes } from './week/feed.ts'
import { weekRoutes } from './week/routes.ts'
import { visitRoutes } from './visits/routes.ts'
import { workHere, type Work } from './work/work.ts'

/** The link pages alone, for a port of their own that may be reached from outside the house. */
export function createAnswerApp(
  db: Database,
  config: Pick<Config, 'hosts' | 'trustProxy' | 'publicUrl' | 'lan'>,
  logger: Logger,
  chair: Chair,
): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use(HEADERS())
  app.use(httpLog(logger))
  if (config.trustProxy !== undefined) app.set('trust proxy', config.trustProxy)
  app.use(ownHosts({ hosts: config.hosts, addresses: true }))
  app.use(answerRoutes(db, chair, config))
  app.use(feedRoutes(db))
  app.use((_request, response) => sendPage(response.status(404), closedPage()))
  app.use(answerProblem)
  return app
}

/** What each address of the API takes: JSON, but for pictures. */
const kindFor = (path: string) =>
  path.endsWith('/photos') ? 'multipart/form-data' : 'application/json'

export function createApp(
  db: Database,
  config: Config,
  logger: Logger,
  {
    chair = openChair(db),
    caretaker = new Caretaker(db, config.dataDir, toolsHere(config.dataDir)),
    people = new People(db, config),
    work = workHere(db),
  }: { chair?: Chair; caretaker?: Caretaker; people?: People; work?: Work } = {},
): Express {
  const app = express()
  app.disable('x-powered-by')
  // Answers are asked for anew each time; hashing them buys nothing.
  app.disable('etag')
  app.use(HEADERS())
  app.use(httpLog(logger))
  if (config.trustProxy !== undefined) app.set('trust proxy', config.trustProxy)
  app.use(ownHosts({ hosts: config.hosts }))
  // Most of what the house's own screens ask for is small and near: only files and large answers are worth squeezing, the
  // latter quickly. A stream of events is told as it happens, never gathered first.
  app.use(
    compression({
      filter: (request, response) =>
        !request.path.startsWith('/api') &&
        // The head's bytes are made to be squeezed, though nothing in their kind says so.
        (request.path.endsWith('.bin') || compression.filter(request, response)),
    }),
  )
  app.use(
    compression({
      threshold: '24kb',
      level: 1,
      brotli: { params: { [constants.BROTLI_PARAM_QUALITY]: 1 } },
      filter: (request, response) =>
        request.path.startsWith('/api') &&
        !String(response.getHeader('content-type')).startsWith('text/event-stream') &&
        compression.filter(request, response),
    }),
  )
  app.use(answerRoutes(db, chair, config))
  app.use(feedRoutes(db))
  app.set('database', db)
  app.set('trail', people.trail)
  app.set('chair', chair)
  app.use('/api', ownPages, ownKinds(kindFor), people.middleware())
  // Many clients at once are large; everything else is small.
  app.use('/api/imports', express.text({ type: 'application/json', limit: '12mb' }))
  app.use('/api/busy', express.json({ limit: '4mb' }))
  app.use(express.json({ limit: '512kb' }))
  mount(app, 'health', async () => {
    const [count] = await db.select(
      'SELECT (SELECT COUNT(*) FROM clients) AS clients, (SELECT COUNT(*) FROM visits) AS visits',
    )
    return {
      ok: true as const,
      version: config.version,
      clients: Number(count!['clients']),
      visits: Number(count!['visits']),
    }
  })
  peopleRoutes(app, db, people, config.dataDir)
  screenRoutes(app, db, people, config)
  todayRoutes(app, db, caretaker, config)
  weekRoutes(app, db, work, config)
  safetyRoutes(app, caretaker)
  houseRoutes(app, db)
  clientRoutes(app, db, chair.desk, config.dataDir, people.trail, work)
  importRoutes(app, db, work)
  studioRoutes(app, db, work)
  visitRoutes(app, db, chair)
  linkRoutes(app, db, config)
  chairRoutes(app, db, chair)
  photoRoutes(app, db, config.dataDir, work)
  careRoutes(app, db)
  app.use('/api', unknownRoute)
  if (config.webDir) serveWeb(app, config.webDir)
  app.use(answerProblem)
  return app
}
