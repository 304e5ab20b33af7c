import { whenWords, dateWords } from '../../core/time/index.ts'
import type { CarePlan } from '../../core/care/index.ts'
import { jobsWords } from '../../core/services/index.ts'
import { lowerFirst } from '../../core/words.ts'
import ical, { ICalCalendarMethod } from 'ical-generator'
import type { Express } from 'express'
import type { Message, VisitPage } from '../../contract/types.ts'
import type { Schools } from '../../core/house/index.ts'
import type { Database } from '../db/connection.ts'
import { json, type Json } from '../db/reader.ts'
import { mount } from '../http/mount.ts'
import { readHouse } from '../house/service.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { visitPage } from '../visits/page.ts'
import { careSheet } from './sheet.ts'

/** The outbox: what is due about now, and what lies round it. */
async function readMessages(db: Database, id?: string): Promise<Message[]> {
  return db.select<Message>(
    `SELECT m.id, m.visitId, m.clientId, c.name AS "to", m.kind, m.subject, m.text, m.dueAtMs, m.state
     FROM messages m JOIN clients c ON c.id = m.clientId
     ${id === undefined ? '' : 'WHERE m.id = ?'} ORDER BY ABS(m.dueAtMs - ?) LIMIT 300`,
    [...(id === undefined ? [] : [id]), Date.now()],
  )
}

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
  mount(app, 'careSheet', async ({ params, response }) => {
    const [{ page, care: plan }, house] = await Promise.all([care(params.id), readHouse(db)])
    const [client] = await db.select('SELECT name, calledName FROM clients WHERE id = ?', [
      page.clientId,
    ])
    const bytes = await careSheet({
      care: plan,
      client: String(client!['calledName'] || client!['name']),
      service: jobsWords(page.jobs),
      house: house.name,
      next: page.window
        ? `${dateWords(page.window.fromMs)} – ${dateWords(page.window.toMs)}`
        : undefined,
      when: whenWords,
    })
    response
      .type('application/pdf')
      .setHeader('Content-Disposition', 'inline; filename="aftercare.pdf"')
    response.send(bytes)
  })
  mount(app, 'messages', async () => readMessages(db))
  mount(app, 'changeMessage', async ({ params, body }) => {
    await db.write(async () => {
      const [changed] = await db.models.Message.update(body, {
        where: { id: params.id },
      })
      if (changed === 0) throw notFound('That message')
    })
    return (await readMessages(db, params.id))[0]!
  })
  mount(app, 'careCalendar', async ({ params, response }) => {
    const [{ page, care: plan }, house] = await Promise.all([care(params.id), readHouse(db)])
    const [client] = await db.select<{ schools: Json<Partial<Schools>> | null }>(
      'SELECT schools FROM clients WHERE id = ?',
      [page.clientId],
    )
    const { titles } = { ...house.schools, ...(client?.schools && json(client.schools)) }
    response
      .type('text/calendar')
      .setHeader('Content-Disposition', 'attachment; filename="aftercare.ics"')
    response.send(careCalendar(page, plan, titles === 'neutral' ? house.name : undefined))
  })
}

/**
 * The aftercare as a calendar: the end of each thing to keep off, and each time to look and tell.
 * @param neutral what every entry is titled instead of what it is about
 */
export function careCalendar(
  page: Pick<VisitPage, 'id' | 'jobs' | 'window'>,
  care: CarePlan,
  neutral?: string,
): string {
  const titled = (summary: string, description: string) =>
    neutral === undefined ? { summary, description } : { summary: neutral }
  const calendar = ical({
    name: neutral ?? `After your ${lowerFirst(jobsWords(page.jobs))}`,
    prodId: { company: 'Slow Tide', product: 'Aftercare', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
  })
  for (const c of care.clearances) {
    // What is normal, and what to watch for, is no appointment.
    if (c.kind === 'normal' || c.kind === 'watch') continue
    const at = c.kind === 'avoid' ? c.untilMs : c.fromMs
    calendar.createEvent({
      id: `${page.id}-${c.id}@slow-tide`,
      start: new Date(at),
      end: new Date(at + ENTRY_MS),
      stamp: new Date(care.endedAtMs),
      ...titled(c.kind === 'avoid' ? `Over: ${c.title.toLowerCase()}` : c.title, c.text),
    })
  }
  if (page.window) {
    calendar.createEvent({
      id: `${page.id}-window@slow-tide`,
      start: new Date(page.window.fromMs),
      end: new Date(page.window.toMs),
      stamp: new Date(care.endedAtMs),
      ...titled('Good days for the next visit', page.window.reasons.map((r) => r.text).join(' ')),
    })
  }
  return calendar.toString()
}
