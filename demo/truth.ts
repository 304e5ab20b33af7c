/**
 * How hair truly grows on each invented head: smooth over the whole skin, through the directions of the person's story in the
 * middle of each zone, and round a whorl where there is one.
 */
import { DEFAULTS } from '../core/house/index.ts'
import {
  toRadians,
  wrapTurn,
  fieldGround,
  GrainField,
  type FieldTold,
  type FieldGround,
  fieldAt,
  startingGuess,
  type ZonedReading,
} from '../core/grain/index.ts'
import {
  cross,
  directionOf,
  tangentPart,
  unit,
  type Vec3,
  type SurfacePoint,
  type ZoneRecord,
} from '../core/head/index.ts'
import { zoneStem, zoneSide } from '../core/zones/index.ts'
import { headFlow, type SkinFlow } from '../core/plan/index.ts'
import { atlas, ZONES } from '../server/atlas.ts'
import type { Person } from './people.ts'

interface Truth {
  readonly answer: FieldTold
  readonly readings: readonly ZonedReading[]
  readonly grows: (at: SurfacePoint) => Vec3
}

let ground: FieldGround | undefined
const known = new Map<Person, Truth>()

/** Middle of a whorl at the crown, a little off the midline as on most heads. */
const WHORL: Vec3 = [6, 98, -66]
/** How far hair turns aside on its way out of it, radians. */
const WHORL_TURN = 1.05

function truthOf(person: Person): Truth {
  const made = known.get(person)
  if (made) return made
  ground ??= fieldGround(DEFAULTS, atlas(DEFAULTS).packed.solve, [])
  const base = ground
  const field = new GrainField(DEFAULTS, base)
  const readings = ZONES.filter((z) => z.skin).flatMap((zone) => anchors(person, zone))
  field.setAll(readings)
  const answer = field.told()
  const truth = {
    answer,
    readings,
    grows: (at: SurfacePoint) => fieldAt(base, answer, at).direction,
  }
  known.set(person, truth)
  return truth
}

/** The true growth direction at any place of a person's head. */
export function trueGrain(person: Person): (at: SurfacePoint) => Vec3 {
  return truthOf(person).grows
}

/** The true growth over a person's whole head: past services were planned by workers who knew it well. */
export function trueFlow(person: Person): SkinFlow {
  const { answer, readings } = truthOf(person)
  const { packed, field, display } = atlas(DEFAULTS)
  return headFlow(DEFAULTS, field, answer, readings, packed.display, packed.solve.zones, display)
}

function anchors(person: Person, zone: ZoneRecord): ZonedReading[] {
  if (zone.id === 'scalp-crown' && person.truth.whorl) {
    const turn = person.truth.whorl === 'clockwise' ? -WHORL_TURN : WHORL_TURN
    return zone.samples.map((at, i) => {
      const away: Vec3 = [at.point[0] - WHORL[0], at.point[1] - WHORL[1], at.point[2] - WHORL[2]]
      const out = unit(tangentPart(away, at.normal))
      const side = cross(at.normal, out)
      const [c, s] = [Math.cos(turn), Math.sin(turn)]
      const tangent = unit([
        c * out[0] + s * side[0],
        c * out[1] + s * side[1],
        c * out[2] + s * side[2],
      ])
      return { id: `${zone.id}:${i}`, zoneId: zone.id, ...at, tangent, weight: 1 }
    })
  }
  const hour = person.truth.hours?.[zoneStem(zone.id)]
  const bearing =
    hour === undefined
      ? (startingGuess(zone.id) ?? 0)
      : wrapTurn(toRadians(30 * (hour % 12)) * (zoneSide(zone.id) === 'right' ? -1 : 1))
  const { point, normal } = zone.centre
  return [
    {
      id: zone.id,
      zoneId: zone.id,
      point,
      normal,
      tangent: directionOf(zone.id, point, normal, bearing),
      weight: 1,
    },
  ]
}
