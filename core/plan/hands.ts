/** Where hands, feet and heads go: the free hand's pull, the stance, the turn of the client's head. Common practice. */
import { clockWords } from '../grain/clock.ts'
import { wrapTurn } from '../grain/circular.ts'
import { directionOf, dot, type Vec3 } from '../head/frames.ts'
import type { ZoneRecord } from '../head/head.ts'
import { ZONE_FACTS } from '../head/zoneFacts.ts'
import { zoneStem, type ZoneId } from '../head/zones.ts'
import type { Schools } from '../house/schools.ts'
import type { ServiceFamily } from '../services.ts'

export type Hand = 'right' | 'left'

/** Where to stand, as the hour of a clock round the chair: 12 is before the client's face, 3 at the client's left. */
export interface Stance {
  readonly hour: number
  readonly text: string
}

const NEAR_FRONT = new Set([
  'nose-bridge',
  'nose-side',
  'glabella',
  'upper-lip',
  'mouth-corner',
  'under-lip',
  'chin',
])

/** Where to stand for a zone. */
export function stanceFor(zoneId: ZoneId, hand: Hand, family: ServiceFamily): Stance {
  const stem = zoneStem(zoneId)
  const ownSide = hand === 'right' ? 'right' : 'left'
  const ownHour = hand === 'right' ? 9 : 3
  if (family === 'fuzz' && (stem.startsWith('forehead') || stem === 'jaw' || stem === 'temple')) {
    return { hour: 6, text: 'Stand behind the client’s head.' }
  }
  if (
    stem.startsWith('nape') ||
    stem === 'occiput' ||
    stem === 'neck-back' ||
    stem === 'scalp-crown'
  ) {
    return { hour: 6, text: 'Stand behind the client.' }
  }
  if (NEAR_FRONT.has(stem)) {
    return {
      hour: hand === 'right' ? 10 : 2,
      text: `Stand in front, a little to the client’s ${ownSide}.`,
    }
  }
  return { hour: ownHour, text: `Stand on the client’s ${ownSide}.` }
}

/** How the client's head is turned and tilted so that the zone meets the hand. */
export function headTurn(zoneId: ZoneId): string {
  const stem = zoneStem(zoneId)
  const away = zoneId.endsWith('-left')
    ? 'Head turned to the client’s right'
    : zoneId.endsWith('-right')
      ? 'Head turned to the client’s left'
      : 'Head straight'
  if (stem.startsWith('neck') && stem !== 'neck-back') return `${away}, chin up.`
  if (stem.startsWith('under-chin')) return `${away}, head back.`
  if (stem.startsWith('nape') || stem === 'neck-back' || stem === 'occiput')
    return 'Chin to the chest.'
  return `${away}.`
}

/** What the free hand does: the trade's words for the zone, and the pull against the stroke. */
export function freeHand(
  zoneId: ZoneId,
  strokeBearing: number,
  bumpProne: boolean,
  schools: Schools,
): { pullBearing: number; text: string } {
  const stem = zoneStem(zoneId)
  const pullBearing = wrapTurn(strokeBearing + Math.PI)
  const lightly =
    bumpProne &&
    schools.neckStretch === 'light' &&
    (stem.startsWith('neck') || stem.startsWith('under-chin'))
  const pull = lightly
    ? `Hold lightly toward ${clockWords(pullBearing)}: taut skin would let tips be cut below the surface.`
    : `Pull toward ${clockWords(pullBearing)}, against the stroke.`
  return { pullBearing, text: lightly ? pull : `${ZONE_FACTS[stem].stretch} ${pull}` }
}

/**
 * Of the two ways across, the one that runs away from the nearest eye, lip fold or ear.
 * @returns the bearing, and what it runs away from
 */
export function acrossBearing(
  zone: ZoneRecord,
  growthDirection: number,
  hazards: readonly { name: string; at: Vec3 }[],
): { bearing: number; awayFrom: string } {
  const { point, normal } = zone.centre
  const nearest = hazards.reduce((a, b) =>
    distance2(b.at, point) < distance2(a.at, point) ? b : a,
  )
  const away: Vec3 = [point[0] - nearest.at[0], point[1] - nearest.at[1], point[2] - nearest.at[2]]
  const ways = [growthDirection + Math.PI / 2, growthDirection - Math.PI / 2].map(wrapTurn)
  const gain = ways.map((b) => dot(directionOf(zone.id, point, normal, b), away))
  return { bearing: gain[0]! >= gain[1]! ? ways[0]! : ways[1]!, awayFrom: nearest.name }
}

const distance2 = (a: Vec3, b: Vec3) => (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2 + (a[2] - b[2]) ** 2
