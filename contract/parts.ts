/** Small schemas that the others are made of. */
import * as y from 'yup'
import { ALL_ZONE_IDS } from '../core/zones/zones.ts'

export const uuid = () => y.string().uuid('must be an id (UUID)')
export const text = (most: number) => y.string().trim().max(most, `at most ${most} characters`)
export const moment = () => y.number().integer().min(0).max(8.64e15)
export const isoDate = () =>
  y
    .string()
    .matches(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, 'must be a date like 2026-03-14')
/** Ids of zones, rules, steps and lanes: short words joined with hyphens and colons. */
export const word = () => y.string().matches(/^[a-zA-Z0-9:-]{1,60}$/, 'is not a known name')
export const vec3 = () =>
  y
    .array()
    .of(y.number().required().min(-1000).max(1000))
    .length(3, 'must have three numbers')
    .required()
/** A zone of head or body. */
export const zone = () => y.string().oneOf([...ALL_ZONE_IDS], 'is no zone')
/** One of a list of words. */
export const choice = <T extends string>(of: readonly T[]) => y.string().oneOf([...of])
