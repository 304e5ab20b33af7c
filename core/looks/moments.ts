/**
 * The moments after a service at which its skin is looked at: one table that says what each is called, when it comes, and
 * how long its answer is owed. Which moment an answer belongs to is decided here, whoever gives it.
 */
import { DomainError } from '../errors.ts'
import { constant, type Figures } from '../house/index.ts'
import { CLOCKS_MS, HOUR_MS } from '../time/index.ts'

export const MOMENT_CONSTANTS = {
  firstAnswerHours: constant(24, 'h', 'Look again and tell us', 'H'),
  secondAnswerHours: constant(48, 'h', 'Look again: burn can appear late', 'H'),
  bumpAnswerDays: constant(7, 'days', 'Count bumps', 'H'),
  early: constant(0.85, '', 'A moment has come from this share of its hours on', 'H'),
} as const

const C = MOMENT_CONSTANTS

/** What a moment is to everybody who asks. */
interface MomentRow {
  /** Hours after the service; the house may set those that are asked for. */
  readonly hours: (figures: Figures) => number
  readonly words: string
  /** "the day after" your shave. */
  readonly after: string
  /** How it is asked for; absent where nobody is asked. */
  readonly asked?: {
    /** So long after it came its answer is owed, hours; later than that it counts as not given. */
    readonly owedForHours: number
    /** On Today. */
    readonly owedWords: string
    /** In what goes home: what to look for. */
    readonly lookFor: string
  }
}

/** The moments of looking at the skin after a service, in the order in which they come. */
const MOMENTS = {
  now: { hours: () => 0, words: 'Now', after: 'just after' },
  '1h': { hours: () => 1, words: '1 h', after: 'after' },
  '24h': {
    hours: (figures) => figures(C.firstAnswerHours),
    words: '24 h',
    after: 'the day after',
    asked: {
      owedForHours: 72,
      owedWords: 'Day 1 answer owed',
      lookFor: 'Redness, stinging, bumps? Zone by zone, 0 to 4.',
    },
  },
  '48h': {
    hours: (figures) => figures(C.secondAnswerHours),
    words: '48 h',
    after: 'two days after',
    asked: {
      owedForHours: 72,
      owedWords: 'Day 2 answer owed',
      lookFor: 'Burn can appear late where a place was overworked.',
    },
  },
  '7d': {
    hours: (figures) => figures(C.bumpAnswerDays) * 24,
    words: '7 days',
    after: 'a week after',
    asked: {
      owedForHours: 168,
      owedWords: 'Day 7 answer owed',
      lookFor: 'Count bumps and ingrown hairs. When did you feel hair again?',
    },
  },
} as const satisfies Record<string, MomentRow>

export type UsualMoment = keyof typeof MOMENTS
/** Every moment of the table, earliest first. */
export const USUAL_MOMENTS = Object.keys(MOMENTS) as UsualMoment[]

/** A usual moment, or any other as hours after the service ("h336"). */
export type Moment = UsualMoment | `h${number}`

const rowOf = (moment: UsualMoment): MomentRow => MOMENTS[moment]

/** A look speaks for the service from so many hours on: burn comes late, slight redness right after is normal. */
export const SPEAKS_FROM_HOURS = 6

const isUsual = (moment: Moment): moment is UsualMoment => Object.hasOwn(MOMENTS, moment)

/** Hours of a moment of its own. */
const ownHours = (moment: Moment) => Number(moment.slice(1))

/** Hours after the service that a moment speaks of. */
export const momentHours = (figures: Figures, moment: Moment): number =>
  isUsual(moment) ? rowOf(moment).hours(figures) : ownHours(moment)

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
    endedAtMs + (isUsual(moment) ? hours * figures(C.early) : Math.max(0, hours - 0.5)) * HOUR_MS
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
      rowOf(m).asked !== undefined &&
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
    const { asked, hours: from } = rowOf(m)
    return (
      asked !== undefined &&
      hours >= from(figures) &&
      hours <= from(figures) + asked.owedForHours &&
      !answers.some((a) => a.moment === m)
    )
  }).at(-1)
  return owed && rowOf(owed).asked?.owedWords
}

/** The moments that are asked for, as what goes home tells them: hours after the service, and what to look for. */
export function askedMoments(
  figures: Figures,
): { moment: UsualMoment; hours: number; lookFor: string }[] {
  return USUAL_MOMENTS.flatMap((moment) => {
    const { asked, hours } = rowOf(moment)
    return asked ? [{ moment, hours: hours(figures), lookFor: asked.lookFor }] : []
  })
}

/** The moments whose answer can no longer come, or came: what counts as asked for, and given or not. */
export function settledMoments(
  figures: Figures,
  endedAtMs: number,
  answered: readonly string[],
  nowMs: number,
): { moment: UsualMoment; came: boolean }[] {
  return USUAL_MOMENTS.flatMap((moment) => {
    const { asked, hours } = rowOf(moment)
    if (!asked) return []
    const came = answered.includes(moment)
    const over = nowMs >= endedAtMs + (hours(figures) + asked.owedForHours) * HOUR_MS
    return came || over ? [{ moment, came }] : []
  })
}

/** The next moment at which an answer that has not come can no longer come; Infinity when there is none. */
export function nextSettledMs(
  figures: Figures,
  endedAtMs: number,
  answered: readonly string[],
  nowMs: number,
): number {
  const ends = USUAL_MOMENTS.flatMap((moment) => {
    const { asked, hours } = rowOf(moment)
    if (!asked || answered.includes(moment)) return []
    return [endedAtMs + (hours(figures) + asked.owedForHours) * HOUR_MS]
  })
  return Math.min(Infinity, ...ends.filter((end) => end > nowMs))
}

/** When answers will be owed if none comes any more: stretches of time, each from and to, ms. */
export function owedStretches(
  figures: Figures,
  endedAtMs: number,
  answers: readonly { readonly moment: Moment }[],
): [fromMs: number, toMs: number][] {
  return USUAL_MOMENTS.flatMap((moment): [number, number][] => {
    const { asked, hours } = rowOf(moment)
    if (!asked || answers.some((a) => a.moment === moment)) return []
    const from = hours(figures)
    return [[endedAtMs + from * HOUR_MS, endedAtMs + (from + asked.owedForHours) * HOUR_MS]]
  })
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
