/**
 * Outlines: closed borders over the skin. A trial strip and a client's own area are all that may be worked; what rests is left
 * alone until its day.
 */
import { DomainError } from '../errors.ts'
import {
  clockFrame,
  minus,
  type PathPoint,
  type Surface,
  triangleArea,
  type Vec3,
  type ZonedMesh,
  type ZoneRecord,
} from '../head/index.ts'
import type { IsoDate } from '../time/index.ts'
import { constant, type Figures } from '../house/index.ts'
import { besidePath, linePath, type LineTap } from './keepLine.ts'
import type { Place } from './usualLine.ts'

export const OUTLINE_CONSTANTS = {
  trialCm2: constant(20, 'cm²', 'A trial strip is at most this large', 'H'),
  leastCm2: constant(1, 'cm²', 'An outline takes in at least this much', 'H'),
} as const

export const OUTLINE_KINDS = ['trial', 'own', 'rest'] as const
export type OutlineKind = (typeof OUTLINE_KINDS)[number]

export const OUTLINE_WORDS: Readonly<Record<OutlineKind, string>> = {
  trial: 'trial strip',
  own: 'own area',
  rest: 'place that rests',
}

/** A closed border over the skin; it runs the shortest way between its taps and back to the first. */
export interface Outline {
  readonly id: string
  readonly kind: OutlineKind
  readonly taps: readonly LineTap[]
  readonly drawnAtMs: number
  /** Of what rests: the first day on which it may be worked again. */
  readonly until?: IsoDate | undefined
}

/** An outline over the mesh: which of its triangles lie inside. */
export interface DrawnOutline {
  readonly kind: OutlineKind
  readonly inside: Uint8Array
  readonly until?: IsoDate | undefined
}

/** An outline closes once it has so many places. */
const LEAST_TAPS = 3

/** The whole way round, its first place again at the end. */
export const outlinePath = (surface: Surface, { taps }: Pick<Outline, 'taps'>): PathPoint[] =>
  linePath(surface, { taps: [...taps, taps[0]!] })

/**
 * Which triangles lie inside: the border parts the skin, and the smaller part is the inside. What the border itself crosses
 * counts by the side on which its middle lies.
 * @returns 1 for each triangle inside
 * @throws DomainError `no-outline` where the border has fewer than three places, or encloses nothing
 */
export function outlineInside(surface: Surface, outline: Pick<Outline, 'taps'>): Uint8Array {
  if (!isClosed(outline)) {
    throw new DomainError('no-outline', 'An outline needs three places at least: tap on.')
  }
  const { mesh, neighbours } = surface
  const path = outlinePath(surface, outline)
  const count = mesh.indices.length / 3
  const onBorder = new Uint8Array(count)
  for (const p of borderOf(surface, path)) onBorder[p] = 1
  // Whatever hangs together beside the border, edge to edge, is one part.
  const part = new Int32Array(count).fill(-1)
  const areas: number[] = []
  for (let from = 0; from < count; from++) {
    if (onBorder[from] || part[from] !== -1) continue
    const own = areas.length
    const todo = [from]
    part[from] = own
    let area = 0
    while (todo.length > 0) {
      const t = todo.pop()!
      area += triangleArea(mesh, t)
      for (let k = 0; k < 3; k++) {
        const next = neighbours[3 * t + k]!
        if (next < 0 || onBorder[next] || part[next] !== -1) continue
        part[next] = own
        todo.push(next)
      }
    }
    areas.push(area)
  }
  // The large one that the border touches is the outside; parts that it does not touch (a lid, a lip) are none of it.
  const touched = new Set<number>()
  for (let t = 0; t < count; t++) {
    if (!onBorder[t]) continue
    for (let k = 0; k < 3; k++) {
      const next = neighbours[3 * t + k]!
      if (next >= 0 && !onBorder[next]) touched.add(part[next]!)
    }
  }
  const outside = [...touched].reduce((a, b) => (areas[b]! > areas[a]! ? b : a), [...touched][0]!)
  const inner = new Set([...touched].filter((p) => p !== outside))
  if (inner.size === 0) {
    throw new DomainError('no-outline', 'The outline encloses no skin yet: draw it wider.')
  }
  const inside = new Uint8Array(count)
  let left = 0
  for (let t = 0; t < count; t++) {
    if (onBorder[t] || !inner.has(part[t]!)) continue
    inside[t] = 1
    for (let k = 0; k < 3; k++)
      if (onBorder[neighbours[3 * t + k]!])
        left += besidePath(path, middleOf(mesh, t)).side === 'left' ? 1 : -1
  }
  const inward = left >= 0 ? 'left' : 'right'
  for (let t = 0; t < count; t++)
    if (onBorder[t] && besidePath(path, middleOf(mesh, t)).side === inward) inside[t] = 1
  return inside
}

/** Triangles that a path runs through: where it goes from one to the next over a corner, all that meet there. */
function borderOf({ mesh, neighbours, locator }: Surface, path: readonly PathPoint[]): Set<number> {
  const out = new Set<number>()
  const beside = (a: number, b: number) => [0, 1, 2].some((k) => neighbours[3 * a + k] === b)
  let last: number | undefined
  for (let i = 0; i < path.length; i++) {
    const here = path[i]!
    out.add(here.triangle)
    const next = path[i + 1]
    if (next) {
      // Between two places the way is straight: nothing of it is skipped in steps this short.
      const d = minus(next.point, here.point)
      const steps = Math.max(1, Math.ceil(Math.hypot(...d) / STEP_MM))
      for (let s = 0; s <= steps; s++) {
        const at: Vec3 = [0, 1, 2].map((k) => here.point[k]! + (d[k]! * s) / steps) as never
        const { triangle } = locator.nearest(at, here.normal)
        if (last !== undefined && last !== triangle && !beside(last, triangle))
          for (const t of aroundBoth(mesh, neighbours, last, triangle)) out.add(t)
        out.add(triangle)
        last = triangle
      }
    }
  }
  return out
}

/** A path is followed in steps this long, mm. */
const STEP_MM = 0.4

/** Triangles about the corner that two share; none where they share none. */
function aroundBoth(
  mesh: ZonedMesh,
  neighbours: Int32Array,
  a: number,
  b: number,
): readonly number[] {
  const corners = (t: number) => [0, 1, 2].map((k) => mesh.indices[3 * t + k]!)
  const shared = corners(a).filter((v) => corners(b).includes(v))
  const out = [a]
  for (let i = 0; i < out.length; i++)
    for (let k = 0; k < 3; k++) {
      const next = neighbours[3 * out[i]! + k]!
      if (next >= 0 && !out.includes(next) && corners(next).some((v) => shared.includes(v)))
        out.push(next)
    }
  return out
}

function middleOf({ positions: p, indices }: ZonedMesh, t: number): Vec3 {
  const sum: [number, number, number] = [0, 0, 0]
  for (let k = 0; k < 3; k++)
    for (let x = 0; x < 3; x++) sum[x]! += p[3 * indices[3 * t + k]! + x]! / 3
  return sum
}

/** Skin inside, cm². */
export function outlineCm2(mesh: ZonedMesh, inside: Uint8Array): number {
  let sum = 0
  for (let t = 0; t < inside.length; t++) if (inside[t]) sum += triangleArea(mesh, t)
  return sum / 100
}

/** Why an outline of this size is none of its kind; undefined where it may be. */
export function outlineProblem(
  figures: Figures,
  kind: OutlineKind,
  cm2: number,
): string | undefined {
  if (cm2 < figures(OUTLINE_CONSTANTS.leastCm2))
    return 'It takes in too little skin to work: draw it wider.'
  if (kind === 'trial' && cm2 > figures(OUTLINE_CONSTANTS.trialCm2))
    return `A trial strip is small: at most ${figures(OUTLINE_CONSTANTS.trialCm2)} cm², this is ${Math.round(cm2)}.`
  return undefined
}

/** Whether an outline has closed: with fewer places it is only begun. */
export const isClosed = ({ taps }: Pick<Outline, 'taps'>): boolean => taps.length >= LEAST_TAPS

/** The outlines that have closed, as they lie on the mesh; one that encloses nothing is left away. */
export function drawnOutlines(
  surface: () => Surface,
  outlines: readonly Outline[],
): DrawnOutline[] {
  return outlines.flatMap((o): DrawnOutline[] => {
    if (!isClosed(o)) return []
    try {
      const inside = outlineInside(surface(), o)
      return [{ kind: o.kind, inside, ...(o.until && { until: o.until }) }]
    } catch (error) {
      if (error instanceof DomainError) return []
      throw error
    }
  })
}

/** The outlines that bear on work on a day: what rested until then rests no more. */
export const standingOutlines = <O extends Pick<Outline, 'kind' | 'until'>>(
  outlines: readonly O[],
  today: IsoDate,
): O[] => outlines.filter((o) => o.kind !== 'rest' || o.until === undefined || o.until > today)

/** What outlines are all that may be worked: a trial strip before a client's own area; none where all may. */
export function workedOutlines<O extends { readonly kind: OutlineKind }>(
  outlines: readonly O[],
): readonly O[] {
  const trial = outlines.filter((o) => o.kind === 'trial')
  return trial.length > 0 ? trial : outlines.filter((o) => o.kind === 'own')
}

/** Half the length and half the width of a usual trial strip, mm (house estimate). */
const STRIP_HALF = [18, 11] as const

/** A trial strip where it usually lies: over the middle of a zone, its length up and down. */
export function usualStrip({ id, centre }: ZoneRecord, place: Place): LineTap[] {
  const { noon, three } = clockFrame(id, centre.point, centre.normal)
  return [
    [1, -1],
    [1, 1],
    [-1, 1],
    [-1, -1],
  ].map(([up, across]) => {
    const at = [0, 1, 2].map(
      (k) =>
        centre.point[k]! + up! * STRIP_HALF[0] * noon[k]! + across! * STRIP_HALF[1] * three[k]!,
    )
    const { zoneId, point, normal } = place(at as unknown as Vec3)
    return { zoneId, point, normal }
  })
}
