/** The head with its field as binary glTF 2.0: direction and trust as attributes of the vertices. */
import { Document, WebIO } from '@gltf-transform/core'
import type { ZonedMesh } from '../head/index.ts'

const MM_PER_M = 1000

/**
 * Writes a GLB. Positions in metres as glTF wants them; `_GRAIN` holds the unit growth direction of a vertex (0, 0, 0 where
 * nothing was read), `_TRUST` its trust from 0 to 1, `_ZONE` the number of a zone.
 * @param vectors unit tangents, 3 per vertex
 * @param trust 0 to 1 per vertex
 */
export async function headGltf(
  mesh: ZonedMesh,
  vectors: Float32Array,
  trust: Float32Array,
  zoneIds: readonly string[],
): Promise<Uint8Array> {
  const document = new Document()
  const buffer = document.createBuffer()
  const n = mesh.positions.length / 3
  const zone = new Float32Array(n)
  mesh.indices.forEach((v, i) => (zone[v] = mesh.zones[Math.floor(i / 3)]!))
  const normals = new Float32Array(mesh.normals.length)
  for (let v = 0; v < normals.length; v += 3) {
    const size = Math.hypot(mesh.normals[v]!, mesh.normals[v + 1]!, mesh.normals[v + 2]!) || 1
    for (let k = 0; k < 3; k++) normals[v + k] = mesh.normals[v + k]! / size
  }
  const column = (type: 'SCALAR' | 'VEC3', array: Float32Array | Uint32Array) =>
    document.createAccessor().setType(type).setArray(array).setBuffer(buffer)
  const primitive = document
    .createPrimitive()
    .setIndices(column('SCALAR', Uint32Array.from(mesh.indices)))
    .setAttribute(
      'POSITION',
      column(
        'VEC3',
        mesh.positions.map((x) => x / MM_PER_M),
      ),
    )
    .setAttribute('NORMAL', column('VEC3', normals))
    .setAttribute(
      '_GRAIN',
      column(
        'VEC3',
        vectors.map((x, i) => (trust[Math.floor(i / 3)]! > 0 ? x : 0)),
      ),
    )
    .setAttribute('_TRUST', column('SCALAR', trust.slice()))
    .setAttribute('_ZONE', column('SCALAR', zone))
  const node = document.createNode('head').setMesh(
    document
      .createMesh('head')
      .addPrimitive(primitive)
      .setExtras({ zones: [...zoneIds] }),
  )
  document.getRoot().setDefaultScene(document.createScene('growth map').addChild(node))
  document.getRoot().getAsset().generator = 'Slow Tide'
  return new WebIO().writeBinary(document)
}
