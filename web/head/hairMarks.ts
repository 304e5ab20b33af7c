/**
 * Hair marks: small closed shapes on the surface, thick at the root and pointed at the tip, that follow the grain for
 * ten steps. They read as hair and as current at once.
 */
import { cross, directionOf, unit, type Vec3 } from '../../core/head/frames.ts'
import { SEED_SPACING_MM, surfacePoint } from '../../core/head/head.ts'
import type { PackedHead } from '../../core/head/pack.ts'
import { normalAt, walk, type Footing } from '../../core/head/walk.ts'
import { ZONE_IDS } from '../../core/head/zones.ts'

/** Growth direction by zone number, radians; NaN where nothing is to be drawn. And how sure it is, 0 to 1. */
export interface MarkGrain {
  readonly directions: Float32Array
  readonly ink: Float32Array
}

export interface HairMarks {
  /** Ribbon vertices, 3 per vertex, `POINTS_PER_MARK` vertices per mark. */
  readonly positions: Float32Array
  readonly indices: Uint32Array
  /** Zone number of each mark. */
  readonly zones: Uint8Array
  /** Ink of each mark, 0 to 1. */
  readonly ink: Float32Array
  /** Root, tip and root normal of each mark, 9 numbers each, for the flat view. */
  readonly spines: Float32Array
}

const STEPS = 10
/** Two sides at each step but the last, which is the tip. */
export const POINTS_PER_MARK = 2 * STEPS + 1
/** Lifted off the skin so that it is not swallowed by it, mm. */
const LIFT_MM = 0.5

export function hairMarks(
  head: PackedHead,
  neighbours: Int32Array,
  grain: MarkGrain,
  level: number,
): HairMarks {
  const mesh = head.display
  const count = head.seeds.levels[level]!
  const spacing = SEED_SPACING_MM[level]!
  const longest = spacing * 1.3
  const halfRoot = spacing * 0.1
  const positions: number[] = []
  const indices: number[] = []
  const zones: number[] = []
  const ink: number[] = []
  const spines: number[] = []
  for (let s = 0; s < count; s++) {
    const triangle = head.seeds.triangles[s]!
    const zone = mesh.zones[triangle]!
    const bearing = grain.directions[zone]!
    if (Number.isNaN(bearing)) continue
    const start: Footing = {
      triangle,
      point: surfacePoint(
        mesh,
        triangle,
        head.seeds.weights[2 * s]!,
        head.seeds.weights[2 * s + 1]!,
      ).point,
    }
    const along = (at: Footing): Vec3 | undefined => {
      const number = mesh.zones[at.triangle]!
      const own = grain.directions[number]!
      // A mark that wanders off into an ear or an eye ends there.
      if (Number.isNaN(own)) return undefined
      return directionOf(ZONE_IDS[number]!, at.point, normalAt(mesh, at), own)
    }
    const sure = grain.ink[zone]!
    const path = walk(mesh, neighbours, start, along, longest * (0.62 + 0.38 * sure), STEPS)
    if (path.length < 4) continue
    const base = positions.length / 3
    const last = path.length - 1
    for (let i = 0; i < STEPS; i++) {
      const here = path[Math.min(i, last)]!
      const ahead = path[Math.min(i + 1, last)]!
      const behind = path[Math.max(0, Math.min(i, last) - (i >= last ? 1 : 0))]!
      const n = normalAt(mesh, here)
      const d = unit([
        ahead.point[0] - behind.point[0],
        ahead.point[1] - behind.point[1],
        ahead.point[2] - behind.point[2],
      ])
      const side = cross(d, n)
      const t = i / STEPS
      // Thick a little after the root, then thinning evenly.
      const half = i >= last ? 0 : halfRoot * Math.min(1, 0.55 + 3 * t) * (1 - t)
      for (const sign of [-1, 1]) {
        positions.push(
          here.point[0] + LIFT_MM * n[0] + sign * half * side[0],
          here.point[1] + LIFT_MM * n[1] + sign * half * side[1],
          here.point[2] + LIFT_MM * n[2] + sign * half * side[2],
        )
      }
    }
    const tip = path[last]!
    const tipNormal = normalAt(mesh, tip)
    positions.push(
      tip.point[0] + LIFT_MM * tipNormal[0],
      tip.point[1] + LIFT_MM * tipNormal[1],
      tip.point[2] + LIFT_MM * tipNormal[2],
    )
    for (let i = 0; i + 1 < STEPS; i++) {
      const a = base + 2 * i
      indices.push(a, a + 1, a + 2, a + 1, a + 3, a + 2)
    }
    indices.push(base + 2 * STEPS - 2, base + 2 * STEPS - 1, base + 2 * STEPS)
    zones.push(zone)
    ink.push(sure)
    spines.push(...start.point, ...tip.point, ...normalAt(mesh, start))
  }
  return {
    positions: Float32Array.from(positions),
    indices: Uint32Array.from(indices),
    zones: Uint8Array.from(zones),
    ink: Float32Array.from(ink),
    spines: Float32Array.from(spines),
  }
}
