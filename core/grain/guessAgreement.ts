/**
 * Whether starting guesses are worth holding. Readings know nothing of the guesses, so that their agreement is a fair trial
 * (cross-validation: Stone 1974, from memory): guesses stay in an area of the head only while what was read agrees with them.
 */
import { dot } from '../head/index.ts'
import { constant, type Figures } from '../house/index.ts'
import { turnWithNormal } from './connection.ts'
import type { FieldReading } from './field.ts'

export const GUESS_CONSTANTS = {
  guessReadings: constant(
    4,
    'readings',
    'Before anything is read the guesses of an area count as so many that agree with them fairly',
    'H',
  ),
  guessAgrees: constant(
    0.75,
    '',
    'Guesses are held while readings agree with them this well (mean cosine of the angle between)',
    'H',
  ),
  guessUntil: constant(16, 'readings', 'From so many readings on guesses are worth nothing', 'H'),
} as const

const G = GUESS_CONSTANTS

/** How far guesses agree with a head of which nothing is known. */
const UNKNOWN = 0.7

export class GuessAgreement {
  private readonly figures: Figures
  private readonly agreed = new Map<string, { count: number; cosines: number }>()

  constructor(figures: Figures) {
    this.figures = figures
  }

  /** A reading comes (1) or goes (−1); it is compared with the guess that lies nearest. */
  add(guess: FieldReading, reading: FieldReading, sign: 1 | -1): void {
    const area = guess.area ?? ''
    const had = this.agreed.get(area) ?? { count: 0, cosines: 0 }
    const there = turnWithNormal(guess.tangent, guess.normal, reading.normal)
    this.agreed.set(area, {
      count: had.count + sign,
      cosines: had.cosines + sign * dot(there, reading.tangent),
    })
  }

  /** In which areas guesses are held: by the readings of the area first, and the whole head's for what it has not. */
  believed(): (area: string) => boolean {
    let [count, cosines] = [0, 0]
    for (const a of this.agreed.values()) {
      count += a.count
      cosines += a.cosines
    }
    const before = this.figures(G.guessReadings)
    const whole = (cosines + before * UNKNOWN) / (count + before)
    return (area) => {
      if (count >= this.figures(G.guessUntil)) return false
      if (count === 0) return true
      const own = this.agreed.get(area) ?? { count: 0, cosines: 0 }
      return (own.cosines + before * whole) / (own.count + before) > this.figures(G.guessAgrees)
    }
  }
}
