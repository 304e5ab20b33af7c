/** Spots that are followed: the same bump at the next look, or at the next visit, is known by its place. */
import { distance } from '../head/index.ts'
import type { SkinAnswer, SkinSpot } from './answers.ts'

/** Two taps within this distance on the skin are the same place, mm: about the width of a fingertip. */
const SAME_PLACE_MM = 6

/** The spot of an earlier look that a tap is again: the nearest within a fingertip. */
export function sameSpot(
  tap: Pick<SkinSpot, 'point' | 'zoneId'>,
  earlier: readonly SkinSpot[],
): SkinSpot | undefined {
  let best: SkinSpot | undefined
  let least = SAME_PLACE_MM
  for (const spot of earlier) {
    const d = distance(tap.point, spot.point)
    if (d <= least) [best, least] = [spot, d]
  }
  return best
}

/** A spot through time: the place, and each look at which it was there. */
export interface SpotTrail {
  /** Id of its first look. */
  readonly id: string
  readonly zoneId: string
  readonly kind: SkinSpot['kind']
  readonly point: SkinSpot['point']
  readonly seen: readonly { readonly atMs: number; readonly visitId: string }[]
  /** Different visits after which it was there: a place that comes back. */
  readonly visits: number
}

/** Follows spots over the looks of several visits, oldest first; those there most often come first. */
export function spotTrails(
  looks: readonly {
    readonly visitId: string
    readonly answer: Pick<SkinAnswer, 'atMs' | 'spots'>
  }[],
): SpotTrail[] {
  const first = new Map<string, string>()
  const trails = new Map<string, { spot: SkinSpot; seen: { atMs: number; visitId: string }[] }>()
  const inOrder = [...looks].sort((a, b) => a.answer.atMs - b.answer.atMs)
  for (const { visitId, answer } of inOrder) {
    for (const spot of answer.spots ?? []) {
      const root =
        (spot.again !== undefined && first.get(spot.again)) || first.get(spot.id) || spot.id
      first.set(spot.id, root)
      const trail = trails.get(root) ?? { spot, seen: [] }
      trail.spot = spot
      trail.seen.push({ atMs: answer.atMs, visitId })
      trails.set(root, trail)
    }
  }
  return [...trails.entries()]
    .map(([id, { spot, seen }]) => ({
      id,
      zoneId: spot.zoneId,
      kind: spot.kind,
      point: spot.point,
      seen,
      visits: new Set(seen.map((s) => s.visitId)).size,
    }))
    .sort((a, b) => b.visits - a.visits || b.seen.length - a.seen.length)
}
