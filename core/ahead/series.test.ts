import { serviceZones } from '../services/index.ts'
import { DEFAULTS } from '../house/index.ts'
import { learnClient } from '../history/index.ts'
import { SKIN } from '../testing/client.ts'
import { eventFacts, NEW_MODEL } from '../testing/event.ts'
import { ALWAYS_OPEN, DAY_MS, HOUR_MS } from '../time/index.ts'
import { eventQuestion } from './eventQuestion.ts'
import { aloneBetween, visitSeries, type SeriesInput } from './series.ts'

describe('a series of visits', () => {
  const series = (over: Partial<SeriesInput> = {}) =>
    visitSeries(DEFAULTS, {
      service: 'face-shave',
      lastAtMs: 0,
      window: { fromMs: 3 * DAY_MS, toMs: 5 * DAY_MS },
      nowMs: DAY_MS,
      throughMs: 30 * DAY_MS,
      growth: NEW_MODEL.growth,
      leftMm: {},
      events: [],
      ...{ closed: ALWAYS_OPEN, offset: 0 },
      question: (event, notBeforeMs) => ({
        ...eventQuestion(DEFAULTS, eventFacts({ nowMs: DAY_MS }), event.kind, event.atMs),
        notBeforeMs,
        notBeforeWhy: 'The skin is not ready before.',
      }),
      ...over,
    })

  it('puts each service into its window, one after the other', () => {
    const found = series()
    expect(found.map((v) => Math.round(v.atMs / DAY_MS))).toEqual([4, 8, 12, 16, 20, 24, 28])
    for (const v of found) {
      expect(v.atMs).toBeGreaterThanOrEqual(v.fromMs)
      expect(v.atMs).toBeLessThanOrEqual(v.toMs)
    }
    expect(series({ throughMs: 2 * DAY_MS })).toEqual([])
  })

  it('lets an event set its service, spaces those before it, and never comes before the skin is ready', () => {
    const event = {
      id: 'e',
      kind: 'photo' as const,
      title: 'the portrait',
      atMs: 22 * DAY_MS + 12 * HOUR_MS,
    }
    const found = series({ events: [event] })
    const forIt = found.find((v) => v.event)!
    expect(forIt.atMs).toBeLessThan(event.atMs)
    expect(event.atMs - forIt.atMs).toBeLessThan(3 * DAY_MS)
    let last = 0
    for (const v of found) {
      expect(v.atMs - last).toBeGreaterThan(2.4 * DAY_MS)
      last = v.atMs
    }
    expect(found.filter((v) => v.event)).toHaveLength(1)
  })

  it('keeps the least distance before an event, whenever that is', () => {
    for (let hours = 5 * 24; hours < 20 * 24; hours += 5) {
      const event = { id: 'e', kind: 'party' as const, title: 'the ball', atMs: hours * HOUR_MS }
      let last = 0
      const found = series({ events: [event], window: { fromMs: 3 * DAY_MS, toMs: 3.6 * DAY_MS } })
      for (const v of found) {
        expect(v.atMs - last).toBeGreaterThanOrEqual(3 * DAY_MS - 1)
        last = v.atMs
      }
      const at = found.findIndex((v) => v.event)
      if (at < 1) continue
      // Those before it are spaced evenly, as many as come nearest to the middle of a window, 3.3 days.
      const span = found[at]!.atMs
      const each = Math.max(3 * DAY_MS, span / Math.round(span / (3.3 * DAY_MS)))
      expect(Math.abs(found[0]!.atMs - each)).toBeLessThan(2)
    }
  })

  it('does the lip alone between whole services of fuzz, and the line alone between line-ups', () => {
    const fuzz = learnClient(
      DEFAULTS,
      { ...SKIN, faceHair: 'fuzz' },
      serviceZones('dermaplane'),
      [],
      [],
    )
    const found = series({
      service: 'dermaplane',
      growth: fuzz.growth,
      window: { fromMs: 28 * DAY_MS, toMs: 35 * DAY_MS },
      throughMs: 70 * DAY_MS,
    })
    expect(found.some((v) => v.kind === 'lip')).toBe(true)
    expect(found.filter((v) => v.kind === 'whole').length).toBeGreaterThanOrEqual(2)
    for (let i = 1; i < found.length; i++)
      expect(found[i]!.atMs).toBeGreaterThan(found[i - 1]!.atMs)
    expect(aloneBetween(DEFAULTS, 'beard-line', NEW_MODEL.growth, {})!.kind).toBe('line')
    expect(aloneBetween(DEFAULTS, 'head-shave', NEW_MODEL.growth, {})).toBeUndefined()
  })

  it('lays nothing on a closed day: the nearest open one takes it, and windows begin and end on open days', () => {
    // The first of January 1970 was a Thursday: day 3 a Sunday, day 4 a Monday.
    const closed = { weekdays: [0, 1], dates: ['01-09'] }
    const weekday = (ms: number) => new Date(ms).getUTCDay()
    const fuzz = learnClient(
      DEFAULTS,
      { ...SKIN, faceHair: 'fuzz' },
      serviceZones('dermaplane'),
      [],
      [],
    )
    const alone = series({
      ...{ closed, service: 'dermaplane', growth: fuzz.growth, throughMs: 90 * DAY_MS },
      window: { fromMs: 28 * DAY_MS, toMs: 35 * DAY_MS },
    })
    expect(alone.filter((v) => v.kind === 'lip').length).toBeGreaterThan(5)
    for (const v of alone)
      for (const ms of [v.atMs, v.fromMs, v.toMs]) expect([0, 1]).not.toContain(weekday(ms))
    for (let i = 1; i < alone.length; i++)
      expect(alone[i]!.atMs).toBeGreaterThan(alone[i - 1]!.atMs)
    // A service for an event lies before it, though the day after its own would be open.
    const event = { id: 'e', kind: 'photo' as const, title: 'the portrait', atMs: 17.6 * DAY_MS }
    const forIt = series({ closed: { weekdays: [0, 1, 2, 3, 4, 5], dates: [] }, events: [event] })
    for (const v of forIt.filter((x) => x.event)) expect(v.atMs).toBeLessThan(event.atMs)
    const found = series({ closed })
    expect(found.length).toBeGreaterThan(5)
    let last = 0
    for (const v of found) {
      for (const ms of [v.atMs, v.fromMs, v.toMs]) {
        expect([0, 1]).not.toContain(weekday(ms))
        expect(new Date(ms).toISOString().slice(5, 10)).not.toBe('01-09')
      }
      expect(v.fromMs).toBeLessThanOrEqual(v.atMs)
      expect(v.toMs).toBeGreaterThanOrEqual(v.atMs)
      expect(v.atMs - last).toBeGreaterThanOrEqual(3 * DAY_MS)
      last = v.atMs
    }
  })
})
