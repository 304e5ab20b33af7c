/**
 * Counts that come visit by visit: a log-linear model with a level of each visit that nobody sees. Given that level counts
 * are Poisson; the level is Gamma with mean 1 and variance τ², and integrates out: the counts of a visit together are
 * negative multinomial (Johnson, Kotz & Balakrishnan 1997, ch. 36; random-effects Poisson regression as in Breslow & Clayton
 * 1993; from memory). τ is summed over a grid by its evidence (Laplace). Normal priors draw groups together. Levels of many
 * groups make the equations an arrow: they are taken out exactly (block elimination; Golub & Van Loan 1996, § 3.2; from memory).
 */
import { cholesky, solveCholesky } from './cholesky.ts'

/** A way in which a count may be explained: columns that are not zero, and their values. */
export interface Design {
  readonly columns: readonly number[]
  readonly values: readonly number[]
}

export interface CountFit {
  /** Coefficients of the columns on the log scale: mean and standard error over what is believed of the spread. */
  readonly beta: readonly number[]
  readonly se: readonly number[]
  /** Spread of the level between visits (its standard deviation), and those of the grid that may be. */
  readonly spread: number
  readonly likely: readonly number[]
}

/** Visits with what was counted on each; many share the few ways in which a count is explained. */
export class CountVisits {
  readonly designs: Design[] = []
  /** Members of all visits end to end, and where each visit begins. */
  readonly members: number[] = []
  readonly from: number[] = [0]
  readonly totals: number[] = []
  /** The group of a visit; −1 for none. */
  readonly level: number[] = []
  readonly byDesign: number[] = []

  /** @returns the number of the design */
  explainedBy(design: Design): number {
    this.byDesign.push(0)
    return this.designs.push(design) - 1
  }

  /**
   * @param members designs of what was looked at on the visit
   * @param total what was counted over all of them, a whole number; where it was is told by `counted`
   * @throws RangeError when the total is no count
   */
  add(members: Iterable<number>, total: number, level = -1): void {
    if (!(total >= 0) || !Number.isInteger(total)) {
      throw new RangeError('A visit needs a whole count of at least 0.')
    }
    for (const d of members) this.members.push(d)
    this.from.push(this.members.length)
    this.totals.push(total)
    this.level.push(level)
  }

  /** So much was counted where this design explains it, over all visits. */
  counted(design: number, count: number): void {
    this.byDesign[design]! += count
  }
}

/** Spreads of the level between visits that are tried, and what each stands for. */
const SPREADS = [0.05, 0.2, 0.35, 0.5, 0.7, 0.9, 1.2, 1.6]
const BEGIN = 3
/** Spread of the spread itself before anything is known. */
const SPREAD_OF_SPREAD = 0.8
/** Evidence so much worse, as a logarithm, is not tried further. */
const RULED_OUT = 7
/** A spread with less than this share of the belief is hardly possible. */
const LEAST = 0.02

/**
 * @param columns number of coefficients, those of levels left out; the first is the level of all where every design has it
 * @param precision prior precision of each coefficient (1/variance around 0), those of levels after the others
 * @param levels number of groups that have a level of their own
 * @param options spreads of the level between visits that are tried, rising, and coefficients of the columns to begin from
 * @throws RangeError when a column is unknown, or the equations cannot be solved (a column without a prior that the others
 *   already hold)
 */
export function fitCounts(
  visits: CountVisits,
  columns: number,
  precision: readonly number[],
  levels = 0,
  { spreads = SPREADS, from }: { spreads?: readonly number[]; from?: readonly number[] } = {},
): CountFit {
  for (const d of visits.designs) {
    if (d.columns.some((c) => c < 0 || c >= columns)) throw new RangeError('No such column.')
  }
  const data = laidOut(visits, columns, levels)
  const fits = new Map<number, Mode>()
  let beta = begin(data)
  if (from) beta.set(from)
  const reach = (i: number) => {
    const fit = mode(data, precision, spreads[i]!, beta)
    beta = fit.beta
    fits.set(i, fit)
    return fit.evidence
  }
  const start = Math.min(BEGIN, spreads.length - 1)
  let best = reach(start)
  for (const way of [1, -1]) {
    beta = fits.get(start)!.beta
    for (let i = start + way; i >= 0 && i < spreads.length; i += way) {
      const evidence = reach(i)
      best = Math.max(best, evidence)
      if (evidence < best - RULED_OUT) break
    }
  }
  const parts = [...fits]
    .sort(([a], [b]) => a - b)
    .map(([i, fit]) => ({
      fit,
      spread: spreads[i]!,
      weight:
        width(spreads, i) *
        Math.exp(fit.evidence - best - 0.5 * (spreads[i]! / SPREAD_OF_SPREAD) ** 2),
    }))
  const total = parts.reduce((s, p) => s + p.weight, 0)
  const over = (of: (p: (typeof parts)[number]) => number) =>
    parts.reduce((s, p) => s + (p.weight * of(p)) / total, 0)
  const mean = Array.from({ length: columns }, (_, c) => over((p) => p.fit.beta[c]!))
  return {
    beta: mean,
    se: mean.map((m, c) => Math.sqrt(over((p) => p.fit.variance[c]! + (p.fit.beta[c]! - m) ** 2))),
    spread: over((p) => p.spread),
    likely: parts.filter((p) => p.weight > LEAST * total).map((p) => p.spread),
  }
}

/** What a spread of the grid stands for: half way to its neighbours. */
function width(spreads: readonly number[], i: number): number {
  if (spreads.length === 1) return 1
  const low = i === 0 ? spreads[0]! : (spreads[i - 1]! + spreads[i]!) / 2
  const high = i === spreads.length - 1 ? spreads[i]! : (spreads[i]! + spreads[i + 1]!) / 2
  return high - low
}

/** The visits in flat lists. */
interface Data {
  readonly first: number
  readonly levels: number
  readonly from: Int32Array
  readonly members: Int32Array
  readonly totals: Float64Array
  readonly level: Int32Array
  /** By count, on how many visits more was counted. */
  readonly above: readonly number[]
  readonly byDesign: Float64Array
  readonly byLevel: Float64Array
  /** Designs end to end. */
  readonly at: Int32Array
  readonly column: Int32Array
  readonly value: Float64Array
}

function laidOut(v: CountVisits, first: number, levels: number): Data {
  const at = new Int32Array(v.designs.length + 1)
  v.designs.forEach((d, i) => (at[i + 1] = at[i]! + d.columns.length))
  const byLevel = new Float64Array(levels)
  v.level.forEach((l, i) => {
    if (l >= levels) throw new RangeError('No such level.')
    if (l >= 0) byLevel[l]! += v.totals[i]!
  })
  const above: number[] = []
  for (const y of v.totals) for (let j = 0; j < y; j++) above[j] = (above[j] ?? 0) + 1
  return {
    ...{ first, levels, at, above, byLevel },
    from: Int32Array.from(v.from),
    members: Int32Array.from(v.members),
    totals: Float64Array.from(v.totals),
    level: Int32Array.from(v.level),
    byDesign: Float64Array.from(v.byDesign),
    column: Int32Array.from(v.designs.flatMap((d) => d.columns)),
    value: Float64Array.from(v.designs.flatMap((d) => d.values)),
  }
}

/** The mean rate is a good place to begin, where the first column is the level of all. */
function begin(data: Data): Float64Array {
  const beta = new Float64Array(data.first + data.levels)
  const counted = data.byDesign.reduce((s, y) => s + y, 0)
  beta[0] = Math.log((counted + 0.5) / (data.members.length + 0.5))
  return beta
}

/** The mode at one spread, the variances of the columns there, and the evidence. */
interface Mode {
  readonly beta: Float64Array
  readonly variance: readonly number[]
  readonly evidence: number
}

const MOST_ROUNDS = 60
/** A gain of the logarithm too small to matter: the next step of Newton’s is its square. */
const CLOSE = 1e-4

function mode(data: Data, precision: readonly number[], spread: number, from: Float64Array): Mode {
  const k = 1 / (spread * spread)
  let here = slopes(data, precision, k, from)
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const step = factored(here).solve(here.gradient)
    let share = 1
    let next: Arrow
    // Newton may overshoot where counts are few: halve until it gains.
    do {
      next = slopes(
        data,
        precision,
        k,
        here.beta.map((b, i) => b + share * step[i]!),
      )
      share /= 2
    } while (!(next.value >= here.value) && share > 1e-6)
    if (!(next.value >= here.value)) break
    const gained = next.value - here.value
    here = next
    if (gained < CLOSE) break
  }
  const factor = factored(here)
  return { beta: here.beta, variance: factor.variance, evidence: here.value - 0.5 * factor.logDet }
}

/** Value, slopes and curvature: `own` for the first columns, and for each level its diagonal and its row beside them. */
interface Arrow {
  readonly beta: Float64Array
  readonly value: number
  readonly first: number
  readonly gradient: Float64Array
  /** first × first, the lower triangle. */
  readonly own: Float64Array
  /** levels × first. */
  readonly beside: Float64Array
  readonly diagonal: Float64Array
}

function slopes(data: Data, precision: readonly number[], k: number, beta: Float64Array): Arrow {
  const { first, levels, from, members, totals, level, at, column, value: values } = data
  const designs = at.length - 1
  const eta = new Float64Array(designs)
  const rate = new Float64Array(designs)
  let value = 0
  for (let d = 0; d < designs; d++) {
    let sum = 0
    for (let i = at[d]!; i < at[d + 1]!; i++) sum += beta[column[i]!]! * values[i]!
    eta[d] = sum
    rate[d] = Math.exp(sum)
    value += data.byDesign[d]! * sum
  }
  const factor = beta.slice(first).map(Math.exp)
  const own = new Float64Array(first * first)
  const beside = new Float64Array(levels * first)
  const diagonal = new Float64Array(levels)
  const expected = new Float64Array(designs)
  const levelExpected = new Float64Array(levels)
  const m = new Float64Array(first)
  const there = new Int32Array(first)
  for (let v = 0; v < totals.length; v++) {
    const l = level[v]!
    const up = l < 0 ? 1 : factor[l]!
    const y = totals[v]!
    let mean = 0
    for (let i = from[v]!; i < from[v + 1]!; i++) mean += rate[members[i]!]!
    mean *= up
    const g = (y + k) / (k + mean)
    const h = g / (k + mean)
    value -= (y + k) * Math.log1p(mean / k)
    m.fill(0)
    for (let i = from[v]!; i < from[v + 1]!; i++) {
      const d = members[i]!
      const mu = up * rate[d]!
      expected[d]! += g * mu
      for (let c = at[d]!; c < at[d + 1]!; c++) m[column[c]!]! += mu * values[c]!
    }
    // What the visit's own level explains is not told by its counts.
    let many = 0
    for (let c = 0; c < first; c++) if (m[c] !== 0) there[many++] = c
    for (let r = 0; r < many; r++) {
      const a = h * m[there[r]!]!
      const row = there[r]! * first
      for (let c = 0; c <= r; c++) own[row + there[c]!]! -= a * m[there[c]!]!
    }
    if (l < 0) continue
    levelExpected[l]! += g * mean
    diagonal[l]! += g * mean - h * mean * mean
    const row = l * first
    const share = g - h * mean
    for (let c = 0; c < first; c++) beside[row + c]! += share * m[c]!
  }
  data.above.forEach((visits, j) => (value += visits * Math.log1p(j / k)))
  const gradient = new Float64Array(beta.length)
  for (let d = 0; d < designs; d++) {
    const rest = data.byDesign[d]! - expected[d]!
    const end = at[d + 1]!
    for (let i = at[d]!; i < end; i++) {
      const c = column[i]!
      gradient[c]! += rest * values[i]!
      const scaled = expected[d]! * values[i]!
      for (let n = at[d]!; n < end; n++) {
        if (column[n]! <= c) own[c * first + column[n]!]! += scaled * values[n]!
      }
    }
  }
  for (let l = 0; l < levels; l++) {
    value += data.byLevel[l]! * beta[first + l]!
    gradient[first + l]! += data.byLevel[l]! - levelExpected[l]!
  }
  for (let c = 0; c < beta.length; c++) {
    value -= 0.5 * precision[c]! * beta[c]! * beta[c]!
    gradient[c]! -= precision[c]! * beta[c]!
    if (c < first) own[c * first + c]! += precision[c]!
    else diagonal[c - first]! += precision[c]!
  }
  return { beta, value, first, gradient, own, beside, diagonal }
}

/** Takes the levels out and factors what is left. */
function factored({ first, own, beside, diagonal }: Arrow): {
  solve: (b: Float64Array) => Float64Array
  /** Of the first columns. */
  variance: number[]
  logDet: number
} {
  const rest = Float64Array.from(own)
  let logDet = 0
  for (let l = 0; l < diagonal.length; l++) {
    const d = diagonal[l]!
    if (!(d > 1e-12)) throw new RangeError('These columns cannot be told apart: give them a prior.')
    logDet += Math.log(d)
    const at = l * first
    for (let i = 0; i < first; i++) {
      const share = beside[at + i]! / d
      if (share === 0) continue
      for (let j = 0; j <= i; j++) rest[i * first + j]! -= share * beside[at + j]!
    }
  }
  const lower = cholesky(rest, first)
  if (!lower) throw new RangeError('These columns cannot be told apart: give them a prior.')
  for (let c = 0; c < first; c++) logDet += 2 * Math.log(lower[c * first + c]!)
  const variance = Array.from({ length: first }, (_, c) => {
    const unit = new Float64Array(first)
    unit[c] = 1
    return solveCholesky(lower, unit, first)[c]!
  })
  return {
    variance,
    logDet,
    solve: (b) => {
      const x = Float64Array.from(b)
      for (let l = 0; l < diagonal.length; l++) {
        const share = b[first + l]! / diagonal[l]!
        for (let i = 0; i < first; i++) x[i]! -= share * beside[l * first + i]!
      }
      x.set(solveCholesky(lower, x.subarray(0, first), first))
      for (let l = 0; l < diagonal.length; l++) {
        let left = b[first + l]!
        for (let i = 0; i < first; i++) left -= beside[l * first + i]! * x[i]!
        x[first + l] = left / diagonal[l]!
      }
      return x
    },
  }
}
