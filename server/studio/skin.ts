/** What the studio has found for each kind of skin, from the sums kept with every answered visit. */
import { readFigures } from '../house/service.ts'
import type { Reads } from '../db/reader.ts'
import { learnStudio, type StudioSkin, type Reactivity } from '../../core/skin/index.ts'

/** One more answer moves the mean of many clients by very little: it is worked out anew only so often. */
const KEPT_MS = 30_000

const kept = new WeakMap<Reads, { atMs: number; skin: Promise<StudioSkin> }>()

export function studioSkin(db: Reads, nowMs = Date.now()): Promise<StudioSkin> {
  const had = kept.get(db)
  if (had && nowMs - had.atMs < KEPT_MS) return had.skin
  const skin = read(db)
  kept.set(db, { atMs: nowMs, skin })
  // What failed is asked for again by the next.
  skin.catch(() => kept.delete(db))
  return skin
}

async function read(db: Reads): Promise<StudioSkin> {
  const figures = await readFigures(db)
  const rows = await db.select<{
    clientId: string
    reactivity: Reactivity
    grade: number
    load: number
  }>(
    `SELECT s.clientId, c.skin ->> '$.reactivity' AS reactivity, s.grade, s.load FROM
       (SELECT clientId, SUM(gradeSum) AS grade, SUM(loadSum) AS load FROM visits INDEXED BY visits_sums
        WHERE loadSum IS NOT NULL GROUP BY clientId) s
     CROSS JOIN clients c ON c.id = s.clientId`,
  )
  return learnStudio(figures, rows)
}
