/** Where writes wait: in the browser's own database, or for as long as the tab lives where the browser keeps nothing. */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { OutboxStore, Refused, Write } from './outbox.ts'

interface Shape extends DBSchema {
  writes: { key: number; value: Write }
  refused: { key: string; value: Refused }
}

/** What takes the place of a write of the same row that still waits. */
const takesPlace = (
  had: Write | undefined,
  write: Omit<Write, 'n' | 'turn'>,
): Omit<Write, 'n'> => ({
  ...write,
  // Both were made on what the first was made on.
  ...(had && { id: had.id, was: had.was }),
  turn: (had?.turn ?? 0) + 1,
})

const sameRow = (
  all: readonly Write[],
  write: Omit<Write, 'n' | 'turn'>,
  sending: string | undefined,
) => {
  const last = all.filter((w) => w.clientId === write.clientId).at(-1)
  // Only the last of a client: what came between builds on the one before.
  return write.row !== undefined &&
    last?.row === write.row &&
    last.by === write.by &&
    last.id !== sending
    ? last
    : undefined
}

export function keptOutbox(name = 'slow-tide-outbox'): OutboxStore {
  let opened: Promise<IDBPDatabase<Shape>> | undefined
  const database = () =>
    (opened ??= openDB<Shape>(name, 1, {
      upgrade(db) {
        db.createObjectStore('writes', { keyPath: 'n', autoIncrement: true })
        db.createObjectStore('refused', { keyPath: 'id' })
      },
    }))
  return {
    all: async () => (await database()).getAll('writes'),
    put: async (write, sending) => {
      const tx = (await database()).transaction('writes', 'readwrite')
      const had = sameRow(await tx.store.getAll(), write, sending)
      const next = takesPlace(had, write)
      // The number is the database's, so that two tabs never give the same.
      const n = await tx.store.put((had ? { ...next, n: had.n } : next) as Write)
      await tx.done
      return { ...next, n }
    },
    remove: async ({ n, turn }) => {
      const tx = (await database()).transaction('writes', 'readwrite')
      const stands = await tx.store.get(n)
      const same = stands === undefined || stands.turn === turn
      if (same) await tx.store.delete(n)
      await tx.done
      return same
    },
    refuse: async (refused) => {
      await (await database()).put('refused', refused)
    },
    refusals: async () => (await database()).getAll('refused'),
    dismiss: async (id) => (await database()).delete('refused', id),
  }
}

export function passingOutbox(): OutboxStore {
  let n = 0
  let writes: Write[] = []
  const refused = new Map<string, Refused>()
  return {
    all: () => Promise.resolve([...writes]),
    put: (write, sending) => {
      const had = sameRow(writes, write, sending)
      const next = { ...takesPlace(had, write), n: had?.n ?? ++n }
      writes = had ? writes.map((w) => (w.id === had.id ? next : w)) : [...writes, next]
      return Promise.resolve(next)
    },
    remove: ({ n, turn }) => {
      const stands = writes.find((w) => w.n === n)
      const same = stands === undefined || stands.turn === turn
      if (same) writes = writes.filter((w) => w.n !== n)
      return Promise.resolve(same)
    },
    refuse: (r) => Promise.resolve(void refused.set(r.id, r)),
    refusals: () => Promise.resolve([...refused.values()]),
    dismiss: (id) => Promise.resolve(void refused.delete(id)),
  }
}
