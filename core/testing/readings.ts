/** A map as somebody would make it who reads every zone of a service well, for tests. */
import { readFileSync } from 'node:fs'
import { BODY_ZONES } from '../body/index.ts'
import { readingFromBearing, type Reading, startingGuess } from '../grain/index.ts'
import type { ZoneRecord } from '../head/index.ts'
import { serviceZones, type ServiceId } from '../services/index.ts'

const ZONES = JSON.parse(readFileSync('generated/zones.json', 'utf8')) as readonly ZoneRecord[]
const BY_ID = new Map([...ZONES, ...BODY_ZONES].map((z) => [z.id, z]))

/** Strokes in each zone: enough that no lane of it is left to a guess. */
const STROKES = 12

/** Every zone of a service read in the usual direction. */
export function readingsOf(service: ServiceId, atMs: number, newId: () => string): Reading[] {
  return serviceZones(service).flatMap((id) => {
    const { centre, samples } = BY_ID.get(id)!
    const every = Math.max(1, Math.floor(samples.length / (STROKES - 1)))
    const places = [centre, ...samples.filter((_, i) => i % every === 0).slice(0, STROKES - 1)]
    return places.map((at) =>
      readingFromBearing(id, at, startingGuess(id) ?? 0, { id: newId(), method: 'felt', atMs }),
    )
  })
}
