import type { Reading } from '../../core/grain/index.ts'
import { viewAxes } from '../../core/head/index.ts'
import { daysWords } from '../../core/time/index.ts'
import { percentWords } from '../../core/stats/index.ts'
import { rememberIn, takeBackFrom, usePasts } from './past.ts'
import { useUndo } from './undo.ts'
import { useView, viewOf } from './view.ts'
import { clockText, hoursWords } from './words.ts'
import { atWords } from './words.ts'

const reading = (id: string) => ({ id }) as Reading
const edit = (remove: string[], add: string[]) => ({
  remove: remove.map(reading),
  add: add.map(reading),
})

describe('undo', () => {
  beforeEach(() => useUndo.setState({ visitId: null, done: [], undone: [] }))

  it('takes the last edit back, and makes it again', () => {
    const { remember, takeBack, again } = useUndo.getState()
    remember('v', edit([], ['a']))
    remember('v', edit(['a'], ['b']))
    expect(takeBack('v')).toEqual(edit(['b'], ['a']))
    expect(takeBack('v')).toEqual(edit(['a'], []))
    expect(takeBack('v')).toBeUndefined()
    expect(again('v')).toEqual(edit([], ['a']))
    expect(again('v')).toEqual(edit(['a'], ['b']))
    expect(again('v')).toBeUndefined()
  })

  it('forgets what was taken back once something new is done, and never mixes visits', () => {
    const { remember, takeBack, again } = useUndo.getState()
    remember('v', edit([], ['a']))
    takeBack('v')
    remember('v', edit([], ['c']))
    expect(again('v')).toBeUndefined()
    expect(takeBack('other')).toBeUndefined()
    remember('other', edit([], ['d']))
    expect(takeBack('other')).toEqual(edit(['d'], []))
    expect(takeBack('v')).toBeUndefined()
  })
})

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

describe('the past of something saved whole', () => {
  it('comes back step by step, the newest first, and each thing has its own', () => {
    const past = (key: string) => usePasts.getState().past[key] ?? []
    usePasts.setState({ past: { a: [1, 2], b: [9] } })
    expect(past('a')).toEqual([1, 2])
    rememberIn('a', 3)
    expect(takeBackFrom('a')).toBe(3)
    expect(takeBackFrom('a')).toBe(2)
    expect(takeBackFrom('b')).toBe(9)
    expect(takeBackFrom('b')).toBeUndefined()
    expect(past('a')).toEqual([1])
    for (let i = 0; i < 80; i++) rememberIn('c', i)
    expect(past('c')).toHaveLength(50)
    expect(takeBackFrom('c')).toBe(79)
  })
})
