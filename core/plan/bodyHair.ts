/** Hair over the sheet of the body as it is drawn: evenly scattered, in no rows, the same each time. */
import type { Figures } from '../house/index.ts'
import { mulberry32 } from '../stats/index.ts'
import { BODY_IDS, type ZoneId } from '../zones/index.ts'
import type { ZonedReading } from '../grain/index.ts'
import { bodyFlow, bodyGround } from './ground.ts'

/** One hair: its root and its way, unit, on the sheet in mm; `trust` 0 to 1 of what is known of that. */
export interface SheetHair {
  readonly x: number
  readonly y: number
  readonly dx: number
  readonly dy: number
  readonly trust: number
}

/** Hairs drawn stand at least this far apart. */
export const HAIR_SPACING_MM = 14

/**
 * Nothing before the first reading.
 * @param shown zones of this sheet: the ground is the whole body, whose other parts lie beside it
 */
export function bodyHair(
  figures: Figures,
  shown: readonly ZoneId[],
  readings: readonly ZonedReading[],
): SheetHair[] {
  if (readings.length === 0) return []
  const { mesh } = bodyGround()
  const { vectors, trust } = bodyFlow(figures, readings)
  const roots = Array.from({ length: mesh.indices.length / 3 }, (_, t) => t)
    .filter((t) => shown.includes(BODY_IDS[mesh.zones[t]!]!))
    .map((t) => ({ v: mesh.indices[3 * t]!, order: mulberry32(t)() }))
    .sort((a, b) => a.order - b.order)
  const out: SheetHair[] = []
  for (const { v } of roots) {
    const [x, y] = [mesh.positions[3 * v]!, mesh.positions[3 * v + 1]!]
    if (out.some((h) => Math.hypot(h.x - x, h.y - y) < HAIR_SPACING_MM)) continue
    out.push({ x, y, dx: vectors[3 * v]!, dy: vectors[3 * v + 1]!, trust: trust[v]! })
  }
  return out
}
