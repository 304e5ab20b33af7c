/** The server as it is built, run as a process of its own: started, listened to, killed. */
import { spawn } from 'node:child_process'

export interface Run {
  readonly said: () => string
  /** Resolves with the exit code; null when it was killed. */
  readonly ended: Promise<number | null>
  /** Resolves when it serves, with its address; rejects with what it said when it ends before. */
  readonly serves: Promise<string>
  readonly kill: (signal?: NodeJS.Signals) => Promise<void>
}

/** Processes that were not ended yet. */
const running = new Set<Run>()

/** Ends whatever still runs; for `afterAll`. */
export const killAll = async () => {
  await Promise.all([...running].map((r) => r.kill('SIGKILL')))
}

/** Runs a command of the built server on a data folder; a free port unless `env` names one. */
export function runBuilt(
  dataDir: string,
  args: readonly string[] = [],
  env: Record<string, string> = {},
): Run {
  const child = spawn(process.execPath, ['dist/server/main.js', ...args], {
    env: {
      ...process.env,
      ...{ SLOW_TIDE_DATA: dataDir, PORT: '0', LOG_LEVEL: 'silent', NODE_OPTIONS: '' },
      ...env,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  let served: (base: string) => void
  let failed: (error: Error) => void
  const serves = new Promise<string>((resolve, reject) => {
    served = resolve
    failed = reject
  })
  // Nobody need listen: many are killed before they serve.
  serves.catch(() => undefined)
  const hear = (chunk: Buffer) => {
    said += chunk.toString()
    const found = /https?:\/\/[\d.]+:\d+/.exec(said)
    if (found) served(found[0])
  }
  child.stdout.on('data', hear)
  child.stderr.on('data', hear)
  const ended = new Promise<number | null>((resolve) =>
    child.once('close', (code) => {
      running.delete(run)
      failed(new Error(`The server ended with ${code}: ${said}`))
      resolve(code)
    }),
  )
  const run: Run = {
    ended,
    serves,
    said: () => said,
    kill: async (signal = 'SIGTERM') => {
      if (child.exitCode === null && child.signalCode === null) child.kill(signal)
      await ended
    },
  }
  running.add(run)
  return run
}
