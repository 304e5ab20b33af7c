import { mapSigns } from './mapSigns.ts'

const at = { point: [0, 10, 0] as const, normal: [0, 1, 0] as const }
const whorl = { ...at, zoneId: 'scalp-crown', triangle: 3, kind: 'whorl', turn: 'clockwise' }
const found = (whorls: unknown[], disagreements: unknown[]) =>
  ({ whorls, disagreements }) as unknown as Parameters<typeof mapSigns>[0]
const READINGS = new Map([
  ['a', { point: [0, 0, 0] as const, normal: [0, 0, 1] as const }],
  ['b', { point: [10, 4, 2] as const, normal: [1, 0, 0] as const }],
])

describe('signs on a map', () => {
  it('show the way a whorl turns, and where growth meets', () => {
    const kinds = mapSigns(
      found(
        [whorl, { ...whorl, turn: 'anticlockwise' }, { ...whorl, kind: 'meeting', turn: 'star' }],
        [],
      ),
      READINGS,
    ).map((s) => s.kind)
    expect(kinds).toEqual(['clockwise', 'anticlockwise', 'meeting'])
  })

  it('stand half way between two readings that disagree', () => {
    const [sign] = mapSigns(found([], [{ a: 'a', b: 'b', degrees: 90 }]), READINGS)
    expect(sign).toEqual({
      ...{ id: 'disagree:0', kind: 'disagree', point: [5, 2, 1], normal: [0, 0, 1] },
    })
  })

  it('say nothing of a reading that was taken out meanwhile', () => {
    expect(mapSigns(found([], [{ a: 'a', b: 'gone', degrees: 90 }]), READINGS)).toEqual([])
  })

  it('show where a reading would tell most only while that is wanted', () => {
    expect(mapSigns(found([], []), READINGS)).toEqual([])
    expect(mapSigns(found([], []), READINGS, at)).toEqual([{ id: 'next', kind: 'next', ...at }])
  })

  it('each has an id of its own', () => {
    const all = mapSigns(
      found(
        [whorl, whorl],
        [
          { a: 'a', b: 'b' },
          { a: 'b', b: 'a' },
        ],
      ),
      READINGS,
      at,
    )
    expect(new Set(all.map((s) => s.id)).size).toBe(5)
  })
})
