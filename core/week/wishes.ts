/** When a client can come: days of the week, hours of the day, and to whom. What is not told does not matter. */
import { dateAt, type Offset } from '../time/index.ts'
import { endMs, type Appointment } from './book.ts'
import { hourAt, weekdayOf } from './hours.ts'

export interface Wishes {
  /** Days of the week, 0 is Sunday; any where there are none. */
  readonly days: readonly number[]
  /** Not before, and over by these hours of the day. */
  readonly fromHour: number | null
  readonly toHour: number | null
  readonly workerId: string | null
}

export const NO_WISHES: Wishes = { days: [], fromHour: null, toHour: null, workerId: null }

/** Nothing is wished. */
export const isAny = ({ days, fromHour, toHour, workerId }: Wishes): boolean =>
  days.length === 0 && fromHour === null && toHour === null && workerId === null

/** Whether an hour is among those at which somebody can come. */
export function suits(
  wishes: Wishes,
  a: Pick<Appointment, 'startMs' | 'minutes' | 'workerId'>,
  offset: Offset,
): boolean {
  const { days, fromHour, toHour, workerId } = wishes
  if (days.length > 0 && !days.includes(weekdayOf(dateAt(a.startMs, offset)))) return false
  if (workerId !== null && workerId !== a.workerId) return false
  if (fromHour !== null && hourAt(a.startMs, offset) < fromHour) return false
  if (toHour === null) return true
  // An appointment that ends at midnight ends on its own day.
  const end = hourAt(endMs(a), offset)
  return (end === 0 ? 24 : end) <= toHour
}

/** Both have to be met. Two that leave no day or hour leave none. */
export function bothWishes(a: Wishes, b: Wishes): Wishes {
  const latest = (x: number | null, y: number | null) =>
    x === null ? y : y === null ? x : Math.max(x, y)
  const soonest = (x: number | null, y: number | null) =>
    x === null ? y : y === null ? x : Math.min(x, y)
  const common = a.days.filter((d) => b.days.includes(d))
  const days = a.days.length === 0 ? b.days : b.days.length === 0 ? a.days : common
  const none = a.days.length > 0 && b.days.length > 0 && common.length === 0
  const otherWorker = a.workerId !== null && b.workerId !== null && a.workerId !== b.workerId
  return {
    days,
    fromHour: none || otherWorker ? 24 : latest(a.fromHour, b.fromHour),
    toHour: soonest(a.toHour, b.toHour),
    workerId: a.workerId ?? b.workerId,
  }
}

const DAY_NAMES = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'] as const
const hourWords = (h: number) => {
  const minutes = Math.round((h % 1) * 60)
  return `${Math.floor(h)}${minutes ? `:${String(minutes).padStart(2, '0')}` : ''}`
}

/**
 * "Tue, Thu; 17 to 20; with Ilka". @param nameOf the name of a worker
 * @returns empty where nothing is wished
 */
export function wishWords(w: Wishes, nameOf: (id: string) => string): string {
  const { fromHour, toHour } = w
  const hours =
    fromHour !== null && toHour !== null
      ? `${hourWords(fromHour)} to ${hourWords(toHour)}`
      : fromHour !== null
        ? `from ${hourWords(fromHour)}`
        : toHour !== null
          ? `until ${hourWords(toHour)}`
          : ''
  // Monday first.
  const days = [...w.days].sort((a, b) => ((a + 6) % 7) - ((b + 6) % 7))
  return [
    days.map((d) => DAY_NAMES[d]).join(', '),
    hours,
    w.workerId === null ? '' : `with ${nameOf(w.workerId)}`,
  ]
    .filter(Boolean)
    .join('; ')
}

/** What is wrong with wishes, in a sentence; undefined where nothing is. */
export function wishesProblem({ fromHour, toHour }: Wishes): string | undefined {
  return fromHour !== null && toHour !== null && fromHour >= toHour
    ? 'The hours begin before they end.'
    : undefined
}
