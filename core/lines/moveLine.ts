/**
 * A line that is moved over several visits: where it is wanted, what that takes away and what must fill in, and the steps that it
 * goes on the way (a false line, common practice). Hair grows at the client's own pace; how thick it must stand is a house estimate.
 */
import { cross, minus, type SurfacePoint, unit, type Vec3 } from '../head/index.ts'
import { constant, type Figures } from '../house/index.ts'
import { daysUntilLength, type DayRange, type Growth } from '../regrowth/index.ts'
import { DAY_MS } from '../time/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { along } from './compareLines.ts'
import { besidePath, type KeepLine, type LineTap } from './keepLine.ts'
import type { Outline } from './outline.ts'
import type { Place } from './usualLine.ts'

export const MOVE_CONSTANTS = {
  stepMm: constant(2, 'mm', 'A line that is moved goes so far at a visit', 'H'),
  filledMm: constant(4, 'mm', 'A beard’s edge looks filled once its hair is so long', 'H'),
  restMm: constant(3, 'mm', 'So far beside an over-cut edge nothing is worked', 'H'),
} as const

/** A line on its way, in steps of even length. */
export interface LineMove {
  readonly from: readonly LineTap[]
  readonly to: readonly LineTap[]
  readonly steps: number
  /** Steps that were taken. */
  readonly at: number
}

/** One of two lines that a client chooses between. */
export type Candidate = 'a' | 'b'

/** Lines to keep; those that are only thought of are none. */
export const keptLines = <L extends Pick<KeepLine, 'candidate'>>(lines: readonly L[]): L[] =>
  lines.filter((l) => !l.candidate)

/** Toward the side that is shaved, along the skin, at each tap. */
function outward({ taps, keep }: Pick<KeepLine, 'taps' | 'keep'>, i: number): Vec3 {
  const before = taps[Math.max(0, i - 1)]!.point
  const after = taps[Math.min(taps.length - 1, i + 1)]!.point
  const left = unit(cross(taps[i]!.normal, minus(after, before)))
  const sign = keep === 'left' ? -1 : 1
  return [sign * left[0], sign * left[1], sign * left[2]]
}

const tapAt = (place: Place, point: Vec3): LineTap => {
  const { zoneId, point: at, normal } = place(point)
  return { zoneId, point: at, normal }
}

/** A line's taps moved over the skin: so many mm toward what is shaved, back into the beard where negative. */
export const shiftTaps = (
  line: Pick<KeepLine, 'taps' | 'keep'>,
  mm: number,
  place: Place,
): LineTap[] =>
  line.taps.map((t, i) => {
    const way = outward(line, i)
    return tapAt(place, [0, 1, 2].map((k) => t.point[k]! + mm * way[k]!) as unknown as Vec3)
  })

/** What a wanted line changes of the present one. */
export interface LineChange {
  /** Beard that is given up: greatest and mean width, mm, and area, cm². */
  readonly lostMm: number
  readonly lostMeanMm: number
  readonly lostCm2: number
  /** Skin that must fill in. */
  readonly fillMm: number
  readonly fillCm2: number
  /** Zones in which it must, with how much of the line runs in each, mm. */
  readonly fillZones: ReadonlyMap<ZoneId, number>
}

/** Nearer than this no hand tells two lines apart, mm. */
const SAME_MM = 0.5
const EVERY_MM = 1

/** @param keep the side that is kept along the present line */
export function lineChange(
  present: readonly SurfacePoint[],
  wanted: readonly SurfacePoint[],
  keep: KeepLine['keep'],
  zoneOf: (point: Vec3) => ZoneId,
): LineChange {
  const points = along(wanted, EVERY_MM)
  let length = 0
  for (let i = 1; i < points.length; i++) length += Math.hypot(...minus(points[i]!, points[i - 1]!))
  const each = length / points.length
  let [lostMm, lostSum, lostRun, fillMm, fillSum] = [0, 0, 0, 0, 0]
  const fillZones = new Map<ZoneId, number>()
  for (const p of points) {
    const { leftMm } = besidePath(present, p)
    const out = keep === 'left' ? -leftMm : leftMm
    if (out > SAME_MM) {
      fillMm = Math.max(fillMm, out)
      fillSum += out
      const zone = zoneOf(p)
      fillZones.set(zone, (fillZones.get(zone) ?? 0) + each)
    } else if (out < -SAME_MM) {
      lostMm = Math.max(lostMm, -out)
      lostSum -= out
      lostRun++
    }
  }
  return {
    lostMm,
    lostMeanMm: lostRun > 0 ? lostSum / lostRun : 0,
    lostCm2: (lostSum * each) / 100,
    fillMm,
    fillCm2: (fillSum * each) / 100,
    fillZones,
  }
}

/** So many steps a line takes to where it is wanted. */
export const stepsFor = (
  figures: Figures,
  { lostMm, fillMm }: Pick<LineChange, 'lostMm' | 'fillMm'>,
): number => Math.max(1, Math.ceil(Math.max(lostMm, fillMm) / figures(MOVE_CONSTANTS.stepMm) - 0.2))

/** Taps along a step's line. */
const STEP_TAPS = 7

/** Evenly spaced places of a line's taps, straight between them: near enough that the skin's nearest place is the line's. */
function spread(taps: readonly LineTap[], count: number): Vec3[] {
  const lengths = taps.slice(1).map((t, i) => Math.hypot(...minus(t.point, taps[i]!.point)))
  const total = lengths.reduce((s, l) => s + l, 0)
  return Array.from({ length: count }, (_, k): Vec3 => {
    let rest = (total * k) / (count - 1)
    let i = 0
    while (i < lengths.length - 1 && rest > lengths[i]!) rest -= lengths[i++]!
    const t = lengths[i] ? Math.min(1, rest / lengths[i]!) : 0
    const [a, b] = [taps[i]!.point, (taps[i + 1] ?? taps[i]!).point]
    return [0, 1, 2].map((x) => a[x]! + t * (b[x]! - a[x]!)) as unknown as Vec3
  })
}

/** The line after so many steps of its way. */
export function stepTaps(
  { from, to, steps }: Pick<LineMove, 'from' | 'to' | 'steps'>,
  step: number,
  place: Place,
): readonly LineTap[] {
  if (step <= 0) return from
  if (step >= steps) return to
  const count = Math.max(STEP_TAPS, from.length, to.length)
  const [a, b] = [spread(from, count), spread(to, count)]
  const t = step / steps
  return a.map((p, i) =>
    tapAt(place, [0, 1, 2].map((k) => p[k]! + t * (b[i]![k]! - p[k]!)) as unknown as Vec3),
  )
}

/** A line that begins its way to where it is wanted; the first step is taken at this visit. */
export function beginMove(
  line: KeepLine,
  to: readonly LineTap[],
  steps: number,
  place: Place,
  atMs: number,
): KeepLine {
  const { move: _move, ...rest } = line
  return moveOn({ ...rest, move: { from: line.taps, to, steps, at: 0 } }, place, atMs)
}

/** A line one step farther on its way; as it is where it goes nowhere. */
export function moveOn(line: KeepLine, place: Place, atMs: number): KeepLine {
  const { move, ...rest } = line
  if (!move) return line
  const at = move.at + 1
  const taps = stepTaps(move, at, place)
  return { ...rest, taps, drawnAtMs: atMs, ...(at < move.steps && { move: { ...move, at } }) }
}

/** When a line stands where it is wanted, and when what it took in is filled. */
export interface MoveDates {
  readonly visits: number
  readonly reachedMs: number
  /** Nothing where nothing must fill. */
  readonly filled?: { readonly evenMs: number; readonly earlyMs: number; readonly lateMs: number }
  /** Zones where hair is too sparse to fill at all. */
  readonly sparse: readonly ZoneId[]
}

/**
 * @param startMs the visit at which the first step is taken
 * @param everyDays days between visits
 * @param growthOf nothing of zones where no hair is known to grow
 * @param sparse whether hair was found sparse, or none, in a zone
 */
export function moveDates(
  figures: Figures,
  change: LineChange,
  steps: number,
  startMs: number,
  everyDays: number,
  growthOf: (zone: ZoneId) => Growth | undefined,
  sparse: (zone: ZoneId) => boolean,
): MoveDates {
  const reachedMs = startMs + (steps - 1) * everyDays * DAY_MS
  const zones = [...change.fillZones.keys()]
  // Fuzz never grows to an edge.
  const fillsIn = (zone: ZoneId): DayRange | undefined => {
    const growth = growthOf(zone)
    const days = growth && fillDays(figures, growth)
    return days && Number.isFinite(days.late) ? days : undefined
  }
  const fill = zones.flatMap((z) => {
    const days = sparse(z) ? undefined : fillsIn(z)
    return days ? [days] : []
  })
  const most = (of: (r: DayRange) => number) => reachedMs + Math.max(...fill.map(of)) * DAY_MS
  return {
    visits: steps,
    reachedMs,
    ...(fill.length > 0 && {
      filled: {
        evenMs: most((r) => r.even),
        earlyMs: most((r) => r.early),
        lateMs: most((r) => r.late),
      },
    }),
    sparse: zones.filter((z) => sparse(z) || !fillsIn(z)),
  }
}

/** Days until a shaved edge is filled. */
export const fillDays = (figures: Figures, growth: Growth): DayRange =>
  daysUntilLength(figures, growth, figures(MOVE_CONSTANTS.filledMm), 0)

/**
 * An over-cut piece of a line as a place that rests: from one of its points to those beside it, as far into the beard as was cut,
 * and a little to either side.
 * @param mm how far was cut into the beard
 */
export function overcutRest(
  figures: Figures,
  line: Pick<KeepLine, 'taps' | 'keep'>,
  point: number,
  mm: number,
  place: Place,
): LineTap[] {
  const piece = line.taps.slice(Math.max(0, point - 1), point + 2)
  const own = { taps: piece, keep: line.keep }
  const margin = figures(MOVE_CONSTANTS.restMm)
  return [...shiftTaps(own, margin, place), ...shiftTaps(own, -(mm + margin), place).reverse()]
}

/** A place that rests. */
export const restingOutline = (
  id: string,
  taps: readonly LineTap[],
  atMs: number,
  until: Outline['until'],
): Outline => ({ id, kind: 'rest', taps, drawnAtMs: atMs, until })
