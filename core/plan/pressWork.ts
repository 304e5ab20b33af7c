/** Lanes joined to presses: one stance, one turn of the head, one hold of the skin for all that is done in one go. */
import { bumpProneIn } from '../client.ts'
import {
  bearingOf,
  cross,
  dot,
  minus,
  plus,
  tangentPart,
  turnedIn,
  unit,
  type Vec3,
} from '../head/index.ts'
import { tellWay } from '../telling/index.ts'
import { SERVICES } from '../services/index.ts'
import { BLADES } from '../kit/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { wrapTurn } from '../grain/index.ts'
import type { Room } from './handle.ts'
import { findStance } from './handle.ts'
import { clientAction, poseFor, type Stance } from './hands.ts'
import { holdsFor, NOTHING_TO_HOLD } from './holds.ts'
import { rounded, type BareLane } from './laneWork.ts'
import { pressStroke, type Press } from './pressField.ts'
import type { ZoneQuestion } from './question.ts'
import { largestFirst, type Hold, type Lane, type PlannedPress } from './types.ts'

/** Mature or lax skin moves under the blade, dry skin drags (common practice). */
const LAX_STRETCH = ' Lax skin: two fingers wide apart, and short strokes.'
const DRY_STRETCH = ' Dry skin: stretched a little more, and short strokes.'
const more = ({ lax, type }: ZoneQuestion['client']) =>
  lax ? LAX_STRETCH : type === 'dry' ? DRY_STRETCH : ''

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
    // What was turned along an edge is a stroke of its own, on either side of the middle.
    const edge = lane.beside && `${lane.beside} ${lane.point[0] > 0 ? 'left' : 'right'}`
    const key = [lane.pass, press, lane.relation, lane.bladeId, edge].join(' ')
    groups.set(key, [...(groups.get(key) ?? []), lane])
  }
  const lanes: Lane[] = []
  const presses: PlannedPress[] = []
  const taken = new Set<string>()
  // No finger on what must stay alone. What nobody has read is felt before the first stroke.
  const closed = new Set<ZoneId>(q.screening.leaveOutZones)
  for (const own of groups.values()) {
    const sorted = largestFirst(own)
    const lead = sorted[0]!
    const name = lead.press ? `press:${lead.pass}:${lead.press.id}` : lead.id
    let id = name
    for (let n = 2; taken.has(id); n++) id = `${name}-${n}`
    taken.add(id)
    const held = hold(q, sorted)
    const path = pathOf(q.room, sorted)
    for (const { press: _press, beside: _beside, ...lane } of sorted) {
      const holds = holdsOf(q, lane, held, closed)
      const [best] = holds
      lanes.push({
        ...lane,
        stepId: id,
        stance: held.stance,
        headTurn: held.headTurn,
        freeHand: `${best?.text ?? NOTHING_TO_HOLD}${more(q.client)}`,
        holds,
        pullBearing: best
          ? bearingOf(lane.zoneId, lane.point, lane.normal, best.pull)
          : wrapTurn(lane.strokeBearing + Math.PI),
        action: clientAction(lane.zoneId),
        reasons: [...lane.reasons, held.reason],
      })
    }
    presses.push({
      id,
      pass: lead.pass,
      laneIds: sorted.map((l) => l.id),
      areaCm2: sorted.reduce((s, l) => s + l.areaCm2, 0),
      path: path.path,
      turnDeg: path.turnDeg,
      toward: towardAlong(q, lead.zoneId, path),
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
      SERVICES[q.service],
      pose.turnDeg,
      towardWorker,
    )
    q.memory.stances.set(key, found)
  }
  return { ...found, headTurn: pose.text, turnDeg: pose.turnDeg }
}

/** Where the free hand may hold for a lane; remembered. */
function holdsOf(
  q: ZoneQuestion,
  lane: BareLane,
  { stance, turnDeg }: { readonly stance: Stance; readonly turnDeg: number },
  closed: ReadonlySet<ZoneId>,
): readonly Hold[] {
  const asked = {
    hand: stance.hand ?? q.hand,
    hour: stance.hour,
    turnDeg,
    bumpProne: bumpProneIn(q.client, lane.zoneId),
    schools: { neckStretch: q.schools.neckStretch },
  }
  const key = JSON.stringify([
    ...[lane.zoneId, lane.point, lane.stroke, lane.lengthMm],
    ...[asked, [...closed]],
  ])
  let holds = q.memory.holds.get(key)
  if (!holds) {
    holds = holdsFor({ ...q, ...asked, marks: q.screening.leaveOutSpots, closed }, lane).map(
      (h) => ({
        ...h,
        point: rounded(h.point, 100),
        normal: rounded(h.normal, 1e4),
        pull: rounded(h.pull, 1e4),
      }),
    )
    q.memory.holds.set(key, holds)
  }
  return holds
}

/** An arrow reaches this far either way, mm. */
const ARROW_MM = { least: 5, most: 26 }
const ARROW_STEPS = 5

/** A press's stroke over the skin, and how it begins and ends. */
interface PressWay extends Pick<PlannedPress, 'path' | 'turnDeg'> {
  readonly first: Footing
  readonly last: Footing
}
interface Footing {
  readonly at: Vec3
  readonly normal: Vec3
  readonly way: Vec3
}

/** From this turn on a stroke is told by both its ends, degrees. */
const TOLD_TURN_DEG = 30

/** "down, toward the chin point, turning forward, toward the larynx". */
function towardAlong(
  q: ZoneQuestion,
  zoneId: ZoneId,
  { path, turnDeg, first, last }: PressWay,
): string {
  const told = ({ at, normal, way }: Footing) => tellWay(q.landmarks, zoneId, at, normal, way)
  const whole: Footing = {
    at: first.at,
    normal: first.normal,
    way: minus(path[path.length - 1]!, path[0]!),
  }
  if (turnDeg < TOLD_TURN_DEG) return told(whole).text
  const [from, to] = [told(first), told(last)]
  return from.words === to.words && from.landmark === to.landmark
    ? from.text
    : `${from.text}, turning ${to.text}`
}

/** The stroke over the skin through the middle of the largest part, and how far it turns. */
function pathOf(room: Room | undefined, lanes: readonly BareLane[]): PressWay {
  const lead = lanes[0]!
  const area = lanes.reduce((s, l) => s + l.areaCm2, 0)
  const half = Math.min(ARROW_MM.most, Math.max(ARROW_MM.least, 3.2 * Math.sqrt(area)))
  const turn = lead.press ? offPress(lead.press, lead) : 0
  const way = (at: Vec3, normal: Vec3): Vec3 =>
    lead.press ? turnedIn(pressStroke(lead.press, at, normal), normal, turn) : lead.stroke
  const zones = new Set(lanes.map((l) => l.zoneId))
  const walk = (sign: 1 | -1) => {
    const out: { at: Vec3; way: Vec3; normal: Vec3 }[] = []
    let at = lead.point
    let normal = lead.normal
    for (let i = 0; i < ARROW_STEPS; i++) {
      const d = way(at, normal)
      const step = (sign * half) / ARROW_STEPS
      const next = plus(at, d, step)
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
    path: all.map((p) => rounded(p, 100)),
    turnDeg: lead.press ? Math.round(turned) : 0,
    first,
    last,
  }
}

/** How far a lane's stroke is turned off its press's stroke with the grain, radians clockwise from outside. */
function offPress(press: Press, lane: BareLane): number {
  const along = pressStroke(press, lane.point, lane.normal)
  return Math.atan2(dot(cross(along, lane.normal), lane.stroke), dot(along, lane.stroke))
}
