/** A look at the skin while it is edited: one zone changed, a spot put in or taken out, counts kept with them. */
import {
  type AnswerSource,
  type Feeling,
  isFollowed,
  type SkinSpot,
  type ZoneAnswer,
} from './answers.ts'

/** What a look holds while it is edited. */
export interface Look {
  readonly zones: readonly ZoneAnswer[]
  readonly spots: readonly SkinSpot[]
  readonly feeling: Feeling
  readonly source: AnswerSource
}

export const NOTHING_SEEN: Look = { zones: [], spots: [], feeling: {}, source: 'seen' }

/** Zones that were clear need no entry. */
export const isMarked = (z: ZoneAnswer) => z.redness > 0 || z.bumps > 0 || (z.pustules ?? 0) > 0

/** Changes one zone of a look; a zone without an entry was clear. */
export function withZone(look: Look, zoneId: string, change: Partial<ZoneAnswer>): Partial<Look> {
  const before = look.zones.find((z) => z.zoneId === zoneId) ?? { zoneId, redness: 0, bumps: 0 }
  return { zones: [...look.zones.filter((z) => z.zoneId !== zoneId), { ...before, ...change }] }
}

/** Puts a spot in, and counts it in its zone: what is tapped is counted, what is only counted needs no tap. */
export function withSpot(look: Look, spot: SkinSpot): Partial<Look> {
  return { spots: [...look.spots, spot], ...counted(look, spot, 1) }
}

export function withoutSpot(look: Look, spot: SkinSpot): Partial<Look> {
  return { spots: look.spots.filter((s) => s.id !== spot.id), ...counted(look, spot, -1) }
}

function counted(look: Look, spot: SkinSpot, by: number): Partial<Look> {
  // A dark mark or a blackhead is followed, and is no bump.
  if (isFollowed(spot.kind)) return {}
  const zone = look.zones.find((z) => z.zoneId === spot.zoneId)
  return spot.kind === 'pustule'
    ? withZone(look, spot.zoneId, { pustules: Math.max(0, (zone?.pustules ?? 0) + by) })
    : withZone(look, spot.zoneId, { bumps: Math.max(0, (zone?.bumps ?? 0) + by) })
}
