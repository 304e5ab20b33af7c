/** What happened at the chair that stays with the skin: told at Return, in the care sheet, to the next visit. */

export interface AtChair {
  /** Worst redness that was noted, by zone. */
  readonly redness: Readonly<Record<string, number>>
  /** Zones that were planned and for the most part not worked, and why. */
  readonly leftOut: Readonly<Record<string, string>>
  /** Nicks by zone; those whose place was not told stand under the empty name. */
  readonly nicks: Readonly<Record<string, number>>
  /** Length of the longest of each, mm, where it was told. */
  readonly nickMm?: Readonly<Record<string, number>> | undefined
}

export const NOTHING_AT_CHAIR: AtChair = { redness: {}, leftOut: {}, nicks: {} }
