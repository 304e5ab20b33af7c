/** What the field says of each zone: its mean direction on the clock, how even it is (M1), how far to trust it. */
import type { Figures } from '../house/index.ts'
import type { ZoneRecord } from '../head/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { CarriedTold } from './carry.ts'
import { summariseDirections } from './circular.ts'
import { withinDeg, type Within } from './confidence.ts'
import { READING_CONSTANTS } from './readings.ts'
import { DomainError } from '../errors.ts'

/** A zone of the field. */
export interface ZoneFlow {
  readonly zoneId: ZoneId
  /** Mean growth direction over the zone, radians clockwise from 12; undefined where it turns all the way. */
  readonly growthDirection: number | undefined
  /** Mean resultant length of the field over the zone: 1 where all hair lies alike. */
  readonly meanResultantLength: number
  /** Median trust over the zone, 0 to 1. */
  readonly trust: number
  readonly within: Within
  /** The field turns so much here that one arrow does not serve. */
  readonly readInParts: boolean
}

/** Sums up the samples of every zone, in the order in which they were prepared. */
export function zoneFlows(
  figures: Figures,
  zones: readonly ZoneRecord[],
  samples: CarriedTold,
): ZoneFlow[] {
  let at = 0
  return zones.map((zone) => {
    const from = at
    at += zone.samples.length
    const angles: number[] = []
    const trusts: number[] = []
    const errors: number[] = []
    for (let i = from; i < at; i++) {
      // The basis turns anticlockwise, the clock the other way.
      angles.push(-Math.atan2(samples.im[i]!, samples.re[i]!))
      trusts.push(samples.trust[i]!)
      const error = samples.errorDeg[i]!
      errors.push(Number.isNaN(error) ? Infinity : error)
    }
    const trust = trusts.sort((a, b) => a - b)[trusts.length >> 1]!
    let growthDirection: number | undefined
    let r = 0
    try {
      const s = summariseDirections(angles)
      growthDirection = s.mean
      r = s.meanResultantLength
    } catch (error) {
      if (!(error instanceof DomainError)) throw error
    }
    // Of a zone half of which is not read nothing is told.
    const error = errors.sort((a, b) => a - b)[errors.length >> 1]!
    const within = withinDeg(error === Infinity ? NaN : error)
    return {
      zoneId: zone.id,
      growthDirection,
      meanResultantLength: r,
      trust,
      within,
      readInParts: within !== undefined && r < figures(READING_CONSTANTS.readInPartsBelow),
    }
  })
}
