/**
 * Presses: the skin parted so that few, slightly curved strokes keep their relation to the grain (M5). Growth is summed over
 * blocks of 4 mm; parts of a zone that one straight stroke could take are joined across zones so long as a stroke field that
 * turns evenly over the press (θ = θ₀ + ax + by on its mean plane) still follows the growth, the client's head is held alike and
 * the skin does not bend too far. At last blocks along borders go to the press whose stroke they keep better.
 * Presses hang on the map alone; how often they are gone over, and which way, is decided later.
 */
import { constant, type Figures } from '../house/index.ts'
import { angleBetween, toRadians, wrapHalf } from '../grain/index.ts'
import { clockFrame, cross, dot, tangentPart, unit, type Vec3 } from '../head/index.ts'
import { ALL_ZONE_IDS, mirrorZone, type ZoneId } from '../zones/index.ts'
import type { Cover } from './cover.ts'
import { turnGroup } from './hands.ts'
import { carryDirection, type SkinGround, type ZoneSkin } from './skin.ts'

export const PRESS_CONSTANTS = {
  toleranceDeg: constant(30, '°', 'Growth within a press stays within this of its stroke', 'H'),
  toleranceBumpDeg: constant(20, '°', 'The same on bump-prone skin', 'H'),
  leastPartCm2: constant(2, 'cm²', 'Smaller parts of a zone join the one beside them', 'H'),
  mostCm2: constant(80, 'cm²', 'A press is no larger than this', 'H'),
  mayStray: constant(0.1, '', 'Share of a press that may lie outside the tolerance', 'H'),
  mostTurnDeg: constant(70, '°', 'A curved stroke turns no further than this over its press', 'H'),
  mostBendDeg: constant(60, '°', 'Skin of one press faces no two ways farther apart', 'H'),
} as const

const C = PRESS_CONSTANTS

const BLOCK_MM = 4
/** Strokes of neighbours farther apart than this are not one press, degrees. */
const APART_DEG = 60
/** A block this much nearer to the tolerance than its own press allows looks for another one. */
const MEND_SLACK_DEG = 5
const MEND_ROUNDS = 4
/** Parts under this share of the least press join their neighbour at once; the others may yet find one that suits them. */
const LEAST_FLOOD = 0.2
/** Residuals beyond this count less and less in the fit of a stroke field, radians. */
const HUBER = toRadians(30)
/** The slope of a field is drawn to nothing as if by its whole area at this distance, mm. */
const RIDGE_MM = 2

/** A press: where it lies and how its stroke with the grain runs. */
export interface Press {
  /** `a`, `b`, … in the order of zones. */
  readonly id: string
  readonly areaCm2: number
  /** Share of it whose growth lies outside the tolerance. */
  readonly stray: number
  /** How far the stroke turns from one end to the other, degrees. */
  readonly turnDeg: number
  readonly origin: Vec3
  /** Unit normal and axes of its mean plane. */
  readonly normal: Vec3
  readonly right: Vec3
  readonly up: Vec3
  /** Radians clockwise from `up` at the origin, and the turn per mm along `right` and `up`. */
  readonly field: readonly [number, number, number]
}

/** The worked skin of a service in presses. */
export interface PressMap {
  readonly presses: readonly Press[]
  /** For each zone the part of every cell, and the press of every part. */
  readonly zones: ReadonlyMap<ZoneId, { readonly cover: Cover; readonly press: readonly Press[] }>
}

export interface PressQuestion {
  readonly figures: Figures
  readonly ground: SkinGround
  readonly skins: readonly ZoneSkin[]
  /** Half the width of what one stroke takes, degrees. */
  readonly toleranceDeg: number
  /** A stroke that goes one way whatever the growth; left out where it follows it. */
  readonly fixed?: ((point: Vec3) => Vec3) | undefined
  /** A left hand works as a right hand would in a mirror. */
  readonly mirrored: boolean
}

/** Blocks of cells, in an order that is the same in a mirror. */
interface Blocks {
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

/** Parts the worked skin into presses. */
export function pressesOf(q: PressQuestion): PressMap {
  const blocks = blocksOf(q)
  const tolerance = toRadians(q.toleranceDeg)
  const limits: Limits = {
    tolerance,
    mostCm2: q.figures(C.mostCm2),
    mayStray: q.figures(C.mayStray),
    mostTurn: toRadians(q.figures(C.mostTurnDeg)),
    mostBend: Math.cos(toRadians(q.figures(C.mostBendDeg))),
  }
  const least = q.figures(C.leastPartCm2)
  let drafts = flood(blocks, tolerance, LEAST_FLOOD * least, limits)
  drafts = mend(blocks, join(blocks, drafts, limits), limits)
  drafts = mend(blocks, absorb(blocks, drafts, least, limits), limits)
  return compile(q, blocks, drafts)
}

interface Limits {
  readonly tolerance: number
  readonly mostCm2: number
  readonly mayStray: number
  readonly mostTurn: number
  readonly mostBend: number
}

function blocksOf({ ground, skins, fixed, mirrored }: PressQuestion): Blocks {
  const flip = mirrored ? -1 : 1
  const seen = (id: ZoneId) => ALL_ZONE_IDS.indexOf(mirrored ? mirrorZone(id) : id)
  const sorted = [...skins].sort((a, b) => seen(a.zone.id) - seen(b.zone.id))
  const groups: string[] = []
  const raw: { zone: number; key: string; area: number; m: number[]; n: number[]; w: number[] }[] =
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
      const at = (v: number) => Math.floor(v / BLOCK_MM) + 512
      const key = (at(x) * 1024 + at(y)) * 1024 + at(z)
      let b = own.get(key)
      if (b === undefined) {
        b = raw.length
        own.set(key, b)
        raw.push({ zone, key: `${key}`, area: 0, m: [0, 0, 0], n: [0, 0, 0], w: [0, 0, 0] })
      }
      of[c] = b
      const block = raw[b]!
      const a = skin.areaCm2[c]!
      block.area += a
      const way = fixed
        ? laidInto(fixed(vec(skin.middle, c)), vec(skin.normal, c))
        : vec(skin.way, c)
      // Where hair turns too tightly it has no direction to go by.
      const weight = skin.loose[c] && !fixed ? 1e-3 * a : a
      for (let k = 0; k < 3; k++) {
        const s = k === 0 ? flip : 1
        block.m[k]! += s * a * skin.middle[3 * c + k]!
        block.n[k]! += s * a * skin.normal[3 * c + k]!
        block.w[k]! += s * weight * way[k]!
      }
    }
    rawOf.set(skin.zone.id, of)
  })
  const order = raw
    .map((b, i) => ({ i, b }))
    .sort((p, q) => p.b.zone - q.b.zone || Number(p.b.key) - Number(q.b.key))
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

const laidInto = (v: Vec3, n: Vec3) => unit(tangentPart(v, n))
const vec = (a: Float64Array, i: number): Vec3 => [a[3 * i]!, a[3 * i + 1]!, a[3 * i + 2]!]

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

/** A press while presses are being found. */
interface Draft {
  readonly blocks: number[]
  readonly fit: Fit
}

interface Fit {
  readonly area: number
  readonly stray: number
  readonly turn: number
  readonly origin: Vec3
  readonly normal: Vec3
  readonly right: Vec3
  readonly up: Vec3
  readonly field: readonly [number, number, number]
}

/** Axes of a plane: up along the head, or forward where the plane lies level. */
function planeAxes(n: Vec3): { up: Vec3; right: Vec3 } {
  let up = tangentPart([0, 1, 0], n)
  if (Math.hypot(...up) < 0.3) up = tangentPart([0, 0, 1], n)
  const u = unit(up)
  return { up: u, right: cross(u, n) }
}

const place = new Float64Array(3 * 16384)

/** Fits the stroke field of some blocks. */
function fitOf(b: Blocks, list: readonly number[], limits: Limits): Fit {
  const n = list.length
  let area = 0
  const o = [0, 0, 0]
  const s = [0, 0, 0]
  for (const i of list) {
    const a = b.area[i]!
    area += a
    for (let k = 0; k < 3; k++) {
      o[k]! += a * b.middle[3 * i + k]!
      s[k]! += a * b.normal[3 * i + k]!
    }
  }
  const origin: Vec3 = [o[0]! / area, o[1]! / area, o[2]! / area]
  const normal = unit(s as unknown as Vec3)
  const { up, right } = planeAxes(normal)
  let mx = 0
  let my = 0
  // Place on the plane and way laid flat onto it, of each block.
  for (let j = 0; j < n; j++) {
    const i = list[j]!
    const angle = flatAngle(b, i, normal, right, up)
    place[3 * j] = angle
    const dx = b.middle[3 * i]! - origin[0]
    const dy = b.middle[3 * i + 1]! - origin[1]
    const dz = b.middle[3 * i + 2]! - origin[2]
    place[3 * j + 1] = dx * right[0] + dy * right[1] + dz * right[2]
    place[3 * j + 2] = dx * up[0] + dy * up[1] + dz * up[2]
    mx += b.area[i]! * Math.cos(angle)
    my += b.area[i]! * Math.sin(angle)
  }
  const mean = Math.atan2(my, mx)
  let [c0, cx, cy] = [0, 0, 0]
  for (let round = 0; round < 4; round++) {
    let [w, wx, wy, wd, wxx, wxy, wyy, wxd, wyd] = [0, 0, 0, 0, 0, 0, 0, 0, 0]
    for (let j = 0; j < n; j++) {
      const x = place[3 * j + 1]!
      const y = place[3 * j + 2]!
      const d = wrapHalf(place[3 * j]! - mean)
      const off = Math.abs(wrapHalf(d - c0 - cx * x - cy * y))
      const a = b.area[list[j]!]! * (round === 0 || off <= HUBER ? 1 : HUBER / off)
      w += a
      wx += a * x
      wy += a * y
      wd += a * d
      wxx += a * x * x
      wxy += a * x * y
      wyy += a * y * y
      wxd += a * x * d
      wyd += a * y * d
    }
    const ridge = w * RIDGE_MM * RIDGE_MM
    const vxx = wxx - (wx * wx) / w + ridge
    const vxy = wxy - (wx * wy) / w
    const vyy = wyy - (wy * wy) / w + ridge
    const vxd = wxd - (wx * wd) / w
    const vyd = wyd - (wy * wd) / w
    const det = vxx * vyy - vxy * vxy
    cx = (vxd * vyy - vyd * vxy) / det
    cy = (vyd * vxx - vxd * vxy) / det
    c0 = (wd - cx * wx - cy * wy) / w
  }
  let least = Infinity
  let most = -Infinity
  for (let j = 0; j < n; j++) {
    const t = cx * place[3 * j + 1]! + cy * place[3 * j + 2]!
    least = Math.min(least, t)
    most = Math.max(most, t)
  }
  const turn = most - least
  if (turn > limits.mostTurn) {
    const share = limits.mostTurn / turn
    c0 += (1 - share) * (least + most) * 0.5
    cx *= share
    cy *= share
  }
  let stray = 0
  for (let j = 0; j < n; j++) {
    const off = angleBetween(
      place[3 * j]!,
      mean + c0 + cx * place[3 * j + 1]! + cy * place[3 * j + 2]!,
    )
    if (off > limits.tolerance) stray += b.area[list[j]!]!
  }
  return {
    area,
    stray,
    turn: Math.min(turn, limits.mostTurn),
    origin,
    normal,
    right,
    up,
    field: [mean + c0, cx, cy],
  }
}

/** The way of a block laid flat onto a plane by the smallest turn of the normal, radians clockwise from `up`. */
function flatAngle(b: Blocks, i: number, n: Vec3, right: Vec3, up: Vec3): number {
  const d = vec(b.way, i)
  const m = vec(b.normal, i)
  const k = dot(d, n) / Math.max(1 + dot(m, n), 1e-6)
  const t: Vec3 = [d[0] - k * (m[0] + n[0]), d[1] - k * (m[1] + n[1]), d[2] - k * (m[2] + n[2])]
  return Math.atan2(dot(t, right), dot(t, up))
}

/** How far the growth of a block lies off a press’s stroke, radians. */
function offField(b: Blocks, i: number, f: Fit): number {
  const d: Vec3 = [
    b.middle[3 * i]! - f.origin[0],
    b.middle[3 * i + 1]! - f.origin[1],
    b.middle[3 * i + 2]! - f.origin[2],
  ]
  const stroke = f.field[0] + f.field[1] * dot(d, f.right) + f.field[2] * dot(d, f.up)
  return angleBetween(flatAngle(b, i, f.normal, f.right, f.up), stroke)
}

/** Parts of each zone whose ways lie within the tolerance of their mean; small ones join the neighbour with the longest border. */
function flood(b: Blocks, tolerance: number, leastCm2: number, limits: Limits): Draft[] {
  const part = new Int32Array(b.count).fill(-1)
  const parts: number[][] = []
  for (let from = 0; from < b.count; from++) {
    if (part[from]! >= 0) continue
    const list = [from]
    part[from] = parts.length
    let sum = vec(b.way, from)
    for (let i = 0; i < list.length; i++) {
      for (const [other] of b.beside[list[i]!]!) {
        if (part[other]! >= 0 || b.zone[other] !== b.zone[from]) continue
        const mean = unit(sum)
        if (turnBetween(b, other, mean) > tolerance) continue
        part[other] = parts.length
        list.push(other)
        const w = vec(b.way, other)
        sum = [sum[0] + w[0], sum[1] + w[1], sum[2] + w[2]]
      }
    }
    parts.push(list)
  }
  const area = (list: readonly number[]) => list.reduce((s, i) => s + b.area[i]!, 0)
  // The smallest first, so that what is joined grows; an island stays a part of its own.
  const islands = new Set<number>()
  for (;;) {
    let small = -1
    let smallest = leastCm2
    parts.forEach((list, p) => {
      if (list.length === 0 || islands.has(p)) return
      const a = area(list)
      if (a < smallest - 1e-9) {
        small = p
        smallest = a
      }
    })
    if (small < 0) break
    const border = new Map<number, number>()
    for (const i of parts[small]!)
      for (const [other, length] of b.beside[i]!) {
        const to = part[other]!
        if (to === small || b.group[other] !== b.group[i]) continue
        // A neighbour in the same zone goes before one beyond its border.
        const own = b.zone[other] === b.zone[i] ? 1000 : 1
        border.set(to, (border.get(to) ?? 0) + own * length)
      }
    const to = longest(border)
    if (to === undefined) {
      islands.add(small)
      continue
    }
    for (const i of parts[small]!) part[i] = to
    parts[to]!.push(...parts[small]!)
    parts[small] = []
  }
  return parts.filter((list) => list.length > 0).map((list) => draft(b, list, limits))
}

/** The key with the greatest number; of alike ones the lowest. */
function longest(border: ReadonlyMap<number, number>): number | undefined {
  let best: number | undefined
  for (const [p, length] of border) {
    const most = best === undefined ? -Infinity : border.get(best)!
    if (length > most + 1e-9 || (length > most - 1e-9 && p < best!)) best = p
  }
  return best
}

const draft = (b: Blocks, blocks: number[], limits: Limits): Draft => ({
  blocks,
  fit: fitOf(b, blocks, limits),
})

/** Angle between the way of a block and a direction that is laid into its skin, radians. */
function turnBetween(b: Blocks, i: number, direction: Vec3): number {
  const w = vec(b.way, i)
  const d = laidInto(direction, vec(b.normal, i))
  return Math.acos(Math.max(-1, Math.min(1, dot(w, d))))
}

/** Joins neighbours that one curved stroke can take, those that add the least stray first. */
function join(b: Blocks, drafts: readonly Draft[], limits: Limits): Draft[] {
  const list: (Draft | undefined)[] = [...drafts]
  const owner = new Int32Array(b.count)
  list.forEach((d, p) => d!.blocks.forEach((i) => (owner[i] = p)))
  const borders = list.map(() => new Set<number>())
  for (let i = 0; i < b.count; i++)
    for (const [other] of b.beside[i]!)
      if (owner[other] !== owner[i] && b.group[other] === b.group[i])
        borders[owner[i]!]!.add(owner[other]!)
  const tried = new Map<string, { draft: Draft; adds: number } | undefined>()
  const tryPair = (p: number, q: number) => {
    const key = `${p} ${q}`
    if (tried.has(key)) return tried.get(key)
    const made = joined(b, list[p]!, list[q]!, limits)
    tried.set(key, made)
    return made
  }
  for (;;) {
    let best: { p: number; q: number; made: { draft: Draft; adds: number } } | undefined
    list.forEach((d, p) => {
      if (!d) return
      for (const q of borders[p]!) {
        if (q < p) continue
        const made = tryPair(p, q)
        if (made && (!best || made.adds < best.made.adds - 1e-9)) best = { p, q, made }
      }
    })
    if (!best) break
    const { p, q, made } = best
    list[p] = made.draft
    list[q] = undefined
    for (const other of borders[q]!) {
      borders[other]!.delete(q)
      if (other === p) continue
      borders[other]!.add(p)
      borders[p]!.add(other)
    }
    borders[p]!.delete(q)
    for (const key of [...tried.keys()]) {
      const [x, y] = key.split(' ').map(Number)
      if (x === p || y === p || x === q || y === q) tried.delete(key)
    }
  }
  return list.flatMap((d) => (d ? [d] : []))
}

/** Two presses as one, with the area that strays only because they are; undefined where it may not be. */
function joined(
  b: Blocks,
  p: Draft,
  q: Draft,
  limits: Limits,
): { draft: Draft; adds: number } | undefined {
  const area = p.fit.area + q.fit.area
  if (area > limits.mostCm2 || dot(p.fit.normal, q.fit.normal) < limits.mostBend) return undefined
  const apart = Math.acos(
    Math.max(
      -1,
      Math.min(
        1,
        dot(carryDirection(middleStroke(q.fit), q.fit.normal, p.fit.normal), middleStroke(p.fit)),
      ),
    ),
  )
  if (apart > toRadians(APART_DEG)) return undefined
  const made = draft(
    b,
    [...p.blocks, ...q.blocks].sort((x, y) => x - y),
    limits,
  )
  if (made.fit.stray > limits.mayStray * area) return undefined
  return { draft: made, adds: made.fit.stray - p.fit.stray - q.fit.stray }
}

/** The stroke at the middle of a press. */
const middleStroke = ({ field, right, up }: Pick<Fit, 'field' | 'right' | 'up'>): Vec3 =>
  planeWay(field[0], right, up)

const planeWay = (angle: number, right: Vec3, up: Vec3): Vec3 => {
  const c = Math.cos(angle)
  const s = Math.sin(angle)
  return [c * up[0] + s * right[0], c * up[1] + s * right[1], c * up[2] + s * right[2]]
}

/** Blocks along borders go to the neighbour whose stroke they keep better; the fields are fitted anew. */
function mend(b: Blocks, drafts: readonly Draft[], limits: Limits): Draft[] {
  let list = [...drafts]
  const slack = limits.tolerance - toRadians(MEND_SLACK_DEG)
  for (let round = 0; round < MEND_ROUNDS; round++) {
    const owner = new Int32Array(b.count)
    list.forEach((d, p) => d.blocks.forEach((i) => (owner[i] = p)))
    const to = Int32Array.from(owner)
    let moved = false
    for (let i = 0; i < b.count; i++) {
      const own = list[owner[i]!]!
      const off = offField(b, i, own.fit)
      if (off <= slack) continue
      let best = off - 1e-6
      for (const [other] of b.beside[i]!) {
        const p = owner[other]!
        if (p === owner[i] || b.group[other] !== b.group[i]) continue
        if (list[p]!.fit.area > limits.mostCm2) continue
        const there = offField(b, i, list[p]!.fit)
        if (there <= slack && there < best) {
          best = there
          to[i] = p
          moved = true
        }
      }
    }
    if (!moved) break
    const blocks: number[][] = list.map(() => [])
    to.forEach((p, i) => blocks[p]!.push(i))
    list = blocks.filter((own) => own.length > 0).map((own) => draft(b, own, limits))
  }
  return list
}

/** Presses that are too small go to the neighbour that they make stray least. */
function absorb(b: Blocks, drafts: readonly Draft[], leastCm2: number, limits: Limits): Draft[] {
  const list = [...drafts]
  const islands = new Set<Draft>()
  for (;;) {
    const small = list
      .filter((d) => d.fit.area < leastCm2 && !islands.has(d))
      .sort((x, y) => x.fit.area - y.fit.area || x.blocks[0]! - y.blocks[0]!)[0]
    if (!small) return list
    const owner = new Map<number, Draft>()
    for (const d of list) for (const i of d.blocks) owner.set(i, d)
    const near = new Set<Draft>()
    for (const i of small.blocks)
      for (const [other] of b.beside[i]!) {
        const d = owner.get(other)!
        if (d !== small && b.group[other] === b.group[i]) near.add(d)
      }
    let best: { with: Draft; made: Draft; adds: number } | undefined
    for (const d of near) {
      const made = draft(
        b,
        [...d.blocks, ...small.blocks].sort((x, y) => x - y),
        limits,
      )
      const adds = made.fit.stray - d.fit.stray
      if (!best || adds < best.adds - 1e-9) best = { with: d, made, adds }
    }
    if (!best) islands.add(small)
    else {
      list[list.indexOf(best.with)] = best.made
      list.splice(list.indexOf(small), 1)
    }
  }
}

/** Presses in the order of zones, the part of every cell, and the press of every part. */
function compile(q: PressQuestion, b: Blocks, drafts: readonly Draft[]): PressMap {
  const sorted = [...drafts].sort((x, y) => Math.min(...x.blocks) - Math.min(...y.blocks))
  const owner = new Int32Array(b.count)
  sorted.forEach((d, p) => d.blocks.forEach((i) => (owner[i] = p)))
  const flip = (v: Vec3): Vec3 => (q.mirrored ? [0 - v[0], v[1], v[2]] : v)
  const presses = sorted.map(({ fit }, p): Press => {
    // In the mirror what turned clockwise turns the other way.
    const s = q.mirrored ? -1 : 1
    const right = flip(fit.right)
    return {
      id: pressLetter(p),
      areaCm2: fit.area,
      stray: fit.stray / fit.area,
      turnDeg: (fit.turn * 180) / Math.PI,
      origin: flip(fit.origin),
      normal: flip(fit.normal),
      right: [s * right[0] + 0, s * right[1] + 0, s * right[2] + 0],
      up: flip(fit.up),
      field: [s * fit.field[0], fit.field[1], s * fit.field[2]],
    }
  })
  const zones = new Map<ZoneId, { cover: Cover; press: Press[] }>()
  for (const skin of q.skins) {
    const of = b.of.get(skin.zone.id)!
    const area = new Map<number, number>()
    of.forEach((i, c) => {
      if (i >= 0) area.set(owner[i]!, (area.get(owner[i]!) ?? 0) + skin.areaCm2[c]!)
    })
    const own = [...area.keys()].sort((x, y) => x - y)
    const lane = of.map((i) => (i < 0 ? -1 : own.indexOf(owner[i]!)))
    zones.set(skin.zone.id, {
      cover: { lane: Int16Array.from(lane), count: own.length },
      press: own.map((p) => presses[p]!),
    })
  }
  return { presses, zones }
}

/** Presses are lettered a to z, then aa, ab … */
export function pressLetter(n: number): string {
  const last = String.fromCharCode(97 + (n % 26))
  return n < 26 ? last : pressLetter(Math.floor(n / 26) - 1) + last
}

/** The stroke with the grain of a press at a place, as a unit tangent there. */
export function pressStroke(press: Press, point: Vec3, normal: Vec3): Vec3 {
  const d: Vec3 = [
    point[0] - press.origin[0],
    point[1] - press.origin[1],
    point[2] - press.origin[2],
  ]
  const angle =
    press.field[0] + press.field[1] * dot(d, press.right) + press.field[2] * dot(d, press.up)
  return carryDirection(planeWay(angle, press.right, press.up), press.normal, normal)
}

/** The same as a bearing on the chart of a zone, where its growth is laid flat too. */
export function pressBearing(press: Press, skin: ZoneSkin, c: number): number {
  const normal = vec(skin.normal, c)
  const n = unit(skin.zone.centre.normal)
  const d = carryDirection(pressStroke(press, vec(skin.middle, c), normal), normal, n)
  const { noon, three } = clockFrame(skin.zone.id, skin.zone.centre.point, n)
  return Math.atan2(dot(d, three), dot(d, noon))
}
