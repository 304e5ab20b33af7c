/**
 * The growth map as a file: documented JSON (docs/formats/growth-map.schema.json). Readings are what counts; the summary by
 * zone and the whorls are written along for whoever has no field to work them out with, and are not read back.
 */
import { DomainError } from '../errors.ts'
import {
  toDegrees,
  ALL_METHODS,
  readingBearing,
  type Reading,
  type ReadingMethod,
  type TestAnswer,
  type Whorl,
  type ZoneFlow,
} from '../grain/index.ts'
import type { Vec3, PackedHead } from '../head/index.ts'
import { ALL_ZONE_IDS, isSkin, type ZoneId } from '../zones/index.ts'

export const MAP_FORMAT = 'slow-tide/growth-map'
export const MAP_VERSION = 1
/** Larger files are not opened. */
export const MOST_BYTES = 2_000_000
export const MOST_READINGS = 1000

/** A growth map as it stands in a file. Lengths in mm, angles in degrees clockwise from 12, moments in ISO 8601. */
export interface GrowthMapFile {
  readonly format: typeof MAP_FORMAT
  readonly version: typeof MAP_VERSION
  readonly madeAt: string
  readonly head: {
    /** Names the surface that the points lie on. */
    readonly id: string
    readonly units: 'mm'
    /** Which way the axes point. */
    readonly axes: string
  }
  readonly readings: readonly {
    readonly zone: ZoneId
    readonly point: Vec3
    readonly normal: Vec3
    readonly direction: Vec3
    readonly clockDeg: number
    readonly method: ReadingMethod
    readonly at: string
    readonly answers?: readonly TestAnswer[]
  }[]
  readonly zones: readonly {
    readonly zone: ZoneId
    readonly clockDeg: number | null
    readonly evenness: number
    readonly withinDeg: number | null
  }[]
  readonly whorls: readonly {
    readonly zone: ZoneId
    readonly kind: Whorl['kind']
    readonly turn: Whorl['turn']
    readonly point: Vec3
  }[]
}

/** A reading from a file, not yet part of a map. */
export type ReadingDraft = Omit<Reading, 'id'>

/** What a file held and what of it can be taken. */
export interface ImportReport {
  readonly taken: readonly ReadingDraft[]
  /** What is left, and why, in words. */
  readonly left: readonly { readonly what: string; readonly why: string }[]
}

/** The nearest place of the skin to a point; undefined when the point does not lie on the head. */
export type PlaceOnHead = (
  point: Vec3,
) => { readonly zoneId: ZoneId; readonly point: Vec3; readonly normal: Vec3 } | undefined

/** Name of a head's surface: FNV-1a over its solve mesh (Fowler, Noll & Vo, from memory). */
export function headId(head: PackedHead): string {
  const { positions, indices } = head.solve
  let hash = 0x811c9dc5
  const mix = (byte: number) => {
    hash = Math.imul(hash ^ byte, 0x01000193) >>> 0
  }
  for (const array of [positions, indices]) {
    for (const byte of new Uint8Array(array.buffer, array.byteOffset, array.byteLength)) mix(byte)
  }
  return `head-${positions.length / 3}-${hash.toString(16).padStart(8, '0')}`
}

const AXES = '+x client’s left, +y up from the eye line, +z forward from the ear'

/** Writes a map. */
export function writeGrowthMap(
  head: string,
  readings: readonly Reading[],
  zones: readonly ZoneFlow[],
  whorls: readonly Whorl[],
  nowMs: number,
): GrowthMapFile {
  return {
    format: MAP_FORMAT,
    version: MAP_VERSION,
    madeAt: new Date(nowMs).toISOString(),
    head: { id: head, units: 'mm', axes: AXES },
    readings: readings.map((r) => ({
      zone: r.zoneId,
      point: r.point,
      normal: r.normal,
      direction: r.tangent,
      clockDeg: tenth(toDegrees(readingBearing(r))),
      method: r.method,
      at: new Date(r.atMs).toISOString(),
      ...(r.answers && { answers: r.answers }),
    })),
    zones: zones
      .filter((z) => isSkin(z.zoneId) && z.within !== undefined)
      .map((z) => ({
        zone: z.zoneId,
        clockDeg: z.growthDirection === undefined ? null : tenth(toDegrees(z.growthDirection)),
        evenness: Math.round(z.meanResultantLength * 1000) / 1000,
        withinDeg: z.within ?? null,
      })),
    whorls: whorls.map(({ zoneId, kind, turn, point }) => ({ zone: zoneId, kind, turn, point })),
  }
}

const tenth = (deg: number) => (Math.round(deg * 10) / 10) % 360

const bad = (sentence: string) => new DomainError('bad-file', `${sentence} Nothing was changed.`)

/** Names that belong to the language itself: in a file they can only be meant to do harm. */
const HOSTILE = new Set([
  '__proto__',
  'prototype',
  'constructor',
  ...Object.getOwnPropertyNames(Object.prototype),
])

/**
 * Reads a growth map.
 * @param head name of the surface that this product uses
 * @param place finds the place of a point on it
 * @throws DomainError `bad-file` with the sentence to show; a file is taken whole or not at all
 */
export function readGrowthMap(
  text: string,
  head: string,
  place: PlaceOnHead,
  nowMs: number,
): ImportReport {
  tooLarge(text)
  let file: unknown
  try {
    file = JSON.parse(text)
  } catch {
    throw bad('This file is not JSON, or it ends too early.')
  }
  refuseHostile(file, '')
  if (!isObject(file) || file['format'] !== MAP_FORMAT) {
    throw bad('This file is no growth map.')
  }
  if (file['version'] !== MAP_VERSION) {
    throw bad(
      `This growth map is of version ${String(file['version']).slice(0, 12)}; this Slow Tide reads version ${MAP_VERSION}.`,
    )
  }
  const from = isObject(file['head']) ? file['head'] : {}
  if (from['id'] !== head) {
    throw bad('This growth map was made on another head, so its points do not fit this one.')
  }
  const list = file['readings']
  if (!Array.isArray(list)) throw bad('This growth map has no list of readings.')
  if (list.length > MOST_READINGS) {
    throw bad(`This growth map has ${list.length} readings; at most ${MOST_READINGS} are taken.`)
  }
  const taken: ReadingDraft[] = []
  const left: { what: string; why: string }[] = []
  list.forEach((raw: unknown, i) => {
    const name = `Reading ${i + 1}`
    if (!isObject(raw)) throw bad(`${name} is not a reading.`)
    const draft = draftFrom(
      {
        point: vector(raw['point'], `${name}: its point`),
        direction: vector(raw['direction'], `${name}: its direction`),
        normal: vector(raw['normal'], `${name}: its normal`),
        method: raw['method'],
        at: raw['at'],
        zone: raw['zone'],
      },
      name,
      place,
      nowMs,
    )
    if ('why' in draft) left.push({ what: name, why: draft.why })
    else taken.push({ ...draft, ...answersOf(raw['answers'], name) })
  })
  return { taken, left }
}

/** @throws DomainError `bad-file` when there is too much to read */
export function tooLarge(text: string): void {
  if (text.length > MOST_BYTES) {
    throw bad(
      `This file is ${(text.length / 1e6).toFixed(1)} MB; at most ${MOST_BYTES / 1e6} MB are opened.`,
    )
  }
}

const isObject = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v)

function refuseHostile(value: unknown, path: string): void {
  if (Array.isArray(value)) {
    for (const v of value) refuseHostile(v, path)
  } else if (isObject(value)) {
    for (const key of Object.keys(value)) {
      if (HOSTILE.has(key)) throw bad(`This file has a field "${key}", which no growth map has.`)
      refuseHostile(value[key], key)
    }
  }
}

function vector(value: unknown, name: string): Vec3 {
  if (
    !Array.isArray(value) ||
    value.length !== 3 ||
    !value.every((x) => typeof x === 'number' && Number.isFinite(x))
  ) {
    throw bad(`${name} is not three numbers.`)
  }
  return value as unknown as Vec3
}

function answersOf(value: unknown, name: string): { answers?: readonly TestAnswer[] } {
  if (value === undefined) return {}
  if (!Array.isArray(value) || value.length > 60) throw bad(`${name}: its answers are no list.`)
  return {
    answers: value.map((a: unknown) => {
      const deg = isObject(a) ? a['strokeDeg'] : undefined
      const catches = isObject(a) ? a['catches'] : undefined
      if (typeof deg !== 'number' || !(deg >= 0 && deg <= 360) || typeof catches !== 'boolean') {
        throw bad(`${name}: one of its answers is not a stroke and a yes or no.`)
      }
      return { strokeDeg: deg, catches }
    }),
  }
}

const FARTHEST_MM = 12

/** Checks a reading from a file and lays it onto the head. */
export function draftFrom(
  raw: {
    readonly point: Vec3
    readonly direction: Vec3
    /** Outward normal; that of the head when left out. */
    readonly normal?: Vec3
    readonly method: unknown
    readonly at: unknown
    readonly zone: unknown
  },
  name: string,
  place: PlaceOnHead,
  nowMs: number,
): ReadingDraft | { why: string } {
  if (!ALL_METHODS.includes(raw.method as ReadingMethod)) {
    throw bad(`${name}: "${String(raw.method).slice(0, 20)}" is no way of reading.`)
  }
  const atMs = typeof raw.at === 'string' ? Date.parse(raw.at) : NaN
  if (Number.isNaN(atMs)) throw bad(`${name} has no date.`)
  if (!ALL_ZONE_IDS.includes(raw.zone as ZoneId)) {
    throw bad(`${name}: "${String(raw.zone).slice(0, 20)}" is no zone of the head.`)
  }
  if (atMs > nowMs + 86_400_000) return { why: 'its date lies ahead' }
  const at = place(raw.point)
  const off = at
    ? Math.hypot(at.point[0] - raw.point[0], at.point[1] - raw.point[1], at.point[2] - raw.point[2])
    : Infinity
  if (!at || off > FARTHEST_MM) return { why: 'its point does not lie on the head' }
  // On a border the nearest triangle may belong to the neighbour: the file's own zone counts while it is skin.
  const zoneId = raw.zone as ZoneId
  if (!isSkin(zoneId)) return { why: 'it does not lie on skin' }
  const normal = raw.normal && likely(raw.normal, at.normal) ? raw.normal : at.normal
  const d = raw.direction
  const along = d[0] * normal[0] + d[1] * normal[1] + d[2] * normal[2]
  const flat: Vec3 = [d[0] - along * normal[0], d[1] - along * normal[1], d[2] - along * normal[2]]
  const length = Math.hypot(...flat)
  const whole = Math.hypot(...d)
  if (!(length > 0.3 * whole) || length < 1e-6) {
    return { why: 'its direction points out of the skin' }
  }
  return {
    zoneId,
    point: raw.point,
    normal,
    // What is already a unit tangent is kept to the last digit.
    tangent:
      Math.abs(along) < 1e-4 && Math.abs(whole - 1) < 1e-4
        ? d
        : [flat[0] / length, flat[1] / length, flat[2] / length],
    method: raw.method as ReadingMethod,
    atMs,
  }
}

/** A unit vector that looks about the same way as the skin there. */
const likely = (n: Vec3, skin: Vec3) =>
  Math.abs(Math.hypot(...n) - 1) < 0.02 && n[0] * skin[0] + n[1] * skin[1] + n[2] * skin[2] > 0.6

/** Leaves out what the map already holds: the same place, direction and moment. */
export function withoutKnown(report: ImportReport, known: readonly Reading[]): ImportReport {
  const near = (a: Vec3, b: Vec3, by: number) => a.every((x, k) => Math.abs(x - b[k]!) <= by)
  const taken: ReadingDraft[] = []
  const left = [...report.left]
  const all: ReadingDraft[] = [...known]
  for (const draft of report.taken) {
    const twin = all.some(
      (r) =>
        r.method === draft.method &&
        Math.abs(r.atMs - draft.atMs) < 1000 &&
        near(r.point, draft.point, 0.05) &&
        near(r.tangent, draft.tangent, 0.01),
    )
    if (twin) left.push({ what: `A reading of ${draft.zoneId}`, why: 'the map already holds it' })
    else {
      taken.push(draft)
      all.push(draft)
    }
  }
  return { taken, left }
}
