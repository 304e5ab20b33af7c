/** A visit with everything its stations show. */
import { figuresOf } from '../../core/register/register.ts'
import { carePlan } from '../../core/care/clearances.ts'
import type { AtChair } from '../../core/looks/atChair.ts'
import { zonesToLookAt } from '../../core/chair/outcome.ts'
import { BEFORE_START } from '../../core/chair/state.ts'
import { replay } from '../../core/chair/service.ts'
import { learnGrowth } from '../../core/history/learn.ts'
import { windowAfter } from '../../core/history/window.ts'
import type { KeepLine } from '../../core/lines/keepLine.ts'
import { DAY_MS } from '../../core/time/dates.ts'
import type { SkinAndHair } from '../../core/client.ts'
import type { Schools } from '../../core/house/schools.ts'
import type { Plan } from '../../core/plan/types.ts'
import type { ServiceId } from '../../core/services/index.ts'
import type { GateFacts } from '../../core/visit/known.ts'
import type { HairReading, SkinAnswer } from '../../core/looks/answers.ts'
import type { House, VisitPage } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { json } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
import { readFacts } from './known.ts'
import { readHair, readVisit, type VisitRecord } from './record.ts'

export async function visitPage(db: Database, id: string): Promise<VisitPage> {
  const [visit, house] = await Promise.all([readVisit(db, id), readHouse(db)])
  const [hair, before] = await Promise.all([
    readHair(db, visit.clientId),
    linesBefore(db, visit.clientId, id),
  ])
  return pageOf(visit, house, hair, before, await readFacts(db, visit, house, hair))
}

/** A visit as its stations show it, from what is kept of it. */
export function pageOf(
  visit: VisitRecord,
  house: House,
  hair: readonly (HairReading & { leftMm: number })[],
  before: VisitPage['before'],
  facts: GateFacts,
): VisitPage {
  const { skin, schools, worstRedness: _worst, bumps: _bumps, ...shown } = visit
  const { plan, endedAtMs, service, answers, leftMm, atChair } = shown
  const chair = plan ? replay(plan, visit.events) : BEFORE_START
  const after =
    endedAtMs === null
      ? { care: null, window: null }
      : afterService(
          {
            service,
            skin,
            schools: plan?.schools ?? { ...house.schools, ...schools },
            plan,
            endedAtMs,
            leftMm,
            answers,
            products: shown.products,
            atChair,
          },
          house,
          hair,
        )
  return {
    ...shown,
    before,
    chair,
    ...after,
    facts,
    lookAt: endedAtMs === null ? [] : zonesToLookAt(plan, visit.loads, atChair),
    hair: hair.filter((h) => h.visitId === visit.id),
  }
}

/** What a finished service gives to go by afterwards. */
export interface AfterFacts {
  readonly service: ServiceId
  readonly skin: SkinAndHair
  readonly schools: Schools
  readonly plan: Pick<Plan, 'schools' | 'noFragrance'> | null
  readonly endedAtMs: number
  readonly leftMm: Readonly<Record<string, number>> | null
  readonly answers: readonly SkinAnswer[]
  readonly products: readonly string[]
  readonly atChair: AtChair
}

/** The care that goes home, and the window of the next visit. */
export function afterService(
  f: AfterFacts,
  house: House,
  hair: readonly (HairReading & { leftMm: number })[],
): Pick<VisitPage, 'care' | 'window'> {
  const { service, skin, endedAtMs, plan, leftMm, answers } = f
  const figures = figuresOf(house.figures)
  const growth = learnGrowth(figures, skin, service, hair)
  const window = windowAfter(
    figures,
    { service, endedAtMs, leftMm, answers, redAtChair: f.atChair.redness },
    skin,
    f.schools,
    growth,
  )
  return {
    window,
    care: plan
      ? carePlan(figures, service, skin, plan.schools, plan.noFragrance, endedAtMs, {
          products: house.products.filter((p) => f.products.includes(p.id)),
          atChair: f.atChair,
          hairShowsMs: window ? endedAtMs + window.seen.even * DAY_MS : undefined,
        })
      : null,
  }
}

/** The keep-lines of the visit before this one, to recall and to measure the drift against. */
async function linesBefore(
  db: Database,
  clientId: string,
  id: string,
): Promise<VisitPage['before']> {
  const [row] = await db.select(
    `SELECT id, endedAtMs, notes ->> '$.lines' AS lines FROM visits
     WHERE clientId = ?1 AND state = 'finished' AND id <> ?2
       AND createdAtMs < (SELECT createdAtMs FROM visits WHERE id = ?2)
     ORDER BY createdAtMs DESC LIMIT 1`,
    [clientId, id],
  )
  if (!row) return null
  return {
    visitId: row['id'] as string,
    atMs: row['endedAtMs'] as number,
    lines: json<KeepLine[]>(row['lines'])!,
  }
}
