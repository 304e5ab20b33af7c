/** Whose left: where a side of the client lies for a worker who stands at an hour round the chair. */
import { type ZoneId, zoneSide } from '../zones/index.ts'

const SIDE = { left: -1, middle: 0, right: 1 } as const

/**
 * Where a zone lies for the worker: on their left or right, or on the near or far side; empty for the middle.
 * @param hour where they stand on a clock round the chair seen from above, 12 at the client’s head or behind it
 */
export function yourSide(zoneId: ZoneId, hour: number): string {
  const side = SIDE[zoneSide(zoneId) ?? 'middle']
  if (side === 0) return ''
  const angle = (hour / 12) * 2 * Math.PI
  // The client faces up the page: their left lies to the left. The worker looks at the middle.
  const facing = { x: Math.sin(angle), y: Math.cos(angle) }
  const toRight = side * facing.y
  const away = side * facing.x
  if (Math.abs(toRight) > Math.abs(away)) return toRight > 0 ? 'on your right' : 'on your left'
  return away > 0 ? 'on the far side from you' : 'on the side near you'
}
