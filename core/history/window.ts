/** The next visit's window of a client, from their last service and what followed. */
import type { SkinAndHair } from '../client.ts'
import { zoneName } from '../head/zoneFacts.ts'
import type { ZoneId } from '../head/zones.ts'
import type { Schools } from '../house/schools.ts'
import type { Growth } from '../regrowth/growth.ts'
import { nextVisitWindow, type VisitWindow } from '../regrowth/nextVisit.ts'
import type { ServiceId } from '../services.ts'
import type { SkinAnswer } from './answers.ts'

export interface LastService {
  readonly service: ServiceId
  readonly endedAtMs: number
  readonly leftMm: Readonly<Record<string, number>> | null
  readonly answers: readonly Pick<SkinAnswer, 'moment' | 'atMs' | 'zones'>[]
}

export function windowAfter(
  last: LastService | undefined,
  skin: SkinAndHair,
  schools: Schools,
  growth: Readonly<Record<string, Growth>>,
): VisitWindow | null {
  if (!last?.leftMm) return null
  const zones = Object.entries(last.leftMm)
    .filter(([zone]) => growth[zone] !== undefined)
    .map(([zone, leftMm]) => ({
      zoneId: zone as ZoneId,
      name: zoneName(zone as ZoneId),
      leftMm,
    }))
  return (
    nextVisitWindow({
      service: last.service,
      client: skin,
      schools,
      lastAtMs: last.endedAtMs,
      zones,
      growth: (zone) => growth[zone]!,
      // Slight redness right after is normal: only what is seen a day later or more speaks of unsettled skin.
      redness: last.answers
        .filter((a) => a.moment !== 'now' && a.moment !== '1h')
        .map((a) => ({
          atMs: a.atMs,
          grade: a.zones.reduce((m, z) => Math.max(m, z.redness), 0),
        })),
    }) ?? null
  )
}
