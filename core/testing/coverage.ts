/** How often a range of the skin's sensitivity holds the truth that a history was drawn from, for tests. */
import { DEFAULTS } from '../house/index.ts'
import { drawHistory } from '../simulate/truth.ts'
import { learnZones, sensitivityRange, type SkinOutcome } from '../skin/index.ts'
import { mulberry32 } from '../stats/index.ts'

const CLIENTS = 500

/**
 * Draws clients of all kinds of skin, learns each from what was told of its visits, and counts over clients and zones.
 * @param told what is known of the visits as they were; all of it when left out
 * @returns shares of truths that lie within the range of 80 %, and below it
 */
export function coverage(
  seed: number,
  zones: readonly string[],
  visits: number,
  told: (past: SkinOutcome[][], random: () => number) => readonly (readonly SkinOutcome[])[] = (
    past,
  ) => past,
): { held: number; tooHigh: number } {
  const random = mulberry32(seed)
  let [held, tooHigh] = [0, 0]
  for (let i = 0; i < CLIENTS; i++) {
    const kind = (['tough', 'average', 'reactive'] as const)[i % 3]!
    const { truth, visits: past } = drawHistory(
      DEFAULTS,
      random,
      zones,
      kind,
      visits,
      () => 1 + 2 * random(),
    )
    const found = learnZones(DEFAULTS, zones, kind, told(past, random))
    for (const zone of zones) {
      const { low, high } = sensitivityRange(found[zone]!)
      const k = truth.gradePerLoad[zone]!
      if (k >= low && k <= high) held++
      else if (k < low) tooHigh++
    }
  }
  const all = CLIENTS * zones.length
  return { held: held / all, tooHigh: tooHigh / all }
}
