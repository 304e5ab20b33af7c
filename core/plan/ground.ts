/** What plans stand on: the head or the sheet of arms and legs, with the growth over it. */
import { DomainError } from '../errors.ts'
import { bodyMesh, BODY_ZONES } from '../body/index.ts'
import {
  carryTold,
  CONFIDENCE_CONSTANTS,
  displayCarry,
  displayVectors,
  type Carry,
  type FieldGround,
  type FieldTold,
  findTurning,
  isRead,
  type ZonedReading,
  startingGuess,
} from '../grain/index.ts'
import {
  directionOf,
  Landmarks,
  type PackedHead,
  type ZonedMesh,
  type ZoneRecord,
  Locator,
  surfacePoint,
  triangleNeighbours,
  type Surface,
} from '../head/index.ts'
import { BODY_IDS, ZONE_IDS } from '../zones/index.ts'
import { constant, type Figures } from '../house/index.ts'
import { linePath, type KeepLine } from '../lines/index.ts'
import type { Room } from './handle.ts'
import type { DrawnLine, SkinFlow, SkinGround } from './skin.ts'

export const BODY_FIELD_CONSTANTS = {
  reachMm: constant(70, 'mm', 'On arms and legs a reading speaks for about this far', 'H'),
  guessWeight: constant(0.05, '', 'Weight of a starting guess beside readings', 'H'),
} as const

/** The head as ground of plans. */
export function headGround(
  head: Pick<PackedHead, 'display' | 'solve' | 'landmarks'>,
  zones: readonly ZoneRecord[],
  neighbours = triangleNeighbours(head.display),
): SkinGround {
  return {
    mesh: head.display,
    zoneIds: ZONE_IDS,
    records: new Map(zones.map((z) => [z.id, z])),
    neighbours,
    landmarks: new Landmarks(head),
  }
}

/** What handles are cast against. */
export function headRoom(mesh: ZonedMesh): Room {
  const locator = new Locator(mesh)
  return {
    locator,
    zoneOf: (t) => ZONE_IDS[mesh.zones[t]!]!,
    nearest(at, normal) {
      try {
        const { triangle, weights, distanceMm } = locator.nearest(at, normal)
        return { triangle, distanceMm, ...surfacePoint(mesh, triangle, weights[0], weights[1]) }
      } catch (error) {
        if (error instanceof DomainError) return undefined
        throw error
      }
    },
  }
}

/** The head's field over the display mesh, with the places where it turns. */
export function headFlow(
  figures: Figures,
  field: FieldGround,
  answer: FieldTold,
  readings: readonly ZonedReading[],
  mesh: ZonedMesh,
  solveZones: Uint8Array,
  display: Carry & { readonly first: Float32Array } = displayCarry(field, mesh),
): SkinFlow {
  const carried = carryTold(display, answer)
  return {
    vectors: displayVectors(display, mesh, carried),
    trust: carried.trust,
    errorDeg: carried.errorDeg,
    turning: findTurning(figures, field, answer, readings, solveZones).whorls.map((w) => w.point),
    apart: readings.map((r) => answer.apart.get(r.id)),
  }
}

let sheet: SkinGround | undefined

/** The sheet of arms and legs. */
export function bodyGround(): SkinGround {
  if (!sheet) {
    const mesh = bodyMesh()
    sheet = {
      mesh,
      zoneIds: BODY_IDS,
      records: new Map(BODY_ZONES.map((z) => [z.id, z])),
      neighbours: triangleNeighbours(mesh),
    }
  }
  return sheet
}

/** Growth over the sheet: readings of a zone weighted by nearness, beside the starting guess. */
export function bodyFlow(figures: Figures, readings: readonly ZonedReading[]): SkinFlow {
  const { mesh } = bodyGround()
  const n = mesh.positions.length / 3
  const vectors = new Float32Array(3 * n)
  const trust = new Float32Array(n)
  const errorDeg = new Float32Array(n).fill(NaN)
  const reader = readings[0]?.readerDeg ?? figures(CONFIDENCE_CONSTANTS.readerDeg)
  const reach = figures(BODY_FIELD_CONSTANTS.reachMm)
  const guess = figures(BODY_FIELD_CONSTANTS.guessWeight)
  for (const zone of BODY_ZONES) {
    const [first, count] = mesh.ranges[BODY_IDS.indexOf(zone.id)]!
    const own = readings.filter((r) => r.zoneId === zone.id)
    const usual = directionOf(
      zone.id,
      zone.centre.point,
      zone.centre.normal,
      startingGuess(zone.id)!,
    )
    for (const v of new Set(mesh.indices.subarray(3 * first, 3 * (first + count)))) {
      let x = guess * usual[0]
      let y = guess * usual[1]
      let weight = 0
      for (const r of own) {
        const d2 =
          (r.point[0] - mesh.positions[3 * v]!) ** 2 +
          (r.point[1] - mesh.positions[3 * v + 1]!) ** 2
        const w = r.weight * Math.exp(-d2 / (2 * reach * reach))
        const size = Math.hypot(r.tangent[0], r.tangent[1]) || 1
        x += (w * r.tangent[0]) / size
        y += (w * r.tangent[1]) / size
        weight += w
      }
      const size = Math.hypot(x, y) || 1
      vectors[3 * v] = x / size
      vectors[3 * v + 1] = y / size
      trust[v] = weight > 0 ? Math.min(1, weight, size / (weight + guess)) : 0
      // A reading alone is as noisy as its reader; more of them average.
      if (isRead(figures, trust[v])) errorDeg[v] = reader / Math.sqrt(Math.max(1, weight))
    }
  }
  return { vectors, trust, errorDeg, turning: [] }
}

/** Keep-lines with their way over the skin. */
export function drawnLines(surface: () => Surface, lines: readonly KeepLine[]): DrawnLine[] {
  return lines
    .filter((l) => l.taps.length > 1)
    .map((l) => ({ kind: l.kind, keep: l.keep, path: linePath(surface(), l) }))
}
