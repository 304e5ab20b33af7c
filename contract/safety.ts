/** Backups and what proves them, over the wire. */
import * as y from 'yup'
import { text } from './parts.ts'

export const BACKUP_WHYS = ['nightly', 'asked', 'before-fresh', 'before-step'] as const
export const SAFETY_WORKS = ['backup', 'prove'] as const

/** A path; null for the usual place, or for none. */
const path = () => text(400).nullable().optional()

export const safetyChangeSchema = y
  .object({
    folder: path(),
    second: path(),
    /** Locks backups from now on; null to lock none. */
    passphrase: y.string().min(8, 'at least 8 characters').max(200).nullable().optional(),
  })
  .noUnknown()

export interface SafetyChange {
  readonly folder?: string | null
  readonly second?: string | null
  readonly passphrase?: string | null
}
