/** Where one kind of trust ends and the next begins, and what is told of each. */
import { DEFAULTS } from '../house/index.ts'
import {
  CONFIDENCE_CONSTANTS as K,
  clashDeg,
  errorDeg,
  isRead,
  withinDeg,
  withinWords,
} from './confidence.ts'

describe('the error of a direction', () => {
  it.each([
    [1, 0.45],
    [0.6, 0.45],
    [0.59, 0.55],
    [0.25, 0.55],
    [0.24, 0.7],
    [0.05, 0.7],
    [0.049, 0.9],
    [0.02, 0.9],
  ])('at trust %d is %d of the reader’s scatter', (trust, share) => {
    expect(errorDeg(DEFAULTS, trust, 20)).toBeCloseTo(20 * share, 9)
  })

  it('is not told where nothing was read', () => {
    const least = DEFAULTS(K.trustLeast)
    expect(errorDeg(DEFAULTS, least - 1e-9, 20)).toBeNaN()
    expect([isRead(DEFAULTS, least), isRead(DEFAULTS, least - 1e-9)]).toEqual([true, false])
  })

  it('is told as the next larger of a few figures', () => {
    expect([0, 5, 5.01, 19, 31, 89, 170].map(withinDeg)).toEqual([5, 5, 10, 20, 40, 90, 90])
    expect(withinDeg(NaN)).toBeUndefined()
    expect(withinWords(undefined)).toBe('not read')
    expect(withinWords(15)).toBe('within about 15°')
  })
})

describe('a reading that disagrees', () => {
  const rad = (deg: number) => (deg * Math.PI) / 180
  it('lies 60° off the others, and three times as far as the reader’s scatter', () => {
    expect(clashDeg(DEFAULTS, rad(59), 5)).toBeUndefined()
    expect(clashDeg(DEFAULTS, rad(61), 5)).toBeCloseTo(61 / 4, 9)
    expect(clashDeg(DEFAULTS, rad(100), 34)).toBeUndefined()
    expect(clashDeg(DEFAULTS, rad(100), 33)).toBeCloseTo(25, 9)
  })
})
