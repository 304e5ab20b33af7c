/** Hours for those whose good days these are: laid in by what they are worth, exactly where that can be, with the bound told. */
import type { Highs } from 'highs'
import type { Proposal } from '../../contract/week.ts'
import { figuresOf } from '../../core/register/index.ts'
import { oddsWords } from '../../core/stats/index.ts'
import {
  addDays,
  dateAt,
  DAY_MS,
  daysWords,
  HOUR_MS,
  longDate,
  offsetHere,
  timeWords,
  whenWords,
} from '../../core/time/index.ts'
import {
  BOOK_CONSTANTS,
  breaches,
  lpOf,
  momentAt,
  pack,
  type PackArrays,
  type Packed,
  type Place,
  PROMISED_WORTH,
  weekProblem,
} from '../../core/week/index.ts'
import type { House } from '../../contract/types.ts'
import type { Reads } from '../db/reader.ts'
import { readHouse } from '../house/service.ts'
import { readBook } from './book.ts'
import { dueClients, type DueClient } from './due.ts'
import { seekersOf, type Wished, wishesOf } from './wish.ts'

export interface ProposeAsked {
  readonly from: string
  readonly days: number
  /** What is only booked may be moved within its day, where that lets somebody else in. */
  readonly moves?: boolean | undefined
}
export type Proposed = Proposal

const MOST_CLIENTS = 300
/** The search ends after this; then an exact solver, where little enough is left open. */
const SEARCH_MS = 4000
const EXACT_S = 4
/** All of it: nobody waits longer at the screen. */
const MOST_MS = 9000
/** What a solver needs to say anything, s. */
const LEAST_EXACT_S = 0.5
const EXACT_CHOICES = 6000
/** A solver that is this near says that it is there. */
const NEAR = 1e-4

export async function propose(db: Reads, asked: ProposeAsked): Promise<Proposed> {
  const { from, days } = asked
  const beganMs = Date.now()
  const house = await readHouse(db)
  const figures = figuresOf(house.figures)
  const nowMs = Date.now()
  const fromMs = momentAt(from, 0, offsetHere)
  const toMs = momentAt(addDays(from, days), 0, offsetHere)
  const today = dateAt(nowMs, offsetHere)
  const dates = Array.from({ length: days }, (_, i) => addDays(from, i)).filter((d) => d >= today)
  const [{ due }, book] = await Promise.all([
    dueClients(db, house, { fromMs, toMs, nowMs, most: MOST_CLIENTS }),
    readBook(db, house, fromMs, toMs),
  ])
  const late = figures(BOOK_CONSTANTS.lateCancelHours) * HOUR_MS
  const promised = asked.moves
    ? book.appointments.filter(
        (a) =>
          a.state === 'booked' &&
          (a.visitState ?? 'open') === 'open' &&
          a.startMs > nowMs + late &&
          a.startMs >= fromMs &&
          a.startMs < toMs &&
          // What stands against the book already is put right by hand.
          breaches(figures, book, a).length === 0,
      )
    : []
  const seekers = [...due, ...(await seekersOf(db, house, promised))]
  const all = await wishesOf(db, house, seekers)
  const wishes = all.slice(0, due.length)
  const stands = promised.map((a, i) => ({
    ...all[due.length + i]!.wish,
    minutes: () => a.minutes,
    stands: { id: a.id, workerId: a.workerId, startMs: a.startMs },
  }))
  const { arrays, places } = weekProblem(
    figures,
    book,
    [...wishes.map((w) => w.wish), ...stands],
    dates,
  )
  const packed = pack(arrays, { nowMs: Date.now, untilMs: Date.now() + SEARCH_MS })
  const leftS = (beganMs + MOST_MS - Date.now()) / 1000
  const best = await exactly(arrays, packed, Math.min(EXACT_S, leftS))
  // Nobody loses an hour that was promised: if the search has dropped one, it is made again without moving any.
  if (promised.some((_, i) => best.chosen[due.length + i]! < 0))
    return propose(db, { from, days, moves: false })
  const ownPlaces = (n: number) => Array.from(arrays.owned[n]!, (i) => places[i]!)
  const own = [...best.chosen].slice(0, due.length)
  const proposals = own.flatMap((at, n) =>
    at < 0 ? [] : [proposalOf(house, wishes[n]!, due[n]!, places[at]!, ownPlaces(n))],
  )
  const kept = promised.length * PROMISED_WORTH
  return {
    proposals: proposals.sort((a, b) => a.startMs - b.startMs),
    moves: promised.flatMap((a, i) => {
      const { startMs } = places[best.chosen[due.length + i]!]!
      if (startMs === a.startMs) return []
      const { id, mark, client, clientId, workerId, minutes } = a
      const why = `From ${timeWords(a.startMs)}: that lets somebody else in. ${client.split(' ')[0]} is asked by a message.`
      return [{ id, mark, client, clientId, workerId, startMs, minutes, wasMs: a.startMs, why }]
    }),
    without: own.flatMap((at, n) =>
      at >= 0
        ? []
        : [
            {
              ...{ clientId: due[n]!.clientId, name: due[n]!.overview.client.name },
              why: whyNot(wishes[n]!, arrays, n, toMs),
            },
          ],
    ),
    within: best.bound - kept > 0 ? (best.bound - best.value) / (best.bound - kept) : 0,
    exact: best.exact,
    choices: places.length,
    tookMs: Date.now() - beganMs,
  }
}

let solver: Promise<Highs> | undefined

/** The best of all, where few enough choices are left open for a solver; else what was found. */
async function exactly(
  arrays: PackArrays,
  found: Packed,
  mostS: number,
): Promise<{ chosen: Int32Array; value: number; bound: number; exact: boolean }> {
  const there = found.bound - found.value <= NEAR * Math.max(1, found.bound)
  const many = found.open.length > EXACT_CHOICES
  if (there || found.open.length === 0 || many || mostS < LEAST_EXACT_S)
    return { ...found, exact: there }
  try {
    solver ??= import('highs').then((h) => h.default())
    const highs = await solver
    const solved = highs.solve(lpOf(arrays, found.open), {
      time_limit: mostS,
      mip_rel_gap: NEAR,
      log_to_console: false,
    })
    if (solved.Status !== 'Optimal') return { ...found, exact: false }
    const value = solved.ObjectiveValue
    if (value <= found.value + 1e-6) return { ...found, bound: found.value, exact: true }
    const chosen = new Int32Array(arrays.clients).fill(-1)
    for (const i of found.open) {
      const column = solved.Columns[`x${i}`] as { Primal?: number } | undefined
      if ((column?.Primal ?? 0) > 0.5) chosen[arrays.client[i]!] = i
    }
    return { chosen, value, bound: value, exact: true }
  } catch {
    // What the search has found holds without it; a solver that has failed is begun anew the next time.
    solver = undefined
    return { ...found, exact: false }
  }
}

function proposalOf(
  house: House,
  wished: Wished,
  due: DueClient,
  place: Place,
  own: readonly Place[],
): Proposal['proposals'][number] {
  const { wish, seen, clear } = wished
  const { workerId, startMs, minutes } = place
  return {
    ...{ clientId: wish.clientId, name: due.overview.client.name, workerId, startMs, minutes },
    jobs: wish.jobs,
    seen: seen(startMs),
    clear: clear(startMs),
    why: whyWords(house, wished, place, own),
  }
}

const firstName = (house: House, id: string) =>
  house.workers.find((w) => w.id === id)?.name.split(' ')[0] ?? ''

/** Why this hour, and what another day costs. */
function whyWords(
  house: House,
  { wish, seen, clear, event }: Wished,
  place: Place,
  own: readonly Place[],
): string[] {
  const say: string[] = []
  say.push(
    `${longDate(place.startMs)}: hair seen with ${oddsWords(seen(place.startMs))}, skin clear with ${oddsWords(clear(place.startMs))}.`,
  )
  if (event && place.startMs <= event.toMs)
    say.push(
      `In time for ${event.title} on ${longDate(event.atMs)}; it should begin by ${whenWords(event.toMs)}.`,
    )
  if (wish.first) say.push('The house serves them first.')
  const late = place.startMs > wish.toMs
  if (wish.toMs < Number.MAX_SAFE_INTEGER)
    say.push(
      late
        ? `The good days were ${daysWords(wish.fromMs, wish.toMs)}; each day more costs.`
        : `Within the good days, ${daysWords(wish.fromMs, wish.toMs)}.`,
    )
  say.push(
    wish.lastWorkerId === place.workerId
      ? `${firstName(house, place.workerId)} served them last.`
      : `With ${firstName(house, place.workerId)}, as ${firstName(house, wish.lastWorkerId ?? '')} has no better hour.`,
  )
  // The best that every other day would have been worth.
  const days = new Map<string, number>()
  for (const p of own) {
    const day = dateAt(p.startMs, offsetHere)
    days.set(day, Math.max(days.get(day) ?? 0, p.worth))
  }
  const mine = dateAt(place.startMs, offsetHere)
  const others = [...days].filter(([d]) => d !== mine).sort((a, b) => b[1] - a[1])
  const [next] = others
  if (next) {
    const words = longDate(momentAt(next[0], 12, offsetHere))
    const points = Math.round(100 * (place.worth - next[1]))
    say.push(
      points > 0
        ? `${words} instead costs ${points} points of a hundred.`
        : `${words} would be as good for them; it serves others better.`,
    )
  }
  return say
}

function whyNot({ wish, held }: Wished, arrays: PackArrays, n: number, toMs: number): string {
  const stops = held(toMs - DAY_MS / 2)
  if (stops !== undefined) return `${stops}.`
  if (arrays.owned[n]!.length > 0) return 'All hours that would serve are taken by others.'
  if (wish.fromMs > toMs - DAY_MS) return 'Their good days only begin as these end.'
  return 'No hour of these days is worth enough, or none is free.'
}
