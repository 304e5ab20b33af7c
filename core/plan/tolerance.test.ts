import { DEFAULTS } from '../house/index.ts'
import { priorSensitivity } from '../skin/index.ts'
import { isTolerant } from './tolerance.ts'

const tough = priorSensitivity(DEFAULTS, 'tough')

describe('skin that bears much', () => {
  it('is shown by five answered visits without redness, not by what was told', () => {
    expect(isTolerant(DEFAULTS, tough, undefined)).toBe(false)
    expect(isTolerant(DEFAULTS, tough, { visits: 4, reddened: 0 })).toBe(false)
    expect(isTolerant(DEFAULTS, tough, { visits: 5, reddened: 0 })).toBe(true)
    expect(isTolerant(DEFAULTS, tough, { visits: 8, reddened: 1 })).toBe(false)
  })

  it('is no calm record of a skin that is still believed to redden sooner', () => {
    const average = priorSensitivity(DEFAULTS, 'average')
    expect(isTolerant(DEFAULTS, average, { visits: 8, reddened: 0 })).toBe(false)
    expect(
      isTolerant(DEFAULTS, { ...average, rate: 4 * average.rate }, { visits: 8, reddened: 0 }),
    ).toBe(true)
  })
})
