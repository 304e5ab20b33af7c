/**
 * The whole head, built: display mesh with crisp zones, solve mesh, zone facts and sample points. The same bytes every
 * time; run once at build time and packed (pack.ts).
 */
import { mulberry32 } from '../stats/index.ts'
import { curvatureAt, zoneCurvature, type ZoneCurvature } from './curvature.ts'
import { cross, unit, type Vec3 } from './frames.ts'
import { GRID_SCALE, halfHead, mirrorMesh, type Mesh } from './mesh.ts'
import { HeadField } from './shape.ts'
import { splitByZone } from './split.ts'
import {
  ZONE_FACTS,
  zoneName,
  type HairKind,
  isSkin,
  mirrorZone,
  zoneStem,
  ZONE_IDS,
  type ZoneId,
  type ZoneStem,
} from '../zones/index.ts'
import { zoneClassifier } from './classify.ts'

/** A mesh whose triangles are sorted by zone. */
export interface ZonedMesh extends Mesh {
  /** Unit outward normals, 3 per vertex. */
  readonly normals: Float32Array
  /** Zone of each triangle, as an index into ZONE_IDS. */
  readonly zones: Uint8Array
  /** For each zone: its first triangle and how many follow. */
  readonly ranges: readonly (readonly [start: number, count: number])[]
}

/** A point of the surface with its outward normal. */
export interface SurfacePoint {
  readonly point: Vec3
  readonly normal: Vec3
}

/** Everything about a zone that later work needs without the mesh. */
export interface ZoneRecord {
  readonly id: ZoneId
  readonly name: string
  readonly skin: boolean
  readonly mirror: ZoneId
  readonly hair: HairKind
  readonly bed: 'soft' | 'bony'
  readonly areaCm2: number
  readonly curvature: ZoneCurvature
  /** A point near the middle, where a zone's arrow stands. */
  readonly centre: SurfacePoint
  /** Points spread over the zone. */
  readonly samples: readonly SurfacePoint[]
}

/** The built head. */
export interface Head {
  readonly display: ZonedMesh & { readonly occlusion: Uint8Array; readonly mirrorOf: Uint32Array }
  readonly solve: ZonedMesh
  /** Blue-noise seeds of the hair marks: triangle, then two barycentric weights, coarse to fine. */
  readonly seeds: {
    readonly triangles: Uint32Array
    readonly weights: Float32Array
    readonly levels: readonly number[]
  }
  readonly zones: readonly ZoneRecord[]
}

/** Spacing of the hair marks at each level of zoom, mm. */
export const SEED_SPACING_MM = [12, 8.5, 6] as const

/** Builds the head. Takes a few seconds; deterministic. */
export function buildHead(): Head {
  const display = buildZoned('full')
  const solve = buildZoned('solve')
  const field = new HeadField('full')
  const occlusion = ambientOcclusion(field, display.zoned)
  const zones = describeZones(display.zoned, field)
  return {
    display: { ...display.zoned, occlusion, mirrorOf: display.mirrorOf },
    solve: solve.zoned,
    seeds: seedMarks(display.zoned),
    zones,
  }
}

/** Builds one resolution with zones; exported for measuring and for the bench. */
export function buildZoned(detail: 'full' | 'solve'): { zoned: ZonedMesh; mirrorOf: Uint32Array } {
  const field = new HeadField(detail)
  const half = halfHead(field, GRID_SCALE[detail])
  const classify = zoneClassifier(detail)
  // The solve mesh keeps its even triangles; only the display mesh is cut along the borders.
  const split =
    detail === 'full'
      ? splitByZone(half, classify, (p) => field.project(p, 1))
      : { mesh: half, labels: labelByMiddle(half, classify) }
  const { mesh, mirrorOf } = mirrorMesh(split.mesh)
  const n = split.labels.length
  const number = new Map<string, number>(ZONE_IDS.map((id, i) => [id, i]))
  const zoneOf = new Uint8Array(2 * n)
  for (let t = 0; t < n; t++) {
    const stem = split.labels[t]!
    zoneOf[t] = number.get(stem) ?? number.get(`${stem}-left`)!
    zoneOf[n + t] = number.get(stem) ?? number.get(`${stem}-right`)!
  }
  return { zoned: sortByZone(mesh, zoneOf, field), mirrorOf }
}

function labelByMiddle(mesh: Mesh, classify: (x: number, y: number, z: number) => ZoneStem) {
  return Array.from({ length: mesh.indices.length / 3 }, (_, t) => {
    const [a, b, c] = [corner(mesh, t, 0), corner(mesh, t, 1), corner(mesh, t, 2)]
    return classify((a[0] + b[0] + c[0]) / 3, (a[1] + b[1] + c[1]) / 3, (a[2] + b[2] + c[2]) / 3)
  })
}

function sortByZone(mesh: Mesh, zoneOf: Uint8Array, field: HeadField): ZonedMesh {
  const order = Array.from(zoneOf.keys()).sort((a, b) => zoneOf[a]! - zoneOf[b]! || a - b)
  const indices = new Uint32Array(mesh.indices.length)
  const zones = new Uint8Array(zoneOf.length)
  const ranges: [number, number][] = ZONE_IDS.map(() => [0, 0])
  order.forEach((t, i) => {
    indices.set(mesh.indices.subarray(3 * t, 3 * t + 3), 3 * i)
    const zone = zoneOf[t]!
    zones[i] = zone
    const range = ranges[zone]!
    if (range[1] === 0) range[0] = i
    range[1]++
  })
  const normals = new Float32Array(mesh.positions.length)
  const n = [0, 0, 0]
  for (let v = 0; v < normals.length; v += 3) {
    const x = mesh.positions[v]!
    field.normal(Math.abs(x), mesh.positions[v + 1]!, mesh.positions[v + 2]!, n)
    normals[v] = x === 0 ? 0 : x < 0 ? -n[0]! : n[0]!
    normals[v + 1] = n[1]!
    normals[v + 2] = n[2]!
  }
  return { positions: mesh.positions, indices, normals, zones, ranges }
}

/** How open each vertex is to the room, 0 (deep) to 255, from five samples along the normal. */
function ambientOcclusion(field: HeadField, mesh: ZonedMesh): Uint8Array {
  const out = new Uint8Array(mesh.positions.length / 3)
  const reach = [2.5, 6, 12, 22, 40]
  const weight = [0.34, 0.27, 0.19, 0.12, 0.08]
  for (let v = 0; v < out.length; v++) {
    const x = Math.abs(mesh.positions[3 * v]!)
    const nx = mesh.positions[3 * v]! < 0 ? -mesh.normals[3 * v]! : mesh.normals[3 * v]!
    let open = 0
    reach.forEach((r, i) => {
      const d = field.distance(
        Math.abs(x + r * nx),
        mesh.positions[3 * v + 1]! + r * mesh.normals[3 * v + 1]!,
        mesh.positions[3 * v + 2]! + r * mesh.normals[3 * v + 2]!,
      )
      open += weight[i]! * Math.min(1, Math.max(0, d / r))
    })
    out[v] = Math.round(255 * open)
  }
  return out
}

function corner(mesh: Mesh, triangle: number, k: number): Vec3 {
  const v = mesh.indices[3 * triangle + k]!
  return [mesh.positions[3 * v]!, mesh.positions[3 * v + 1]!, mesh.positions[3 * v + 2]!]
}

/** Area of a triangle, mm². */
export function triangleArea(mesh: Mesh, triangle: number): number {
  const a = corner(mesh, triangle, 0)
  const b = corner(mesh, triangle, 1)
  const c = corner(mesh, triangle, 2)
  const ab: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]]
  const ac: Vec3 = [c[0] - a[0], c[1] - a[1], c[2] - a[2]]
  return Math.hypot(...cross(ab, ac)) / 2
}

/** Point and smooth normal at barycentric weights (u, v, 1 − u − v) of a triangle. */
export function surfacePoint(
  mesh: ZonedMesh,
  triangle: number,
  u: number,
  v: number,
): SurfacePoint {
  const w = 1 - u - v
  const i = mesh.indices[3 * triangle]!
  const j = mesh.indices[3 * triangle + 1]!
  const k = mesh.indices[3 * triangle + 2]!
  const blend = (array: Float32Array, axis: number) =>
    u * array[3 * i + axis]! + v * array[3 * j + axis]! + w * array[3 * k + axis]!
  return {
    point: [blend(mesh.positions, 0), blend(mesh.positions, 1), blend(mesh.positions, 2)],
    normal: unit([blend(mesh.normals, 0), blend(mesh.normals, 1), blend(mesh.normals, 2)]),
  }
}

const round2 = (v: Vec3): Vec3 => [
  Math.round(v[0] * 100) / 100,
  Math.round(v[1] * 100) / 100,
  Math.round(v[2] * 100) / 100,
]
const tidy = (p: SurfacePoint): SurfacePoint => ({
  point: round2(p.point),
  normal: p.normal.map((c) => Math.round(c * 10000) / 10000) as unknown as Vec3,
})
const reflect = (p: SurfacePoint): SurfacePoint => ({
  point: [-p.point[0], p.point[1], p.point[2]],
  normal: [-p.normal[0], p.normal[1], p.normal[2]],
})

const SAMPLES_PER_ZONE = 10

function describeZones(mesh: ZonedMesh, field: HeadField): ZoneRecord[] {
  const made = new Map<ZoneId, ZoneRecord>()
  for (const id of ZONE_IDS) {
    const twin = made.get(mirrorZone(id))
    if (twin && twin.id !== id) {
      // The right side is the exact mirror of the left.
      made.set(id, {
        ...twin,
        id,
        name: zoneName(id),
        mirror: twin.id,
        centre: reflect(twin.centre),
        samples: twin.samples.map(reflect),
      })
      continue
    }
    made.set(id, describeZone(id, mesh, field))
  }
  return ZONE_IDS.map((id) => made.get(id)!)
}

function describeZone(id: ZoneId, mesh: ZonedMesh, field: HeadField): ZoneRecord {
  const [start, count] = mesh.ranges[ZONE_IDS.indexOf(id)]!
  const random = mulberry32(ZONE_IDS.indexOf(id) + 1)
  let area = 0
  const middle = [0, 0, 0]
  const candidates: { at: SurfacePoint; area: number }[] = []
  for (let t = start; t < start + count; t++) {
    const a = triangleArea(mesh, t)
    area += a
    const at = surfacePoint(mesh, t, 1 / 3, 1 / 3)
    for (let i = 0; i < 3; i++) middle[i]! += a * at.point[i]!
    candidates.push({ at, area: a })
  }
  const centroid: Vec3 = [middle[0]! / area, middle[1]! / area, middle[2]! / area]
  const isMiddleZone = mirrorZone(id) === id
  const distance2 = (p: Vec3, q: Vec3) =>
    (p[0] - q[0]) ** 2 + (p[1] - q[1]) ** 2 + (p[2] - q[2]) ** 2
  let centre = candidates[0]!.at
  for (const c of candidates)
    if (distance2(c.at.point, centroid) < distance2(centre.point, centroid)) centre = c.at
  if (isMiddleZone) {
    const p = [0, centre.point[1], centre.point[2]]
    field.project(p)
    const n = [0, 0, 0]
    field.normal(0, p[1]!, p[2]!, n)
    centre = { point: [0, p[1]!, p[2]!], normal: [0, n[1]!, n[2]!] }
  }
  // Farthest-point sampling spreads the samples; the first is drawn near the middle.
  const samples: SurfacePoint[] = [centre]
  const pool = candidates.filter(() => count < 400 || random() < 400 / count)
  while (samples.length < SAMPLES_PER_ZONE && pool.length > samples.length) {
    let best = pool[0]!
    let bestD = -1
    for (const c of pool) {
      const d = Math.min(...samples.map((s) => distance2(s.point, c.at.point)))
      if (d > bestD) {
        bestD = d
        best = c
      }
    }
    samples.push(best.at)
  }
  const facts = ZONE_FACTS[zoneStem(id)]
  return {
    id,
    name: zoneName(id),
    skin: isSkin(id),
    mirror: mirrorZone(id),
    hair: facts.hair,
    bed: facts.bed,
    areaCm2: Math.round(area) / 100,
    curvature: zoneCurvature(
      pool.map((c) => ({ ...curvatureAt(field, c.at.point), weight: c.area })),
    ),
    centre: tidy(centre),
    samples: samples.map(tidy),
  }
}

/** Dart throwing at falling distances, so that the first marks alone already cover the head evenly. */
function seedMarks(mesh: ZonedMesh): Head['seeds'] {
  const random = mulberry32(20)
  const cumulative: number[] = []
  const skinTriangles: number[] = []
  let total = 0
  for (let t = 0; t < mesh.zones.length; t++) {
    if (!isSkin(ZONE_IDS[mesh.zones[t]!]!)) continue
    total += triangleArea(mesh, t)
    skinTriangles.push(t)
    cumulative.push(total)
  }
  const triangles: number[] = []
  const weights: number[] = []
  const levels: number[] = []
  const cells = new Map<number, Vec3[]>()
  const cell = SEED_SPACING_MM[0]
  const key = (p: Vec3, dx = 0, dy = 0, dz = 0) =>
    ((Math.floor(p[0] / cell) + dx + 60) * 128 + Math.floor(p[1] / cell) + dy + 60) * 128 +
    Math.floor(p[2] / cell) +
    dz +
    60
  const near = (p: Vec3, spacing: number): boolean => {
    for (let dx = -1; dx <= 1; dx++)
      for (let dy = -1; dy <= 1; dy++)
        for (let dz = -1; dz <= 1; dz++)
          for (const q of cells.get(key(p, dx, dy, dz)) ?? [])
            if ((p[0] - q[0]) ** 2 + (p[1] - q[1]) ** 2 + (p[2] - q[2]) ** 2 < spacing * spacing)
              return true
    return false
  }
  for (const spacing of SEED_SPACING_MM) {
    const tries = Math.round((total / (spacing * spacing)) * 12)
    for (let i = 0; i < tries; i++) {
      const target = random() * total
      let lo = 0
      let hi = cumulative.length - 1
      while (lo < hi) {
        const mid = (lo + hi) >> 1
        if (cumulative[mid]! < target) lo = mid + 1
        else hi = mid
      }
      const root = Math.sqrt(random())
      const u = 1 - root
      const v = root * random()
      const { point } = surfacePoint(mesh, skinTriangles[lo]!, u, v)
      if (near(point, spacing)) continue
      triangles.push(skinTriangles[lo]!)
      weights.push(u, v)
      const k = key(point)
      const bucket = cells.get(k)
      if (bucket) bucket.push(point)
      else cells.set(k, [point])
    }
    levels.push(triangles.length)
  }
  return { triangles: Uint32Array.from(triangles), weights: Float32Array.from(weights), levels }
}
