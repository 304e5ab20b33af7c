/** What is told after a service: looks at the skin, and hair felt, seen or measured. */
import type { BodyOf } from '../../contract/routes.ts'
import { readFigures } from '../house/service.ts'
import { zonesToLookAt } from '../../core/chair/index.ts'
import {
  checkMoment,
  summariseAnswers,
  type SkinAnswer,
  type Moment,
} from '../../core/looks/index.ts'
import { cameOutByRoot, meanLeft } from '../../core/history/index.ts'
import { DAY_MS } from '../../core/time/index.ts'
import type { VisitPage } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { HttpProblem } from '../http/problem.ts'
import { visitPage } from './page.ts'
import { joined, type AboutEntry } from './differences.ts'
import { readVisit, type VisitRecord } from './record.ts'

function requireFinished(visit: VisitRecord): void {
  if (visit.state !== 'finished') {
    throw new HttpProblem(
      409,
      'not-finished',
      'The service is not finished yet, so there is nothing to look back on.',
    )
  }
}

/** Writes an answer and what is summed up of all of them. Part of a write. */
export async function keepAnswer(
  db: Database,
  visit: VisitRecord,
  answer: SkinAnswer,
): Promise<void> {
  requireFinished(visit)
  checkMoment(await readFigures(db), visit.endedAtMs!, answer.moment, answer.atMs, Date.now())
  const own = new Set(zonesToLookAt(visit.plan, visit.loads, visit.atChair))
  const named = [...answer.zones, ...(answer.spots ?? [])]
  const stranger = named.find((z) => own.size > 0 && !own.has(z.zoneId))
  if (stranger) {
    throw new HttpProblem(
      422,
      'not-worked',
      `"${stranger.zoneId}" was not part of this service. Nothing was changed.`,
    )
  }
  // Nobody looked before the end: there the screen's clock had jumped back.
  const atMs = Math.max(answer.atMs, visit.endedAtMs!)
  const told = { ...answer, atMs, toldAtMs: Date.now() }
  const answers = [...visit.answers.filter((a) => a.moment !== answer.moment), told]
  await db.models.SkinAnswer.upsert({ visitId: visit.id, ...told })
  await sumUp(db, visit, answers)
}

const sumUp = async (db: Database, visit: VisitRecord, answers: readonly SkinAnswer[]) =>
  db.models.Visit.update(
    summariseAnswers(
      await readFigures(db),
      visit.endedAtMs!,
      answers,
      visit.loads ?? {},
      visit.atChair.redness,
    ),
    { where: { id: visit.id } },
  )

export async function saveSkinAnswer(
  db: Database,
  id: string,
  answer: SkinAnswer,
): Promise<VisitPage> {
  await db.write(async () => {
    const visit = await readVisit(db, id)
    const { moment } = answer
    const kept = visit.answers.find((a) => a.moment === moment)
    const about = { what: 'saveSkinAnswer', clientId: visit.clientId, visitId: id, under: moment }
    await keepAnswer(db, visit, await joined(db, about as AboutEntry, answer, kept))
  })
  return visitPage(db, id)
}

/** Takes an answer away: it was of another client, or never given. */
export async function removeSkinAnswer(
  db: Database,
  id: string,
  moment: Moment,
): Promise<VisitPage> {
  await db.write(async () => {
    const visit = await readVisit(db, id)
    requireFinished(visit)
    await db.models.SkinAnswer.destroy({ where: { visitId: id, moment } })
    await sumUp(
      db,
      visit,
      visit.answers.filter((a) => a.moment !== moment),
    )
  })
  return visitPage(db, id)
}

type HairBody = BodyOf<'addHairReading'>

/** Writes a reading of hair. Part of a write. */
export async function keepHair(db: Database, visit: VisitRecord, body: HairBody): Promise<void> {
  requireFinished(visit)
  const noon = Date.parse(`${body.date}T12:00:00`)
  const days = (noon - visit.endedAtMs!) / DAY_MS
  if (days <= 0 || noon > Date.now() + DAY_MS) {
    throw new HttpProblem(
      422,
      'not-after',
      'That day does not lie between the service and today. Nothing was changed.',
    )
  }
  const left = body.zoneId !== null ? visit.leftMm?.[body.zoneId] : undefined
  await db.models.HairReading.bulkCreate(
    [
      {
        id: body.id,
        clientId: visit.clientId,
        visitId: visit.id,
        kind: body.kind,
        days,
        zoneId: body.zoneId,
        lengthMm: body.lengthMm ?? null,
        method: body.kind === 'measured' ? (body.method ?? 'photo') : null,
        leftMm: left ?? meanLeft(visit.leftMm),
        byRoot: cameOutByRoot(visit.left, body.zoneId) ? 1 : 0,
        atMs: noon,
      },
    ],
    { ignoreDuplicates: true },
  )
}

export async function addHairReading(db: Database, id: string, body: HairBody): Promise<VisitPage> {
  await db.write(async () => keepHair(db, await readVisit(db, id), body))
  return visitPage(db, id)
}

export async function removeHairReading(db: Database, id: string): Promise<{ removed: true }> {
  await db.write(() => db.models.HairReading.destroy({ where: { id } }))
  return { removed: true }
}
