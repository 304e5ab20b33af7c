/** A client as they are kept. */
import type { Client } from '../../contract/types.ts'
import { CLIENT_TEXT_IDS } from '../../core/client.ts'
import type { Database } from '../db/connection.ts'
import { json } from '../db/reader.ts'
import { notFound } from '../http/problem.ts'

/** Reads a client for showing only. */
export async function readClient(db: Database, id: string): Promise<Client> {
  const [row] = await db.select(
    `SELECT id, name, ${CLIENT_TEXT_IDS.join(', ')}, service, skin, schools, events, createdAtMs
     FROM clients WHERE id = ?`,
    [id],
  )
  if (!row) throw notFound('That client')
  return {
    ...(row as unknown as Client),
    skin: json<Client['skin']>(row['skin'])!,
    schools: json<Client['schools']>(row['schools']) ?? {},
    events: json<Client['events']>(row['events']) ?? [],
  }
}
