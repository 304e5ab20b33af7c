import { USUAL_SETTINGS } from '../../core/house/index.ts'
import { dateWords, timeWords } from '../../core/time/index.ts'
import { browserSettings, takeSettings, useDateShape } from './shape.ts'

afterEach(() => takeSettings(USUAL_SETTINGS))

describe('how a browser’s people write', () => {
  // Unicode CLDR, as Node carries it.
  it.each([
    [
      'en-US',
      { dates: 'mdy', firstDay: 0, clock: 12, length: 'inch', warmth: 'F', currency: 'USD' },
    ],
    ['en-GB', { dates: 'dmy', firstDay: 1, clock: 24, length: 'mm', warmth: 'C', currency: 'GBP' }],
    ['de-DE', { dates: 'dmy', firstDay: 1, clock: 24, length: 'mm', warmth: 'C', currency: 'EUR' }],
    ['sv-SE', { dates: 'ymd', firstDay: 1, clock: 24, length: 'mm', warmth: 'C', currency: 'SEK' }],
    ['ja-JP', { dates: 'ymd', firstDay: 0, clock: 24, length: 'mm', warmth: 'C' }],
  ] as const)('%s', (language, writes) => {
    expect(browserSettings(language)).toMatchObject(writes)
  })
})

describe('what the house says', () => {
  it('is taken over by dates and hours everywhere, and by the fields', () => {
    const at = new Date(2026, 10, 25, 18, 30).getTime()
    takeSettings({ ...USUAL_SETTINGS, dates: 'mdy', clock: 12, firstDay: 0 })
    expect([dateWords(at), timeWords(at)]).toEqual(['Nov 25', '6:30 PM'])
    expect(useDateShape.getState()).toMatchObject({
      ...{ dayFormat: 'MMM D, YYYY', hourFormat: 'h:mm A', firstDayOfWeek: 0 },
    })
    takeSettings({ ...USUAL_SETTINGS, dates: 'ymd' })
    expect([dateWords(at), timeWords(at)]).toEqual(['Nov 25', '18:30'])
    expect(useDateShape.getState().dayFormat).toBe('YYYY-MM-DD')
  })
})
