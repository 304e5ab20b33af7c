/** What clients are told of their hours, laid into the outbox; and the pages on which they answer. All of it part of a write. */
import { QueryTypes } from 'sequelize'
import { randomUUID } from 'node:crypto'
import { HOUR_DRAFTS, type HourKind, type HourTold } from '../../core/week/index.ts'
import type { House } from '../../contract/types.ts'
import { digestOf, newToken } from '../answer/tokens.ts'
import type { Database } from '../db/connection.ts'

export interface LinkOf {
  readonly clientId: string
  readonly appointmentId?: string
  readonly offerId?: string
  readonly untilMs: number
}

/** A page of its own for one hour; told once, in a message. */
export async function newHourLink(db: Database, base: string, of: LinkOf): Promise<string> {
  const token = newToken()
  const { clientId, appointmentId = null, offerId = null, untilMs } = of
  await db.sequelize.query(
    `INSERT INTO hour_links (digest, clientId, appointmentId, offerId, createdAtMs, expiresAtMs)
     VALUES (?, ?, ?, ?, ?, ?)`,
    {
      replacements: [digestOf(token), clientId, appointmentId, offerId, Date.now(), untilMs],
      type: QueryTypes.INSERT,
    },
  )
  return `${base}/hour/${token}`
}

/** As the client likes to be called. */
export async function calledOf(db: Database, clientId: string): Promise<string> {
  const [row] = await db.sequelize.query<{ name: string; calledName: string }>(
    'SELECT name, calledName FROM clients WHERE id = ?',
    { replacements: [clientId], type: QueryTypes.SELECT },
  )
  return row ? row.calledName || row.name.split(' ')[0]! : ''
}

export const workerCalled = (house: House, id: string): string =>
  house.workers.find((w) => w.id === id)?.name.split(' ')[0] ?? ''

export interface HourMessage {
  readonly clientId: string
  readonly workerId: string
  readonly appointmentId?: string
  readonly told: Pick<HourTold, 'when' | 'was' | 'link'>
  readonly dueAtMs?: number
  /** The hour that it tells of. */
  readonly aboutMs?: number
}

/** @returns the id of the message */
export async function putMessage(
  db: Database,
  house: House,
  kind: HourKind,
  { clientId, workerId, appointmentId, told, dueAtMs = Date.now(), aboutMs }: HourMessage,
): Promise<string> {
  const id = randomUUID()
  const draft = HOUR_DRAFTS[kind]({
    ...{ house: house.name, name: await calledOf(db, clientId) },
    ...{ worker: workerCalled(house, workerId), ...told },
  })
  await db.models.Message.create({
    ...{ ...draft, id, clientId, visitId: null, appointmentId: appointmentId ?? null },
    ...{ dueAtMs, state: 'waiting', aboutMs: aboutMs ?? null },
  })
  return id
}
