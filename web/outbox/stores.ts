/** Where writes wait: in the browser's own database, or for as long as the tab lives where the browser keeps nothing. */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { NewWrite, OutboxStore, Refused, Write } from './outbox.ts'

interface Shape extends DBSchema {
  writes: { key: number; value: Write }
  refused: { key: string; value: Refused }
}

/** What takes the place of a write of the same row that still waits. */
const takesPlace = (had: Write | undefined, write: NewWrite): NewWrite => ({
  ...write,
  // Both were made on what the first was made on.
  ...(had && { id: had.id, was: had.was }),
})

const sameRow = (all: readonly Write[], write: NewWrite) => {
  const last = all.filter((w) => w.clientId === write.clientId).at(-1)
  // Only the last of a client: what came between builds on the one before.
  return write.row !== undefined && last?.row === write.row && last.by === write.by && !last.sent
    ? last
    : undefined
}
const oldest = (all: readonly Write[], but: ReadonlySet<string>): Write | undefined => {
  const next = all.find((w) => !but.has(w.clientId))
  return next && { ...next, sent: true }
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
    put: async (write) => {
      const tx = (await database()).transaction('writes', 'readwrite')
      const had = sameRow(await tx.store.getAll(), write)
      const next = takesPlace(had, write)
      // The number is the database's, so that two tabs never give the same.
      const n = await tx.store.put((had ? { ...next, n: had.n } : next) as Write)
      await tx.done
      return { ...next, n }
    },
    take: async (but) => {
      const tx = (await database()).transaction('writes', 'readwrite')
      const next = oldest(await tx.store.getAll(), but)
      if (next) await tx.store.put(next)
      await tx.done
      return next
    },
    remove: async ({ n }) => (await database()).delete('writes', n),
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
    put: (write) => {
      const had = sameRow(writes, write)
      const next = { ...takesPlace(had, write), n: had?.n ?? ++n }
      writes = had ? writes.map((w) => (w.id === had.id ? next : w)) : [...writes, next]
      return Promise.resolve(next)
    },
    take: (but) => {
      const next = oldest(writes, but)
      writes = writes.map((w) => (next?.n === w.n ? next : w))
      return Promise.resolve(next)
    },
    remove: ({ n }) => Promise.resolve(void (writes = writes.filter((w) => w.n !== n))),
    refuse: (r) => Promise.resolve(void refused.set(r.id, r)),
    refusals: () => Promise.resolve([...refused.values()]),
    dismiss: (id) => Promise.resolve(void refused.delete(id)),
  }
}
