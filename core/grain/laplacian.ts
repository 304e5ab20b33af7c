/** The two matrices of the field: the connection Laplacian and its square, weighted by area. */
import type { Connection } from './connection.ts'
import type { HermitianMatrix } from './ldl.ts'

/** The connection Laplacian A by rows, Hermitian; its diagonal comes last in each row. */
export function connectionLaplacian(c: Connection, epsilon: number): HermitianMatrix {
  const n = c.vertices
  const start = new Int32Array(n + 1)
  for (let i = 0; i < n; i++) start[i + 1] = start[i]! + c.start[i + 1]! - c.start[i]! + 1
  const columns = new Int32Array(start[n]!)
  const re = new Float64Array(start[n]!)
  const im = new Float64Array(start[n]!)
  for (let i = 0; i < n; i++) {
    let p = start[i]!
    let sum = epsilon * c.areas[i]!
    for (let e = c.start[i]!; e < c.start[i + 1]!; e++) {
      const w = c.weights[e]!
      columns[p] = c.neighbours[e]!
      // A vector is carried from j to i: the turn of the edge j → i, which is minus that of i → j.
      re[p] = -w * Math.cos(-c.turns[e]!)
      im[p] = -w * Math.sin(-c.turns[e]!)
      sum += w
      p++
    }
    columns[p] = i
    re[p] = sum
  }
  return { start, columns, re, im }
}

/** B = A · diag(1/area) · A. */
export function biLaplacian(a: HermitianMatrix, areas: Float64Array): HermitianMatrix {
  const n = areas.length
  const start = new Int32Array(n + 1)
  const columns: number[] = []
  const re: number[] = []
  const im: number[] = []
  const seen = new Int32Array(n).fill(-1)
  const sumRe = new Float64Array(n)
  const sumIm = new Float64Array(n)
  for (let i = 0; i < n; i++) {
    const own: number[] = []
    for (let p = a.start[i]!; p < a.start[i + 1]!; p++) {
      const k = a.columns[p]!
      const ar = a.re[p]! / areas[k]!
      const ai = a.im[p]! / areas[k]!
      for (let q = a.start[k]!; q < a.start[k + 1]!; q++) {
        const j = a.columns[q]!
        if (seen[j] !== i) {
          seen[j] = i
          sumRe[j] = sumIm[j] = 0
          own.push(j)
        }
        sumRe[j]! += ar * a.re[q]! - ai * a.im[q]!
        sumIm[j]! += ar * a.im[q]! + ai * a.re[q]!
      }
    }
    for (const j of own) {
      columns.push(j)
      re.push(sumRe[j]!)
      im.push(j === i ? 0 : sumIm[j]!)
    }
    start[i + 1] = columns.length
  }
  return {
    start,
    columns: Int32Array.from(columns),
    re: Float64Array.from(re),
    im: Float64Array.from(im),
  }
}
