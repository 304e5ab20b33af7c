/** A SQLite file without models: opened, asked and closed by promises. For looking after files, not for the day's work. */
import sqlite3 from 'sqlite3'

export interface PlainFile {
  readonly exec: (sql: string) => Promise<void>
  readonly all: <T extends object>(sql: string, values?: readonly unknown[]) => Promise<T[]>
  readonly run: (sql: string, values?: readonly unknown[]) => Promise<void>
  readonly close: () => Promise<void>
}

export const READ_ONLY = sqlite3.OPEN_READONLY
export const READ_WRITE = sqlite3.OPEN_READWRITE
export const MAKE = sqlite3.OPEN_READWRITE | sqlite3.OPEN_CREATE

/** @param file a path, or an address that begins with `file:` */
export function openPlain(file: string, mode: number): Promise<PlainFile> {
  return new Promise((opened, failed) => {
    const flags = file.startsWith('file:') ? mode | sqlite3.OPEN_URI : mode
    const connection = new sqlite3.Database(file, flags, (error) => {
      if (error) return failed(error)
      opened({
        exec: (sql) =>
          new Promise((done, refused) => connection.exec(sql, (e) => (e ? refused(e) : done()))),
        all: <T extends object>(sql: string, values: readonly unknown[] = []) =>
          new Promise<T[]>((done, refused) =>
            connection.all<T>(sql, values, (e, rows) => (e ? refused(e) : done(rows))),
          ),
        run: (sql, values = []) =>
          new Promise((done, refused) =>
            connection.run(sql, values, (e: Error | null) => (e ? refused(e) : done())),
          ),
        close: () =>
          new Promise((done, refused) => connection.close((e) => (e ? refused(e) : done()))),
      })
    })
  })
}

/** Opens a file, works with it and closes it, whatever happens. */
export async function withPlain<T>(
  file: string,
  mode: number,
  work: (open: PlainFile) => Promise<T>,
): Promise<T> {
  const open = await openPlain(file, mode)
  try {
    return await work(open)
  } finally {
    await open.close()
  }
}
