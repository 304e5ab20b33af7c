/** Readings as a table: CSV (RFC 4180) with a header. */
import Papa from 'papaparse'
import { csvOf } from './csvOut.ts'
import { DomainError } from '../errors.ts'
import { toDegrees, toRadians, readingBearing, type Reading } from '../grain/index.ts'
import { directionOf, type Vec3, type SurfacePoint } from '../head/index.ts'
import { ALL_ZONE_IDS, type ZoneId } from '../zones/index.ts'
import {
  draftFrom,
  MOST_READINGS,
  tooLarge,
  type ImportReport,
  type PlaceOnHead,
  type ReadingDraft,
} from './growthMap.ts'

/** Columns, in the order in which they are written. */
export const CSV_COLUMNS = [
  'zone',
  'clock_deg',
  'x_mm',
  'y_mm',
  'z_mm',
  'dx',
  'dy',
  'dz',
  'method',
  'at',
] as const

const bad = (sentence: string) => new DomainError('bad-file', `${sentence} Nothing was changed.`)
const fixed = (x: number, places: number) => Number(x.toFixed(places))

/** Writes readings as CSV. */
export function writeReadingsCsv(readings: readonly Reading[]): string {
  return csvOf(
    CSV_COLUMNS,
    readings.map((r) => {
      const [x, y, z] = r.point.map((c) => fixed(c, 3))
      const [dx, dy, dz] = r.tangent.map((c) => fixed(c, 6))
      return {
        zone: r.zoneId,
        clock_deg: fixed(toDegrees(readingBearing(r)), 1),
        ...{ x_mm: x!, y_mm: y!, z_mm: z!, dx: dx!, dy: dy!, dz: dz! },
        method: r.method,
        at: new Date(r.atMs).toISOString(),
      }
    }),
  )
}

/**
 * Reads readings from CSV. A row gives a place and a direction in space, or only a zone and its hour in degrees, which then
 * stands in the zone's middle.
 * @param middle the middle of a zone
 * @throws DomainError `bad-file` with the sentence to show; a file is taken whole or not at all
 */
export function readReadingsCsv(
  text: string,
  place: PlaceOnHead,
  middle: (zone: ZoneId) => SurfacePoint | undefined,
  nowMs: number,
): ImportReport {
  tooLarge(text)
  const parsed = Papa.parse<Record<string, string>>(text.trim(), {
    header: true,
    skipEmptyLines: true,
    transformHeader: (h) => h.trim().toLowerCase(),
  })
  const columns = parsed.meta.fields ?? []
  const missing = ['zone', 'method', 'at'].filter((c) => !columns.includes(c))
  if (missing.length > 0) {
    throw bad(`This table has no column ${missing.map((c) => `"${c}"`).join(', ')}.`)
  }
  const stranger = columns.find((c) => !(CSV_COLUMNS as readonly string[]).includes(c))
  if (stranger !== undefined) {
    throw bad(`This table has a column "${stranger.slice(0, 20)}", which no table of readings has.`)
  }
  const broken = parsed.errors.find((e) => e.type !== 'Delimiter')
  if (broken) {
    throw bad(
      `Row ${(broken.row ?? 0) + 2} of this table has too few or too many fields, or ends too early.`,
    )
  }
  if (parsed.data.length > MOST_READINGS) {
    throw bad(`This table has ${parsed.data.length} rows; at most ${MOST_READINGS} are taken.`)
  }
  const taken: ReadingDraft[] = []
  const left: { what: string; why: string }[] = []
  parsed.data.forEach((row, i) => {
    const name = `Row ${i + 2}`
    const zone = row['zone']?.trim() as ZoneId
    if (!ALL_ZONE_IDS.includes(zone))
      throw bad(`${name}: "${String(zone).slice(0, 20)}" is no zone of the head.`)
    const number = (column: string): number => {
      const value = (row[column] ?? '').trim()
      const n = value === '' ? NaN : Number(value)
      if (!Number.isFinite(n))
        throw bad(`${name}: "${value.slice(0, 20)}" under ${column} is not a number.`)
      return n
    }
    const inSpace = ['x_mm', 'y_mm', 'z_mm', 'dx', 'dy', 'dz'].every((c) => (row[c] ?? '') !== '')
    let point: Vec3
    let direction: Vec3
    if (inSpace) {
      point = [number('x_mm'), number('y_mm'), number('z_mm')]
      direction = [number('dx'), number('dy'), number('dz')]
    } else {
      const at = middle(zone)
      const bearing = toRadians(number('clock_deg'))
      if (!at) throw bad(`${name} has neither a place nor a zone with a middle.`)
      point = at.point
      direction = directionOf(zone, at.point, at.normal, bearing)
    }
    const draft = draftFrom(
      { point, direction, method: row['method']?.trim(), at: row['at']?.trim(), zone },
      name,
      place,
      nowMs,
    )
    if ('why' in draft) left.push({ what: name, why: draft.why })
    else taken.push(draft)
  })
  return { taken, left }
}
