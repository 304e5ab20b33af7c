/**
 * Poisson regression with a log link by Newton's method (McCullagh & Nelder 1989, ch. 6), with a normal prior on any
 * coefficient: what draws groups together (pooling) and keeps a factor that hardly varied near "no effect".
 */

export interface PoissonRow {
  /** Columns that are not zero, and their values. */
  readonly columns: readonly number[]
  readonly values: readonly number[]
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
    if (row.columns.some((c) => c < 0 || c >= columns)) throw new RangeError('No such column.')
  }
  const flat = flatten(rows)
  const beta = new Float64Array(columns)
  // Where the first column is the level of all, the mean rate is a good place to begin.
  if (rows.every((r) => r.columns[0] === 0 && r.values[0] === 1)) {
    const sum = (of: Float64Array) => of.reduce((s, v) => s + v, 0)
    beta[0] = Math.log((sum(flat.y) + 0.5) / (sum(flat.exposure) + 0.5))
  }
  let value = penalised(flat, beta, precision)
  let rounds = 0
  for (; rounds < MOST_ROUNDS; rounds++) {
    const { gradient, hessian } = slopes(flat, beta, precision, columns)
    const step = solve(cholesky(hessian, columns), gradient, columns)
    let share = 1
    let next = move(beta, step, share)
    let there = penalised(flat, next, precision)
    // Newton may overshoot where counts are few: halve until it gains.
    while (!(there >= value) && share > 1e-6) {
      share /= 2
      next = move(beta, step, share)
      there = penalised(flat, next, precision)
    }
    const gained = there - value
    beta.set(next)
    value = there
    if (gained < CLOSE * (1 + Math.abs(value))) break
  }
  const factor = cholesky(slopes(flat, beta, precision, columns).hessian, columns)
  // Asked for one by one: most columns are levels whose error nobody needs.
  const seOf = (column: number) => {
    const unit = new Float64Array(columns)
    unit[column] = 1
    return Math.sqrt(solve(factor, unit, columns)[column]!)
  }
  let deviance = 0
  let pearson = 0
  for (let r = 0; r < flat.y.length; r++) {
    const y = flat.y[r]!
    const mean = flat.exposure[r]! * Math.exp(linear(flat, r, beta))
    deviance += 2 * ((y > 0 ? y * Math.log(y / mean) : 0) - (y - mean))
    pearson += (y - mean) ** 2 / mean
  }
  const free = Math.max(1, flat.y.length - precision.filter((p) => p === 0).length)
  return { beta: [...beta], seOf, deviance, dispersion: pearson / free, rounds: rounds + 1 }
}

/** Rows laid end to end: they are gone through many times. */
interface FlatRows {
  readonly y: Float64Array
  readonly exposure: Float64Array
  /** Where each row's columns begin; one more than there are rows. */
  readonly from: Int32Array
  readonly column: Int32Array
  readonly value: Float64Array
}

function flatten(rows: readonly PoissonRow[]): FlatRows {
  const filled = rows.reduce((s, r) => s + r.columns.length, 0)
  const flat = {
    y: Float64Array.from(rows, (r) => r.y),
    exposure: Float64Array.from(rows, (r) => r.exposure),
    from: new Int32Array(rows.length + 1),
    column: new Int32Array(filled),
    value: new Float64Array(filled),
  }
  let k = 0
  rows.forEach((row, r) => {
    flat.from[r] = k
    // In rising order, so that only half of each product need be looked at.
    const order = row.columns.map((_, i) => i)
    if (row.columns.some((c, i) => i > 0 && row.columns[i - 1]! > c)) {
      order.sort((i, j) => row.columns[i]! - row.columns[j]!)
    }
    for (const i of order) {
      flat.column[k] = row.columns[i]!
      flat.value[k++] = row.values[i]!
    }
  })
  flat.from[rows.length] = k
  return flat
}

function linear(flat: FlatRows, r: number, beta: Float64Array): number {
  let eta = 0
  const end = flat.from[r + 1]!
  for (let k = flat.from[r]!; k < end; k++) eta += beta[flat.column[k]!]! * flat.value[k]!
  return eta
}

/** Log likelihood without its constant, less the prior's pull. */
function penalised(flat: FlatRows, beta: Float64Array, precision: readonly number[]): number {
  let sum = 0
  for (let r = 0; r < flat.y.length; r++) {
    const eta = linear(flat, r, beta)
    sum += flat.y[r]! * eta - flat.exposure[r]! * Math.exp(eta)
  }
  for (let c = 0; c < beta.length; c++) sum -= 0.5 * precision[c]! * beta[c]! * beta[c]!
  return sum
}

function slopes(
  flat: FlatRows,
  beta: Float64Array,
  precision: readonly number[],
  n: number,
): { gradient: Float64Array; hessian: Float64Array } {
  const gradient = new Float64Array(n)
  const hessian = new Float64Array(n * n)
  const { column, value } = flat
  for (let r = 0; r < flat.y.length; r++) {
    const mean = flat.exposure[r]! * Math.exp(linear(flat, r, beta))
    const rest = flat.y[r]! - mean
    const end = flat.from[r + 1]!
    for (let k = flat.from[r]!; k < end; k++) {
      const c = column[k]!
      const v = value[k]!
      gradient[c]! += rest * v
      const scaled = mean * v
      const at = c * n
      for (let m = flat.from[r]!; m <= k; m++) hessian[at + column[m]!]! += scaled * value[m]!
    }
  }
  for (let c = 0; c < n; c++) {
    gradient[c]! -= precision[c]! * beta[c]!
    hessian[c * n + c]! += precision[c]!
  }
  return { gradient, hessian }
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
