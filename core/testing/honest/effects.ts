/** How often a choice is said to matter that does not, and how often one that does: days that shift all zones alike. */
import { DEFAULTS } from '../../house/index.ts'
import { choiceEffects, type ChoiceEffect, type ClientVisits } from '../../history/effects.ts'
import type { VisitFacts } from '../../history/facts.ts'
import { drawGamma, drawNormal, drawPoisson, mulberry32 } from '../../stats/index.ts'
import { DAY_MS } from '../../time/index.ts'

const ZONES = ['chin', 'jaw-left', 'jaw-right', 'neck-lower-left']

/** What is drawn: how many, how much days differ, and what going across does. */
export interface EffectWorld {
  readonly clients: number
  readonly visits: number
  readonly times: number
  /** Spread of the logarithm of a day's level. */
  readonly daySpread?: number
}

/** Clients whose zones redden by chance, `times` as much where the stroke went across. */
export function drawChoosers(
  seed: number,
  { clients, visits, times, daySpread = 0 }: EffectWorld,
): ClientVisits[] {
  const random = mulberry32(seed)
  return Array.from({ length: clients }, (_, c) => {
    const level = (0.35 * drawGamma(random, 3)) / 3
    return {
      clientId: `c${c}`,
      visits: Array.from({ length: visits }, (_x, i): VisitFacts => {
        const across = random() < 0.5
        const day =
          daySpread > 0 ? Math.exp(daySpread * drawNormal(random) - daySpread ** 2 / 2) : 1
        const rate = level * day * (across ? times : 1)
        return {
          visitId: `${c}-${i}`,
          service: 'face-shave',
          workerId: 'w',
          endedAtMs: i * 7 * DAY_MS,
          loads: Object.fromEntries(ZONES.map((z) => [z, 1])),
          worst: Object.fromEntries(ZONES.map((z) => [z, drawPoisson(random, rate)])),
          bumps: null,
          choices: {
            zones: Object.fromEntries(
              ZONES.map((z) => [
                z,
                {
                  relation: across ? 'across' : 'with',
                  passes: 1,
                  tool: 'single-edge',
                  wear: 0.25,
                  lanes: 3,
                  nicks: 0,
                },
              ]),
            ),
            slip: 'full',
            blade: 'shavette',
            exfoliate: 'acid',
          },
          products: [],
          routine: '',
          answered: [],
          due: null,
        }
      }),
    }
  })
}

/** What is said of going across. */
export const acrossIn = (list: readonly ClientVisits[]): ChoiceEffect =>
  choiceEffects(DEFAULTS, list)[0]!.effects.find((e) => e.id === 'across')!

/** Share of histories in which going across is said to matter, and in which its range of 95 % holds the truth. */
export function effectsFound(
  seed: number,
  histories: number,
  world: EffectWorld,
): { found: number; held: number } {
  let [found, held] = [0, 0]
  for (let i = 0; i < histories; i++) {
    const e = acrossIn(drawChoosers(seed + i, world))
    if (e.verdict === 'more' || e.verdict === 'less') found++
    if (e.low <= world.times && e.high >= world.times) held++
  }
  return { found: found / histories, held: held / histories }
}
