/**
 * The edges of eyes, lips, nostrils, ears and brows: within a centimetre of them no stroke runs at them. What lies there is a part
 * of its own wherever it is large enough, stroked along the edge or away from it; what is too small for a blade is left to
 * tweezers. Common practice; the figures are house estimates.
 */
import { distance, dot, minus, plus, tangentPart, unit, type Vec3 } from '../head/index.ts'
import { zoneStem, type ZoneStem } from '../zones/index.ts'
import { constant } from '../house/index.ts'
import type { Cover } from './cover.ts'
import { vec } from './pressBlocks.ts'
import type { SkinGround, ZoneSkin } from './skin.ts'

export const EDGE_CONSTANTS = {
  bandMm: constant(
    10,
    'mm',
    'So near to eye, lip, nostril, ear and brow no stroke runs at them',
    'H',
  ),
  leastCm2: constant(0.4, 'cm²', 'A part along such an edge is stroked from this size on', 'H'),
} as const

/** A stroke that makes less than this angle with the way to an edge runs at it. */
export const RUNS_AT = Math.PI / 3
const RUNS_AT_COS = Math.cos(RUNS_AT)

const HAZARDS: Readonly<Partial<Record<ZoneStem, string>>> = {
  eye: 'eye',
  lips: 'lips',
  ear: 'ear',
  brow: 'brow',
}
/** Where the nostrils open, mm. */
const NOSTRILS: readonly Vec3[] = [
  [6.6, -46.8, 100],
  [-6.6, -46.8, 100],
]
/** Zones that lie beside a nostril; others look past it. */
const BESIDE_NOSTRIL: ReadonlySet<ZoneStem> = new Set<ZoneStem>(['upper-lip', 'nose-tip'])

interface EdgePoint {
  readonly name: string
  readonly at: Vec3
}

const points = new WeakMap<SkinGround, readonly EdgePoint[]>()

/** Places along every edge of a head; none on the body. */
function edgePoints(ground: SkinGround): readonly EdgePoint[] {
  let had = points.get(ground)
  if (had) return had
  const { mesh, zoneIds, neighbours } = ground
  const { positions: p, indices, zones } = mesh
  const out: EdgePoint[] = NOSTRILS.map((at) => ({ name: 'nostril', at }))
  for (let e = 0; e < indices.length; e++) {
    const t = Math.floor(e / 3)
    const name = HAZARDS[zoneStem(zoneIds[zones[t]!]!)]
    const beyond = neighbours[e]!
    if (name === undefined || beyond < 0 || zones[beyond] === zones[t]) continue
    const v = indices[e]!
    out.push({ name, at: [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!] })
  }
  had = zoneIds.some((id) => zoneStem(id) === 'eye') ? out : []
  points.set(ground, had)
  return had
}

/** For each cell of a zone the way to the edge that it lies beside, unit tangent, 3 per cell; and which edge that is. */
export interface EdgeBand {
  readonly way: Float64Array
  /** Empty where the cell lies beside none. */
  readonly name: readonly string[]
  /** The same with the client's side that the edge lies on: "brow r". */
  readonly key: readonly string[]
}

const bands = new WeakMap<SkinGround, Map<string, EdgeBand | undefined>>()

/** The cells of a zone that lie beside an edge; undefined where none do. Worked out once for each head. */
export function edgeBand(ground: SkinGround, skin: ZoneSkin, bandMm: number): EdgeBand | undefined {
  let all = bands.get(ground)
  if (!all) bands.set(ground, (all = new Map<string, EdgeBand | undefined>()))
  const id = skin.zone.id
  const known = `${id} ${bandMm}`
  if (all.has(known)) return all.get(known)
  const stem = zoneStem(id)
  const reach = bandMm
  const [low, high] = [0, 1].map((i) =>
    [0, 1, 2].map((k) => {
      let x = i ? -Infinity : Infinity
      for (let c = 0; c < skin.count; c++)
        x = i ? Math.max(x, skin.middle[3 * c + k]!) : Math.min(x, skin.middle[3 * c + k]!)
      return x + (i ? reach : -reach)
    }),
  ) as [number[], number[]]
  const near = edgePoints(ground).filter(
    ({ name, at }) =>
      at.every((x, k) => x >= low[k]! && x <= high[k]!) &&
      (name !== 'nostril' || BESIDE_NOSTRIL.has(stem)) &&
      HAZARDS[stem] !== name,
  )
  let band: EdgeBand | undefined
  if (near.length > 0) {
    const way = new Float64Array(3 * skin.count)
    const name = Array.from({ length: skin.count }, () => '')
    const key = Array.from({ length: skin.count }, () => '')
    for (let c = 0; c < skin.count; c++) {
      const at = vec(skin.middle, c)
      let best = reach
      let to: EdgePoint | undefined
      for (const p of near) {
        const d = distance(p.at, at)
        if (d < best) [best, to] = [d, p]
      }
      if (!to) continue
      const d = tangentPart(minus(to.at, at), vec(skin.normal, c))
      way.set(unit(d), 3 * c)
      name[c] = to.name
      key[c] = `${to.name} ${to.at[0] > 0 ? 'l' : 'r'}`
    }
    if (name.some(Boolean)) band = { way, name, key }
  }
  all.set(known, band)
  return band
}

/** What a part along an edge runs beside. */
export interface Beside {
  readonly name: string
  /** Mean way to it, unit. */
  readonly way: Vec3
}

/** A cover whose parts beside edges are lanes of their own. */
export interface EdgedCover {
  readonly cover: Cover
  /** For each lane the lane of the cover that it was cut from, and the edge that it runs beside. */
  readonly from: readonly number[]
  readonly beside: readonly (Beside | undefined)[]
  /** Left to tweezers, cm². */
  readonly tweezeCm2: number
}

/** Parts of a zone that lie beside an edge become lanes of their own; slivers that a stroke with the grain would run at are closed. */
export function cutAtEdges(
  skin: ZoneSkin,
  cover: Cover,
  band: EdgeBand | undefined,
  leastCm2: number,
  mirrored: boolean,
): EdgedCover {
  const from = Array.from({ length: cover.count }, (_, l) => l)
  const beside: (Beside | undefined)[] = from.map(() => undefined)
  if (!band) return { cover, from, beside, tweezeCm2: 0 }
  const lane = Int16Array.from(cover.lane)
  let tweezeCm2 = 0
  for (let l = 0; l < cover.count; l++) {
    let whole = 0
    const cells = new Map<string, number[]>()
    for (let c = 0; c < lane.length; c++) {
      if (cover.lane[c] !== l) continue
      whole += skin.areaCm2[c]!
      const key = band.key[c]!
      if (!key) continue
      const had = cells.get(key)
      if (had) had.push(c)
      else cells.set(key, [c])
    }
    // The client's right first, for a left hand the left: the mirrored client is cut in the mirror.
    const sides = [...cells].sort(([a], [b]) => (order(a, mirrored) < order(b, mirrored) ? -1 : 1))
    for (const [key, own] of sides) {
      const [name] = key.split(' ') as [string]
      const area = own.reduce((s, c) => s + skin.areaCm2[c]!, 0)
      const way = meanOf(skin, band.way, own)
      if (area >= leastCm2 && whole - area >= leastCm2) {
        const next = from.length
        from.push(l)
        beside.push({ name, way })
        for (const c of own) lane[c] = next
        whole -= area
      } else if (area > 0.5 * whole) beside[l] = { name, way }
    }
  }
  // What a stroke with the grain, turned along the edge where it is beside one, would still run at is left to tweezers.
  beside.forEach((edge, l) => {
    const own: number[] = []
    for (let c = 0; c < lane.length; c++) if (lane[c] === l) own.push(c)
    if (!own.some((c) => band.name[c])) return
    const [grown, normal] = [meanOf(skin, skin.way, own), meanOf(skin, skin.normal, own)]
    const stroke = (edge && alongEdge(grown, grown, normal, edge, false, mirrored)) ?? grown
    for (const c of own) {
      if (!band.name[c]) continue
      const here = unit(tangentPart(edge ? stroke : vec(skin.way, c), vec(skin.normal, c)))
      if (dot(here, vec(band.way, c)) < RUNS_AT_COS) continue
      lane[c] = -1
      tweezeCm2 += skin.areaCm2[c]!
    }
    const left = own.filter((c) => lane[c] === l)
    beside[l] = besideOf(skin, band, left)
  })
  return { cover: { lane, count: from.length }, from, beside, tweezeCm2 }
}

/** The edge that most of a part lies beside. */
export function besideOf(
  skin: ZoneSkin,
  band: EdgeBand | undefined,
  cells: readonly number[],
): Beside | undefined {
  if (!band) return undefined
  const areas = new Map<string, number>()
  let whole = 0
  for (const c of cells) {
    whole += skin.areaCm2[c]!
    areas.set(band.key[c]!, (areas.get(band.key[c]!) ?? 0) + skin.areaCm2[c]!)
  }
  for (const [key, area] of areas)
    if (key && area > 0.5 * whole) {
      const own = cells.filter((c) => band.key[c] === key)
      return { name: band.name[own[0]!]!, way: meanOf(skin, band.way, own) }
    }
  return undefined
}

/** The same edges in the same order, those of the hand's own side first. */
const order = (key: string, mirrored: boolean) =>
  `${key.endsWith(mirrored ? 'l' : 'r') ? 0 : 1} ${key.split(' ')[0]!}`

/** Mean of a direction over cells, unit. */
function meanOf(skin: ZoneSkin, of: Float64Array, cells: readonly number[]): Vec3 {
  const sum = [0, 0, 0]
  for (const c of cells) for (let k = 0; k < 3; k++) sum[k]! += skin.areaCm2[c]! * of[3 * c + k]!
  return unit(sum as unknown as Vec3)
}

/** Where only strokes with the grain are taken, one is slanted by no more than this: it stays with the grain. */
const MOST_SLANT = Math.PI / 4

/**
 * A stroke beside an edge, turned along it where it would run at it.
 * @param growth decides between the two ways along where the stroke runs straight at the edge
 * @param second the way that a left hand takes where both are as good
 * @param slant only slanted off the edge, so that it stays with the grain
 * @returns undefined where it may go as it is
 */
export function alongEdge(
  stroke: Vec3,
  growth: Vec3,
  normal: Vec3,
  beside: Beside,
  slant: boolean,
  second = false,
): Vec3 | undefined {
  const n = unit(normal)
  const to = unit(tangentPart(beside.way, n))
  const at = Math.acos(Math.max(-1, Math.min(1, dot(stroke, to))))
  if (at >= RUNS_AT) return undefined
  const aside = (v: Vec3): Vec3 => plus(v, to, -dot(v, to))
  const [own, grown] = [aside(stroke), aside(growth)]
  // Straight at it, and hair too: away from the middle of the face; on the middle by the hand.
  const outward = aside([Math.abs(n[0]) > 0.02 ? Math.sign(n[0]) : second ? -1 : 1, 0, 0])
  const along = unit(Math.hypot(...own) > 0.1 ? own : Math.hypot(...grown) > 0.1 ? grown : outward)
  const off = slant ? Math.min(RUNS_AT, at + MOST_SLANT) : Math.PI / 2
  const [c, s] = [Math.cos(off), Math.sin(off)]
  return [c * to[0] + s * along[0], c * to[1] + s * along[1], c * to[2] + s * along[2]]
}
