import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { addDays, dateOf, daysBetween, dayWords, DAY_MS, HOUR_MS } from '../time/index.ts'
import { carePlan, exfoliatesBy } from './clearances.ts'
import { careText } from './careWords.ts'
import { SKIN } from '../testing/client.ts'

const END = Date.UTC(2026, 5, 1, 12)
const hours = (plan: ReturnType<typeof carePlan>, id: string) => {
  const c = plan.clearances.find((x) => x.id === id)
  return c && (c.untilMs - END) / HOUR_MS
}

describe('aftercare (M15)', () => {
  it('follows the schools after dermaplaning', () => {
    const usual = carePlan(DEFAULTS, 'dermaplane', SKIN, DEFAULT_SCHOOLS, false, END)
    expect(hours(usual, 'acids')).toBe(48)
    expect(hours(usual, 'make-up')).toBe(24)
    expect(hours(usual, 'sun')).toBe(72)
    const other = carePlan(
      DEFAULTS,
      'dermaplane',
      SKIN,
      { ...DEFAULT_SCHOOLS, acidsAfter: '0', makeUpAfter: '4' },
      false,
      END,
    )
    expect(hours(other, 'acids')).toBeUndefined()
    expect(hours(other, 'make-up')).toBe(4)
  })

  it('frees tips by the school, of who is bump-prone, after a razor alone', () => {
    const by = (fuzz: boolean, bumpProne: boolean, exfoliate: 'acid' | 'brush' | 'none') =>
      exfoliatesBy(fuzz, { bumpProne }, { exfoliate })
    expect([by(false, true, 'brush'), by(false, true, 'acid')]).toEqual(['brush', 'acid'])
    for (const none of [by(true, true, 'brush'), by(false, false, 'acid'), by(false, true, 'none')])
      expect(none).toBeUndefined()
  })

  it('begins nightly acid the day after, for a bump-prone beard only, unless the school says none', () => {
    const bumpy = { ...SKIN, bumpProne: true }
    const acid = carePlan(
      DEFAULTS,
      'face-shave',
      bumpy,
      DEFAULT_SCHOOLS,
      false,
      END,
    ).clearances.find((c) => c.id === 'exfoliate')!
    expect(acid.fromMs - END).toBe(24 * HOUR_MS)
    expect(
      hours(carePlan(DEFAULTS, 'face-shave', SKIN, DEFAULT_SCHOOLS, false, END), 'exfoliate'),
    ).toBeUndefined()
    expect(
      hours(
        carePlan(
          DEFAULTS,
          'face-shave',
          bumpy,
          { ...DEFAULT_SCHOOLS, exfoliate: 'none' },
          false,
          END,
        ),
        'exfoliate',
      ),
    ).toBeUndefined()
    expect(
      hours(carePlan(DEFAULTS, 'dermaplane', bumpy, DEFAULT_SCHOOLS, false, END), 'exfoliate'),
    ).toBeUndefined()
  })

  it('asks to look again after a day, two days and a week, in order of time', () => {
    const plan = carePlan(DEFAULTS, 'face-shave', SKIN, DEFAULT_SCHOOLS, false, END)
    expect(
      plan.clearances
        .filter((c) => c.id.startsWith('answer'))
        .map((c) => (c.fromMs - END) / DAY_MS),
    ).toEqual([1, 2, 7])
    const ends = plan.clearances.map((c) => c.untilMs)
    expect(ends).toEqual([...ends].sort((a, b) => a - b))
  })

  it('speaks plainly, with dates, of what is normal and what is not', () => {
    const plan = carePlan(DEFAULTS, 'face-shave', SKIN, DEFAULT_SCHOOLS, true, END)
    const text = careText(plan, 'Toby', 'Hot-towel face shave', (ms) =>
      new Date(ms).toISOString().slice(0, 16),
    )
    expect(text).toContain('after your hot-towel face shave, 2026-06-01T12:00')
    expect(text).toContain('No strong sun until 2026-06-03T12:00')
    expect(text).toContain('without scent')
    expect(text).toContain('see a clinician')
  })
})

describe('dates', () => {
  it('count days on the calendar, over summer time, leap days and years', () => {
    expect(addDays('2026-03-28', 2)).toBe('2026-03-30')
    expect(addDays('2028-02-28', 1)).toBe('2028-02-29')
    expect(addDays('2026-01-01', -1)).toBe('2025-12-31')
    expect(daysBetween('2026-03-28', '2026-04-04')).toBe(7)
    expect(daysBetween('2026-12-31', '2027-01-01')).toBe(1)
  })

  it('turn a moment into the day it is at the house', () => {
    const late = Date.UTC(2026, 6, 1, 23, 30)
    expect(dateOf(late, 0)).toBe('2026-07-01')
    expect(dateOf(late, 120)).toBe('2026-07-02')
    expect(dateOf(late, -600)).toBe('2026-07-01')
  })

  it('say the year only when it is another one', () => {
    expect(dayWords('2026-11-05', '2026-10-01')).toBe('5 Nov')
    expect(dayWords('2027-01-05', '2026-10-01')).toBe('5 Jan 2027')
  })
})
