/** The house: its name, its workers, its schools, who works at this screen. */
import { DEFAULT_SCHOOLS, SCHOOL_IDS, SCHOOLS, type SchoolId, type Schools } from '../../core/house/schools.ts'
import type { House, Worker } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { HttpProblem } from '../http/problem.ts'

/** Reads the house. Schools that were never chosen have their default. */
export async function readHouse(db: Database): Promise<House> {
  const [settings, workers] = await Promise.all([
    db.models.Setting.findAll({ raw: true }),
    db.models.Worker.findAll({ raw: true, order: [['name', 'ASC']] }),
  ])
  const value = new Map(settings.map((s) => [s.key, parse(s.value)]))
  const chosen = (value.get('schools') ?? {}) as Partial<Schools>
  return {
    name: (value.get('name') as string | undefined) ?? 'This house',
    schools: { ...DEFAULT_SCHOOLS, ...chosen },
    workers: workers as unknown as Worker[],
    workerId: (value.get('workerId') as string | undefined) ?? workers[0]?.id ?? '',
  }
}

/** Raw reads give JSON columns as text. */
function parse(value: unknown): unknown {
  return typeof value === 'string' ? (JSON.parse(value) as unknown) : value
}

/** Changes schools or who works here. */
export async function changeHouse(
  db: Database,
  change: { schools?: Record<string, string>; workerId?: string },
): Promise<House> {
  const before = await readHouse(db)
  if (change.workerId !== undefined && !before.workers.some((w) => w.id === change.workerId)) {
    throw new HttpProblem(422, 'no-such-worker', 'That worker is not of this house. Nothing was changed.')
  }
  for (const [id, choice] of Object.entries(change.schools ?? {})) {
    const known =
      SCHOOL_IDS.includes(id as SchoolId) &&
      SCHOOLS[id as SchoolId].choices.some((c) => c.id === choice)
    if (!known) {
      throw new HttpProblem(422, 'no-such-school', `There is no school "${choice}" for "${id}". Nothing was changed.`)
    }
  }
  await db.writes.run(async () => {
    if (change.schools) {
      await db.models.Setting.upsert({
        key: 'schools',
        value: { ...before.schools, ...change.schools },
      })
    }
    if (change.workerId !== undefined) {
      await db.models.Setting.upsert({ key: 'workerId', value: change.workerId })
    }
  })
  return readHouse(db)
}

/** Makes sure there is somebody to work: a house without workers gets one of each hand. */
export async function ensureWorkers(db: Database): Promise<void> {
  if ((await db.models.Worker.count()) > 0) return
  await db.writes.run(() =>
    db.models.Worker.bulkCreate([
      { id: '00000000-0000-4000-8000-000000000001', name: 'Right hand', role: 'barber', hand: 'right' },
      { id: '00000000-0000-4000-8000-000000000002', name: 'Left hand', role: 'esthetician', hand: 'left' },
    ]),
  )
}
