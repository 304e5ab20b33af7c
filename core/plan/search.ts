/** A longer search for the order of a plan's lanes, that can be watched and stopped. */
import type { Figures, Schools } from '../house/index.ts'
import { MOST_EXACT, OrderSearch } from '../order/index.ts'
import { SERVICES } from '../services/index.ts'
import type { Hand } from './hands.ts'
import { jobId, jobsOf, laneProblem } from './order.ts'
import type { Plan } from './types.ts'

/** How far a search has come. */
export interface SearchState {
  /** Ids of steps (and lathers) in the best order so far. */
  readonly order: readonly string[]
  /** Seconds of changes of stance, turn and tool in it, and in the order it began with. */
  readonly seconds: number
  readonly firstSeconds: number
  readonly rounds: number
}

/** A search over the order of a plan; undefined when the plan's order is already exact. */
export function planSearch(
  figures: Figures,
  plan: Pick<Plan, 'lanes' | 'service'>,
  schools: Schools,
  hand: Hand,
): { step: (rounds: number) => SearchState } | undefined {
  const jobs = jobsOf(plan.lanes, SERVICES[plan.service].lather)
  if (jobs.length <= MOST_EXACT) return undefined
  const problem = laneProblem(figures, jobs, schools, plan.service, hand)
  const search = new OrderSearch(problem, 7)
  const firstSeconds = search.cost
  const id = (i: number) => jobId(jobs[i]!)
  let rounds = 0
  return {
    step(more) {
      search.run(more)
      rounds += more
      return { order: search.order.map(id), seconds: search.cost, firstSeconds, rounds }
    },
  }
}
