/**
 * Streamlets: short ribbons on the surface that follow the field, broad at the root and pointed at the tip. They are walked
 * over flat arrays without making anything on the way, since every stroke of the hand asks for them all anew.
 */
import type { ZonedMesh } from '../head/index.ts'

/** A tangent field on a mesh. */
export interface VertexField {
  /** Unit tangents at the vertices, 3 each. */
  readonly vectors: Float32Array
  /** Ink at the vertices, 0 to 1; nothing is drawn where it is 0. */
  readonly ink: Float32Array
}

/** Where streamlets begin. */
export interface Seeds {
  readonly triangles: Uint32Array
  /** Two barycentric weights each. */
  readonly weights: Float32Array
  readonly count: number
}

export interface Streamlets {
  readonly count: number
  /** Ribbon vertices, `2 * STREAMLET_POINTS` per streamlet, left and right in turn, 3 numbers each. */
  readonly positions: Float32Array
  /** Points that each really has; the rest repeat the tip. */
  readonly points: Uint8Array
  /** Zone number of each streamlet. */
  readonly zones: Uint8Array
  readonly ink: Float32Array
  /** Root, tip and root normal of each, 9 numbers. */
  readonly spines: Float32Array
}

/** Points along a streamlet. */
export const STREAMLET_POINTS = 14
const STEPS = STREAMLET_POINTS - 1
/** Lifted off the skin so that it is not swallowed by it, mm. */
const LIFT_MM = 0.5
/** Triangles one step may cross. */
const MOST_HOPS = 60

/**
 * A place that walks over the surface along the field. What it knows of its place lives in the closure: nothing is made on
 * the way.
 */
function makeWalker(mesh: ZonedMesh, neighbours: Int32Array, field: VertexField) {
  const { positions, normals, indices, zones } = mesh
  const { vectors, ink } = field
  // The place: triangle, point, barycentric weights; the direction and the normal there.
  let t = 0
  let x = 0
  let y = 0
  let z = 0
  let wa = 0
  let wb = 0
  let wc = 0
  let dx = 0
  let dy = 0
  let dz = 0
  let nx = 0
  let ny = 0
  let nz = 0
  let sure = 0

  /** Weights, direction, normal and ink at the place. */
  const weigh = () => {
    const a = 3 * indices[3 * t]!
    const b = 3 * indices[3 * t + 1]!
    const c = 3 * indices[3 * t + 2]!
    const ax = positions[a]!
    const ay = positions[a + 1]!
    const az = positions[a + 2]!
    const ux = positions[b]! - ax
    const uy = positions[b + 1]! - ay
    const uz = positions[b + 2]! - az
    const vx = positions[c]! - ax
    const vy = positions[c + 1]! - ay
    const vz = positions[c + 2]! - az
    const px = x - ax
    const py = y - ay
    const pz = z - az
    const uu = ux * ux + uy * uy + uz * uz
    const uv = ux * vx + uy * vy + uz * vz
    const vv = vx * vx + vy * vy + vz * vz
    const pu = px * ux + py * uy + pz * uz
    const pv = px * vx + py * vy + pz * vz
    const det = uu * vv - uv * uv || 1
    wb = (pu * vv - pv * uv) / det
    wc = (pv * uu - pu * uv) / det
    wa = 1 - wb - wc
    dx = wa * vectors[a]! + wb * vectors[b]! + wc * vectors[c]!
    dy = wa * vectors[a + 1]! + wb * vectors[b + 1]! + wc * vectors[c + 1]!
    dz = wa * vectors[a + 2]! + wb * vectors[b + 2]! + wc * vectors[c + 2]!
    nx = wa * normals[a]! + wb * normals[b]! + wc * normals[c]!
    ny = wa * normals[a + 1]! + wb * normals[b + 1]! + wc * normals[c + 1]!
    nz = wa * normals[a + 2]! + wb * normals[b + 2]! + wc * normals[c + 2]!
    const n = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1
    nx /= n
    ny /= n
    nz /= n
    sure = wa * ink[a / 3]! + wb * ink[b / 3]! + wc * ink[c / 3]!
  }

  /** One step along the direction; false where the surface ends. */
  const step = (length: number): boolean => {
    let left = length
    for (let hop = 0; hop < MOST_HOPS; hop++) {
      const i = 3 * t
      const ax = positions[3 * indices[i]!]!
      const ay = positions[3 * indices[i]! + 1]!
      const az = positions[3 * indices[i]! + 2]!
      const bx = positions[3 * indices[i + 1]!]!
      const by = positions[3 * indices[i + 1]! + 1]!
      const bz = positions[3 * indices[i + 1]! + 2]!
      const cx = positions[3 * indices[i + 2]!]!
      const cy = positions[3 * indices[i + 2]! + 1]!
      const cz = positions[3 * indices[i + 2]! + 2]!
      let fx = (by - ay) * (cz - az) - (bz - az) * (cy - ay)
      let fy = (bz - az) * (cx - ax) - (bx - ax) * (cz - az)
      let fz = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax)
      const f = Math.sqrt(fx * fx + fy * fy + fz * fz) || 1
      fx /= f
      fy /= f
      fz /= f
      const off = dx * fx + dy * fy + dz * fz
      dx -= off * fx
      dy -= off * fy
      dz -= off * fz
      const d = Math.sqrt(dx * dx + dy * dy + dz * dz)
      if (d < 1e-9) return false
      dx /= d
      dy /= d
      dz /= d
      let exit = Infinity
      let edge = -1
      for (let k = 0; k < 3; k++) {
        const px = k === 0 ? ax : k === 1 ? bx : cx
        const py = k === 0 ? ay : k === 1 ? by : cy
        const pz = k === 0 ? az : k === 1 ? bz : cz
        const ex = (k === 0 ? bx : k === 1 ? cx : ax) - px
        const ey = (k === 0 ? by : k === 1 ? cy : ay) - py
        const ez = (k === 0 ? bz : k === 1 ? cz : az) - pz
        const ix = fy * ez - fz * ey
        const iy = fz * ex - fx * ez
        const iz = fx * ey - fy * ex
        const speed = dx * ix + dy * iy + dz * iz
        if (speed >= -1e-12) continue
        const away = Math.max(0, -((x - px) * ix + (y - py) * iy + (z - pz) * iz) / speed)
        if (away < exit) {
          exit = away
          edge = k
        }
      }
      const go = Math.min(exit, left)
      x += go * dx
      y += go * dy
      z += go * dz
      if (edge < 0 || exit >= left) return true
      left -= exit
      const next = neighbours[3 * t + edge]!
      if (next < 0) return false
      t = next
    }
    return true
  }

  return {
    weigh,
    step,
    /** Ink here. */
    ink: () => sure,
    /** Number of the zone here. */
    zone: () => zones[t]!,
    /** Goes to a seed. */
    start(seeds: Seeds, s: number): void {
      t = seeds.triangles[s]!
      const u = seeds.weights[2 * s]!
      const v = seeds.weights[2 * s + 1]!
      const a = 3 * indices[3 * t]!
      const b = 3 * indices[3 * t + 1]!
      const c = 3 * indices[3 * t + 2]!
      x = u * positions[a]! + v * positions[b]! + (1 - u - v) * positions[c]!
      y = u * positions[a + 1]! + v * positions[b + 1]! + (1 - u - v) * positions[c + 1]!
      z = u * positions[a + 2]! + v * positions[b + 2]! + (1 - u - v) * positions[c + 2]!
    },
    /** Writes place and normal into a path, 6 numbers a point. */
    write(path: Float64Array, point: number): void {
      const at = 6 * point
      path[at] = x
      path[at + 1] = y
      path[at + 2] = z
      path[at + 3] = nx
      path[at + 4] = ny
      path[at + 5] = nz
    },
  }
}

/** Walks one streamlet from where the walker stands; returns its points. */
function walkOne(
  walker: ReturnType<typeof makeWalker>,
  path: Float64Array,
  stops: readonly boolean[],
  stepMm: number,
): number {
  for (let point = 0; ; point++) {
    if (point > 0) walker.weigh()
    walker.write(path, point)
    const ends = point === STEPS || stops[walker.zone()]! || walker.ink() < 0.01
    if (ends || !walker.step(stepMm)) return point + 1
  }
}

/** Writes the ribbon along a path: broad at the root, lifted off the skin. */
function writeRibbon(
  path: Float64Array,
  points: number,
  halfWidthMm: number,
  out: Float32Array,
  base: number,
): void {
  for (let i = 0; i < STREAMLET_POINTS; i++) {
    // A streamlet that ended early is drawn out of what it has: its last points fall together.
    const here = 6 * Math.min(i, points - 1)
    const ahead = 6 * Math.min(i + 1, points - 1)
    const behind = 6 * Math.max(0, Math.min(i, points - 1) - (i >= points - 1 ? 1 : 0))
    const tx = path[ahead]! - path[behind]!
    const ty = path[ahead + 1]! - path[behind + 1]!
    const tz = path[ahead + 2]! - path[behind + 2]!
    const hx = path[here + 3]!
    const hy = path[here + 4]!
    const hz = path[here + 5]!
    let sx = ty * hz - tz * hy
    let sy = tz * hx - tx * hz
    let sz = tx * hy - ty * hx
    const size = Math.sqrt(sx * sx + sy * sy + sz * sz) || 1
    sx *= halfWidthMm / size
    sy *= halfWidthMm / size
    sz *= halfWidthMm / size
    const px = path[here]! + LIFT_MM * hx
    const py = path[here + 1]! + LIFT_MM * hy
    const pz = path[here + 2]! + LIFT_MM * hz
    const o = base + 6 * i
    out[o] = px - sx
    out[o + 1] = py - sy
    out[o + 2] = pz - sz
    out[o + 3] = px + sx
    out[o + 4] = py + sy
    out[o + 5] = pz + sz
  }
}

/** Writes root, tip and root normal of a path. */
function writeSpine(path: Float64Array, points: number, out: Float32Array, base: number): void {
  const tip = 6 * (points - 1)
  for (let k = 0; k < 3; k++) {
    out[base + k] = path[k]!
    out[base + 3 + k] = path[tip + k]!
    out[base + 6 + k] = path[3 + k]!
  }
}

/**
 * Walks all streamlets.
 * @param neighbours triangle behind each edge, as `triangleNeighbours` gives it
 * @param stops by zone number: true where a streamlet ends
 * @param lengthMm of a streamlet whose ink is full
 * @param halfWidthMm at its broadest
 */
export function streamlets(
  mesh: ZonedMesh,
  neighbours: Int32Array,
  seeds: Seeds,
  field: VertexField,
  stops: readonly boolean[],
  lengthMm: number,
  halfWidthMm: number,
): Streamlets {
  const most = seeds.count
  const positions = new Float32Array(most * STREAMLET_POINTS * 6)
  const zones = new Uint8Array(most)
  const points = new Uint8Array(most)
  const ink = new Float32Array(most)
  const spines = new Float32Array(most * 9)
  const path = new Float64Array(STREAMLET_POINTS * 6)
  const walker = makeWalker(mesh, neighbours, field)
  let made = 0
  for (let s = 0; s < most; s++) {
    if (stops[mesh.zones[seeds.triangles[s]!]!]) continue
    walker.start(seeds, s)
    walker.weigh()
    const full = walker.ink()
    if (full < 0.02) continue
    const zone = walker.zone()
    const stepMm = (lengthMm * (0.55 + 0.45 * Math.min(1, full))) / STEPS
    const count = walkOne(walker, path, stops, stepMm)
    if (count < 4) continue
    writeRibbon(path, count, halfWidthMm, positions, made * STREAMLET_POINTS * 6)
    writeSpine(path, count, spines, 9 * made)
    zones[made] = zone
    points[made] = count
    ink[made] = full
    made++
  }
  return {
    count: made,
    positions: positions.slice(0, made * STREAMLET_POINTS * 6),
    points: points.slice(0, made),
    zones: zones.slice(0, made),
    ink: ink.slice(0, made),
    spines: spines.slice(0, made * 9),
  }
}
