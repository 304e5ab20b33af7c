/**
 * Where the free hand holds the skin: behind the start of the stroke, on skin that it can reach from where the worker stands and
 * that may be touched, pulling away from the blade. All from the geometry; the figures are house estimates.
 */
import {
  distance,
  dot,
  type Landmarks,
  minus,
  plus,
  tangentPart,
  turnedIn,
  unit,
  type Vec3,
} from '../head/index.ts'
import { tellWay } from '../telling/index.ts'
import { isBody, isSkin, onZone, zoneStem, type ZoneId, type ZoneStem } from '../zones/index.ts'
import type { Figures, Schools } from '../house/index.ts'
import { markMargin, type SkinMark } from '../screening/index.ts'
import { reachFrom, type Room } from './handle.ts'
import type { Hand } from './hands.ts'
import type { Hold } from './types.ts'

/** Gaps between the start of the stroke and the fingers that are tried, mm. */
const GAPS_MM = [14, 24, 36]
/** How far off the straight line behind the stroke, degrees; the pull stays against the stroke. */
const ASIDE_DEG = [0, 22, -22, 42, -42]
/** The stroke's start lies no farther back than this, mm: a long lane is held section by section. */
const FARTHEST_BACK_MM = 30
/** Skin that is farther off than this from the straight line behind the stroke lies round a corner, mm. */
const ROUND_MM = 22
/** Half as wide as two fingertips, mm: they keep that much off what must not be touched. */
const FINGERS_MM = 9
/** How a finger leans toward the arm that it hangs on, beside the skin's own normal. */
const LEAN = [0.7, 0.2, 1.4]
const FINGER_LONG_MM = 74
const FINGER_ROUND_MM = 6
/** Two holds that are nearer than this are one, mm. */
const APART_MM = 15
/** Holds kept for a lane, so that the chair has another when one is nicked. */
const KEPT = 3

/** Where no finger rests: there is nothing to hold, or it must not be pressed. */
const NO_HOLD: ReadonlySet<ZoneStem> = new Set<ZoneStem>(['under-eye', 'nose-tip'])

/** A place that the blade is led over. */
interface Worked {
  readonly zoneId: ZoneId
  readonly point: Vec3
  readonly normal: Vec3
  readonly stroke: Vec3
  readonly lengthMm: number
}

/** What holding depends on. */
export interface HoldQuestion {
  readonly figures: Figures
  readonly room: Room | undefined
  readonly landmarks: Landmarks | undefined
  readonly hand: Hand
  /** Where the worker stands and how the head is turned. */
  readonly hour: number
  readonly turnDeg: number
  readonly marks: readonly SkinMark[]
  /** Zones that must not be touched, or that nobody has read. */
  readonly closed: ReadonlySet<ZoneId>
  readonly bumpProne: boolean
  readonly schools: Pick<Schools, 'neckStretch'>
}

/** The holds for a lane, the best first; none where nothing can be held. */
export function holdsFor(q: HoldQuestion, lane: Worked): Hold[] {
  const n = unit(lane.normal)
  const back = Math.min(lane.lengthMm / 2, FARTHEST_BACK_MM)
  // The other hand tries the other side first, so that the mirrored client is held in the mirror.
  const turn = q.hand === 'right' ? 1 : -1
  const found: Hold[] = []
  for (const gap of GAPS_MM) {
    for (const aside of ASIDE_DEG) {
      const way = turnedIn(lane.stroke, n, (turn * aside * Math.PI) / 180)
      const at = plus(lane.point, way, -(back + gap))
      const hold = q.room ? onSkin(q, q.room, lane, at) : flatHold(lane, at)
      if (!hold || !free(q, hold)) continue
      if (found.some((h) => distance(h.point, hold.point) < APART_MM)) continue
      found.push({ ...hold, text: words(q, lane, hold) })
      if (found.length === KEPT) return found
    }
  }
  return found
}

type Bare = Omit<Hold, 'text'>

const flatHold = ({ zoneId, normal, stroke }: Worked, at: Vec3): Bare => ({
  zoneId,
  point: at,
  normal,
  pull: [0 - stroke[0], 0 - stroke[1], 0 - stroke[2]],
})

/** A hold on the head's skin; undefined where there is none or the hand cannot come to it. */
function onSkin(q: HoldQuestion, room: Room, lane: Worked, at: Vec3): Bare | undefined {
  const near = room.nearest(at, lane.normal)
  if (!near || near.distanceMm > ROUND_MM) return undefined
  const zoneId = room.zoneOf(near.triangle)
  if (!isSkin(zoneId) || NO_HOLD.has(zoneStem(zoneId))) return undefined
  const normal = unit(near.normal)
  // Round the corner of an ear or a jaw the pull would not come through.
  if (dot(normal, unit(lane.normal)) < 0) return undefined
  const away = tangentPart(minus(near.point, lane.point), normal)
  // A hold that pulls along the stroke instead of against it is none.
  if (Math.hypot(...away) < 4 || dot(unit(away), lane.stroke) > -0.35) return undefined
  if (!reaches(q, room, near.point, normal)) return undefined
  return { zoneId, point: near.point, normal, pull: unit(away) }
}

/** True when the free hand comes to a place from where the worker stands: over the head, not through it. */
function reaches(q: HoldQuestion, room: Room, point: Vec3, normal: Vec3): boolean {
  const from = reachFrom(q.figures, q.hour, q.turnDeg)
  const to = unit(minus(from, point))
  // Fingers lean toward the arm, stand up straight, or come flat over the edge.
  return LEAN.some((lean) => {
    const way = unit(plus(normal, to, lean))
    for (let mm = 26; mm <= FINGER_LONG_MM; mm += 12)
      if (room.locator.within(plus(point, way, mm), FINGER_ROUND_MM) !== undefined) return false
    return true
  })
}

/** True where nothing speaks against a finger. */
function free(q: HoldQuestion, { zoneId, point }: Bare): boolean {
  if (q.closed.has(zoneId)) return false
  return !q.marks.some((m) => {
    const reach = m.radiusMm + markMargin(q.figures, m) + FINGERS_MM
    return (m.trail ?? [m]).some((p) => distance(p.point, point) < reach)
  })
}

function words(q: HoldQuestion, lane: Worked, { zoneId, point, normal, pull }: Bare): string {
  const stem = zoneStem(lane.zoneId)
  const lightly =
    q.bumpProne &&
    q.schools.neckStretch === 'light' &&
    (stem.startsWith('neck') || stem.startsWith('under-chin'))
  const toward = tellWay(q.landmarks, zoneId, point, normal, pull).text
  const on =
    zoneId === lane.zoneId || isBody(zoneId)
      ? 'fingers behind the start of the stroke'
      : `fingers ${onZone(zoneId)}`
  return lightly
    ? `Hold lightly ${toward}, ${on}: taut skin would let tips be cut below the surface.`
    : `Pull ${toward}, ${on}.`
}

/** What is said where nothing can be held. */
export const NOTHING_TO_HOLD =
  'No hold here: nothing behind the stroke may be touched. Shortest strokes.'

/** The first hold that nothing learned at the chair speaks against. */
export function holdNow(
  holds: readonly Hold[],
  against: { readonly points: readonly Vec3[]; readonly zones: ReadonlySet<ZoneId> },
): Hold | undefined {
  return holds.find(
    (h) =>
      !against.zones.has(h.zoneId) &&
      against.points.every((p) => distance(p, h.point) > 2 * FINGERS_MM),
  )
}
