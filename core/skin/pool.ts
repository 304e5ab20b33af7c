/**
 * Learning with few visits (M7): a zone leans on the client's other zones, a client on all clients of the studio with such
 * skin. Rate of a zone k = k_client · e, e ~ Gamma(z, z); k_client ~ Gamma(c, c/m); m is learned over clients. The client's
 * rate is integrated over a grid; each zone's posterior is given back as the Gamma with its mean and spread.
 */
import type { Figures } from '../house/index.ts'
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
  readonly betweenZones: number
}

/** Counts and exposure summed, by zone. */
export type ZoneSums = ReadonlyMap<string, { readonly count: number; readonly exposure: number }>

/** Cells of the grid over a client's rate, evenly in its logarithm. */
const CELLS = 28
/** The grid reaches this far below and above what is expected, as factors. */
const BELOW = 1 / 40
const ABOVE = 14

/** Sums outcomes by zone. */
export function zoneSums(
  outcomes: readonly { zoneId: string; load: number; grade: number }[],
): ZoneSums {
  const sums = new Map<string, { count: number; exposure: number }>()
  for (const o of outcomes) {
    const sum = sums.get(o.zoneId) ?? { count: 0, exposure: 0 }
    sum.count += o.grade
    sum.exposure += o.load
    sums.set(o.zoneId, sum)
  }
  return sums
}

/** What is believed of a client: a grid over their rate, and what has been seen of each zone. Plain data. */
export interface SkinBelief {
  /** Grade per unit load, and the weight of each; the weights sum to 1. */
  readonly rates: readonly number[]
  readonly weights: readonly number[]
  readonly seen: Readonly<Record<string, { readonly count: number; readonly exposure: number }>>
  readonly betweenZones: number
}

/** What is believed of a client's rate after all outcomes. */
export function believe(sums: ZoneSums, pooling: Pooling): SkinBelief {
  const { mean, betweenClients: c, betweenZones: z } = pooling
  const from = Math.log(mean * BELOW)
  const step = (Math.log(mean * ABOVE) - from) / (CELLS - 1)
  const rates: number[] = []
  const logs: number[] = []
  const seen = [...sums].filter(([, s]) => s.exposure > 0)
  const count = seen.reduce((s, [, x]) => s + x.count, 0)
  let peak = -Infinity
  for (let i = 0; i < CELLS; i++) {
    const log = from + i * step
    const rate = Math.exp(log)
    rates.push(rate)
    // Prior of the rate's logarithm, and each zone's negative binomial count; what does not hang on the rate is left out.
    let p = c * log - (c / mean) * rate + count * log
    for (const [, s] of seen) p -= (s.count + z) * Math.log1p((rate * s.exposure) / z)
    logs.push(p)
    if (p > peak) peak = p
  }
  const raw = logs.map((p) => Math.exp(p - peak))
  const total = raw.reduce((s, w) => s + w, 0)
  return {
    rates,
    weights: raw.map((w) => w / total),
    seen: Object.fromEntries(seen),
    betweenZones: z,
  }
}

/** What is believed of one zone: the Gamma with the mean and the spread of the mixture over the client's rate. */
export function zoneSensitivity(belief: SkinBelief, zone: string): Sensitivity {
  const { rates, weights, betweenZones: z } = belief
  const { count, exposure } = belief.seen[zone] ?? { count: 0, exposure: 0 }
  let first = 0
  let second = 0
  for (let i = 0; i < rates.length; i++) {
    const rate = z / rates[i]! + exposure
    const m = (z + count) / rate
    first += weights[i]! * m
    second += weights[i]! * m * (m + 1 / rate)
  }
  const spread = Math.max(1e-9 * first * first, second - first * first)
  return { shape: (first * first) / spread, rate: first / spread }
}

/**
 * What is believed of each zone.
 * @param zones zones to answer for; those without outcomes get what the client's others say
 */
export function poolZones(
  zones: readonly string[],
  sums: ZoneSums,
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
 * @param mean what the studio has found for such skin; the estimate of the house when left out
 */
export function learnZones(
  figures: Figures,
  zones: readonly string[],
  reactivity: Reactivity,
  outcomes: readonly SkinOutcome[],
  mean = expectedMean(figures, reactivity),
): Record<string, Sensitivity> {
  return poolZones(zones, zoneSums(outcomes), skinPooling(figures, mean))
}

/** How zones and clients of a kind of skin hang together. */
export const skinPooling = (figures: Figures, mean: number): Pooling => ({
  mean,
  betweenClients: figures(SKIN_CONSTANTS.betweenClients),
  betweenZones: figures(SKIN_CONSTANTS.betweenZones),
})

/** What a client has answered so far, summed. */
export interface ClientSum {
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
}

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
