/**
 * Where a client's own area of fuzz may end: its lower edge runs where hair shows least on either side of it, so that what was taken
 * and what was left do not part in a line.
 */
import type { Vec3, ZoneRecord } from '../head/index.ts'
import type { ZoneId, ZoneStem } from '../zones/index.ts'
import type { LineTap } from './keepLine.ts'
import type { Place } from './usualLine.ts'

/** A place where the area may end, with the zones that lie on both sides of that edge. */
export interface FadeEdge {
  readonly id: 'jaw' | 'under-chin' | 'neck'
  readonly name: string
  readonly beside: readonly ZoneStem[]
}

export const FADE_EDGES: readonly FadeEdge[] = [
  { id: 'jaw', name: 'along the jaw', beside: ['jaw', 'under-chin'] },
  { id: 'under-chin', name: 'under the chin', beside: ['under-chin', 'neck-upper'] },
  { id: 'neck', name: 'high on the neck', beside: ['neck-upper', 'neck-lower'] },
]

/**
 * How much hair shows at each edge, and the edge where it shows least; of those alike the highest, for it leaves most alone.
 * @param shows how much the hair of a zone shows, 0 to 1
 */
export function leastEdge(shows: (zone: ZoneId) => number): {
  readonly edge: FadeEdge
  readonly shows: Readonly<Record<FadeEdge['id'], number>>
  /** It shows as much at each. */
  readonly alike: boolean
} {
  const of = ({ beside }: FadeEdge) => {
    const zones = beside.flatMap((s) => [`${s}-left`, `${s}-right`] as ZoneId[])
    return zones.reduce((sum, z) => sum + shows(z), 0) / zones.length
  }
  const each = FADE_EDGES.map((edge) => ({ edge, shows: of(edge) }))
  const least = each.reduce((a, b) => (b.shows < a.shows - 1e-9 ? b : a))
  return {
    edge: least.edge,
    alike: each.every((e) => Math.abs(e.shows - least.shows) < 0.02),
    shows: Object.fromEntries(each.map((e) => [e.edge.id, e.shows])) as Record<
      FadeEdge['id'],
      number
    >,
  }
}

/** Zones whose middles the upper border runs over, from the client's left lower jaw up over the brow and down again. */
const UPPER: readonly ZoneId[] = ['cheek-lower-left', 'cheek-upper-left', 'temple-left']
/** The lower edge, from the client's right to the left. */
const LOWER: Readonly<Record<FadeEdge['id'], readonly ZoneId[]>> = {
  jaw: ['jaw-right', 'chin', 'jaw-left'],
  'under-chin': ['under-chin-right', 'under-chin-centre', 'under-chin-left'],
  neck: ['neck-upper-right', 'neck-upper-centre', 'neck-upper-left'],
}

/** The face from the hairline to an edge as the taps of an outline. */
export function areaDownTo(
  edge: FadeEdge['id'],
  records: ReadonlyMap<ZoneId, ZoneRecord>,
  place: Place,
): LineTap[] {
  const middle = (id: ZoneId): Vec3 => records.get(id)!.centre.point
  const mirror = ([x, y, z]: Vec3): Vec3 => [-x, y, z]
  const outer = ([x, y, z]: Vec3, out: number, up = 0): Vec3 => [x * out, y + up, z]
  const left = UPPER.map((id) => outer(middle(id), 1.12))
  const brow = middle('forehead-left')
  const top = outer(brow, 1, 16)
  const crownward: Vec3 = [0, middle('forehead-centre')[1] + 18, middle('forehead-centre')[2]]
  // Along the jaw it runs below the chin, not over its middle.
  const lower = LOWER[edge].map((id, i) =>
    edge === 'jaw' ? outer(middle(id), 1, i === 1 ? -20 : -10) : middle(id),
  )
  const ring = [...left, top, crownward, mirror(top), ...left.map(mirror).reverse(), ...lower]
  return ring.map((p) => {
    const { zoneId, point, normal } = place(p)
    return { zoneId, point, normal }
  })
}
