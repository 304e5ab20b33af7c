import { NOTHING_SEEN as NOTHING, withoutSpot, withSpot, withZone, type Look } from './editLook.ts'
import type { SkinSpot } from './answers.ts'

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
