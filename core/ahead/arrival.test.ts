import { DEFAULTS } from '../house/index.ts'
import { DAY_MS } from '../time/index.ts'
import { arrivalBy } from './arrival.ts'

const ahead = [1, 2, 3].map((d) => ({ atMs: d * DAY_MS, mm: 0.2 + 0.2 * d, lowMm: 0, highMm: 1 }))

describe('hair on arrival', () => {
  it('is too short to read until the line reaches the length at which it is felt', () => {
    const now = arrivalBy(DEFAULTS, { past: [{ atMs: 0, mm: 0.2 }], ahead }, false, 0)!
    expect(now).toEqual({ nowMm: 0.2, tooShort: true, readableFromMs: 2 * DAY_MS })
    // Fuzz is felt sooner.
    expect(
      arrivalBy(DEFAULTS, { past: [{ atMs: 0, mm: 0.2 }], ahead }, true, 0)!.readableFromMs,
    ).toBe(DAY_MS)
  })

  it('is read where it is long enough, and nothing is said where no line is', () => {
    expect(arrivalBy(DEFAULTS, { past: [{ atMs: 0, mm: 3 }], ahead: [] }, false, 0)).toEqual({
      nowMm: 3,
      tooShort: false,
    })
    expect(arrivalBy(DEFAULTS, { past: [], ahead }, false, 0)).toBeUndefined()
    const short = arrivalBy(DEFAULTS, { past: [{ atMs: 0, mm: 0.1 }], ahead: [] }, false, 0)!
    expect(short.readableFromMs).toBeUndefined()
  })
})
