/** The zones of head and body: their ids, sides and mirrors. Where they lie is told by core/head and core/body. */

import { BODY_STEMS, type BodyStem } from './body.ts'

/** Zone names of one half, in the order in which they are numbered. Side names get `-left` or `-right`. */
const SIDE = [
  'forehead',
  'temple',
  'brow',
  'under-eye',
  'nose-side',
  'cheek-upper',
  'cheek-lower',
  'sideburn',
  'upper-lip',
  'mouth-corner',
  'jaw',
  'under-chin',
  'neck-upper',
  'neck-lower',
  'nape',
  'neck-back',
  'scalp-side',
  'scalp-behind-ear',
  'eye',
  'ear',
] as const
const MIDDLE = [
  'forehead-centre',
  'glabella',
  'nose-bridge',
  'nose-tip',
  'under-lip',
  'chin',
  'under-chin-centre',
  'neck-upper-centre',
  'neck-lower-centre',
  'nape-centre',
  'scalp-front',
  'scalp-mid',
  'scalp-crown',
  'occiput',
  'lips',
  'base',
] as const

export type SideStem = (typeof SIDE)[number]
export type MiddleId = (typeof MIDDLE)[number]
/** Stable id of a zone, for example `jaw-left` or `chin`. Left and right are the client's. */
export type ZoneId = MiddleId | `${SideStem | BodyStem}-left` | `${SideStem | BodyStem}-right`
/** A zone without its side: `jaw`, `chin`. */
export type ZoneStem = SideStem | MiddleId | BodyStem

/** All zones of the head, in a fixed order; the position is the zone's number in the packed mesh. */
export const ZONE_IDS: readonly ZoneId[] = [
  ...MIDDLE,
  ...SIDE.flatMap((stem) => [`${stem}-left`, `${stem}-right`] as const),
]

/** The zones of the body outside the head, in a fixed order. */
export const BODY_IDS: readonly ZoneId[] = BODY_STEMS.flatMap(
  (stem) => [`${stem}-left`, `${stem}-right`] as const,
)

/** Every zone that there is. */
export const ALL_ZONE_IDS: readonly ZoneId[] = [...ZONE_IDS, ...BODY_IDS]

const ON_BODY: ReadonlySet<string> = new Set(BODY_IDS)

/** The part of the body that a zone is; undefined on the head. */
export function bodyStem(id: ZoneId): BodyStem | undefined {
  return ON_BODY.has(id) ? (zoneStem(id) as BodyStem) : undefined
}

/** True for zones of the body outside the head. */
export function isBody(id: ZoneId): boolean {
  return ON_BODY.has(id)
}

const NO_SKIN: ReadonlySet<ZoneStem> = new Set<ZoneStem>(['eye', 'ear', 'lips', 'base'])

const STEMS = new Map<string, ZoneStem>(
  ALL_ZONE_IDS.map((id) => [id, id.replace(/-(left|right)$/, '') as ZoneStem]),
)

const SIDES = new Map<string, 'left' | 'right'>(
  ALL_ZONE_IDS.flatMap((id) => {
    const side = /-(left|right)$/.exec(id)?.[1]
    return side === 'left' || side === 'right' ? [[id, side]] : []
  }),
)

/** The zone without its side. Asked in every inner loop, so it is looked up, not worked out. */
export function zoneStem(id: ZoneId): ZoneStem {
  return STEMS.get(id) ?? (id as ZoneStem)
}

/** True for zones that can carry hair and be worked; false for eyes, ears, lips and the neck's cap. */
export function isSkin(id: ZoneId): boolean {
  return !NO_SKIN.has(zoneStem(id))
}

/** The client's side that a zone lies on; undefined in the middle. */
export function zoneSide(id: ZoneId): 'left' | 'right' | undefined {
  return SIDES.get(id)
}

/** The same place on the other side; a middle zone is its own mirror. */
export function mirrorZone(id: ZoneId): ZoneId {
  const side = zoneSide(id)
  return side ? (`${zoneStem(id)}-${side === 'left' ? 'right' : 'left'}` as ZoneId) : id
}
