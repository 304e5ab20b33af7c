/** What the studio's visits teach, from the sums that are kept of each client; and those sums, made anew where they are old. */
import {
  learnFromSums,
  sumClient,
  type ClientSums,
  type StudioLearned,
} from '../../core/history/index.ts'
import { json, type Json, type Reads } from '../db/reader.ts'
import { readFigures } from '../house/service.ts'
import { visitFacts } from './history.ts'
import { expectedOf } from '../../core/skin/index.ts'
import { studioSkin } from './skin.ts'

/** Sums of a client as they are kept. */
export interface MadeSums {
  readonly clientId: string
  readonly sums: ClientSums
  /** When time alone makes them old; null when it never does. */
  readonly untilMs: number | null
}

export async function makeSums(
  db: Reads,
  ids: readonly string[],
  nowMs: number,
): Promise<MadeSums[]> {
  const [figures, clients, skin] = await Promise.all([
    readFigures(db),
    visitFacts(db, ids),
    studioSkin(db),
  ])
  return clients.map((client) => {
    const sums = sumClient(figures, client, expectedOf(skin, client), nowMs)
    return { clientId: client.clientId, sums, untilMs: sums.rates.changesAtMs }
  })
}

/** What the sums of all clients tell. Clients whose sums were not made yet are left out. */
export async function learned(db: Reads): Promise<StudioLearned> {
  const figures = await readFigures(db)
  const clients: ClientSums[] = []
  // Some at a time: the text of all at once would be held beside what is read from it.
  for (let after = ''; ;) {
    const rows = await db.select<{ clientId: string; sums: Json<ClientSums> }>(
      'SELECT clientId, sums FROM client_sums WHERE clientId > ? ORDER BY clientId LIMIT 250',
      [after],
    )
    const last = rows.at(-1)
    if (!last) return learnFromSums(figures, clients)
    for (const { sums } of rows) clients.push(json(sums))
    after = last.clientId
  }
}
