/**
 * A connection of its own for reading: plain rows by bound SQL. Building models costs more than a millisecond a query,
 * and SQLite's write-ahead log lets reading go on while something is written.
 */
import sqlite3 from 'sqlite3'

export type Row = Record<string, string | number | null>

/** What the places of a query are filled with, in order or by name. */
export type Bound =
  readonly (string | number | readonly string[])[] | Readonly<Record<`$${string}`, string | number>>

const isNamed = (values: Bound): values is Exclude<Bound, readonly unknown[]> =>
  !Array.isArray(values)

export interface Reader {
  /**
   * Rows of a query; a `?` stands for a value, or for a list where `json_each(?)` reads it; `$name` for one that is named.
   * @template T the row that the query's own words name: nothing checks it but the tests
   */
  readonly select: <T extends object = Row>(sql: string, values?: Bound) => Promise<T[]>
  readonly close: () => Promise<void>
}

/** All that reading needs: a database, or a connection that only reads. */
export type Reads = Pick<Reader, 'select'>

/** Opens a data file that exists for reading only. */
export function openReader(file: string): Promise<Reader> {
  return new Promise((opened, failed) => {
    const connection = new sqlite3.Database(file, sqlite3.OPEN_READWRITE, (error) => {
      if (error) return failed(error)
      connection.exec('PRAGMA query_only=ON; PRAGMA busy_timeout=5000;', (refused) =>
        refused ? failed(refused) : opened(reader),
      )
    })
    // Each text is prepared once: there are few, and preparing costs as much as reading.
    const statements = new Map<string, Promise<sqlite3.Statement>>()
    const prepared = (sql: string) => {
      const known = statements.get(sql)
      if (known) return known
      const made = new Promise<sqlite3.Statement>((resolve, reject) => {
        const statement = connection.prepare(sql, (error: Error | null) =>
          error ? reject(error) : resolve(statement),
        )
      })
      statements.set(sql, made)
      return made
    }
    const reader: Reader = {
      select: async <T extends object = Row>(sql: string, values: Bound = []) => {
        const statement = await prepared(sql)
        const bound = isNamed(values)
          ? values
          : values.map((v) => (typeof v === 'object' ? JSON.stringify(v) : v))
        return new Promise<T[]>((resolve, reject) =>
          statement.all<T>(bound, (error, rows) => (error ? reject(error) : resolve(rows))),
        )
      },
      close: async () => {
        for (const made of await Promise.allSettled(statements.values())) {
          if (made.status === 'fulfilled') made.value.finalize()
        }
        await new Promise<void>((resolve, reject) =>
          connection.close((error) => (error ? reject(error) : resolve())),
        )
      },
    }
  })
}

/** The text of a JSON column that holds a T. */
export type Json<T> = string & { readonly holds?: T }

/** The value of a JSON column; null of an empty one. */
export function json<T>(value: Json<T>): T
export function json<T>(value: Json<T> | null | undefined): T | null
export function json<T>(value: Json<T> | null | undefined): T | null {
  return value === null || value === undefined ? null : (JSON.parse(value) as T)
}
