import { viewAxes, viewOf } from '../../core/head/index.ts'
import { daysWords } from '../../core/time/index.ts'
import { percentWords } from '../../core/stats/index.ts'
import { againFrom, rememberIn, takeBackFrom, usePasts } from './past.ts'
import { useView } from './view.ts'
import { clockText, hoursWords } from './words.ts'
import { atWords } from './words.ts'

describe('the view', () => {
  it('faces what it is asked to show', () => {
    for (const normal of [
      [0, 0, 1],
      [1, 0, 0],
      [-0.6, -0.4, 0.7],
      [0, 0.5, -0.86],
    ] as const) {
      const { yawDeg, pitchDeg } = viewOf(normal)
      const { toward } = viewAxes(yawDeg, pitchDeg)
      const length = Math.hypot(...normal)
      const cos = (toward[0] * normal[0] + toward[1] * normal[1] + toward[2] * normal[2]) / length
      expect(cos).toBeGreaterThan(0.9)
    }
  })

  it('turns by hand, is then no named view, and does not turn over', () => {
    useView.setState({ yawDeg: 0, pitchDeg: 0, named: 'front' })
    useView.getState().turnBy(30, 400)
    expect(useView.getState()).toMatchObject({ yawDeg: 30, pitchDeg: 88, named: null })
  })

  it('comes no closer than five times and goes no farther than a little', () => {
    useView.setState({ zoom: 1 })
    useView.getState().zoomBy(100)
    expect(useView.getState().zoom).toBe(5)
    useView.getState().zoomBy(0.001)
    expect(useView.getState().zoom).toBe(0.8)
  })
})

describe('words', () => {
  it.each([
    [0, '0:00'],
    [65_000, '1:05'],
    [3_599_000, '59:59'],
    [-61_000, '−1:01'],
  ])('%d ms on a clock', (ms, words) => expect(clockText(ms)).toBe(words))

  it('tell the hour of today, and the day too of any other', () => {
    const noon = new Date(2026, 4, 20, 12, 5).getTime()
    expect(atWords(noon, noon + 3_600_000)).toBe('12:05')
    expect(atWords(noon, noon + 20 * 3_600_000)).toBe('20 May, 12:05')
  })

  it('name the month of two days once, where it is the same', () => {
    const day = (month: number, date: number) => new Date(2026, month, date, 9).getTime()
    expect(daysWords(day(10, 24), day(10, 26))).toBe('24–26 Nov')
    expect(daysWords(day(10, 28), day(11, 1))).toBe('28 Nov–1 Dec')
    expect(daysWords(day(10, 28), day(10, 28))).toBe('28 Nov')
  })

  it('speak of hours, days and shares', () => {
    expect(hoursWords(9.4)).toBe('9 h')
    expect(hoursWords(120)).toBe('5 days')
    expect(percentWords(0.196)).toBe('20 %')
  })
})

describe('the past of a visit', () => {
  beforeEach(() => usePasts.setState({ past: {} }))
  const back = (part = 'map', visit = 'v') => takeBackFrom(visit, part)
  const again = (part = 'map', visit = 'v') => againFrom(visit, part)

  it('comes back step by step, the newest first, and is made again in its order', () => {
    for (const step of [1, 2, 3]) rememberIn('v', 'map', step)
    expect([back(), back()]).toEqual([3, 2])
    expect([again(), again(), again()]).toEqual([2, 3, undefined])
    expect([3, 2, 1, undefined].map(() => back())).toEqual([3, 2, 1, undefined])
  })

  it('forgets what was taken back once something new is done, and never mixes visits', () => {
    rememberIn('v', 'map', 1)
    rememberIn('w', 'map', 9)
    back()
    rememberIn('v', 'map', 2)
    expect(again()).toBeUndefined()
    expect(back('map', 'none')).toBeUndefined()
    expect(back('map', 'w')).toBe(9)
    expect([back(), back()]).toEqual([2, undefined])
  })

  it('is one history, of which each page takes back only what is in view there', () => {
    rememberIn('v', 'map', 'stroke')
    rememberIn('v', 'asked', 'acids')
    rememberIn('v', 'map', 'turn')
    expect(usePasts.getState().past['v']!.done.map((s) => s.part)).toEqual(['map', 'asked', 'map'])
    expect(back('asked')).toBe('acids')
    expect(back('asked')).toBeUndefined()
    // A step of another part does not forget what was taken back here.
    rememberIn('v', 'map', 'mirror')
    expect(again('asked')).toBe('acids')
    expect([back(), back(), back()]).toEqual(['mirror', 'turn', 'stroke'])
  })

  it('is as long as a day at the map, not longer', () => {
    for (let i = 0; i < 500; i++) rememberIn('v', 'map', i)
    expect(usePasts.getState().past['v']!.done).toHaveLength(400)
    expect(back()).toBe(499)
  })
})
