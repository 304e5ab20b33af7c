/** What is told of growth holds in the share it claims (M17), by simulation with fixed seeds. */
import { GROWTH_TRUTHS, growthHeld } from '../testing/honest/growth.ts'

const PEOPLE = 60

describe.each(['beard', 'vellus'] as const)('ranges of 80 %% of %s', (hair) => {
  it.each([1, 4, 24])(
    'hold after %d visits, for people like and unlike those expected',
    (visits) => {
      const all = Object.values(GROWTH_TRUTHS).map((truth, i) =>
        growthHeld(100 * visits + i, PEOPLE, visits, hair, truth),
      )
      for (const what of ['rate', 'felt', 'seen'] as const) {
        const held = all.map((h) => h[what])
        const mean = held.reduce((s, v) => s + v, 0) / held.length
        expect(mean).toBeGreaterThan(0.74)
        expect(mean).toBeLessThan(0.86)
        // Sixty people leave a standard error of up to 5 %.
        for (const one of held) {
          expect(one).toBeGreaterThan(0.64)
          expect(one).toBeLessThan(0.94)
        }
      }
    },
  )
})
