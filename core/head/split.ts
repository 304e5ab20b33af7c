/**
 * Cuts a mesh along zone borders: label changes along edges are found by bisection, the triangles split there, so that
 * every triangle lies in exactly one zone and borders are crisp at any size.
 */
import type { Mesh } from './mesh.ts'
import type { ZoneStem } from '../zones/index.ts'

export interface LabelledMesh {
  readonly mesh: Mesh
  /** Zone stem of each triangle. */
  readonly labels: ZoneStem[]
}

/**
 * @param half the half head, x ≥ 0
 * @param classify zone stem at a point
 * @param project moves a new border vertex onto the surface, in place
 */
export function splitByZone(
  half: Mesh,
  classify: (x: number, y: number, z: number) => ZoneStem,
  project: (p: number[]) => void,
): LabelledMesh {
  const positions = Array.from(half.positions)
  const vertexLabel: ZoneStem[] = []
  for (let v = 0; v < positions.length; v += 3)
    vertexLabel.push(classify(positions[v]!, positions[v + 1]!, positions[v + 2]!))

  const cuts = new Map<number, number>()
  const stride = half.positions.length
  const borderVertex = (a: number, b: number): number => {
    const key = a < b ? a * stride + b : b * stride + a
    const known = cuts.get(key)
    if (known !== undefined) return known
    const [from, to] = a < b ? [a, b] : [b, a]
    let lo = 0
    let hi = 1
    const at = (t: number, i: number) =>
      positions[3 * from + i]! + t * (positions[3 * to + i]! - positions[3 * from + i]!)
    for (let step = 0; step < 12; step++) {
      const mid = (lo + hi) / 2
      if (classify(at(mid, 0), at(mid, 1), at(mid, 2)) === vertexLabel[from]) lo = mid
      else hi = mid
    }
    // Keep a little distance from the corners, or slivers of no area appear.
    const t = Math.min(0.94, Math.max(0.06, (lo + hi) / 2))
    const p = [at(t, 0), at(t, 1), at(t, 2)]
    const onMidline = positions[3 * from] === 0 && positions[3 * to] === 0
    project(p)
    if (onMidline) p[0] = 0
    const id = positions.length / 3
    positions.push(p[0]!, p[1]!, p[2]!)
    cuts.set(key, id)
    return id
  }

  const indices: number[] = []
  const labels: ZoneStem[] = []
  const emit = (label: ZoneStem, a: number, b: number, c: number) => {
    indices.push(a, b, c)
    labels.push(label)
  }
  for (let t = 0; t < half.indices.length; t += 3) {
    const v = [half.indices[t]!, half.indices[t + 1]!, half.indices[t + 2]!] as const
    const l = v.map((i) => vertexLabel[i]!)
    if (l[0] === l[1] && l[1] === l[2]) {
      emit(l[0]!, ...v)
      continue
    }
    const odd = l[1] === l[2] ? 0 : l[0] === l[2] ? 1 : l[0] === l[1] ? 2 : undefined
    if (odd !== undefined) {
      const [a, b, c] = [v[odd], v[(odd + 1) % 3]!, v[(odd + 2) % 3]!]
      const ab = borderVertex(a, b)
      const ca = borderVertex(c, a)
      emit(l[odd]!, a, ab, ca)
      emit(l[(odd + 1) % 3]!, ab, b, c)
      emit(l[(odd + 1) % 3]!, ab, c, ca)
      continue
    }
    // Three zones meet in this triangle.
    const [a, b, c] = v
    const ab = borderVertex(a, b)
    const bc = borderVertex(b, c)
    const ca = borderVertex(c, a)
    const p = [0, 1, 2].map(
      (i) => (positions[3 * ab + i]! + positions[3 * bc + i]! + positions[3 * ca + i]!) / 3,
    )
    project(p)
    const m = positions.length / 3
    positions.push(p[0]!, p[1]!, p[2]!)
    emit(l[0]!, a, ab, m)
    emit(l[0]!, a, m, ca)
    emit(l[1]!, b, bc, m)
    emit(l[1]!, b, m, ab)
    emit(l[2]!, c, ca, m)
    emit(l[2]!, c, m, bc)
  }
  return {
    mesh: { positions: Float32Array.from(positions), indices: Uint32Array.from(indices) },
    labels,
  }
}
