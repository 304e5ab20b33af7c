/** A visit that was taken badly: what makes it so, where, and whether anybody has seen the skin calm since. */
import type { SkinAnswer } from './answers.ts'
import { constant, type Figures } from '../house/index.ts'
import { sum } from '../stats/index.ts'
import type { Job } from '../services/index.ts'

export const AFTERMATH_CONSTANTS = {
  severeGrade: constant(
    4,
    'grade',
    'Redness from this grade on is severe',
    'P',
    'Tan et al. 2014, Clinician’s Erythema Assessment (from memory)',
  ),
  manyBumps: constant(
    12,
    'bumps',
    'From so many bumps on somebody looks at the skin before the next blade',
    'P',
    'Perry et al. 2002: moderate from 12 papules and pustules on (from memory)',
  ),
  strongStinging: constant(7, 'of 10', 'Stinging from this on is strong', 'H'),
  calmGrade: constant(1, 'grade', 'Seen calm: no redness above this', 'H'),
  wideShare: constant(0.5, '', 'Over this share of the zones on the whole service waits', 'H'),
} as const

const A = AFTERMATH_CONSTANTS

/** A finished visit as far as the next one must know it. */
export interface PastVisit {
  readonly visitId: string
  /** What was done. */
  readonly jobs: readonly (Pick<Job, 'service' | 'method'> & {
    readonly trial?: true | undefined
  })[]
  readonly endedAtMs: number
  /** Zones that were worked, or looked at. */
  readonly zones: readonly string[]
  /** Zones that a blade went over. */
  readonly worked: readonly string[]
  readonly answers: readonly SkinAnswer[]
  /** Worst redness noted at the chair, by zone. */
  readonly redAtChair: Readonly<Record<string, number>>
  /** Length of the longest nick of each zone, mm, where it was told. */
  readonly nickMm?: Readonly<Record<string, number>> | undefined
}

/** "1 bump", "12 bumps". */
export const bumpWords = (n: number): string => `${n} ${n === 1 ? 'bump' : 'bumps'}`

/** What makes an answer severe, in words; empty when nothing does. */
export function severeSigns(
  figures: Figures,
  answer: Pick<SkinAnswer, 'zones' | 'feeling'>,
): string[] {
  const { zones, feeling = {} } = answer
  const worst = Math.max(0, ...zones.map((z) => z.redness))
  const pus = sum(zones.map((z) => z.pustules ?? 0))
  const bumps = sum(zones.map((z) => z.bumps)) + pus
  return [
    ...(worst >= figures(A.severeGrade) ? [`redness ${worst}, severe`] : []),
    ...(pus > 0 ? [`${bumpWords(bumps)}, some with pus`] : []),
    ...(pus === 0 && bumps >= figures(A.manyBumps) ? [`${bumps} bumps`] : []),
    ...((feeling.stinging ?? 0) >= figures(A.strongStinging)
      ? [`stinging ${feeling.stinging} of 10`]
      : []),
    ...(feeling.spreading ? ['spreading, hot or ill'] : []),
  ]
}

/** Zones that an answer speaks of as not calm. */
export const zonesOf = (figures: Figures, answer: Pick<SkinAnswer, 'zones'>) =>
  answer.zones
    .filter((z) => z.redness > figures(A.calmGrade) || z.bumps > 0 || (z.pustules ?? 0) > 0)
    .map((z) => z.zoneId)

/** Severe answers that nobody has seen calm since. */
export interface Aftermath {
  readonly visitId: string
  /** The time that the latest one speaks of, and when it was told. */
  readonly atMs: number
  readonly toldAtMs: number
  /** What was severe in it, in words. */
  readonly signs: readonly string[]
  readonly zones: readonly string[]
  /** The whole service waits, not only these zones. */
  readonly wide: boolean
  readonly source: NonNullable<SkinAnswer['source']>
}

const toldAt = (a: SkinAnswer) => a.toldAtMs ?? a.atMs

/** What of a finished visit still stands: every severe answer that nobody has seen calm since; undefined when none does. */
export function aftermathOf(
  figures: Figures,
  past: Omit<PastVisit, 'worked'>,
): Aftermath | undefined {
  const seenCalm = (severe: SkinAnswer) =>
    past.answers.some(
      (a) =>
        a.source === 'seen' &&
        toldAt(a) > toldAt(severe) &&
        a.atMs >= severe.atMs &&
        isCalm(figures, a),
    )
  const stands = [...past.answers, lookAtChair(past.endedAtMs, past.redAtChair)]
    .filter((a) => severeSigns(figures, a).length > 0 && !seenCalm(a))
    .sort((a, b) => toldAt(a) - toldAt(b))
  const latest = stands.at(-1)
  if (!latest) return undefined
  // A later answer that speaks of another place does not calm the first.
  const zones = [...new Set(stands.flatMap((a) => zonesOf(figures, a)))]
  return {
    visitId: past.visitId,
    atMs: latest.atMs,
    toldAtMs: toldAt(latest),
    signs: severeSigns(figures, latest),
    zones,
    wide:
      stands.some((a) => a.feeling?.spreading === true || zonesOf(figures, a).length === 0) ||
      zones.length >= figures(A.wideShare) * past.zones.length,
    source: latest.source ?? 'seen',
  }
}

/** What reddened at the chair, as a look of the worker. */
export function lookAtChair(
  endedAtMs: number,
  redAtChair: Readonly<Record<string, number>>,
): SkinAnswer {
  const zones = Object.entries(redAtChair).map(([zoneId, redness]) => ({
    zoneId,
    redness,
    bumps: 0,
  }))
  return { moment: 'now', atMs: endedAtMs, zones, source: 'seen' }
}

const isCalm = (figures: Figures, a: SkinAnswer) =>
  severeSigns(figures, a).length === 0 && zonesOf(figures, a).length === 0
