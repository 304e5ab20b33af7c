import { oddsWords, percentWords, timesWords } from './percent.ts'

it.each([
  [0, 'under 1 %'],
  [0.0049, 'under 1 %'],
  [0.005, '1 %'],
  [0.196, '20 %'],
  [0.9949, '99 %'],
  [0.995, 'over 99 %'],
  [1, 'over 99 %'],
])('odds of %d are said as %s: nothing to come is quite sure', (odds, words) => {
  expect(oddsWords(odds)).toBe(words)
})

it('what was counted may be none or all', () => {
  expect([0, 0.196, 1].map(percentWords)).toEqual(['0 %', '20 %', '100 %'])
})

it.each([
  [0.004, 'less than 1 time in 100'],
  [0.01, 'about 1 time in 100'],
  [0.125, 'about 1 time in 8'],
  [0.19, 'about 1 time in 5'],
  [0.6, 'about 1 time in 2'],
  [0.67, 'more often than not'],
  [1, 'more often than not'],
])('odds of %d are told as %s', (odds, words) => {
  expect(timesWords(odds)).toBe(words)
})
