/**
 * A direction as the trade tells it: "down and back, toward the ear lobe". Words come from the head's own axes laid into the
 * skin, the landmark from the shortest ways over it. Common practice; the figures are house estimates.
 */
import { dot, type Landmark, type Landmarks, tangentPart, unit, type Vec3 } from '../head/index.ts'
import { BODY_ENDS, bodyStem, isBody, zoneSide, zoneStem, type ZoneId } from '../zones/index.ts'

/** A direction told. */
export interface ToldWay {
  /** "down and back". */
  readonly words: string
  /** "the ear lobe", "the client's left ear lobe"; none where nothing has a name that way. */
  readonly landmark: string | undefined
  /** Both: "down and back, toward the ear lobe". */
  readonly text: string
}

/** A word counts beside another when it holds more than this share of the two. */
const SECOND_WORD = 1 / 3
/** A landmark counts as lying that way within this, degrees. */
const WITHIN_DEG = 30
/** A landmark so much farther off is worth a degree, mm. */
const FARTHER_MM_A_DEGREE = 7
/** Nearer than this one stands on it, mm. */
const ON_IT_MM = 9
/** From farther in front than this the ear hides what lies behind it, mm. */
const BEHIND_EAR_MM = 25
/** Nobody aims at what is farther off than this, mm. */
const FARTHEST_MM = 150

const UP: Vec3 = [0, 1, 0]
const FORWARD: Vec3 = [0, 0, 1]
/** Over the scalp a little upward too, so that the forehead's edge still has a way to the face. */
const FACEWARD: Vec3 = [0, 0.3, 0.954]

interface Axis {
  readonly way: Vec3
  readonly plus: string
  readonly minus: string
}

const UP_DOWN: Axis = { way: UP, plus: 'up', minus: 'down' }
const FORE_BACK: Axis = { way: FORWARD, plus: 'forward', minus: 'back' }

/** In and out of the middle; on the middle the client's left and right. */
function sideways(zoneId: ZoneId, x: number): Axis {
  const side = zoneSide(zoneId)
  if (!side && Math.abs(x) < 40)
    return { way: [1, 0, 0], plus: 'to the client’s left', minus: 'to the client’s right' }
  return { way: [side ? (side === 'left' ? 1 : -1) : Math.sign(x), 0, 0], plus: 'out', minus: 'in' }
}

const ON_SIDES: ReadonlySet<string> = new Set([
  'temple',
  'sideburn',
  'cheek-upper',
  'cheek-lower',
  'jaw',
  'neck-upper',
  'neck-lower',
  'scalp-side',
  'scalp-behind-ear',
])

const isTop = (stem: string) =>
  stem === 'scalp-front' || stem === 'scalp-mid' || stem === 'scalp-crown'

function axesOf(zoneId: ZoneId, point: Vec3): readonly [Axis, Axis] {
  const stem = zoneStem(zoneId)
  if (isBody(zoneId)) {
    const side = zoneSide(zoneId) === 'right' ? -1 : 1
    return [
      { way: UP, plus: 'up', minus: 'down' },
      { way: [side, 0, 0], plus: 'outward', minus: 'inward' },
    ]
  }
  if (isTop(stem)) {
    return [
      { way: FACEWARD, plus: 'toward the face', minus: 'toward the nape' },
      {
        way: [1, 0, 0],
        plus: 'toward the client’s left ear',
        minus: 'toward the client’s right ear',
      },
    ]
  }
  if (ON_SIDES.has(stem)) return [UP_DOWN, FORE_BACK]
  if (stem.startsWith('under-chin')) return [FORE_BACK, sideways(zoneId, point[0])]
  return [UP_DOWN, sideways(zoneId, point[0])]
}

/** The direction in words of the head's axes. */
export function wayWords(zoneId: ZoneId, point: Vec3, normal: Vec3, direction: Vec3): string {
  const n = unit(normal)
  const part = (a: Axis) => dot(direction, unit(tangentPart(a.way, n)))
  const [first, second] = axesOf(zoneId, point).map((a) => {
    const share = part(a)
    return { share: Math.abs(share), word: share >= 0 ? a.plus : a.minus }
  }) as [{ share: number; word: string }, { share: number; word: string }]
  const both = first.share + second.share || 1
  if (second.share / both <= SECOND_WORD) return first.word
  if (first.share / both <= SECOND_WORD) return second.word
  return `${first.word} and ${second.word.replace(/^toward /, '')}`
}

/** The landmark that lies that way; undefined where nothing has a name there. */
export function landmarkAhead(
  landmarks: Landmarks,
  zoneId: ZoneId,
  point: Vec3,
  normal: Vec3,
  direction: Vec3,
): { landmark: Landmark; offDeg: number } | undefined {
  const n = unit(normal)
  const d = unit(tangentPart(direction, n))
  const own = zoneSide(zoneId)
  const among = (landmark: Landmark, distanceMm: number) =>
    distanceMm >= ON_IT_MM &&
    distanceMm <= FARTHEST_MM &&
    // From a cheek nobody looks to the other ear.
    !(own && landmark.side && landmark.side !== own) &&
    !(landmark.behindEar && point[2] > landmark.point[2] + BEHIND_EAR_MM)
  let best: { landmark: Landmark; offDeg: number; cost: number } | undefined
  for (const { landmark, distanceMm, way } of landmarks.from(point, normal, among)) {
    const offDeg = (Math.acos(Math.max(-1, Math.min(1, dot(way, d)))) * 180) / Math.PI
    if (offDeg > WITHIN_DEG) continue
    const cost = offDeg + distanceMm / FARTHER_MM_A_DEGREE
    if (!best || cost < best.cost - 1e-6) best = { landmark, offDeg, cost }
  }
  return best && { landmark: best.landmark, offDeg: best.offDeg }
}

const named = ({ name, side }: Landmark, zoneId: ZoneId): string =>
  side === undefined || side === zoneSide(zoneId) ? `the ${name}` : `the client’s ${side} ${name}`

/**
 * Tells a direction at a place of the skin.
 * @param landmarks left out on the body and where only the words are wanted
 */
export function tellWay(
  landmarks: Landmarks | undefined,
  zoneId: ZoneId,
  point: Vec3,
  normal: Vec3,
  direction: Vec3,
): ToldWay {
  const words = wayWords(zoneId, point, normal, direction)
  if (isBody(zoneId)) {
    const [up, down] = BODY_ENDS[bodyStem(zoneId)!]
    const landmark = words.startsWith('up') ? up : words.startsWith('down') ? down : undefined
    return { words, landmark, text: landmark ? `${words}, toward ${landmark}` : words }
  }
  const ahead = landmarks && landmarkAhead(landmarks, zoneId, point, normal, direction)
  if (!ahead) return { words, landmark: undefined, text: words }
  const landmark = named(ahead.landmark, zoneId)
  const joined = isTop(zoneStem(zoneId)) ? 'in line with' : 'toward'
  return { words, landmark, text: `${words}, ${joined} ${landmark}` }
}
