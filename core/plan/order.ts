/** The order of zones by the house's school. The exact search over orders comes with lanes. */
import { zoneStem, type ZoneStem } from '../head/zones.ts'
import type { Schools } from '../house/schools.ts'
import type { ServiceFamily, ServiceId } from '../services.ts'
import type { ZonePlan } from './types.ts'

/** Flat and easy first, chin and lip last. */
const FLAT_FIRST: readonly ZoneStem[] = [
  'cheek-lower',
  'cheek-upper',
  'temple',
  'forehead',
  'forehead-centre',
  'glabella',
  'jaw',
  'under-chin',
  'under-chin-centre',
  'neck-upper',
  'neck-upper-centre',
  'neck-lower',
  'neck-lower-centre',
  'nose-bridge',
  'nose-side',
  'mouth-corner',
  'under-lip',
  'chin',
  'upper-lip',
]

const TOP_DOWN: readonly ZoneStem[] = [
  'forehead',
  'forehead-centre',
  'glabella',
  'temple',
  'nose-bridge',
  'nose-side',
  'cheek-upper',
  'cheek-lower',
  'upper-lip',
  'mouth-corner',
  'under-lip',
  'chin',
  'jaw',
  'under-chin',
  'under-chin-centre',
  'neck-upper',
  'neck-upper-centre',
  'neck-lower',
  'neck-lower-centre',
]

/** A head: the top first, then the sides, the back and the nape, where the lather lasts longest. */
const HEAD: readonly ZoneStem[] = [
  'scalp-front',
  'scalp-mid',
  'scalp-side',
  'scalp-behind-ear',
  'scalp-crown',
  'occiput',
  'nape',
  'nape-centre',
]

/**
 * Puts zones in working order. On the face everything flat of one side is done before the other side; what is last by
 * school (mouth corner, chin, lip) waits for both sides.
 */
export function orderZones(
  zones: readonly ZonePlan[],
  schools: Schools,
  family: ServiceFamily,
  service: ServiceId,
): ZonePlan[] {
  const table =
    service === 'head-shave' ? HEAD : schools.faceOrder === 'top-down' ? TOP_DOWN : FLAT_FIRST
  const rank = (z: ZonePlan) => table.indexOf(zoneStem(z.zoneId))
  const work = (side: string) =>
    zones
      .filter((z) => z.zoneId.endsWith(side))
      .reduce((s, z) => s + z.areaCm2 * z.passes.length, 0)
  const leftFirst =
    schools.faceOrder === 'most-work-first' && family === 'razor'
      ? // Sides that are alike but for rounding begin on the left, in whatever order the zones came.
        work('-left') >= work('-right') - 1e-6
      : true
  const side = (z: ZonePlan) => {
    if (z.zoneId.endsWith('-left')) return leftFirst ? 0 : 2
    if (z.zoneId.endsWith('-right')) return leftFirst ? 2 : 0
    return 1
  }
  const late = FLAT_FIRST.indexOf('nose-bridge')
  const group = (z: ZonePlan) => {
    if (table !== FLAT_FIRST) return rank(z)
    // Cheeks, jaw and neck of one side, the middle, the other side; then the last ones by rank.
    return rank(z) >= late ? 100 + rank(z) : side(z)
  }
  return [...zones].sort(
    (a, b) =>
      group(a) - group(b) || (table === FLAT_FIRST ? rank(a) - rank(b) : 0) || side(a) - side(b),
  )
}
