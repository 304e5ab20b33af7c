/**
 * Where hair usually grows before anyone has looked: starting guesses only (house estimates from common practice).
 * The client's left half is given as an hour of the clock; the right half is its mirror.
 */
import { toRadians } from './circular.ts'
import {
  bodyZone,
  bodyStem,
  zoneStem,
  type ZoneId,
  type ZoneStem,
  zoneSide,
} from '../zones/index.ts'

/** Hour on the clock face for the client's left, where 3 points to the client's left seen from the front. */
const LEFT_HOUR: Partial<Record<ZoneStem, number>> = {
  forehead: 4.5,
  'forehead-centre': 6,
  temple: 5,
  glabella: 12,
  brow: 3,
  'under-eye': 5,
  'nose-bridge': 6,
  'nose-side': 5.5,
  'nose-tip': 6,
  'cheek-upper': 6,
  'cheek-lower': 5.5,
  sideburn: 6,
  'upper-lip': 4.5,
  'mouth-corner': 5.5,
  'under-lip': 6,
  chin: 6,
  jaw: 5.5,
  'under-chin': 6.5,
  'under-chin-centre': 6,
  'neck-upper': 6,
  'neck-upper-centre': 6,
  'neck-lower': 11.5,
  'neck-lower-centre': 12,
  nape: 6.8,
  'nape-centre': 6,
  'neck-back': 6,
  'scalp-front': 12,
  'scalp-mid': 12,
  // The crown lies behind the whorl: its hair runs away from the face.
  'scalp-crown': 6,
  'scalp-side': 2.5,
  'scalp-behind-ear': 5,
  occiput: 6,
}

/** Starting guess for a zone, radians clockwise from 12; undefined where there is no skin. */
export function startingGuess(id: ZoneId): number | undefined {
  const part = bodyStem(id)
  const hour = part ? bodyZone(part).guessHour : LEFT_HOUR[zoneStem(id)]
  if (hour === undefined) return undefined
  const angle = toRadians(30 * (hour % 12))
  return zoneSide(id) === 'right' && angle !== 0 ? 2 * Math.PI - angle : angle
}
