/** Reading a file of clients off the main thread: ten thousand lines take a moment. */
import { expose } from 'comlink'
import { DomainError } from '../../core/errors.ts'
import {
  draftClients,
  guessMapping,
  readClientsFile,
  textOfFile,
  type ClientDraft,
  type ImportTable,
  type Mapping,
  type KnownClient,
} from '../../core/formats/index.ts'

/** A file as read, or why it cannot be. */
export interface ReadFile {
  readonly columns?: readonly string[]
  readonly mapping?: Mapping
  readonly unread?: ImportTable['unread']
  /** First cells of each column, to know it by. */
  readonly samples?: readonly string[]
  readonly why?: string
}

let table: ImportTable | undefined

const importWorker = {
  read(bytes: ArrayBuffer): ReadFile {
    try {
      table = readClientsFile(textOfFile(new Uint8Array(bytes)))
    } catch (error) {
      if (error instanceof DomainError) return { why: error.message }
      throw error
    }
    const { columns, rows, unread } = table
    return {
      columns,
      unread,
      mapping: guessMapping(table),
      samples: columns.map(
        (_, i) => rows.find((r) => r.cells[i]?.trim())?.cells[i]?.slice(0, 40) ?? '',
      ),
    }
  },
  draft(mapping: Mapping, known: readonly KnownClient[]): ClientDraft[] {
    return table ? draftClients(table, mapping, known) : []
  },
}

export type ImportWorker = typeof importWorker
expose(importWorker)
