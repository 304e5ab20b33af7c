/** The worked skin summed over blocks of 4 mm, in an order that is the same in a mirror. */
import { tangentPart, unit, type Vec3 } from '../head/index.ts'
import { ALL_ZONE_IDS, mirrorZone, type ZoneId } from '../zones/index.ts'
import { turnGroup } from './hands.ts'
import type { SkinGround, ZoneSkin } from './skin.ts'

const BLOCK_MM = 4

/** Blocks of cells. */
export interface Blocks {
  readonly count: number
  readonly area: Float64Array
  /** Three numbers each: middle, unit normal, unit way of the stroke with the grain. */
  readonly middle: Float64Array
  readonly normal: Float64Array
  readonly way: Float64Array
  readonly zone: Int32Array
  readonly group: Int32Array
  /** Neighbours and the length of the border, mm. */
  readonly beside: readonly (readonly [number, number][])[]
  /** Block of each open cell of each zone. */
  readonly of: ReadonlyMap<ZoneId, Int32Array>
}

/** A coordinate in blocks. */
const step = (v: number) => Math.floor(v / BLOCK_MM) + 512

/** What blocks are made from. */
export interface BlockQuestion {
  readonly ground: SkinGround
  readonly skins: readonly ZoneSkin[]
  /** A stroke that goes one way whatever the growth; left out where it follows it. */
  readonly fixed?: ((point: Vec3) => Vec3) | undefined
  /** A left hand works as a right hand would in a mirror. */
  readonly mirrored: boolean
}

/** Sums worked cells over blocks. */
export function blocksOf({ ground, skins, fixed, mirrored }: BlockQuestion): Blocks {
  const flip = mirrored ? -1 : 1
  const seen = (id: ZoneId) => ALL_ZONE_IDS.indexOf(mirrored ? mirrorZone(id) : id)
  const sorted = [...skins].sort((a, b) => seen(a.zone.id) - seen(b.zone.id))
  const groups: string[] = []
  const raw: { zone: number; key: number; area: number; m: number[]; n: number[]; w: number[] }[] =
    []
  const rawOf = new Map<ZoneId, Int32Array>()
  sorted.forEach((skin, zone) => {
    const of = new Int32Array(skin.count).fill(-1)
    const own = new Map<number, number>()
    for (let c = 0; c < skin.count; c++) {
      if (!skin.open[c]) continue
      const x = flip * skin.middle[3 * c]!
      const y = skin.middle[3 * c + 1]!
      const z = skin.middle[3 * c + 2]!
      const key = (step(x) * 1024 + step(y)) * 1024 + step(z)
      let b = own.get(key)
      if (b === undefined) {
        b = raw.length
        own.set(key, b)
        raw.push({ zone, key, area: 0, m: [0, 0, 0], n: [0, 0, 0], w: [0, 0, 0] })
      }
      of[c] = b
      const block = raw[b]!
      const a = skin.areaCm2[c]!
      block.area += a
      const given = fixed && laidInto(fixed(vec(skin.middle, c)), vec(skin.normal, c))
      // Where hair turns too tightly it has no direction to go by.
      const weight = skin.loose[c] && !fixed ? 1e-3 * a : a
      for (let k = 0; k < 3; k++) {
        const s = k === 0 ? flip : 1
        block.m[k]! += s * a * skin.middle[3 * c + k]!
        block.n[k]! += s * a * skin.normal[3 * c + k]!
        block.w[k]! += s * weight * (given ? given[k]! : skin.way[3 * c + k]!)
      }
    }
    rawOf.set(skin.zone.id, of)
  })
  const order = raw
    .map((b, i) => ({ i, b }))
    .sort((p, q) => p.b.zone - q.b.zone || p.b.key - q.b.key)
  const place = new Int32Array(raw.length)
  order.forEach(({ i }, at) => (place[i] = at))
  const count = raw.length
  const out = {
    count,
    area: new Float64Array(count),
    middle: new Float64Array(3 * count),
    normal: new Float64Array(3 * count),
    way: new Float64Array(3 * count),
    zone: new Int32Array(count),
    group: new Int32Array(count),
  }
  order.forEach(({ b }, at) => {
    out.area[at] = b.area
    out.zone[at] = b.zone
    const id = sorted[b.zone]!.zone.id
    const group = turnGroup(mirrored ? mirrorZone(id) : id)
    if (!groups.includes(group)) groups.push(group)
    out.group[at] = groups.indexOf(group)
    const n = unit(b.n as unknown as Vec3)
    const w = unit(tangentPart(b.w as unknown as Vec3, n))
    for (let k = 0; k < 3; k++) {
      out.middle[3 * at + k] = b.m[k]! / b.area
      out.normal[3 * at + k] = n[k]!
      out.way[3 * at + k] = w[k]!
    }
  })
  const of = new Map(
    [...rawOf].map(([id, cells]) => [id, cells.map((b) => (b < 0 ? -1 : place[b]!))] as const),
  )
  const beside = besides(ground, sorted, of, count)
  return { ...out, beside, of }
}

/** A direction laid into the skin. */
export const laidInto = (v: Vec3, n: Vec3) => unit(tangentPart(v, n))
/** One of a list of vectors. */
export const vec = (a: Float64Array, i: number): Vec3 => [a[3 * i]!, a[3 * i + 1]!, a[3 * i + 2]!]

/** Borders of blocks, within a zone and from one zone to the next. */
function besides(
  ground: SkinGround,
  skins: readonly ZoneSkin[],
  of: ReadonlyMap<ZoneId, Int32Array>,
  count: number,
): (readonly [number, number][])[] {
  const blockAt = new Int32Array(ground.mesh.indices.length / 3).fill(-1)
  for (const skin of skins) blockAt.set(of.get(skin.zone.id)!, skin.first)
  const lengths = Array.from({ length: count }, () => new Map<number, number>())
  for (const skin of skins) {
    const own = of.get(skin.zone.id)!
    for (let c = 0; c < skin.count; c++) {
      if (own[c]! < 0) continue
      for (let k = 0; k < 3; k++) {
        const beyond = ground.neighbours[3 * (skin.first + c) + k]!
        const other = beyond < 0 ? -1 : blockAt[beyond]!
        if (other < 0 || other === own[c]) continue
        const at = lengths[own[c]!]!
        at.set(other, (at.get(other) ?? 0) + skin.edge[3 * c + k]!)
      }
    }
  }
  return lengths.map((m) => [...m].sort((a, b) => a[0] - b[0]))
}
