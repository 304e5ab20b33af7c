/** What a unit takes of its area's row: as much as it bears, or its answer where it bears nothing. */
import { rowOf, zoneRow, type Unit, type UnitZone, type ZoneRow } from './units.ts'

const row = (seconds: number) => ({ seconds }) as ZoneRow
const zone = (keys: readonly string[]) =>
  ({
    id: 'chin',
    rows: new Map(keys.map((key, i) => [key, row(i + 1)])),
  }) as unknown as UnitZone
const unit = (allowed: readonly string[], answer?: Unit['answer']): Unit => ({
  ...{ zones: [], allowed },
  ...(answer && { answer }),
})
const WHY = { text: 'too red', mark: 'H' } as const

describe('a row of an area', () => {
  it('is taken whole where it is borne, else as far as it is, else the gentlest that is', () => {
    const bears = unit(['with', 'with+across', 'trimmer:with'])
    expect(rowOf(bears, 'with+across')).toBe('with+across')
    expect(rowOf(bears, 'with+across+across')).toBe('with+across')
    expect(rowOf(bears, 'with+against')).toBe('with')
    expect(rowOf(bears, 'across')).toBe('with')
    expect(rowOf(unit([]), 'with')).toBeUndefined()
  })

  it('is the zone’s own figures, or those of the milder answer, or none', () => {
    const own = zone(['with', 'with+across'])
    expect(zoneRow(unit(['with', 'with+across']), own, 'with+across')?.seconds).toBe(2)
    expect(zoneRow(unit(['with']), own, 'with+across')?.seconds).toBe(1)
    const milder = unit([], { rows: new Map([['chin', row(9)]]), why: WHY })
    expect(zoneRow(milder, own, 'with')?.seconds).toBe(9)
    expect(zoneRow(milder, { ...own, id: 'jaw-left' }, 'with')).toBeUndefined()
    expect(zoneRow(unit([], { why: WHY }), own, 'with')).toBeUndefined()
    expect(zoneRow(unit([]), own, 'with')).toBeUndefined()
  })
})
