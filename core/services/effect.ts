/** What a rule of asking does in a service. */
import type { Constant, Mark } from '../house/index.ts'

/** How grave a finding is, in rising order. */
export const SEVERITY_ORDER = ['note', 'take-care', 'leave-out', 'postpone', 'stop'] as const
export type Severity = (typeof SEVERITY_ORDER)[number]

/** What a rule does once its question is answered with yes. */
export interface RuleEffect {
  readonly severity: Severity
  readonly text: string
  readonly mark: Mark
  /** A yes changes nothing here: it is not asked. */
  readonly moot?: true | undefined
  /** Postpone: free days after the date asked for. */
  readonly wait?: Constant
  /** Whose word must be there before anything else. */
  readonly gate?: 'clinician' | 'guardian'
  /** Only where it was done is left alone; the rest may go ahead. */
  readonly overZone?: boolean
  readonly withGrainOnly?: boolean
  readonly onePass?: boolean
  readonly noFragrance?: boolean
}
