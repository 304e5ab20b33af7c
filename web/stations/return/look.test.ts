import type { VisitPage } from '../../../contract/types.ts'
import { BEFORE_START } from '../../../core/chair/state.ts'
import type { SkinSpot } from '../../../core/history/looks.ts'
import { DAY_MS } from '../../../core/time/dates.ts'
import { differences, told, type Two } from './differences.ts'
import { withoutSpot, withSpot, withZone, type Look } from './useLook.ts'

const NOTHING: Look = { zones: [], spots: [], feeling: {}, source: 'seen' }
const spot = (id: string, kind: SkinSpot['kind'] = 'bump'): SkinSpot => ({
  id,
  kind,
  zoneId: 'chin',
  point: [0, -60, 90],
  normal: [0, 0, 1],
})
const after = (look: Look, ...changes: ((l: Look) => Partial<Look>)[]) =>
  changes.reduce((l, change) => ({ ...l, ...change(l) }), look)

describe('a look being edited', () => {
  it('changes one zone and leaves the others as they were', () => {
    const look = after(
      NOTHING,
      (l) => withZone(l, 'chin', { redness: 2 }),
      (l) => withZone(l, 'jaw-left', { bumps: 3 }),
      (l) => withZone(l, 'chin', { bumps: 1 }),
    )
    expect(look.zones).toEqual([
      { zoneId: 'jaw-left', redness: 0, bumps: 3 },
      { zoneId: 'chin', redness: 2, bumps: 1 },
    ])
  })

  it('counts what is tapped, pustules apart, dark marks not at all', () => {
    const look = after(
      NOTHING,
      (l) => withSpot(l, spot('a')),
      (l) => withSpot(l, spot('b', 'ingrown')),
      (l) => withSpot(l, spot('c', 'pustule')),
      (l) => withSpot(l, spot('d', 'dark')),
    )
    expect(look.spots).toHaveLength(4)
    expect(look.zones).toEqual([{ zoneId: 'chin', redness: 0, bumps: 2, pustules: 1 }])
  })

  it('takes a tapped spot out of the count again, never below none', () => {
    const look = after(
      NOTHING,
      (l) => withSpot(l, spot('a')),
      (l) => withZone(l, 'chin', { bumps: 0 }),
      (l) => withoutSpot(l, spot('a')),
    )
    expect(look.spots).toEqual([])
    expect(look.zones[0]).toMatchObject({ bumps: 0 })
  })
})

describe('two visits beside each other', () => {
  const visit = (over: Partial<VisitPage>): VisitPage =>
    ({
      id: 'v',
      endedAtMs: 0,
      readings: [],
      loads: { chin: 2, 'jaw-left': 1 },
      answers: [],
      chair: BEFORE_START,
      ...over,
    }) as unknown as VisitPage
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
    Object.fromEntries(differences(two, layer, zones) ?? [])

  it('tell what is more and what is less, on worked zones only', () => {
    const two = { then: answered(1, 6), now: answered(3, 2, { chin: 3.5, 'jaw-left': 1 }) }
    expect(found(two, 'redness')).toEqual({ chin: 2, 'jaw-left': 0 })
    expect(found(two, 'bumps')).toEqual({ chin: -4, 'jaw-left': 0 })
    expect(found(two, 'load')).toEqual({ chin: 1.5, 'jaw-left': 0 })
  })

  it('compare nothing where one of them was not answered: that is not clear', () => {
    expect(differences({ then: answered(1, 6), now: visit({}) }, 'redness', zones)).toBeUndefined()
    expect(found({ then: answered(1, 6), now: visit({}) }, 'load')).toEqual({
      chin: 0,
      'jaw-left': 0,
    })
    // No reading on either side: no zone to compare the grain of.
    expect(found({ then: visit({}), now: visit({}) }, 'grain')).toEqual({})
  })

  it('are told with their sign and unit', () => {
    expect([
      told(2, 'redness'),
      told(-4, 'bumps'),
      told(-1.25, 'load'),
      told(31.4, 'grain'),
    ]).toEqual(['+2', '−4', '−1.3', '31°'])
  })
})
