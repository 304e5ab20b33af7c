/**
 * Lanes by circular cover (M5): few connected patches of a zone in each of which one straight stroke keeps its relation to
 * the grain within a tolerance. Angles are sorted round the circle and cut greedily into arcs from 24 starting offsets;
 * the fewest connected patches win, then the shortest border.
 */
import { constant, type Figures } from '../house/index.ts'
import { patchFrom, type ZoneSkin } from './skin.ts'
import { BIN, BINS } from './turns.ts'
import { angleBetween } from '../grain/index.ts'

export const COVER_CONSTANTS = {
  toleranceDeg: constant(30, '°', 'Growth within a lane stays within this of its middle', 'H'),
  toleranceBumpDeg: constant(20, '°', 'The same on bump-prone skin', 'H'),
  leastLaneCm2: constant(0.8, 'cm²', 'Smaller patches join a neighbour', 'H'),
  leastLaneShare: constant(0.05, '', 'and so do patches under this share of their zone', 'H'),
  mayStray: constant(0.04, '', 'Share of a lane that may lie outside the tolerance', 'H'),
} as const

const C = COVER_CONSTANTS
const OFFSETS = 24

/** A zone parted into lanes. */
export interface Cover {
  /** Lane of each cell, −1 where it is not worked. */
  readonly lane: Int16Array
  readonly count: number
  /** Arcs that a circle of these directions needs at least: no cover has fewer lanes. */
  readonly bound: number
}

/**
 * Parts the worked cells of a zone.
 * @param tolerance radians, half the width of an arc
 */
export function coverZone(figures: Figures, skin: ZoneSkin, tolerance: number): Cover {
  const cells: number[] = []
  for (let c = 0; c < skin.count; c++) if (skin.open[c] && !skin.loose[c]) cells.push(c)
  const least = Math.max(figures(C.leastLaneCm2), figures(C.leastLaneShare) * skin.openCm2)
  cells.sort((a, b) => skin.growth[a]! - skin.growth[b]! || a - b)
  const offsets =
    oneArc(skin, cells, tolerance) ??
    Array.from({ length: OFFSETS }, (_, o) => (o / OFFSETS) * 2 * Math.PI)
  const cuts = offsets.map((offset) => cutArcs(skin, cells, offset, tolerance))
  const bound = cells.length === 0 ? 0 : Math.min(...cuts.map((c) => c.middles.length))
  let best: { pieces: Piece[]; border: number } | undefined
  const tried = new Set<string>()
  for (const cut of cuts) {
    if (cut.middles.length > bound) continue
    const key = cut.starts.join()
    if (tried.has(key)) continue
    tried.add(key)
    smooth(skin, cut, tolerance)
    const pieces = settle(figures, skin, piecesOf(skin, cut.label), tolerance, least)
    const border = pieces.reduce(
      (s, p) => s + [...p.borders.values()].reduce((a, b) => a + b, 0),
      0,
    )
    if (
      !best ||
      pieces.length < best.pieces.length ||
      (pieces.length === best.pieces.length && border < best.border - 1e-9)
    ) {
      best = { pieces, border }
    }
    if (best.pieces.length === 1) break
  }
  const lane = new Int16Array(skin.count).fill(-1)
  const pieces = best?.pieces ?? []
  // Largest first, so that the numbers of lanes do not hang on where the sorting began.
  pieces.sort((a, b) => b.area - a.area || a.cells[0]! - b.cells[0]!)
  pieces.forEach((p, i) => p.cells.forEach((c) => (lane[c] = i)))
  return { lane, count: joinLoose(skin, lane, pieces.length), bound }
}

/** Parts the worked cells where the growth does not matter: one lane for each connected patch. */
export function patchesOf(skin: ZoneSkin): Cover {
  const lane = new Int16Array(skin.count).fill(-1)
  const seen = new Uint8Array(skin.count)
  let count = 0
  for (let c = 0; c < skin.count; c++) {
    if (!skin.open[c] || seen[c]) continue
    for (const d of patchFrom(skin, c, (x) => skin.open[x] === 1, seen)) lane[d] = count
    count++
  }
  return { lane, count, bound: count }
}

interface Cut {
  readonly label: Int16Array
  /** Positions in the sorted list at which arcs begin. */
  readonly starts: number[]
  readonly middles: number[]
}

/** Where one arc holds everything: just beyond the widest gap between neighbouring directions. */
function oneArc(
  skin: ZoneSkin,
  sorted: readonly number[],
  tolerance: number,
): number[] | undefined {
  for (let i = 0; i < sorted.length; i++) {
    const next = sorted[(i + 1) % sorted.length]!
    const gap =
      skin.growth[next]! - skin.growth[sorted[i]!]! + (i + 1 === sorted.length ? 2 * Math.PI : 0)
    if (gap >= 2 * Math.PI - 2 * tolerance) return [skin.growth[next]!]
  }
  return undefined
}

function cutArcs(
  skin: ZoneSkin,
  sorted: readonly number[],
  offset: number,
  tolerance: number,
): Cut {
  const label = new Int16Array(skin.count).fill(-1)
  const starts: number[] = []
  const middles: number[] = []
  const n = sorted.length
  if (n === 0) return { label, starts, middles }
  const { growth } = skin
  let begin = sorted.findIndex((c) => growth[c]! >= offset)
  if (begin < 0) begin = 0
  let from = 0
  for (let i = 0; i < n; i++) {
    const at = (begin + i) % n
    const cell = sorted[at]!
    // Angles run on past the whole turn.
    const angle = growth[cell]! + (begin + i >= n ? 2 * Math.PI : 0)
    if (i === 0 || angle - from > 2 * tolerance) {
      from = angle
      starts.push(at)
      middles.push(from)
    }
    middles[middles.length - 1] = (from + angle) / 2
    label[cell] = middles.length - 1
  }
  return { label, starts, middles }
}

/** Cells take the label of most of their border when their own growth allows it. */
function smooth(skin: ZoneSkin, cut: Cut, tolerance: number): void {
  const { label, middles } = cut
  if (middles.length < 2) return
  const weight = new Float64Array(middles.length)
  for (let round = 0; round < 3; round++) {
    for (let c = 0; c < skin.count; c++) {
      const own = label[c]!
      if (own < 0) continue
      weight.fill(0)
      let most = own
      for (let k = 0; k < 3; k++) {
        const d = skin.beside[3 * c + k]!
        const other = d < 0 ? -1 : label[d]!
        if (other < 0) continue
        weight[other]! += skin.edge[3 * c + k]!
        if (weight[other]! > weight[most]! + 1e-9) most = other
      }
      if (most !== own && angleBetween(skin.growth[c]!, middles[most]!) <= tolerance)
        label[c] = most
    }
  }
}

/** A connected patch while lanes are being found. */
interface Piece {
  cells: number[]
  area: number
  /** Area by direction, cm². */
  turns: Float64Array
  /** Length of border with other pieces, mm. */
  borders: Map<Piece, number>
}

function piecesOf(skin: ZoneSkin, label: Int16Array): Piece[] {
  const seen = new Uint8Array(skin.count)
  const owner: (Piece | undefined)[] = new Array<Piece | undefined>(skin.count)
  const pieces: Piece[] = []
  for (let c = 0; c < skin.count; c++) {
    if (label[c]! < 0 || seen[c]) continue
    const cells = patchFrom(skin, c, (d) => label[d] === label[c], seen)
    const piece: Piece = { cells, area: 0, turns: new Float64Array(BINS), borders: new Map() }
    for (const d of cells) {
      piece.area += skin.areaCm2[d]!
      piece.turns[Math.floor(skin.growth[d]! / BIN) % BINS]! += skin.areaCm2[d]!
      owner[d] = piece
    }
    pieces.push(piece)
  }
  for (const piece of pieces) {
    for (const c of piece.cells) {
      for (let k = 0; k < 3; k++) {
        const d = skin.beside[3 * c + k]!
        const other = d < 0 ? undefined : owner[d]
        if (other && other !== piece) {
          piece.borders.set(other, (piece.borders.get(other) ?? 0) + skin.edge[3 * c + k]!)
        }
      }
    }
  }
  return pieces
}

/** Mean direction of a histogram of directions, and the share of it beyond the tolerance. */
function spread(turns: Float64Array, tolerance: number): { mean: number; beyond: number } {
  let x = 0
  let y = 0
  let all = 0
  for (let b = 0; b < BINS; b++) {
    x += turns[b]! * Math.cos((b + 0.5) * BIN)
    y += turns[b]! * Math.sin((b + 0.5) * BIN)
    all += turns[b]!
  }
  const mean = Math.atan2(y, x)
  let beyond = 0
  for (let b = 0; b < BINS; b++)
    if (angleBetween((b + 0.5) * BIN, mean) > tolerance) beyond += turns[b]!
  return { mean, beyond: all > 0 ? beyond / all : 0 }
}

/** Joins pieces that can share one stroke, and those that are too small, until nothing more can be joined. */
function settle(
  figures: Figures,
  skin: ZoneSkin,
  pieces: Piece[],
  tolerance: number,
  least: number,
): Piece[] {
  const gap = (a: Piece, b: Piece) => {
    const from = 3 * a.cells[0]!
    return Math.min(
      ...b.cells.map((c) =>
        Math.hypot(
          skin.middle[3 * c]! - skin.middle[from]!,
          skin.middle[3 * c + 1]! - skin.middle[from + 1]!,
          skin.middle[3 * c + 2]! - skin.middle[from + 2]!,
        ),
      ),
    )
  }
  const mayStray = figures(C.mayStray)
  const list = new Set(pieces)
  const joined = (a: Piece, b: Piece) => {
    const turns = Float64Array.from(a.turns, (w, i) => w + b.turns[i]!)
    return spread(turns, tolerance).beyond
  }
  const join = (into: Piece, from: Piece) => {
    into.cells = into.cells.concat(from.cells)
    into.area += from.area
    from.turns.forEach((w, i) => (into.turns[i]! += w))
    into.borders.delete(from)
    for (const [other, length] of from.borders) {
      other.borders.delete(from)
      if (other === into) continue
      into.borders.set(other, (into.borders.get(other) ?? 0) + length)
      other.borders.set(into, into.borders.get(other)!)
    }
    list.delete(from)
  }
  for (;;) {
    const bySize = [...list].sort((a, b) => a.area - b.area || a.cells[0]! - b.cells[0]!)
    let done = true
    for (const piece of bySize) {
      if (piece.borders.size === 0) continue
      const beside = [...piece.borders.keys()].map((other) => ({
        other,
        stray: joined(piece, other),
        border: piece.borders.get(other)!,
      }))
      const fits = beside.filter((b) => b.stray <= mayStray)
      const way =
        fits.length > 0
          ? fits.reduce((a, b) => (b.border > a.border ? b : a))
          : piece.area < least
            ? beside.reduce((a, b) => (b.stray < a.stray - 1e-9 ? b : a))
            : undefined
      if (!way) continue
      if (way.other.area >= piece.area) join(way.other, piece)
      else join(piece, way.other)
      done = false
      break
    }
    if (done) break
  }
  // What hangs by no edge and is too small for a lane of its own is done along with the nearest.
  for (const piece of [...list].sort((a, b) => a.area - b.area)) {
    if (piece.borders.size > 0 || piece.area >= least || list.size < 2) continue
    const others = [...list].filter((p) => p !== piece)
    join(
      others.reduce((a, b) => (gap(piece, b) < gap(piece, a) ? b : a)),
      piece,
    )
  }
  return [...list]
}

/** Cells round a turning point, and loose ones cut off, join the lane beside them; what has none becomes a lane. */
function joinLoose(skin: ZoneSkin, lane: Int16Array, count: number): number {
  let waiting = Array.from({ length: skin.count }, (_, c) => c).filter(
    (c) => skin.open[c] && lane[c]! < 0,
  )
  while (waiting.length > 0) {
    const next: number[] = []
    const found: [number, number][] = []
    for (const c of waiting) {
      let own = -1
      for (let k = 0; k < 3 && own < 0; k++) {
        const d = skin.beside[3 * c + k]!
        if (d >= 0) own = lane[d]!
      }
      if (own < 0) next.push(c)
      else found.push([c, own])
    }
    for (const [c, own] of found) lane[c] = own
    if (found.length === 0) {
      const seen = new Uint8Array(skin.count)
      for (const d of patchFrom(skin, next[0]!, (x) => skin.open[x] === 1 && lane[x]! < 0, seen))
        lane[d] = count
      count++
    }
    waiting = next.filter((c) => lane[c]! < 0)
  }
  return count
}

/** Lanes of a zone as one short string: runs of cells of the same lane, "12.4a30b" (a dot is not worked). */
export function packCover(cover: Cover): string {
  let out = ''
  let run = 0
  for (let c = 0; c <= cover.lane.length; c++) {
    if (c < cover.lane.length && c > 0 && cover.lane[c] === cover.lane[c - 1]) {
      run++
      continue
    }
    if (c > 0) {
      const lane = cover.lane[c - 1]!
      out += `${run + 1}${lane < 0 ? '.' : laneLetter(lane)}`
      run = 0
    }
  }
  return out
}

/** Lanes are lettered a, b, c …, after z with capitals. */
export function laneLetter(lane: number): string {
  return 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ'[lane] ?? 'Z'
}

/** Cells of a packed cover, in order: the lane's letter, or a dot. */
export function unpackCover(packed: string): string[] {
  const out: string[] = []
  for (const [, run, letter] of packed.matchAll(/(\d+)([.a-zA-Z])/g)) {
    for (let i = 0; i < Number(run); i++) out.push(letter!)
  }
  return out
}
