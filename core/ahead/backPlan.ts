/**
 * Planning back from an event (M15, M7, M10): when to serve so that skin is calm, hair is not yet felt or seen, and
 * everything that must be kept off is over.
 */
import { constant, type Mark, type Figures } from '../house/index.ts'
import { type Growth, shownOdds } from '../regrowth/index.ts'
import { stillOdds, type FadeBelief, gradeOdds, type Sensitivity } from '../skin/index.ts'
import { oddsWords } from '../stats/index.ts'
import { type ClosedDays, dateOf, DAY_MS, HOUR_MS, isClosed, openHours } from '../time/index.ts'
import type { Clearance } from '../care/index.ts'
import type { EventKind } from './eventKinds.ts'

/** What an event asks of skin and hair. */
interface Need {
  readonly name: string
  readonly hair: 'felt' | 'seen'
  /** Clearances that must be over. */
  readonly clear: readonly string[]
  readonly why: string
}

export const EVENT_NEEDS: Readonly<Record<EventKind, Need>> = {
  'mask-seal': {
    name: 'Mask seal check',
    hair: 'felt',
    clear: ['touch', 'mask'],
    why: 'Stubble that is felt lets a mask leak.',
  },
  dive: {
    name: 'Dive',
    hair: 'felt',
    clear: ['touch', 'mask', 'swimming'],
    why: 'Stubble that is felt lets a mask leak, and salt stings fresh skin.',
  },
  concert: {
    name: 'Concert, wind instrument',
    hair: 'felt',
    clear: ['touch'],
    why: 'Stubble and sore skin round the lips disturb the embouchure.',
  },
  photo: {
    name: 'Photographs or stage',
    hair: 'seen',
    clear: ['touch', 'make-up'],
    why: 'Light and make-up show redness and stubble.',
  },
  sun: {
    name: 'Holiday in the sun',
    hair: 'seen',
    clear: ['touch', 'sun', 'swimming', 'acids'],
    why: 'Fresh skin burns sooner.',
  },
  swim: {
    name: 'Swimming meet',
    hair: 'felt',
    clear: ['touch', 'swimming', 'exercise'],
    why: 'Chlorine stings fresh skin.',
  },
  party: {
    name: 'Celebration',
    hair: 'seen',
    clear: ['touch', 'make-up'],
    why: 'Close up, redness shows before stubble does.',
  },
}

export const EVENT_CONSTANTS = {
  rednessLimit: constant(
    0.1,
    'probability',
    'At an event redness 2 or more may be this likely',
    'H',
  ),
  hairLimit: constant(0.35, 'probability', 'At an event hair felt or seen may be this likely', 'H'),
  lookBackDays: constant(45, 'days', 'Services at most this long before an event', 'H'),
} as const

const E = EVENT_CONSTANTS

/** What planning back depends on. */
export interface EventQuestion {
  readonly kind: EventKind
  readonly eventAtMs: number
  readonly nowMs: number
  /** How long a service takes, minutes. */
  readonly minutes: number
  /** Zones of the service with the load they get and the hair it leaves. */
  readonly zones: readonly {
    readonly name: string
    readonly load: number
    readonly leftMm: number
    readonly sensitivity: Sensitivity
    readonly growth: Growth
  }[]
  /** How fast this client's redness fades. */
  readonly fading: FadeBelief
  /** Aftercare of a service that ends at 0. */
  readonly clearances: readonly Clearance[]
  /** Earliest moment the last service, asking and the skin allow. */
  readonly notBeforeMs?: number | undefined
  readonly notBeforeWhy?: string | undefined
  /** Days on which nobody serves. */
  readonly closed: ClosedDays
  /** Minutes east of UTC at a moment. */
  readonly offset: (ms: number) => number
}

/** Odds at the event, for a service that ends so long before it. */
export interface EventOdds {
  readonly atMs: number
  readonly redness: number
  readonly hair: number
}

export interface EventPlan {
  readonly kind: EventKind
  readonly eventAtMs: number
  /** When the service should begin; `fits` is false when no time meets everything. */
  readonly earliestMs: number
  readonly bestMs: number
  readonly latestMs: number
  readonly fits: boolean
  /** True when it would fit at hours at which the house is closed: from `earliestMs` to `latestMs`. */
  readonly outOfHours: boolean
  readonly atBest: EventOdds
  readonly reasons: readonly { readonly text: string; readonly mark: Mark }[]
  /** Odds for services through the days before, hour by hour. */
  readonly curve: readonly EventOdds[]
}

/** P(redness ≥ 2 is still to be seen) so long after a service, on the worst zone: it fades grade by grade (M7). */
export function rednessAt(
  zones: EventQuestion['zones'],
  fading: FadeBelief,
  ageMs: number,
): number {
  const still = stillOdds(fading, 2, ageMs / DAY_MS)
  return zones.reduce((most, z) => {
    const odds = gradeOdds(z.sensitivity, z.load)
    return Math.max(
      most,
      odds.reduce((sum, p, grade) => sum + p * still[grade]!, 0),
    )
  }, 0)
}

/** P(hair is felt, or seen) so long after a service, on the zone where it is soonest (M10). */
export function hairAt(
  figures: Figures,
  zones: EventQuestion['zones'],
  ageMs: number,
  kind: 'felt' | 'seen',
): number {
  const days = ageMs / DAY_MS
  return zones.reduce(
    (most, z) => Math.max(most, shownOdds(figures, z.growth, kind, z.leftMm, days)),
    0,
  )
}

/** What a time costs: each odds as a share of its limit. */
const costOf = (figures: Figures, o: EventOdds) =>
  o.redness / figures(E.rednessLimit) + o.hair / figures(E.hairLimit)

/**
 * Which of several plans serves an event best, each at its own best time: one that fits before one that does not, then the
 * least odds of redness and hair together.
 * @param questions what each plan comes to; at least one
 */
export function bestPlanFor(figures: Figures, questions: readonly EventQuestion[]): number {
  const tried = questions.map((q) => planBack(figures, q, false))
  return tried.reduce((best, p, i) => {
    const b = tried[best]!
    if (p.fits !== b.fits) return p.fits ? i : best
    return costOf(figures, p.atBest) < costOf(figures, b.atBest) - 0.02 ? i : best
  }, 0)
}

/**
 * Finds when to serve before an event.
 * @param drawn with the odds through the days before
 */
export function planBack(figures: Figures, q: EventQuestion, drawn = true): EventPlan {
  const need = EVENT_NEEDS[q.kind]
  const serviceMs = q.minutes * 60_000
  const oddsAt = (beginMs: number): EventOdds => {
    const age = q.eventAtMs - beginMs - serviceMs
    return {
      atMs: beginMs,
      redness: rednessAt(q.zones, q.fading, age),
      hair: hairAt(figures, q.zones, age, need.hair),
    }
  }
  const own = q.clearances.filter((c) => c.kind === 'avoid' && need.clear.includes(c.id))
  const longest = own.reduce<Clearance | undefined>(
    (a, c) => (!a || c.untilMs > a.untilMs ? c : a),
    undefined,
  )
  const clearMs = longest?.untilMs ?? 0
  // Redness only falls and hair only rises with age, so each limit is one moment; found to the minute.
  const calmMs = firstAge(
    figures,
    (age) => rednessAt(q.zones, q.fading, age) <= figures(E.rednessLimit),
  )
  const hairMs =
    firstAge(
      figures,
      (age) => hairAt(figures, q.zones, age, need.hair) > figures(E.hairLimit),
      lookBackMs(figures),
    ) - 60_000
  const latest = q.eventAtMs - Math.max(clearMs, calmMs) - serviceMs
  const hairFrom = q.eventAtMs - hairMs - serviceMs
  const from = Math.max(hairFrom, q.notBeforeMs ?? -Infinity, q.nowMs)
  const reasons: { text: string; mark: Mark }[] = [{ text: need.why, mark: 'C' }]
  reasons.push({
    text: longest
      ? `Latest: ${sentence(longest.title)} for ${hoursWords(clearMs)} after, and ${calmWords(figures, calmMs)}.`
      : `Latest: ${calmWords(figures, calmMs)}.`,
    mark: 'H',
  })
  reasons.push({
    text: `Earliest: after ${hoursWords(hairMs)} hair is ${need.hair} with more than ${oddsWords(figures(E.hairLimit))}.`,
    mark: 'H',
  })
  if (q.notBeforeMs !== undefined && q.notBeforeMs > hairFrom) {
    reasons.push({ text: q.notBeforeWhy ?? 'The skin is not ready before.', mark: 'H' })
  }
  const curve: EventOdds[] = []
  const begin = Math.max(
    q.nowMs,
    q.eventAtMs - Math.min(lookBackMs(figures), 2.2 * Math.max(hairMs, clearMs + calmMs)),
  )
  const steps = 96
  for (let i = 0; drawn && i <= steps; i++) {
    curve.push(oddsAt(begin + ((q.eventAtMs - serviceMs - begin) * i) / steps))
  }
  const hours = workingHours(figures, q, Math.min(from, latest), latest)
  const fitting = hours.filter((h) => h >= from)
  const cost = (o: EventOdds) => costOf(figures, o)
  const best = fitting
    .map(oddsAt)
    .reduce<EventOdds | undefined>((a, b) => (!a || cost(b) < cost(a) - 1e-9 ? b : a), undefined)
  const fits = best !== undefined
  const atBest = best ?? oddsAt(fallback(figures, q, hours, latest))
  if (!fits) {
    reasons.push({
      text:
        latest < q.nowMs
          ? 'It is too late for a whole service: the event comes before the skin is clear. Leave it, or take one small place with the gentlest plan.'
          : from <= latest
            ? `It would fit only while the house is closed (it works at its opening hours, and not on its closed days): serve out of hours, or take the nearest hour and a touch-up.`
            : `No time meets everything: skin comes first. Then hair is ${need.hair} with ${oddsWords(atBest.hair)}: touch up one small place nearer the day.`,
      mark: 'H',
    })
  }
  return {
    kind: q.kind,
    eventAtMs: q.eventAtMs,
    earliestMs: Math.round(Math.min(from, latest)),
    bestMs: Math.round(atBest.atMs),
    latestMs: Math.round(latest),
    fits,
    outOfHours: !fits && from <= latest,
    atBest,
    reasons,
    curve,
  }
}

const lookBackMs = (figures: Figures) => figures(E.lookBackDays) * DAY_MS

/** The first age, to the minute, from which something is so; it stays so from there. The look-back when it never is. */
function firstAge(
  figures: Figures,
  so: (ageMs: number) => boolean,
  most = lookBackMs(figures),
): number {
  if (so(0)) return 0
  if (!so(most)) return most
  let [no, yes] = [0, most]
  while (yes - no > 60_000) {
    const middle = (no + yes) / 2
    if (so(middle)) yes = middle
    else no = middle
  }
  return yes
}

/** Full hours between two moments at which the house works and a service still ends in time. */
function workingHours(figures: Figures, q: EventQuestion, fromMs: number, toMs: number): number[] {
  const out: number[] = []
  const last = Math.floor(toMs / HOUR_MS) * HOUR_MS
  for (let at = last; at >= fromMs && out.length < 24 * figures(E.lookBackDays); at -= HOUR_MS) {
    const local = new Date(at + q.offset(at) * 60_000)
    const hour = local.getUTCHours()
    if (isClosed(q.closed, dateOf(at, q.offset(at)))) continue
    const [opens, closes] = openHours(q.closed, dateOf(at, q.offset(at)))
    if (hour >= opens && hour + q.minutes / 60 <= closes) out.push(at)
  }
  return out.reverse()
}

/** Where nothing fits: the last working hour that the skin allows, or now. */
function fallback(
  figures: Figures,
  q: EventQuestion,
  hours: readonly number[],
  latest: number,
): number {
  const [first] = [...hours].reverse()
  if (first !== undefined && first >= q.nowMs) return first
  return Math.max(q.nowMs, workingHours(figures, q, latest - 3 * DAY_MS, latest).pop() ?? latest)
}

/** How long redness stands in the way. */
const calmWords = (figures: Figures, ms: number) =>
  ms === 0
    ? `redness 2 or more is unlikely from the start (under ${oddsWords(figures(E.rednessLimit))})`
    : `redness 2 or more is unlikely (under ${oddsWords(figures(E.rednessLimit))}) after ${hoursWords(ms)}`
const sentence = (title: string) => title.charAt(0).toLowerCase() + title.slice(1)

/** "20 hours", "3 days". */
function hoursWords(ms: number): string {
  const hours = ms / HOUR_MS
  if (hours < 1) return 'under an hour'
  if (hours < 48) return `${Math.round(hours)} hours`
  const days = hours / 24
  return `${days < 10 ? (Math.round(days * 2) / 2).toString() : Math.round(days)} days`
}
