/** The pages of the day's clients, fetched ahead: when the house is away later, their stations open all the same. */
import type { Today } from '../../contract/types.ts'
import { DAY_MS } from '../../core/time/index.ts'
import { address } from '../api/call.ts'
import { forgetKept } from './kept.ts'

const MOST = 24
/** One after the other, with a rest: nobody waits for them. */
const REST_MS = 150
const AGAIN_MS = 10 * 60_000

const fetchedAt = new Map<string, number>()

/** Whose pages are wanted today: who is booked within a day of now, or whose visit is open. */
export const ofTheDay = ({ rows, nowMs }: Pick<Today, 'rows' | 'nowMs'>) =>
  rows
    .filter(
      (r) =>
        r.visitId !== null && (r.slotAtMs === null || Math.abs(r.slotAtMs - nowMs) < 1.5 * DAY_MS),
    )
    .slice(0, MOST)

/** Resolves when a service worker has taken this page over: without one nothing would be kept. */
const takenOver = () =>
  new Promise<void>((taken) => {
    const worker = navigator.serviceWorker
    if (worker.controller) taken()
    else worker.addEventListener('controllerchange', () => taken(), { once: true })
  })

/** What was kept belonged to somebody else: all is fetched anew. */
export async function forgetAhead(): Promise<void> {
  fetchedAt.clear()
  await forgetKept()
}

let going: Promise<void> | undefined

/** Fetches what is wanted; while a round is under way another is that one. */
export function fetchAhead(today: Pick<Today, 'rows' | 'nowMs'>): Promise<void> {
  if (!navigator.serviceWorker) return Promise.resolve()
  return (going ??= takenOver()
    .then(() => fetchThese(today))
    .finally(() => (going = undefined)))
}

async function fetchThese(today: Pick<Today, 'rows' | 'nowMs'>): Promise<void> {
  const wanted = [
    // A first page was answered before anybody kept anything.
    address('session'),
    address('house'),
    address('today', {}, { from: 0 }),
    ...ofTheDay(today).flatMap(({ client, visitId }) => [
      address('client', { id: client.id }),
      address('visit', { id: visitId! }),
      address('history', { id: client.id }),
    ]),
  ]
  for (const at of wanted) {
    if (Date.now() - (fetchedAt.get(at) ?? 0) < AGAIN_MS) continue
    const kept = await fetch(at, { headers: { 'X-Ahead': '1' } })
      // An answer that nobody reads to its end holds up the worker that keeps it.
      .then(async (answer) => {
        await answer.arrayBuffer()
        return answer.ok
      })
      .catch(() => undefined)
    if (kept === undefined) return
    if (kept) fetchedAt.set(at, Date.now())
    await new Promise((r) => setTimeout(r, REST_MS))
  }
}
