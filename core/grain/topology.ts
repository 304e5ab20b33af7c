/**
 * Whorls (M4): triangles round which the field turns once. On a closed surface without handles the indices sum to 2
 * (Poincaré–Hopf).
 */
import type { Connection } from './connection.ts'
import { wrapHalf } from './circular.ts'

/** A triangle round which the field turns. */
export interface Singularity {
  readonly triangle: number
  /** +1 a whorl or a star, −1 a meeting point. */
  readonly index: number
}

/**
 * All singular triangles of a field of one angle per vertex.
 * @param re, im the field; sizes are of no meaning
 */
export function singularities(c: Connection, re: Float64Array, im: Float64Array): Singularity[] {
  const { indices, start, neighbours, turns } = c
  const turnOf = (i: number, j: number): number => {
    for (let e = start[i]!; e < start[i + 1]!; e++) if (neighbours[e] === j) return turns[e]!
    throw new Error('no such edge')
  }
  const out: Singularity[] = []
  for (let t = 0; t < indices.length; t += 3) {
    let omega = 0
    let holonomy = 0
    for (let k = 0; k < 3; k++) {
      const i = indices[t + k]!
      const j = indices[t + ((k + 1) % 3)]!
      // Taken from the lower vertex, so that both triangles of an edge see the same number with opposite signs.
      const [a, b, sign] = i < j ? [i, j, 1] : [j, i, -1]
      const rho = turnOf(a, b)
      omega += sign * wrapHalf(Math.atan2(im[b]!, re[b]!) - Math.atan2(im[a]!, re[a]!) - rho)
      holonomy += sign * rho
    }
    const index = Math.round((omega + wrapHalf(holonomy)) / (2 * Math.PI))
    if (index !== 0) out.push({ triangle: t / 3, index })
  }
  return out
}
