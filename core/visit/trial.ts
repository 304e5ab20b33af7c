/** The newcomer: the trial strip, drawn now or worked before, and what the last session of their course lets do next. */
import type { Figures } from '../house/index.ts'
import { bumpsByZone, severeSigns, SPEAKS_FROM_HOURS } from '../looks/index.ts'
import type { Screening, Trial } from '../screening/index.ts'
import { isClosed } from '../lines/index.ts'
import { COURSE_CONSTANTS, type KeptHair, THINGS } from '../history/index.ts'
import { DAY_MS, dateAt, dayWords, HOUR_MS, type IsoDate } from '../time/index.ts'
import { capital } from '../words.ts'
import type { GatedVisit, GateFacts } from './known.ts'
import type { KeptPast } from './past.ts'
import type { Known, VisitFinding } from './types.ts'

/** What is known of trial strips; undefined where there is none. Once the whole was worked, the strip says no more. */
export function trialOf(
  figures: Figures,
  { jobs, notes }: Pick<GatedVisit, 'jobs' | 'notes'>,
  { past, feltAtMs }: Pick<GateFacts, 'past' | 'feltAtMs'>,
): Trial | undefined {
  const drawn = notes?.outlines?.some((o) => o.kind === 'trial' && isClosed(o)) === true
  const services = jobs.map((j) => j.service)
  const last = [...past]
    .sort((a, b) => b.endedAtMs - a.endedAtMs)
    .find((p) => p.jobs.some((j) => services.includes(j.service)))
  if (!last?.jobs.some((j) => j.trial)) return drawn ? { drawn } : undefined
  const { endedAtMs, answers } = last
  // What is seen of the other side, which nobody worked, is not the strip's.
  const ofStrip = (zones: ReadonlyMap<string, number> | undefined) =>
    zones && [...zones].flatMap(([zone, n]) => (last.worked.includes(zone) ? [n] : []))
  // However late somebody looks: it is followed for a week.
  const looks = answers.filter((a) => a.atMs >= endedAtMs + SPEAKS_FROM_HOURS * HOUR_MS)
  const worst =
    looks.length > 0
      ? looks.flatMap((a) =>
          a.zones.filter((z) => last.worked.includes(z.zoneId)).map((z) => z.redness),
        )
      : undefined
  const bumps = ofStrip(bumpsByZone(figures, { endedAtMs, answers })) ?? []
  return {
    drawn,
    past: {
      endedAtMs,
      ...(worst && { worst: Math.max(0, ...worst) }),
      bumps: bumps.reduce((s, n) => s + n, 0),
      severe: answers.some((a) => severeSigns(figures, a).length > 0),
      ...(feltAtMs !== undefined && feltAtMs > endedAtMs && { feltAtMs }),
    },
  }
}

/** When hair was felt, or seen, again after the last visit that worked only a strip. */
export function feltAfter(
  past: readonly Pick<KeptPast, 'jobs' | 'visitId' | 'endedAtMs'>[],
  hair: readonly Pick<KeptHair, 'visitId' | 'kind' | 'days'>[],
): Pick<GateFacts, 'feltAtMs'> {
  const trial = past.find((p) => p.jobs.some((j) => j.trial))
  const felt = hair
    .filter((h) => h.visitId === trial?.visitId && !h.kind.startsWith('not-'))
    .map((h) => trial!.endedAtMs + h.days * DAY_MS)
  return felt.length > 0 ? { feltAtMs: Math.min(...felt) } : {}
}

/** What the last session of a newcomer's course says of this one. */
export function courseFinding(known: Known, today: IsoDate): VisitFinding[] {
  const { course } = known
  if (!course || course.verdict === 'go-on') return []
  const { verdict, why, thing, visitId } = course
  const when = dayWords(dateAt(course.endedAtMs, known.offset), today)
  const of = course.nth === 0 ? `The trial strip of ${when}` : `Session ${course.nth} of ${when}`
  const base = {
    about: 'course' as const,
    id: `course:${visitId}:${verdict}`,
    mark: course.mark,
    visitId,
  }
  if (verdict === 'stop') {
    return [
      {
        ...base,
        severity: 'postpone',
        title: `${of}: stop`,
        text: why,
        holds: 'plan',
        lift: ['decide'],
        by: 'practised',
      },
    ]
  }
  if (verdict === 'wait') {
    return [
      {
        ...base,
        severity: 'take-care',
        title: `${of} is not told yet`,
        text: `${why} It decides how the course goes on: ask, and note it at Return.`,
        holds: 'nothing',
        lift: ['look'],
        by: 'worker',
      },
    ]
  }
  const until = thing === 'wait' ? weekMore(known) : undefined
  if (until !== undefined && today >= until) return []
  if (until !== undefined) {
    return [
      {
        ...base,
        severity: 'postpone',
        title: `${of}: a week more`,
        text: `${why} The skin gets a week more than usual: from ${dayWords(until, today)} on.`,
        holds: 'plan',
        lift: ['wait', 'decide'],
        by: 'practised',
        until,
      },
    ]
  }
  return [
    {
      ...base,
      severity: 'take-care',
      title: `${of}: change one thing`,
      text: `${why} ${capital(THINGS[thing ?? 'wait'])}.`,
      holds: 'nothing',
      lift: ['decide'],
      by: 'worker',
    },
  ]
}

/** A week after the day on which the next session would have begun; undefined where none was told. */
function weekMore({ windows, offset }: Known): IsoDate | undefined {
  const from = Math.min(...windows.map((w) => w.window.fromMs))
  return Number.isFinite(from) ? dateAt(from + 7 * DAY_MS, offset) : undefined
}

/** Whether this visit is one of the first sessions. */
export const isNewcomer = ({ asked, trial, course, figures }: Known): boolean =>
  asked.answers['first-ever']?.yes === true ||
  trial?.past !== undefined ||
  (course !== undefined && course.nth < figures(COURSE_CONSTANTS.sessions))

/** What a change asks of the strokes themselves; nothing once a worker has decided otherwise. */
export function changeOf(
  { withGrainOnly, onePass }: Screening,
  skin: readonly VisitFinding[],
  { course }: Known,
): Pick<Screening, 'withGrainOnly' | 'onePass'> {
  const stands = skin.some((f) => f.about === 'course' && !f.decided)
  const thing = stands && course?.verdict === 'change' ? course.thing : undefined
  return {
    withGrainOnly: withGrainOnly || thing === 'with-grain',
    onePass: onePass || thing === 'one-pass',
  }
}
