import type { Express } from 'express'
import type { Database } from '../db/connection.ts'
import { mount } from '../http/mount.ts'
import { freshenSums, staleSums } from '../standing/standing.ts'
import type { Work } from '../work/work.ts'
import { clientHistory } from './history.ts'

/** So many clients' sums are made anew while whoever asks waits; more are told how far they are. */
const AT_ONCE = 80

export function studioRoutes(app: Express, db: Database, work: Work): void {
  mount(app, 'history', ({ params }) => clientHistory(db, params.id))
  mount(app, 'studio', async () => {
    const { left, of } = await staleSums(db)
    const making = freshenSums(db, work)
    if (left > AT_ONCE) {
      // Goes on by itself; what fails is done again when it is asked for again.
      making.catch(() => undefined)
      return { left, of, learned: null }
    }
    await making
    return { left: 0, of, learned: await work.run('learn', {}) }
  })
}
