/**
 * Meshes in few bytes, without loss: corners are told by the edge that a triangle shares with one just before it, and what is
 * known of a vertex by how far it is from what its neighbours and its mirror twin let expect. What is left is small and alike,
 * as a general packer (gzip on the way) needs it. Edge queue and parallelogram prediction after Touma and Gotsman, "Triangle
 * mesh compression" (1998), from memory.
 */
import { DomainError } from '../errors.ts'

/** How many edges are remembered. */
const QUEUE = 15
/** A triangle of which no edge is remembered. */
const ALONE = 255

/** Triangles as they are written: a code each, and for every vertex met before how many vertices ago it came. */
export interface CodedTriangles {
  readonly codes: Uint8Array
  readonly backs: Uint16Array
}

/** Edges that a next triangle may share: from, to, and the vertex across, in a ring of the last ones. */
class Edges {
  private readonly ring = new Int32Array(3 * 64)
  private count = 0

  /** Where in the ring the `i`th newest stands; below 0 when there is none. */
  at = (i: number) => (i < this.count ? 3 * ((this.count - 1 - i) & 63) : -1)
  /** The from (0), to (1) or across (2) of the edge at a place of the ring. */
  corner = (place: number, k: number) => this.ring[place + k]!

  /** The edges of a triangle as its neighbours have them, but for the one that was shared. */
  add(a: number, b: number, c: number, shared: boolean): void {
    if (!shared) this.push(b, a, c)
    this.push(c, b, a)
    this.push(a, c, b)
  }

  private push(from: number, to: number, across: number): void {
    const place = 3 * (this.count++ & 63)
    this.ring[place] = from
    this.ring[place + 1] = to
    this.ring[place + 2] = across
  }
}

/**
 * Writes triangles. Vertices get numbers in the order in which they are met; a triangle may begin at another corner.
 * @returns the code, and of every old vertex its new number
 */
export function codeTriangles(
  indices: ArrayLike<number>,
  vertices: number,
): CodedTriangles & { readonly order: Uint32Array } {
  const order = new Int32Array(vertices).fill(-1)
  const codes = new Uint8Array(indices.length / 3)
  const backs: number[] = []
  const edges = new Edges()
  let next = 0
  const number = (v: number): number => {
    if (order[v]! >= 0) backs.push(next - order[v]!)
    else {
      backs.push(0)
      order[v] = next++
    }
    return order[v]!
  }
  for (let t = 0; t < codes.length; t++) {
    const corner = (k: number) => indices[3 * t + (k % 3)]!
    let shared: readonly [number, number] | undefined
    for (let i = 0; i < QUEUE && !shared; i++) {
      const e = edges.at(i)
      for (let k = 0; e >= 0 && k < 3 && !shared; k++) {
        const found =
          order[corner(k)] === edges.corner(e, 0) && order[corner(k + 1)] === edges.corner(e, 1)
        if (found) shared = [i, k]
      }
    }
    if (shared) {
      const [i, k] = shared
      const third = corner(k + 2)
      const fresh = order[third]! < 0
      codes[t] = fresh ? i : i + QUEUE
      if (fresh) order[third] = next++
      else backs.push(next - order[third]!)
      edges.add(order[corner(k)]!, order[corner(k + 1)]!, order[third]!, true)
    } else {
      codes[t] = ALONE
      edges.add(number(corner(0)), number(corner(1)), number(corner(2)), false)
    }
  }
  if (next !== vertices || backs.some((b) => b > 65_535)) {
    throw new DomainError('not-a-mesh', 'The mesh has vertices of no triangle, or is too large.')
  }
  return { codes, backs: Uint16Array.from(backs), order: Uint32Array.from(order) }
}

/** Triangles read back, and of each vertex the three it is expected from: two of an edge and the one across it. */
export interface ReadTriangles {
  readonly indices: Uint32Array
  readonly parents: Int32Array
}

/** Reads what `codeTriangles` wrote, in its own numbers. */
export function readTriangles({ codes, backs }: CodedTriangles): ReadTriangles {
  const indices = new Uint32Array(3 * codes.length)
  // Of a closed surface there are about half as many vertices as triangles; of one in pieces, at most three each.
  const parents = new Int32Array(9 * codes.length)
  const edges = new Edges()
  let next = 0
  let read = 0
  const born = (a: number, b: number, across: number): number => {
    parents[3 * next] = a
    parents[3 * next + 1] = b
    parents[3 * next + 2] = across
    return next++
  }
  for (let t = 0; t < codes.length; t++) {
    const code = codes[t]!
    let a: number, b: number, c: number
    if (code === ALONE) {
      const corner = (last: number) => {
        const back = backs[read++]!
        return back === 0 ? born(last, last, last) : next - back
      }
      a = corner(next - 1)
      b = corner(a)
      c = corner(b)
      edges.add(a, b, c, false)
    } else {
      const e = edges.at(code % QUEUE)
      a = edges.corner(e, 0)
      b = edges.corner(e, 1)
      c = code < QUEUE ? born(a, b, edges.corner(e, 2)) : next - backs[read++]!
      edges.add(a, b, c, true)
    }
    indices[3 * t] = a
    indices[3 * t + 1] = b
    indices[3 * t + 2] = c
  }
  return { indices, parents: parents.slice(0, 3 * next) }
}

/** Mirror twins: what one says of the other, where it came before it. */
export interface Twins {
  /** Of each vertex its twin. */
  readonly of: Uint32Array
  /** The sign of the first value in the twin's: -1 where it is a length to the side. */
  readonly first: 1 | -1
}

type Values = Int16Array | Uint16Array

/** What a value is expected to be, from what is known before it. */
function expected(
  values: Values,
  width: number,
  parents: Int32Array,
  twins: Twins | undefined,
  v: number,
  k: number,
): number {
  if (twins) {
    const twin = twins.of[v]!
    if (twin < v) return (k === 0 ? twins.first : 1) * values[width * twin + k]!
  }
  const a = parents[3 * v]!
  if (a < 0) return 0
  const b = parents[3 * v + 1]!
  const across = parents[3 * v + 2]!
  return values[width * a + k]! + values[width * b + k]! - values[width * across + k]!
}

/**
 * What is left of values, `width` a vertex, once they are expected: small numbers around nought, folded to be at least 0. It
 * is reckoned round 16 bits, so that nothing is lost whatever is expected.
 */
export function codeValues(
  values: Values,
  width: number,
  parents: Int32Array,
  twins?: Twins,
): Uint16Array {
  const out = new Uint16Array(values.length)
  for (let v = 0; v < values.length / width; v++) {
    for (let k = 0; k < width; k++) {
      const i = width * v + k
      const left = ((values[i]! - expected(values, width, parents, twins, v, k)) << 16) >> 16
      out[i] = left < 0 ? -2 * left - 1 : 2 * left
    }
  }
  return out
}

/** Reads what `codeValues` left into `values`. */
export function readValues<V extends Values>(
  left: ArrayLike<number>,
  values: V,
  width: number,
  parents: Int32Array,
  twins?: Twins,
): V {
  for (let v = 0; v < values.length / width; v++) {
    for (let k = 0; k < width; k++) {
      const i = width * v + k
      const folded = left[i]!
      const delta = folded & 1 ? -((folded + 1) >> 1) : folded >> 1
      values[i] = expected(values, width, parents, twins, v, k) + delta
    }
  }
  return values
}
