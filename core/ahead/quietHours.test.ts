import type { Habit } from '../client.ts'
import { DEFAULT_SCHOOLS, DEFAULTS } from '../house/index.ts'
import { SKIN } from '../testing/client.ts'
import { ALWAYS_OPEN, DAY_MS, HOUR_MS } from '../time/index.ts'
import { quietHours } from './quietHours.ts'

/** Monday. */
const MONDAY = Date.UTC(2026, 4, 18)
const ask = (habits: readonly Habit[], over: object = {}) =>
  quietHours(DEFAULTS, {
    ...{ service: 'dermaplane' as const, skin: SKIN, schools: DEFAULT_SCHOOLS, habits },
    ...{ fromMs: MONDAY, toMs: MONDAY + 7 * DAY_MS, minutes: 60, nowMs: MONDAY - DAY_MS },
    ...{ closed: ALWAYS_OPEN, offset: 0, ...over },
  })
const weekday = (ms: number) => new Date(ms).getUTCDay()
const hour = (ms: number) => new Date(ms).getUTCHours()

describe('the quiet hour', () => {
  it('is nothing where no habit was told', () => {
    expect(ask([])).toEqual([])
  })

  it('puts a visit after the last sport of the week, not before it', () => {
    // Sport on Tuesday and Thursday at six in the evening; kept off for 24 h.
    const sport: Habit = { kind: 'sport', days: [2, 4], fromHour: 18, toHour: 20 }
    const all = ask([sport])
    for (const { atMs, hours } of all.slice(0, 3)) {
      expect(hours).toBe(0)
      expect([1, 3, 5, 6, 0]).toContain(weekday(atMs))
    }
    // On Tuesday every hour meets that evening's two hours.
    expect(all.find((q) => weekday(q.atMs) === 2)!.hours).toBe(2)
  })

  it('make-up every morning: the later in the day, the less of it falls into its 24 hours', () => {
    const makeUp: Habit = { kind: 'make-up', days: [1, 2, 3, 4, 5, 6, 0], fromHour: 7, toHour: 17 }
    const [best] = ask([makeUp])
    // From six in the evening on until six the next: ten hours of the next day, whatever the hour; earlier ones meet as much.
    expect(best!.hours).toBe(10)
    expect(best!.meets).toEqual([{ kind: 'make-up', hours: 10 }])
    const weekdays = ask([{ ...makeUp, days: [1, 2, 3, 4, 5] }])
    expect([5, 6]).toContain(weekday(weekdays[0]!.atMs))
    expect(weekdays[0]!.hours).toBeLessThan(2.1)
  })

  it('nobody is asked to come while they are at it, nor when the house is closed', () => {
    const works: Habit = { kind: 'outdoors', days: [1, 2, 3, 4, 5], fromHour: 8, toHour: 16 }
    const all = ask([works], { closed: { weekdays: [0, 6], dates: [] } })
    for (const { atMs } of all) {
      expect([0, 6]).not.toContain(weekday(atMs))
      expect(hour(atMs)).toBeGreaterThanOrEqual(16)
    }
  })

  it('goes by the clock of the house', () => {
    const sport: Habit = { kind: 'sport', days: [1], fromHour: 0, toHour: 1 }
    const [best] = ask([sport], { offset: 120 })
    const local = best!.atMs + 2 * HOUR_MS
    expect(hour(local)).toBeGreaterThanOrEqual(9)
    expect(hour(local)).toBeLessThanOrEqual(17)
  })
})
