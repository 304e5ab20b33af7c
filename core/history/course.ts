/**
 * The course of a newcomer: the first sessions of a kind of work, a verdict after each. Bumps of a session n ~ Poisson(k · load ·
 * f_n · day), f_n = 1 + e · 2^(−(n − 1)/h): common at first, fewer with the sessions. k is learned from the sessions before, the
 * forecast is negative binomial with the day's own scatter.
 */
import type { SkinAndHair } from '../client.ts'
import { constant, type Figures, type Mark } from '../house/index.ts'
import { bumpWords, severeSigns, type SkinAnswer } from '../looks/index.ts'
import type { ServiceId } from '../services/index.ts'
import { bumpPooling, VISIT_CONSTANTS } from '../skin/index.ts'
import { gammaPoissonPmf, sum } from '../stats/index.ts'
import type { VisitFacts } from './facts.ts'

export const COURSE_CONSTANTS = {
  sessions: constant(4, 'sessions', 'So many belong to a newcomer’s course', 'H'),
  moreAtFirst: constant(1.2, '', 'A first session brings so many times more bumps on top', 'H'),
  halfAfter: constant(1, 'sessions', 'after which half of that is left', 'H'),
  changeGrade: constant(3, 'grade', 'Redness a day later from which one thing is changed', 'H'),
} as const

const C = COURSE_CONSTANTS

export type Verdict = 'go-on' | 'change' | 'stop' | 'wait'

export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  'go-on': 'go on',
  change: 'change one thing',
  stop: 'stop',
  wait: 'not yet told',
}

/** A count that is expected, and between what it lies in four of five. */
export interface CountRange {
  readonly mean: number
  readonly low: number
  readonly high: number
}

/** One thing that is changed: two of them a plan follows, the rest is the worker's. */
export const THINGS = {
  'with-grain': 'with the grain only',
  'one-pass': 'one pass only',
  film: 'a film of gel or lotion under the blade',
  acid: 'a mild leave-on acid between the sessions',
  products: 'one product less, nothing scented',
  wait: 'a week more before the next',
} as const
export type ThingToChange = keyof typeof THINGS

/** A session of the course. */
export interface CourseSession {
  readonly visitId: string
  readonly endedAtMs: number
  /** 1 for the first; 0 for a trial strip. */
  readonly nth: number
  /** What a beginner’s course lets expect, from the sessions before. */
  readonly expected: CountRange
  /** Null while nobody counted, or looked. */
  readonly bumps: number | null
  readonly worst: number | null
  readonly verdict: Verdict
  readonly why: string
  /** What to change. */
  readonly thing?: ThingToChange
  readonly mark: Mark
}

export interface Course {
  readonly sessions: readonly CourseSession[]
  /** What the next one is expected to bring with a load like the last one's; undefined once the course is over. */
  readonly next?: CountRange
}

/** How many times as many bumps a session brings as later ones do. */
export const newcomerFactor = (figures: Figures, nth: number): number =>
  1 + figures(C.moreAtFirst) * 2 ** (-(Math.max(1, nth) - 1) / figures(C.halfAfter))

/** What is believed of bumps per load: a Gamma. */
interface Belief {
  readonly shape: number
  readonly rate: number
}

/** The sessions before teach the rate; a day tells less, the more is counted on it. */
function learned(
  figures: Figures,
  skin: Pick<SkinAndHair, 'bumpProne' | 'curl'>,
  before: readonly { readonly exposure: number; readonly count: number }[],
): Belief {
  const { mean, betweenClients: shape } = bumpPooling(figures, skin)
  const day = Math.expm1(figures(VISIT_CONSTANTS.visitSpread) ** 2)
  return before.reduce(
    (b, { exposure, count }) => {
      const share = 1 / (1 + (day * exposure * b.shape) / b.rate)
      return { shape: b.shape + share * count, rate: b.rate + share * exposure }
    },
    { shape, rate: shape / mean },
  )
}

/** Counts to which one in ten lies below, and above. */
const EDGE = 0.1
const MOST_COUNT = 4000

function forecast(figures: Figures, belief: Belief, exposure: number): CountRange {
  const day = Math.expm1(figures(VISIT_CONSTANTS.visitSpread) ** 2)
  const mean = (belief.shape / belief.rate) * exposure
  if (!(mean > 0)) return { mean: 0, low: 0, high: 0 }
  const shape = 1 / ((1 + 1 / belief.shape) * (1 + day) - 1)
  const upTo = Math.min(MOST_COUNT, Math.ceil(20 + 12 * mean))
  let below = 0
  let [low, high] = [-1, upTo]
  for (const [y, p] of gammaPoissonPmf(shape, shape / mean, 1, upTo).entries()) {
    below += p
    if (low < 0 && below > EDGE) low = y
    if (below >= 1 - EDGE) {
      high = y
      break
    }
  }
  return { mean, low: Math.max(0, low), high }
}

/** What one thing to change next: what was done hardest before what is done after; never what a session before was told. */
function thingToChange(
  { choices, products }: VisitFacts,
  byRed: boolean,
  told: readonly (ThingToChange | undefined)[],
): ThingToChange {
  const zones = Object.values(choices?.zones ?? {})
  const things: readonly [ThingToChange, boolean][] = [
    ['with-grain', zones.some((z) => z.relation !== 'with')],
    ['one-pass', zones.some((z) => z.passes > 1)],
    ['film', byRed && choices?.slip === 'dry'],
    ['acid', !byRed && choices?.exfoliate === 'none'],
    ['products', products.length > 1],
  ]
  return things.find(([id, may]) => may && !told.includes(id))?.[0] ?? 'wait'
}

/**
 * The course of a newcomer to a service; undefined where the client is none.
 * @param visits of that service, oldest first
 * @param looks answers by visit
 */
export function courseOf(
  figures: Figures,
  skin: Pick<SkinAndHair, 'bumpProne' | 'curl'>,
  visits: readonly VisitFacts[],
  looks: readonly { readonly visitId: string; readonly answer: SkinAnswer }[],
): Course | undefined {
  const start = visits.findIndex((v) => v.first)
  if (start < 0) return undefined
  const own = visits.slice(start)
  const most = figures(C.sessions)
  const sessions: CourseSession[] = []
  const before: { exposure: number; count: number }[] = []
  let nth = 0
  for (const visit of own) {
    if (!visit.trial) nth++
    if (nth > most) break
    const load = sum(Object.values(visit.loads))
    const exposure = load * newcomerFactor(figures, nth)
    const expected = forecast(figures, learned(figures, skin, before), exposure)
    // Of a strip the other side is looked at too, which nobody worked.
    const here = (zones: Readonly<Record<string, number>>) =>
      Object.entries(zones).flatMap(([z, n]) => (!visit.trial || z in visit.loads ? [n] : []))
    const bumps = visit.bumps && sum(here(visit.bumps))
    const worst = visit.worst && Math.max(0, ...here(visit.worst))
    const severe = looks
      .filter((l) => l.visitId === visit.visitId)
      .flatMap((l) => severeSigns(figures, l.answer))
    sessions.push({
      ...{ visitId: visit.visitId, endedAtMs: visit.endedAtMs, expected, bumps, worst },
      nth: visit.trial ? 0 : nth,
      ...verdictOf(figures, { visit, expected, bumps, worst, severe, before: sessions }),
    })
    if (bumps !== null) before.push({ exposure, count: bumps })
  }
  const last = own.at(-1)
  const goesOn = nth < most && last !== undefined
  return {
    sessions,
    ...(goesOn && {
      next: forecast(
        figures,
        learned(figures, skin, before),
        sum(Object.values(last.loads)) * newcomerFactor(figures, nth + 1),
      ),
    }),
  }
}

/**
 * The last session of the course in one of some services; undefined where the client is no newcomer to them, or the course is over:
 * what was done since says more.
 * @param visits of every service, oldest first
 */
export function courseNow(
  figures: Figures,
  skin: Pick<SkinAndHair, 'bumpProne' | 'curl'>,
  services: readonly ServiceId[],
  visits: readonly VisitFacts[],
  looks: Parameters<typeof courseOf>[3],
): CourseSession | undefined {
  const found = services.flatMap((service) => {
    const own = visits.filter((v) => v.service === service)
    const last = courseOf(figures, skin, own, looks)?.sessions.at(-1)
    return last && last.visitId === own.at(-1)!.visitId ? [last] : []
  })
  return found[0]
}

interface Judged {
  readonly visit: VisitFacts
  readonly before: readonly CourseSession[]
  readonly expected: CountRange
  readonly bumps: number | null
  readonly worst: number | null
  readonly severe: readonly string[]
}

/** "2 to 9", or one number where both are the same. */
export const rangeWords = ({ low, high }: CountRange): string =>
  low === high ? `${low}` : `${low} to ${high}`

function verdictOf(
  figures: Figures,
  { visit, before, expected, bumps, worst, severe }: Judged,
): Pick<CourseSession, 'verdict' | 'why' | 'thing' | 'mark'> {
  const usual = `a beginner’s session lets expect ${rangeWords(expected)}`
  if (severe.length > 0) {
    return {
      verdict: 'stop',
      why: `${severe.join('; ')}: nothing further until the skin was seen calm; suggest a doctor.`,
      mark: 'C',
    }
  }
  const overBumps = bumps !== null && bumps > expected.high
  const overRed = worst !== null && worst >= figures(C.changeGrade)
  if ((overBumps || overRed) && before.at(-1)?.verdict === 'change') {
    return {
      verdict: 'stop',
      why: `${overRed ? `Redness ${worst}` : bumpWords(bumps!)} again after a change: this course does not suit this skin as it is worked. Try another method, or wait.`,
      mark: 'H',
    }
  }
  if (overBumps || overRed) {
    return {
      verdict: 'change',
      why: overRed
        ? `Redness ${worst} a day later is more than slight.`
        : `${bumpWords(bumps!)}, ${usual}.`,
      thing: thingToChange(
        visit,
        overRed,
        before.map((s) => s.thing),
      ),
      mark: 'H',
    }
  }
  if (bumps === null || worst === null) {
    const missing = [
      ...(worst === null ? ['how red it was after a day'] : []),
      ...(bumps === null ? ['bumps from day 2 on'] : []),
    ]
    return { verdict: 'wait', why: `Not told yet: ${missing.join(', and ')}.`, mark: 'C' }
  }
  return {
    verdict: 'go-on',
    why:
      bumps === 0
        ? `No bumps, redness ${worst} at most.`
        : `${bumpWords(bumps)}, redness ${worst} at most; ${usual}. Common in the first sessions, and fewer with them.`,
    mark: 'C',
  }
}
