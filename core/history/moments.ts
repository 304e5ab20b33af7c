/**
 * The moments after a service at which its skin is looked at: one table that says what each is called, when it comes, and
 * how long its answer is owed. Which moment an answer belongs to is decided here, whoever gives it.
 */
import { CARE_CONSTANTS } from '../care/clearances.ts'
import { DomainError } from '../errors.ts'
import { constant, type Constant, type Figures } from '../house/constants.ts'
import { CLOCKS_MS, HOUR_MS } from '../time/dates.ts'
import { USUAL_MOMENTS, type Moment, type UsualMoment } from './looks.ts'

export const MOMENT_CONSTANTS = {
  early: constant(0.85, '', 'A moment has come from this share of its hours on', 'H'),
} as const

interface MomentRow {
  /** Hours after the service; the house may set those that are asked for. */
  readonly hours: (figures: Figures) => number
  readonly words: string
  /** "the day after" your shave. */
  readonly after: string
  /** So long after it came its answer is owed, hours; absent where nobody is asked. */
  readonly owedForHours?: number
  readonly owedWords?: string
}

const inDays = (figures: Figures, c: Constant) => figures(c) * 24

const MOMENTS: Readonly<Record<UsualMoment, MomentRow>> = {
  now: { hours: () => 0, words: 'Now', after: 'just after' },
  '1h': { hours: () => 1, words: '1 h', after: 'after' },
  '24h': {
    hours: (figures) => figures(CARE_CONSTANTS.firstAnswerHours),
    words: '24 h',
    after: 'the day after',
    owedForHours: 72,
    owedWords: 'Day 1 answer owed',
  },
  '48h': {
    hours: (figures) => figures(CARE_CONSTANTS.secondAnswerHours),
    words: '48 h',
    after: 'two days after',
    owedForHours: 72,
    owedWords: 'Day 2 answer owed',
  },
  '7d': {
    hours: (figures) => inDays(figures, CARE_CONSTANTS.bumpAnswerDays),
    words: '7 days',
    after: 'a week after',
    owedForHours: 168,
    owedWords: 'Day 7 answer owed',
  },
}

const isUsual = (moment: Moment): moment is UsualMoment =>
  (USUAL_MOMENTS as readonly string[]).includes(moment)

/** Hours of a moment of its own. */
const ownHours = (moment: Moment) => Number(moment.slice(1))

/** Hours after the service that a moment speaks of. */
export const momentHours = (figures: Figures, moment: Moment): number =>
  isUsual(moment) ? MOMENTS[moment].hours(figures) : ownHours(moment)

/** "48 h", "12 days". */
export function momentWords(moment: Moment): string {
  if (isUsual(moment)) return MOMENTS[moment].words
  const hours = ownHours(moment)
  return hours < 72 ? `${hours} h` : `${Math.round(hours / 24)} days`
}

/** "the day after", for a sentence that goes on with the service. */
export const momentAfter = (moment: UsualMoment): string => MOMENTS[moment].after

/** From when on a moment may be answered, ms. A moment of its own is told in whole hours. */
export function momentOpensMs(figures: Figures, endedAtMs: number, moment: Moment): number {
  const hours = momentHours(figures, moment)
  return (
    endedAtMs +
    (isUsual(moment) ? hours * figures(MOMENT_CONSTANTS.early) : Math.max(0, hours - 0.5)) * HOUR_MS
  )
}

export const momentHasCome = (
  figures: Figures,
  endedAtMs: number,
  moment: Moment,
  nowMs: number,
): boolean => nowMs >= momentOpensMs(figures, endedAtMs, moment)

/** The usual moment that an answer given now speaks of: the latest that has come. */
export function momentAt(figures: Figures, endedAtMs: number, nowMs: number): UsualMoment {
  return (
    [...USUAL_MOMENTS].reverse().find((m) => momentHasCome(figures, endedAtMs, m, nowMs)) ?? 'now'
  )
}

/** Moments at which the client is asked, and that still lie ahead. */
export function momentsAhead(
  figures: Figures,
  endedAtMs: number,
  nowMs: number,
  untilMs: number,
): UsualMoment[] {
  return USUAL_MOMENTS.filter(
    (m) =>
      MOMENTS[m].owedForHours !== undefined &&
      !momentHasCome(figures, endedAtMs, m, nowMs) &&
      momentOpensMs(figures, endedAtMs, m) < untilMs,
  )
}

/** The answer that is owed now, in words; undefined when none is. Not answered is not clear. */
export function owedAnswer(
  figures: Figures,
  endedAtMs: number,
  answers: readonly { readonly moment: Moment }[],
  nowMs: number,
): string | undefined {
  const hours = (nowMs - endedAtMs) / HOUR_MS
  const owed = USUAL_MOMENTS.filter((m) => {
    const { owedForHours, hours: from } = MOMENTS[m]
    return (
      owedForHours !== undefined &&
      hours >= from(figures) &&
      hours <= from(figures) + owedForHours &&
      !answers.some((a) => a.moment === m)
    )
  }).at(-1)
  return owed && MOMENTS[owed].owedWords
}

/**
 * Looks whether an answer may be given now.
 * @param atMs the time that it speaks of
 * @throws DomainError `not-yet`
 */
export function checkMoment(
  figures: Figures,
  endedAtMs: number,
  moment: Moment,
  atMs: number,
  nowMs: number,
): void {
  if (!momentHasCome(figures, endedAtMs, moment, nowMs + CLOCKS_MS)) {
    throw new DomainError(
      'not-yet',
      `${momentWords(moment)} after the service has not come yet, so nobody can have looked. Nothing was changed.`,
    )
  }
  if (atMs > nowMs + CLOCKS_MS) {
    throw new DomainError('not-yet', 'That look would lie ahead of now. Nothing was changed.')
  }
}
