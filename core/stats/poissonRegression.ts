/**
 * Poisson regression with a log link by Newton's method (McCullagh & Nelder 1989, ch. 6), with a normal prior on any
 * coefficient: what draws groups together (pooling) and keeps a factor that hardly varied near "no effect".
 */

export interface PoissonRow {
  /** Columns that are not zero: index and value. */
  readonly x: readonly (readonly [column: number, value: number])[]
  /** Count. */
  readonly y: number
  /** What the count was seen over, > 0; it enters as its logarithm. */
  readonly exposure: number
  /** Visits behind this row: 1 unless rows alike were put together. */
  readonly visits?: number
}

export interface PoissonFit {
  /** Coefficients on the log scale. */
  readonly beta: readonly number[]
  /** Their standard errors (of the posterior, where a prior was given). */
  readonly se: readonly number[]
  readonly deviance: number
  /** Pearson's chi-square over the degrees of freedom: above 1 when counts scatter more than chance alone. */
  readonly dispersion: number
  readonly rounds: number
}

const MOST_ROUNDS = 60
const CLOSE = 1e-9

/**
 * @param rows counts with what may explain them
 * @param columns number of coefficients
 * @param precision prior precision of each coefficient (1/variance around 0); 0 for none
 * @throws RangeError when a column is unknown, an exposure is not positive, or the equations cannot be solved (a column
 *   without a prior that the others already hold)
 */
export function fitPoisson(
  rows: readonly PoissonRow[],
  columns: number,
  precision: readonly number[] = new Array<number>(columns).fill(0),
): PoissonFit {
  for (const row of rows) {
    if (!(row.exposure > 0) || !(row.y >= 0)) {
      throw new RangeError('A row needs a count of at least 0 over an exposure above 0.')
    }
    if (row.x.some(([c]) => c < 0 || c >= columns)) throw new RangeError('No such column.')
  }
  const beta = new Float64Array(columns)
  let value = penalised(rows, beta, precision)
  let factor = new Float64Array(columns * columns)
  let rounds = 0
  for (; rounds < MOST_ROUNDS; rounds++) {
    const { gradient, hessian } = slopes(rows, beta, precision, columns)
    factor = cholesky(hessian, columns)
    const step = solve(factor, gradient, columns)
    let share = 1
    let next = move(beta, step, share)
    let there = penalised(rows, next, precision)
    // Newton may overshoot where counts are few: halve until it gains.
    while (!(there >= value) && share > 1e-6) {
      share /= 2
      next = move(beta, step, share)
      there = penalised(rows, next, precision)
    }
    const gained = there - value
    beta.set(next)
    value = there
    if (gained < CLOSE * (1 + Math.abs(value))) break
  }
  factor = cholesky(slopes(rows, beta, precision, columns).hessian, columns)
  const se = Array.from({ length: columns }, (_, c) => {
    const unit = new Float64Array(columns)
    unit[c] = 1
    return Math.sqrt(solve(factor, unit, columns)[c]!)
  })
  let deviance = 0
  let pearson = 0
  let seen = 0
  for (const row of rows) {
    const mean = row.exposure * Math.exp(linear(row, beta))
    deviance += 2 * ((row.y > 0 ? row.y * Math.log(row.y / mean) : 0) - (row.y - mean))
    pearson += (row.y - mean) ** 2 / mean
    seen++
  }
  const free = Math.max(1, seen - precision.filter((p) => p === 0).length)
  return { beta: [...beta], se, deviance, dispersion: pearson / free, rounds: rounds + 1 }
}

function linear(row: PoissonRow, beta: Float64Array): number {
  let eta = 0
  for (const [c, v] of row.x) eta += beta[c]! * v
  return eta
}

/** Log likelihood without its constant, less the prior's pull. */
function penalised(
  rows: readonly PoissonRow[],
  beta: Float64Array,
  precision: readonly number[],
): number {
  let sum = 0
  for (const row of rows) {
    const eta = linear(row, beta)
    sum += row.y * eta - row.exposure * Math.exp(eta)
  }
  for (let c = 0; c < beta.length; c++) sum -= 0.5 * precision[c]! * beta[c]! * beta[c]!
  return sum
}

function slopes(
  rows: readonly PoissonRow[],
  beta: Float64Array,
  precision: readonly number[],
  n: number,
): { gradient: Float64Array; hessian: Float64Array } {
  const gradient = new Float64Array(n)
  const hessian = new Float64Array(n * n)
  for (const row of rows) {
    const mean = row.exposure * Math.exp(linear(row, beta))
    const rest = row.y - mean
    for (const [c, v] of row.x) {
      gradient[c]! += rest * v
      for (const [d, w] of row.x) if (d <= c) hessian[c * n + d]! += mean * v * w
    }
  }
  for (let c = 0; c < n; c++) {
    gradient[c]! -= precision[c]! * beta[c]!
    hessian[c * n + c]! += precision[c]!
  }
  return { gradient, hessian }
}

const move = (from: Float64Array, step: Float64Array, share: number) =>
  from.map((b, i) => b + share * step[i]!)

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
