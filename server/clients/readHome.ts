/** What a client took off at home, as it is kept. */
import type { HomeTool, HomeWork } from '../../core/history/index.ts'
import type { ZoneId } from '../../core/zones/index.ts'
import { json, type Json, type Reads } from '../db/reader.ts'

interface Columns {
  id: string
  atMs: number
  zones: Json<ZoneId[]>
  tool: HomeTool
  fresh: number
  dull: number
  source: HomeWork['source']
  toldAtMs: number
}

export const homeOf = (row: Columns): HomeWork => ({
  ...row,
  zones: json(row.zones),
  fresh: row.fresh > 0,
  dull: row.dull > 0,
})

/** Columns of home work, for one query of many clients. */
export type HomeColumns = Columns & { clientId: string }

/** Home work of a client, the latest first. */
export const readHome = async (db: Reads, clientId: string): Promise<HomeWork[]> =>
  (
    await db.select<Columns>(
      `SELECT id, atMs, zones, tool, fresh, dull, source, toldAtMs FROM home_work
       WHERE clientId = ? ORDER BY atMs DESC LIMIT 400`,
      [clientId],
    )
  ).map(homeOf)
