/** Entries that may meet others made on another screen meanwhile: they say what they were made on, and are put together by field. */
import * as y from 'yup'
import { moment } from './parts.ts'

export const JOINED_ROUTES = ['changeClient', 'saveAsked', 'saveNotes', 'saveSkinAnswer'] as const
export type JoinedRoute = (typeof JOINED_ROUTES)[number]

export const isJoined = (route: string): route is JoinedRoute =>
  (JOINED_ROUTES as readonly string[]).includes(route)

/** Beside the body: what the screen had before the entry, and when it was made. */
export const basisSchema = y
  .object({
    was: y
      .mixed<object>()
      .nullable()
      .defined()
      .test(
        'fields',
        'is no entry',
        (v) => v === null || (typeof v === 'object' && !Array.isArray(v)),
      ),
    atMs: moment().required(),
  })
  .noUnknown()
export type Basis = y.InferType<typeof basisSchema>

export const settleSchema = y
  .object({ take: y.string().oneOf(['mine', 'theirs']).required() })
  .noUnknown()
