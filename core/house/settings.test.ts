import {
  CURRENCIES,
  currencySign,
  lengthIn,
  lengthMm,
  lengthWords,
  moneyWords,
  PRICE,
  unitWords,
  USUAL_SETTINGS,
  warmthC,
  warmthIn,
  warmthStepWords,
  warmthWords,
} from './index.ts'

describe('measures and money as a house writes them', () => {
  it('an inch is 25.4 mm, and water freezes at 32 °F (definitions)', () => {
    expect(lengthWords(25.4, 'inch')).toBe('1.000 in')
    expect(lengthWords(1.44, 'mm')).toBe('1.4 mm')
    expect(warmthWords(0, 'F')).toBe('32 °F')
    expect(warmthWords(100, 'F')).toBe('212 °F')
    expect(warmthWords(44.6, 'C')).toBe('45 °C')
  })
  it('what is typed comes back, and a difference of warmth has no nought of its own', () => {
    for (const mm of [0.05, 1, 6.35])
      expect(lengthMm(lengthIn(mm, 'inch'), 'inch')).toBeCloseTo(mm, 9)
    expect(lengthIn(6.35, 'inch')).toBe(0.25)
    for (const c of [-3, 0, 45]) expect(warmthC(warmthIn(c, 'F'), 'F')).toBeCloseTo(c, 9)
    expect(warmthC(45, 'C')).toBe(45)
    expect(warmthStepWords(3, 'F')).toBe('5.4 °F')
    expect(warmthStepWords(0.5, 'C')).toBe('0.5 °C')
    expect(warmthStepWords(3, 'C')).toBe('3 °C')
  })
  it('a price is headed by the house’s own money, other figures by their own unit', () => {
    expect(currencySign('EUR')).toBe('€')
    expect(unitWords(PRICE, 'GBP')).toBe('£')
    expect(unitWords('min', 'GBP')).toBe('min')
  })
  it('money is written in every currency that can be chosen', () => {
    for (const c of CURRENCIES) expect(moneyWords(1234.5, c)).toMatch(/1,23[45]/)
    expect(moneyWords(0.35, USUAL_SETTINGS.currency)).toBe('€0.35')
  })
})
