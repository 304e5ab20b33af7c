/**
 * Learning with few visits (M7): a zone leans on the client's other zones, a client on all clients of the studio with such
 * skin. Rate of a zone k = k_client · e, e ~ Gamma(z, z); k_client ~ Gamma(c, c/m); m is learned over clients. The client's
 * rate is integrated over a grid, for each of a few shapes z of how much the zones differ; each zone's posterior is given back
 * as the Gamma with its mean and spread. Visits fade with their age, and a visit's zones move together (`seen.ts`).
 */
import type { Figures } from '../house/index.ts'
import { digamma, gammaShape, logGamma, risingLog } from '../stats/index.ts'
import { sumVisits, type SkinSums } from './seen.ts'
import {
  expectedMean,
  SKIN_CONSTANTS,
  type Reactivity,
  type Sensitivity,
  type SkinOutcome,
} from './sensitivity.ts'

/** How alike zones and clients are, and what is expected before anything is known. */
export interface Pooling {
  readonly mean: number
  readonly betweenClients: number
  /** The usual shape; others about it are tried. */
  readonly betweenZones: number
  /** Share of clients who are unlike the others. */
  readonly unlike: number
}

/** Shapes that are tried, over the usual one, and how likely each is before anything is known: few zones differ so. */
const SHAPES: readonly (readonly [times: number, odds: number])[] = [
  [0.15, 0.18],
  [0.5, 0.3],
  [1.5, 0.3],
  [6, 0.22],
]
/** Cells of the grid over a client's rate, evenly in its logarithm; how many standard deviations it reaches below and above. */
const CELLS = 10
const BELOW = 4.2
const ABOVE = 2.8
const NEWTON_STEPS = 5
/** A node with less than this share of the belief is left out. */
const LEAST_WEIGHT = 1e-4

/** What is believed of a client: rates and shapes with their weights, and what has been seen of each zone. Plain data. */
export interface SkinBelief {
  /** Grade per unit load; the shape of the spread between zones; and the weight of the two: the weights sum to 1. */
  readonly rates: readonly number[]
  readonly shapes: readonly number[]
  readonly weights: readonly number[]
  readonly seen: Readonly<Record<string, { readonly count: number; readonly exposure: number }>>
  /** How much the client's skin differs from visit to visit (spread of its logarithm). */
  readonly visitSpread: number
}

/** How much wider the spread of clients unlike the others. */
const UNLIKE_SHAPE = 0.25

/** What is believed of a client's rate after all that was seen. */
export function believe(sums: SkinSums, pooling: Pooling): SkinBelief {
  const { mean, betweenClients: c, unlike } = pooling
  const { share } = sums
  const seen = [...sums.zones].filter(([, s]) => s.exposure > 0)
  const n = seen.length
  const counts = Float64Array.from(seen, ([, s]) => s.count)
  const exposures = Float64Array.from(seen, ([, s]) => s.exposure)
  let [count, exposure] = [0, 0]
  for (let k = 0; k < n; k++) {
    count += counts[k]!
    exposure += exposures[k]!
  }
  // A client's rate lies mostly about the mean, and now and then far from it: two Gammas, without what hangs on neither.
  const lean = UNLIKE_SHAPE * c
  const usual = Math.log(1 - unlike) + c * Math.log(c / mean) - logGamma(c)
  const other = Math.log(unlike) + lean * Math.log(lean / mean) - logGamma(lean)
  /** Where the logarithm of the rate lies for a shape, and how surely: the mode, by Newton's method, and the curvature there. */
  const peakOf = (z: number) => {
    let at = Math.log((share * count + lean) / (share * exposure + lean / mean))
    let bend = 1
    for (let step = 0; step < NEWTON_STEPS; step++) {
      const rate = Math.exp(at)
      const near = Math.exp(usual + c * (at - rate / mean))
      const far = Math.exp(other + lean * (at - rate / mean))
      const prior = (c * near + lean * far) / (near + far)
      let slope = prior * (1 - rate / mean) + share * count
      bend = (prior * rate) / mean
      for (let k = 0; k < n; k++) {
        const x = (rate * exposures[k]!) / z
        const pull = (share * (counts[k]! + z)) / (1 + x)
        slope -= pull * x
        bend += (pull * x) / (1 + x)
      }
      at += Math.max(-1, Math.min(1, slope / Math.max(bend, 0.3)))
    }
    return { middle: at, spread: 1 / Math.sqrt(Math.max(bend, 0.3)) }
  }
  const size = SHAPES.length * CELLS
  const logs = new Float64Array(size)
  const rates = new Float64Array(size)
  const prior = new Float64Array(CELLS)
  const like = new Float64Array(CELLS)
  SHAPES.forEach(([times, odds], g) => {
    const z = pooling.betweenZones * times
    const { middle, spread } = peakOf(z)
    let [peak, whole] = [-Infinity, -Infinity]
    for (let i = 0; i < CELLS; i++) {
      const log = middle + spread * (((ABOVE + BELOW) * i) / (CELLS - 1) - BELOW)
      const rate = Math.exp(log)
      rates[g * CELLS + i] = rate
      const near = usual + c * (log - rate / mean)
      const far = other + lean * (log - rate / mean)
      const most = Math.max(near, far)
      prior[i] = most + Math.log(Math.exp(near - most) + Math.exp(far - most))
      // Each zone's negative binomial count; what hangs on the shape alone comes below.
      let sum = count * log
      for (let k = 0; k < n; k++) sum -= (counts[k]! + z) * Math.log1p((rate * exposures[k]!) / z)
      like[i] = sum
      peak = Math.max(peak, prior[i]! + share * sum)
      whole = Math.max(whole, prior[i]! + sum)
    }
    let [all, tempered] = [0, 0]
    for (let i = 0; i < CELLS; i++) {
      all += Math.exp(prior[i]! + like[i]! - whole)
      tempered += Math.exp(prior[i]! + share * like[i]! - peak)
    }
    // How unlike zones are is told by all that was counted, a bad day reddens them alike; the level by as much as visits tell.
    const evidence = Math.log(odds) + whole + Math.log(all * spread) + shapeTerms(counts, z)
    for (let i = 0; i < CELLS; i++) {
      logs[g * CELLS + i] = evidence + prior[i]! + share * like[i]! - peak - Math.log(tempered)
    }
  })
  const best = Math.max(...logs)
  const least = best + Math.log(LEAST_WEIGHT)
  const kept = [...logs.keys()].filter((i) => logs[i]! > least)
  const weights = kept.map((i) => Math.exp(logs[i]! - best))
  const total = weights.reduce((s, w) => s + w, 0)
  return {
    rates: kept.map((i) => rates[i]!),
    shapes: kept.map((i) => pooling.betweenZones * SHAPES[Math.floor(i / CELLS)]![0]),
    weights: weights.map((w) => w / total),
    seen: Object.fromEntries(seen),
    visitSpread: sums.visitSpread,
  }
}

/** Σ log Γ(y + z)/Γ(z) z^−y over zones: what of the negative binomial hangs on the shape alone. */
function shapeTerms(counts: Float64Array, z: number): number {
  let sum = 0
  for (const count of counts) if (count > 0) sum += risingLog(z, count) - count * Math.log(z)
  return sum
}

/**
 * What is believed of one zone: of all Gammas the one that lies nearest the mixture over rates and shapes, with its mean and its
 * mean logarithm (Kullback–Leibler projection onto an exponential family; from memory).
 */
export function zoneSensitivity(belief: SkinBelief, zone: string): Sensitivity {
  const { rates, shapes, weights } = belief
  const { count, exposure } = belief.seen[zone] ?? { count: 0, exposure: 0 }
  let mean = 0
  let log = 0
  // Nodes of one shape follow one another.
  let [last, psi] = [NaN, 0]
  for (let i = 0; i < rates.length; i++) {
    const shape = shapes[i]! + count
    if (shape !== last) [last, psi] = [shape, digamma(shape)]
    const rate = shapes[i]! / rates[i]! + exposure
    mean += (weights[i]! * shape) / rate
    log += weights[i]! * (psi - Math.log(rate))
  }
  const shape = gammaShape(Math.log(mean) - log)
  return { shape, rate: shape / mean, visitSpread: belief.visitSpread }
}

/**
 * What is believed of each zone.
 * @param zones zones to answer for; those without outcomes get what the client's others say
 */
export function poolZones(
  zones: readonly string[],
  sums: SkinSums,
  pooling: Pooling,
): Record<string, Sensitivity> {
  const belief = believe(sums, pooling)
  let unseen: Sensitivity | undefined
  return Object.fromEntries(
    zones.map((zone) => [
      zone,
      belief.seen[zone]
        ? zoneSensitivity(belief, zone)
        : (unseen ??= zoneSensitivity(belief, zone)),
    ]),
  )
}

/**
 * A client's skin by zone.
 * @param visits outcomes of each visit, oldest first
 * @param mean what the studio has found for such skin; the estimate of the house when left out
 */
export function learnZones(
  figures: Figures,
  zones: readonly string[],
  reactivity: Reactivity,
  visits: readonly (readonly SkinOutcome[])[],
  mean = expectedMean(figures, reactivity),
): Record<string, Sensitivity> {
  return poolZones(zones, sumVisits(figures, visits, mean), skinPooling(figures, mean))
}

/** How zones and clients of a kind of skin hang together. */
export const skinPooling = (figures: Figures, mean: number): Pooling => ({
  mean,
  betweenClients: figures(SKIN_CONSTANTS.betweenClients),
  betweenZones: figures(SKIN_CONSTANTS.betweenZones),
  unlike: figures(SKIN_CONSTANTS.unlikeClients),
})

/** What a client has answered so far, summed. */
export interface ClientSum {
  readonly clientId: string
  readonly reactivity: Reactivity
  readonly grade: number
  readonly load: number
}

/** What the studio has found for each kind of skin. */
export interface StudioSkin {
  /** Grade per unit load. */
  readonly mean: Readonly<Record<Reactivity, number>>
  /** Clients with answers behind it. */
  readonly clients: Readonly<Record<Reactivity, number>>
  /** The mean without each tenth of the clients in turn: nobody is forecast by what was learned of their own visits. */
  readonly without: readonly Readonly<Record<Reactivity, number>>[]
}

const TENTHS = 10

/** The tenth of the clients that one belongs to: by their id, so that it stays. */
function tenthOf(clientId: string): number {
  let hash = 0
  for (let i = 0; i < clientId.length; i++) hash = (hash * 31 + clientId.charCodeAt(i)) >>> 0
  return hash % TENTHS
}

/** Mean grade per unit load that is expected of a client, from what others showed. */
export const expectedOf = (
  studio: StudioSkin,
  client: { readonly clientId: string; readonly reactivity: Reactivity },
): number => studio.without[tenthOf(client.clientId)]![client.reactivity]

/**
 * Learns the studio's mean of each kind of skin: the house's estimate, moved by every client with answers. A client who comes
 * often counts no more than `studioWeight` of load, so that one person does not speak for all.
 */
export function learnStudio(figures: Figures, clients: readonly ClientSum[]): StudioSkin {
  const kinds = ['tough', 'average', 'reactive'] as const
  const own = (kind: Reactivity) => clients.filter((c) => c.reactivity === kind && c.load > 0)
  const table = <T>(of: (kind: Reactivity) => T) =>
    Object.fromEntries(kinds.map((k) => [k, of(k)])) as Record<Reactivity, T>
  return {
    mean: table((kind) => studioMean(figures, expectedMean(figures, kind), own(kind))),
    clients: table((kind) => own(kind).length),
    without: Array.from({ length: TENTHS }, (_, tenth) =>
      table((kind) =>
        studioMean(
          figures,
          expectedMean(figures, kind),
          own(kind).filter((c) => tenthOf(c.clientId) !== tenth),
        ),
      ),
    ),
  }
}

const STUDIO_CELLS = 81

function studioMean(figures: Figures, expected: number, clients: readonly ClientSum[]): number {
  if (clients.length === 0) return expected
  const doubt = figures(SKIN_CONSTANTS.studioDoubt)
  const shape = figures(SKIN_CONSTANTS.betweenClients)
  const most = figures(SKIN_CONSTANTS.studioWeight)
  const sums = clients.map((c) => {
    const share = Math.min(1, most / c.load)
    return { count: c.grade * share, exposure: c.load * share }
  })
  let peak = -Infinity
  const logs = Array.from({ length: STUDIO_CELLS }, (_, i) => {
    const x = 4 * doubt * ((2 * i) / (STUDIO_CELLS - 1) - 1)
    const mean = expected * Math.exp(x)
    let p = -0.5 * (x / doubt) ** 2
    for (const s of sums) {
      p += s.count * Math.log(mean) - (s.count + shape) * Math.log1p((mean * s.exposure) / shape)
    }
    peak = Math.max(peak, p)
    return [mean, p] as const
  })
  let total = 0
  let sum = 0
  for (const [mean, p] of logs) {
    const w = Math.exp(p - peak)
    total += w
    sum += w * mean
  }
  return sum / total
}
