/**
 * Whether the handle has room: cast from the lane along its length against the head's mesh and the client's shoulders and
 * chest. Where it would meet something, another stance or the other hand is taken.
 */
import {
  cross,
  dot,
  plus,
  unit,
  type SurfacePoint,
  type Vec3,
  type Locator,
} from '../head/index.ts'
import { ZONE_FACTS, zoneStem, type ZoneId } from '../zones/index.ts'
import { toRadians } from '../grain/index.ts'
import { constant, type Figures } from '../house/index.ts'
import type { Blade } from '../kit/index.ts'
import { stances, stanceWords, type Hand, type Seat, type Stance } from './hands.ts'
import type { Reason } from './types.ts'

export const HANDLE_CONSTANTS = {
  roundMm: constant(5, 'mm', 'A handle and the fingers on it need this much room each way', 'H'),
  freeMm: constant(
    18,
    'mm',
    'Up to this far from the edge the handle may be near the skin it works',
    'H',
  ),
  armMm: constant(520, 'mm', 'Worker’s elbow from the middle of the client’s head', 'H'),
} as const

const C = HANDLE_CONSTANTS
const STEP_MM = 7

/** What the handle is cast against. */
export interface Room {
  readonly locator: Locator
  /** The place of the mesh that is nearest to one beside it, with its triangle; undefined far from the skin. */
  readonly nearest: (
    at: Vec3,
    normal: Vec3,
  ) => (SurfacePoint & { triangle: number; distanceMm: number }) | undefined
  /** Zone of a triangle of the mesh that the locator knows. */
  readonly zoneOf: (triangle: number) => ZoneId
}

/** The client's shoulders and chest when sitting up: round bars from a to b, mm. */
const TRUNK: readonly { name: string; a: Vec3; b: Vec3; r: number }[] = [
  { name: 'shoulder', a: [-150, -262, -34], b: [150, -262, -34], r: 58 },
  { name: 'chest', a: [-90, -330, 10], b: [90, -330, 10], r: 95 },
]

/** Where the worker's hand comes from, in the directions of the client's head. */
export function reachFrom(figures: Figures, hour: number, turnDeg: number): Vec3 {
  // A head turned to its left sees the room turned to its right.
  const angle = (hour / 12) * 2 * Math.PI + toRadians(turnDeg)
  return [Math.sin(angle) * figures(C.armMm), -60, -Math.cos(angle) * figures(C.armMm)]
}

/** The handle's direction from the lane's middle for a worker who stands at an hour with a blade in one hand. */
export function handleWay(
  figures: Figures,
  blade: Blade,
  point: Vec3,
  normal: Vec3,
  stroke: Vec3,
  hour: number,
  turnDeg: number,
  backhand: boolean,
): Vec3 {
  const lift = toRadians(blade.handle.liftDeg)
  let axis = stroke
  if (blade.handle.way === 'along-edge') {
    const edge = cross(normal, stroke)
    const from = reachFrom(figures, hour, turnDeg)
    const toward = dot(edge, [from[0] - point[0], from[1] - point[1], from[2] - point[2]]) >= 0
    axis = toward !== backhand ? edge : [-edge[0], -edge[1], -edge[2]]
  }
  const c = Math.cos(lift)
  const s = Math.sin(lift)
  return unit([
    c * axis[0] + s * normal[0],
    c * axis[1] + s * normal[1],
    c * axis[2] + s * normal[2],
  ])
}

/** What a handle would meet first and how far along it; undefined when it has room. */
export function meets(
  figures: Figures,
  room: Room,
  blade: Blade,
  point: Vec3,
  way: Vec3,
): { what: string; atMm: number } | undefined {
  const round = figures(C.roundMm)
  const from = figures(C.freeMm)
  // Where the handle would have to leave through the skin it works on, it is in it from the start.
  const under = room.locator.below(plus(point, way, from))
  if (under !== undefined) return { what: zoneWords(room.zoneOf(under)), atMm: from }
  for (let mm = from; mm <= blade.handle.lengthMm; mm += STEP_MM) {
    const at = plus(point, way, mm)
    for (const bar of TRUNK) {
      if (fromBar(at, bar.a, bar.b) < bar.r + round) return { what: bar.name, atMm: mm }
    }
    const near = room.locator.within(at, round)
    if (near !== undefined) return { what: zoneWords(room.zoneOf(near)), atMm: mm }
  }
  return undefined
}

const zoneWords = (zone: ZoneId) => ZONE_FACTS[zoneStem(zone)].name.toLowerCase()

function fromBar(p: Vec3, a: Vec3, b: Vec3): number {
  const d: Vec3 = [b[0] - a[0], b[1] - a[1], b[2] - a[2]]
  const q: Vec3 = [p[0] - a[0], p[1] - a[1], p[2] - a[2]]
  const t = Math.max(0, Math.min(1, dot(q, d) / dot(d, d)))
  return Math.hypot(q[0] - t * d[0], q[1] - t * d[1], q[2] - t * d[2])
}

/** A place that the blade is led over, with its stroke there. */
export interface HandlePart {
  readonly point: Vec3
  readonly normal: Vec3
  readonly stroke: Vec3
}

/** What the handle meets first at any of the parts. */
function meetsAny(
  figures: Figures,
  room: Room,
  blade: Blade,
  parts: readonly HandlePart[],
  hour: number,
  turnDeg: number,
  backhand: boolean,
  tried: Map<string, ReturnType<typeof meets>>,
) {
  let worst: ReturnType<typeof meets>
  for (const [i, { point, normal, stroke }] of parts.entries()) {
    const way = handleWay(figures, blade, point, normal, stroke, hour, turnDeg, backhand)
    const key = `${i} ${way.map((x) => x.toFixed(3)).join()}`
    if (!tried.has(key)) tried.set(key, meets(figures, room, blade, point, way))
    const met = tried.get(key)
    if (met && (!worst || met.atMm < worst.atMm)) worst = met
  }
  return worst
}

/** The stance in which the handle has room at every part, with the reason where it is not the usual one. */
export function findStance(
  figures: Figures,
  room: Room | undefined,
  blade: Blade,
  zoneId: ZoneId,
  parts: readonly HandlePart[],
  hand: Hand,
  seat: Seat,
  turnDeg: number,
  towardWorker = false,
): { stance: Stance; reason: Reason } {
  const comes = (hour: number) => dot(parts[0]!.stroke, reachFrom(figures, hour, turnDeg))
  const hours = towardWorker
    ? [...stances(zoneId, hand, seat)].sort((a, b) => comes(b) - comes(a))
    : stances(zoneId, hand, seat)
  const words = (hour: number) => stanceWords(hour, seat.posture)
  const usual: Reason = { text: words(hours[0]!), mark: 'C' }
  if (!room) return { stance: { hour: hours[0]!, text: words(hours[0]!) }, reason: usual }
  const other: Hand = hand === 'right' ? 'left' : 'right'
  let first: string | undefined
  let best: { hour: number; atMm: number } = { hour: hours[0]!, atMm: 0 }
  const tried = new Map<string, ReturnType<typeof meets>>()
  for (const backhand of [false, true]) {
    for (const hour of hours) {
      const met = meetsAny(figures, room, blade, parts, hour, turnDeg, backhand, tried)
      if (!met) {
        const text = words(hour)
        if (first === undefined) {
          return {
            stance: { hour, text },
            reason: {
              text: `${text} ${towardWorker ? 'The stroke comes toward you, and the' : 'The'} handle has room there.`,
              mark: 'C',
            },
          }
        }
        return backhand
          ? {
              stance: { hour, text: `${text} Blade in the ${other} hand.`, hand: other },
              reason: {
                text: `Blade in the ${other} hand: in the ${hand} hand the handle would meet the ${first}.`,
                mark: 'H',
              },
            }
          : {
              stance: { hour, text },
              reason: {
                text: `${text} From the usual place the handle would meet the ${first}.`,
                mark: 'H',
              },
            }
      }
      first ??= met.what
      if (!backhand && met.atMm > best.atMm) best = { hour, atMm: met.atMm }
      // A razor with a head points the same way wherever one stands.
      if (blade.handle.way === 'ahead') break
    }
    if (blade.handle.way === 'ahead') break
  }
  const text = words(best.hour)
  return {
    stance: { hour: best.hour, text: `${text} Short grip.` },
    reason: {
      text: `The handle comes near the ${first} however it is held: take it short, about ${Math.max(2, Math.floor(best.atMm / 10))} cm from the edge.`,
      mark: 'H',
    },
  }
}
