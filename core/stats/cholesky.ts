/** Symmetric positive matrices, row by row in one array. */

/** Lower triangle L of A = L Lᵀ; A is given by its lower triangle. @returns undefined where A is not positive */
export function cholesky(a: Float64Array, n: number): Float64Array<ArrayBuffer> | undefined {
  const l = new Float64Array(n * n)
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = a[i * n + j]!
      for (let k = 0; k < j; k++) sum -= l[i * n + k]! * l[j * n + k]!
      if (i !== j) l[i * n + j] = sum / l[j * n + j]!
      else if (sum > 1e-12) l[i * n + i] = Math.sqrt(sum)
      else return undefined
    }
  }
  return l
}

/** x of L Lᵀ x = b. */
export function solveCholesky(l: Float64Array, b: Float64Array, n: number): Float64Array {
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
