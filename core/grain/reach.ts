/** How far readings reach over the skin: the way to the nearest, how many stand behind a place. */
import { distance, type Vec3 } from '../head/index.ts'
import { constant, type Figures } from '../house/index.ts'
import type { Connection } from './connection.ts'
import type { FieldReading, Placed } from './field.ts'

export const REACH_CONSTANTS = {
  reachMm: constant(38, 'mm', 'Skin farther than this from every reading counts as not read', 'H'),
  fadeMm: constant(18, 'mm', 'Trust begins to fade this far from a reading', 'H'),
} as const

const R = REACH_CONSTANTS

/** How many readings stand behind each vertex, the farther ones counting less. */
export function supportOf(
  figures: Figures,
  { positions, vertices }: Connection,
  readings: readonly FieldReading[],
): Float64Array {
  const out = new Float64Array(vertices)
  const reach = figures(R.reachMm)
  for (const reading of readings) {
    const [x, y, z] = reading.point
    for (let v = 0; v < vertices; v++) {
      const dx = positions[3 * v]! - x
      const dy = positions[3 * v + 1]! - y
      const dz = positions[3 * v + 2]! - z
      const d2 = dx * dx + dy * dy + dz * dz
      if (d2 < reach * reach) out[v]! += reading.weight * nearness(figures, Math.sqrt(d2))
    }
  }
  return out
}

/** Way along the edges of the mesh to the nearest reading, mm; Infinity beyond the reach. */
export function distancesMm(
  figures: Figures,
  connection: Connection,
  placed: readonly Pick<Placed, 'reading' | 'triangle'>[],
): Float64Array {
  const { positions, indices } = connection
  const out = new Float64Array(connection.vertices).fill(Infinity)
  const buckets: number[][] = []
  const push = (v: number, d: number) => {
    if (d >= out[v]! || d > figures(R.reachMm)) return
    out[v] = d
    ;(buckets[Math.floor(d / 2)] ??= []).push(v)
  }
  const at = (v: number): Vec3 => [positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!]
  for (const { reading, triangle } of placed)
    for (let k = 0; k < 3; k++) {
      const v = indices[3 * triangle + k]!
      push(v, distance(at(v), reading.point))
    }
  for (let b = 0; b < buckets.length; b++) {
    // A bucket may still grow while it is worked off: edges shorter than its width lead back into it.
    const bucket = buckets[b] ?? []
    for (let i = 0; i < bucket.length; i++) {
      const v = bucket[i]!
      const here = at(v)
      for (let e = connection.start[v]!; e < connection.start[v + 1]!; e++) {
        const u = connection.neighbours[e]!
        push(u, out[v]! + distance(at(u), here))
      }
    }
  }
  return out
}

/** 1 near a reading, falling to 0 where skin counts as not read. */
export function nearness(figures: Figures, distanceMm: number): number {
  const [from, to] = [figures(R.fadeMm), figures(R.reachMm)]
  return Math.max(0, Math.min(1, (to - distanceMm) / (to - from)))
}
