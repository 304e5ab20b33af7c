/** Hair that stands out is seen sooner: by the model's own thresholds, and what is told still teaches. */
import { DEFAULTS } from '../house/index.ts'
import { daysUntil } from '../regrowth/index.ts'
import { SKIN } from '../testing/client.ts'
import { expectedGrowth, learnGrowth } from './learn.ts'

const seen = (contrast?: 'strong' | 'middle' | 'low') =>
  daysUntil(
    DEFAULTS,
    expectedGrowth(DEFAULTS, { ...SKIN, ...(contrast && { contrast }) }, ['chin'])['chin']!,
    'seen',
    0.1,
  ).even

describe('how hair stands out', () => {
  it('shifts when it is seen, in the share of its length, and not when it is felt', () => {
    const usual = seen()
    expect(seen('middle')).toBeCloseTo(usual, 9)
    expect(seen('strong')).toBeLessThan(usual)
    // From 0.1 mm to 0.8, 1 and 1.5 mm at one pace.
    expect(seen('strong') / usual).toBeCloseTo(0.7 / 0.9, 1)
    expect(seen('low') / usual).toBeCloseTo(1.4 / 0.9, 1)
    const felt = (contrast: 'strong' | 'low') =>
      daysUntil(
        DEFAULTS,
        expectedGrowth(DEFAULTS, { ...SKIN, contrast }, ['chin'])['chin']!,
        'felt',
        0.1,
      ).even
    expect(felt('strong')).toBeCloseTo(felt('low'), 9)
  })

  it('stays where something is learned: what was told of feeling moves the rate, not how hair stands out', () => {
    const skin = { ...SKIN, contrast: 'low' as const }
    const hair = [
      {
        ...{
          id: 'h',
          visitId: 'v',
          kind: 'felt' as const,
          days: 1.5,
          zoneId: 'chin',
          lengthMm: null,
        },
        ...{ method: null, atMs: 0, leftMm: 0.1 },
      },
    ]
    const growth = learnGrowth(DEFAULTS, skin, ['chin'], hair)['chin']!
    expect(growth.seenTimes).toBe(1.5)
    expect(growth.seen!.mm).toBeGreaterThan(1.2)
  })
})
