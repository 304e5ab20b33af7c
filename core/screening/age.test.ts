import { DEFAULTS } from '../house/index.ts'
import { ageOn, NOTHING_ASKED, withAge } from './index.ts'

describe('age', () => {
  it.each([
    ['2008-12-01', '2026-12-01', 18],
    ['2008-12-02', '2026-12-01', 17],
    ['2008-02-29', '2026-02-28', 17],
    ['2008-02-29', '2026-03-01', 18],
    ['2026-12-01', '2026-12-01', 0],
    ['', '2026-12-01', undefined],
    [undefined, '2026-12-01', undefined],
    ['2027-01-01', '2026-12-01', undefined],
  ])('of somebody born on %s is on %s %s', (born, today, age) => {
    expect(ageOn(born, today)).toBe(age)
  })

  it('answers the question by itself, whatever was told', () => {
    const told = (yes: boolean) => ({ ...NOTHING_ASKED, answers: { 'under-age': { yes } } })
    const says = (born: string, yes: boolean) =>
      withAge(DEFAULTS, told(yes), born, '2026-12-01').answers['under-age']!.yes
    expect(says('2010-05-05', false)).toBe(true)
    expect(says('1990-05-05', true)).toBe(false)
    expect(says('', true)).toBe(true)
    // Eighteen today: from today on nobody signs for them.
    expect(says('2008-12-01', true)).toBe(false)
  })

  it('leaves all else as it was asked', () => {
    const asked = { ...NOTHING_ASKED, answers: { acids: { yes: true } } }
    expect(withAge(DEFAULTS, asked, '2010-05-05', '2026-12-01')).toEqual({
      ...asked,
      answers: { acids: { yes: true }, 'under-age': { yes: true } },
    })
    expect(withAge(DEFAULTS, asked, '', '2026-12-01')).toBe(asked)
  })
})
