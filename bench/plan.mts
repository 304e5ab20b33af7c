/** How long a plan takes, how near its order comes to the best, how few its lanes are. */
import { DEFAULTS, DEFAULT_SCHOOLS } from '../core/house/index.ts'
import { guessReadings } from '../core/grain/index.ts'
import { exactOrder } from '../core/order/exact.ts'
import { orderProblem, type OrderProblem, OrderSearch } from '../core/order/index.ts'
import { makePlan, PlanMemory } from '../core/plan/index.ts'
import { coverZone } from '../core/plan/cover.ts'
import { zoneSkin } from '../core/plan/skin.ts'
import { screen } from '../core/screening/index.ts'
import { SERVICES, serviceZones } from '../core/services/index.ts'
import { zoneStem } from '../core/zones/index.ts'
import { mulberry32 } from '../core/stats/index.ts'
import { ZONES } from '../core/testing/head.ts'
import { flowOf, NOTHING, planInput } from '../core/testing/plan.ts'
import { directionOf } from '../core/head/index.ts'

type Figure = (name: string, value: number, unit: string) => void
const median = (list: number[]) => [...list].sort((a, b) => a - b)[list.length >> 1]!

/** A noisy map: every zone read three times, 12° off either way. */
function noisyFlow(seed: number) {
  const random = mulberry32(seed)
  const readings = ZONES.filter((z) => z.skin).flatMap((z) => {
    const guess = guessReadings(DEFAULTS, [z])[0]
    if (!guess) return []
    return [0, 1, 2].map((i) => {
      const at = z.samples[Math.floor(random() * z.samples.length)]!
      const swing = directionOf(z.id, at.point, at.normal, random() * 2 * Math.PI)
      const tangent = guess.tangent.map((c, k) => c + 0.35 * swing[k]!) as unknown as typeof swing
      return { id: `${z.id}${i}`, zoneId: z.id, ...at, tangent, weight: 1 }
    })
  })
  return flowOf(readings)
}

export function planFigures(figure: Figure): void {
  const flow = noisyFlow(3)
  const full: number[] = []
  const edits: number[] = []
  // The first readies what is the same for every client.
  makePlan(planInput({ flow }))
  for (let i = 0; i < 15; i++) {
    const memory = new PlanMemory()
    const input = planInput({ flow, memory, skin: { reactivity: 'tough' } })
    let began = performance.now()
    const plan = makePlan(input)
    full.push(performance.now() - began)
    const lane = plan.lanes[(7 * i) % plan.lanes.length]!
    began = performance.now()
    makePlan({ ...input, choice: { style: 'balanced', edits: { [lane.id]: { way: 'with' } } } })
    edits.push(performance.now() - began)
  }
  figure('plan.full.ms', median(full), 'ms')
  figure('plan.edit.ms', median(edits), 'ms')

  let lanes = 0
  let bound = 0
  for (let seed = 1; seed <= 6; seed++) {
    const { ground, flow: own } = planInput({ flow: noisyFlow(seed) })
    for (const zone of serviceZones('face-shave')) {
      const skin = zoneSkin(DEFAULTS, ground, own, zone, {
        spots: [],
        lines: [],
        worked: SERVICES['face-shave'].zones[zoneStem(zone)]!,
        bandOnly: false,
      })
      const cover = coverZone(DEFAULTS, skin, Math.PI / 6)
      lanes += cover.count
      bound += cover.bound
    }
  }
  figure('lanes.vs_bound.ratio', lanes / bound, 'lanes to arcs that a circle needs at least')

  const asks = Array.from({ length: 400 }, () => {
    const began = performance.now()
    screen(
      DEFAULTS,
      'dermaplane',
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
