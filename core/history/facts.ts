/** A finished visit as comparing and learning across visits need it. */
import type { ServiceId } from '../services/index.ts'
import type { VisitChoices } from './choices.ts'

export interface VisitFacts {
  readonly visitId: string
  readonly service: ServiceId
  readonly workerId: string
  readonly endedAtMs: number
  /** Load given, by zone. */
  readonly loads: Readonly<Record<string, number>>
  /** Worst redness within 48 h of zones that were not clear; null when nobody answered in time. */
  readonly worst: Readonly<Record<string, number>> | null
  /** Bumps, ingrown hairs and pustules of days 2 to 14 by zone; null when nobody counted. */
  readonly bumps: Readonly<Record<string, number>> | null
  /** Dark marks, and blackheads, that were tapped after it, by zone; null or absent when nobody tapped spots. */
  readonly dark?: Readonly<Record<string, number>> | null | undefined
  readonly blackhead?: Readonly<Record<string, number>> | null | undefined
  /** Null for visits kept before choices were. */
  readonly choices: VisitChoices | null
  readonly products: readonly string[]
  /** A change of routine that began here, in words. */
  readonly routine: string
  /** Which of the answers that were asked for came. */
  readonly answered: readonly string[]
  /** It was answered then that this was the first of its kind; only a trial strip was worked. */
  readonly first?: boolean | undefined
  readonly trial?: boolean | undefined
  /** The window that was told for the next visit; null when none was. */
  readonly due: { readonly fromMs: number; readonly toMs: number } | null
}
