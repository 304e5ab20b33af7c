/**
 * The named landmarks of a head and the shortest way over the skin to each: distances marched over the solve mesh (Kimmel &
 * Sethian 1998, with the straight way through each triangle laid flat; from memory), their slope being the way.
 */
import { distance, dot, minus, tangentPart, unit, type Vec3 } from './frames.ts'
import { surfacePoint, type ZonedMesh } from './head.ts'
import { Heap } from './heap.ts'
import { Locator } from './locate.ts'
import { ZONE_IDS } from '../zones/index.ts'

const BEHIND_EAR = 'hollow behind the ear'

/** The landmarks on the middle and on the client's left, mm; those off the middle have a twin on the other side. */
const PLACES: readonly (readonly [name: string, x: number, y: number, z: number])[] = [
  ['crown', 0, 112, -20],
  ['hairline', 0, 62, 97],
  ['hairline', 52, 48, 62],
  ['middle of the forehead', 0, 38, 103],
  ['brow', 32, 21, 80],
  ['temple', 64, 20, 38],
  ['eye corner', 47, -1, 66],
  ['root of the nose', 0, 4, 92],
  ['tip of the nose', 0, -37, 117],
  ['nose wing', 15, -40, 96],
  ['lips', 0, -68, 98],
  ['mouth corner', 28, -69, 80],
  ['chin point', 0, -102, 95],
  ['jaw angle', 51, -72, 10],
  ['top of the ear', 70, 26, -12],
  ['front of the ear', 66, -10, 4],
  ['ear lobe', 68, -34, -8],
  [BEHIND_EAR, 66, -16, -46],
  ['larynx', 0, -140, 38],
  ['collar notch', 0, -192, 28],
  ['collarbone', 54, -192, 6],
  ['shoulder', 76, -192, -28],
  ['back of the collar', 0, -192, -76],
  ['nape hollow', 0, -66, -72],
  ['back of the head', 0, 34, -98],
]

/** A named place of the head. */
export interface Landmark {
  readonly name: string
  /** The client's side; none on the middle. */
  readonly side: 'left' | 'right' | undefined
  readonly point: Vec3
  /** Hidden by the ear from all that lies in front of it. */
  readonly behindEar: boolean
}

/** The way to a landmark from somewhere. */
export interface LandmarkWay {
  readonly landmark: Landmark
  /** Over the skin, mm. */
  readonly distanceMm: number
  /** Unit tangent. */
  readonly way: Vec3
}

/** Nearer than this the straight way is taken, mm: slopes are rough about their source. */
const STRAIGHT_MM = 30

/** Distances are kept as whole twentieths of a millimetre. */
const KEPT_PER_MM = 20

/** Every landmark of a head with where it lies, in a fixed order: each place's middle or left, then its right. */
function landmarksOf(mesh: ZonedMesh, locator: Locator): (Landmark & { triangle: number })[] {
  return PLACES.flatMap(([name, x, y, z]) =>
    (x === 0 ? ([undefined] as const) : (['left', 'right'] as const)).map((side) => {
      const { triangle, weights } = locator.nearest([side === 'right' ? -x : x, y, z])
      const { point } = surfacePoint(mesh, triangle, weights[0], weights[1])
      return { name, side, point, triangle, behindEar: name === BEHIND_EAR }
    }),
  )
}

/** Distances of every vertex of the solve mesh to each landmark, twentieths of a millimetre; worked out when the head is built. */
export function marchLandmarks(mesh: ZonedMesh): Uint16Array {
  const n = mesh.positions.length / 3
  const landmarks = landmarksOf(mesh, new Locator(mesh))
  const around = trianglesAround(mesh)
  const out = new Uint16Array(n * landmarks.length)
  landmarks.forEach(({ triangle, point }, i) =>
    march(mesh, triangle, point, around).forEach((mm, v) => {
      out[i * n + v] = Math.min(65_535, Math.round(mm * KEPT_PER_MM))
    }),
  )
  return out
}

/** Ways to the landmarks over one head. */
export class Landmarks {
  private readonly locator: Locator
  private readonly mesh: ZonedMesh
  private readonly away: Uint16Array
  private readonly landmarks: readonly Landmark[]

  /** @param head the solve mesh, closed and of even triangles, with its distances as `marchLandmarks` left them */
  constructor(head: { readonly solve: ZonedMesh; readonly landmarks: Uint16Array }) {
    this.mesh = head.solve
    this.away = head.landmarks
    this.locator = new Locator(head.solve)
    this.landmarks = landmarksOf(head.solve, this.locator)
  }

  /**
   * The ways to all landmarks from a place of the skin.
   * @param among which are wanted, by how far off they are, mm
   */
  from(
    point: Vec3,
    normal: Vec3,
    among: (landmark: Landmark, distanceMm: number) => boolean = () => true,
  ): LandmarkWay[] {
    const { mesh } = this
    const n = mesh.positions.length / 3
    const { triangle, weights } = this.locator.nearest(point, normal)
    const corner = [0, 1, 2].map((k) => mesh.indices[3 * triangle + k]!)
    const [a, b, c] = corner.map((v) => at(mesh, v)) as [Vec3, Vec3, Vec3]
    const out = unit(normal)
    return this.landmarks.flatMap((landmark, i): LandmarkWay[] => {
      const d = corner.map((v) => this.away[i * n + v]! / KEPT_PER_MM) as [number, number, number]
      const distanceMm = d[0] * weights[0] + d[1] * weights[1] + d[2] * weights[2]
      if (!among(landmark, distanceMm)) return []
      const to: Vec3 =
        distanceMm < STRAIGHT_MM ? minus(landmark.point, point) : downhill(a, b, c, d)
      return [{ landmark, distanceMm, way: unit(tangentPart(to, out)) }]
    })
  }
}

const at = (mesh: ZonedMesh, v: number): Vec3 => [
  mesh.positions[3 * v]!,
  mesh.positions[3 * v + 1]!,
  mesh.positions[3 * v + 2]!,
]

/** The way down a slope that is given at the corners of a triangle. */
function downhill(a: Vec3, b: Vec3, c: Vec3, d: readonly [number, number, number]): Vec3 {
  const e1 = minus(b, a)
  const e2 = minus(c, a)
  const [g11, g12, g22] = [dot(e1, e1), dot(e1, e2), dot(e2, e2)]
  const det = g11 * g22 - g12 * g12 || 1
  const [r1, r2] = [d[1] - d[0], d[2] - d[0]]
  const s = (g22 * r1 - g12 * r2) / det
  const t = (g11 * r2 - g12 * r1) / det
  return [-(s * e1[0] + t * e2[0]), -(s * e1[1] + t * e2[1]), -(s * e1[2] + t * e2[2])]
}

/** Distances over a mesh from a place of it, mm at each vertex. */
function march(
  mesh: ZonedMesh,
  start: number,
  source: Vec3,
  around: readonly (readonly number[])[],
): Float64Array {
  const n = mesh.positions.length / 3
  const away = new Float64Array(n).fill(Infinity)
  const done = new Uint8Array(n)
  const open = new Heap()
  const base = ZONE_IDS.indexOf('base')
  // The source's own ring takes straight distances: nothing bends so near.
  for (let k = 0; k < 3; k++)
    for (const t of around[mesh.indices[3 * start + k]!]!)
      for (let i = 0; i < 3; i++) {
        const v = mesh.indices[3 * t + i]!
        away[v] = distance(at(mesh, v), source)
        open.push(v, away[v])
      }
  while (open.size > 0) {
    const next = open.pop()
    if (done[next]) continue
    done[next] = 1
    for (const t of around[next]!) {
      // Under the bust there is no skin to go over.
      if (mesh.zones[t] === base) continue
      for (let k = 0; k < 3; k++) {
        const c = mesh.indices[3 * t + k]!
        if (done[c]) continue
        const a = mesh.indices[3 * t + ((k + 1) % 3)]!
        const b = mesh.indices[3 * t + ((k + 2) % 3)]!
        const so = through(at(mesh, a), at(mesh, b), at(mesh, c), away[a]!, away[b]!)
        if (so < away[c]!) {
          away[c] = so
          open.push(c, so)
        }
      }
    }
  }
  return away
}

/** Distance of c when those of a and b are known: straight through the triangle laid flat, else along an edge. */
function through(a: Vec3, b: Vec3, c: Vec3, da: number, db: number): number {
  const ac = distance(a, c)
  const bc = distance(b, c)
  const along = Math.min(da + ac, db + bc)
  if (da === Infinity || db === Infinity) return along
  const length = distance(a, b)
  const cx = dot(minus(c, a), minus(b, a)) / length
  const cy = Math.sqrt(Math.max(0, ac * ac - cx * cx))
  const sx = (length * length + da * da - db * db) / (2 * length)
  const sy = -Math.sqrt(Math.max(0, da * da - sx * sx))
  const crossing = sx + ((cx - sx) * -sy) / (cy - sy || 1)
  return crossing < 0 || crossing > length ? along : Math.min(along, Math.hypot(cx - sx, cy - sy))
}

/** The triangles round each vertex. */
function trianglesAround(mesh: ZonedMesh): number[][] {
  const out = Array.from({ length: mesh.positions.length / 3 }, (): number[] => [])
  for (let e = 0; e < mesh.indices.length; e++) out[mesh.indices[e]!]!.push(Math.floor(e / 3))
  return out
}
