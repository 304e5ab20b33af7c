/** How often what is told of a skin holds, for clients whose truth is known: like what the model expects, and unlike it. */
import { DEFAULTS } from '../../house/index.ts'
import {
  anyZoneOdds,
  believe,
  expectedMean,
  skinPooling,
  sumVisits,
  zoneSensitivity,
  REACTIVITIES,
  rednessOdds,
  sensitivityRange,
  type SkinOutcome,
} from '../../skin/index.ts'
import { drawGamma, drawNormal, drawPoisson, mulberry32 } from '../../stats/index.ts'

/** Truths of skins. */
export interface SkinWorld {
  /** Shape of the spread between a client's zones: low where they are unlike. */
  readonly zones: number
  /** Spread of the logarithm of a day's level. */
  readonly daySpread: number
  /** After 12 visits the skin is so many times as red. */
  readonly later: number
}

export const SKIN_WORLDS: Readonly<Record<string, SkinWorld>> = {
  'as expected': { zones: 4.5, daySpread: 0.4, later: 1 },
  'zones unlike': { zones: 0.8, daySpread: 0.4, later: 1 },
  'zones alike': { zones: 30, daySpread: 0.4, later: 1 },
  'days alike': { zones: 4.5, daySpread: 0, later: 1 },
  'very bad days': { zones: 2.5, daySpread: 0.7, later: 1 },
  'skin that changes': { zones: 4.5, daySpread: 0.4, later: 3 },
}

const ZONES = ['chin', 'jaw-left', 'jaw-right', 'neck-lower-left', 'neck-lower-right', 'cheek-left']

export interface SkinHeld {
  /** Share of true rates, as they are now, in the range of 80 %. */
  readonly rate: number
  /** Mean of what was told of redness at the next visit, and the share that came. */
  readonly said: number
  readonly came: number
  /** The same of any zone of the visit. */
  readonly anySaid: number
  readonly anyCame: number
}

export function skinHeld(
  seed: number,
  clients: number,
  visits: number,
  world: SkinWorld,
): SkinHeld {
  const random = mulberry32(seed)
  let [held, all, said, came, anySaid, anyCame] = [0, 0, 0, 0, 0, 0]
  for (let i = 0; i < clients; i++) {
    // Grades end at 4: skin that reddens three times as much is told of where it was tough before.
    const kind = world.later > 1 ? 'tough' : REACTIVITIES[i % 3]!
    const client = (expectedMean(DEFAULTS, kind) * drawGamma(random, 4.5)) / 4.5
    const rates = Object.fromEntries(
      ZONES.map((z) => [z, (client * drawGamma(random, world.zones)) / world.zones]),
    )
    const visit = (v: number): SkinOutcome[] => {
      const day = Math.exp(world.daySpread * drawNormal(random) - world.daySpread ** 2 / 2)
      const now = v >= 12 ? world.later : 1
      return ZONES.map((zoneId) => {
        const load = 1 + 2 * random()
        const grade = Math.min(4, drawPoisson(random, rates[zoneId]! * now * day * load))
        return { zoneId, load, grade }
      })
    }
    const past = Array.from({ length: visits }, (_, v) => visit(v))
    const mean = expectedMean(DEFAULTS, kind)
    const belief = believe(sumVisits(DEFAULTS, past, mean), skinPooling(DEFAULTS, mean))
    const next = visit(visits)
    anySaid += anyZoneOdds(belief, Object.fromEntries(next.map((o) => [o.zoneId, o.load])))
    if (next.some((o) => o.grade >= 2)) anyCame++
    for (const o of next) {
      const skin = zoneSensitivity(belief, o.zoneId)
      const { low, high } = sensitivityRange(skin)
      const truth = rates[o.zoneId]! * (visits > 12 ? world.later : 1)
      all++
      if (truth >= low && truth <= high) held++
      said += rednessOdds(skin, o.load)
      if (o.grade >= 2) came++
    }
  }
  return {
    rate: held / all,
    said: said / all,
    came: came / all,
    anySaid: anySaid / clients,
    anyCame: anyCame / clients,
  }
}
