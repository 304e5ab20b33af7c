/**
 * The skin that a plan works on, zone by zone: small cells (triangles of the mesh) with the growth at each, and which of
 * them are worked once marks, keep-lines and what the service leaves alone are taken out.
 */
import {
  cross,
  dot,
  clockFrame,
  unit,
  type Vec3,
  type SurfacePoint,
  type ZonedMesh,
  type ZoneRecord,
  distance,
} from '../head/index.ts'
import type { Landmarks } from '../head/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { constant, type Figures } from '../house/index.ts'
import { besidePath, type DrawnOutline, LINE_CONSTANTS, type LineKind } from '../lines/index.ts'
import { markMargin, type SkinMark } from '../screening/index.ts'
import type { Worked } from '../services/index.ts'
import type { IsoDate } from '../time/index.ts'
import { closeOutlined } from './outlined.ts'

export const SKIN_CELL_CONSTANTS = {
  guessDeg: constant(
    30,
    '°',
    'Where nobody has read, hair grows within this of the starting guess two times in three',
    'H',
  ),
  looseMm: constant(5, 'mm', 'Hair this near a turning point has no direction to go by', 'H'),
  leastIslandCm2: constant(
    0.4,
    'cm²',
    'A patch cut off by marks or lines is worked from this size on',
    'H',
  ),
  leastSplinterCm2: constant(
    1,
    'cm²',
    'A splinter of a zone beyond a fold (behind the ear lobe) is worked from this size on',
    'H',
  ),
  lineBandMm: constant(22, 'mm', 'A beard line-up works this far out from the line', 'H'),
} as const

const C = SKIN_CELL_CONSTANTS

/** The surface: the same for every client. Zones of the mesh are numbered as `zoneIds` is. */
export interface SkinGround {
  readonly mesh: ZonedMesh
  readonly zoneIds: readonly ZoneId[]
  readonly records: ReadonlyMap<ZoneId, ZoneRecord>
  /** For each triangle and edge the triangle beyond, −1 at an end. */
  readonly neighbours: Int32Array
  /** What directions are told by; none on the body. */
  readonly landmarks?: Landmarks | undefined
}

/** Growth at the vertices of the mesh, and where it turns. */
export interface SkinFlow {
  /** Unit tangents, 3 per vertex. */
  readonly vectors: Float32Array
  /** 0 to 1 per vertex. */
  readonly trust: Float32Array
  /** Within how many degrees two of three directions are right, per vertex; NaN where skin counts as not read. */
  readonly errorDeg: Float32Array
  readonly turning: readonly Vec3[]
  /** By how much each reading, in the order given, lies off what the others say; left out where that is not asked. */
  readonly apart?: readonly (number | undefined)[]
}

/** A keep-line over the mesh. */
export interface DrawnLine {
  readonly kind: LineKind
  readonly keep: 'left' | 'right'
  readonly path: readonly SurfacePoint[]
}

/** What limits the work. */
export interface SkinLimits {
  readonly spots: readonly SkinMark[]
  readonly lines: readonly DrawnLine[]
  readonly outlines?: readonly DrawnOutline[]
  /** Part of the zone that the service works. */
  readonly worked: Worked
  /** Only a band along the lines is worked (a line-up). */
  readonly bandOnly: boolean
}

/** The cells of one zone. Indices of cells are triangles of the mesh from `first` on. */
export interface ZoneSkin {
  readonly zone: ZoneRecord
  readonly first: number
  readonly count: number
  /** 1 where the cell is worked. */
  readonly open: Uint8Array
  readonly areaCm2: Float64Array
  /** Middles and unit normals, 3 per cell. */
  readonly middle: Float64Array
  readonly normal: Float64Array
  /** Growth laid flat onto the zone's middle by the smallest turn of the normal: radians clockwise from 12 there. */
  readonly growth: Float64Array
  /** The growth itself at each cell: unit tangents, 3 per cell. */
  readonly way: Float64Array
  readonly trust: Float64Array
  /** Within how many degrees two of three directions are right; wide where it is a guess. */
  readonly errorDeg: Float64Array
  /** 1 where the growth turns too tightly to count. */
  readonly loose: Uint8Array
  /** Cells beyond the three edges, −1 where the zone ends; and the length of those edges, mm. */
  readonly beside: Int32Array
  readonly edge: Float64Array
  /** Worked area, and what marks and lines took of it, cm². */
  readonly openCm2: number
  readonly markedCm2: number
  readonly keptCm2: number
  /** What lies outside the only outlines that are worked, cm²; and until when the last of what rests does. */
  readonly outsideCm2: number
  readonly restsUntil?: IsoDate | undefined
}

interface Cells {
  readonly areaCm2: Float64Array
  readonly middle: Float64Array
  readonly normal: Float64Array
  readonly beside: Int32Array
  readonly edge: Float64Array
}

const known = new WeakMap<SkinGround, Map<number, Cells>>()

/** What does not depend on the client, worked out once for each zone of a surface. */
function cellsOf(ground: SkinGround, zone: number): Cells {
  let all = known.get(ground)
  if (!all) {
    all = new Map<number, Cells>()
    known.set(ground, all)
  }
  const had = all.get(zone)
  if (had) return had
  const { mesh, neighbours } = ground
  const { positions: p, normals: n, indices } = mesh
  const [first, count] = mesh.ranges[zone]!
  const cells: Cells = {
    areaCm2: new Float64Array(count),
    middle: new Float64Array(3 * count),
    normal: new Float64Array(3 * count),
    beside: new Int32Array(3 * count),
    edge: new Float64Array(3 * count),
  }
  for (let c = 0; c < count; c++) {
    const t = 3 * (first + c)
    const corner = [3 * indices[t]!, 3 * indices[t + 1]!, 3 * indices[t + 2]!] as const
    const at = (k: number): Vec3 => [p[corner[k]!]!, p[corner[k]! + 1]!, p[corner[k]! + 2]!]
    const [a, b, d] = [at(0), at(1), at(2)]
    const ab: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]]
    const ad: Vec3 = [d[0] - a[0], d[1] - a[1], d[2] - a[2]]
    cells.areaCm2[c] = Math.hypot(...cross(ab, ad)) / 200
    const normal = unit(
      [0, 1, 2].map(
        (x) => n[corner[0] + x]! + n[corner[1] + x]! + n[corner[2] + x]!,
      ) as unknown as Vec3,
    )
    for (let x = 0; x < 3; x++) {
      cells.middle[3 * c + x] = (a[x]! + b[x]! + d[x]!) / 3
      cells.normal[3 * c + x] = normal[x]!
    }
    for (let k = 0; k < 3; k++) {
      const beyond = neighbours[t + k]!
      cells.beside[3 * c + k] = beyond >= first && beyond < first + count ? beyond - first : -1
      const [u, v] = [at(k), at((k + 1) % 3)]
      cells.edge[3 * c + k] = Math.hypot(u[0] - v[0], u[1] - v[1], u[2] - v[2])
    }
  }
  all.set(zone, cells)
  return cells
}

/** Prepares one zone for planning. */
export function zoneSkin(
  figures: Figures,
  ground: SkinGround,
  flow: SkinFlow,
  zoneId: ZoneId,
  limits: SkinLimits,
): ZoneSkin {
  const number = ground.zoneIds.indexOf(zoneId)
  const zone = ground.records.get(zoneId)!
  const cells = cellsOf(ground, number)
  const [first, count] = ground.mesh.ranges[number]!
  const { indices } = ground.mesh
  const growth = new Float64Array(count)
  const way = new Float64Array(3 * count)
  const trust = new Float64Array(count)
  const errorDeg = new Float64Array(count)
  const guessDeg = figures(C.guessDeg)
  const loose = new Uint8Array(count)
  const { point: c0, normal } = zone.centre
  const n0 = unit(normal)
  const { noon, three } = clockFrame(zoneId, c0, n0)
  const { vectors } = flow
  const near = flow.turning.filter((p) => distance(p, c0) < 160)
  const looseMm = figures(C.looseMm)
  for (let c = 0; c < count; c++) {
    const t = 3 * (first + c)
    let x = 0
    let y = 0
    let z = 0
    for (let k = 0; k < 3; k++) {
      const v = 3 * indices[t + k]!
      x += vectors[v]!
      y += vectors[v + 1]!
      z += vectors[v + 2]!
      trust[c]! += flow.trust[indices[t + k]!]! / 3
      const error = flow.errorDeg[indices[t + k]!]!
      errorDeg[c]! += (Number.isNaN(error) ? guessDeg : error) / 3
    }
    // The smallest turn that takes the cell's normal to the zone's, applied to the growth.
    const nx = cells.normal[3 * c]!
    const ny = cells.normal[3 * c + 1]!
    const nz = cells.normal[3 * c + 2]!
    const out = x * nx + y * ny + z * nz
    const size = Math.hypot(x - out * nx, y - out * ny, z - out * nz) || 1
    way[3 * c] = (x - out * nx) / size
    way[3 * c + 1] = (y - out * ny) / size
    way[3 * c + 2] = (z - out * nz) / size
    const s = nx * n0[0] + ny * n0[1] + nz * n0[2]
    const k = (x * n0[0] + y * n0[1] + z * n0[2]) / Math.max(1 + s, 1e-6)
    const tx = x - k * (nx + n0[0])
    const ty = y - k * (ny + n0[1])
    const tz = z - k * (nz + n0[2])
    const angle = Math.atan2(
      tx * three[0] + ty * three[1] + tz * three[2],
      tx * noon[0] + ty * noon[1] + tz * noon[2],
    )
    growth[c] = angle < 0 ? angle + 2 * Math.PI : angle
    for (const p of near) {
      const dx = cells.middle[3 * c]! - p[0]
      const dy = cells.middle[3 * c + 1]! - p[1]
      const dz = cells.middle[3 * c + 2]! - p[2]
      if (dx * dx + dy * dy + dz * dz < looseMm * looseMm) loose[c] = 1
    }
  }
  const open = workedPart(cells, count, limits.worked)
  const total = (of: Uint8Array) => of.reduce((sum, o, c) => (o ? sum + cells.areaCm2[c]! : sum), 0)
  closeIslands(cells, open, figures(C.leastSplinterCm2))
  const planned = total(open)
  closeCells(ground, first, open, markedVertices(figures, ground, first, count, limits.spots))
  const unmarked = total(open)
  const { outside, restsUntil } = closeOutlined(first, open, limits.outlines ?? [])
  const afterMarks = total(open)
  const kept = keptVertices(figures, ground, number, limits)
  if (kept) closeCells(ground, first, open, kept)
  closeIslands(cells, open, figures(C.leastIslandCm2))
  const openCm2 = total(open)
  return {
    zone,
    first,
    count,
    open,
    ...cells,
    growth,
    way,
    trust,
    errorDeg,
    loose,
    openCm2,
    markedCm2: planned - unmarked,
    outsideCm2: outside.reduce((sum, c) => sum + cells.areaCm2[c]!, 0),
    ...(restsUntil && { restsUntil }),
    keptCm2: limits.bandOnly ? 0 : afterMarks - openCm2,
  }
}

/** The cells of the share that a service works, counted from one edge of the zone. */
function workedPart(cells: Cells, count: number, worked: Worked): Uint8Array {
  const open = new Uint8Array(count)
  if (worked.share >= 1) return open.fill(1)
  const axis = worked.from === 'front' ? 2 : 1
  const sign = worked.from === 'bottom' ? 1 : -1
  const order = Array.from(open.keys()).sort(
    (a, b) => sign * (cells.middle[3 * a + axis]! - cells.middle[3 * b + axis]!) || a - b,
  )
  let left = worked.share * cells.areaCm2.reduce((s, a) => s + a, 0)
  let last = NaN
  for (const c of order) {
    const at = cells.middle[3 * c + axis]!
    // A cell and its twin across the midline go together.
    if (left <= 0 && Math.abs(at - last) > 1e-9) break
    last = at
    open[c] = 1
    left -= cells.areaCm2[c]!
  }
  return open
}

function closeCells(
  ground: SkinGround,
  first: number,
  open: Uint8Array,
  closed: ReadonlySet<number>,
): void {
  if (closed.size === 0) return
  const { indices } = ground.mesh
  for (let c = 0; c < open.length; c++) {
    const t = 3 * (first + c)
    if (closed.has(indices[t]!) || closed.has(indices[t + 1]!) || closed.has(indices[t + 2]!))
      open[c] = 0
  }
}

/** Corners of cells that lie within a mark or its margin. */
function markedVertices(
  figures: Figures,
  ground: SkinGround,
  first: number,
  count: number,
  spots: readonly SkinMark[],
): Set<number> {
  const out = new Set<number>()
  if (spots.length === 0) return out
  const { positions: p, indices } = ground.mesh
  const seen = new Set<number>()
  for (let i = 3 * first; i < 3 * (first + count); i++) {
    const v = indices[i]!
    if (seen.has(v)) continue
    seen.add(v)
    const at: Vec3 = [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!]
    for (const spot of spots) {
      // Half a cell more, so that no part of a cell beside the mark reaches into it.
      const reach = spot.radiusMm + markMargin(figures, spot) + 1
      const hit = spot.trail
        ? spot.trail.some((q) => distance(q.point, at) <= reach)
        : distance(spot.point, at) <= reach
      if (hit) {
        out.add(v)
        break
      }
    }
  }
  return out
}

/** Nearer to a line than this is on it, mm. */
const ON_LINE_MM = 0.01
/** Lines that keep what lies between them. */
const EDGES: ReadonlySet<LineKind> = new Set<LineKind>(['brow', 'brow-under'])
const NO_EDGE = {
  distanceMm: Infinity,
  side: 'left',
  leftMm: 0,
  at: [0, 0, 0],
  beyond: true,
  kept: false,
} as const

/** Corners on the kept side of a line through this zone; for a line-up also those too far out from every line. */
function keptVertices(
  figures: Figures,
  ground: SkinGround,
  zone: number,
  limits: SkinLimits,
): Set<number> | undefined {
  const { mesh } = ground
  const { positions: p, indices } = mesh
  const [first, count] = mesh.ranges[zone]!
  const vertices = new Set<number>()
  let low: Vec3 = [Infinity, Infinity, Infinity]
  let high: Vec3 = [-Infinity, -Infinity, -Infinity]
  for (let i = 3 * first; i < 3 * (first + count); i++) {
    const v = indices[i]!
    vertices.add(v)
    const at: Vec3 = [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!]
    low = [Math.min(low[0], at[0]), Math.min(low[1], at[1]), Math.min(low[2], at[2])]
    high = [Math.max(high[0], at[0]), Math.max(high[1], at[1]), Math.max(high[2], at[2])]
  }
  const reach = figures(LINE_CONSTANTS.reachMm)
  const through = (line: DrawnLine, more: number) =>
    line.path.some(({ point }) =>
      [0, 1, 2].every((k) => point[k]! >= low[k]! - more && point[k]! <= high[k]! + more),
    )
  const band = figures(C.lineBandMm)
  const own = limits.lines.filter(
    (l) => l.path.length > 1 && through(l, limits.bandOnly ? band : 2),
  )
  if (own.length === 0) return limits.bandOnly ? vertices : undefined
  const out = new Set<number>()
  for (const v of vertices) {
    const at: Vec3 = [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!]
    let nearest = Infinity
    // Of the two edges of a brow the nearer one decides, and beyond its ends neither.
    let edge: ReturnType<typeof besidePath> & { kept: boolean } = NO_EDGE
    for (const line of own) {
      const beside = besidePath(line.path, at)
      // What lies on the line itself stays: the same on both sides of a head.
      const inward = line.keep === 'left' ? beside.leftMm : 0 - beside.leftMm
      const kept = inward > -ON_LINE_MM && beside.distanceMm <= reach
      nearest = Math.min(nearest, beside.distanceMm)
      if (EDGES.has(line.kind)) {
        if (beside.distanceMm < edge.distanceMm) edge = { ...beside, kept }
      } else if (kept) {
        out.add(v)
        break
      }
    }
    if (edge.kept && !edge.beyond) out.add(v)
    if (limits.bandOnly && nearest > band) out.add(v)
  }
  return out
}

/** Small patches that hang by no edge on the largest one are left alone. */
function closeIslands(cells: Cells, open: Uint8Array, leastCm2: number): void {
  const seen = new Uint8Array(open.length)
  const patches: { cells: number[]; area: number }[] = []
  for (let c = 0; c < open.length; c++) {
    if (!open[c] || seen[c]) continue
    const patch = patchFrom(cells, c, (d) => open[d] === 1, seen)
    patches.push({ cells: patch, area: patch.reduce((s, d) => s + cells.areaCm2[d]!, 0) })
  }
  const largest = Math.max(0, ...patches.map((p) => p.area))
  for (const { cells: patch, area } of patches) {
    if (area < leastCm2 && area < largest) for (const d of patch) open[d] = 0
  }
}

/** Cells joined edge to edge to a first one, so far as they are of the kind asked for. */
export function patchFrom(
  cells: Pick<ZoneSkin, 'beside'>,
  from: number,
  belongs: (cell: number) => boolean,
  seen: Uint8Array,
): number[] {
  const patch = [from]
  seen[from] = 1
  for (let i = 0; i < patch.length; i++) {
    for (let k = 0; k < 3; k++) {
      const d = cells.beside[3 * patch[i]! + k]!
      if (d < 0 || seen[d] || !belongs(d)) continue
      seen[d] = 1
      patch.push(d)
    }
  }
  return patch
}

/** A direction at a zone's middle as the direction it is at another place: the smallest turn of the normal. */
export function carryDirection(direction: Vec3, from: Vec3, to: Vec3): Vec3 {
  const k = dot(direction, to) / Math.max(1 + dot(from, to), 1e-6)
  return unit([
    direction[0] - k * (from[0] + to[0]),
    direction[1] - k * (from[1] + to[1]),
    direction[2] - k * (from[2] + to[2]),
  ])
}
