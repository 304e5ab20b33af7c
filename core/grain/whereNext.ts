/**
 * Where the next reading would tell most: the place whose reading lowers the field's expected error over the skin of
 * interest most. For a Gaussian field this does not depend on what the reading will say (Cohn, Ghahramani & Jordan 1996,
 * "Active learning with statistical models", from memory).
 */
import type { Figures } from '../house/index.ts'
import type { SurfacePoint } from '../head/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { FIELD_CONSTANTS, type GrainField } from './field.ts'

/** A place to read. */
export interface Candidate extends SurfacePoint {
  readonly zoneId: ZoneId
}

/** The best candidate, with the share of the remaining doubt that it would take away. */
export interface NextReading extends Candidate {
  readonly gain: number
}

/**
 * Weighs the candidates one by one; between them it asks whether to go on, so that the hand is never kept waiting.
 * @param wanted weight of each vertex of the solve mesh, 0 where it does not matter
 * @returns undefined when stopped or when there is no candidate
 */
export async function whereNext(
  figures: Figures,
  field: GrainField,
  candidates: readonly Candidate[],
  wanted: Float64Array,
  goOn: () => Promise<boolean> | boolean,
): Promise<NextReading | undefined> {
  let best: NextReading | undefined
  let all = 0
  for (const candidate of candidates) {
    if (!(await goOn())) return undefined
    const gain = gainAt(figures, field, candidate, wanted)
    all += gain
    if (!best || gain > best.gain) best = { ...candidate, gain }
  }
  return best && all > 0 ? { ...best, gain: best.gain / all } : best
}

/** Fall of the summed variance when a reading is made at a place. */
export function gainAt(
  figures: Figures,
  field: GrainField,
  at: SurfacePoint,
  wanted: Float64Array,
): number {
  const { re, im, own } = field.influence(at)
  let sum = 0
  for (let v = 0; v < wanted.length; v++) {
    if (wanted[v] !== 0) sum += wanted[v]! * (re[v]! * re[v]! + im[v]! * im[v]!)
  }
  return sum / (own + 1 / figures(FIELD_CONSTANTS.readingStrength))
}
