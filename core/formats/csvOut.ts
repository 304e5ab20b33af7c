/** Tables as CSV (RFC 4180): one way for all, so that no cell of any of them can run anything. */
import Papa from 'papaparse'

/**
 * What a spreadsheet may take for the beginning of a formula: = + − @ and their full-width and small twins, tabs and line breaks,
 * whatever stands before them that does not show. Looked for in the whole cell, over line breaks too.
 */
const FORMULA =
  /^[\s\p{Cc}\p{Cf}\p{Z}]*[=+\-@\u2212\uff1d\uff0b\uff0d\uff20\ufe62\ufe63\ufe66\ufe6b]/u
/** A cell that begins with one of these is taken apart by some programs before it is shown. */
const BREAK = /^[\t\r\n]/

/** A cell that begins like a formula is made plain text by an apostrophe; a number is a number. */
export function safeCell(cell: string | number): string | number {
  if (typeof cell === 'number') return cell
  return FORMULA.test(cell) || BREAK.test(cell) ? `'${cell}` : cell
}

/**
 * Writes a table.
 * @param columns names, in their order
 * @param rows cells by column; what is left out is empty
 */
export function csvOf<C extends string>(
  columns: readonly C[],
  rows: readonly Partial<Record<C, string | number>>[],
): string {
  return `${Papa.unparse(
    { fields: [...columns], data: rows.map((r) => columns.map((c) => safeCell(r[c] ?? ''))) },
    { newline: '\r\n' },
  )}\r\n`
}
