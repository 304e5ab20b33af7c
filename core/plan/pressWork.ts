/** Lanes joined to presses: one stance, one turn of the head, one hold of the skin for all that is done in one go. */
import { dot, cross, unit, tangentPart, type Vec3 } from '../head/index.ts'
import { SERVICES } from '../services/index.ts'
import { BLADES } from '../kit/index.ts'
import { ZONE_FACTS, zoneName, zoneStem, type ZoneId } from '../zones/index.ts'
import type { Room } from './handle.ts'
import { findStance } from './handle.ts'
import { clientAction, freeHand, poseFor } from './hands.ts'
import type { BareLane } from './laneWork.ts'
import { pressStroke, type Press } from './pressField.ts'
import type { ZoneQuestion } from './question.ts'
import type { Lane, PlannedPress } from './types.ts'

/** Lanes with hands and feet, and the presses that they are done in. */
export interface Held {
  readonly lanes: readonly Lane[]
  readonly presses: readonly PlannedPress[]
}

/** Groups lanes to presses and settles how each is held. */
export function holdPresses(q: ZoneQuestion, bare: readonly BareLane[]): Held {
  const groups = new Map<string, BareLane[]>()
  for (const lane of bare) {
    const press = lane.press?.id ?? lane.id
    const key = `${lane.pass} ${press} ${lane.relation} ${lane.bladeId}`
    groups.set(key, [...(groups.get(key) ?? []), lane])
  }
  const lanes: Lane[] = []
  const presses: PlannedPress[] = []
  const taken = new Set<string>()
  for (const own of groups.values()) {
    const sorted = [...own].sort((a, b) => b.areaCm2 - a.areaCm2)
    const lead = sorted[0]!
    const name = lead.press ? `press:${lead.pass}:${lead.press.id}` : lead.id
    let id = name
    for (let n = 2; taken.has(id); n++) id = `${name}-${n}`
    taken.add(id)
    const held = hold(q, sorted)
    for (const { press: _press, ...lane } of sorted) {
      const hand = freeHand(
        lane.zoneId,
        lane.strokeBearing,
        q.client.bumpProne,
        q.schools,
        held.anchor,
      )
      lanes.push({
        ...lane,
        stepId: id,
        stance: held.stance,
        headTurn: held.headTurn,
        freeHand: hand.text,
        anchor: held.anchor,
        pullBearing: hand.pullBearing,
        action: clientAction(lane.zoneId),
        reasons: [...lane.reasons, held.reason],
      })
    }
    presses.push({
      id,
      pass: lead.pass,
      laneIds: sorted.map((l) => l.id),
      areaCm2: sorted.reduce((s, l) => s + l.areaCm2, 0),
      ...pathOf(q.room, sorted),
      stray: lead.press?.stray ?? 0,
    })
  }
  return { lanes, presses }
}

/** Stance, turn of the head and hold of a press, with room for the handle at every part. */
function hold(q: ZoneQuestion, lanes: readonly BareLane[]) {
  const lead = lanes[0]!
  const { family } = SERVICES[q.service]
  const pose = poseFor(lead.zoneId)
  const towardWorker = family === 'fuzz' && q.schools.fuzzDirection === 'toward-worker'
  const key = [
    lead.bladeId,
    q.hand,
    towardWorker,
    ...lanes.map((l) => `${l.id} ${l.point.join()} ${l.stroke.join()}`),
  ].join(' ')
  let found = q.memory.stances.get(key)
  if (!found) {
    found = findStance(
      q.figures,
      q.room,
      BLADES[lead.bladeId],
      lead.zoneId,
      lanes,
      q.hand,
      family,
      pose.turnDeg,
      towardWorker,
    )
    q.memory.stances.set(key, found)
  }
  let anchor = q.memory.anchors.get(key)
  if (anchor === undefined) {
    anchor = q.room ? anchorZone(q.room, lead) : ''
    q.memory.anchors.set(key, anchor)
  }
  return { ...found, headTurn: pose.text, anchor }
}

/** Gap between the start of a stroke and the fingers that hold the skin, mm. */
const FINGER_GAP_MM = 14
/** Fingers lie on skin that is no farther off than this. */
const FINGERS_REACH_MM = 12

/** The zone that the free hand lies on, behind the stroke; empty when it would lie beside the head. */
function anchorZone(room: Room, lane: BareLane): string {
  const back = Math.min(lane.lengthMm / 2, 40) + FINGER_GAP_MM
  const at = lane.point.map((c, k) => c - back * lane.stroke[k]!) as unknown as Vec3
  const near = zoneNear(room, at, lane.normal)
  if (near === undefined || near === lane.zoneId) return ''
  const facts = ZONE_FACTS[zoneStem(near)]
  return near === 'base' || facts.stretch === ''
    ? ''
    : zoneName(near).charAt(0).toLowerCase() + zoneName(near).slice(1)
}

function zoneNear(room: Room, at: Vec3, normal: Vec3): ZoneId | undefined {
  const near = room.nearest(at, normal)
  return near && near.distanceMm < FINGERS_REACH_MM ? room.zoneOf(near.triangle) : undefined
}

/** An arrow reaches this far either way, mm. */
const ARROW_MM = { least: 5, most: 26 }
const ARROW_STEPS = 5

/** The stroke over the skin through the middle of the largest part, and how far it turns. */
function pathOf(
  room: Room | undefined,
  lanes: readonly BareLane[],
): Pick<PlannedPress, 'path' | 'turnDeg'> {
  const lead = lanes[0]!
  const area = lanes.reduce((s, l) => s + l.areaCm2, 0)
  const half = Math.min(ARROW_MM.most, Math.max(ARROW_MM.least, 3.2 * Math.sqrt(area)))
  const turn = lead.press ? offPress(lead.press, lead) : 0
  const way = (at: Vec3, normal: Vec3): Vec3 =>
    lead.press ? turnedBy(pressStroke(lead.press, at, normal), normal, turn) : lead.stroke
  const zones = new Set(lanes.map((l) => l.zoneId))
  const walk = (sign: 1 | -1) => {
    const out: { at: Vec3; way: Vec3; normal: Vec3 }[] = []
    let at = lead.point
    let normal = lead.normal
    for (let i = 0; i < ARROW_STEPS; i++) {
      const d = way(at, normal)
      const step = (sign * half) / ARROW_STEPS
      const next: Vec3 = [at[0] + step * d[0], at[1] + step * d[1], at[2] + step * d[2]]
      const on = room?.nearest(next, normal)
      // Beyond the zones of the press lies a lip or a fold that the stroke never reaches.
      if (on && !zones.has(room!.zoneOf(on.triangle))) break
      at = on?.point ?? next
      normal = on?.normal ?? normal
      out.push({ at, normal, way: way(at, normal) })
    }
    return out
  }
  const back = walk(-1).reverse()
  const ahead = walk(1)
  const all = [...back.map((p) => p.at), lead.point, ...ahead.map((p) => p.at)]
  const here = { at: lead.point, normal: lead.normal, way: lead.stroke }
  const first = back[0] ?? here
  const last = ahead[ahead.length - 1] ?? here
  const turned =
    Math.acos(Math.max(-1, Math.min(1, dot(unit(tangentPart(first.way, last.normal)), last.way)))) *
    (180 / Math.PI)
  return {
    path: all.map((p) => p.map((x) => Math.round(x * 100) / 100 + 0) as unknown as Vec3),
    turnDeg: lead.press ? Math.round(turned) : 0,
  }
}

/** How far a lane's stroke is turned off its press's stroke with the grain, radians clockwise from outside. */
function offPress(press: Press, lane: BareLane): number {
  const along = pressStroke(press, lane.point, lane.normal)
  return Math.atan2(dot(cross(along, lane.normal), lane.stroke), dot(along, lane.stroke))
}

function turnedBy(d: Vec3, n: Vec3, angle: number): Vec3 {
  const side = cross(d, n)
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  return [c * d[0] + s * side[0], c * d[1] + s * side[1], c * d[2] + s * side[2]]
}
