/**
 * How often the skin is clear when the window opens, as it was told: clients whose skin, days and fading are known, worked as often
 * as one likes, looked at a day and two days later, and then not looked at again, or looked at once.
 */
import { DEFAULTS } from '../../house/index.ts'
import { learnSkin, readyAfter, skinAfter } from '../../history/index.ts'
import { clearOddsOf } from '../../regrowth/skinClear.ts'
import { drawDay, drawFaded } from '../../simulate/index.ts'
import { expectedMean, FADING_CONSTANTS, REACTIVITIES } from '../../skin/index.ts'
import { drawGamma, drawNormal, drawPoisson, mulberry32 } from '../../stats/index.ts'
import { DAY_MS } from '../../time/index.ts'
import { SKIN } from '../client.ts'
import type { SkinWorld } from './skin.ts'

const ZONES = [
  ...['chin', 'jaw-left', 'jaw-right', 'neck-lower-left', 'neck-lower-right', 'neck-upper-left'],
  ...['neck-upper-right', 'cheek-lower-left', 'cheek-lower-right', 'upper-lip-left'],
] as const

export interface OpeningHeld {
  /** Mean odds that all skin is clear, as told for the opening; and the share in which it was. */
  readonly said: number
  readonly came: number
  /** The same two days after the service. */
  readonly saidAfterTwo: number
  readonly cameAfterTwo: number
  /** Mean days until the opening. */
  readonly days: number
}

/** @param looked whether somebody looked a day after the last service */
export function openingHeld(
  seed: number,
  clients: number,
  visits: number,
  world: SkinWorld,
  looked: boolean,
): OpeningHeld {
  const random = mulberry32(seed)
  let [said, came, saidDay, cameDay, days] = [0, 0, 0, 0, 0]
  for (let i = 0; i < clients; i++) {
    const reactivity = REACTIVITIES[i % 3]!
    const client = (expectedMean(DEFAULTS, reactivity) * drawGamma(random, 4.5)) / 4.5
    const rates = ZONES.map(() => (client * drawGamma(random, world.zones)) / world.zones)
    const perDay =
      DEFAULTS(FADING_CONSTANTS.perDay) *
      Math.exp(DEFAULTS(FADING_CONSTANTS.spread) * drawNormal(random))
    /** Grades by zone at some days after a service, rising. */
    const serve = (atDays: readonly number[]) => {
      const day = drawDay(random, world.daySpread)
      const loads = Object.fromEntries(ZONES.map((z) => [z, 0.3 + 0.5 * random()]))
      let grades = ZONES.map((z, k) =>
        Math.min(4, drawPoisson(random, rates[k]! * day * loads[z]!)),
      )
      const worst = grades
      let last = 0
      const seen = atDays.map((d) => {
        grades = grades.map((g) => drawFaded(random, g, d - last, perDay))
        last = d
        return grades
      })
      return { loads, worst, seen }
    }
    const answer = (atMs: number, grades: readonly number[]) => ({
      atMs,
      zones: ZONES.map((zoneId, k) => ({ zoneId, redness: grades[k]!, bumps: 0 })).filter(
        (z) => z.redness > 0,
      ),
    })
    const past = Array.from({ length: visits }, (_, v) => {
      const endedAtMs = v * 10 * DAY_MS
      const s = serve([2])
      // Looked at when it is at its worst, and two days later.
      return {
        ...{ endedAtMs, loads: s.loads },
        answers: [
          answer(endedAtMs + DAY_MS / 3, s.worst),
          answer(endedAtMs + (2 + 1 / 3) * DAY_MS, s.seen[0]!),
        ],
      }
    })
    const model = learnSkin(DEFAULTS, { ...SKIN, reactivity }, past)
    const hours = Array.from({ length: 24 * 40 }, (_, h) => (h + 1) / 24)
    const next = serve(hours)
    const gradesAt = (atMs: number) =>
      atMs <= 0
        ? next.worst
        : next.seen[Math.min(hours.length, Math.ceil(atMs / (DAY_MS / 24))) - 1]!
    const last = {
      ...{
        service: 'face-shave' as const,
        method: 'blade' as const,
        endedAtMs: 0,
        loads: next.loads,
      },
      leftMm: Object.fromEntries(ZONES.map((z) => [z, 0.15])),
      answers: looked ? [{ moment: '24h' as const, ...answer(DAY_MS, gradesAt(DAY_MS)) }] : [],
    }
    const readyMs = readyAfter(DEFAULTS, last, model)
    const odds = clearOddsOf(DEFAULTS, skinAfter(last), model)
    const clear = (atMs: number) => Number(gradesAt(atMs).every((g) => g === 0))
    // Skin that was seen clear is ready at once; nothing is told of the time before the look.
    const at = Math.max(readyMs, looked ? DAY_MS : 0)
    said += odds(at)
    came += clear(at)
    saidDay += odds(2 * DAY_MS)
    cameDay += clear(2 * DAY_MS)
    days += at / DAY_MS
  }
  return {
    said: said / clients,
    came: came / clients,
    saidAfterTwo: saidDay / clients,
    cameAfterTwo: cameDay / clients,
    days: days / clients,
  }
}
