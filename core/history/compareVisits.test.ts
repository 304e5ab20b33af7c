import { DEFAULTS } from '../house/index.ts'
import { NOTHING_AT_CHAIR } from '../looks/index.ts'
import { DAY_MS } from '../time/index.ts'
import { differences, type ComparedVisit, type Two, differenceWords } from './compareVisits.ts'

describe('two visits beside each other', () => {
  const visit = (over: Partial<ComparedVisit>): ComparedVisit => ({
    endedAtMs: 0,
    readings: [],
    loads: { chin: 2, 'jaw-left': 1 },
    answers: [],
    atChair: NOTHING_AT_CHAIR,
    ...over,
  })
  const answered = (redness: number, bumps: number, loads = { chin: 2, 'jaw-left': 1 }) =>
    visit({
      loads,
      answers: [
        { moment: '24h', atMs: DAY_MS, zones: [{ zoneId: 'chin', redness, bumps: 0 }] },
        { moment: '7d', atMs: 7 * DAY_MS, zones: [{ zoneId: 'chin', redness: 0, bumps }] },
      ],
    })
  const zones = ['chin', 'jaw-left', 'neck-lower-left'] as const
  const found = (two: Two, layer: 'redness' | 'bumps' | 'load' | 'grain') =>
    Object.fromEntries(differences(DEFAULTS, two, layer, zones, 0) ?? [])

  it('tell what is more and what is less, on worked zones only', () => {
    const two = { then: answered(1, 6), now: answered(3, 2, { chin: 3.5, 'jaw-left': 1 }) }
    expect(found(two, 'redness')).toEqual({ chin: 2, 'jaw-left': 0 })
    expect(found(two, 'bumps')).toEqual({ chin: -4, 'jaw-left': 0 })
    expect(found(two, 'load')).toEqual({ chin: 1.5, 'jaw-left': 0 })
  })

  it('compare nothing where one of them was not answered: that is not clear', () => {
    expect(
      differences(DEFAULTS, { then: answered(1, 6), now: visit({}) }, 'redness', zones, 0),
    ).toBeUndefined()
    expect(found({ then: answered(1, 6), now: visit({}) }, 'load')).toEqual({
      chin: 0,
      'jaw-left': 0,
    })
    // No reading on either side: no zone to compare the grain of.
    expect(found({ then: visit({}), now: visit({}) }, 'grain')).toEqual({})
  })

  it('are told with their sign and unit', () => {
    expect([
      differenceWords(2, 'redness'),
      differenceWords(-4, 'bumps'),
      differenceWords(-1.25, 'load'),
      differenceWords(31.4, 'grain'),
    ]).toEqual(['+2', '−4', '−1.3', '31°'])
  })
})
