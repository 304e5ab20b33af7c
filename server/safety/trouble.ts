/** What keeps a data folder from being opened, said so that a person knows what stands and what to do next. */

export type TroubleCode =
  | 'damaged'
  | 'empty-file'
  | 'missing'
  | 'not-ours'
  | 'newer'
  | 'shortened'
  | 'not-writable'
  | 'disk-full'
  | 'in-use'
  | 'step-failed'
  | 'not-demo'
  | 'bad-backup'
  | 'passphrase'

export class Trouble extends Error {
  readonly code: TroubleCode

  constructor(code: TroubleCode, sentence: string, cause?: unknown) {
    super(sentence, { cause })
    this.code = code
  }
}

/** What may be done when the data cannot be opened. */
export const NEXT_STEP =
  'Nothing was changed. Type "npm run restore" to see the backups and take one, or "npm run rescue" to read what can still be read into a folder of its own.'

const CODES: readonly (readonly [RegExp, TroubleCode])[] = [
  [/SQLITE_(CORRUPT|NOTADB)|malformed|not a database/, 'damaged'],
  [/SQLITE_FULL|ENOSPC|EDQUOT|database or disk is full/, 'disk-full'],
  [/SQLITE_(READONLY|CANTOPEN|PERM)|EACCES|EROFS|EPERM|readonly database/, 'not-writable'],
]

/** What an error of SQLite or of the file system means; undefined for one that tells nothing of the disk. */
export function troubleCode(error: unknown): TroubleCode | undefined {
  if (error instanceof Trouble) return error.code
  // What a driver throws need not be this context's own Error.
  type Told =
    { code?: string; message?: string; cause?: unknown; parent?: unknown } | null | undefined
  for (let e = error as Told; typeof e === 'object' && e; e = (e.cause ?? e.parent) as Told) {
    const told = `${e.code ?? ''} ${e.message ?? ''}`
    const found = CODES.find(([what]) => what.test(told))
    if (found) return found[1]
  }
  return undefined
}

/** An error on the way to opening a folder, as a sentence. */
export function asTrouble(error: unknown, dataDir: string): unknown {
  if (error instanceof Trouble) return error
  switch (troubleCode(error)) {
    case 'damaged':
      return new Trouble('damaged', `The data file in ${dataDir} is damaged. ${NEXT_STEP}`, error)
    case 'disk-full':
      return new Trouble(
        'disk-full',
        `The disk of ${dataDir} is full. Make room on it, then start again. What was saved before is kept.`,
        error,
      )
    case 'not-writable':
      return new Trouble(
        'not-writable',
        `The folder ${dataDir} cannot be written. Give this user the right to write there (or mount the disk for writing), then start again. What is in it is kept; "npm run backup" reads it as it is.`,
        error,
      )
    default:
      return error
  }
}
