/** Where hands, feet and heads go: the free hand's pull, the client's action, the stance, the turn of the head. Common practice. */
import { dot, unit, type Vec3 } from '../head/index.ts'
import {
  bodyZone,
  bodyStem,
  isBody,
  zoneStem,
  type ZoneId,
  type ZoneStem,
  zoneSide,
} from '../zones/index.ts'
import type { Posture, Service } from '../services/index.ts'

export const HANDS = ['right', 'left'] as const
export type Hand = (typeof HANDS)[number]

/** What of a service decides where one may stand. */
export type Seat = Pick<Service, 'family' | 'posture'>

/**
 * Where to stand, as the hour of a clock round the chair: 12 is at the client's head or behind it, 3 at the client's left, 6
 * before the face or at the feet, 9 at the client's right.
 */
export interface Stance {
  readonly hour: number
  readonly text: string
  /** Set when the other hand holds the blade. */
  readonly hand?: Hand
}

const NEAR_FRONT = new Set([
  'nose-bridge',
  'nose-side',
  'glabella',
  'brow',
  'upper-lip',
  'mouth-corner',
  'under-lip',
  'chin',
])

/** Where that is, in words, with the hour behind them: "Stand on the client’s right (9)." */
export function stanceWords(hour: number, posture: Posture): string {
  const side = hour < 6 ? 'left' : 'right'
  if (hour === 12)
    return posture === 'upright'
      ? 'Stand behind the client (12).'
      : 'Stand at the client’s head (12).'
  if (hour === 6)
    return posture === 'upright'
      ? 'Stand in front of the client (6).'
      : 'Stand at the client’s feet (6).'
  if (hour === 4 || hour === 5 || hour === 7 || hour === 8)
    return posture === 'upright'
      ? `Stand in front, a little to the client’s ${side} (${hour}).`
      : `Stand beside the chest, on the client’s ${side} (${hour}).`
  if (hour === 1 || hour === 2 || hour === 10 || hour === 11)
    return `Stand behind, a little to the client’s ${side} (${hour}).`
  return `Stand on the client’s ${side} (${hour}).`
}

/** The same where room is short: "right (9)". */
export function stanceShort(hour: number, posture: Posture): string {
  const side = hour < 6 ? 'left' : 'right'
  if (hour === 12) return posture === 'upright' ? 'behind (12)' : 'head (12)'
  if (hour === 6) return posture === 'upright' ? 'front (6)' : 'feet (6)'
  if (hour > 3 && hour < 9 && hour !== 6)
    return `${posture === 'upright' ? 'front' : 'chest'} ${side} (${hour})`
  if (hour < 3 || hour > 9) return `behind ${side} (${hour})`
  return `${side} (${hour})`
}

/** Places to stand for a zone, the usual one first. */
export function stances(zoneId: ZoneId, hand: Hand, { family, posture }: Seat): readonly number[] {
  const stem = zoneStem(zoneId)
  const own = hand === 'right' ? 9 : 3
  const before = hand === 'right' ? 8 : 4
  const other = 12 - own
  if (isBody(zoneId)) return [zoneSide(zoneId) === 'left' ? 3 : 9]
  if (family === 'fuzz' && (stem.startsWith('forehead') || stem === 'jaw' || stem === 'temple')) {
    return [12, own, before, other]
  }
  if (
    stem.startsWith('nape') ||
    stem === 'occiput' ||
    stem === 'neck-back' ||
    stem === 'scalp-crown'
  ) {
    return [12, own, other]
  }
  const all = NEAR_FRONT.has(stem) ? [before, own, 6, 12 - before, 12] : [own, before, 12, 6, other]
  // Nobody stands in front of somebody who lies back.
  return posture === 'upright' ? all : all.filter((hour) => hour !== 6)
}

/** The usual place to stand for a zone. */
export function stanceFor(zoneId: ZoneId, hand: Hand, seat: Seat): Stance {
  const hour = stances(zoneId, hand, seat)[0]!
  return { hour, text: stanceWords(hour, seat.posture) }
}

/** How the client holds still so that a zone meets the hand. */
export interface Pose {
  readonly text: string
  /** How far the head is turned to the client's left, degrees (house estimate). */
  readonly turnDeg: number
}

/** How the client's head is turned and tilted, or how the client lies. */
export function poseFor(zoneId: ZoneId): Pose {
  const stem = zoneStem(zoneId)
  const part = bodyStem(zoneId)
  if (part) return { text: bodyZone(part).turn, turnDeg: 0 }
  if (stem.startsWith('nape') || stem === 'neck-back' || stem === 'occiput')
    return { text: 'Chin to the chest.', turnDeg: 0 }
  const side = zoneSide(zoneId)
  const away = side
    ? `Head turned to the client’s ${side === 'left' ? 'right' : 'left'}`
    : 'Head straight'
  const turnDeg = side === 'left' ? -30 : side === 'right' ? 30 : 0
  if (stem.startsWith('neck') || stem.startsWith('under-chin'))
    return { text: `${away}, head back.`, turnDeg }
  return { text: `${away}.`, turnDeg }
}

/**
 * Zones that may be worked under one turn of the head: those that are held alike, and round the mouth a group of their own, which
 * the hand goes round without a turn.
 */
export function turnGroup(zoneId: ZoneId): string {
  return AROUND_MOUTH.has(zoneStem(zoneId)) ? 'mouth' : poseFor(zoneId).text
}

const AROUND_MOUTH: ReadonlySet<ZoneStem> = new Set([
  'upper-lip',
  'mouth-corner',
  'under-lip',
  'chin',
])

/** What the client held for a zone and may let go once another needs it no more; empty where nothing (common practice). */
export function relaxWords(zoneId: ZoneId): string {
  switch (zoneStem(zoneId)) {
    case 'cheek-lower':
      return 'Client lets the cheek go.'
    case 'upper-lip':
    case 'mouth-corner':
    case 'under-lip':
    case 'chin':
      return 'Client relaxes the mouth.'
    case 'under-eye':
    case 'brow':
    case 'glabella':
      return 'The eyes may open.'
    default:
      return ''
  }
}

/** What the client does while the blade is there; empty when nothing (common practice). */
export function clientAction(zoneId: ZoneId): string {
  const stem = zoneStem(zoneId)
  const part = bodyStem(zoneId)
  switch (stem) {
    case 'cheek-lower':
      return 'Client puffs the cheek.'
    case 'upper-lip':
      return 'Client draws the lip over the teeth, tongue behind it.'
    case 'mouth-corner':
      return 'Client opens the mouth.'
    case 'under-lip':
      return 'Client rolls the lower lip in.'
    case 'chin':
      return 'Client shuts the mouth and draws the chin flat.'
    case 'under-eye':
    case 'brow':
    case 'glabella':
      return 'Client closes the eyes.'
    case 'neck-upper-centre':
    case 'neck-lower-centre':
      return 'Client swallows, then holds still.'
    case 'nape':
    case 'nape-centre':
    case 'neck-back':
    case 'occiput':
      return 'Client nods.'
    default:
      if (part) return bodyZone(part).action
      return stem.startsWith('scalp') ? 'Client tilts the head toward you.' : ''
  }
}

/** Which way the trade usually draws the skin of a zone, in head directions; undefined where it is spread between fingers. */
export function usualPull(zoneId: ZoneId): Vec3 | undefined {
  const stem = zoneStem(zoneId)
  const out = zoneSide(zoneId) === 'right' ? -1 : 1
  if (isBody(zoneId)) return [0, 1, 0]
  if (stem.startsWith('cheek')) return unit([out * 0.5, 0.2, -0.85])
  if (stem === 'temple' || stem === 'sideburn') return unit([out * 0.2, 0.8, -0.6])
  if (stem === 'jaw' || stem === 'chin') return [0, 1, 0]
  if (stem.startsWith('neck') || stem.startsWith('under-chin') || stem === 'under-lip')
    return [0, -1, 0]
  if (stem.startsWith('nape')) return [0, 1, 0]
  return undefined
}

/** Something a stroke should run away from. */
export interface Hazard {
  readonly name: string
  readonly at: Vec3
}

/** How much the usual pull of the skin weighs beside the way from the nearest hazard. */
const PULL_WEIGHT = 0.6
/** A hazard farther off than this no longer decides. */
const FAR_MM = 60

/** A part of a press with its two ways across, unit tangents. */
export interface AcrossPart {
  readonly zoneId: ZoneId
  readonly areaCm2: number
  readonly point: Vec3
  readonly ways: readonly [Vec3, Vec3]
}

/**
 * Of the two ways across, the one that over all parts runs away from the nearest eye, lip fold, ear or kept hair and lets the
 * free hand pull the way the zone is usually drawn.
 * @param second which of two ways that are as good is taken
 */
export function acrossWays(
  parts: readonly AcrossPart[],
  hazards: readonly Hazard[],
  second = false,
): { way: 0 | 1; why: string } {
  let [difference, away, pulls] = [0, 0, 0]
  let named: { hazard: Hazard; gap: number } | undefined
  for (const { zoneId, areaCm2, point, ways } of parts) {
    const nearest = hazards.reduce<Hazard | undefined>(
      (a, b) => (!a || distance2(b.at, point) < distance2(a.at, point) ? b : a),
      undefined,
    )
    const gap = nearest ? Math.sqrt(distance2(nearest.at, point)) : Infinity
    if (nearest && (!named || gap < named.gap)) named = { hazard: nearest, gap }
    const from: Vec3 = nearest
      ? unit([point[0] - nearest.at[0], point[1] - nearest.at[1], point[2] - nearest.at[2]])
      : [0, 0, 0]
    const urgency = Math.max(0, 1 - gap / (2 * FAR_MM)) * 2
    const pull = usualPull(zoneId)
    const runs = (i: 0 | 1) => dot(ways[i], from)
    const drawn = (i: 0 | 1) => (pull ? -dot(ways[i], pull) : 0)
    difference += areaCm2 * (urgency * (runs(0) - runs(1)) + PULL_WEIGHT * (drawn(0) - drawn(1)))
    away += areaCm2 * runs(0)
    pulls += areaCm2 * drawn(0)
  }
  const area = parts.reduce((s, p) => s + p.areaCm2, 0)
  // Ways that are as good but for rounding: a left hand takes the other one than a right hand.
  const way = Math.abs(difference) < 1e-6 * area ? (second ? 1 : 0) : difference > 0 ? 0 : 1
  const sign = way === 0 ? 1 : -1
  const from = named && sign * away > 0.1 * area ? `away from the ${named.hazard.name}` : ''
  const hand = sign * pulls > 0.1 * area ? 'the free hand pulls the usual way' : ''
  return {
    way,
    why: [from, hand].filter(Boolean).join(', and ') || 'either way is as good; this one was taken',
  }
}

const distance2 = (a: Vec3, b: Vec3) => (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2
