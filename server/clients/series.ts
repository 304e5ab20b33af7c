/** A client's visits ahead as a calendar (RFC 5545). */
import { figuresOf } from '../../core/register/index.ts'
import { clientSeries, lineOf, usualWork, type SeriesVisit } from '../../core/ahead/index.ts'
import type { TideLineOf } from '../../contract/types.ts'
import { SERVICES } from '../../core/services/index.ts'
import { offsetHere } from '../../core/time/index.ts'
import ical, { ICalCalendarMethod } from 'ical-generator'
import type { Database } from '../db/connection.ts'
import { json, type Json } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
import { HttpProblem } from '../http/problem.ts'
import { clientPage } from './service.ts'

const NAMES: Record<Exclude<SeriesVisit['kind'], 'whole'>, string> = {
  lip: 'Upper lip alone',
  line: 'The line alone',
}

/**
 * @param through a day, `YYYY-MM-DD`
 * @throws HttpProblem 404, 409 `no-window`
 */
export async function seriesCalendar(db: Database, id: string, through: string): Promise<string> {
  const [page, house] = await Promise.all([clientPage(db, id), readHouse(db)])
  const { client, model, tide } = page
  const work = usualWork(page.due, client.service)
  const last = page.visits.find((v) => v.id === work?.visitId)
  const window = lineOf<TideLineOf>(tide, work)?.window
  if (!window || !last) {
    throw new HttpProblem(
      409,
      'no-window',
      'The next visits can be laid out after the first service.',
    )
  }
  const [row] = await db.select<{ leftMm: Json<Record<string, number>> | null }>(
    'SELECT leftMm FROM visits WHERE id = ?',
    [last.id],
  )
  const nowMs = Date.now()
  const series = clientSeries(figuresOf(house.figures), {
    service: client.service,
    skin: client.skin,
    model,
    schools: { ...house.schools, ...client.schools },
    noFragrance: false,
    products: [],
    events: client.events,
    window,
    last: { endedAtMs: last.endedAtMs!, leftMm: json(row!.leftMm) },
    nowMs,
    throughMs: Date.parse(`${through}T23:59:59`),
    closed: house.closed,
    offset: offsetHere,
  })
  const schools = { ...house.schools, ...client.schools }
  const neutral = schools.titles === 'neutral'
  const calendar = ical({
    name: neutral ? house.name : `${SERVICES[client.service].name}, visits ahead`,
    prodId: { company: 'Slow Tide', product: 'Return', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
  })
  for (const visit of series) {
    const name = visit.kind === 'whole' ? SERVICES[client.service].name : NAMES[visit.kind]
    calendar.createEvent({
      id: `${id}-${visit.kind}-${visit.atMs}@slow-tide`,
      start: new Date(visit.fromMs),
      end: new Date(visit.toMs),
      allDay: true,
      stamp: new Date(nowMs),
      ...(neutral
        ? { summary: house.name }
        : {
            summary: visit.event ? `${name}, for ${visit.event.title}` : `${name}: good days`,
            description: visit.why,
          }),
    })
  }
  return calendar.toString()
}
