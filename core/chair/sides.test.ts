import { yourSide } from './sides.ts'

describe('whose left', () => {
  // Common practice: seen from the front the client's left is the worker's right; from behind left is left.
  it.each([
    [6, 'cheek-upper-left', 'on your right'],
    [6, 'cheek-upper-right', 'on your left'],
    [12, 'cheek-upper-left', 'on your left'],
    [12, 'cheek-upper-right', 'on your right'],
    // At 9 the worker stands on the client's right.
    [9, 'cheek-upper-right', 'on the side near you'],
    [9, 'cheek-upper-left', 'on the far side from you'],
    [3, 'cheek-upper-left', 'on the side near you'],
    [12, 'chin', ''],
  ] as const)('standing at %i, %s lies %s', (hour, zone, words) => {
    expect(yourSide(zone, hour)).toBe(words)
  })
})
