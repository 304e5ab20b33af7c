/** The house: its name, its workers, its schools, who works at this screen. */
import {
  DEFAULT_SCHOOLS,
  SCHOOL_IDS,
  SCHOOLS,
  type SchoolId,
  type Schools,
} from '../../core/house/schools.ts'
import type { House, Worker } from '../../contract/types.ts'
import type { Database } from '../db/connection.ts'
import { json } from '../db/reader.ts'
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
  const [row] = await db.select(
    `SELECT (SELECT value FROM settings WHERE key = ?) AS kept,
      (SELECT json_group_array(json_object('id', id, 'name', name, 'role', role, 'hand', hand))
        FROM (SELECT * FROM workers ORDER BY name)) AS workers`,
    [KEY],
  )
  const kept = json<KeptHouse>(row!['kept']) ?? {}
  const workers = json<Worker[]>(row!['workers'])!
  return {
    name: kept.name ?? 'This house',
    schools: { ...DEFAULT_SCHOOLS, ...kept.schools },
    workers,
    workerId: kept.workerId ?? workers[0]?.id ?? '',
  }
}

/** Keeps what is given of the house, beside what was kept before. Part of a write. */
export async function keepHouse(db: Database, change: KeptHouse): Promise<void> {
  const before = await db.models.Setting.findByPk(KEY)
  await db.models.Setting.upsert({
    key: KEY,
    value: { ...(before?.value as KeptHouse | undefined), ...change },
  })
}

/** Changes schools, who works at this screen, or a worker's name, role and hand. */
export async function changeHouse(
  db: Database,
  change: { schools?: Record<string, string>; workerId?: string; worker?: Worker },
): Promise<House> {
  // What it builds on is read within the write, so that two changes at once are both kept.
  await db.write(async () => {
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
  await db.write(() =>
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
