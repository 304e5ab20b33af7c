/**
 * Poisson regression with a log link by Newton's method (McCullagh & Nelder 1989, ch. 6), with a normal prior on any
 * coefficient: what draws groups together (pooling) and keeps a factor that hardly varied near "no effect".
 * Levels of many groups (one of which a row has at most) make the equations an arrow: they are taken out exactly, one by one,
 * so that thousands of them cost no more than their number (block elimination; Golub & Van Loan 1996, § 3.2; from memory).
 */

export interface PoissonRow extends Design {
  /** Count. */
  readonly y: number
  /** What the count was seen over, > 0; it enters as its logarithm. */
  readonly exposure: number
}

export interface PoissonFit {
  /** Coefficients on the log scale. */
  readonly beta: readonly number[]
  /** Standard error of one of them (of the posterior, where a prior was given). */
  readonly seOf: (column: number) => number
  readonly deviance: number
  /** Pearson's chi-square over the degrees of freedom: above 1 when counts scatter more than chance alone. */
  readonly dispersion: number
  readonly rounds: number
}

const MOST_ROUNDS = 60
const CLOSE = 1e-9

/** A way in which a count may be explained: columns that are not zero, and their values. */
export interface Design {
  readonly columns: readonly number[]
  readonly values: readonly number[]
}

/** Counts, many of which share the few ways in which they are explained; each may be of one group, which has its own level. */
export class CountRows {
  readonly designs: Design[] = []
  length = 0
  y = new Float64Array(64)
  exposure = new Float64Array(64)
  design = new Int32Array(64)
  /** The group of a row; −1 for none. */
  level = new Int32Array(64)

  /** @returns the number of the design, for `add` */
  explainedBy(design: Design): number {
    return this.designs.push(design) - 1
  }

  /** @throws RangeError when the count is below 0 or seen over nothing */
  add(design: number, y: number, exposure: number, level = -1): void {
    if (!(exposure > 0) || !(y >= 0)) {
      throw new RangeError('A row needs a count of at least 0 over an exposure above 0.')
    }
    const r = this.length++
    if (r === this.y.length) {
      this.y = longer(this.y, new Float64Array(2 * r))
      this.exposure = longer(this.exposure, new Float64Array(2 * r))
      this.design = longer(this.design, new Int32Array(2 * r))
      this.level = longer(this.level, new Int32Array(2 * r))
    }
    this.y[r] = y
    this.exposure[r] = exposure
    this.design[r] = design
    this.level[r] = level
  }
}

function longer<T extends Float64Array | Int32Array>(list: T, next: T): T {
  next.set(list)
  return next
}

function laid(rows: readonly PoissonRow[]): CountRows {
  const all = new CountRows()
  for (const row of rows) all.add(all.explainedBy(row), row.y, row.exposure)
  return all
}

/**
 * @param rows counts with what may explain them
 * @param columns number of coefficients, those of levels left out
 * @param precision prior precision of each coefficient (1/variance around 0), those of levels after the others; 0 for none
 * @param levels number of groups that have a level of their own
 * @returns coefficients of the columns, then of the levels
 * @throws RangeError when a column is unknown, an exposure is not positive, or the equations cannot be solved (a column
 *   without a prior that the others already hold)
 */
export function fitPoisson(
  rows: readonly PoissonRow[] | CountRows,
  columns: number,
  precision: readonly number[] = new Array<number>(columns).fill(0),
  levels = 0,
): PoissonFit {
  const all = rows instanceof CountRows ? rows : laid(rows)
  for (const { columns: own } of all.designs) {
    if (own.some((c) => c < 0 || c >= columns)) throw new RangeError('No such column.')
  }
  const totals = totalsOf(all, levels)
  const beta = new Float64Array(columns + levels)
  // Where the first column is the level of all, the mean rate is a good place to begin.
  if (all.designs.every((d) => d.columns[0] === 0 && d.values[0] === 1)) {
    beta[0] = Math.log((totals.counted + 0.5) / (totals.seen + 0.5))
  }
  if (levels > 0) beta.set(nearby(all, totals, precision, columns))
  let value = penalised(all, totals, beta, precision, columns)
  let rounds = 0
  for (; rounds < MOST_ROUNDS; rounds++) {
    const arrow = slopes(all, totals, beta, precision, columns)
    const step = factored(arrow).solve(arrow.gradient)
    let share = 1
    let next = move(beta, step, share)
    let there = penalised(all, totals, next, precision, columns)
    // Newton may overshoot where counts are few: halve until it gains.
    while (!(there >= value) && share > 1e-6) {
      share /= 2
      next = move(beta, step, share)
      there = penalised(all, totals, next, precision, columns)
    }
    const gained = there - value
    beta.set(next)
    value = there
    if (gained < CLOSE * (1 + Math.abs(value))) break
  }
  const factor = factored(slopes(all, totals, beta, precision, columns))
  // Asked for one by one: most columns are levels whose error nobody needs.
  const seOf = (column: number) => {
    const unit = new Float64Array(beta.length)
    unit[column] = 1
    return Math.sqrt(factor.solve(unit)[column]!)
  }
  const { ofDesign, ofLevel } = rates(all, beta, columns)
  let deviance = 0
  let pearson = 0
  for (let r = 0; r < all.length; r++) {
    const y = all.y[r]!
    const level = all.level[r]!
    const mean = all.exposure[r]! * ofDesign[all.design[r]!]! * (level < 0 ? 1 : ofLevel[level]!)
    deviance += 2 * ((y > 0 ? y * Math.log(y / mean) : 0) - (y - mean))
    pearson += (y - mean) ** 2 / mean
  }
  const free = Math.max(1, all.length - precision.filter((p) => p === 0).length)
  return { beta: [...beta], seOf, deviance, dispersion: pearson / free, rounds: rounds + 1 }
}

/** Counts by design and by level: they do not change from round to round. */
interface Totals {
  readonly counted: number
  readonly seen: number
  readonly byDesign: Float64Array
  readonly byLevel: Float64Array
}

function totalsOf(rows: CountRows, levels: number): Totals {
  const byDesign = new Float64Array(rows.designs.length)
  const byLevel = new Float64Array(levels)
  let [counted, seen] = [0, 0]
  for (let r = 0; r < rows.length; r++) {
    const level = rows.level[r]!
    if (level >= levels) throw new RangeError('No such level.')
    counted += rows.y[r]!
    seen += rows.exposure[r]!
    byDesign[rows.design[r]!]! += rows.y[r]!
    if (level >= 0) byLevel[level]! += rows.y[r]!
  }
  return { counted, seen, byDesign, byLevel }
}

/** A place to begin from: the columns as if there were no groups, then each level by itself. */
function nearby(
  rows: CountRows,
  { byDesign, byLevel }: Totals,
  precision: readonly number[],
  first: number,
): Float64Array {
  const exposures = new Float64Array(rows.designs.length)
  for (let r = 0; r < rows.length; r++) exposures[rows.design[r]!]! += rows.exposure[r]!
  const together = new CountRows()
  rows.designs.forEach((design, d) => {
    if (exposures[d]! > 0) together.add(together.explainedBy(design), byDesign[d]!, exposures[d]!)
  })
  const fit = fitPoisson(together, first, precision.slice(0, first))
  const beta = new Float64Array(first + byLevel.length)
  beta.set(fit.beta)
  const { ofDesign } = rates(rows, beta, first)
  const expected = new Float64Array(byLevel.length)
  for (let r = 0; r < rows.length; r++) {
    const level = rows.level[r]!
    if (level >= 0) expected[level]! += rows.exposure[r]! * ofDesign[rows.design[r]!]!
  }
  byLevel.forEach((y, l) => {
    let at = 0
    for (let i = 0; i < 4; i++) {
      const mean = expected[l]! * Math.exp(at)
      const pull = precision[first + l]!
      at += Math.max(-1, Math.min(1, (y - mean - pull * at) / (mean + pull + 1e-12)))
    }
    beta[first + l] = at
  })
  return beta
}

const linear = ({ columns, values }: Design, beta: Float64Array): number => {
  let eta = 0
  for (let k = 0; k < columns.length; k++) eta += beta[columns[k]!]! * values[k]!
  return eta
}

/** Rate of each design, and the factor of each level. */
const rates = (rows: CountRows, beta: Float64Array, first: number) => ({
  ofDesign: Float64Array.from(rows.designs, (d) => Math.exp(linear(d, beta))),
  ofLevel: beta.slice(first).map(Math.exp),
})

/** Log likelihood without its constant, less the prior's pull. */
function penalised(
  rows: CountRows,
  totals: Totals,
  beta: Float64Array,
  precision: readonly number[],
  first: number,
): number {
  const { ofDesign, ofLevel } = rates(rows, beta, first)
  let sum = 0
  rows.designs.forEach((d, i) => (sum += totals.byDesign[i]! * linear(d, beta)))
  totals.byLevel.forEach((y, l) => (sum += y * beta[first + l]!))
  const { length, design, level, exposure } = rows
  for (let r = 0; r < length; r++) {
    const l = level[r]!
    const rate = ofDesign[design[r]!]!
    sum -= exposure[r]! * (l < 0 ? rate : rate * ofLevel[l]!)
  }
  for (let c = 0; c < beta.length; c++) sum -= 0.5 * precision[c]! * beta[c]! * beta[c]!
  return sum
}

/** The equations of a Newton step: `own` for the first columns, and for each level its diagonal and its row beside them. */
interface Arrow {
  readonly first: number
  readonly gradient: Float64Array
  /** first × first, the lower triangle. */
  readonly own: Float64Array
  /** levels × first. */
  readonly beside: Float64Array
  readonly diagonal: Float64Array
}

function slopes(
  rows: CountRows,
  totals: Totals,
  beta: Float64Array,
  precision: readonly number[],
  first: number,
): Arrow {
  const n = beta.length
  const { ofDesign, ofLevel } = rates(rows, beta, first)
  const means = new Float64Array(rows.designs.length)
  const own = new Float64Array(first * first)
  const beside = new Float64Array((n - first) * first)
  const diagonal = new Float64Array(n - first)
  const { from, column, value } = endToEnd(rows.designs)
  const { length, design, level, exposure } = rows
  for (let r = 0; r < length; r++) {
    const d = design[r]!
    const l = level[r]!
    let mean = exposure[r]! * ofDesign[d]!
    if (l >= 0) {
      mean *= ofLevel[l]!
      diagonal[l]! += mean
      const at = l * first
      const end = from[d + 1]!
      for (let k = from[d]!; k < end; k++) beside[at + column[k]!]! += mean * value[k]!
    }
    means[d]! += mean
  }
  const gradient = new Float64Array(n)
  rows.designs.forEach(({ columns, values }, d) => {
    const rest = totals.byDesign[d]! - means[d]!
    for (let k = 0; k < columns.length; k++) {
      const c = columns[k]!
      gradient[c]! += rest * values[k]!
      const scaled = means[d]! * values[k]!
      for (let m = 0; m < columns.length; m++) {
        if (columns[m]! <= c) own[c * first + columns[m]!]! += scaled * values[m]!
      }
    }
  })
  for (let c = 0; c < n; c++) {
    if (c >= first) gradient[c] = totals.byLevel[c - first]! - diagonal[c - first]!
    gradient[c]! -= precision[c]! * beta[c]!
  }
  for (let c = 0; c < n; c++) {
    if (c < first) own[c * first + c]! += precision[c]!
    else diagonal[c - first]! += precision[c]!
  }
  return { first, gradient, own, beside, diagonal }
}

/** Designs laid end to end: they are gone through for every row. */
function endToEnd(designs: readonly Design[]) {
  const from = new Int32Array(designs.length + 1)
  designs.forEach((d, i) => (from[i + 1] = from[i]! + d.columns.length))
  return {
    from,
    column: Int32Array.from(designs.flatMap((d) => d.columns)),
    value: Float64Array.from(designs.flatMap((d) => d.values)),
  }
}

/** Takes the levels out and factors what is left. */
function factored({ first, own, beside, diagonal }: Arrow): {
  solve: (b: Float64Array) => Float64Array
} {
  const rest = Float64Array.from(own)
  for (let l = 0; l < diagonal.length; l++) {
    const d = diagonal[l]!
    if (!(d > 1e-12)) throw new RangeError('These columns cannot be told apart: give them a prior.')
    const at = l * first
    for (let i = 0; i < first; i++) {
      const share = beside[at + i]! / d
      if (share === 0) continue
      for (let j = 0; j <= i; j++) rest[i * first + j]! -= share * beside[at + j]!
    }
  }
  const lower = cholesky(rest, first)
  return {
    solve: (b) => {
      const x = Float64Array.from(b)
      for (let l = 0; l < diagonal.length; l++) {
        const share = b[first + l]! / diagonal[l]!
        for (let i = 0; i < first; i++) x[i]! -= share * beside[l * first + i]!
      }
      x.set(solve(lower, x.subarray(0, first), first))
      for (let l = 0; l < diagonal.length; l++) {
        let left = b[first + l]!
        for (let i = 0; i < first; i++) left -= beside[l * first + i]! * x[i]!
        x[first + l] = left / diagonal[l]!
      }
      return x
    },
  }
}

function move(from: Float64Array, step: Float64Array, share: number): Float64Array {
  const to = new Float64Array(from.length)
  for (let i = 0; i < to.length; i++) to[i] = from[i]! + share * step[i]!
  return to
}

/** Lower triangle L of A = L Lᵀ; A is given by its lower triangle. */
function cholesky(a: Float64Array, n: number): Float64Array<ArrayBuffer> {
  const l = new Float64Array(n * n)
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = a[i * n + j]!
      for (let k = 0; k < j; k++) sum -= l[i * n + k]! * l[j * n + k]!
      if (i !== j) l[i * n + j] = sum / l[j * n + j]!
      else if (sum > 1e-12) l[i * n + i] = Math.sqrt(sum)
      else throw new RangeError('These columns cannot be told apart: give them a prior.')
    }
  }
  return l
}

function solve(l: Float64Array, b: Float64Array, n: number): Float64Array {
  const x = Float64Array.from(b)
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) x[i]! -= l[i * n + k]! * x[k]!
    x[i]! /= l[i * n + i]!
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i]! -= l[k * n + i]! * x[k]!
    x[i]! /= l[i * n + i]!
  }
  return x
}
