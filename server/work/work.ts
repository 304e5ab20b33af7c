/** Hands long tasks to threads of their own, each with a connection that only reads. */
import { Piscina } from 'piscina'
import type { Reads } from '../db/reader.ts'
import { HttpProblem } from '../http/problem.ts'
import { TASKS, type Asked, type Made, type TaskName } from './tasks.ts'

export interface Work {
  /** @param signal gives it up */
  readonly run: <N extends TaskName>(
    name: N,
    asked: Asked[N],
    signal?: AbortSignal,
  ) => Promise<Made[N]>
  readonly close: () => Promise<void>
}

/** What a thread sends back: problems do not keep their kind on the way. */
export type Sent<N extends TaskName = TaskName> =
  { readonly made: Made[N] } | { readonly problem: ConstructorParameters<typeof HttpProblem> }

/** Two: a paper need not wait for the studio. An idle thread holds memory, so it ends after a while. */
const THREADS = 2
const IDLE_MS = 20_000
const MOST = { maxOldGenerationSizeMb: 224, maxYoungGenerationSizeMb: 16 }

/**
 * @param file what a thread runs: thread.ts as built
 * @param storage the data file
 */
export function workOnThreads(file: string, storage: string): Work {
  const pool = new Piscina({
    filename: file,
    minThreads: 0,
    maxThreads: THREADS,
    idleTimeout: IDLE_MS,
    resourceLimits: MOST,
    workerData: { storage },
  })
  // Whoever asked is told; the server goes on.
  pool.on('error', () => undefined)
  return {
    run: async <N extends TaskName>(name: N, asked: Asked[N], signal?: AbortSignal) => {
      const sent = (await pool.run({ name, asked }, signal ? { signal } : {})) as Sent<N>
      if ('problem' in sent) throw new HttpProblem(...sent.problem)
      return sent.made
    },
    close: () => pool.destroy(),
  }
}

/** The same on this thread: for a server that was not built. */
export const workHere = (db: Reads): Work => ({
  run: (name, asked) => TASKS[name](db, asked),
  close: () => Promise.resolve(),
})
