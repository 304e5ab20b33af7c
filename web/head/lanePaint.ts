/** Lanes on the head: their borders as lines on the surface, and a wash of colour over chosen ones. */
import { unpackCover, type Plan } from '../../core/plan/index.ts'
import { ZONE_IDS } from '../../core/zones/index.ts'
import type { LoadedHead } from './loadHead.ts'

const LIFT_MM = 0.35

/** Letter of the lane at every triangle of the display mesh; a dot where nothing is worked. */
function letters(head: LoadedHead, plan: Pick<Plan, 'zones'>): string[] {
  const { display } = head.packed
  const out = new Array<string>(display.indices.length / 3).fill('.')
  for (const zone of plan.zones) {
    const range = display.ranges[ZONE_IDS.indexOf(zone.zoneId)]
    if (!range) continue
    unpackCover(zone.cover).forEach((letter, c) => (out[range[0] + c] = letter))
  }
  return out
}

/** Pairs of points along the borders of all lanes. */
export function laneEdges(head: LoadedHead, plan: Pick<Plan, 'zones'>): Float32Array {
  const { positions, normals, indices, zones } = head.packed.display
  const letter = letters(head, plan)
  const owner = new Map<number, number>()
  const n = positions.length / 3
  const edges: [number, number][] = []
  for (let e = 0; e < indices.length; e++) {
    const t = Math.floor(e / 3)
    const a = indices[e]!
    const b = indices[3 * t + ((e + 1) % 3)]!
    const twin = owner.get(b * n + a)
    owner.set(a * n + b, t)
    if (twin === undefined) continue
    if (letter[t] === letter[twin] && (letter[t] === '.' || zones[t] === zones[twin])) continue
    edges.push([a, b])
  }
  const at = smoothed(edges, positions)
  return Float32Array.from(
    edges
      .flat()
      .flatMap((v) => [0, 1, 2].map((k) => at.get(v)![k]! + LIFT_MM * normals[3 * v + k]!)),
  )
}

/** Borders run along the edges of small triangles; a few rounds of averaging take the teeth out of them. */
function smoothed(edges: readonly (readonly [number, number])[], positions: Float32Array) {
  const beside = new Map<number, number[]>()
  for (const [a, b] of edges) {
    beside.set(a, [...(beside.get(a) ?? []), b])
    beside.set(b, [...(beside.get(b) ?? []), a])
  }
  let at = new Map(
    [...beside.keys()].map((v) => [v, [0, 1, 2].map((k) => positions[3 * v + k]!)] as const),
  )
  for (let round = 0; round < 4; round++) {
    at = new Map(
      [...beside].map(([v, near]) => {
        const own = at.get(v)!
        // Where several borders meet they stay.
        if (near.length !== 2) return [v, own] as const
        return [
          v,
          own.map((c, k) => 0.5 * c + 0.25 * (at.get(near[0]!)![k]! + at.get(near[1]!)![k]!)),
        ] as const
      }),
    )
  }
  return at
}

/** Colour of lanes, `zone:letter`, as red, green, blue and opacity from 0 to 1. */
export type LaneColours = ReadonlyMap<string, readonly [number, number, number, number]>

/** A colour at every vertex of the lanes named. */
export function laneWash(
  head: LoadedHead,
  plan: Pick<Plan, 'zones'>,
  colours: LaneColours,
): Float32Array | undefined {
  if (colours.size === 0) return undefined
  const { positions, indices, ranges } = head.packed.display
  const out = new Float32Array((4 * positions.length) / 3)
  for (const zone of plan.zones) {
    const range = ranges[ZONE_IDS.indexOf(zone.zoneId)]
    const named = [...colours].filter(([key]) => key.startsWith(`${zone.zoneId}:`))
    if (!range || named.length === 0) continue
    unpackCover(zone.cover).forEach((letter, c) => {
      const colour = colours.get(`${zone.zoneId}:${letter}`)
      if (!colour) return
      for (let k = 0; k < 3; k++) out.set(colour, 4 * indices[3 * (range[0] + c) + k]!)
    })
  }
  return out
}
