/** A finished visit as comparing and learning across visits need it. */
import type { ServiceId } from '../services.ts'
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
  /** Null for visits kept before choices were. */
  readonly choices: VisitChoices | null
  readonly products: readonly string[]
  /** A change of routine that began here, in words. */
  readonly routine: string
  /** Which of the answers that were asked for came. */
  readonly answered: readonly string[]
  /** The window that was told for the next visit; null when none was. */
  readonly due: { readonly fromMs: number; readonly toMs: number } | null
}

export const sum = (list: Iterable<number>): number => [...list].reduce((s, v) => s + v, 0)

/** The value that most have; the first of those equal. */
export function mostHave<T>(list: readonly T[]): T | undefined {
  const counts = new Map<T, number>()
  for (const v of list) counts.set(v, (counts.get(v) ?? 0) + 1)
  return [...counts.entries()].sort((a, b) => b[1] - a[1])[0]?.[0]
}

/** The middle of a list; undefined for none. */
export function middle(list: readonly number[]): number | undefined {
  const sorted = [...list].sort((a, b) => a - b)
  return sorted[Math.floor((sorted.length - 1) / 2)]
}
