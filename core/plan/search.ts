/** A longer search for the order of a plan's lanes, that can be watched and stopped. */
import type { Figures, Schools } from '../house/index.ts'
import { MOST_EXACT, OrderSearch } from '../order/index.ts'
import { SERVICES } from '../services/index.ts'
import { jobsOf, laneProblem } from './order.ts'
import type { Plan } from './types.ts'

/** How far a search has come. */
export interface SearchState {
  /** Ids of lanes (and lathers) in the best order so far. */
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
): { step: (rounds: number) => SearchState } | undefined {
  const jobs = jobsOf(plan.lanes, SERVICES[plan.service].lather)
  if (jobs.length <= MOST_EXACT) return undefined
  const problem = laneProblem(figures, jobs, schools, plan.service)
  const search = new OrderSearch(problem, 7)
  const firstSeconds = search.cost
  const id = (i: number) => {
    const job = jobs[i]!
    return 'lane' in job ? job.lane.id : `lather:${job.lather}`
  }
  let rounds = 0
  return {
    step(more) {
      search.run(more)
      rounds += more
      return { order: search.order.map(id), seconds: search.cost, firstSeconds, rounds }
    },
  }
}
