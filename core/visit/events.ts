/** Events of the client that lie near: a note before the blade, since skin must be in order for them. */
import { capital } from '../words.ts'
import type { ClientEvent } from '../ahead/index.ts'
import { dateAt, daysBetween, type Offset } from '../time/index.ts'
import type { VisitFinding } from './types.ts'

/** Events farther ahead than this are no matter of today, days. */
const SOON_DAYS = 60

export function eventNotes(
  events: readonly ClientEvent[],
  nowMs: number,
  offset: Offset,
): VisitFinding[] {
  const today = dateAt(nowMs, offset)
  return events
    .map((e) => ({ ...e, days: daysBetween(today, dateAt(e.atMs, offset)) }))
    .filter((e) => e.atMs > nowMs && e.days <= SOON_DAYS)
    .sort((a, b) => a.atMs - b.atMs)
    .map(({ id, title, days }) => ({
      about: 'event',
      id: `event:${id}`,
      severity: 'note',
      title: `${capital(title)} ${days === 0 ? 'today' : `in ${days} ${days === 1 ? 'day' : 'days'}`}`,
      text: 'Skin must be in order for it.',
      mark: 'C',
      holds: 'nothing',
      lift: [],
      by: 'nobody',
    }))
}
