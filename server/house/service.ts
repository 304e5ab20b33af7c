/** The house: its name, its workers, its schools, who works at this screen. */
import type { Transaction } from 'sequelize'
import {
  DEFAULT_SCHOOLS,
  SCHOOL_IDS,
  SCHOOLS,
  type SchoolId,
  type Schools,
} from '../../core/house/schools.ts'
import type { House, Worker } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { json, select } from '../db/select.ts'
import { HttpProblem } from '../http/problem.ts'

/** What is kept under the one settings key. */
interface KeptHouse {
  name?: string
  schools?: Partial<Schools>
  workerId?: string
}

const KEY = 'house'

/** Reads the house. Schools that were never chosen have their default. */
export async function readHouse(db: Database): Promise<House> {
  const [settings, workers] = await Promise.all([
    select(db, 'SELECT value FROM settings WHERE key = ?', [KEY]),
    select(db, 'SELECT id, name, role, hand FROM workers ORDER BY name'),
  ])
  const kept = json<KeptHouse>(settings[0]?.['value']) ?? {}
  return {
    name: kept.name ?? 'This house',
    schools: { ...DEFAULT_SCHOOLS, ...kept.schools },
    workers: workers as unknown as Worker[],
    workerId: kept.workerId ?? String(workers[0]?.['id'] ?? ''),
  }
}

/** Keeps what is given of the house, beside what was kept before. */
export async function keepHouse(
  db: Database,
  change: KeptHouse,
  transaction: Transaction | null = null,
): Promise<void> {
  const before = await db.models.Setting.findByPk(KEY, { transaction })
  await db.models.Setting.upsert(
    { key: KEY, value: { ...(before?.value as KeptHouse | undefined), ...change } },
    { transaction },
  )
}

/** Changes schools, who works at this screen, or a worker's name, role and hand. */
export async function changeHouse(
  db: Database,
  change: { schools?: Record<string, string>; workerId?: string; worker?: Worker },
): Promise<House> {
  const before = await readHouse(db)
  const named = [change.workerId, change.worker?.id].filter((id) => id !== undefined)
  if (named.some((id) => !before.workers.some((w) => w.id === id))) {
    throw new HttpProblem(
      422,
      'no-such-worker',
      'That worker is not of this house. Nothing was changed.',
    )
  }
  for (const [id, choice] of Object.entries(change.schools ?? {})) {
    const known =
      SCHOOL_IDS.includes(id as SchoolId) &&
      SCHOOLS[id as SchoolId].choices.some((c) => c.id === choice)
    if (!known) {
      throw new HttpProblem(
        422,
        'no-such-school',
        `There is no school "${choice}" for "${id}". Nothing was changed.`,
      )
    }
  }
  await db.writes.run(async () => {
    if (change.worker) {
      await db.models.Worker.update(change.worker, { where: { id: change.worker.id } })
    }
    await keepHouse(db, {
      ...(change.schools && { schools: { ...before.schools, ...change.schools } }),
      ...(change.workerId !== undefined && { workerId: change.workerId }),
    })
  })
  return readHouse(db)
}

/** Makes sure there is somebody to work: a house without workers gets one of each hand. */
export async function ensureWorkers(db: Database): Promise<void> {
  if ((await db.models.Worker.count()) > 0) return
  await db.writes.run(() =>
    db.models.Worker.bulkCreate([
      {
        id: '00000000-0000-4000-8000-000000000001',
        name: 'Right hand',
        role: 'barber',
        hand: 'right',
      },
      {
        id: '00000000-0000-4000-8000-000000000002',
        name: 'Left hand',
        role: 'esthetician',
        hand: 'left',
      },
    ]),
  )
}
