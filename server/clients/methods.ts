/** What each way of taking hair off comes to in one place of a client, from their history. */
import { type Supposed, zoneHere } from '../../core/ahead/index.ts'
import { learnGrowth, methodOdds } from '../../core/history/index.ts'
import { figuresOf } from '../../core/register/index.ts'
import { pastJobs } from '../../core/visit/index.ts'
import type { ZoneId } from '../../core/zones/index.ts'
import type { AnswerOf } from '../../contract/routes.ts'
import type { Reads } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
import { othersOf, readHistory } from './model.ts'
import { readClient } from './read.ts'
import { keptPast } from './upkeep.ts'

export async function methodsFor(
  db: Reads,
  clientId: string,
  zoneId: ZoneId,
  supposed: Supposed = 'as-is',
): Promise<AnswerOf<'methods'>> {
  const { skin } = await readClient(db, clientId)
  const [history, house] = await Promise.all([readHistory(db, clientId), readHouse(db)])
  const figures = figuresOf(house.figures)
  const past = pastJobs(keptPast(history))
  const { mean } = othersOf(history, skin)
  return {
    here: zoneHere(figures, {
      ...{ zoneId, past, home: history.home, nowMs: Date.now(), supposed },
      growth: learnGrowth(figures, skin, [zoneId], history.hair)[zoneId]!,
      ask: methodOdds(figures, skin, past, history.home, mean),
    }),
  }
}
