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
  /** What it is unless the house has changed it. */
  readonly byDefault: number
  /** Unit in words; empty for a plain number. */
  readonly unit: string
  readonly text: string
  readonly mark: Mark
  /** Named source for a published value; says so where it was noted from memory. */
  readonly source?: string
}

/** What each constant is in one house. Passed to every model, so that none can work with another house's figures. */
export type Figures = (of: Constant) => number

/** The figures of a house that has changed none. */
export const DEFAULTS: Figures = (of) => of.byDefault

/** Writes a constant down. */
export function constant(
  byDefault: number,
  unit: string,
  text: string,
  mark: Mark,
  source?: string,
): Constant {
  return { byDefault, unit, text, mark, ...(source !== undefined && { source }) }
}

/** A house's own figures by id, as they are stored and sent. */
export type ChangedFigures = Readonly<Record<string, number>>
