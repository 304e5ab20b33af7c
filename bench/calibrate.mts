/**
 * Are the numbers honest? Every range, word and alarm against hidden truths drawn afresh: a line of JSON each, with what it claims
 * and what it held. `npm run calibrate [-- seed [part]]`; without a seed a new one every time.
 */
import { COUNT_WORLDS, changesFound, watchRang } from '../core/testing/honest/changes.ts'
import { effectsFound } from '../core/testing/honest/effects.ts'
import { testsHeld } from '../core/testing/honest/feelTest.ts'
import { guessErrors, withinHeld } from '../core/testing/honest/grain.ts'
import { GROWTH_TRUTHS, growthHeld } from '../core/testing/honest/growth.ts'
import { lanesHeld } from '../core/testing/honest/lanes.ts'
import { openingHeld } from '../core/testing/honest/nextVisit.ts'
import { SKIN_WORLDS, skinHeld } from '../core/testing/honest/skin.ts'

const seed = Number(process.argv[2]) || Math.floor(Math.random() * 1e9)
const only = process.argv[3]

/** What a figure is to be. */
interface Claim {
  /** Share that is claimed. */
  readonly claims: number
  /** Between what it is taken to hold. */
  readonly from: number
  readonly to: number
}

const EIGHTY: Claim = { claims: 0.8, from: 0.74, to: 0.86 }
const RINGS: Claim = { claims: 0.05, from: 0, to: 0.07 }

function tell(name: string, value: number, { claims, from, to }: Claim): void {
  const rounded = Math.round(value * 1000) / 1000
  console.log(
    JSON.stringify({
      name,
      value: rounded,
      claims: Math.round(claims * 1000) / 1000,
      holds: value >= from && value <= to,
      seed,
    }),
  )
}

const PARTS: Readonly<Record<string, () => void>> = {
  growth() {
    for (const hair of ['beard', 'vellus'] as const) {
      for (const [world, truth] of Object.entries(GROWTH_TRUTHS)) {
        for (const visits of [1, 4, 12, 24]) {
          const h = growthHeld(seed + visits, 200, visits, hair, truth)
          for (const what of ['rate', 'felt', 'seen'] as const) {
            tell(`growth.${hair}.${world}.${visits} visits.${what}`, h[what], EIGHTY)
          }
        }
      }
    }
  },
  skin() {
    for (const [world, truth] of Object.entries(SKIN_WORLDS)) {
      for (const visits of [1, 4, 12, 24]) {
        const h = skinHeld(seed + visits, 400, visits, truth)
        tell(`skin.${world}.${visits} visits.rate`, h.rate, EIGHTY)
        tell(`skin.${world}.${visits} visits.came over said`, h.came / h.said, {
          ...{ claims: 1, from: 0.8, to: 1.25 },
        })
        tell(`skin.${world}.${visits} visits.any zone, came over said`, h.anyCame / h.anySaid, {
          ...{ claims: 1, from: 0.85, to: 1.18 },
        })
      }
    }
  },
  opening() {
    for (const [world, truth] of Object.entries(SKIN_WORLDS)) {
      // Of what begins to change nothing is known yet.
      if (truth.later !== 1) continue
      for (const visits of [0, 4, 12]) {
        for (const looked of [false, true]) {
          const h = openingHeld(seed + visits, 200, visits, truth, looked)
          const name = `opening.${world}.${visits} visits.${looked ? 'looked at' : 'not looked at'}`
          tell(name, h.came, { claims: h.said, from: h.said - 0.085, to: h.said + 0.085 })
        }
      }
    }
  },
  effects() {
    for (const daySpread of [0, 0.4, 0.7, 1]) {
      for (const [clients, visits] of [
        [1, 16],
        [4, 12],
        [6, 20],
      ] as const) {
        const e = effectsFound(seed, 300, { clients, visits, times: 1, daySpread })
        tell(`effects.none.${clients} clients.${visits} visits.days ${daySpread}`, e.found, RINGS)
      }
    }
    const power = effectsFound(seed, 200, { clients: 6, visits: 20, times: 2, daySpread: 0.4 })
    tell('effects.doubled.6 clients.20 visits.found', power.found, {
      ...{ claims: 0.95, from: 0.95, to: 1 },
    })
  },
  changes() {
    for (const [name, world] of Object.entries(COUNT_WORLDS)) {
      for (const sides of [
        [4, 4],
        [6, 6],
        [12, 12],
      ] as const) {
        const c = changesFound(seed, 2000, world, sides)
        tell(`change.none.${name}.${sides.join('/')}`, c.found, RINGS)
        tell(`change.range.${name}.${sides.join('/')}`, c.held, {
          ...{ claims: 0.95, from: 0.93, to: 1 },
        })
      }
      tell(`watch.none.${name}.24 looks`, watchRang(seed, 300, world, 24), RINGS)
    }
  },
  grain() {
    for (const noise of [5, 10, 20, 30]) {
      for (const readings of [16, 32, 64]) {
        tell(
          `grain.within.noise ${noise}.${readings} readings`,
          withinHeld(seed, 8, readings, noise).held,
          {
            ...{ claims: 0.68, from: 0.64, to: 0.92 },
          },
        )
      }
    }
    for (const noise of [5, 10, 20, 30]) {
      tell(
        `grain.within.noise ${noise}.10 readings of a known reader`,
        withinHeld(seed, 10, 10, noise, 3).held,
        { claims: 0.68, from: 0.6, to: 0.94 },
      )
    }
    for (const kind of ['unlike', 'like', 'neck-unlike'] as const) {
      for (const readings of [4, 8, 16]) {
        const e = guessErrors(seed, 8, readings, kind)
        tell(`grain.guesses over none.${kind}.${readings} readings`, e.withGuesses / e.without, {
          ...{ claims: 1, from: 0, to: 1.1 },
        })
      }
    }
  },
  lanes() {
    for (const noise of [5, 10, 20, 30]) {
      for (const readings of [24, 48, 96]) {
        tell(
          `lane.within.noise ${noise}.${readings} readings`,
          lanesHeld(seed, 4, readings, noise).held,
          {
            ...{ claims: 0.9, from: 0.84, to: 0.97 },
          },
        )
      }
    }
  },
  test() {
    for (const wrong of [0, 0.05, 0.1, 0.2, 0.3]) {
      const t = testsHeld(seed, 250, wrong)
      tell(`test.wrong ${wrong}.sure and right`, t.held, { claims: 0.8, from: 0.74, to: 1 })
    }
  },
}

for (const [part, run] of Object.entries(PARTS)) if (!only || only === part) run()
