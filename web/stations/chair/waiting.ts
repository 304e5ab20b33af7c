/** Where events wait that the server has not stored yet: in the browser's own database, so that a killed tab loses none. */
import { newId } from '../../state/words.ts'
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import {
  inOrder,
  numbered,
  type ChairEvent,
  type Draft,
  type ToldEvent,
} from '../../../core/chair/index.ts'

/** An event that waits, and of which service it is. */
export type LeftEvent = ToldEvent & { readonly visitId: string }

/** Keeps waiting events and numbers new ones. */
export interface WaitingStore {
  /** Events of a visit that wait, in order. */
  readonly all: (visitId: string) => Promise<ToldEvent[]>
  /** Those of every visit, in the order in which this screen told them. */
  readonly left: () => Promise<LeftEvent[]>
  /** Numbers an event and keeps it. */
  readonly add: (visitId: string, draft: Draft, id: string, atMs: number) => Promise<ToldEvent>
  readonly remove: (id: string) => Promise<void>
  /** Keeps an event that the server has stored: with the server away, a page opened anew knows it. */
  readonly settle: (visitId: string, event: ChairEvent) => Promise<void>
  /** Stored events that this screen has heard of, in order. */
  readonly settled: (visitId: string) => Promise<ChairEvent[]>
  /** A service that has ended needs nothing kept here. */
  readonly forget: (visitId: string) => Promise<void>
}

interface Shape extends DBSchema {
  waiting: { key: string; value: ToldEvent & { visitId: string }; indexes: { visit: string } }
  settled: {
    key: [string, number]
    value: ChairEvent & { visitId: string }
    indexes: { visit: string }
  }
  /** The one row `this`: who this screen is, and the number it gave last. */
  screen: { key: string; value: { screen: string; n: number } }
}

let opened: Promise<IDBPDatabase<Shape>> | undefined
const database = () =>
  (opened ??= openDB<Shape>('slow-tide-chair', 2, {
    upgrade(db, from) {
      if (from < 1) {
        db.createObjectStore('waiting', { keyPath: 'id' }).createIndex('visit', 'visitId')
        db.createObjectStore('screen')
      }
      db.createObjectStore('settled', { keyPath: ['visitId', 'seq'] }).createIndex(
        'visit',
        'visitId',
      )
    },
    // A tab of a newer version waits for this one.
    blocking: (_now, _next, event) => (event.target as IDBDatabase).close(),
  }))

/** In the browser's database. */
export const keptStore: WaitingStore = {
  async all(visitId) {
    const rows = await (await database()).getAllFromIndex('waiting', 'visit', visitId)
    return inOrder(rows.map(({ visitId: _visit, ...event }) => event))
  },
  async left() {
    return (await (await database()).getAll('waiting')).sort((a, b) => a.n - b.n)
  },
  async add(visitId, draft, id, atMs) {
    // Numbered and kept in one transaction: two tabs of a browser never give the same number.
    const tx = (await database()).transaction(['screen', 'waiting'], 'readwrite')
    const own = (await tx.objectStore('screen').get('this')) ?? {
      screen: newId(),
      n: 0,
    }
    const next = { ...own, n: own.n + 1 }
    const event = numbered(draft, { id, screen: next.screen, n: next.n, atMs })
    await Promise.all([
      tx.objectStore('screen').put(next, 'this'),
      tx.objectStore('waiting').put({ ...event, visitId }),
      tx.done,
    ])
    return event
  },
  async remove(id) {
    await (await database()).delete('waiting', id)
  },
  async settle(visitId, event) {
    await (await database()).put('settled', { ...event, visitId })
  },
  async settled(visitId) {
    const rows = await (await database()).getAllFromIndex('settled', 'visit', visitId)
    return rows.map(({ visitId: _visit, ...event }) => event).sort((a, b) => a.seq - b.seq)
  },
  async forget(visitId) {
    const tx = (await database()).transaction('settled', 'readwrite')
    for (const key of await tx.store.index('visit').getAllKeys(visitId)) void tx.store.delete(key)
    await tx.done
  },
}

/** For as long as the tab lives, where the browser keeps nothing (a private window). */
export function passingStore(): WaitingStore {
  const screen = newId()
  let n = 0
  let rows: (ToldEvent & { visitId: string })[] = []
  return {
    all: (visitId) => Promise.resolve(inOrder(rows.filter((r) => r.visitId === visitId))),
    left: () => Promise.resolve([...rows]),
    add: (visitId, draft, id, atMs) => {
      const event = numbered(draft, { id, screen, n: ++n, atMs })
      rows.push({ ...event, visitId })
      return Promise.resolve(event)
    },
    remove: (id) => {
      rows = rows.filter((r) => r.id !== id)
      return Promise.resolve()
    },
    // A tab that ends knows nothing afterwards.
    settle: () => Promise.resolve(),
    settled: () => Promise.resolve([]),
    forget: () => Promise.resolve(),
  }
}
