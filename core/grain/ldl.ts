/**
 * L D Lᴴ of a sparse Hermitian positive definite matrix, kept true while single readings come and go.
 * Up-looking factorisation after Davis 2005 ("LDL", from memory); rank-1 change after Davis & Hager 1999 (from memory).
 */
import { DomainError } from '../errors.ts'

/** A Hermitian matrix by rows, both triangles: row i holds `columns[start[i] … start[i + 1]]`. */
export interface HermitianMatrix {
  readonly start: Int32Array
  readonly columns: Int32Array
  readonly re: Float64Array
  readonly im: Float64Array
}

/** A sparse complex vector. */
export interface SparseVector {
  readonly at: readonly number[]
  readonly re: readonly number[]
  readonly im: readonly number[]
}

/** A right side half way to its answer: L y = b. Kept so that a change costs only its own path. */
export interface HalfSolved {
  readonly values: Float64Array
}

const notDefinite = () =>
  new DomainError('not-definite', 'The readings could not be combined: take the last one back.')

export class LdlFactor {
  readonly n: number
  /** Unknown at each place of the order, and the place of each unknown. */
  private readonly order: Int32Array
  private readonly place: Int32Array
  private readonly parent: Int32Array
  private readonly start: Int32Array
  private readonly rows: Int32Array
  /** Real and imaginary part of each entry in turn. */
  private readonly values: Float64Array
  private readonly diagonal: Float64Array
  private readonly work: Float64Array
  private readonly more: Float64Array

  /**
   * Factors a matrix in the given order of elimination.
   * @throws DomainError `not-definite`
   */
  constructor(matrix: HermitianMatrix, order: Int32Array)
  constructor(from: LdlFactor)
  constructor(matrix: HermitianMatrix | LdlFactor, order?: Int32Array) {
    if (matrix instanceof LdlFactor) {
      this.n = matrix.n
      this.order = matrix.order
      this.place = matrix.place
      this.parent = matrix.parent
      this.start = matrix.start
      this.rows = matrix.rows
      this.values = matrix.values.slice()
      this.diagonal = matrix.diagonal.slice()
      this.work = new Float64Array(2 * this.n)
      this.more = new Float64Array(2 * this.n)
      return
    }
    const n = order!.length
    this.n = n
    this.order = order!
    this.place = new Int32Array(n)
    order!.forEach((v, i) => (this.place[v] = i))
    this.parent = new Int32Array(n).fill(-1)
    const counts = new Int32Array(n)
    const flag = new Int32Array(n)
    for (let k = 0; k < n; k++) {
      flag[k] = k
      const row = this.order[k]!
      for (let p = matrix.start[row]!; p < matrix.start[row + 1]!; p++) {
        let i = this.place[matrix.columns[p]!]!
        if (i >= k) continue
        for (; flag[i] !== k; i = this.parent[i]!) {
          if (this.parent[i]! < 0) this.parent[i] = k
          counts[i]!++
          flag[i] = k
        }
      }
    }
    this.start = new Int32Array(n + 1)
    for (let k = 0; k < n; k++) this.start[k + 1] = this.start[k]! + counts[k]!
    const total = this.start[n]!
    this.rows = new Int32Array(total)
    this.values = new Float64Array(2 * total)
    this.diagonal = new Float64Array(n)
    this.work = new Float64Array(2 * n)
    this.more = new Float64Array(2 * n)
    this.factor(matrix, counts.fill(0), flag)
  }

  private factor(matrix: HermitianMatrix, filled: Int32Array, flag: Int32Array): void {
    const { n, order, place, parent, start, rows, values, diagonal, work } = this
    const pattern = new Int32Array(n)
    flag.fill(-1)
    for (let k = 0; k < n; k++) {
      let top = n
      flag[k] = k
      let d = 0
      const row = order[k]!
      for (let p = matrix.start[row]!; p < matrix.start[row + 1]!; p++) {
        let i = place[matrix.columns[p]!]!
        if (i > k) continue
        if (i === k) {
          d += matrix.re[p]!
          continue
        }
        // Column k above the diagonal is the conjugate of row k.
        work[2 * i]! += matrix.re[p]!
        work[2 * i + 1]! -= matrix.im[p]!
        let length = 0
        for (; flag[i] !== k; i = parent[i]!) {
          pattern[length++] = i
          flag[i] = k
        }
        while (length > 0) pattern[--top] = pattern[--length]!
      }
      for (; top < n; top++) {
        const i = pattern[top]!
        const a = work[2 * i]!
        const b = work[2 * i + 1]!
        work[2 * i] = work[2 * i + 1] = 0
        const end = start[i]! + filled[i]!
        for (let p = start[i]!, q = 2 * p; p < end; p++, q += 2) {
          const r = rows[p]! << 1
          const lr = values[q]!
          const li = values[q + 1]!
          work[r]! -= lr * a - li * b
          work[r + 1]! -= lr * b + li * a
        }
        const di = diagonal[i]!
        rows[end] = k
        values[2 * end] = a / di
        values[2 * end + 1] = -b / di
        d -= (a * a + b * b) / di
        filled[i]!++
      }
      if (!(d > 0)) throw notDefinite()
      diagonal[k] = d
    }
  }

  /**
   * Turns the factor of M into that of M + weight · w wᴴ, and the half-solved right side `y` into that of b + weight · w.
   * The places where w is not zero must be tied to each other in M.
   * @throws DomainError `not-definite` when a negative weight takes out more than is there
   */
  change(w: SparseVector, weight: number, y: HalfSolved): void {
    const { place, parent, start, rows, values, diagonal, work } = this
    const more = this.more
    const half = y.values
    let j = this.n
    w.at.forEach((v, i) => {
      const k = place[v]!
      work[2 * k]! += w.re[i]!
      work[2 * k + 1]! += w.im[i]!
      more[2 * k]! += weight * w.re[i]!
      more[2 * k + 1]! += weight * w.im[i]!
      if (k < j) j = k
    })
    let alpha = weight
    for (; j >= 0 && j < this.n; j = parent[j]!) {
      const pr = work[2 * j]!
      const pi = work[2 * j + 1]!
      work[2 * j] = work[2 * j + 1] = 0
      const d = diagonal[j]!
      const dNew = d + alpha * (pr * pr + pi * pi)
      if (!(dNew > 0)) {
        // What is not yet used must not leak into the next change.
        for (; j >= 0; j = parent[j]!)
          work[2 * j] = work[2 * j + 1] = more[2 * j] = more[2 * j + 1] = 0
        throw notDefinite()
      }
      const gr = (alpha * pr) / dNew
      const gi = (-alpha * pi) / dNew
      alpha *= d / dNew
      diagonal[j] = dNew
      const yr = half[2 * j]!
      const yi = half[2 * j + 1]!
      const zr = yr + more[2 * j]!
      const zi = yi + more[2 * j + 1]!
      half[2 * j] = zr
      half[2 * j + 1] = zi
      more[2 * j] = more[2 * j + 1] = 0
      const end = start[j + 1]!
      for (let p = start[j]!, q = 2 * p; p < end; p++, q += 2) {
        const r = rows[p]! << 1
        const lr = values[q]!
        const li = values[q + 1]!
        const vr = work[r]! - (pr * lr - pi * li)
        const vi = work[r + 1]! - (pr * li + pi * lr)
        work[r] = vr
        work[r + 1] = vi
        const nr = lr + gr * vr - gi * vi
        const ni = li + gr * vi + gi * vr
        values[q] = nr
        values[q + 1] = ni
        more[r]! -= nr * zr - ni * zi - (lr * yr - li * yi)
        more[r + 1]! -= nr * zi + ni * zr - (lr * yi + li * yr)
      }
    }
  }

  /** The first half of solving: L y = b, for a right side by unknown. */
  halfSolve(bRe: Float64Array, bIm: Float64Array): HalfSolved {
    const { n, order, start, rows, values } = this
    const x = new Float64Array(2 * n)
    for (let k = 0; k < n; k++) {
      x[2 * k] = bRe[order[k]!]!
      x[2 * k + 1] = bIm[order[k]!]!
    }
    for (let j = 0; j < n; j++) {
      const a = x[2 * j]!
      const b = x[2 * j + 1]!
      if (a === 0 && b === 0) continue
      const end = start[j + 1]!
      for (let p = start[j]!, q = 2 * p; p < end; p++, q += 2) {
        const r = rows[p]! << 1
        const lr = values[q]!
        const li = values[q + 1]!
        x[r]! -= lr * a - li * b
        x[r + 1]! -= lr * b + li * a
      }
    }
    return { values: x }
  }

  /** vᴴ A⁻¹ v of a sparse vector: how far the answer there yields to what is asked of it there. */
  yielding({ at, re, im }: SparseVector): number {
    const { n, diagonal } = this
    const bRe = new Float64Array(n)
    const bIm = new Float64Array(n)
    at.forEach((v, k) => {
      bRe[v] = re[k]!
      bIm[v] = im[k]!
    })
    const y = this.halfSolve(bRe, bIm).values
    let sum = 0
    for (let j = 0; j < n; j++) sum += (y[2 * j]! ** 2 + y[2 * j + 1]! ** 2) / diagonal[j]!
    return sum
  }

  /** The second half: D Lᴴ x = y; the answer by unknown. */
  finish(y: HalfSolved): { re: Float64Array; im: Float64Array } {
    const { n, order, start, rows, values, diagonal } = this
    const x = y.values.slice()
    const re = new Float64Array(n)
    const im = new Float64Array(n)
    for (let j = n - 1; j >= 0; j--) {
      let a = x[2 * j]! / diagonal[j]!
      let b = x[2 * j + 1]! / diagonal[j]!
      const end = start[j + 1]!
      for (let p = start[j]!, q = 2 * p; p < end; p++, q += 2) {
        const r = rows[p]! << 1
        const lr = values[q]!
        const li = values[q + 1]!
        const xr = x[r]!
        const xi = x[r + 1]!
        a -= lr * xr + li * xi
        b -= lr * xi - li * xr
      }
      x[2 * j] = a
      x[2 * j + 1] = b
      re[order[j]!] = a
      im[order[j]!] = b
    }
    return { re, im }
  }
}
