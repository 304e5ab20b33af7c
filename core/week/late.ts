/**
 * How late a day runs: from what is in the chair and how long it should take, each worker's next clients follow one another. Told
 * are only those who are still to come.
 */
import { type Appointment, MIN_MS, standsInBook } from './book.ts'

/** An appointment with what its visit tells. */
export type OfToday = Pick<
  Appointment,
  'id' | 'workerId' | 'startMs' | 'minutes' | 'state' | 'visitState'
> & {
  readonly startedAtMs: number | null
  readonly endedAtMs: number | null
}

/** Less than this nobody is told, min. */
export const LATE_FROM_MIN = 5
/** Somebody who was expected so long ago has most likely not come, min. */
const GIVEN_UP_MIN = 30

export interface Late {
  readonly id: string
  /** Begins about then. */
  readonly startMs: number
  readonly lateMin: number
}

/**
 * @param today of one day, in any order
 * @returns those still to come who will begin late, by their hour
 */
export function runningLate(today: readonly OfToday[], nowMs: number): Late[] {
  const late: Late[] = []
  const byHour = [...today].filter(standsInBook).sort((a, b) => a.startMs - b.startMs)
  for (const workerId of new Set(byHour.map((a) => a.workerId))) {
    let freeMs = -Infinity
    for (const a of byHour) {
      if (a.workerId !== workerId) continue
      const takes = a.minutes * MIN_MS
      if (a.endedAtMs !== null) freeMs = Math.max(freeMs, a.endedAtMs)
      else if (a.startedAtMs !== null)
        // What is in the chair lasts as long as it was booked, and at the least until now.
        freeMs = Math.max(freeMs, nowMs, a.startedAtMs + takes)
      else {
        const here = a.state === 'arrived'
        // Nobody waits for a client who has not come; one who is here begins when the worker is free.
        if (!here && nowMs - Math.max(a.startMs, freeMs) > GIVEN_UP_MIN * MIN_MS) continue
        const startMs = Math.max(a.startMs, freeMs, here ? nowMs : -Infinity)
        const lateMin = Math.round((startMs - a.startMs) / MIN_MS)
        if (lateMin >= LATE_FROM_MIN) late.push({ id: a.id, startMs, lateMin })
        freeMs = startMs + takes
      }
    }
  }
  const hour = new Map(byHour.map((a) => [a.id, a.startMs]))
  return late.sort((a, b) => hour.get(a.id)! - hour.get(b.id)!)
}

/** "running 12 min late". */
export const lateWords = (lateMin: number): string => `running ${lateMin} min late`
