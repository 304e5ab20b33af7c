/** The starting guesses as readings of the field: one in the middle of each zone of skin, very weak. */
import type { Figures } from '../house/index.ts'
import { directionOf, type ZoneRecord } from '../head/index.ts'
import { FIELD_CONSTANTS, type FieldReading } from './field.ts'
import { zoneStem, type ZoneId } from '../zones/index.ts'
import { startingGuess } from './startingGuess.ts'

/** Guess readings of every zone that has a guess. */
export function guessReadings(figures: Figures, zones: readonly ZoneRecord[]): FieldReading[] {
  return zones.flatMap((zone) => {
    const bearing = startingGuess(zone.id)
    if (bearing === undefined) return []
    const { point, normal } = zone.centre
    return [
      {
        id: `guess:${zone.id}`,
        point,
        normal,
        tangent: directionOf(zone.id, point, normal, bearing),
        weight: figures(FIELD_CONSTANTS.weightGuess),
        area: areaOf(zone.id),
      },
    ]
  })
}

/** A neck may run otherwise than guessed where a scalp does not. */
function areaOf(id: ZoneId): string {
  const stem = zoneStem(id)
  if (stem.startsWith('scalp') || ['occiput', 'nape', 'nape-centre', 'neck-back'].includes(stem))
    return 'scalp'
  return stem.startsWith('neck') || stem.startsWith('under-chin') ? 'neck' : 'face'
}
