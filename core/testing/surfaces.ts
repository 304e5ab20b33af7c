/** Surfaces whose answers are known, for tests. */
import type { ZonedMesh, Mesh } from '../head/index.ts'

/** A sphere as a grid that closes at two poles. */
export function sphere(radius: number, rings: number, segments: number): Mesh {
  const positions: number[] = [0, radius, 0]
  for (let r = 1; r < rings; r++) {
    const theta = (Math.PI * r) / rings
    for (let s = 0; s < segments; s++) {
      const phi = (2 * Math.PI * s) / segments
      positions.push(
        radius * Math.sin(theta) * Math.sin(phi),
        radius * Math.cos(theta),
        radius * Math.sin(theta) * Math.cos(phi),
      )
    }
  }
  positions.push(0, -radius, 0)
  const at = (r: number, s: number) => 1 + (r - 1) * segments + (s % segments)
  const south = positions.length / 3 - 1
  const indices: number[] = []
  for (let s = 0; s < segments; s++) {
    indices.push(0, at(1, s), at(1, s + 1))
    for (let r = 1; r + 1 < rings; r++) {
      indices.push(at(r, s), at(r + 1, s), at(r, s + 1))
      indices.push(at(r, s + 1), at(r + 1, s), at(r + 1, s + 1))
    }
    indices.push(at(rings - 1, s), south, at(rings - 1, s + 1))
  }
  return { positions: Float32Array.from(positions), indices: Uint32Array.from(indices) }
}

/** A closed box about the origin, each side a grid of `n` by `n` squares; its upper side lies in the plane y = half[1]. */
export function box(half: readonly [number, number, number], n: number): Mesh {
  const positions: number[] = []
  const indices: number[] = []
  const known = new Map<string, number>()
  const vertex = (p: readonly number[]) => {
    const key = p.map((x) => x.toFixed(4)).join()
    let v = known.get(key)
    if (v === undefined) {
      v = positions.length / 3
      positions.push(...p)
      known.set(key, v)
    }
    return v
  }
  for (let axis = 0; axis < 3; axis++) {
    for (const sign of [1, -1]) {
      const [u, w] = [(axis + 1) % 3, (axis + 2) % 3]
      const at = (i: number, j: number) => {
        const p = [0, 0, 0]
        p[axis] = sign * half[axis]!
        p[u] = half[u]! * ((2 * i) / n - 1)
        p[w] = half[w]! * ((2 * j) / n - 1)
        return vertex(p)
      }
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n; j++) {
          const [a, b, c, d] = [at(i, j), at(i + 1, j), at(i + 1, j + 1), at(i, j + 1)]
          if (sign > 0) indices.push(a, b, c, a, c, d)
          else indices.push(a, c, b, a, d, c)
        }
    }
  }
  return { positions: Float32Array.from(positions), indices: Uint32Array.from(indices) }
}

/** A bare mesh with smooth normals and every triangle in zone 0. */
export function zoned(mesh: Mesh): ZonedMesh {
  const normals = new Float32Array(mesh.positions.length)
  const p = mesh.positions
  for (let t = 0; t < mesh.indices.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => 3 * mesh.indices[t + k]!) as [number, number, number]
    const u = [0, 1, 2].map((k) => p[b + k]! - p[a + k]!)
    const v = [0, 1, 2].map((k) => p[c + k]! - p[a + k]!)
    const n = [
      u[1]! * v[2]! - u[2]! * v[1]!,
      u[2]! * v[0]! - u[0]! * v[2]!,
      u[0]! * v[1]! - u[1]! * v[0]!,
    ]
    for (const corner of [a, b, c]) for (let k = 0; k < 3; k++) normals[corner + k]! += n[k]!
  }
  for (let i = 0; i < normals.length; i += 3) {
    const size = Math.hypot(normals[i]!, normals[i + 1]!, normals[i + 2]!) || 1
    for (let k = 0; k < 3; k++) normals[i + k]! /= size
  }
  const triangles = mesh.indices.length / 3
  return { ...mesh, normals, zones: new Uint8Array(triangles), ranges: [[0, triangles]] }
}
