import fc from 'fast-check'
import { laneLetter, packCover, unpackCover } from './cover.ts'

const packed = (lanes: readonly number[]) =>
  packCover({ lane: Int16Array.from(lanes), count: Math.max(-1, ...lanes) + 1 })

describe('the cover of a zone as a string', () => {
  it('is runs of lanes, a dot where nothing is worked', () => {
    expect(packed([-1, -1, 0, 0, 0, 1])).toBe('2.3a1b')
    expect(packed([0])).toBe('1a')
    expect(packed([])).toBe('')
    expect(packed([1, 0, 1])).toBe('1b1a1b')
  })

  it('comes back cell by cell', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -1, max: 40 }), { maxLength: 200 }), (lanes) => {
        expect(unpackCover(packed(lanes))).toEqual(lanes.map((l) => (l < 0 ? '.' : laneLetter(l))))
      }),
    )
  })

  it('letters lanes a to z, then A to Z, and stays at the last', () => {
    expect([0, 25, 26, 51, 60].map(laneLetter)).toEqual(['a', 'z', 'A', 'Z', 'Z'])
  })
})
