/** Starts the server: `node main.js [--demo] [--fresh]`. */
import { createServer, type Server } from 'node:http'
import { rmSync } from 'node:fs'
import { join } from 'node:path'
import pino from 'pino'
import { createAnswerApp, createApp } from './app.ts'
import { openChair } from './chair/chair.ts'
import { readConfig, type Config } from './config.ts'
import { openDatabase } from './db/connection.ts'
import { ensureWorkers } from './house/service.ts'

const STOP_WAIT_MS = 5000
/** A screen may rest between two taps; a connection that closes just as it is used again loses what was sent on it. */
const KEEP_OPEN_MS = 75_000

function listen(server: Server, config: Config, port: number): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, config.host, () => {
      server.removeListener('error', reject)
      const address = server.address()
      resolve(typeof address === 'object' && address ? address.port : port)
    })
  })
}

/** Takes the wished port, or the next free one, and says so. */
async function listenNear(server: Server, config: Config): Promise<number> {
  for (let port = config.port; port < config.port + 50; port++) {
    try {
      const got = await listen(server, config, port)
      if (got !== config.port && config.port !== 0) {
        console.log(`Port ${config.port} is taken; using ${got} instead.`)
      }
      return got
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error
    }
  }
  throw new Error(
    `No free port from ${config.port} to ${config.port + 49}. Set PORT to another number.`,
  )
}

async function start(): Promise<void> {
  const config = readConfig(process.env)
  const demo = process.argv.includes('--demo')
  if (demo && process.argv.includes('--fresh')) {
    for (const ending of ['', '-wal', '-shm']) {
      rmSync(join(config.dataDir, `slow-tide.sqlite${ending}`), { force: true })
    }
  }
  const db = await openDatabase(config.dataDir)
  if (demo) {
    const { seedDemo } = await import('../demo/seed.ts')
    await seedDemo(db, Date.now())
  }
  await ensureWorkers(db)
  const chair = openChair(db)
  const logger = pino({ level: config.logLevel })
  const server = createServer(createApp(db, config, logger, chair))
  server.keepAliveTimeout = KEEP_OPEN_MS
  const port = await listenNear(server, config)
  console.log(`Slow Tide is at http://${config.host}:${port}/  (Ctrl-C stops it)`)
  const answers =
    config.answerPort === undefined ? undefined : createServer(createAnswerApp(db, logger, chair))
  if (answers) {
    const open = await listen(answers, { ...config, host: config.answerHost }, config.answerPort!)
    console.log(`Link pages alone are at port ${open}.`)
  }

  let stopping = false
  const stop = () => {
    if (stopping) return
    stopping = true
    const timer = setTimeout(() => process.exit(1), STOP_WAIT_MS)
    timer.unref()
    answers?.close()
    answers?.closeAllConnections()
    server.close(() => {
      void db.close().then(() => process.exit(0))
    })
    // Screens that follow a service would keep their connections open.
    chair.desk.close()
    server.closeAllConnections()
  }
  process.on('SIGINT', stop)
  process.on('SIGTERM', stop)
}

start().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error)
  process.exit(1)
})
