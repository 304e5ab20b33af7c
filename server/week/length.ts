/** How long an appointment takes: what is planned, put right by what visits here really took. */
import type { AppointmentLength } from '../../contract/week.ts'
import type { Figures } from '../../core/house/index.ts'
import { SERVICES, type ServiceId } from '../../core/services/index.ts'
import { sum } from '../../core/stats/index.ts'
import {
  BOOK_CONSTANTS,
  bookedMinutes,
  type Durations,
  GRID_MIN,
  learnDurations,
  takes,
  type Took,
} from '../../core/week/index.ts'
import type { Reads } from '../db/reader.ts'

/** Visits that are learned from, the latest. */
const VISITS_READ = 3000
const MIN_MS = 60_000

/** Where no plan was kept, the usual time on the book is what was planned. */
const usualMin = (figures: Figures, services: readonly string[]): number =>
  sum(services.map((s) => figures(SERVICES[s as ServiceId].slotMin)))

export async function readDurations(db: Reads, figures: Figures): Promise<Durations> {
  const rows = await db.select<{
    service: string
    workerId: string
    clientId: string
    planMin: number | null
    startedAtMs: number
    endedAtMs: number
  }>(
    `SELECT service, workerId, clientId, planMin, startedAtMs, endedAtMs FROM visits
     WHERE state = 'finished' AND startedAtMs IS NOT NULL AND json_array_length(jobs) = 1
     ORDER BY endedAtMs DESC LIMIT ${VISITS_READ}`,
  )
  return learnDurations(
    figures,
    rows.map((r): Took => ({
      ...{ service: r.service, workerId: r.workerId, clientId: r.clientId },
      plannedMin: r.planMin ?? usualMin(figures, [r.service]),
      tookMin: (r.endedAtMs - r.startedAtMs) / MIN_MS,
    })),
  )
}

/** What is planned for a client: the minutes of the last plan for that, else the usual time. */
export async function plannedMin(
  db: Reads,
  figures: Figures,
  clientId: string,
  services: readonly string[],
): Promise<number> {
  const rows = await db.select<{ service: string; planMin: number }>(
    `SELECT service, planMin, MAX(createdAtMs) FROM visits
     WHERE clientId = ? AND planMin IS NOT NULL AND json_array_length(jobs) = 1 GROUP BY service`,
    [clientId],
  )
  const last = new Map(rows.map((r) => [r.service, r.planMin]))
  return sum(services.map((s) => last.get(s) ?? usualMin(figures, [s])))
}

/** @param services of the sitting, the leading one first */
export async function lengthOf(
  db: Reads,
  figures: Figures,
  of: {
    readonly clientId: string
    readonly workerId: string
    readonly services: readonly string[]
  },
  known?: Durations,
  plannedBefore?: number,
): Promise<Omit<AppointmentLength, 'good' | 'held'>> {
  const learned = known ?? (await readDurations(db, figures))
  const planned = plannedBefore ?? (await plannedMin(db, figures, of.clientId, of.services))
  const coming = { ...of, service: of.services[0]!, plannedMin: planned }
  const besidesMin = figures(BOOK_CONSTANTS.receptionMin) + figures(BOOK_CONSTANTS.turnoverMin)
  const { midMin, within } = takes(learned, coming)
  return {
    minutes: bookedMinutes(figures, learned, coming, besidesMin, GRID_MIN),
    ...{ plannedMin: planned, besidesMin, midMin, visits: learned.visits },
    ...{ lowMin: within(0.1), highMin: within(0.9) },
  }
}
