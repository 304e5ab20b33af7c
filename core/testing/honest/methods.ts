/** How often what is told of a method in a zone holds, for people whose truth is known: like what the model expects, and unlike it. */
import { DEFAULTS } from '../../house/index.ts'
import { either } from '../../ahead/index.ts'
import { methodOdds, type PastJob } from '../../history/index.ts'
import type { Method } from '../../services/index.ts'
import { expectedMean, BUMP_CONSTANTS, oddsAtRate, SKIN_CONSTANTS } from '../../skin/index.ts'
import { drawGamma, drawPoisson, mulberry32 } from '../../stats/index.ts'
import { drawDay } from '../../simulate/index.ts'
import { DAY_MS } from '../../time/index.ts'
import { SKIN } from '../client.ts'

/** Truths of people: shapes of spreads, low where unlike. */
export interface MethodWorld {
  readonly methods: number
  readonly zones: number
  readonly daySpread: number
}

export const METHOD_WORLDS: Readonly<Record<string, MethodWorld>> = {
  'as expected': { methods: 4.5, zones: 4.5, daySpread: 0.4 },
  'methods alike': { methods: 30, zones: 4.5, daySpread: 0.4 },
  'methods unlike': { methods: 1.5, zones: 4.5, daySpread: 0.4 },
  'zones unlike': { methods: 4.5, zones: 1.5, daySpread: 0.4 },
  'days alike': { methods: 4.5, zones: 6, daySpread: 0 },
}

const ZONES = ['upper-lip', 'chin', 'cheek-left', 'cheek-right']
const METHODS: readonly (readonly [Method, number])[] = [
  ['blade', 2],
  ['wax', 2],
  ['thread', 1.4],
]

export interface MethodHeld {
  /** Share of true odds within the range told, and what was told on average beside what was true. */
  readonly redness: number
  readonly bumps: number
  /** The same of two methods together: redness, or bumps, of either. */
  readonly eitherRed: number
  readonly eitherBumps: number
  readonly said: number
  readonly true: number
}

/** @param tries visits of each method, in the order of `METHODS` */
export function methodsHeld(
  seed: number,
  people: number,
  tries: readonly number[],
  world: MethodWorld,
): MethodHeld {
  const random = mulberry32(seed)
  const spread = (shape: number) => drawGamma(random, shape) / shape
  // Bumps differ more between zones than redness does.
  const bumpier = DEFAULTS(BUMP_CONSTANTS.betweenZones) / DEFAULTS(SKIN_CONSTANTS.betweenZones)
  let [red, bumped, all, said, truth] = [0, 0, 0, 0, 0]
  let [bothRed, bothBumps, pairs] = [0, 0, 0]
  for (let p = 0; p < people; p++) {
    const person = { red: spread(4.5), bumps: spread(DEFAULTS(BUMP_CONSTANTS.betweenClients)) }
    const rates = new Map(
      METHODS.map(([method]) => {
        const [r, b] = [spread(world.methods), spread(world.methods)]
        return [
          method,
          Object.fromEntries(
            ZONES.map((z) => [
              z,
              {
                red: expectedMean(DEFAULTS, SKIN.reactivity) * person.red * r * spread(world.zones),
                bumps:
                  DEFAULTS(BUMP_CONSTANTS.prone) * person.bumps * b * spread(world.zones * bumpier),
              },
            ]),
          ),
        ]
      }),
    )
    const past: PastJob[] = METHODS.flatMap(([method, load], m) =>
      Array.from({ length: tries[m]! }, (_, v): PastJob => {
        const endedAtMs = (v * METHODS.length + m + 1) * 30 * DAY_MS
        const day = drawDay(random, world.daySpread)
        const look = (days: number, grade: 'red' | 'bumps') => ({
          ...{ moment: 'now' as const, atMs: endedAtMs + days * DAY_MS },
          zones: ZONES.map((zoneId) => {
            const n = drawPoisson(random, rates.get(method)![zoneId]![grade] * load * day)
            return {
              zoneId,
              redness: grade === 'red' ? Math.min(4, n) : 0,
              bumps: grade === 'bumps' ? n : 0,
            }
          }),
        })
        return {
          ...{ id: `${m}-${v}`, visitId: `${m}-${v}`, service: 'face-shave', method, zones: null },
          ...{ loads: Object.fromEntries(ZONES.map((z) => [z, load])), leftMm: {} },
          ...{ endedAtMs, redAtChair: {}, answers: [look(1, 'red'), look(4, 'bumps')] },
        }
      }),
    )
    const ask = methodOdds(DEFAULTS, { ...SKIN, bumpProne: true }, past)
    for (const [method] of METHODS)
      for (const zone of ZONES) {
        const told = ask(method, zone)
        const { red: r, bumps: b } = rates.get(method)![zone]!
        const sure = { shape: 1, rate: 1, visitSpread: world.daySpread }
        const trueRed = oddsAtRate(sure, r, told.load)
        const trueBumps = oddsAtRate(sure, b, told.load, 1)
        all++
        if (trueRed >= told.redness.low && trueRed <= told.redness.high) red++
        if (trueBumps >= told.bumps.low && trueBumps <= told.bumps.high) bumped++
        said += told.redness.odds
        truth += trueRed
      }
    const sure = { shape: 1, rate: 1, visitSpread: world.daySpread }
    for (const zone of ZONES)
      for (const coarse of ['wax', 'thread'] as const) {
        const [a, b] = [ask(coarse, zone), ask('blade', zone)]
        const holds = (of: 'red' | 'bumps', least: number) => {
          const neither = [a, b].map(
            (told) => 1 - oddsAtRate(sure, rates.get(told.method)![zone]![of], told.load, least),
          )
          const what = of === 'red' ? 'redness' : 'bumps'
          const { low, high } = either(DEFAULTS, a[what], b[what])
          const odds = 1 - neither[0]! * neither[1]!
          return odds >= low && odds <= high
        }
        pairs++
        if (holds('red', 2)) bothRed++
        if (holds('bumps', 1)) bothBumps++
      }
  }
  return {
    redness: red / all,
    bumps: bumped / all,
    eitherRed: bothRed / pairs,
    eitherBumps: bothBumps / pairs,
    said: said / all,
    true: truth / all,
  }
}
