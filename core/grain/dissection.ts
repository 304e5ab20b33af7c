/** Elimination order by nested dissection (George 1973, from memory): halves first, what parts them last. */

/** Directions across which a set is cut in half; the diagonals between them save little more. */
const CUTS = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
] as const

interface Parting {
  readonly parts: readonly Int32Array[]
  /** In each half, what touches the other. */
  readonly shores: readonly Int32Array[]
  readonly giver: number
}

/**
 * Order of elimination for a sparse matrix whose unknowns lie in space.
 * @param positions 3 per unknown
 * @param start, neighbours the matrix's graph, row by row
 * @returns for each place in the order, the unknown that comes there
 */
export function nestedDissection(
  positions: ArrayLike<number>,
  start: Int32Array,
  neighbours: Int32Array,
): Int32Array {
  const n = start.length - 1
  const order: number[] = []
  const side = new Int8Array(n)
  const depth = new Float64Array(n)
  const part = (set: Int32Array, [x, y, z]: readonly [number, number, number]): Parting => {
    for (const v of set)
      depth[v] = x * positions[3 * v]! + y * positions[3 * v + 1]! + z * positions[3 * v + 2]!
    const sorted = set.slice().sort((a, b) => depth[a]! - depth[b]! || a - b)
    const half = sorted.length >> 1
    sorted.forEach((v, i) => (side[v] = i < half ? 1 : 2))
    const parts = [sorted.subarray(0, half), sorted.subarray(half)]
    // The half with the thinner shore gives it up as the separator.
    const shores = parts.map((p, k) =>
      p.filter((v) => {
        for (let e = start[v]!; e < start[v + 1]!; e++)
          if (side[neighbours[e]!] === 2 - k) return true
        return false
      }),
    )
    for (const v of sorted) side[v] = 0
    return { parts, shores, giver: shores[0]!.length <= shores[1]!.length ? 0 : 1 }
  }
  const dissect = (set: Int32Array): void => {
    if (set.length <= 24) {
      for (const v of set) order.push(v)
      return
    }
    let best: Parting | undefined
    for (const across of CUTS) {
      const parting = part(set, across)
      if (!best || parting.shores[parting.giver]!.length < best.shores[best.giver]!.length)
        best = parting
    }
    const { parts, shores, giver } = best!
    const separator = shores[giver]!
    for (const v of separator) side[v] = 3
    const rest = parts.map((p) => p.filter((v) => side[v] !== 3))
    for (const v of separator) side[v] = 0
    dissect(rest[0]!)
    dissect(rest[1]!)
    for (const v of separator) order.push(v)
  }
  dissect(Int32Array.from({ length: n }, (_, i) => i))
  return Int32Array.from(order)
}
