import { CURRENCIES, lengthWords, moneyWords, USUAL_SETTINGS, warmthWords } from './index.ts'

describe('measures and money as a house writes them', () => {
  it('an inch is 25.4 mm, and water freezes at 32 °F (definitions)', () => {
    expect(lengthWords(25.4, 'inch')).toBe('1.000 in')
    expect(lengthWords(1.44, 'mm')).toBe('1.4 mm')
    expect(warmthWords(0, 'F')).toBe('32 °F')
    expect(warmthWords(100, 'F')).toBe('212 °F')
    expect(warmthWords(44.6, 'C')).toBe('45 °C')
  })
  it('money is written in every currency that can be chosen', () => {
    for (const c of CURRENCIES) expect(moneyWords(1234.5, c)).toMatch(/1,23[45]/)
    expect(moneyWords(0.35, USUAL_SETTINGS.currency)).toBe('€0.35')
  })
})
