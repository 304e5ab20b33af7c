/**
 * Surface nets on a half grid with unequal steps, relaxed and projected back onto the surface.
 * Naive surface nets: Gibson 1998, "Constrained elastic surface nets" (from memory).
 */
import { HeadField, type Detail } from './shape.ts'

/** A triangle mesh: positions 3 per vertex (mm), indices 3 per triangle, anticlockwise from outside. */
export interface Mesh {
  readonly positions: Float32Array
  readonly indices: Uint32Array
}

/** Stretches of a grid line: up to this coordinate, by this step, mm. */
type Stretch = readonly (readonly [upTo: number, step: number])[]

const STRETCHES: { x: Stretch; y: Stretch; z: Stretch } = {
  x: [
    [30, 1.5],
    [60, 2.6],
    [100, 1.5],
    [140, 5],
  ],
  y: [
    [-196, 2.8],
    [-120, 4],
    [-84, 2.6],
    [-56, 1.2],
    [-30, 1.5],
    [24, 1.8],
    [124, 4],
  ],
  z: [
    [-44, 4],
    [8, 1.7],
    [60, 3.2],
    [124, 1.7],
  ],
}

function line(from: number, stretch: Stretch, scale: number): Float64Array {
  const out = [from]
  for (const [upTo, step] of stretch) {
    const start = out[out.length - 1]!
    const n = Math.max(1, Math.round((upTo - start) / (step * scale)))
    for (let i = 1; i <= n; i++) out.push(start + ((upTo - start) * i) / n)
  }
  return Float64Array.from(out)
}

/** Grid scale of the two resolutions: about 30 000 and about 2 500 vertices on the whole head. */
export const GRID_SCALE: Record<Detail, number> = { full: 1.45, solve: 4.5 }

/**
 * The half of the head with x ≥ 0. Vertices on the midline have x = 0 exactly, so that the mirrored half fits.
 * The first cell straddles the midline; by symmetry its vertex lies on it.
 */
export function halfHead(field: HeadField, scale: number): Mesh {
  const half = 0.75 * scale
  const xs = line(half, STRETCHES.x, scale)
  const gx = new Float64Array(xs.length + 1)
  gx[0] = -half
  gx.set(xs, 1)
  const gy = line(-232, STRETCHES.y, scale)
  const gz = line(-112 - 4 * scale, STRETCHES.z, scale)
  const nx = gx.length
  const ny = gy.length
  const nz = gz.length
  const at = (i: number, j: number, k: number) => (i * ny + j) * nz + k

  const values = new Float32Array(nx * ny * nz)
  for (let i = 0; i < nx; i++) {
    for (let j = 0; j < ny; j++) {
      for (let k = 0; k < nz; k++) {
        const x = Math.abs(gx[i]!)
        const rough = field.coarse(x, gy[j]!, gz[k]!)
        // Empty or solid space: only the sign is needed.
        values[at(i, j, k)] =
          Math.abs(rough) > HeadField.coarseReachMm + 2 ? rough : field.distance(x, gy[j]!, gz[k]!)
      }
    }
  }

  const cellVertex = new Int32Array(nx * ny * nz).fill(-1)
  const points: number[] = []
  const corner = new Float64Array(8)
  for (let i = 0; i + 1 < nx; i++) {
    for (let j = 0; j + 1 < ny; j++) {
      for (let k = 0; k + 1 < nz; k++) {
        let inside = 0
        for (let c = 0; c < 8; c++) {
          corner[c] = values[at(i + (c & 1), j + ((c >> 1) & 1), k + (c >> 2))]!
          if (corner[c]! < 0) inside++
        }
        if (inside === 0 || inside === 8) continue
        let sx = 0
        let sy = 0
        let sz = 0
        let n = 0
        for (let a = 0; a < 8; a++) {
          for (let axis = 1; axis < 8; axis <<= 1) {
            if (a & axis) continue
            const b = a | axis
            const va = corner[a]!
            const vb = corner[b]!
            if (va < 0 === vb < 0) continue
            const t = va / (va - vb)
            sx += mix(gx, i, a & 1, b & 1, t)
            sy += mix(gy, j, (a >> 1) & 1, (b >> 1) & 1, t)
            sz += mix(gz, k, a >> 2, b >> 2, t)
            n++
          }
        }
        cellVertex[at(i, j, k)] = points.length / 3
        points.push(i === 0 ? 0 : sx / n, sy / n, sz / n)
      }
    }
  }

  const indices: number[] = []
  const quad = (a: number, b: number, c: number, d: number, flip: boolean) => {
    if (a < 0 || b < 0 || c < 0 || d < 0) return
    const diagonal = (p: number, q: number) =>
      Math.hypot(
        points[3 * p]! - points[3 * q]!,
        points[3 * p + 1]! - points[3 * q + 1]!,
        points[3 * p + 2]! - points[3 * q + 2]!,
      )
    const [p, q, r, s] = flip ? [a, d, c, b] : [a, b, c, d]
    if (diagonal(p, r) <= diagonal(q, s)) indices.push(p, q, r, p, r, s)
    else indices.push(q, r, s, q, s, p)
  }
  for (let i = 0; i < nx; i++) {
    for (let j = 1; j + 1 < ny; j++) {
      for (let k = 1; k + 1 < nz; k++) {
        const v = values[at(i, j, k)]! < 0
        if (i + 1 < nx && i >= 1 && v !== values[at(i + 1, j, k)]! < 0) {
          quad(
            cellVertex[at(i, j - 1, k - 1)]!,
            cellVertex[at(i, j, k - 1)]!,
            cellVertex[at(i, j, k)]!,
            cellVertex[at(i, j - 1, k)]!,
            !v,
          )
        }
        if (i >= 1 && v !== values[at(i, j + 1, k)]! < 0) {
          quad(
            cellVertex[at(i - 1, j, k - 1)]!,
            cellVertex[at(i - 1, j, k)]!,
            cellVertex[at(i, j, k)]!,
            cellVertex[at(i, j, k - 1)]!,
            !v,
          )
        }
        if (i >= 1 && v !== values[at(i, j, k + 1)]! < 0) {
          quad(
            cellVertex[at(i - 1, j - 1, k)]!,
            cellVertex[at(i, j - 1, k)]!,
            cellVertex[at(i, j, k)]!,
            cellVertex[at(i - 1, j, k)]!,
            !v,
          )
        }
      }
    }
  }
  const positions = Float32Array.from(points)
  relax(field, positions, indices, 3)
  return { positions, indices: Uint32Array.from(indices) }
}

function mix(grid: Float64Array, index: number, a: number, b: number, t: number): number {
  const from = grid[index + a]!
  return from + t * (grid[index + b]! - from)
}

/** Evens out the triangles: each vertex half way toward the mean of its neighbours, then back onto the surface. */
function relax(field: HeadField, positions: Float32Array, indices: number[], rounds: number): void {
  const n = positions.length / 3
  const sum = new Float64Array(n * 4)
  const p = [0, 0, 0]
  for (let round = 0; round < rounds; round++) {
    sum.fill(0)
    for (let t = 0; t < indices.length; t += 3) {
      for (let e = 0; e < 3; e++) {
        const a = indices[t + e]!
        const b = indices[t + ((e + 1) % 3)]!
        // Every inner edge is met from both sides; a midline edge once, but its mirror image supplies the other side.
        for (const [to, from] of [
          [a, b],
          [b, a],
        ] as const) {
          sum[4 * to]! += positions[3 * from]!
          sum[4 * to + 1]! += positions[3 * from + 1]!
          sum[4 * to + 2]! += positions[3 * from + 2]!
          sum[4 * to + 3]! += 1
        }
      }
    }
    for (let v = 0; v < n; v++) {
      const w = sum[4 * v + 3]! || 1
      const onMidline = positions[3 * v] === 0
      p[0] = onMidline ? 0 : 0.5 * positions[3 * v]! + (0.5 * sum[4 * v]!) / w
      p[1] = 0.5 * positions[3 * v + 1]! + (0.5 * sum[4 * v + 1]!) / w
      p[2] = 0.5 * positions[3 * v + 2]! + (0.5 * sum[4 * v + 2]!) / w
      field.project(p, 2)
      positions[3 * v] = onMidline ? 0 : Math.max(p[0], 0.05)
      positions[3 * v + 1] = p[1]!
      positions[3 * v + 2] = p[2]!
    }
  }
}

/** The whole mesh from its half: x ≥ 0 first, then the mirrored vertices; midline vertices are shared. */
export function mirrorMesh(half: Mesh): { mesh: Mesh; mirrorOf: Uint32Array } {
  const n = half.positions.length / 3
  const twin = new Uint32Array(n)
  const extra: number[] = []
  for (let v = 0; v < n; v++) {
    const x = half.positions[3 * v]!
    if (x === 0) twin[v] = v
    else {
      twin[v] = n + extra.length / 3
      extra.push(-x, half.positions[3 * v + 1]!, half.positions[3 * v + 2]!)
    }
  }
  const positions = new Float32Array(half.positions.length + extra.length)
  positions.set(half.positions)
  positions.set(extra, half.positions.length)
  const m = half.indices.length
  const indices = new Uint32Array(2 * m)
  indices.set(half.indices)
  for (let t = 0; t < m; t += 3) {
    indices[m + t] = twin[half.indices[t]!]!
    indices[m + t + 1] = twin[half.indices[t + 2]!]!
    indices[m + t + 2] = twin[half.indices[t + 1]!]!
  }
  const mirrorOf = new Uint32Array(positions.length / 3)
  for (let v = 0; v < n; v++) {
    mirrorOf[v] = twin[v]!
    mirrorOf[twin[v]!] = v
  }
  return { mesh: { positions, indices }, mirrorOf }
}

/**
 * Topology of a mesh: whether every edge has exactly two triangles that run along it in opposite directions, and the
 * Euler characteristic V − E + F (2 for a closed surface without handles).
 */
export function topology(mesh: Mesh): { closed: boolean; euler: number } {
  const n = mesh.positions.length / 3
  const seen = new Map<number, number>()
  let closed = true
  const used = new Uint8Array(n)
  for (let t = 0; t < mesh.indices.length; t += 3) {
    for (let e = 0; e < 3; e++) {
      const a = mesh.indices[t + e]!
      const b = mesh.indices[t + ((e + 1) % 3)]!
      used[a] = 1
      const key = a * n + b
      if (seen.has(key)) closed = false
      seen.set(key, 1)
    }
  }
  for (const key of seen.keys()) {
    const a = Math.floor(key / n)
    const b = key % n
    if (!seen.has(b * n + a)) closed = false
  }
  const vertices = used.reduce((s, u) => s + u, 0)
  return { closed, euler: vertices - seen.size / 2 + mesh.indices.length / 3 }
}
