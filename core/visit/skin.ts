/** What the skin of earlier visits says of this one: taken badly, not settled, too soon. */
import type { Figures } from '../house/index.ts'
import {
  AREAS,
  areasWorked,
  type SkinAnswer,
  aftermathOf,
  severeSigns,
  zonesOf,
  type Aftermath,
  type PastVisit,
} from '../looks/index.ts'
import { homeWords, rednessSeen } from '../history/index.ts'
import { zoneInWords, type ZoneId } from '../zones/index.ts'
import { skinSettles, type VisitWindow } from '../regrowth/index.ts'
import { type Job, jobName, kindOfWork, zonesOfJobs } from '../services/index.ts'
import { listWords } from '../words.ts'
import { CARE_CONSTANTS, longNicks } from '../care/index.ts'
import { dateAt, DAY_MS, dayWords, type IsoDate, type Offset } from '../time/index.ts'
import type { Known, VisitFinding } from './types.ts'

const on = (known: Pick<Known, 'offset'>, ms: number): IsoDate => dateAt(ms, known.offset)

/** Places as a sentence names them: one or two by name, more of them by the part of the face or body. */
export function zoneWords(zones: readonly string[]): string {
  if (zones.length === 0) return 'no place in particular'
  const names =
    zones.length <= 2
      ? zones.map((z) => zoneInWords(z as ZoneId))
      : areasWorked(zones).map((a) => AREAS[a].name)
  return names.length === 0 ? `${zones.length} zones` : listWords(names)
}

/** What is said at the chair when a severe answer to an earlier visit comes in meanwhile; undefined where it is not severe. */
export function newsAtChair(
  figures: Figures,
  answer: Pick<SkinAnswer, 'zones' | 'feeling' | 'source'>,
): { words: string; zones: { zoneId: ZoneId; redness: number }[] } | undefined {
  const signs = severeSigns(figures, answer)
  if (signs.length === 0) return undefined
  const who = answer.source === 'client' ? 'The client has answered about' : 'Written down about'
  const places = zonesOf(figures, answer)
  return {
    words: `${who} an earlier visit: ${signs.join(', ')}; ${zoneWords(places)}.`,
    zones: answer.zones
      .filter((z) => places.includes(z.zoneId))
      .map((z) => ({ zoneId: z.zoneId as ZoneId, redness: z.redness })),
  }
}

/** Where something severe has not been worked since; undefined when all of it was. */
function notWorkedSince(
  found: Aftermath,
  past: PastVisit,
  later: readonly PastVisit[],
): { zones: readonly string[]; wide: boolean } | undefined {
  const worked = new Set(later.flatMap((p) => p.worked))
  const rest = found.zones.filter((z) => !worked.has(z))
  if (found.zones.length === 0) {
    return past.zones.some((z) => worked.has(z)) ? undefined : { zones: [], wide: true }
  }
  if (rest.length === 0) return undefined
  return { zones: rest, wide: found.wide && rest.length === found.zones.length }
}

/**
 * Answers that were severe, until somebody has seen the skin calm or has worked there since. Where the skin that was taken
 * badly is no part of this service it is only told.
 */
export function aftermathFindings(known: Known, today: IsoDate): VisitFinding[] {
  const own = new Set<string>(zonesOfJobs(known.jobs))
  return known.past.flatMap((past): VisitFinding[] => {
    const found = aftermathOf(known.figures, past)
    if (!found) return []
    const later = known.past.filter((p) => p.endedAtMs > past.endedAtMs)
    const still = notWorkedSince(found, past, later)
    if (!still) return []
    const here = still.zones.filter((z) => own.has(z)) as ZoneId[]
    const touches = here.length > 0 || (still.wide && past.zones.some((z) => own.has(z)))
    const when = dayWords(on(known, found.atMs), today)
    const what = `After the visit of ${dayWords(on(known, past.endedAtMs), today)}: ${found.signs.join(', ')}`
    const base = {
      about: 'aftermath' as const,
      id: `aftermath:${past.visitId}:${found.toldAtMs}`,
      title: what,
      mark: 'C' as const,
      visitId: past.visitId,
      zones: here,
    }
    const until = 'until somebody has seen the skin calm'
    if (!touches) {
      return [
        {
          ...base,
          severity: 'take-care',
          text: `Told on ${when}, elsewhere than this service works. Ask how it is.`,
          holds: 'nothing',
          lift: ['look', 'decide'],
          by: 'worker',
        },
      ]
    }
    const lifted = { lift: ['look', 'decide'], by: 'practised' } as const
    return [
      still.wide
        ? {
            ...base,
            ...lifted,
            severity: 'postpone',
            text: `Told on ${when}. No blade ${until}. If it spreads, blisters or lasts: a pharmacist or doctor first.`,
            holds: 'plan',
          }
        : {
            ...base,
            ...lifted,
            severity: 'leave-out',
            text: `Told on ${when}. Leave out ${zoneWords(here)} ${until}.`,
            holds: 'nothing',
          },
    ]
  })
}

/** Skin that was red and has neither been seen clear nor had its free days: the visit that it waits for longest. */
export function unsettledFindings(known: Known, today: IsoDate): VisitFinding[] {
  const own = new Set<string>(zonesOfJobs(known.jobs))
  const waits = known.past.map((past) => {
    const red = rednessSeen(past, (zone) => own.has(zone))
    return { past, until: on(known, skinSettles(known.figures, past.endedAtMs, red).skinMs) }
  })
  // By the day: nobody is sent away for the hour.
  const [longest] = waits
    .filter((w) => today < w.until)
    .sort((a, b) => b.until.localeCompare(a.until) || b.past.endedAtMs - a.past.endedAtMs)
  if (!longest) return []
  const { past, until } = longest
  return [
    {
      about: 'unsettled',
      id: `unsettled:${past.visitId}:${until}`,
      severity: 'postpone',
      title: 'Skin not settled',
      text: `Wait until ${dayWords(until, today)}: it was last seen red after the visit of ${dayWords(on(known, past.endedAtMs), today)} and not yet seen clear.`,
      mark: 'H',
      holds: 'plan',
      lift: ['wait', 'look', 'decide'],
      by: 'practised',
      until,
      visitId: past.visitId,
    },
  ]
}

/** Whether a window is still shut for want of a look alone: what is believed of the skin holds it, not the interval. */
export const lookFirst = (
  { skinMs }: Pick<VisitWindow, 'skinMs'>,
  offset: Offset,
  today: IsoDate,
): boolean => today < dateAt(skinMs, offset)

/** The window of a visit that opens last, and the job that it is told for. */
export function lastToOpen({ windows, jobs }: Pick<Known, 'windows' | 'jobs'>) {
  return windows.reduce<{ window: VisitWindow; job: Job } | undefined>(
    (latest, { jobId, window }) => {
      const job = jobs.find((j) => j.id === jobId)
      return job && (!latest || window.fromMs > latest.window.fromMs) ? { window, job } : latest
    },
    undefined,
  )
}

/** Sooner than the interval that skin or school asks for, or than the skin is likely clear. */
export function tooSoonFinding(known: Known, today: IsoDate): VisitFinding[] {
  const opens = lastToOpen(known)
  if (!opens) return []
  const { window, job } = opens
  const from = on(known, window.fromMs)
  // Skin that has not settled is told of for itself.
  if (today >= from || unsettledFindings(known, today).length > 0) return []
  const what = known.jobs.length > 1 ? `${jobName(job)}: ` : ''
  if (lookFirst(window, known.offset, today)) {
    const last = known.past.find((p) => p.jobs.some((j) => kindOfWork(j) === kindOfWork(job)))
    return [
      {
        about: 'too-soon',
        id: `too-soon:${from}`,
        severity: 'take-care',
        title: `${what}Look at the skin first`,
        text: `Nobody has seen it clear since the last service; by how this skin takes one it is likely clear from ${dayWords(on(known, window.skinMs), today)} on. Look before the first stroke.`,
        mark: 'H',
        holds: 'nothing',
        lift: ['look', 'wait'],
        by: 'worker',
        until: from,
        ...(last && { visitId: last.visitId }),
      },
    ]
  }
  return [
    {
      about: 'too-soon',
      id: `too-soon:${from}`,
      severity: 'take-care',
      title: `${what}Sooner than the interval`,
      text: `The next visit was told from ${dayWords(from, today)} on.`,
      mark: 'H',
      holds: 'nothing',
      lift: ['wait'],
      by: 'worker',
      until: from,
    },
  ]
}

/** A long nick that has not had its days: no blade goes over it, as its client was told. */
export function nickFindings(known: Known, today: IsoDate): VisitFinding[] {
  const { figures, past } = known
  const own = new Set<string>(zonesOfJobs(known.jobs))
  return past.flatMap((p): VisitFinding[] => {
    const zones = longNicks(figures, p).filter((z) => own.has(z)) as ZoneId[]
    const until = on(known, p.endedAtMs + figures(CARE_CONSTANTS.nickBladeDays) * DAY_MS)
    if (zones.length === 0 || today >= until) return []
    const when = dayWords(on(known, p.endedAtMs), today)
    return [
      {
        about: 'nick',
        id: `nick:${p.visitId}:${until}`,
        severity: 'leave-out',
        title: `A long nick on ${when}`,
        text: `No blade over ${zoneWords(zones)} until ${dayWords(until, today)}, or until somebody has seen it closed.`,
        mark: 'H',
        holds: 'nothing',
        lift: ['wait', 'decide'],
        by: 'worker',
        zones,
        until,
        visitId: p.visitId,
      },
    ]
  })
}

/** Skin of this visit that was worked at home since the last one: it is looked at before the first stroke. */
export function homeFinding(known: Known, today: IsoDate): VisitFinding[] {
  const own = new Set(zonesOfJobs(known.jobs))
  const [latest] = (known.home ?? []).filter((h) => h.zones.some((z) => own.has(z)))
  if (!latest) return []
  const zones = latest.zones.filter((z) => own.has(z))
  const when = dayWords(on(known, latest.atMs), today)
  return [
    {
      about: 'home',
      id: `home:${latest.id}`,
      severity: 'take-care',
      title: `Taken off at home on ${when}: ${homeWords({ ...latest, zones })}`,
      text: 'Nobody there knew the grain. Look and feel before the first stroke; what is red or sore is marked and left.',
      mark: 'H',
      holds: 'nothing',
      lift: ['look'],
      by: 'worker',
      zones,
    },
  ]
}
