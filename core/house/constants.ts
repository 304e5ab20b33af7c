/**
 * How constants are written down: each module has one table, and the House page and docs/models.md show the same table.
 */

/** Where a value comes from: published, common practice, or a house estimate of this product. */
export type Mark = 'P' | 'C' | 'H'

export const MARK_WORDS: Readonly<Record<Mark, string>> = {
  P: 'published',
  C: 'common practice',
  H: 'house estimate',
}

/** One constant with its unit, its meaning and where it comes from. */
export interface Constant {
  /** What counts now: the house's own figure, else the default. */
  readonly value: number
  /** What it is unless the house has changed it. */
  readonly byDefault: number
  /** Unit in words; empty for a plain number. */
  readonly unit: string
  readonly text: string
  readonly mark: Mark
  /** Named source for a published value; says so where it was noted from memory. */
  readonly source?: string
}

/** The house's own figures in place of defaults; every model asks its constants, so a change counts from the next question. */
const changed = new Map<Constant, number>()

/** Writes a constant down. */
export function constant(
  value: number,
  unit: string,
  text: string,
  mark: Mark,
  source?: string,
): Constant {
  const self: Constant = {
    get value() {
      return changed.get(self) ?? value
    },
    byDefault: value,
    unit,
    text,
    mark,
    ...(source !== undefined && { source }),
  }
  return self
}

/** Puts the house's figures in place of the defaults; what is not named has its default again. */
export function setChanged(figures: Iterable<readonly [Constant, number]>): void {
  changed.clear()
  for (const [of, value] of figures) changed.set(of, value)
}
