/** A longer search for the order of a plan's lanes, that can be watched and stopped. */
import type { Figures, Schools } from '../house/index.ts'
import { MOST_EXACT, OrderSearch } from '../order/index.ts'
import { SERVICES, type ServiceId } from '../services/index.ts'
import type { Hand } from './hands.ts'
import { jobId, jobsOf, laneProblem } from './order.ts'
import { type Lane, type Plan, serviceIn } from './types.ts'

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
  plan: Pick<Plan, 'jobs' | 'lanes' | 'service'> & Partial<Pick<Plan, 'heavier'>>,
  schools: Schools,
  hand: Hand,
): { step: (rounds: number) => SearchState } | undefined {
  // Of a sitting the service with the most lanes is searched; the others keep their order.
  const by = new Map<ServiceId, Lane[]>()
  for (const lane of plan.lanes) {
    const service = serviceIn(plan, lane.zoneId)
    by.set(service, [...(by.get(service) ?? []), lane])
  }
  const [most] = [...by].sort((a, b) => b[1].length - a[1].length)
  if (!most) return undefined
  const [service, lanes] = most
  const rest = plan.lanes.filter((l) => !lanes.includes(l)).map((l) => l.stepId ?? l.id)
  const jobs = jobsOf(lanes, SERVICES[service].lather)
  if (jobs.length <= MOST_EXACT) return undefined
  const problem = laneProblem(figures, jobs, schools, service, hand, plan.heavier)
  const search = new OrderSearch(problem, 7)
  const firstSeconds = search.cost
  const id = (i: number) => jobId(jobs[i]!)
  let rounds = 0
  return {
    step(more) {
      search.run(more)
      rounds += more
      return {
        order: [...search.order.map(id), ...rest],
        seconds: search.cost,
        firstSeconds,
        rounds,
      }
    },
  }
}
