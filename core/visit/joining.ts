/**
 * How entries of one visit that were made on two screens are put together, and which of two words holds until somebody has
 * chosen: always the one that asks for more care. What is said of the skin, of health or of marks is never made milder by
 * an entry that did not know of it.
 */
import { ANSWER_SOURCES, NICK_STATES } from '../looks/index.ts'
import type { Manner } from '../merge/index.ts'
import { REACTIVITIES } from '../skin/index.ts'

const DAY = /^\d{4}-\d{2}-\d{2}$/

/** Words that stand in an order, the mildest first. */
const ORDERS: Readonly<Record<string, readonly string[]>> = {
  reactivity: REACTIVITIES,
  // What the client told stands until it was looked into: an entry of the worker's does not say that it was.
  source: [...ANSWER_SOURCES],
  // Of a nick that heals: an open one asks for more than a scab.
  nicks: [...NICK_STATES].sort((a, b) => Number(a === 'open') - Number(b === 'open')),
  result: ['calm', 'planned', 'waiting', 'reacted'],
  said: ['yes', 'no'],
}

/** True where mine asks for more care than theirs. */
export function moreCareful(mine: unknown, theirs: unknown, path: readonly string[]): boolean {
  // What one took out and the other still names stays.
  if (mine === undefined || theirs === undefined) return theirs === undefined
  if (mine === null || theirs === null) return theirs === null
  if (typeof mine === 'boolean') return mine
  if (typeof mine === 'number' && typeof theirs === 'number') return mine > theirs
  if (typeof mine === 'string' && typeof theirs === 'string') {
    // A later day waits longer.
    if (DAY.test(mine) && DAY.test(theirs)) return mine > theirs
    const order = ORDERS[path.at(-1) ?? ''] ?? ORDERS[path.at(-2) ?? '']
    return order !== undefined && order.indexOf(mine) > order.indexOf(theirs)
  }
  // A patch test, a clinician's word: whole, by what they found.
  for (const key of ['result', 'said']) {
    const [a, b] = [mine, theirs].map((v) => (v as Record<string, unknown>)[key])
    if (a !== undefined && b !== undefined) return moreCareful(a, b, [...path, key])
  }
  return false
}

/** Details of the client; how their skin is counts as what was answered. */
export const CLIENT_MANNER: Manner = { whole: ['events'], holds: moreCareful }

/** What was asked: a signature, a patch test and a clinician's word belong together whole, places on the skin too. */
export const ASKED_MANNER: Manner = {
  whole: ['consent', 'patchTest', 'clinician', 'point', 'normal', 'trail'],
  holds: moreCareful,
}

/** Lines and hair: neither is milder than the other. */
export const NOTES_MANNER: Manner = { whole: ['taps'] }

/** How the skin took it: of the look's time and of who told it only the more careful stands, and nobody is asked. */
export const ANSWER_MANNER: Manner = {
  whole: ['point', 'normal'],
  quiet: ['atMs', 'source'],
  holds: moreCareful,
}
