/**
 * The built head as bytes, and back: a length, a JSON directory, then columns of bytes (meshCode.ts). Places are kept to a
 * fiftieth of a millimetre, directions to a hundredth; vertices are numbered anew in the order in which they are met.
 */
import { DomainError } from '../errors.ts'
import type { Head, ZonedMesh } from './head.ts'
import { codeTriangles, codeValues, readTriangles, readValues, type Twins } from './meshCode.ts'

const MAGIC = 0x3248_5453 // "STH2", little endian
/** Steps to a millimetre, to one of a direction, to one of a share. */
const PLACES = 50
const DIRECTIONS = 127
const SHARES = 65_535

interface Directory {
  readonly levels: readonly number[]
  readonly displayRanges: ZonedMesh['ranges']
  readonly solveRanges: ZonedMesh['ranges']
  readonly columns: readonly { name: string; wide: boolean; length: number }[]
}

/** The head as the web and the tests read it; zone records travel apart, as JSON. */
export type PackedHead = Omit<Head, 'zones'> & {
  /** Distances over the skin to each landmark (landmarks.ts): all vertices of the solve mesh for the first, then the next. */
  readonly landmarks: Uint16Array
}

/** The head's two sides are alike but for the sign of x. */
const mirrored = (of: Uint32Array): Twins => ({ of, first: -1 })
const alike = (of: Uint32Array): Twins => ({ of, first: 1 })

/** As near to nought as away from it on both sides, so that twins stay twins. */
const step = (x: number, perUnit: number) => Math.sign(x) * Math.round(Math.abs(x) * perUnit) || 0

/** Values of old vertices, in their new order. */
function ordered(
  source: ArrayLike<number>,
  width: number,
  order: Uint32Array,
  perUnit: number,
): Int16Array {
  const out = new Int16Array(source.length)
  order.forEach((to, from) => {
    for (let k = 0; k < width; k++) out[width * to + k] = step(source[width * from + k]!, perUnit)
  })
  return out
}

/** By vertex what is by landmark, or the other way round. */
function turned(source: Uint16Array, rows: number): Uint16Array {
  const columns = source.length / rows
  const out = new Uint16Array(source.length)
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) out[c * rows + r] = source[r * columns + c]!
  return out
}

/** Writes the meshes and the seeds. */
export function packHead(head: PackedHead): Uint8Array<ArrayBuffer> {
  const columns: { name: string; wide: boolean; data: Uint8Array | Uint16Array }[] = []
  const add = (name: string, data: Uint8Array | Uint16Array) =>
    columns.push({ name, wide: data instanceof Uint16Array, data })
  const mesh = (prefix: string, m: ZonedMesh, mirrorOf?: Uint32Array) => {
    const { codes, backs, order } = codeTriangles(m.indices, m.positions.length / 3)
    const { parents } = readTriangles({ codes, backs })
    add(`${prefix}-codes`, codes)
    add(`${prefix}-backs`, backs)
    const twins = mirrorOf && new Uint32Array(mirrorOf.length)
    mirrorOf?.forEach((twin, v) => (twins![order[v]!] = order[twin]!))
    if (twins) add(`${prefix}-twins`, codeTwins(twins))
    const mirror = twins && mirrored(twins)
    add(
      `${prefix}-positions`,
      codeValues(ordered(m.positions, 3, order, PLACES), 3, parents, mirror),
    )
    add(
      `${prefix}-normals`,
      codeValues(ordered(m.normals, 3, order, DIRECTIONS), 3, parents, mirror),
    )
    return { order, parents, twins }
  }
  const display = mesh('display', head.display, head.display.mirrorOf)
  add(
    'occlusion',
    codeValues(
      ordered(head.display.occlusion, 1, display.order, 1),
      1,
      display.parents,
      alike(display.twins!),
    ),
  )
  const solve = mesh('solve', head.solve)
  const vertices = solve.order.length
  const ways = head.landmarks.length / vertices
  const away = Uint16Array.from({ length: head.landmarks.length }, () => 0)
  solve.order.forEach((to, from) => {
    for (let i = 0; i < ways; i++) away[to * ways + i] = head.landmarks[i * vertices + from]!
  })
  add('landmarks', codeValues(away, ways, solve.parents))
  add('seedTriangles', Uint16Array.from(head.seeds.triangles))
  add(
    'seedWeights',
    Uint16Array.from(head.seeds.weights, (w) => step(w, SHARES)),
  )
  const directory: Directory = {
    levels: head.seeds.levels,
    displayRanges: head.display.ranges,
    solveRanges: head.solve.ranges,
    columns: columns.map(({ name, wide, data }) => ({ name, wide, length: data.length })),
  }
  const text = new TextEncoder().encode(JSON.stringify(directory))
  const size = columns.reduce((s, { wide, data }) => s + data.length * (wide ? 2 : 1), 0)
  const bytes = new Uint8Array(8 + text.length + size)
  const view = new DataView(bytes.buffer)
  view.setUint32(0, MAGIC, true)
  view.setUint32(4, text.length, true)
  bytes.set(text, 8)
  let at = 8 + text.length
  for (const { wide, data } of columns) {
    // Low bytes, then high ones: like stands beside like.
    for (const x of data) bytes[at++] = x & 255
    if (wide) for (const x of data) bytes[at++] = x >> 8
  }
  return bytes
}

/** Of each vertex how far its twin is from where it would follow the last one's; 0 where it comes later. */
function codeTwins(twins: Uint32Array): Uint16Array {
  let before = 0
  return Uint16Array.from(twins, (twin, v) => {
    if (twin > v) return 0
    const off = (((twin - before) << 16) >> 16) * 2
    before = twin
    return off < 0 ? -off : off + 1
  })
}

function readTwins(codes: ArrayLike<number>): Uint32Array {
  const twins = new Uint32Array(codes.length)
  let before = 0
  for (let v = 0; v < codes.length; v++) {
    const code = codes[v]!
    if (code === 0) continue
    const twin = (before + (code & 1 ? (code - 1) / 2 : -code / 2)) & 65_535
    before = twin
    twins[v] = twin
    twins[twin] = v
  }
  return twins
}

/**
 * Reads what `packHead` wrote.
 * @throws DomainError `not-a-head` when the bytes are something else
 */
export function unpackHead(bytes: ArrayBuffer): PackedHead {
  const view = new DataView(bytes)
  if (bytes.byteLength < 8 || view.getUint32(0, true) !== MAGIC) {
    throw new DomainError(
      'not-a-head',
      'The head could not be loaded: its file is damaged. Reload the page.',
    )
  }
  const length = view.getUint32(4, true)
  const all = new Uint8Array(bytes)
  const directory = JSON.parse(new TextDecoder().decode(all.subarray(8, 8 + length))) as Directory
  const columns = new Map<string, Uint16Array>()
  let at = 8 + length
  for (const { name, wide, length: n } of directory.columns) {
    const out = new Uint16Array(n)
    for (let i = 0; i < n; i++) out[i] = all[at + i]! | (wide ? all[at + n + i]! << 8 : 0)
    columns.set(name, out)
    at += wide ? 2 * n : n
  }
  const column = (name: string) => columns.get(name)!
  const scaled = (values: Int16Array, perUnit: number) => {
    const out = new Float32Array(values.length)
    for (let i = 0; i < out.length; i++) out[i] = values[i]! / perUnit
    return out
  }
  const mesh = (prefix: string, ranges: ZonedMesh['ranges']) => {
    const { indices, parents } = readTriangles({
      codes: new Uint8Array(column(`${prefix}-codes`)),
      backs: column(`${prefix}-backs`),
    })
    const vertices = parents.length / 3
    const coded = columns.get(`${prefix}-twins`)
    const twins = coded && readTwins(coded)
    const mirror = twins && mirrored(twins)
    const three = (name: string) =>
      readValues(column(`${prefix}-${name}`), new Int16Array(3 * vertices), 3, parents, mirror)
    const zones = new Uint8Array(indices.length / 3)
    ranges.forEach(([from, count], zone) => zones.fill(zone, from, from + count))
    return {
      mesh: {
        positions: scaled(three('positions'), PLACES),
        normals: scaled(three('normals'), DIRECTIONS),
        indices,
        zones,
        ranges,
      },
      vertices,
      parents,
      twins,
    }
  }
  const display = mesh('display', directory.displayRanges)
  const solve = mesh('solve', directory.solveRanges)
  const shade = readValues(
    column('occlusion'),
    new Int16Array(display.vertices),
    1,
    display.parents,
    alike(display.twins!),
  )
  const left = column('landmarks')
  const ways = left.length / solve.vertices
  return {
    display: {
      ...display.mesh,
      occlusion: new Uint8Array(shade),
      mirrorOf: display.twins!,
    },
    solve: solve.mesh,
    seeds: {
      triangles: new Uint32Array(column('seedTriangles')),
      weights: Float32Array.from(column('seedWeights'), (w) => w / SHARES),
      levels: directory.levels,
    },
    landmarks: turned(
      readValues(left, new Uint16Array(left.length), ways, solve.parents),
      solve.vertices,
    ),
  }
}
