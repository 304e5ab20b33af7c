/** Starts the built server for a browser test, on a free port and a data folder of its own. */
import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

export interface Served {
  readonly base: string
  readonly dir: string
  readonly pid: number
  readonly kill: (signal?: NodeJS.Signals) => Promise<void>
}

export function serve({
  demo,
  dir = join(mkdtempSync(join(tmpdir(), 'slow-tide-e2e-')), 'data'),
  port = '0',
  web = 'dist/web',
}: {
  demo: boolean
  dir?: string
  port?: string
  /** Where the built pages lie. */
  web?: string
}): Promise<Served> {
  return new Promise((resolve, reject) => {
    const child: ChildProcess = spawn(
      process.execPath,
      ['dist/server/main.js', ...(demo ? ['--demo'] : [])],
      {
        env: {
          ...process.env,
          NODE_ENV: 'production',
          PORT: port,
          HOST: '127.0.0.1',
          SLOW_TIDE_DATA: dir,
          SLOW_TIDE_WEB: web,
        },
        stdio: ['ignore', 'pipe', 'inherit'],
      },
    )
    const kill = (signal: NodeJS.Signals = 'SIGTERM') =>
      new Promise<void>((done) => {
        if (child.exitCode !== null || child.signalCode !== null) return done()
        child.once('exit', () => done())
        child.kill(signal)
      })
    let said = ''
    child.stdout!.on('data', (chunk: Buffer) => {
      said += chunk.toString()
      const found = /http:\/\/[\d.]+:\d+/.exec(said)
      if (found) resolve({ base: found[0], dir, pid: child.pid!, kill })
    })
    child.on('exit', (code) => reject(new Error(`The server ended with ${code}: ${said}`)))
  })
}
