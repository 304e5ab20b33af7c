/**
 * Presses: the skin parted so that few, slightly curved strokes keep their relation to the grain (M5). Parts of a zone that one
 * straight stroke could take are joined across zones so long as one stroke field still follows the growth, the client's head is
 * held alike and the skin does not bend too far. At last blocks along borders go to the press whose stroke they keep better.
 * Presses hang on the map alone; how often they are gone over, and which way, is decided later.
 */
import { constant, type Figures } from '../house/index.ts'
import { toRadians } from '../grain/index.ts'
import { dot, unit, type Vec3 } from '../head/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { Cover } from './cover.ts'
import { blocksOf, laidInto, vec, type BlockQuestion, type Blocks } from './pressBlocks.ts'
import { fitOf, offField, planeWay, type Fit, type Limits, type Press } from './pressField.ts'
import { carryDirection } from './skin.ts'

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

/** Strokes of neighbours farther apart than this are not one press, degrees. */
const APART_DEG = 60
/** A block this much nearer to the tolerance than its own press allows looks for another one. */
const MEND_SLACK_DEG = 5
const MEND_ROUNDS = 4
/** Parts under this share of the least press join their neighbour at once; the others may yet find one that suits them. */
const LEAST_FLOOD = 0.2
/** The worked skin of a service in presses. */
export interface PressMap {
  readonly presses: readonly Press[]
  /** For each zone the part of every cell, and the press of every part. */
  readonly zones: ReadonlyMap<ZoneId, { readonly cover: Cover; readonly press: readonly Press[] }>
}

export interface PressQuestion extends BlockQuestion {
  readonly figures: Figures
  /** Half the width of what one stroke takes, degrees. */
  readonly toleranceDeg: number
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

/** A press while presses are being found. */
interface Draft {
  /** Rising. */
  readonly blocks: number[]
  readonly fit: Fit
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
  const areas = parts.map((list) => list.reduce((s, i) => s + b.area[i]!, 0))
  // The smallest first, so that what is joined grows; an island stays a part of its own.
  const islands = new Set<number>()
  for (;;) {
    let small = -1
    let smallest = leastCm2
    parts.forEach((list, p) => {
      if (list.length === 0 || islands.has(p)) return
      if (areas[p]! < smallest - 1e-9) {
        small = p
        smallest = areas[p]!
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
    areas[to]! += areas[small]!
  }
  return parts
    .filter((list) => list.length > 0)
    .map((list) =>
      draft(
        b,
        list.sort((x, y) => x - y),
        limits,
      ),
    )
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
  // What became of each pair that was tried, by its lower part and its higher.
  const tried = list.map(() => new Map<number, { draft: Draft; adds: number } | undefined>())
  const tryPair = (p: number, q: number) => {
    const had = tried[p]!
    if (!had.has(q)) had.set(q, joined(b, list[p]!, list[q]!, limits))
    return had.get(q)
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
    for (const had of [tried[p]!, tried[q]!]) had.clear()
    for (const had of tried) {
      had.delete(p)
      had.delete(q)
    }
  }
  return list.flatMap((d) => (d ? [d] : []))
}

/** Blocks of two presses in one order. */
function merged(a: readonly number[], b: readonly number[]): number[] {
  const out: number[] = []
  let j = 0
  for (const i of a) {
    while (j < b.length && b[j]! < i) out.push(b[j++]!)
    out.push(i)
  }
  while (j < b.length) out.push(b[j++]!)
  return out
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
  const made = draft(b, merged(p.blocks, q.blocks), limits)
  if (made.fit.stray > limits.mayStray * area) return undefined
  return { draft: made, adds: made.fit.stray - p.fit.stray - q.fit.stray }
}

/** The stroke at the middle of a press. */
const middleStroke = ({ field, right, up }: Pick<Fit, 'field' | 'right' | 'up'>): Vec3 =>
  planeWay(field[0], right, up)

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
      const made = draft(b, merged(d.blocks, small.blocks), limits)
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
