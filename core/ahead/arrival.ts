/** How long hair likely is when the client arrives, and from when it can be read by finger. */
import { GROWTH_CONSTANTS, type TideCurve } from '../regrowth/index.ts'
import type { Figures } from '../house/index.ts'

/** Hair as it likely stands now. */
export interface Arrival {
  readonly nowMm: number
  /** Too short to feel which way it grows: from when it likely is long enough, where the line reaches so far. */
  readonly readableFromMs?: number | undefined
  readonly tooShort: boolean
}

/** By the tide line; undefined where there is none. Hair is read by finger from the length on at which it is felt. */
export function arrivalBy(
  figures: Figures,
  curve: TideCurve,
  fuzz: boolean,
  nowMs: number,
): Arrival | undefined {
  const past = curve.past.at(-1)
  if (!past) return undefined
  const least = figures(fuzz ? GROWTH_CONSTANTS.feltFuzzMm : GROWTH_CONSTANTS.feltMm)
  // Between the points of the line it climbs evenly.
  const points = [past, ...curve.ahead]
  const reach = points.find((p) => p.mm >= least)
  const nowMm = past.mm
  const tooShort = nowMm < least
  return {
    nowMm,
    tooShort,
    ...(tooShort && reach && { readableFromMs: Math.max(reach.atMs, nowMs) }),
  }
}
