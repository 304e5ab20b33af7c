/** Lanes over the head as it is drawn: their borders as lines on the surface, and a wash of colour over chosen ones. */
import type { Vec3, ZonedMesh } from '../head/index.ts'
import { ZONE_IDS, type ZoneId } from '../zones/index.ts'
import { unpackCover } from './cover.ts'
import type { ZonePlan } from './types.ts'

type Covered = readonly Pick<ZonePlan, 'zoneId' | 'cover'>[]

/** Borders stand this far off the skin. */
const LIFT_MM = 0.35
const ROUNDS = 4
const NOTHING = '.'

/** Letter of the lane at every triangle; a dot where nothing is worked. */
function letters({ indices, ranges }: ZonedMesh, zones: Covered): string[] {
  const out = new Array<string>(indices.length / 3).fill(NOTHING)
  for (const { zoneId, cover } of zones) {
    const range = ranges[ZONE_IDS.indexOf(zoneId)]
    if (!range) continue
    unpackCover(cover).forEach((letter, c) => (out[range[0] + c] = letter))
  }
  return out
}

/**
 * The borders of all lanes.
 * @returns points in mm, two after the other for each piece of a border
 */
export function laneEdges(mesh: ZonedMesh, covered: Covered): Float32Array {
  const { positions, normals, indices, zones } = mesh
  const letter = letters(mesh, covered)
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
    if (letter[t] === letter[twin] && (letter[t] === NOTHING || zones[t] === zones[twin])) continue
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
    [...beside.keys()].map((v): [number, Vec3] => [
      v,
      [positions[3 * v]!, positions[3 * v + 1]!, positions[3 * v + 2]!],
    ]),
  )
  for (let round = 0; round < ROUNDS; round++) {
    at = new Map(
      [...beside].map(([v, near]): [number, Vec3] => {
        const own = at.get(v)!
        // Where several borders meet they stay.
        if (near.length !== 2) return [v, own]
        const [p, q] = [at.get(near[0]!)!, at.get(near[1]!)!]
        const between = (k: 0 | 1 | 2) => 0.5 * own[k] + 0.25 * (p[k] + q[k])
        return [v, [between(0), between(1), between(2)]]
      }),
    )
  }
  return at
}

/** A lane with the colour that is washed over it: red, green, blue and opacity from 0 to 1. */
export interface LaneWash {
  readonly zoneId: ZoneId
  readonly letter: string
  readonly colour: readonly [number, number, number, number]
}

/** A colour, of four numbers, at every vertex; clear where no lane is named. Undefined when none is. */
export function laneWash(
  { positions, indices, ranges }: ZonedMesh,
  covered: Covered,
  lanes: readonly LaneWash[],
): Float32Array | undefined {
  if (lanes.length === 0) return undefined
  const out = new Float32Array((4 * positions.length) / 3)
  for (const { zoneId, cover } of covered) {
    const range = ranges[ZONE_IDS.indexOf(zoneId)]
    const own = new Map(lanes.filter((l) => l.zoneId === zoneId).map((l) => [l.letter, l.colour]))
    if (!range || own.size === 0) continue
    unpackCover(cover).forEach((letter, c) => {
      const colour = own.get(letter)
      if (!colour) return
      for (let k = 0; k < 3; k++) out.set(colour, 4 * indices[3 * (range[0] + c) + k]!)
    })
  }
  return out
}
