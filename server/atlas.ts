/** The zones of the head as built: read once from what the head's build left. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { ZoneRecord } from '../core/head/head.ts'
import { ROOT } from './config.ts'

export const ZONES = JSON.parse(
  readFileSync(join(ROOT, 'generated', 'zones.json'), 'utf8'),
) as readonly ZoneRecord[]
