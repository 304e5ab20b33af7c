/** How often bumps of a newcomer's sessions lie where the course says, for clients whose truth is known. */
import { courseOf, type VisitFacts } from '../../history/index.ts'
import { DEFAULTS } from '../../house/index.ts'
import { bumpPooling } from '../../skin/index.ts'
import { drawGamma, drawNormal, drawPoisson, mulberry32 } from '../../stats/index.ts'

export interface CourseWorld {
  /** Times as many bumps at first, on top; sessions after which half of that is left. */
  readonly more: number
  readonly half: number
  readonly daySpread: number
  /** Shape of the spread between clients. */
  readonly clients: number
}

export const COURSE_WORLDS: Readonly<Record<string, CourseWorld>> = {
  'as expected': { more: 1.2, half: 1, daySpread: 0.4, clients: 1.5 },
  'no more at first': { more: 0, half: 1, daySpread: 0.4, clients: 1.5 },
  'many at first, slowly fewer': { more: 2.5, half: 2, daySpread: 0.4, clients: 1.5 },
  'days alike': { more: 1.2, half: 1, daySpread: 0, clients: 1.5 },
  'bad days': { more: 1.2, half: 1, daySpread: 0.7, clients: 1.5 },
  'clients unlike': { more: 1.2, half: 1, daySpread: 0.4, clients: 0.8 },
}

const ZONES = ['chin', 'jaw-left', 'jaw-right', 'neck-left', 'neck-right']

/** Shares of sessions within what was expected, and above it, by session. */
export function courseHeld(
  seed: number,
  clients: number,
  world: CourseWorld,
): { readonly within: number[]; readonly above: number[] } {
  const random = mulberry32(seed)
  const skin = { bumpProne: true, curl: 'wavy' as const }
  const { mean } = bumpPooling(DEFAULTS, skin)
  const sessions = 4
  const within = Array.from({ length: sessions }, () => 0)
  const above = Array.from({ length: sessions }, () => 0)
  for (let c = 0; c < clients; c++) {
    const rate = (mean * drawGamma(random, world.clients)) / world.clients
    const visits = Array.from({ length: sessions }, (_, i): VisitFacts => {
      const day = Math.exp(world.daySpread * drawNormal(random) - world.daySpread ** 2 / 2)
      const factor = 1 + world.more * 2 ** (-i / world.half)
      const loads: Record<string, number> = {}
      const bumps: Record<string, number> = {}
      for (const z of ZONES) {
        loads[z] = 1 + 2 * random()
        bumps[z] = drawPoisson(random, rate * factor * day * loads[z])
      }
      return {
        ...{ visitId: `v${i}`, service: 'face-shave', workerId: 'w', endedAtMs: i },
        ...{ loads, bumps, worst: {}, choices: null, products: [], routine: '', answered: [] },
        ...{ due: null, first: i === 0 },
      }
    })
    const course = courseOf(DEFAULTS, skin, visits, [])!
    course.sessions.forEach(({ bumps, expected }, i) => {
      if (bumps! >= expected.low && bumps! <= expected.high) within[i]!++
      if (bumps! > expected.high) above[i]!++
    })
  }
  return { within: within.map((n) => n / clients), above: above.map((n) => n / clients) }
}
