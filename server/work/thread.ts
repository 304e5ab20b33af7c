/** One thread of long tasks. */
import { workerData } from 'piscina'
import { openReader, type Reads } from '../db/reader.ts'
import { HttpProblem } from '../http/problem.ts'
import { TASKS, type Asked, type TaskName } from './tasks.ts'
import type { Sent } from './work.ts'

const { storage } = workerData as { storage: string }

const run = <N extends TaskName>(db: Reads, name: N, asked: Asked[N]) => TASKS[name](db, asked)

export default async function task({
  name,
  asked,
}: {
  name: TaskName
  asked: Asked[TaskName]
}): Promise<Sent> {
  const reader = await openReader(storage)
  try {
    return { made: await run(reader, name, asked as never) }
  } catch (error) {
    if (!(error instanceof HttpProblem)) throw error
    return { problem: [error.status, error.code, error.message, error.errors] }
  } finally {
    await reader.close()
  }
}
