import { DEFAULTS } from '../house/index.ts'
import { METHOD_WORLDS, methodsHeld } from '../testing/honest/methods.ts'
import { SKIN } from '../testing/client.ts'
import { DAY_MS } from '../time/index.ts'
import type { Method } from '../services/index.ts'
import type { PastJob } from './jobsDone.ts'
import { methodOdds, triesByMethod } from './methodTries.ts'

const tried = (
  method: Method,
  visit: number,
  red: number,
  over: Partial<PastJob> = {},
): PastJob => ({
  ...{ id: `${method}-${visit}`, visitId: `v${visit}`, service: 'face-shave', method, zones: null },
  ...{ loads: { chin: 2, 'upper-lip': 2 }, leftMm: { chin: 0, 'upper-lip': 0 } },
  ...{ endedAtMs: visit * 30 * DAY_MS, redAtChair: {} },
  answers: [
    {
      ...{ moment: 'now', atMs: visit * 30 * DAY_MS + DAY_MS },
      zones: [{ zoneId: 'chin', redness: red, bumps: 0 }],
    },
    {
      ...{ moment: 'now', atMs: visit * 30 * DAY_MS + 4 * DAY_MS },
      zones: [{ zoneId: 'chin', redness: 0, bumps: red }],
    },
  ],
  ...over,
})
const many = (method: Method, n: number, red: number, from = 0) =>
  Array.from({ length: n }, (_, i) => tried(method, from + i, red))
const ask = (past: readonly PastJob[], method: Method, zone = 'chin') =>
  methodOdds(DEFAULTS, SKIN, past)(method, zone)

describe('odds by method and zone', () => {
  it('lie within their range, and come from the method’s own tries', () => {
    const past = [...many('wax', 6, 3), ...many('blade', 6, 0, 20)]
    const [wax, blade] = [ask(past, 'wax'), ask(past, 'blade')]
    for (const told of [wax.redness, wax.bumps, blade.redness, blade.bumps]) {
      expect(told.low).toBeLessThan(told.odds)
      expect(told.high).toBeGreaterThan(told.odds)
    }
    expect([wax.tries, wax.here, blade.tries]).toEqual([6, 6, 6])
    expect(wax.redness.odds).toBeGreaterThan(3 * blade.redness.odds)
    expect(wax.bumps.odds).toBeGreaterThan(3 * blade.bumps.odds)
    // The lip never reddened under the same wax.
    expect(ask(past, 'wax', 'upper-lip').redness.odds).toBeLessThan(wax.redness.odds)
  })

  it('before the first try lean on what the other methods showed, and are less sure', () => {
    const untold = ask([], 'thread')
    const calm = ask(many('blade', 12, 0), 'thread')
    const red = ask(many('blade', 12, 3), 'thread')
    expect(untold.tries).toBe(0)
    expect(calm.redness.odds).toBeLessThan(untold.redness.odds)
    expect(red.redness.odds).toBeGreaterThan(untold.redness.odds)
    const wide = ({ redness }: typeof red) => redness.high - redness.low
    const own = ask([...many('blade', 12, 3), ...many('thread', 12, 3, 20)], 'thread')
    expect(wide(own)).toBeLessThan(wide(red))
  })

  it('counts neither method where two went over a place in one sitting, nor what was gone over at home since', () => {
    const both = [tried('blade', 1, 3), tried('tweezers', 1, 3, { loads: { chin: 0.3 } })]
    const tries = triesByMethod(DEFAULTS, both)
    expect(tries.get('tweezers')).toBeUndefined()
    expect(tries.get('blade')!.redness[0]!.map((o) => o.zoneId)).toEqual(['upper-lip'])
    const home = [
      {
        ...{ id: 'h', atMs: 30 * DAY_MS + DAY_MS / 2, zones: ['chin' as const] },
        ...{
          tool: 'cartridge' as const,
          fresh: false,
          dull: false,
          source: 'client' as const,
          toldAtMs: 0,
        },
      },
    ]
    const hidden = triesByMethod(DEFAULTS, [tried('blade', 1, 3)], home)
    expect(hidden.get('blade')!.redness[0]!.map((o) => o.zoneId)).toEqual(['upper-lip'])
  })

  it('two jobs of one method are one try, at the sum of their loads', () => {
    const split = [
      tried('blade', 1, 3, { loads: { chin: 1.5 } }),
      tried('blade', 1, 3, { loads: { chin: 0.5, 'upper-lip': 2 } }),
    ]
    expect(ask(split, 'blade')).toEqual(ask([tried('blade', 1, 3)], 'blade'))
  })
})

describe('ranges of 80 % of a method in a zone', () => {
  it.each([[[4, 1, 0]], [[8, 3, 1]], [[20, 10, 5]]])(
    'hold after %j tries, for people like and unlike those expected',
    (tries) => {
      const all = Object.values(METHOD_WORLDS).map((w, i) => methodsHeld(30 + i, 60, tries, w))
      for (const what of ['redness', 'bumps', 'eitherRed', 'eitherBumps'] as const) {
        const mean = all.reduce((s, h) => s + h[what], 0) / all.length
        expect(mean).toBeGreaterThan(0.74)
        expect(mean).toBeLessThan(0.86)
        for (const h of all) {
          expect(h[what]).toBeGreaterThan(0.64)
          expect(h[what]).toBeLessThan(0.94)
        }
      }
      const told = all.reduce((s, h) => s + h.said, 0)
      const came = all.reduce((s, h) => s + h.true, 0)
      expect(Math.abs(told - came) / came).toBeLessThan(0.2)
    },
  )
})
