/** The book of a period as a table. */
import type { Figures } from '../house/index.ts'
import { jobsWords } from '../services/index.ts'
import { dateAt, type Offset } from '../time/index.ts'
import { type Appointment, endMs, hourAt, priceOf, STATUS_WORDS, statusOf } from '../week/index.ts'
import { csvOf } from './csvOut.ts'

export interface BookCsvRow extends Appointment {
  readonly client: string
  readonly worker: string
  readonly startedAtMs: number | null
  readonly endedAtMs: number | null
}

function wallWords(ms: number, offset: Offset): string {
  const minutes = Math.round(60 * hourAt(ms, offset))
  const two = (n: number) => String(n).padStart(2, '0')
  return `${dateAt(ms, offset)} ${two(Math.floor(minutes / 60))}:${two(minutes % 60)}`
}

/** Times are those of the house's clock, as "2026-12-03 10:00". */
export const bookCsv = (figures: Figures, rows: readonly BookCsvRow[], offset: Offset): string => {
  const at = (ms: number | null) => (ms === null ? '' : wallWords(ms, offset))
  return csvOf(
    [
      ...(['begins', 'ends', 'minutes', 'client', 'worker', 'work', 'state'] as const),
      ...(['began', 'ended', 'price', 'note', 'id'] as const),
    ],
    rows.map((a) => ({
      ...{ begins: at(a.startMs), ends: at(endMs(a)), minutes: a.minutes, client: a.client },
      ...{ worker: a.worker, work: jobsWords(a.jobs), state: STATUS_WORDS[statusOf(figures, a)] },
      ...{ began: at(a.startedAtMs), ended: at(a.endedAtMs), price: priceOf(figures, a.jobs) },
      ...{ note: a.note, id: a.id },
    })),
  )
}
