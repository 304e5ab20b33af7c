/** Work at home: its load and what it leaves, what it hides, and when a razor is over. */
import fc from 'fast-check'
import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { daysUntil, growthAfter, priorGrowth, tideCurve } from '../regrowth/index.ts'
import { LOAD_CONSTANTS } from '../skin/index.ts'
import { passLoad } from '../skin/load.ts'
import { NEW_SKIN, SKIN } from '../testing/client.ts'
import { knownVisit, NOW } from '../testing/visit.ts'
import { ALWAYS_OPEN, DAY_MS } from '../time/index.ts'
import { gate } from '../visit/gate.ts'
import { mulberry32 } from '../stats/index.ts'
import {
  afterHome,
  hiddenByHome,
  HOME_CONSTANTS,
  homeLeftMm,
  homeLoad,
  homeWords,
  notCutAtHome,
  razorUses,
  type HomeWork,
} from './homeWork.ts'
import { readyAfter, skinSince, windowAfter } from './window.ts'

let n = 0
const work = (daysAgo: number, over: Partial<HomeWork> = {}): HomeWork => ({
  ...{ id: `h${++n}`, atMs: NOW - daysAgo * DAY_MS, zones: ['chin'], tool: 'cartridge' },
  ...{ fresh: false, dull: false, source: 'client', toldAtMs: NOW },
  ...over,
})

describe('the load of work at home', () => {
  it('is that of strokes at random against the grain (checked by simulation)', () => {
    const random = mulberry32(3)
    const many = 40_000
    let sum = 0
    for (let i = 0; i < many; i++) {
      const once = passLoad(DEFAULTS, {
        ...{ angle: Math.PI * random(), tool: 'cartridge', slip: 'damp', hair: 'terminal' },
        ...{ wear: DEFAULTS(HOME_CONSTANTS.homeWear), uncut: 'medium', again: false },
      })
      const again = random() < DEFAULTS(HOME_CONSTANTS.homeAgain)
      sum += once * (again ? DEFAULTS(LOAD_CONSTANTS.goneOverAgain) : 1)
    }
    const { load, withGrain } = homeLoad(DEFAULTS, 'cartridge', 'medium')
    expect(load).toBeCloseTo(sum / many, 1)
    // What nobody knows the way of costs more than the grain.
    expect(load).toBeGreaterThan(1.8 * withGrain)
  })

  it.each(['cartridge', 'safety', 'guarded'] as const)(
    'of a %s costs more at random than with the grain',
    (tool) => {
      const { load, withGrain } = homeLoad(DEFAULTS, tool, 'coarse')
      expect(load).toBeGreaterThan(withGrain)
    },
  )

  it('leaves hair as long as its blade does, none by the root', () => {
    expect(homeLeftMm(DEFAULTS, 'epilator')).toBe(0)
    expect(homeLeftMm(DEFAULTS, 'trimmer')).toBeGreaterThan(homeLeftMm(DEFAULTS, 'safety'))
    expect(homeLeftMm(DEFAULTS, 'safety')).toBeGreaterThan(0.1)
  })
})

describe('hair that was cut at home', () => {
  const growth = {
    chin: priorGrowth(DEFAULTS, 'chin', 'beard'),
    'jaw-left': priorGrowth(DEFAULTS, 'jaw-left', 'beard'),
  }
  const last = { endedAtMs: NOW - 10 * DAY_MS, leftMm: { chin: 0.1, 'jaw-left': 0.1 } }

  it('begins anew where it was cut, and nowhere else', () => {
    const { leftMm, growth: grows, latest } = afterHome(DEFAULTS, last, growth, [work(3), work(6)])
    expect(latest!.atMs).toBe(NOW - 3 * DAY_MS)
    expect(grows['jaw-left']).toBe(growth['jaw-left'])
    expect(leftMm!['jaw-left']).toBe(0.1)
    const seen = daysUntil(DEFAULTS, grows['chin']!, 'seen', leftMm!['chin']!)
    const fresh = daysUntil(DEFAULTS, growth.chin, 'seen', leftMm!['chin']!)
    expect(seen.even).toBeCloseTo(7 + fresh.even, 1)
    // What was before the service is over.
    expect(afterHome(DEFAULTS, last, growth, [work(12)]).latest).toBeUndefined()
  })

  it('rests where it was torn, as after wax; a cut does not wake what rests', () => {
    const torn = afterHome(DEFAULTS, last, growth, [work(3, { tool: 'epilator' })])
    const felt = daysUntil(DEFAULTS, torn.growth['chin']!, 'felt', torn.leftMm!['chin']!)
    expect(felt.even).toBeCloseTo(7 + 35, 0)
    expect(felt.late).toBeGreaterThan(felt.even + 5)
    const waxed = { chin: growthAfter(DEFAULTS, growth.chin, 'wax') }
    const cut = afterHome(DEFAULTS, { ...last, leftMm: { chin: 0 } }, waxed, [work(3)])
    expect(cut.growth['chin']!.rest).toEqual(waxed.chin.rest)
  })

  it('is not read as growth since the service (censored)', () => {
    const reading = (daysAfter: number, zoneId: string | null) => ({
      ...{ id: `${daysAfter}${zoneId}`, visitId: 'v', kind: 'seen' as const, days: daysAfter },
      ...{ zoneId, lengthMm: null, leftMm: 0.1, atMs: last.endedAtMs + daysAfter * DAY_MS },
    })
    const hair = [reading(2, 'chin'), reading(8, 'chin'), reading(8, 'jaw-left'), reading(9, null)]
    expect(notCutAtHome(hair, [work(5)]).map((h) => h.id)).toEqual(['2chin', '8jaw-left'])
    expect(notCutAtHome(hair, [])).toBe(hair)
  })

  it('drops on the tide line by its share of the skin, and goes on from there (property)', () => {
    const beard = priorGrowth(DEFAULTS, 'chin', 'beard')
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 1, noNaN: true }), (share) => {
        const cut = { atMs: 5 * DAY_MS, share, leftMm: 0.1 }
        const { past } = tideCurve(DEFAULTS, [0], 0.1, beard, 0, 10 * DAY_MS, 12 * DAY_MS, [cut])
        const before = past.find((p) => p.atMs === 5 * DAY_MS - 1)!
        const after = past.find((p) => p.atMs === 5 * DAY_MS)!
        expect(after.mm).toBeCloseTo(share * 0.1 + (1 - share) * before.mm, 6)
        expect(past.at(-1)!.mm).toBeGreaterThan(after.mm)
      }),
    )
  })
})

describe('skin that was worked at home', () => {
  it('counts each time, on what nothing touched later', () => {
    const left = {
      endedAtMs: NOW - 9 * DAY_MS,
      leftMm: { chin: 0.1, 'jaw-left': 0.1 },
      answers: [],
    }
    const zones = ['chin', 'jaw-left'] as const
    const since = skinSince(DEFAULTS, left, [work(4, { zones }), work(1), work(20)])
    expect(since.map((s) => [(NOW - s.endedAtMs) / DAY_MS, s.zones.map((z) => z.zoneId)])).toEqual([
      [1, ['chin']],
      [4, ['jaw-left']],
    ])
  })

  const loads = { chin: 1 }
  const last = {
    ...{ service: 'face-shave' as const, method: 'blade' as const, endedAtMs: NOW - 9 * DAY_MS },
    ...{ loads, leftMm: { chin: 0.1 }, answers: [] },
  }
  const growth = { chin: priorGrowth(DEFAULTS, 'chin', 'beard') }
  const comes = { skin: SKIN, schools: DEFAULT_SCHOOLS, closed: ALWAYS_OPEN, offset: 0 }

  it('counts from then: it is ready later, and so is the next visit', () => {
    const ready = readyAfter(DEFAULTS, last, NEW_SKIN)
    const later = readyAfter(DEFAULTS, last, NEW_SKIN, [work(1)])
    expect(later).toBeGreaterThan(ready)
    // Elsewhere it changes nothing.
    expect(readyAfter(DEFAULTS, last, NEW_SKIN, [work(1, { zones: ['jaw-left'] })])).toBe(ready)
    const from = (home: readonly HomeWork[]) =>
      windowAfter(DEFAULTS, last, comes, growth, later, home)!
    expect(from([]).fromMs).toBeLessThanOrEqual(from([work(1)]).fromMs)
    expect(from([work(1)]).fromMs).toBeGreaterThanOrEqual(NOW + DAY_MS)
    expect(
      from([work(1)])
        .reasons.map((r) => r.text)
        .join(' '),
    ).toMatch(/^Hair was taken off at home on .*: skin and hair count from then\./)
  })

  it('no longer tells how it took the service where that was too soon after it', () => {
    expect([...hiddenByHome(DEFAULTS, NOW - 3 * DAY_MS, [work(2)])]).toEqual(['chin'])
    expect(hiddenByHome(DEFAULTS, NOW - 9 * DAY_MS, [work(2)]).size).toBe(0)
  })

  it('is looked at before the first stroke, where this visit works', () => {
    const told = (zones: HomeWork['zones']) =>
      gate(knownVisit({ home: [work(1, { zones })] })).findings.filter((f) => f.about === 'home')
    expect(told(['chin'])[0]).toMatchObject({ severity: 'take-care', zones: ['chin'] })
    expect(told(['scalp-mid'])).toEqual([])
    expect(homeWords(work(1))).toBe('the chin, cartridge razor')
  })
})

describe('a razor at home', () => {
  it('is over by the school chosen, by rust or by a tug, until a fresh one is taken (common practice)', () => {
    const three = [work(9), work(6), work(3)]
    const uses = (home: readonly HomeWork[], school: 'once' | 'few' | 'many' = 'few') =>
      razorUses(home, 'cartridge', school)
    expect(uses(three)).toMatchObject({ uses: 3, most: 4, over: false })
    expect(uses([...three, work(1)])).toMatchObject({ uses: 4, over: true })
    expect(uses([...three, work(1)], 'many').over).toBe(false)
    expect(uses([work(1)], 'once').over).toBe(true)
    expect(uses([...three, work(1, { dull: true })], 'many')).toMatchObject({ over: true })
    expect(uses([...three, work(1, { fresh: true })])).toMatchObject({ uses: 1, over: false })
    // Another razor is counted for itself.
    expect(razorUses(three, 'safety', 'few').uses).toBe(0)
  })
})
