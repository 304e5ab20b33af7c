import { MIN_MS } from './book.ts'
import { type OfToday, runningLate } from './late.ts'

const NINE = Date.UTC(2026, 11, 1, 9)
const at = (min: number) => NINE + min * MIN_MS
const of = (id: string, min: number, over: Partial<OfToday> = {}): OfToday => ({
  ...{ id, workerId: 'ines', startMs: at(min), minutes: 45, state: 'booked', visitState: null },
  ...{ startedAtMs: null, endedAtMs: null },
  ...over,
})

describe('a day that runs late', () => {
  const chair = of('a', 0, { startedAtMs: at(12), visitState: 'running', state: 'arrived' })

  it('moves the next of the same worker, and a gap takes it up again', () => {
    const day = [chair, of('b', 45), of('c', 90), of('d', 150), of('j', 45, { workerId: 'joren' })]
    expect(runningLate(day, at(20)).map((l) => [l.id, l.lateMin])).toEqual([
      ['b', 12],
      ['c', 12],
    ])
  })

  it('what is over its time lasts until now at the least', () => {
    expect(runningLate([chair, of('b', 45)], at(80))).toEqual([
      { id: 'b', startMs: at(80), lateMin: 35 },
    ])
  })

  it('is not late for what is done, cancelled, or nobody came to; who is here waits from their hour', () => {
    expect(runningLate([of('a', 0, { endedAtMs: at(40) }), of('b', 45)], at(41))).toEqual([])
    expect(runningLate([of('a', 0, { state: 'cancelled' }), of('b', 45)], at(41))).toEqual([])
    expect(runningLate([of('a', 0), of('b', 45)], at(44))).toEqual([])
    expect(runningLate([of('a', 0, { state: 'arrived' })], at(20))).toEqual([
      { id: 'a', startMs: at(20), lateMin: 20 },
    ])
  })
})
