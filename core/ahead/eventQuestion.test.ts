import { DEFAULTS } from '../house/index.ts'
import { stubbleLeftMm } from '../plan/index.ts'
import { clientSeries } from './clientSeries.ts'
import { serviceZones, SERVICES } from '../services/index.ts'
import { eventFacts, NEW_MODEL } from '../testing/event.ts'
import { DAY_MS } from '../time/index.ts'
import { bestPlanFor, EVENT_CONSTANTS, planBack } from './backPlan.ts'
import { eventQuestion, type EventFacts, pointsToTry } from './eventQuestion.ts'
import type { Product } from '../care/index.ts'

describe('the question of an event', () => {
  it('takes a pass with the grain on every zone while there is no plan', () => {
    const q = eventQuestion(DEFAULTS, eventFacts(), 'photo', 9 * DAY_MS)
    expect(q.zones).toHaveLength(serviceZones('face-shave').length)
    for (const z of q.zones) {
      expect(z.load).toBe(1)
      expect(z.leftMm).toBeCloseTo(stubbleLeftMm(DEFAULTS, 0, 'single-edge'), 12)
    }
    expect(q.minutes).toBe(DEFAULTS(SERVICES['face-shave'].slotMin))
    expect(q.notBeforeMs).toBeUndefined()
    expect(q.fading).toBe(NEW_MODEL.fading)
  })

  it('takes the plan’s own loads, last pass and minutes when there is one', () => {
    const plan = {
      totalMinutes: 33,
      zones: [{ zoneId: 'chin', totalLoad: 2.6, passes: [{ leftMm: 0.2 }, { leftMm: 0.12 }] }],
    } as unknown as NonNullable<EventFacts['plan']>
    const q = eventQuestion(DEFAULTS, eventFacts({ plan }), 'photo', 9 * DAY_MS)
    expect(q.minutes).toBe(33)
    expect(q.zones).toEqual([expect.objectContaining({ name: 'Chin', load: 2.6, leftMm: 0.12 })])
  })

  it('waits for the window, with its first reason, and for what was put on', () => {
    const window = {
      fromMs: 3 * DAY_MS,
      reasons: [{ text: 'Skin was seen clear again.', mark: 'H' as const }],
    }
    const acid: Product = { id: 'a', name: 'Acid', use: 'after', holds: ['acid'] }
    const q = eventQuestion(DEFAULTS, eventFacts({ window, products: [acid] }), 'sun', 9 * DAY_MS)
    expect(q.notBeforeMs).toBe(3 * DAY_MS)
    expect(q.notBeforeWhy).toBe('The skin is ready again from 4 Jan: Skin was seen clear again.')
    const sun = (list: typeof q.clearances) => list.find((c) => c.id === 'sun')!.untilMs
    expect(sun(q.clearances)).toBeGreaterThan(
      sun(eventQuestion(DEFAULTS, eventFacts(), 'sun', 9 * DAY_MS).clearances),
    )
  })
})

describe('the visits ahead of a client', () => {
  it('lie in their windows, and an event has its own', () => {
    const event = {
      id: 'e',
      kind: 'party' as const,
      title: 'the regatta ball',
      atMs: 26 * DAY_MS + DAY_MS / 2,
    }
    const series = clientSeries(DEFAULTS, {
      ...eventFacts(),
      nowMs: DAY_MS,
      events: [event],
      window: {
        fromMs: 3 * DAY_MS,
        toMs: 5 * DAY_MS,
        skinMs: 0,
        felt: { even: 1, early: 0.8, late: 1.3 },
        seen: { even: 2, early: 1.7, late: 2.6 },
        firstZone: 'Chin',
        reasons: [],
      },
      last: { endedAtMs: 0, leftMm: { chin: 0.14 } },
      throughMs: 40 * DAY_MS,
    })
    const forIt = series.find((v) => v.event)!
    expect(forIt.atMs).toBeLessThan(event.atMs)
    expect(forIt.why).toContain('the regatta ball')
    for (let i = 1; i < series.length; i++) {
      expect(series[i]!.atMs - series[i - 1]!.atMs).toBeGreaterThanOrEqual(2.9 * DAY_MS)
    }
    expect(series.at(-1)!.atMs).toBeLessThanOrEqual(40 * DAY_MS)
  })
})

describe('every plan of the front', () => {
  const front = {
    zones: ['chin', 'jaw-left'],
    at: 0,
    offered: {},
    points: [
      { odds: 0.1, hours: 14, minutes: 25, skin: [[1, 0.3], null] },
      {
        odds: 0.3,
        hours: 26,
        minutes: 33,
        skin: [
          [2.4, 0.1],
          [1.6, 0.12],
        ],
      },
    ],
  } as const
  const plan = { totalMinutes: 25, zones: [], front } as unknown as NonNullable<EventFacts['plan']>

  it('is asked of with its own minutes, loads and stubble; zones that it leaves out are not', () => {
    expect(pointsToTry(eventFacts({ plan }))).toBe(2)
    expect(pointsToTry(eventFacts())).toBe(0)
    const q = eventQuestion(DEFAULTS, eventFacts({ plan }), 'photo', 9 * DAY_MS, 0)
    expect(q).toMatchObject({ minutes: 25, zones: [{ name: 'Chin', load: 1, leftMm: 0.3 }] })
    expect(
      eventQuestion(DEFAULTS, eventFacts({ plan }), 'photo', 9 * DAY_MS, 1).zones,
    ).toHaveLength(2)
  })

  it('the one that serves the event best is found: no other has less odds at its own best time', () => {
    for (const [kind, days] of [
      ['mask-seal', 3],
      ['photo', 6],
      ['dive', 12],
    ] as const) {
      const asked = [0, 1].map((i) =>
        eventQuestion(DEFAULTS, eventFacts({ plan }), kind, days * DAY_MS, i),
      )
      const best = planBack(DEFAULTS, asked[bestPlanFor(DEFAULTS, asked)]!)
      for (const q of asked) {
        const other = planBack(DEFAULTS, q)
        const cost = (p: typeof best) =>
          p.atBest.redness / DEFAULTS(EVENT_CONSTANTS.rednessLimit) +
          p.atBest.hair / DEFAULTS(EVENT_CONSTANTS.hairLimit)
        expect(Number(best.fits)).toBeGreaterThanOrEqual(Number(other.fits))
        if (best.fits === other.fits) expect(cost(best)).toBeLessThan(cost(other) + 0.021)
      }
    }
  })
})
