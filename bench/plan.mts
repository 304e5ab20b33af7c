/** How long a plan takes, how near its order comes to the best, how few its lanes are. */
import { DEFAULTS, DEFAULT_SCHOOLS } from '../core/house/index.ts'
import { exactOrder } from '../core/order/exact.ts'
import { orderProblem, type OrderProblem, OrderSearch } from '../core/order/index.ts'
import { makePlan, type PlanChoice, PlanMemory } from '../core/plan/index.ts'
import { pressesOf } from '../core/plan/presses.ts'
import { zoneSkin } from '../core/plan/skin.ts'
import { screen } from '../core/screening/index.ts'
import { oneJob, SERVICES, serviceZones, type ServiceId } from '../core/services/index.ts'
import { zoneStem } from '../core/zones/index.ts'
import { mulberry32 } from '../core/stats/index.ts'
import { NOTHING, planInput, randomMap } from '../core/testing/plan.ts'

type Figure = (name: string, value: number, unit: string) => void
const median = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!

/** Milliseconds of a whole plan and of one that is chosen anew on the same skin. */
function planTimes(service: ServiceId, runs: number): { full: number; change: number } {
  const flow = randomMap(3, service)
  const full: number[] = []
  const change: number[] = []
  // The first readies what is the same for every client.
  makePlan(planInput({ service, flow }))
  for (let i = 0; i < runs; i++) {
    const memory = new PlanMemory()
    const ask = { service, flow, memory, skin: { reactivity: 'tough' } } as const
    const timed = (choice: Partial<PlanChoice>, into: number[]) => {
      const input = planInput({ ...ask, choice })
      const began = performance.now()
      makePlan(input)
      into.push(performance.now() - began)
    }
    timed({}, full)
    for (const style of ['gentlest', 'closest'] as const) timed({ style }, change)
    timed({ style: 'closest', within: 30 }, change)
    timed({ hours: 24 }, change)
  }
  return { full: median(full), change: median(change) }
}

export function planFigures(figure: Figure): void {
  const face = planTimes('face-shave', 9)
  const head = planTimes('head-shave', 7)
  figure('plan.full.ms', face.full, 'ms, a face')
  figure('plan.full.head.ms', head.full, 'ms, a head')
  figure('plan.change.ms', Math.max(face.change, head.change), 'ms')

  const { front } = makePlan(planInput({ flow: randomMap(3), skin: { reactivity: 'tough' } }))
  figure('plan.front.points', front!.points.length, 'plans that no other beats, a tough face')

  const { ground } = planInput()
  const counts: number[] = []
  for (let seed = 1; seed <= 100; seed++) {
    const flow = randomMap(seed)
    const skins = serviceZones('face-shave').map((zone) =>
      zoneSkin(DEFAULTS, ground, flow, zone, {
        spots: [],
        lines: [],
        worked: SERVICES['face-shave'].zones[zoneStem(zone)]!,
        bandOnly: false,
      }),
    )
    const map = pressesOf({ figures: DEFAULTS, ground, skins, toleranceDeg: 30, mirrored: false })
    counts.push(2 * map.presses.length)
  }
  counts.sort((x, y) => x - y)
  figure('plan.presses.face2', counts[94]!, 'presses of two passes, 95 of 100 random maps')

  const asks = Array.from({ length: 400 }, () => {
    const began = performance.now()
    screen(
      DEFAULTS,
      [oneJob('job', 'dermaplane')],
      { answers: { ...NOTHING, sunburn: { yes: true, date: '2026-05-18' } }, spots: [] },
      DEFAULT_SCHOOLS,
      '2026-05-20',
      0,
      0,
    )
    return performance.now() - began
  })
  figure('screening.ms', median(asks), 'ms')
  orderFigures(figure)
}

/** Jobs on a small map with stances, turns and tools to change, and passes that wait for one another. */
function randomJobs(n: number, seed: number): OrderProblem {
  const random = mulberry32(seed)
  const jobs = Array.from({ length: n }, () => ({
    stance: Math.floor(random() * 3),
    turn: Math.floor(random() * 3),
    tool: Math.floor(random() * 2),
    at: [random() * 200, random() * 200],
  }))
  const pairs: [number, number][] = []
  for (let i = 0; i < n; i++)
    for (let j = i + 1; j < n; j++) if (random() < 0.12) pairs.push([i, j])
  return orderProblem(
    n,
    (i, j) => {
      const [a, b] = [jobs[i]!, jobs[j]!]
      return (
        (a.stance === b.stance ? 0 : 6) +
        (a.turn === b.turn ? 0 : 4) +
        (a.tool === b.tool ? 0 : 12) +
        0.01 * Math.hypot(a.at[0]! - b.at[0]!, a.at[1]! - b.at[1]!)
      )
    },
    pairs,
  )
}

function orderFigures(figure: Figure): void {
  let found = 0
  let best = 0
  for (let seed = 1; seed <= 100; seed++) {
    const p = randomJobs(12, seed)
    const search = new OrderSearch(p, 5)
    search.run(300)
    found += search.cost
    best += exactOrder(p).cost
  }
  figure('order.gap_vs_exact.ratio', found / best, 'cost to the exact one, 100 × 12 jobs')

  let after = 0
  let known = 0
  for (let seed = 1; seed <= 5; seed++) {
    const p = randomJobs(40, 500 + seed)
    const second = timed(new OrderSearch(p, 1), 1000)
    // Best known: the best of three longer searches.
    const long = Math.min(second, ...[2, 3, 4].map((s) => timed(new OrderSearch(p, s), 3000)))
    after += second
    known += long
  }
  figure(
    'order.40.gap_best_known.ratio',
    after / known,
    'cost after 1 s to the best known, 40 jobs',
  )
}

function timed(search: OrderSearch, ms: number): number {
  const until = performance.now() + ms
  while (performance.now() < until) search.run(4)
  return search.cost
}
