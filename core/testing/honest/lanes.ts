/** How much of a lane's skin lies within what is told of it, for hidden heads that were read with noise. */
import { dot, type Vec3 } from '../../head/index.ts'
import { angleBetween, toDegrees } from '../../grain/index.ts'
import { hiddenField, noisyReadings, skinPoints } from '../../grain/trials.ts'
import { headRoom } from '../../plan/ground.ts'
import { ninetyPercentWithinDeg } from '../../plan/lanes.ts'
import { openZones, partedOf } from '../../plan/outline.ts'
import { inGroups, type JobInput } from '../../plan/planInput.ts'
import { pressBearings } from '../../plan/pressField.ts'
import { mulberry32 } from '../../stats/index.ts'
import { ZONE_IDS } from '../../zones/index.ts'
import { HEAD } from '../head.ts'
import { flowOf, planInput } from '../plan.ts'

/**
 * Plans a face on hidden heads.
 * @returns share of the skin of lanes that were read which lies within what their lane tells (nine tenths is claimed), and lanes
 */
export function lanesHeld(
  seed: number,
  heads: number,
  readings: number,
  noiseDeg: number,
): { held: number; lanes: number; meanDeg: number } {
  const room = headRoom(HEAD.display)
  let [inside, all, lanes, deg] = [0, 0, 0, 0]
  for (let i = 0; i < heads; i++) {
    const random = mulberry32(seed + 104_729 * i)
    const hidden = hiddenField(random)
    const points = skinPoints(HEAD.display, readings, random)
    const read = noisyReadings(hidden, points, (noiseDeg * Math.PI) / 180, random).map((r) => {
      const { triangle } = room.locator.nearest(r.point, r.normal)
      return { ...r, zoneId: ZONE_IDS[HEAD.display.zones[triangle]!]! }
    })
    const [input] = inGroups(planInput({ flow: flowOf(read) })) as [JobInput]
    const { skins } = openZones(input)
    const parted = partedOf(input, input.service, skins)
    for (const skin of skins) {
      for (const lane of parted.get(skin.zone.id)!.shapes) {
        // Of what nobody has read nothing is told.
        if (lane.trust < DEFAULTS_LEAST) continue
        const within = ninetyPercentWithinDeg(lane)
        const strokeAt = lane.press && pressBearings(lane.press, skin)
        lanes++
        deg += within
        for (const c of lane.cells) {
          const at = (list: Float64Array): Vec3 => [
            list[3 * c]!,
            list[3 * c + 1]!,
            list[3 * c + 2]!,
          ]
          // As far as the hidden growth lies from what the field says there, the stroke lies otherwise.
          const truth = hidden({ point: at(skin.middle), normal: at(skin.normal) })
          const field = at(skin.way)
          const normal = at(skin.normal)
          const turn = Math.atan2(
            dot(
              [
                normal[1] * field[2] - normal[2] * field[1],
                normal[2] * field[0] - normal[0] * field[2],
                normal[0] * field[1] - normal[1] * field[0],
              ],
              truth,
            ),
            dot(field, truth),
          )
          // The chart runs clockwise, the turn anticlockwise from outside.
          const off = angleBetween(skin.growth[c]! - turn, strokeAt ? strokeAt(c) : lane.growth)
          all += skin.areaCm2[c]!
          if (toDegrees(off) <= within) inside += skin.areaCm2[c]!
        }
      }
    }
  }
  return { held: inside / all, lanes, meanDeg: deg / lanes }
}

const DEFAULTS_LEAST = 0.02
