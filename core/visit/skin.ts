/** What the skin of earlier visits says of this one: taken badly, not settled, too soon. */
import { AREAS, areasWorked } from '../history/clientAnswer.ts'
import { rednessSeen } from '../history/window.ts'
import { zoneInWords } from '../head/zoneFacts.ts'
import type { ZoneId } from '../head/zones.ts'
import { skinSettles } from '../regrowth/nextVisit.ts'
import { serviceZones } from '../services.ts'
import { listWords } from '../words.ts'
import { dateAt, dayWords, type IsoDate } from '../time/dates.ts'
import { aftermathOf, type Aftermath } from './aftermath.ts'
import type { Known, PastVisit, VisitFinding } from './types.ts'

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
  const own = new Set<string>(serviceZones(known.service))
  return known.past.flatMap((past): VisitFinding[] => {
    const found = aftermathOf(past)
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

/** Skin that was red and has neither been seen clear nor had its free days. */
export function unsettledFindings(known: Known, today: IsoDate): VisitFinding[] {
  const own = new Set<string>(serviceZones(known.service))
  return known.past.flatMap((past): VisitFinding[] => {
    const { skinMs } = skinSettles(
      past.endedAtMs,
      rednessSeen(past, (zone) => own.has(zone)),
    )
    const until = on(known, skinMs)
    // By the day: nobody is sent away for the hour.
    if (today >= until) return []
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
  })
}

/** Sooner than the interval that skin or school asks for. */
export function tooSoonFinding(known: Known, today: IsoDate): VisitFinding[] {
  const { window } = known
  if (!window) return []
  const from = on(known, window.fromMs)
  if (today >= from || today < on(known, window.skinMs)) return []
  return [
    {
      about: 'too-soon',
      id: `too-soon:${from}`,
      severity: 'take-care',
      title: 'Sooner than the interval',
      text: `The next visit was told from ${dayWords(from, today)} on.`,
      mark: 'H',
      holds: 'nothing',
      lift: ['wait'],
      by: 'worker',
      until: from,
    },
  ]
}
