/** Starts the server and stops it: `[--demo] [--fresh] [--lan]`. */
import { createServer, type Server } from 'node:http'
import { createServer as createLockedServer } from 'node:https'
import { existsSync } from 'node:fs'
import { dirname, join } from 'node:path'
import pino from 'pino'
import { createAnswerApp, createApp } from './app.ts'
import { openChair } from './chair/chair.ts'
import { readConfig, type Config } from './config.ts'
import { openDatabase } from './db/connection.ts'
import { ensureWorkers, readHouse } from './house/service.ts'
import { certificates, ownNames } from './lan/certificates.ts'
import { createTrustApp } from './lan/trustApp.ts'
import { People } from './people/people.ts'
import { sweep } from './photos/sweep.ts'
import { Caretaker } from './safety/caretaker.ts'
import { toolsBeside } from './safety/tools.ts'
import { makeBackup } from './safety/backup.ts'
import { dataFile, lockFolder, readCard, setAside } from './safety/folder.ts'
import { scrubIfOwed } from './safety/traces.ts'
import { keepFresh } from './standing/standing.ts'
import { workOnThreads } from './work/work.ts'
import { Trouble } from './safety/trouble.ts'

const STOP_WAIT_MS = 5000
/** A screen may rest between two taps; a connection that closes just as it is used again loses what was sent on it. */
const KEEP_OPEN_MS = 75_000

function listen(
  server: Pick<Server, 'once' | 'listen' | 'address'>,
  host: string,
  port: number,
): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) =>
      reject(
        error.code === 'EADDRINUSE'
          ? new Error(
              `Port ${port} is taken by another program. Stop that program, or give Slow Tide another port: PORT=${port + 1} npm start. Nothing was changed.`,
            )
          : error,
      ),
    )
    server.listen(port, host, () => {
      const address = server.address()
      resolve(typeof address === 'object' && address ? address.port : port)
    })
  })
}

/** The demo begins anew: what is there is backed up and put aside, never deleted. */
async function beginAnew({ dataDir }: Config): Promise<void> {
  if (!existsSync(dataDir)) return
  if (readCard(dataDir)?.demo !== true) {
    throw new Trouble(
      'not-demo',
      `${dataDir} is no demo's folder: --fresh leaves it alone. Nothing was changed.`,
    )
  }
  const lock = await lockFolder(dataDir)
  if (existsSync(dataFile(dataDir)))
    await makeBackup({ dataDir, why: 'before-fresh' }).catch((error: unknown) =>
      console.log(`No backup was made: ${error instanceof Error ? error.message : String(error)}`),
    )
  await lock.release()
  console.log(`The demo begins anew; the folder of before is at ${setAside(dataDir, Date.now())}.`)
}

export async function serve(args: readonly string[]): Promise<void> {
  const demo = args.includes('--demo')
  const beyond = args.includes('--lan')
  const given = readConfig(process.env, demo, beyond)
  const { dataDir } = given
  const names = beyond ? ownNames(given.hosts) : given.hosts
  let lan: { url: string; trustUrl: string; fingerprint: string } | null = null
  const config: Config = { ...given, hosts: names, ...(beyond && { lan: () => lan }) }
  if (demo && args.includes('--fresh')) await beginAnew(given)
  if (demo && existsSync(dataFile(dataDir)) && readCard(dataDir)?.demo === false) {
    throw new Trouble(
      'not-demo',
      `${dataDir} is a studio's own folder, not the demo's: the demo is not mixed into it. Type "npm start" to open it.`,
    )
  }
  const lock = await lockFolder(dataDir)
  const db = await openDatabase(dataDir, demo)
  if (demo) {
    const { seedDemo } = await import('../demo/seed.ts')
    await seedDemo(db, Date.now())
  }
  await ensureWorkers(db)
  await sweep(db, dataDir, Number.MAX_SAFE_INTEGER)
  await scrubIfOwed(db)
  const chair = openChair(db)
  const work = workOnThreads(join(dirname(process.argv[1]!), 'thread.js'), dataFile(dataDir))
  const rest = keepFresh(db, work)
  const logger = pino({ level: config.logLevel })
  const caretaker = new Caretaker(db, dataDir, toolsBeside(process.argv[1]!, dataDir))
  caretaker.begin()
  const people = new People(db, config)
  const broken = await people.trail.verify()
  if (broken !== undefined)
    console.error(
      `The trail of who did what does not hold together from line ${broken} on: type "npm run verify".`,
    )
  const app = createApp(db, config, logger, { chair, caretaker, people, work })
  const server = createServer(app)
  server.keepAliveTimeout = KEEP_OPEN_MS
  const port = await listen(server, config.host, config.port)
  const address = `http://${config.host}:${port}/`
  lock.tell(address)
  console.log(`Slow Tide is at ${address}  (Ctrl-C stops it)`)
  const others: Server[] = []
  if (beyond) {
    const { name: house } = await readHouse(db)
    const own = await certificates(dataDir, house, names)
    const locked = createLockedServer(
      { key: own.key, cert: `${own.cert.trim()}\n${own.root}` },
      app,
    )
    locked.keepAliveTimeout = KEEP_OPEN_MS
    const lanPort = await listen(locked, '0.0.0.0', config.lanPort)
    const near = names[0] ?? '127.0.0.1'
    const url = `https://${near.includes(':') ? `[${near}]` : near}:${lanPort}`
    const trusting = createServer(createTrustApp(house, url, own))
    const trustPort = await listen(trusting, '0.0.0.0', config.trustPort)
    lan = {
      url,
      trustUrl: url.replace('https:', 'http:').replace(/\d+$/, String(trustPort)),
      fingerprint: own.fingerprint,
    }
    others.push(locked, trusting)
    console.log(`Other screens are let in at ${lan.url}/; a new one begins at ${lan.trustUrl}/`)
  }
  const answers =
    config.answerPort === undefined
      ? undefined
      : createServer(createAnswerApp(db, config, logger, chair))
  if (answers) {
    const open = await listen(answers, config.answerHost, config.answerPort!)
    console.log(`Link pages alone are at port ${open}.`)
  }

  let stopping = false
  const stop = () => {
    if (stopping) return
    stopping = true
    const timer = setTimeout(() => process.exit(1), STOP_WAIT_MS)
    timer.unref()
    for (const other of [...others, ...(answers ? [answers] : [])]) {
      other.close()
      other.closeAllConnections()
    }
    server.close(() => {
      void rest()
        .then(work.close)
        .then(() => people.close())
        .then(db.close)
        .then(lock.release)
        .then(() => process.exit(0))
    })
    // Screens that follow a service would keep their connections open.
    chair.desk.close()
    caretaker.close()
    server.closeAllConnections()
  }
  process.on('SIGINT', stop)
  process.on('SIGTERM', stop)
}
