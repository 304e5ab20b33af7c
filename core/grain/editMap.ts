/**
 * Edits of a map, as what goes and what comes, so that each can be taken back and made again. Who turns, moves or mirrors a
 * reading says how hair grows today: what comes counts as of now.
 */
import { mirrorZone, zoneSide, type ZoneId } from '../zones/index.ts'
import {
  mirrorReading,
  moveReading,
  turnReading,
  type Reading,
  type StrokePoint,
} from './readings.ts'

export interface MapEdit {
  readonly remove: readonly Reading[]
  readonly add: readonly Reading[]
}

/** Ids for what comes, and when it comes, ms. */
export interface Making {
  readonly newId: () => string
  readonly atMs: number
}

/** The edit that takes another back. */
export const inverseEdit = ({ remove, add }: MapEdit): MapEdit => ({ remove: add, add: remove })

/** The readings as an edit leaves them. */
export function editedReadings(readings: readonly Reading[], edit: MapEdit): Reading[] {
  const gone = new Set(edit.remove.map((r) => r.id))
  return [...readings.filter((r) => !gone.has(r.id)), ...edit.add]
}

/** Readings turned, radians clockwise. */
export const turnReadings = (
  readings: readonly Reading[],
  by: number,
  { newId, atMs }: Making,
): MapEdit => ({
  remove: readings,
  add: readings.map((r) => ({ ...turnReading(r, by), id: newId(), atMs })),
})

/**
 * A reading taken to another place of the skin.
 * @throws DomainError where there is no skin
 */
export const movedReading = (
  reading: Reading,
  to: StrokePoint,
  { newId, atMs }: Making,
): MapEdit => ({
  remove: [reading],
  add: [{ ...moveReading(reading, to), id: newId(), atMs }],
})

/** A zone's readings on its other side, in the place of what was there; undefined where there is none, or nothing is read. */
export function mirrorOfZone(
  readings: readonly Reading[],
  zone: ZoneId,
  { newId, atMs }: Making,
): MapEdit | undefined {
  const twin = mirrorZone(zone)
  const own = readings.filter((r) => r.zoneId === zone)
  if (twin === zone || own.length === 0) return undefined
  return {
    remove: readings.filter((r) => r.zoneId === twin),
    add: own.map((r) => mirrorReading(r, newId(), atMs)),
  }
}

/** All that is read on one side onto the other, in the place of what the mirrored zones held; undefined where nothing is read. */
export function mirrorOfSide(
  readings: readonly Reading[],
  from: 'left' | 'right',
  { newId, atMs }: Making,
): MapEdit | undefined {
  const source = readings.filter((r) => zoneSide(r.zoneId) === from)
  if (source.length === 0) return undefined
  const mirrored = new Set(source.map((r) => mirrorZone(r.zoneId)))
  return {
    remove: readings.filter((r) => mirrored.has(r.zoneId)),
    add: source.map((r) => mirrorReading(r, newId(), atMs)),
  }
}
