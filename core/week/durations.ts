/**
 * How long an appointment takes (M19). What a visit took over what was planned for it is log-normal:
 *
 *   log(took / planned) = μ + service + worker + client + ε,  ε ~ N(0, σ²)
 *
 * with normal priors around nought on all effects, in units of σ, and an inverse gamma on σ². The belief is exact (normal inverse
 * gamma; DeGroot, Optimal Statistical Decisions, 1970; from memory); what the next visit takes has Student's t around it. Clients are
 * many and each visit has one: they are eliminated first, so that what is solved is as small as the house.
 */
import jstat from 'jstat'
import { constant, type Figures } from '../house/index.ts'

export const DURATION_CONSTANTS = {
  scatter: constant(0.22, '', 'Scatter of what a visit takes over its plan, in logarithms', 'H'),
  scatterVisits: constant(6, 'visits', 'That is believed as firmly as so many visits', 'H'),
  houseSpread: constant(1.2, '× scatter', 'How far a house may lie from its plans', 'H'),
  serviceSpread: constant(0.8, '× scatter', 'How services of a house differ in it', 'H'),
  workerSpread: constant(0.8, '× scatter', 'How workers differ in it', 'H'),
  clientSpread: constant(0.6, '× scatter', 'How clients differ in it', 'H'),
  waitOdds: constant(0.2, 'probability', 'The next client waits no more often than this', 'H'),
  longestTimes: constant(4, '×', 'A visit that took more times its plan was forgotten open', 'H'),
} as const

const C = DURATION_CONSTANTS

/** A visit that was done. */
export interface Took {
  readonly service: string
  readonly workerId: string
  readonly clientId: string
  /** What was planned, min. */
  readonly plannedMin: number
  readonly tookMin: number
}

/** What is believed of how long visits take. */
export interface Durations {
  /** Mean of house, services and workers, and its precision's inverse, in units of σ². */
  readonly index: ReadonlyMap<string, number>
  readonly mean: Float64Array
  readonly cov: readonly Float64Array[]
  /** Of each client who was there: what is left of their visits, and how many. */
  readonly clients: ReadonlyMap<string, ClientSums>
  readonly priors: { house: number; service: number; worker: number; client: number }
  /** σ² as believed, and how firmly. */
  readonly scatter2: number
  readonly firm: number
  readonly visits: number
}

interface ClientSums {
  n: number
  y: number
  /** How often each of the others had a part in it. */
  readonly x: Map<number, number>
}

/** Believes what the visits of a house tell. */
export function learnDurations(figures: Figures, visits: readonly Took[]): Durations {
  const longest = Math.log(figures(C.longestTimes))
  const usable = visits.flatMap((v) => {
    const y = Math.log(v.tookMin / v.plannedMin)
    return Number.isFinite(y) && Math.abs(y) <= longest ? [{ ...v, y }] : []
  })
  const index = new Map<string, number>([['house', 0]])
  const place = (key: string) => {
    const at = index.get(key) ?? index.size
    index.set(key, at)
    return at
  }
  const rows = usable.map((v) => ({
    y: v.y,
    clientId: v.clientId,
    at: [0, place(`service:${v.service}`), place(`worker:${v.workerId}`)],
  }))
  const priors = {
    house: figures(C.houseSpread) ** 2,
    service: figures(C.serviceSpread) ** 2,
    worker: figures(C.workerSpread) ** 2,
    client: figures(C.clientSpread) ** 2,
  }
  const p = index.size
  const a = Array.from({ length: p }, () => new Float64Array(p))
  const b = new Float64Array(p)
  for (const [key, i] of index) a[i]![i] = 1 / priorOf(priors, key)
  const clients = new Map<string, ClientSums>()
  let yy = 0
  for (const { y, clientId, at } of rows) {
    yy += y * y
    const own = clients.get(clientId) ?? { n: 0, y: 0, x: new Map<number, number>() }
    own.n++
    own.y += y
    for (const i of at) {
      own.x.set(i, (own.x.get(i) ?? 0) + 1)
      b[i]! += y
      for (const j of at) a[i]![j]! += 1
    }
    clients.set(clientId, own)
  }
  // Clients taken out: each has one precision and touches few of the others.
  let gone = 0
  for (const { n, y, x } of clients.values()) {
    const d = n + 1 / priors.client
    gone += (y * y) / d
    for (const [i, xi] of x) {
      b[i]! -= (xi * y) / d
      for (const [j, xj] of x) a[i]![j]! -= (xi * xj) / d
    }
  }
  const cov = inverse(a)
  const mean = Float64Array.from(cov, (row) => row.reduce((s, c, j) => s + c * b[j]!, 0))
  const explained = gone + mean.reduce((s, m, i) => s + m * b[i]!, 0)
  const firm0 = figures(C.scatterVisits)
  const firm = firm0 + rows.length
  const scatter2 = (firm0 * figures(C.scatter) ** 2 + Math.max(0, yy - explained)) / firm
  return { index, mean, cov, clients, priors, scatter2, firm, visits: rows.length }
}

const priorOf = (priors: Durations['priors'], key: string): number =>
  key === 'house' ? priors.house : key.startsWith('service:') ? priors.service : priors.worker

/** Inverse of a symmetric positive matrix by Cholesky's way. */
function inverse(a: readonly Float64Array[]): Float64Array[] {
  const n = a.length
  const l = a.map((row) => Float64Array.from(row))
  for (let j = 0; j < n; j++) {
    for (let k = 0; k < j; k++) l[j]![j]! -= l[j]![k]! ** 2
    l[j]![j] = Math.sqrt(l[j]![j]!)
    for (let i = j + 1; i < n; i++) {
      for (let k = 0; k < j; k++) l[i]![j]! -= l[i]![k]! * l[j]![k]!
      l[i]![j]! /= l[j]![j]!
    }
  }
  return Array.from({ length: n }, (_, col) => {
    const x = new Float64Array(n)
    for (let i = 0; i < n; i++) {
      let s = i === col ? 1 : 0
      for (let k = 0; k < i; k++) s -= l[i]![k]! * x[k]!
      x[i] = s / l[i]![i]!
    }
    for (let i = n - 1; i >= 0; i--) {
      let s = x[i]!
      for (let k = i + 1; k < n; k++) s -= l[k]![i]! * x[k]!
      x[i] = s / l[i]![i]!
    }
    return x
  })
}

/** Who comes to whom for what, and what is planned, min. */
export type Coming = Pick<Took, 'service' | 'workerId' | 'clientId' | 'plannedMin'>

/** What a visit takes, min: the middle, and what it exceeds with each odds. */
export interface Takes {
  readonly midMin: number
  /** What it stays below with these odds. */
  readonly within: (odds: number) => number
}

export function takes(d: Durations, coming: Coming): Takes {
  // x: what has a part in it, among those that were there before; others are as uncertain as their prior.
  const keys = ['house', `service:${coming.service}`, `worker:${coming.workerId}`]
  const known = keys.flatMap((k) => d.index.get(k) ?? [])
  let spread = keys.reduce((s, k) => (d.index.has(k) ? s : s + priorOf(d.priors, k)), 0)
  const own = d.clients.get(coming.clientId)
  const weights = new Map<number, number>(known.map((i) => [i, 1]))
  let mid = 0
  if (own) {
    const prec = own.n + 1 / d.priors.client
    mid += own.y / prec
    spread += 1 / prec
    for (const [i, xi] of own.x) weights.set(i, (weights.get(i) ?? 0) - xi / prec)
  } else spread += d.priors.client
  for (const [i, w] of weights) {
    mid += w * d.mean[i]!
    for (const [j, v] of weights) spread += w * v * d.cov[i]![j]!
  }
  const scale = Math.sqrt(d.scatter2 * (1 + spread))
  const of = (t: number) => coming.plannedMin * Math.exp(mid + t * scale)
  return { midMin: of(0), within: (odds) => of(jstat.studentt.inv(odds, d.firm)) }
}

/** Minutes on the book, upwards to the grid, so that the next client waits no more often than the house allows. */
export function bookedMinutes(
  figures: Figures,
  d: Durations,
  coming: Coming,
  besidesMin: number,
  gridMin: number,
): number {
  const min = takes(d, coming).within(1 - figures(C.waitOdds)) + besidesMin
  return Math.max(gridMin, Math.ceil(min / gridMin - 1e-9) * gridMin)
}
