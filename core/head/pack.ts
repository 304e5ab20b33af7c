/**
 * The built head as bytes, and back: a length, a JSON directory, then the arrays, each on a 4-byte boundary.
 */
import { capital } from '../words.ts'
import { DomainError } from '../errors.ts'
import type { Head, ZonedMesh } from './head.ts'

const MAGIC = 0x4548_5453 // "STHE", little endian
const KINDS = {
  f32: Float32Array,
  u32: Uint32Array,
  u16: Uint16Array,
  u8: Uint8Array,
  i8: Int8Array,
}
type Kind = keyof typeof KINDS
type Column = Float32Array | Uint32Array | Uint16Array | Uint8Array | Int8Array

interface Directory {
  readonly levels: readonly number[]
  readonly displayRanges: ZonedMesh['ranges']
  readonly solveRanges: ZonedMesh['ranges']
  readonly arrays: readonly { name: string; kind: Kind; offset: number; length: number }[]
}

/** The head as the web and the tests read it; zone records travel apart, as JSON. */
export type PackedHead = Omit<Head, 'zones'> & {
  /** Distances over the skin to each landmark (landmarks.ts). */
  readonly landmarks: Uint16Array
}

const toByteNormals = (n: Float32Array) => Int8Array.from(n, (c) => Math.round(c * 127))

/** Writes the meshes and the seeds. */
export function packHead(head: PackedHead): Uint8Array<ArrayBuffer> {
  const columns: [string, Kind, Column][] = [
    ['positions', 'f32', head.display.positions],
    ['normals', 'i8', toByteNormals(head.display.normals)],
    ['occlusion', 'u8', head.display.occlusion],
    ['indices', 'u16', Uint16Array.from(head.display.indices)],
    ['mirrorOf', 'u16', Uint16Array.from(head.display.mirrorOf)],
    ['solvePositions', 'f32', head.solve.positions],
    ['solveNormals', 'i8', toByteNormals(head.solve.normals)],
    ['solveIndices', 'u16', Uint16Array.from(head.solve.indices)],
    ['seedTriangles', 'u16', Uint16Array.from(head.seeds.triangles)],
    ['seedWeights', 'f32', head.seeds.weights],
    ['landmarks', 'u16', head.landmarks],
  ]
  if (head.display.positions.length / 3 > 65_535 || head.display.zones.length > 65_535) {
    throw new DomainError(
      'head-too-fine',
      'The display mesh has more vertices than its file can number.',
    )
  }
  let offset = 0
  const arrays = columns.map(([name, kind, data]) => {
    const entry = { name, kind, offset, length: data.length }
    offset += Math.ceil(data.byteLength / 4) * 4
    return entry
  })
  const directory: Directory = {
    levels: head.seeds.levels,
    displayRanges: head.display.ranges,
    solveRanges: head.solve.ranges,
    arrays,
  }
  const text = new TextEncoder().encode(JSON.stringify(directory))
  const start = 8 + Math.ceil(text.length / 4) * 4
  const bytes = new Uint8Array(start + offset)
  const view = new DataView(bytes.buffer)
  view.setUint32(0, MAGIC, true)
  view.setUint32(4, text.length, true)
  bytes.set(text, 8)
  columns.forEach(([, , data], i) => {
    bytes.set(
      new Uint8Array(data.buffer, data.byteOffset, data.byteLength),
      start + arrays[i]!.offset,
    )
  })
  return bytes
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
  const directory = JSON.parse(
    new TextDecoder().decode(new Uint8Array(bytes, 8, length)),
  ) as Directory
  const start = 8 + Math.ceil(length / 4) * 4
  const read = (name: string): Column => {
    const entry = directory.arrays.find((a) => a.name === name)!
    return new KINDS[entry.kind](bytes, start + entry.offset, entry.length)
  }
  const normals = (name: string) => Float32Array.from(read(name), (c) => c / 127)
  const zonesOf = (ranges: ZonedMesh['ranges'], triangles: number) => {
    const zones = new Uint8Array(triangles)
    ranges.forEach(([from, count], zone) => zones.fill(zone, from, from + count))
    return zones
  }
  const mesh = (prefix: '' | 'solve', ranges: ZonedMesh['ranges']): ZonedMesh => {
    const name = (s: string) => (prefix ? prefix + capital(s) : s)
    const indices = Uint32Array.from(read(name('indices')))
    return {
      positions: read(name('positions')) as Float32Array,
      normals: normals(name('normals')),
      indices,
      zones: zonesOf(ranges, indices.length / 3),
      ranges,
    }
  }
  return {
    display: {
      ...mesh('', directory.displayRanges),
      occlusion: read('occlusion') as Uint8Array,
      mirrorOf: Uint32Array.from(read('mirrorOf')),
    },
    solve: mesh('solve', directory.solveRanges),
    seeds: {
      triangles: Uint32Array.from(read('seedTriangles')),
      weights: read('seedWeights') as Float32Array,
      levels: directory.levels,
    },
    landmarks: Uint16Array.from(read('landmarks')),
  }
}
