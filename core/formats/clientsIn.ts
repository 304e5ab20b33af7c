/**
 * Clients from elsewhere: vCard (RFC 6350 and its older forms, read by ical.js) and CSV (RFC 4180, read by Papa Parse). Both
 * become a table whose columns are mapped to fields; every line is read or told why not, and nothing is written here.
 */
import ICAL from 'ical.js'
import Papa from 'papaparse'
import {
  CLIENT_TEXT_IDS,
  CLIENT_TEXTS,
  type ClientText,
  eachText,
  type TextField,
} from '../client.ts'
import { DomainError } from '../errors.ts'
import { SERVICE_IDS, SERVICES, type ServiceId } from '../services/index.ts'

/** Fields that a column may be mapped to. */
export const IMPORT_FIELDS = {
  name: { title: 'Name', most: 80, guess: /^(full ?name|name|client|display ?name|fn)$/i },
  givenName: { title: 'First name', most: 80, guess: /^(first|given|fore) ?name$/i },
  familyName: { title: 'Last name', most: 80, guess: /^(last|family|sur) ?name$/i },
  service: {
    title: 'Comes for',
    most: 80,
    guess: /^(service|services|treatment|comes ?for|appointment ?type)$/i,
  },
  ...CLIENT_TEXTS,
} as const

export type ImportField = keyof typeof IMPORT_FIELDS
export const IMPORT_FIELD_IDS = Object.keys(IMPORT_FIELDS) as ImportField[]

/** What a file holds, before anything is decided. */
export interface ImportTable {
  readonly kind: 'vcard' | 'csv'
  readonly columns: readonly string[]
  readonly rows: readonly { readonly line: number; readonly cells: readonly string[] }[]
  /** Lines or cards that could not be read, with why. */
  readonly unread: readonly { readonly line: number; readonly why: string }[]
}

/** Which column fills which field. */
export type Mapping = Readonly<Partial<Record<ImportField, number>>>

export interface ClientDraft extends Readonly<Record<ClientText, string>> {
  readonly line: number
  readonly name: string
  /** What they come for, where the file says so in words that are known. */
  readonly service: ServiceId | undefined
  /** Why it cannot be brought in; empty when it can. */
  readonly problems: readonly string[]
  /** What was changed so that it can. */
  readonly mended: readonly string[]
  /** Who it seems to be already: of this house, or an earlier line of the file. */
  readonly same: string | undefined
}

const MOST_ROWS = 20_000
const MOST_BYTES = 12_000_000

/**
 * Reads a file.
 * @throws DomainError `too-large`, `nothing-in-it`
 */
export function readClientsFile(text: string): ImportTable {
  if (text.length > MOST_BYTES) {
    throw new DomainError(
      'too-large',
      'That file is larger than 12 MB. Bring in a part of it. Nothing was changed.',
    )
  }
  const clean = text.replace(/^\uFEFF/, '')
  const table = /^\s*BEGIN:VCARD/im.test(clean.slice(0, 2000)) ? readVcards(clean) : readCsv(clean)
  if (table.rows.length === 0 && table.unread.length === 0) {
    throw new DomainError(
      'nothing-in-it',
      'There is nobody in that file. It should be a vCard, or a CSV file with one client a line.',
    )
  }
  if (table.rows.length > MOST_ROWS) {
    throw new DomainError(
      'too-large',
      `That file holds more than ${MOST_ROWS.toLocaleString('en')} clients. Bring in a part of it. Nothing was changed.`,
    )
  }
  return table
}

const CARD_COLUMNS: readonly ImportField[] = ['name', ...CLIENT_TEXT_IDS]

type Jcard = [
  string,
  [string, Record<string, string | string[]>, string, ...unknown[]][],
  unknown[],
]

function readVcards(text: string): ImportTable {
  const rows: { line: number; cells: string[] }[] = []
  const unread: { line: number; why: string }[] = []
  let line = 1
  // Card by card, so that one that is broken costs no other.
  for (const part of text.split(/(?=^BEGIN:VCARD\s*$)/im)) {
    const at = line
    line += (part.match(/\n/g) ?? []).length
    if (!/\S/.test(part)) continue
    const card = /^BEGIN:VCARD[\s\S]*?^END:VCARD/im.exec(part)?.[0]
    if (!card) {
      unread.push({ line: at, why: 'The card has no end.' })
      continue
    }
    try {
      const [, properties] = ICAL.parse(card) as unknown as Jcard
      rows.push({ line: at, cells: cardCells(properties) })
    } catch {
      unread.push({ line: at, why: 'The card cannot be read.' })
    }
  }
  return { kind: 'vcard', columns: CARD_COLUMNS.map((f) => IMPORT_FIELDS[f].title), rows, unread }
}

function cardCells(properties: Jcard[1]): string[] {
  const first = (name: string): string => {
    const found = properties.find(([n]) => n === name)
    return found ? wordsOf(found[3]) : ''
  }
  const parts = properties.find(([n]) => n === 'n')?.[3]
  const structured = Array.isArray(parts)
    ? [parts[1], parts[0]].map(wordsOf).filter(Boolean).join(' ')
    : ''
  const [tel] = properties
    .filter(([n]) => n === 'tel')
    .sort((a, b) => Number(isCell(b)) - Number(isCell(a)))
  const phone = tel ? wordsOf(tel[3]).replace(/^tel:/i, '') : ''
  return [
    first('fn') || structured,
    ...CLIENT_TEXT_IDS.map((id) =>
      // Of several numbers the one that is carried about.
      id === 'phone' ? phone : (CLIENT_TEXTS[id].card.map(first).find(Boolean) ?? ''),
    ),
  ]
}

const isCell = ([, parameters]: Jcard[1][number]) =>
  /cell/i.test([parameters['type'] ?? ''].flat().join(' '))
const wordsOf = (value: unknown): string =>
  Array.isArray(value)
    ? value.map(wordsOf).filter(Boolean).join(' ')
    : typeof value === 'string'
      ? value
      : ''

function readCsv(text: string): ImportTable {
  const found = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' })
  const [head = [], ...body] = found.data
  // A first line in which a known column is named is a heading; otherwise it is somebody.
  const headed = head.some((c) =>
    IMPORT_FIELD_IDS.some((f) => IMPORT_FIELDS[f].guess.test(c.trim())),
  )
  const widest = found.data.reduce((m, r) => Math.max(m, r.length), 0)
  const columns = Array.from({ length: Math.min(widest, 60) }, (_, i) =>
    headed && head[i]?.trim() ? head[i].trim().slice(0, 60) : `Column ${i + 1}`,
  )
  const lines = headed ? body : found.data
  const broken = new Set(
    found.errors.filter((e) => e.type === 'Quotes').map((e) => (e.row ?? 0) - (headed ? 1 : 0)),
  )
  const unread: { line: number; why: string }[] = []
  const rows = lines.flatMap((cells, i) => {
    const line = i + (headed ? 2 : 1)
    if (!broken.has(i)) return [{ line, cells }]
    unread.push({ line, why: 'A quotation mark is open that never closes.' })
    return []
  })
  return { kind: 'csv', columns, rows, unread }
}

/** Which columns seem to hold what, by their headings; without headings the first is taken as the name. */
export function guessMapping(table: ImportTable): Mapping {
  if (table.kind === 'vcard') {
    return Object.fromEntries(CARD_COLUMNS.map((f, i) => [f, i]))
  }
  const out: Partial<Record<ImportField, number>> = {}
  for (const field of IMPORT_FIELD_IDS) {
    const at = table.columns.findIndex((c) => IMPORT_FIELDS[field].guess.test(c))
    if (at >= 0) out[field] = at
  }
  if (out.name === undefined && out.givenName === undefined && out.familyName === undefined) {
    out.name = 0
  }
  return out
}

/** Somebody who is here already. */
export interface KnownClient {
  readonly name: string
  readonly phone: string
  readonly email: string
}

// Control characters and marks that turn writing round have no place in a name.
// eslint-disable-next-line no-control-regex
const UNSEEN = /[\u0000-\u001f\u007f-\u009f\u200b\u202a-\u202e\u2066-\u2069\ufeff]/g

const fold = (s: string) =>
  s
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
const digits = (s: string) => s.replace(/\D/g, '').replace(/^0+/, '').slice(-9)

/**
 * A day as `YYYY-MM-DD`, where it is clear which is meant: a day over 12 tells the month from the day, and a dot stands after the
 * day (common practice). Anything else is given back as it was.
 */
function dayWritten(words: string): string {
  const [, a, sign, b, year] = /^(\d{1,2})([./-])(\d{1,2})\2((?:19|20)\d\d)$/.exec(words) ?? []
  const [first, second] = [Number(a), Number(b)]
  const dayFirst = sign === '.' || first > 12 || first === second
  if (!year || (!dayFirst && second <= 12)) return words
  const [day, month] = dayFirst ? [first, second] : [second, first]
  return `${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`
}

/** The service whose name or kind holds the words. */
function serviceNamed(words: string): ServiceId | undefined {
  const sought = fold(words)
  const named = SERVICE_IDS.map((id) => [id, fold(`${SERVICES[id].name} ${id}`)] as const)
  return (named.find(([, name]) => name.startsWith(sought) || name.endsWith(sought)) ??
    named.find(([, name]) => sought.split(' ').every((w) => name.split(' ').includes(w))))?.[0]
}

/** Reads every row through a mapping, mends what can be, and finds who is here already. */
export function draftClients(
  table: ImportTable,
  mapping: Mapping,
  known: readonly KnownClient[],
): ClientDraft[] {
  const seen = new Map<string, string>()
  const remember = (k: KnownClient, as: string) => {
    for (const key of keysOf(k)) if (!seen.has(key)) seen.set(key, as)
  }
  for (const k of known) remember(k, k.name)
  return table.rows.map(({ line, cells }) => {
    const problems: string[] = []
    const mended: string[] = []
    const cell = (field: ImportField): string => {
      const column = mapping[field]
      const raw = column === undefined ? '' : (cells[column] ?? '')
      const breaks = field === 'note' ? raw.replace(/\r?\n/g, ' ') : raw
      const tidy = breaks.normalize('NFC').replace(UNSEEN, ' ').replace(/\s+/g, ' ').trim()
      const { most, title } = IMPORT_FIELDS[field]
      const letters = [...tidy]
      if (tidy.length <= most) return tidy
      mended.push(`${title} was cut to ${most} characters.`)
      // By whole characters, within the room there is.
      let cut = ''
      for (const letter of letters) {
        if (cut.length + letter.length > most) break
        cut += letter
      }
      return cut.trim()
    }
    const name =
      cell('name') || [cell('givenName'), cell('familyName')].filter(Boolean).join(' ').slice(0, 80)
    if (!name) problems.push('There is no name.')
    const kept = (field: ClientText, { title, shape }: TextField): string => {
      const value = field === 'bornOn' ? dayWritten(cell(field)) : cell(field)
      if (!value || !shape || shape[0].test(value)) return value
      mended.push(`${title} "${value.slice(0, 30)}" was left out: it is none.`)
      return ''
    }
    const wanted = cell('service')
    const service = wanted ? serviceNamed(wanted) : undefined
    if (wanted && !service)
      mended.push(
        `“${wanted.slice(0, 40)}” is no service of this house: what is chosen for all counts.`,
      )
    const draft = { line, name, service, ...eachText(kept) }
    const same = keysOf(draft)
      .map((k) => seen.get(k))
      .find((s) => s !== undefined)
    if (name) remember(draft, `line ${line}, ${name}`)
    return { ...draft, problems, mended, same }
  })
}

function keysOf(k: KnownClient): string[] {
  const name = fold(k.name)
  const phone = digits(k.phone)
  return [
    ...(name ? [`name ${name}`] : []),
    ...(phone.length >= 6 ? [`phone ${phone}`] : []),
    ...(k.email ? [`mail ${k.email.toLowerCase()}`] : []),
  ]
}
