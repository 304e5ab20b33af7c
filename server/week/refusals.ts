/** What the book refuses, with its reason and the nearest hours that work. */
import { figuresOf } from '../../core/register/index.ts'
import { HOUR_MS, whenWords } from '../../core/time/index.ts'
import {
  type Book,
  breaches,
  nearestThatWork,
  type Hour,
  type Wanted,
} from '../../core/week/index.ts'
import type { House } from '../../contract/types.ts'
import type { Reads } from '../db/reader.ts'
import { HttpProblem } from '../http/problem.ts'
import { readBook } from './book.ts'
import { workerCalled } from './hourMessages.ts'

/** @throws HttpProblem 422 `book`, with the reasons and the nearest hours that work */
export function refuse(house: House, book: Book, wanted: Wanted): void {
  const figures = figuresOf(house.figures)
  const why = breaches(figures, book, wanted)
  if (why.length === 0) return
  const near = nearestThatWork(figures, book, wanted).map(
    (h) => `${whenWords(h.startMs)} with ${workerCalled(house, h.workerId)}`,
  )
  const instead =
    near.length > 0
      ? ` The nearest that work: ${near.join('; ')}.`
      : ' No hour within three weeks works.'
  throw new HttpProblem(
    422,
    'book',
    `${why.map((w) => w.text).join(' ')} Nothing was changed.${instead}`,
  )
}

/** Enough that one of the same worker is among them. */
const MANY = 40

/** An hour as it is wanted where the book lets it be; else the nearest of the same worker that works. */
export function hourOrNearest(house: House, book: Book, wanted: Wanted): Hour | undefined {
  const figures = figuresOf(house.figures)
  if (breaches(figures, book, wanted).length === 0) return wanted
  return nearestThatWork(figures, book, wanted, MANY).find((h) => h.workerId === wanted.workerId)
}

/** Three weeks around an hour: as far as another is looked for. */
const LOOK_MS = 22 * 24 * HOUR_MS
export const bookAround = (db: Reads, house: House, ms: number) =>
  readBook(db, house, ms - LOOK_MS, ms + LOOK_MS)
