/** Loads the head once: its bytes, its zones, what is needed to pick on it, and the worker that draws hair. */
import { useQuery } from '@tanstack/react-query'
import { wrap, type Remote } from 'comlink'
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three'
import { MeshBVH } from 'three-mesh-bvh'
import {
  Landmarks,
  surfacePoint,
  type SurfacePoint,
  type ZoneRecord,
  unpackHead,
  type PackedHead,
  VIEW_CENTRE,
  type ViewAxes,
} from '../../core/head/index.ts'
import { isSkin, ZONE_IDS, type ZoneId } from '../../core/zones/index.ts'
import { headBytes } from './headBytes.ts'
import { changedFigures, onFigures } from '../state/figures.ts'
import type { HeadWorker } from '../workers/head.worker.ts'

/** A place on the head under the pointer. */
export interface Hit extends SurfacePoint {
  readonly zoneId: ZoneId
  readonly triangle: number
}

export interface LoadedHead {
  readonly packed: PackedHead
  readonly zones: readonly ZoneRecord[]
  readonly zoneById: ReadonlyMap<ZoneId, ZoneRecord>
  readonly geometry: BufferGeometry
  /** Pairs of points along the borders between zones. */
  readonly borders: Float32Array
  /** The border of one zone, in the same form. */
  readonly outline: (zone: ZoneId) => Float32Array
  readonly worker: Remote<HeadWorker>
  /** A second one, for plans: what is drawn never waits for what is reckoned ahead. Begun when it is first asked for. */
  readonly planner: () => Remote<HeadWorker>
  /** What directions are told by. */
  readonly landmarks: Landmarks
  /** What lies at a place of the view, mm right and up of its middle. */
  readonly pick: (axes: ViewAxes, right: number, up: number) => Hit | undefined
  /** The place of the skin nearest to a point. */
  readonly nearest: (point: readonly [number, number, number]) => Hit
  /** True when nothing of the head stands between a point and the viewer. */
  readonly inSight: (axes: ViewAxes, point: readonly [number, number, number]) => boolean
}

/** So long after it came the head is surely drawn. */
const WARM_MS = 1200

async function load(): Promise<LoadedHead> {
  const [bytes, zoneFile] = await Promise.all([headBytes(), import('../../generated/zones.json')])
  const zones = zoneFile.default as unknown as readonly ZoneRecord[]
  const packed = unpackHead(bytes)
  const mesh = packed.display
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3))
  geometry.setAttribute('normal', new BufferAttribute(mesh.normals, 3))
  geometry.setIndex(new BufferAttribute(mesh.indices, 1))
  let tree: MeshBVH | undefined
  // Made when somebody first points, or once the head is drawn. Indirect: the triangles must keep their order, since it tells
  // their zone.
  const bvh = () => (tree ??= new MeshBVH(geometry, { indirect: true }))
  setTimeout(bvh, WARM_MS)
  const begun = () => {
    const worker = wrap<HeadWorker>(
      new Worker(new URL('../workers/head.worker.ts', import.meta.url), { type: 'module' }),
    )
    // Not waited for: what is asked of the worker queues up behind it, and the head can be seen and picked meanwhile.
    void worker.load(bytes)
    void worker.figures(changedFigures())
    onFigures((changed) => void worker.figures(changed))
    return worker
  }
  const worker = begun()
  let planner: Remote<HeadWorker> | undefined
  const ray = new Ray()
  const cast = (axes: ViewAxes, from: Vector3) => {
    ray.origin.copy(from)
    ray.direction.set(-axes.toward[0], -axes.toward[1], -axes.toward[2])
    return bvh().raycastFirst(ray, DoubleSide)
  }
  const origin = new Vector3()
  return {
    packed,
    zones,
    zoneById: new Map(zones.map((z) => [z.id, z])),
    geometry,
    borders: borderLines(packed),
    outline: (zone) => borderLines(packed, zone),
    worker,
    planner: () => (planner ??= begun()),
    landmarks: new Landmarks(packed),
    pick(axes, right, up) {
      const at = (k: 0 | 1 | 2) =>
        VIEW_CENTRE[k] + right * axes.right[k] + up * axes.up[k] + 500 * axes.toward[k]
      const hit = cast(axes, origin.set(at(0), at(1), at(2)))
      if (!hit || hit.faceIndex == null) return undefined
      const triangle = hit.faceIndex
      const { normal } = surfacePoint(mesh, triangle, 1 / 3, 1 / 3)
      return {
        zoneId: ZONE_IDS[mesh.zones[triangle]!]!,
        triangle,
        point: [hit.point.x, hit.point.y, hit.point.z],
        normal,
      }
    },
    nearest(point) {
      const found = bvh().closestPointToPoint(new Vector3(...point))!
      const triangle = found.faceIndex
      return {
        zoneId: ZONE_IDS[mesh.zones[triangle]!]!,
        triangle,
        point: [found.point.x, found.point.y, found.point.z],
        normal: surfacePoint(mesh, triangle, 1 / 3, 1 / 3).normal,
      }
    },
    inSight(axes, point) {
      const hit = cast(
        axes,
        origin.set(
          point[0] + 500 * axes.toward[0],
          point[1] + 500 * axes.toward[1],
          point[2] + 500 * axes.toward[2],
        ),
      )
      return !hit || hit.distance > 500 - 3
    },
  }
}

/** Edges whose two triangles lie in different zones (of one zone, when it is named), lifted a little off the skin. */
function borderLines(head: PackedHead, only?: ZoneId): Float32Array {
  const mesh = head.display
  const owner = new Map<number, number>()
  const n = mesh.positions.length / 3
  const out: number[] = []
  const lift = 0.3
  for (let e = 0; e < mesh.indices.length; e++) {
    const t = Math.floor(e / 3)
    const a = mesh.indices[e]!
    const b = mesh.indices[3 * t + ((e + 1) % 3)]!
    const twin = owner.get(b * n + a)
    owner.set(a * n + b, t)
    if (twin === undefined || mesh.zones[twin] === mesh.zones[t]) continue
    const zones = [ZONE_IDS[mesh.zones[t]!]!, ZONE_IDS[mesh.zones[twin]!]!]
    if (only === undefined ? !zones.some(isSkin) : !zones.includes(only)) continue
    for (const v of [a, b])
      for (let k = 0; k < 3; k++)
        out.push(mesh.positions[3 * v + k]! + lift * mesh.normals[3 * v + k]!)
  }
  return Float32Array.from(out)
}

/** The loaded head; loaded once however often it is asked for. */
export function useHead() {
  return useQuery({
    queryKey: ['head'],
    queryFn: load,
    staleTime: Infinity,
    gcTime: Infinity,
    structuralSharing: false,
    // It is kept on the device: drawn away from the house too.
    networkMode: 'offlineFirst',
    retry: 1,
  })
}
