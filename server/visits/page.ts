/** A visit with everything its stations show. */
import { afterService, soonest, type GateFacts } from '../../core/visit/index.ts'
import { readersOf } from '../../core/grain/index.ts'
import { figuresOf } from '../../core/register/index.ts'
import { zonesToLookAt, BEFORE_START, replay } from '../../core/chair/index.ts'
import { type KeepLine, keptLines } from '../../core/lines/index.ts'
import { notCutAtHome, type HomeWork, type KeptHair } from '../../core/history/index.ts'
import type { SkinOf } from '../../core/regrowth/index.ts'
import { offsetHere } from '../../core/time/index.ts'
import type { House, VisitPage } from '../../contract/types.ts'
import { readHistory, skinFrom } from '../clients/model.ts'
import type { Database } from '../db/connection.ts'
import { json, type Json } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
import { readFacts } from './known.ts'
import { readHair, readVisit, type VisitRecord } from './record.ts'

export async function visitPage(db: Database, id: string): Promise<VisitPage> {
  const [visit, house] = await Promise.all([readVisit(db, id), readHouse(db)])
  const [hair, before, history] = await Promise.all([
    readHair(db, visit.clientId),
    linesBefore(db, visit.clientId, id),
    visit.state === 'finished' ? readHistory(db, visit.clientId) : undefined,
  ])
  const facts = await readFacts(db, visit, house, hair)
  const skinOf = history && skinFrom(figuresOf(house.figures), history, visit.skin, visit.jobs)
  // What was done at home after the next visit is that one's.
  const next = history?.visits.findLast((v) => (v.endedAtMs ?? 0) > visit.endedAtMs!)
  const home = history?.home.filter((h) => !next || h.atMs < next.endedAtMs!) ?? []
  return pageOf(visit, house, hair, before, facts, skinOf, home)
}

/** A visit as its stations show it, from what is kept of it. */
export function pageOf(
  visit: VisitRecord,
  house: House,
  hair: readonly KeptHair[],
  before: VisitPage['before'],
  facts: GateFacts,
  skinOf: SkinOf | undefined,
  home: readonly HomeWork[] = [],
): VisitPage {
  const { skin, schools, readBy, left, worstRedness: _worst, bumps: _bumps, ...shown } = visit
  const figures = figuresOf(house.figures)
  const { plan, endedAtMs, answers, atChair } = shown
  const chair = plan ? replay(plan, visit.events) : BEFORE_START
  const after =
    endedAtMs === null || !skinOf
      ? { care: null, windows: [] }
      : afterService(
          figures,
          {
            jobs: left,
            skin,
            schools: plan?.schools ?? { ...house.schools, ...schools },
            plan,
            endedAtMs,
            answers,
            products: shown.products,
            ...{ atChair, home },
          },
          { ...house, offset: offsetHere },
          notCutAtHome(hair, home),
          skinOf,
        )
  return {
    ...shown,
    readerDeg: readersOf(figures, house.readers, readBy),
    before,
    chair,
    ...after,
    window: soonest(after.windows)?.window ?? null,
    facts,
    lookAt: endedAtMs === null ? [] : zonesToLookAt(plan, visit.loads, atChair),
    hair: hair.filter((h) => h.visitId === visit.id),
  }
}

/** The keep-lines of the visit before this one, to recall and to measure the drift against. */
async function linesBefore(
  db: Database,
  clientId: string,
  id: string,
): Promise<VisitPage['before']> {
  const [row] = await db.select<{ visitId: string; atMs: number; lines: Json<KeepLine[]> }>(
    `SELECT id AS visitId, endedAtMs AS atMs, notes ->> '$.lines' AS lines FROM visits
     WHERE clientId = ?1 AND state = 'finished' AND id <> ?2
       AND createdAtMs < (SELECT createdAtMs FROM visits WHERE id = ?2)
     ORDER BY createdAtMs DESC LIMIT 1`,
    [clientId, id],
  )
  return row ? { ...row, lines: keptLines(json(row.lines)) } : null
}
