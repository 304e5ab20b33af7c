/** Finds the nearest place on a mesh to a point in space. */
import { DomainError } from '../errors.ts'
import { cross, distance, unit, type Vec3 } from './frames.ts'
import type { Mesh } from './mesh.ts'

/** A place on a mesh: a triangle and the weights of its three corners. */
export interface MeshPlace {
  readonly triangle: number
  readonly weights: Vec3
  readonly distanceMm: number
}

/** Side of a cell, mm. */
const CELL_MM = 12
/** Cells that are looked through at most, each way. */
const FARTHEST_RING = 4
/** A triangle that looks the other way counts as this much farther off, mm: a lip must not answer for a nose. */
const LOOKS_AWAY_MM = 10

/** Answers nearest-place questions on a mesh. Nearest point of a triangle after Ericson 2005, Real-Time Collision Detection 5.1.5 (from memory). */
export class Locator {
  private readonly cells = new Map<number, number[]>()
  /** Corners (9) and unit normal (3) of each triangle. */
  private readonly faces: Float64Array
  /** A ball round each triangle: middle and radius. */
  private readonly balls: Float64Array
  private wa = 0
  private wb = 0
  private wc = 0

  constructor(mesh: Mesh) {
    const { positions, indices } = mesh
    const count = indices.length / 3
    this.faces = new Float64Array(12 * count)
    this.balls = new Float64Array(4 * count)
    const low = [0, 0, 0]
    const high = [0, 0, 0]
    for (let t = 0; t < count; t++) {
      const f = 12 * t
      for (let k = 0; k < 3; k++)
        for (let x = 0; x < 3; x++)
          this.faces[f + 3 * k + x] = positions[3 * indices[3 * t + k]! + x]!
      const c = this.faces
      const n = unit(
        cross(
          [c[f + 3]! - c[f]!, c[f + 4]! - c[f + 1]!, c[f + 5]! - c[f + 2]!],
          [c[f + 6]! - c[f]!, c[f + 7]! - c[f + 1]!, c[f + 8]! - c[f + 2]!],
        ),
      )
      c.set(n, f + 9)
      const ball: Vec3 = [
        (c[f]! + c[f + 3]! + c[f + 6]!) / 3,
        (c[f + 1]! + c[f + 4]! + c[f + 7]!) / 3,
        (c[f + 2]! + c[f + 5]! + c[f + 8]!) / 3,
      ]
      this.balls.set(ball, 4 * t)
      for (let k = 0; k < 3; k++) {
        const corner: Vec3 = [c[f + 3 * k]!, c[f + 3 * k + 1]!, c[f + 3 * k + 2]!]
        this.balls[4 * t + 3] = Math.max(this.balls[4 * t + 3]!, distance(ball, corner))
      }
      for (let x = 0; x < 3; x++) {
        low[x] = Math.floor(Math.min(c[f + x]!, c[f + 3 + x]!, c[f + 6 + x]!) / CELL_MM)
        high[x] = Math.floor(Math.max(c[f + x]!, c[f + 3 + x]!, c[f + 6 + x]!) / CELL_MM)
      }
      for (let i = low[0]!; i <= high[0]!; i++)
        for (let j = low[1]!; j <= high[1]!; j++)
          for (let k = low[2]!; k <= high[2]!; k++) {
            const key = cellKey(i, j, k)
            const bucket = this.cells.get(key)
            if (bucket) bucket.push(t)
            else this.cells.set(key, [t])
          }
    }
  }

  /** True when the ball round a triangle alone shows that it lies no nearer than a distance. */
  private beyond(t: number, px: number, py: number, pz: number, distanceMm: number): boolean {
    const b = this.balls
    const x = px - b[4 * t]!
    const y = py - b[4 * t + 1]!
    const z = pz - b[4 * t + 2]!
    const reach = distanceMm + b[4 * t + 3]!
    return x * x + y * y + z * z > reach * reach
  }

  /** Squared distance of a point to a triangle; leaves the weights of the nearest place behind. */
  private measure(t: number, px: number, py: number, pz: number): number {
    const c = this.faces
    const f = 12 * t
    const ax = c[f]!
    const ay = c[f + 1]!
    const az = c[f + 2]!
    const ux = c[f + 3]! - ax
    const uy = c[f + 4]! - ay
    const uz = c[f + 5]! - az
    const vx = c[f + 6]! - ax
    const vy = c[f + 7]! - ay
    const vz = c[f + 8]! - az
    const qx = px - ax
    const qy = py - ay
    const qz = pz - az
    const d1 = ux * qx + uy * qy + uz * qz
    const d2 = vx * qx + vy * qy + vz * qz
    const uu = ux * ux + uy * uy + uz * uz
    const uv = ux * vx + uy * vy + uz * vz
    const vv = vx * vx + vy * vy + vz * vz
    const d3 = d1 - uu
    const d4 = d2 - uv
    const d5 = d1 - uv
    const d6 = d2 - vv
    let b = 0
    let g = 0
    if (d1 <= 0 && d2 <= 0) {
      b = 0
      g = 0
    } else if (d3 >= 0 && d4 <= d3) {
      b = 1
    } else if (d6 >= 0 && d5 <= d6) {
      g = 1
    } else {
      const vc = d1 * d4 - d3 * d2
      const vb = d5 * d2 - d1 * d6
      const va = d3 * d6 - d5 * d4
      if (vc <= 0 && d1 >= 0 && d3 <= 0) b = d1 / (d1 - d3)
      else if (vb <= 0 && d2 >= 0 && d6 <= 0) g = d2 / (d2 - d6)
      else if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
        g = (d4 - d3) / (d4 - d3 + (d5 - d6))
        b = 1 - g
      } else {
        const s = 1 / (va + vb + vc)
        b = vb * s
        g = vc * s
      }
    }
    this.wa = 1 - b - g
    this.wb = b
    this.wc = g
    const ex = qx - b * ux - g * vx
    const ey = qy - b * uy - g * vy
    const ez = qz - b * uz - g * vz
    return ex * ex + ey * ey + ez * ez
  }

  /**
   * The nearest place to a point; with a normal, preferably one that looks the same way.
   * @throws DomainError `off-the-head` when the point is farther than a few centimetres from the mesh
   */
  nearest(point: Vec3, normal?: Vec3): MeshPlace {
    const [px, py, pz] = point
    const ci = Math.floor(px / CELL_MM)
    const cj = Math.floor(py / CELL_MM)
    const ck = Math.floor(pz / CELL_MM)
    // From the point to the nearest wall of its own cell.
    const wall = Math.min(
      ...[px / CELL_MM - ci, py / CELL_MM - cj, pz / CELL_MM - ck].map(
        (s) => CELL_MM * Math.min(s, 1 - s),
      ),
    )
    let best: MeshPlace | undefined
    let bestCost = Infinity
    for (let ring = 0; ring <= FARTHEST_RING; ring++) {
      if (ring > 0 && bestCost <= wall + (ring - 1) * CELL_MM) break
      for (let i = -ring; i <= ring; i++)
        for (let j = -ring; j <= ring; j++) {
          const shell = Math.max(Math.abs(i), Math.abs(j)) === ring
          for (let k = -ring; k <= ring; k += shell || ring === 0 ? 1 : 2 * ring) {
            const bucket = this.cells.get(cellKey(ci + i, cj + j, ck + k))
            if (!bucket) continue
            for (const t of bucket) {
              if (this.beyond(t, px, py, pz, bestCost)) continue
              const distanceMm = Math.sqrt(this.measure(t, px, py, pz))
              if (distanceMm >= bestCost) continue
              let cost = distanceMm
              if (normal) {
                const c = this.faces
                const f = 12 * t + 9
                const facing = normal[0] * c[f]! + normal[1] * c[f + 1]! + normal[2] * c[f + 2]!
                cost += LOOKS_AWAY_MM * Math.max(0, 0.5 - facing)
              }
              if (cost >= bestCost) continue
              bestCost = cost
              best = { triangle: t, weights: [this.wa, this.wb, this.wc], distanceMm }
            }
          }
        }
    }
    if (!best) throw new DomainError('off-the-head', 'That place does not lie on the head.')
    return best
  }

  /** The triangle under whose surface a point lies; undefined when it lies above the nearest one, or far from all. */
  below(point: Vec3): number | undefined {
    let found: MeshPlace
    try {
      found = this.nearest(point)
    } catch (error) {
      if (error instanceof DomainError) return undefined
      throw error
    }
    const c = this.faces
    const f = 12 * found.triangle
    const side =
      (point[0] - c[f]!) * c[f + 9]! +
      (point[1] - c[f + 1]!) * c[f + 10]! +
      (point[2] - c[f + 2]!) * c[f + 11]!
    return side < 0 ? found.triangle : undefined
  }

  /** A triangle nearer to a point than a distance of at most one cell; undefined when there is none. */
  within(point: Vec3, distanceMm: number): number | undefined {
    const [px, py, pz] = point
    const low = point.map((c) => Math.floor((c - distanceMm) / CELL_MM)) as [number, number, number]
    const high = point.map((c) => Math.floor((c + distanceMm) / CELL_MM)) as [
      number,
      number,
      number,
    ]
    const most = distanceMm * distanceMm
    for (let i = low[0]; i <= high[0]; i++)
      for (let j = low[1]; j <= high[1]; j++)
        for (let k = low[2]; k <= high[2]; k++)
          for (const t of this.cells.get(cellKey(i, j, k)) ?? [])
            if (!this.beyond(t, px, py, pz, distanceMm) && this.measure(t, px, py, pz) < most)
              return t
    return undefined
  }
}

const cellKey = (i: number, j: number, k: number) => ((i + 200) * 512 + (j + 200)) * 512 + (k + 200)
