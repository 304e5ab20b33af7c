/** A client as they are kept. */
import type { Client } from '../../contract/types.ts'
import { CLIENT_TEXT_IDS } from '../../core/client.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { notFound } from '../http/problem.ts'

type ClientColumns = Omit<Client, 'skin' | 'schools' | 'events'> & {
  skin: Json<Client['skin']>
  schools: Json<Client['schools']> | null
  events: Json<Client['events']> | null
}

/** Reads a client for showing only. */
export async function readClient(db: Reads, id: string): Promise<Client> {
  const [row] = await db.select<ClientColumns>(
    `SELECT id, name, ${CLIENT_TEXT_IDS.join(', ')}, service, skin, schools, events, createdAtMs
     FROM clients WHERE id = ?`,
    [id],
  )
  if (!row) throw notFound('That client')
  return {
    ...row,
    skin: json(row.skin),
    schools: json(row.schools) ?? {},
    events: json(row.events) ?? [],
  }
}
