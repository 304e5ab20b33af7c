/**
 * The body as flat outlines: each zone is the skin of that part laid flat, in millimetres, on one sheet. Lanes, marks and
 * readings work on it as they do on the head.
 */
import type { Vec3, SurfacePoint, ZonedMesh, ZoneRecord } from '../head/index.ts'
import {
  ZONE_FACTS,
  zoneName,
  bodyZone,
  type BodyStem,
  type Outline,
  BODY_IDS,
  mirrorZone,
  zoneStem,
  type ZoneId,
  zoneSide,
} from '../zones/index.ts'

/** Side of a cell of the sheet's mesh, mm. */
const CELL_MM = 10
/** Room round the outlines on a sheet, and above them for names and sides, mm. */
const MARGIN_MM = 30
const ABOVE_MM = 56

const NORMAL: Vec3 = [0, 0, 1]

function part(id: ZoneId): Outline {
  const p = bodyZone(zoneStem(id) as BodyStem).outline
  return zoneSide(id) === 'left' ? p : { ...p, x: -p.x }
}

/** Half width of a part at a height, mm; 0 outside. Corners are rounded. */
function halfWidth(p: Outline, y: number): number {
  const t = (y - (p.y - p.lengthMm / 2)) / p.lengthMm
  if (t < 0 || t > 1) return 0
  const straight = (p.bottomMm + t * (p.topMm - p.bottomMm)) / 2
  const r = Math.min(18, straight)
  const fromEnd = Math.min(t, 1 - t) * p.lengthMm
  return fromEnd >= r ? straight : straight - r + Math.sqrt(r * r - (r - fromEnd) ** 2)
}

/** Outline of a zone on the sheet, x and y in turn, mm. */
export function bodyOutline(id: ZoneId): number[] {
  const p = part(id)
  const steps = 40
  const edge = Array.from({ length: steps + 1 }, (_, i) => {
    const y = p.y - p.lengthMm / 2 + (i / steps) * p.lengthMm
    return [halfWidth(p, y), y] as const
  })
  return [
    ...edge.flatMap(([w, y]) => [p.x + w, y]),
    ...edge.reverse().flatMap(([w, y]) => [p.x - w, y]),
  ]
}

/** The part of the sheet that holds some zones, mm: client's right on the left, as seen by a worker who faces the client. */
export function sheetOf(zones: readonly ZoneId[]): {
  left: number
  right: number
  top: number
  bottom: number
} {
  const parts = zones.map(part)
  const half = (p: Outline) => Math.max(p.topMm, p.bottomMm) / 2
  return {
    left: Math.min(...parts.map((p) => p.x - half(p))) - MARGIN_MM,
    right: Math.max(...parts.map((p) => p.x + half(p))) + MARGIN_MM,
    top: Math.max(...parts.map((p) => p.y + p.lengthMm / 2)) + ABOVE_MM,
    bottom: Math.min(...parts.map((p) => p.y - p.lengthMm / 2)) - MARGIN_MM,
  }
}

/** The zone of those given at a place of the sheet; undefined beside every outline. */
export function bodyZoneAt(x: number, y: number, zones: readonly ZoneId[]): ZoneId | undefined {
  return zones.find((id) => {
    const p = part(id)
    const half = halfWidth(p, y)
    return half > 0 && Math.abs(x - p.x) <= half
  })
}

/** The sheet as a mesh, its zones numbered as BODY_IDS is; the same every time. */
export function bodyMesh(): ZonedMesh {
  const positions: number[] = []
  const indices: number[] = []
  const zones: number[] = []
  const ranges: [number, number][] = []
  BODY_IDS.forEach((id, zone) => {
    const p = part(id)
    const known = new Map<string, number>()
    const start = zones.length
    const rows = Math.round(p.lengthMm / CELL_MM)
    const columns = Math.round(Math.max(p.topMm, p.bottomMm) / CELL_MM)
    // Cells are stretched to the outline, so that the border is crisp.
    const vertex = (i: number, j: number) => {
      const key = `${i},${j}`
      let v = known.get(key)
      if (v === undefined) {
        v = positions.length / 3
        const inset = 0.5 / rows
        const y = p.y + p.lengthMm * ((1 - inset) * (j / rows - 0.5))
        positions.push(p.x + halfWidth(p, y) * ((2 * i) / columns - 1), y, 0)
        known.set(key, v)
      }
      return v
    }
    for (let j = 0; j < rows; j++) {
      for (let i = 0; i < columns; i++) {
        const [a, b, c, d] = [
          vertex(i, j),
          vertex(i + 1, j),
          vertex(i + 1, j + 1),
          vertex(i, j + 1),
        ]
        indices.push(a, b, c, a, c, d)
        zones.push(zone, zone)
      }
    }
    ranges.push([start, zones.length - start])
  })
  const normals = new Float32Array(positions.length)
  for (let v = 2; v < normals.length; v += 3) normals[v] = 1
  return {
    positions: Float32Array.from(positions),
    indices: Uint32Array.from(indices),
    normals,
    zones: Uint8Array.from(zones),
    ranges,
  }
}

/** A place on the sheet as a place on skin. */
export const onSheet = (x: number, y: number): SurfacePoint => ({
  point: [x, y, 0],
  normal: NORMAL,
})

/** The zones of the body, described as those of the head are. */
export const BODY_ZONES: readonly ZoneRecord[] = BODY_IDS.map((id) => {
  const p = part(id)
  const samples: SurfacePoint[] = []
  for (let i = 1; i <= 4; i++) {
    const y = p.y + p.lengthMm * (i / 5 - 0.5)
    for (const s of [-0.5, 0, 0.5]) samples.push(onSheet(p.x + s * halfWidth(p, y), y))
  }
  let area = 0
  for (let y = 0; y < p.lengthMm; y++) area += 2 * halfWidth(p, p.y - p.lengthMm / 2 + y + 0.5)
  const facts = ZONE_FACTS[zoneStem(id)]
  return {
    id,
    name: zoneName(id),
    skin: true,
    mirror: mirrorZone(id),
    hair: facts.hair,
    bed: facts.bed,
    areaCm2: Math.round(area) / 100,
    curvature: { tightMm: p.roundMm, flatMm: 10_000, meanMm: 2 * p.roundMm },
    centre: onSheet(p.x, p.y),
    samples,
  }
})
