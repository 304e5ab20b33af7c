/**
 * Flat views of the head: orthographic projection with hidden surfaces removed, as zone outlines for print and for
 * screens without WebGL.
 */
import { contours } from 'd3-contour'
import { dot, type Vec3 } from './frames.ts'
import type { ZonedMesh } from './head.ts'

/** The named views, in the order of their keys 1 to 6. */
export const VIEWS = {
  front: { key: 1, name: 'Front', yawDeg: 0, pitchDeg: 0 },
  left: { key: 2, name: "Client's left", yawDeg: 62, pitchDeg: 0 },
  right: { key: 3, name: "Client's right", yawDeg: -62, pitchDeg: 0 },
  underChin: { key: 4, name: 'Under chin', yawDeg: 0, pitchDeg: -52 },
  crown: { key: 5, name: 'Crown', yawDeg: 180, pitchDeg: 62 },
  nape: { key: 6, name: 'Nape', yawDeg: 180, pitchDeg: 0 },
} as const

export type ViewId = keyof typeof VIEWS
export const VIEW_IDS = Object.keys(VIEWS) as ViewId[]

/** Screen axes of a view in head coordinates: right, up, and toward the viewer. */
export interface ViewAxes {
  readonly right: Vec3
  readonly up: Vec3
  readonly toward: Vec3
}

/**
 * Axes for a viewer who walked `yawDeg` toward the client's left and climbed `pitchDeg` (negative: looks from below,
 * as with the chin raised).
 */
export function viewAxes(yawDeg: number, pitchDeg: number): ViewAxes {
  const yaw = (yawDeg * Math.PI) / 180
  const pitch = (pitchDeg * Math.PI) / 180
  const cy = Math.cos(yaw)
  const sy = Math.sin(yaw)
  const cp = Math.cos(pitch)
  const sp = Math.sin(pitch)
  return {
    right: [cy, 0, -sy],
    up: [-sy * sp, cp, -cy * sp],
    toward: [sy * cp, sp, cy * cp],
  }
}

/** Turn and tilt that show a surface normal, a little off the axis so that the form reads. */
export function viewOf(normal: Vec3): {
  yawDeg: number
  pitchDeg: number
} {
  const yaw = (Math.atan2(normal[0], normal[2]) * 180) / Math.PI
  const pitch = (Math.asin(Math.max(-1, Math.min(1, normal[1]))) * 180) / Math.PI
  return { yawDeg: yaw * 0.9, pitchDeg: Math.max(-60, Math.min(60, pitch * 0.9)) }
}

/** The named view whose direction is nearest to that of a turn and tilt. */
export function nearestView(yawDeg: number, pitchDeg: number): ViewId {
  const { toward } = viewAxes(yawDeg, pitchDeg)
  const closeness = (id: ViewId) =>
    dot(toward, viewAxes(VIEWS[id].yawDeg, VIEWS[id].pitchDeg).toward)
  return VIEW_IDS.reduce((a, b) => (closeness(b) > closeness(a) ? b : a))
}

/** Screen position of a point, mm to the right and up of the head's middle, and its depth toward the viewer. */
export function projectPoint(axes: ViewAxes, p: Vec3): Vec3 {
  const x = p[0]
  const y = p[1] - VIEW_CENTRE[1]
  const z = p[2] - VIEW_CENTRE[2]
  const along = (a: Vec3) => a[0] * x + a[1] * y + a[2] * z
  return [along(axes.right), along(axes.up), along(axes.toward)]
}

/** The point that stands in the middle of every view. */
export const VIEW_CENTRE: Vec3 = [0, -46, 6]

/** What stands nearest the viewer at each pixel; -1 is the room. */
export interface ViewRaster {
  readonly width: number
  readonly height: number
  readonly pixelMm: number
  /** Triangle of each pixel, row by row from the top. */
  readonly triangle: Int32Array
  readonly depth: Float32Array
}

/** Half width and half height of a flat view, mm. */
export const FLAT_HALF = { width: 125, height: 185 } as const

/** Draws a view into a depth buffer. */
export function rasterise(mesh: ZonedMesh, axes: ViewAxes, pixelMm: number): ViewRaster {
  const width = Math.round((2 * FLAT_HALF.width) / pixelMm)
  const height = Math.round((2 * FLAT_HALF.height) / pixelMm)
  const triangle = new Int32Array(width * height).fill(-1)
  const depth = new Float32Array(width * height).fill(-Infinity)
  const n = mesh.positions.length / 3
  const screen = new Float32Array(n * 3)
  for (let v = 0; v < n; v++) {
    const [sx, sy, sz] = projectPoint(axes, [
      mesh.positions[3 * v]!,
      mesh.positions[3 * v + 1]!,
      mesh.positions[3 * v + 2]!,
    ])
    screen[3 * v] = (sx + FLAT_HALF.width) / pixelMm - 0.5
    screen[3 * v + 1] = (FLAT_HALF.height - sy) / pixelMm - 0.5
    screen[3 * v + 2] = sz
  }
  for (let t = 0; t < mesh.indices.length / 3; t++) {
    const a = 3 * mesh.indices[3 * t]!
    const b = 3 * mesh.indices[3 * t + 1]!
    const c = 3 * mesh.indices[3 * t + 2]!
    const ax = screen[a]!
    const ay = screen[a + 1]!
    const bx = screen[b]! - ax
    const by = screen[b + 1]! - ay
    const cx = screen[c]! - ax
    const cy = screen[c + 1]! - ay
    const area = bx * cy - by * cx
    // Rows run downward, so a triangle that faces the viewer has negative area here.
    if (area >= 0) continue
    const x0 = Math.max(0, Math.ceil(Math.min(ax, screen[b]!, screen[c]!)))
    const x1 = Math.min(width - 1, Math.floor(Math.max(ax, screen[b]!, screen[c]!)))
    const y0 = Math.max(0, Math.ceil(Math.min(ay, screen[b + 1]!, screen[c + 1]!)))
    const y1 = Math.min(height - 1, Math.floor(Math.max(ay, screen[b + 1]!, screen[c + 1]!)))
    for (let y = y0; y <= y1; y++) {
      for (let x = x0; x <= x1; x++) {
        const px = x - ax
        const py = y - ay
        const u = (px * cy - py * cx) / area
        const v = (bx * py - by * px) / area
        if (u < -1e-5 || v < -1e-5 || u + v > 1 + 1e-5) continue
        const z =
          screen[a + 2]! +
          u * (screen[b + 2]! - screen[a + 2]!) +
          v * (screen[c + 2]! - screen[a + 2]!)
        const i = y * width + x
        if (z > depth[i]!) {
          depth[i] = z
          triangle[i] = t
        }
      }
    }
  }
  return { width, height, pixelMm, triangle, depth }
}

/** Outline of one zone in a flat view: rings of (x, y), mm right and down from the view's top left corner. */
export interface FlatZone {
  /** Index into ZONE_IDS. */
  readonly zone: number
  readonly rings: readonly (readonly number[])[]
}

/** A flat view: the head's silhouette and the visible part of each zone. */
export interface FlatView {
  readonly id: ViewId
  readonly widthMm: number
  readonly heightMm: number
  readonly silhouette: readonly (readonly number[])[]
  readonly zones: readonly FlatZone[]
}

/** Traces a named view into outlines. */
export function flatView(mesh: ZonedMesh, id: ViewId): FlatView {
  const { yawDeg, pitchDeg } = VIEWS[id]
  const pixelMm = 0.8
  const raster = rasterise(mesh, viewAxes(yawDeg, pitchDeg), pixelMm)
  const { width, height } = raster
  const trace = (mask: Float64Array): number[][] => {
    const [found] = contours().size([width, height]).thresholds([0.5])(mask as unknown as number[])
    return found!.coordinates
      .flat()
      .map((ring) => simplify(ring as [number, number][], 0.35).flatMap(([x, y]) => [mm(x), mm(y)]))
      .filter((ring) => ring.length >= 8)
  }
  const mm = (v: number) => Math.round(v * pixelMm * 10) / 10
  const all = new Float64Array(width * height)
  const byZone = new Map<number, Float64Array>()
  raster.triangle.forEach((t, i) => {
    if (t < 0) return
    all[i] = 1
    const zone = mesh.zones[t]!
    let mask = byZone.get(zone)
    if (!mask) byZone.set(zone, (mask = new Float64Array(width * height)))
    mask[i] = 1
  })
  return {
    id,
    widthMm: 2 * FLAT_HALF.width,
    heightMm: 2 * FLAT_HALF.height,
    silhouette: trace(all),
    zones: [...byZone.entries()]
      .sort((a, b) => a[0] - b[0])
      .map(([zone, mask]) => ({ zone, rings: trace(mask) }))
      .filter((z) => z.rings.length > 0),
  }
}

/** Douglas–Peucker simplification of a closed ring. */
function simplify(ring: [number, number][], tolerance: number): [number, number][] {
  const keep = new Uint8Array(ring.length)
  keep[0] = keep[ring.length - 1] = 1
  const stack: [number, number][] = [
    [0, ring.length >> 1],
    [ring.length >> 1, ring.length - 1],
  ]
  keep[ring.length >> 1] = 1
  while (stack.length > 0) {
    const [from, to] = stack.pop()!
    const [ax, ay] = ring[from]!
    const [bx, by] = ring[to]!
    const length = Math.hypot(bx - ax, by - ay) || 1
    let far = -1
    let most = tolerance
    for (let i = from + 1; i < to; i++) {
      const d = Math.abs((bx - ax) * (ring[i]![1] - ay) - (by - ay) * (ring[i]![0] - ax)) / length
      if (d > most) {
        most = d
        far = i
      }
    }
    if (far >= 0) {
      keep[far] = 1
      stack.push([from, far], [far, to])
    }
  }
  return ring.filter((_, i) => keep[i])
}
