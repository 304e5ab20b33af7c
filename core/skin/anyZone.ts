/**
 * Odds that any zone of a visit reddens (M18). Zones share the client's rate K, believed on a grid, and the visit's own level V,
 * log-normal with mean 1; given both they are independent: P(any) = 1 − Σ w_K w_V Π_z P(Y_z < 2 | K, V), the last a negative
 * binomial. The plain product over zones overstates it.
 */
import type { SkinBelief } from './pool.ts'

/** Gauss–Hermite, 7 points (Abramowitz & Stegun 1964, table 25.10, from memory): places and weights for e^(−x²). */
const HERMITE: readonly (readonly [number, number])[] = [
  [0, 0.810264617556807],
  [0.816287882858965, 0.425607252610128],
  [1.673551628767471, 0.054515582819127],
  [2.651961356835233, 0.00097178124509952],
].flatMap(([x, w]): [number, number][] =>
  x === 0
    ? [[0, w!]]
    : [
        [x!, w!],
        [-x!, w!],
      ],
)

/** A rate below this share of the belief is left out. */
const LEAST_WEIGHT = 1e-3

/** A client and a visit as they might be. */
export interface SkinNode {
  readonly rate: number
  /** Shape of the spread between zones. */
  readonly shape: number
  readonly level: number
  readonly weight: number
}

/** The nodes over which odds are summed; their weights sum to 1. */
export function skinNodes(belief: SkinBelief): SkinNode[] {
  const sigma = belief.visitSpread
  const nodes = belief.rates.flatMap((rate, i) => {
    const w = belief.weights[i]!
    if (w < LEAST_WEIGHT) return []
    return HERMITE.map(([x, h]) => ({
      rate,
      shape: belief.shapes[i]!,
      level: Math.exp(Math.SQRT2 * sigma * x - (sigma * sigma) / 2),
      weight: (w * h) / Math.sqrt(Math.PI),
    }))
  })
  const total = nodes.reduce((s, n) => s + n.weight, 0)
  return nodes.map((n) => ({ ...n, weight: n.weight / total }))
}

/** −log P(grade under 2) of a zone for a load, at each node: these add up over zones. */
export function calmCosts(
  belief: SkinBelief,
  nodes: readonly SkinNode[],
  zone: string,
  load: number,
): Float64Array {
  const { count, exposure } = belief.seen[zone] ?? { count: 0, exposure: 0 }
  return Float64Array.from(nodes, ({ rate, shape: z, level }) => {
    const shape = z + count
    const r = z / rate + exposure
    const p = r / (r + load * level)
    return -(shape * Math.log(p) + Math.log1p(shape * (1 - p)))
  })
}

/** P(any zone at grade 2 or more) from summed costs. */
export function anyOdds(nodes: readonly SkinNode[], costs: ArrayLike<number>): number {
  let calm = 0
  nodes.forEach((n, i) => (calm += n.weight * Math.exp(-costs[i]!)))
  return Math.max(0, 1 - calm)
}

/** P(any zone at grade 2 or more) for the loads of a visit. */
export function anyZoneOdds(belief: SkinBelief, loads: Readonly<Record<string, number>>): number {
  const nodes = skinNodes(belief)
  const sums = new Float64Array(nodes.length)
  for (const [zone, load] of Object.entries(loads))
    calmCosts(belief, nodes, zone, load).forEach((c, i) => (sums[i]! += c))
  return anyOdds(nodes, sums)
}
