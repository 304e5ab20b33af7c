/** Small schemas that the others are made of. */
import * as y from 'yup'
import { ALL_ZONE_IDS } from '../core/zones/index.ts'

export const uuid = () => y.string().uuid('must be an id (UUID)')
/** Text and nothing else: a list or an object is refused, where Yup would ask it to be trimmed. */
export const text = (most: number) =>
  y
    .string()
    .transform((value: unknown) => (typeof value === 'string' ? value.trim() : value))
    .max(most, `at most ${most} characters`)
/** Moments of anybody's life here: later ones leave the calendar when days are added to them. */
const LATEST_MS = Date.UTC(2200, 0, 1)
export const moment = () => y.number().integer().min(0).max(LATEST_MS, 'is too far ahead')
export const isoDate = () =>
  y
    .string()
    .matches(
      /^(19|20|21)\d\d-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/,
      'must be a date like 2026-03-14',
    )
    .test('day', 'is no day of the calendar', (date) => {
      const day = new Date(`${date}T12:00:00Z`)
      return (
        date === undefined ||
        (day.getTime() > 0 && day.toISOString().startsWith(date)) ||
        /^19[0-6]/.test(date)
      )
    })
/** Ids of zones, rules, steps and lanes: short words joined with hyphens and colons. */
export const word = () => y.string().matches(/^[a-zA-Z0-9:-]{1,60}$/, 'is not a known name')
const coordinate = () => y.number().required().min(-1000).max(1000)
/** Three numbers. */
export const vec3 = () => y.tuple([coordinate(), coordinate(), coordinate()])
/** A zone of head or body. */
export const zone = () => y.string().oneOf([...ALL_ZONE_IDS], 'is no zone')
/** The same where core keeps it as a plain key. */
export const zoneKey = () => y.string().oneOf<string>(ALL_ZONE_IDS, 'is no zone')
/** One of a list of words. */
export const choice = <T extends string>(of: readonly T[]) => y.string().oneOf([...of])
export const list = <T>(of: y.ISchema<T>, most: number, message?: string) =>
  y.array(of).max(most, message)

/** A map from names to things; from any name, every name that is there holds one. */
type MapOf<K extends string, T> = string extends K ? Record<K, T> : Partial<Record<K, T>>

/** A map from names to things, each checked. */
export const mapOf = <K extends string, T>(
  isKey: (key: string) => boolean,
  value: y.Schema<T>,
  what: string,
  most = 600,
) =>
  y.mixed<MapOf<K, T>>().test(what, `must hold ${what}`, (all) => {
    if (all === undefined || all === null) return true
    if (typeof all !== 'object' || Array.isArray(all)) return false
    const entries = Object.entries(all)
    return (
      entries.length <= most &&
      entries.every(([key, v]) => isKey(key) && value.isValidSync(v, { strict: true }))
    )
  })

/** Keys of a map: one of a list, or of a shape. */
export const oneOf = (of: readonly string[]) => (key: string) => of.includes(key)
export const shaped = (shape: RegExp) => (key: string) => shape.test(key)
