/** What the end of a service writes, and writes anew when something of it was taken back. */
import type { Live } from '../../core/chair/index.ts'
import { figuresOf } from '../../core/register/index.ts'
import { offsetHere, whenWords } from '../../core/time/index.ts'
import { finishService, type Finished, type FinishedJob } from '../../core/visit/index.ts'
import { readHistory, skinFrom } from '../clients/model.ts'
import type { Database } from '../db/connection.ts'
import { readHouse } from '../house/service.ts'
import { readHair, readVisit } from '../visits/record.ts'
import { randomUUID } from 'node:crypto'

/** What of a kept visit its end is read off with: as it stood before this write, skin and answers are not part of it. */
async function endOf(db: Database, visitId: string, { plan, state }: Live): Promise<Finished> {
  const visit = await readVisit(db, visitId)
  const [[row], house, hair, history] = await Promise.all([
    db.select('SELECT name, calledName FROM clients WHERE id = ?', [visit.clientId]),
    readHouse(db),
    readHair(db, visit.clientId),
    readHistory(db, visit.clientId),
  ])
  const figures = figuresOf(house.figures)
  const { skin, products, answers } = visit
  const skinOf = skinFrom(figures, history, skin, plan.jobs)
  const calledName = String(row!['calledName'] || row!['name'])
  return finishService(
    figures,
    { plan, state, skin, calledName, products, answers, hair, skinOf, hairLayer: visit.notes.hair },
    house,
    whenWords,
    offsetHere,
  )
}

/** Writes down what a finished service leaves, and what would be sent to the client. */
export async function keepEnd(db: Database, visitId: string, live: Live): Promise<void> {
  const end = await endOf(db, visitId, live)
  await writeEnd(db, visitId, end, end.jobs)
  const { clientId } = await readVisit(db, visitId)
  await db.models.Message.bulkCreate(
    end.messages.map((m) => ({ ...m, id: randomUUID(), clientId, visitId, state: 'waiting' })),
  )
}

/** Reads a finished service off anew, after something of it was taken back. What was told of the next visit was told. */
export async function amendEnd(db: Database, visitId: string, live: Live): Promise<void> {
  const end = await endOf(db, visitId, live)
  const told = await db.select<Pick<FinishedJob, 'id' | 'dueFromMs' | 'dueToMs'>>(
    `SELECT j.value ->> '$.id' AS id, j.value ->> '$.dueFromMs' AS dueFromMs, j.value ->> '$.dueToMs' AS dueToMs
     FROM visits v, json_each(v.jobs) j WHERE v.id = ?`,
    [visitId],
  )
  await writeEnd(
    db,
    visitId,
    end,
    end.jobs.map((job) => ({ ...job, ...told.find((t) => t.id === job.id) })),
  )
}

async function writeEnd(
  db: Database,
  visitId: string,
  { endedAtMs, firstLook, atChair, pace, misses, summary }: Finished,
  jobs: readonly FinishedJob[],
): Promise<void> {
  if (firstLook) {
    const told = { spots: [], feeling: {}, ...firstLook, toldAtMs: endedAtMs }
    await db.models.SkinAnswer.upsert({ visitId, ...told })
  }
  await db.models.Visit.update(
    { state: 'finished', endedAtMs, jobs, atChair, pace, misses, ...summary },
    { where: { id: visitId } },
  )
}
