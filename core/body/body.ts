/**
 * Arms and legs as flat outlines: each zone is the skin of that part laid flat, in millimetres, on one sheet. Lanes, marks
 * and readings work on it as they do on the head. Measures are house estimates of a middling adult.
 */
import type { Vec3 } from '../head/frames.ts'
import type { SurfacePoint, ZonedMesh, ZoneRecord } from '../head/head.ts'
import { ZONE_FACTS, zoneName } from '../zones/facts.ts'
import { BODY_IDS, mirrorZone, zoneStem, type BodyStem, type ZoneId } from '../zones/zones.ts'

/** A part laid flat: where its middle lies on the client's left, how long and how wide (above and below) it is, and how round. */
interface Part {
  readonly x: number
  readonly y: number
  readonly lengthMm: number
  readonly topMm: number
  readonly bottomMm: number
  /** Radius round the limb, mm. */
  readonly roundMm: number
}

const PARTS: Readonly<Record<BodyStem, Part>> = {
  'thigh-front': { x: 105, y: 250, lengthMm: 340, topMm: 180, bottomMm: 140, roundMm: 85 },
  knee: { x: 105, y: 5, lengthMm: 100, topMm: 130, bottomMm: 120, roundMm: 50 },
  shin: { x: 105, y: -232, lengthMm: 300, topMm: 120, bottomMm: 84, roundMm: 45 },
  'thigh-back': { x: 320, y: 250, lengthMm: 340, topMm: 180, bottomMm: 140, roundMm: 85 },
  calf: { x: 320, y: -140, lengthMm: 360, topMm: 124, bottomMm: 76, roundMm: 52 },
  underarm: { x: 520, y: 352, lengthMm: 110, topMm: 70, bottomMm: 70, roundMm: -60 },
  'upper-arm': { x: 520, y: 130, lengthMm: 250, topMm: 130, bottomMm: 104, roundMm: 46 },
  forearm: { x: 520, y: -156, lengthMm: 230, topMm: 104, bottomMm: 70, roundMm: 38 },
}

/** Side of a cell of the sheet's mesh, mm. */
const CELL_MM = 10
/** The sheet, mm: client's right on the left, as seen by a worker who faces the client. */
export const SHEET = { left: -610, right: 610, top: 440, bottom: -400 } as const

const NORMAL: Vec3 = [0, 0, 1]

function part(id: ZoneId): Part & { readonly x: number } {
  const p = PARTS[zoneStem(id) as BodyStem]
  return id.endsWith('-left') ? p : { ...p, x: -p.x }
}

/** Half width of a part at a height, mm; 0 outside. Corners are rounded. */
function halfWidth(p: Part, y: number): number {
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

/** The zone at a place of the sheet; undefined beside every outline. */
export function bodyZoneAt(x: number, y: number): ZoneId | undefined {
  return BODY_IDS.find((id) => {
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

/** The zones of arms and legs, described as those of the head are. */
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
