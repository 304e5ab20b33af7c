/** The chair as the rest of the server knows it: the services that run, and the one way in which events are stored. */
import { readFigures } from '../house/service.ts'
import { DomainError } from '../../core/errors.ts'
import { leftOpenSince } from '../../core/chair/index.ts'
import { newsAtChair } from '../../core/visit/index.ts'
import type { SkinAnswer } from '../../core/looks/index.ts'
import type { Database } from '../db/connection.ts'
import { HttpProblem } from '../http/problem.ts'
import { ChairDesk } from './desk.ts'
import { EventWriter } from './events.ts'
import { randomUUID } from 'node:crypto'

export interface Chair {
  readonly desk: ChairDesk
  readonly writer: EventWriter
}

/** One for each database: two writers would not know of each other's events. */
export function openChair(db: Database): Chair {
  const desk = new ChairDesk(db)
  return { desk, writer: new EventWriter(db, desk) }
}

/**
 * A severe answer that comes in while its client is in the chair pauses that service on every screen: no stroke is counted
 * until somebody has looked and gone on. A service that nobody ended stays as old as it is.
 */
export async function tellChair(
  db: Database,
  { desk, writer }: Chair,
  clientId: string,
  answer: SkinAnswer,
): Promise<void> {
  const figures = await readFigures(db)
  const news = newsAtChair(figures, answer)
  if (!news) return
  const running = await db.select(
    "SELECT id FROM visits WHERE clientId = ? AND state = 'running'",
    [clientId],
  )
  for (const { id } of running as { id: string }[]) {
    try {
      const atMs = Date.now()
      const service = await desk.of(id)
      if (!service || leftOpenSince(figures, service.live.state, atMs) !== undefined) continue
      // An answer that is kept once more says nothing that was not looked at.
      if (service.events.some((e) => e.kind === 'paused' && e.reason === news.words)) continue
      await writer.add(id, {
        id: randomUUID(),
        screen: randomUUID(),
        n: 1,
        kind: 'paused',
        atMs,
        reason: news.words,
        detail: { zones: news.zones },
      })
    } catch (error) {
      // Ended or erased in this very moment: the answer is kept all the same, and holds the next visit.
      if (!(error instanceof DomainError || error instanceof HttpProblem)) throw error
    }
  }
}
