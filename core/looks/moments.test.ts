import fc from 'fast-check'
import { DEFAULTS } from '../house/index.ts'
import { figuresOf } from '../register/index.ts'
import { HOUR_MS } from '../time/index.ts'
import {
  USUAL_MOMENTS,
  type Moment,
  checkMoment,
  momentAt,
  momentHasCome,
  momentsAhead,
  momentWords,
  owedAnswer,
} from './moments.ts'

const at = (hours: number) => hours * HOUR_MS

describe('moments after a service', () => {
  it('cannot be answered before they have come', () => {
    expect(() => checkMoment(DEFAULTS, 0, '24h', at(0.02), at(0.02))).toThrow('has not come yet')
    expect(() => checkMoment(DEFAULTS, 0, '24h', at(24), at(21))).toThrow('ahead of now')
    expect(() => checkMoment(DEFAULTS, 0, '24h', at(21), at(21))).not.toThrow()
    expect(() => checkMoment(DEFAULTS, 0, '48h', at(24), at(24))).toThrow('48 h after')
    expect(() => checkMoment(DEFAULTS, 0, 'h30', at(20), at(20))).toThrow('30 h after')
    expect(() => checkMoment(DEFAULTS, 0, 'h30', at(30), at(30))).not.toThrow()
    // An answer that is given late belongs to its moment all the same.
    expect(() => checkMoment(DEFAULTS, 0, '24h', at(24), at(90))).not.toThrow()
  })

  it('belong to whoever answers alike: the latest that has come is open, and none later', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 400, noNaN: true }), (hours) => {
        const now = momentAt(DEFAULTS, 0, at(hours))
        expect(momentHasCome(DEFAULTS, 0, now, at(hours))).toBe(true)
        const later = USUAL_MOMENTS.slice(USUAL_MOMENTS.indexOf(now) + 1)
        for (const m of later) expect(momentHasCome(DEFAULTS, 0, m, at(hours))).toBe(false)
      }),
    )
  })

  it('come when the house says, for the worker, the client and Today', () => {
    const late = figuresOf({ 'care.firstAnswerHours': 36 })
    expect(owedAnswer(late, 0, [], at(30))).toBeUndefined()
    expect(owedAnswer(late, 0, [], at(36))).toBe('Day 1 answer owed')
    expect(momentAt(late, 0, at(24))).toBe('1h')
    expect(momentAt(late, 0, at(31))).toBe('24h')
    expect(() => checkMoment(late, 0, '24h', at(24), at(24))).toThrow('not come')
  })

  it('promise only what still comes', () => {
    expect(momentsAhead(DEFAULTS, 0, at(2), at(360))).toEqual(['24h', '48h', '7d'])
    expect(momentsAhead(DEFAULTS, 0, at(48), at(360))).toEqual(['7d'])
    expect(momentsAhead(DEFAULTS, 0, at(170), at(360))).toEqual([])
    expect(momentsAhead(DEFAULTS, 0, at(2), at(40))).toEqual(['24h'])
  })

  it('have words', () => {
    const words: [Moment, string][] = [
      ['now', 'Now'],
      ['h30', '30 h'],
      ['h336', '14 days'],
    ]
    for (const [moment, said] of words) expect(momentWords(moment)).toBe(said)
  })
})
