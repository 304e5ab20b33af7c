import ical, { ICalCalendarMethod } from 'ical-generator'
import type { Express } from 'express'
import type { CarePlan } from '../../core/care/clearances.ts'
import { SERVICES } from '../../core/services.ts'
import type { VisitPage } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { mount } from '../http/mount.ts'
import { HttpProblem } from '../http/problem.ts'
import { visitPage } from '../visits/page.ts'

/** Half an hour: long enough to be seen in a calendar. */
const ENTRY_MS = 30 * 60_000

export function careRoutes(app: Express, db: Database): void {
  const care = async (id: string): Promise<{ page: VisitPage; care: CarePlan }> => {
    const page = await visitPage(db, id)
    if (!page.care) {
      throw new HttpProblem(409, 'not-finished', 'Aftercare begins when the service is finished.')
    }
    return { page, care: page.care }
  }
  mount(app, 'care', async ({ params }) => (await care(params.id)).care)
  mount(app, 'careCalendar', async ({ params, response }) => {
    const { page, care: plan } = await care(params.id)
    response
      .type('text/calendar')
      .setHeader('Content-Disposition', 'attachment; filename="aftercare.ics"')
    response.send(careCalendar(page, plan))
  })
}

/** The aftercare as a calendar: the end of each thing to keep off, and each time to look and tell. */
export function careCalendar(
  page: Pick<VisitPage, 'id' | 'service' | 'window'>,
  care: CarePlan,
): string {
  const calendar = ical({
    name: `After your ${SERVICES[page.service].name.toLowerCase()}`,
    prodId: { company: 'Slow Tide', product: 'Aftercare', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
  })
  for (const c of care.clearances) {
    const at = c.kind === 'avoid' ? c.untilMs : c.fromMs
    calendar.createEvent({
      id: `${page.id}-${c.id}@slow-tide`,
      start: new Date(at),
      end: new Date(at + ENTRY_MS),
      stamp: new Date(care.endedAtMs),
      summary: c.kind === 'avoid' ? `Over: ${c.title.toLowerCase()}` : c.title,
      description: c.text,
    })
  }
  if (page.window) {
    calendar.createEvent({
      id: `${page.id}-window@slow-tide`,
      start: new Date(page.window.fromMs),
      end: new Date(page.window.toMs),
      stamp: new Date(care.endedAtMs),
      summary: 'Good days for the next visit',
      description: page.window.reasons.map((r) => r.text).join(' '),
    })
  }
  return calendar.toString()
}
