/** Plain rows by SQL, for what is read often: no models are built, and JSON columns are read only where asked. */
import { QueryTypes } from 'sequelize'
import type { Database } from './connection.ts'

export type Row = Record<string, string | number | null>

export function select(db: Database, sql: string, replacements: unknown[] = []): Promise<Row[]> {
  return db.sequelize.query<Row>(sql, { type: QueryTypes.SELECT, replacements })
}

/** The value of a JSON column. */
export function json<T>(value: string | number | null | undefined): T | null {
  return value === null || value === undefined ? null : (JSON.parse(String(value)) as T)
}
