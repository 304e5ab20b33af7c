/** How often a change is said to have helped, and the watch rings, where nothing changed, and where something did. */
import { DEFAULTS } from '../../house/index.ts'
import { compareCounts } from '../../history/changes.ts'
import { trendWatch } from '../../history/trend.ts'
import type { VisitFacts } from '../../history/facts.ts'
import { drawGamma, drawNormal, drawPoisson, mulberry32 } from '../../stats/index.ts'
import { DAY_MS } from '../../time/index.ts'

/** How counts of a visit come about. */
export interface CountWorld {
  /** Mean per visit, drawn around this for each client. */
  readonly mean: number
  /** Spread of the logarithm of a day's level. */
  readonly daySpread: number
}

export const COUNT_WORLDS: Readonly<Record<string, CountWorld>> = {
  'plain chance': { mean: 5, daySpread: 0 },
  'few bumps': { mean: 1.5, daySpread: 0.2 },
  'bad days': { mean: 5, daySpread: 0.5 },
  'very bad days': { mean: 8, daySpread: 0.9 },
}

const drawCounts = (random: () => number, w: CountWorld, level: number, n: number, times = 1) =>
  Array.from({ length: n }, () =>
    drawPoisson(
      random,
      level * times * Math.exp(w.daySpread * drawNormal(random) - w.daySpread ** 2 / 2),
    ),
  )

const drawLevel = (random: () => number, w: CountWorld) => (w.mean * drawGamma(random, 3)) / 3 + 0.5

/** Share of comparisons with p below 5 %, and whose range of 95 % holds the true ratio. */
export function changesFound(
  seed: number,
  histories: number,
  world: CountWorld,
  [before, after]: readonly [number, number],
  times = 1,
): { found: number; held: number } {
  const random = mulberry32(seed)
  let [found, held] = [0, 0]
  for (let i = 0; i < histories; i++) {
    const level = drawLevel(random, world)
    const a = drawCounts(random, world, level, before)
    const b = drawCounts(random, world, level, after, times)
    if (a.every((y) => y === 0) && b.every((y) => y === 0)) {
      held++
      continue
    }
    const c = compareCounts(a, b)
    if (c.p < 0.05) found++
    if (c.low <= times && c.high >= times) held++
  }
  return { found: found / histories, held: held / histories }
}

/**
 * Share of clients whose watch rings at any look.
 * @param times what the mean changes to after 12 visits
 */
export function watchRang(
  seed: number,
  clients: number,
  world: CountWorld,
  looks: number,
  times = 1,
): number {
  const random = mulberry32(seed)
  let rang = 0
  for (let i = 0; i < clients; i++) {
    const level = drawLevel(random, world)
    const counts = [
      ...drawCounts(random, world, level, 12),
      ...drawCounts(random, world, level, looks - 6, times),
    ]
    const trend = trendWatch(DEFAULTS, counts.map(countedVisit), 'bumps')!
    if (trend.points.some((p) => p.out)) rang++
  }
  return rang / clients
}

const countedVisit = (count: number, i: number): VisitFacts => ({
  visitId: `v${i}`,
  service: 'face-shave',
  workerId: 'w',
  endedAtMs: i * 6 * DAY_MS,
  loads: {},
  worst: {},
  bumps: { chin: count },
  choices: null,
  products: [],
  routine: '',
  answered: [],
  due: null,
})
