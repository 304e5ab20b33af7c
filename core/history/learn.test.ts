import { HOUR_MS } from '../time/dates.ts'
import { owedAnswer, summariseAnswers, worstByZone } from './answers.ts'
import { learnClient, meanGrowth, meanLeft } from './learn.ts'

const skin = {
  reactivity: 'average',
  faceHair: 'beard',
  coarseness: 'medium',
  curl: 'straight',
  bumpProne: false,
} as const
const answer = (hours: number, redness: number) => ({
  atMs: hours * HOUR_MS,
  zones: [{ zoneId: 'chin', redness, bumps: 0 }],
})

describe('learning from a history', () => {
  it('takes the worst answer within 48 h and leaves later ones aside', () => {
    const worst = worstByZone({
      endedAtMs: 0,
      loads: {},
      answers: [answer(1, 1), answer(24, 3), answer(168, 4)],
    })!
    expect(worst.get('chin')).toBe(3)
    expect(worstByZone({ endedAtMs: 0, loads: {}, answers: [answer(168, 4)] })).toBeUndefined()
  })

  it('counts a zone that was worked and not marked as clear, and one not worked not at all', () => {
    const m = learnClient(
      skin,
      'face-shave',
      [{ endedAtMs: 0, loads: { chin: 2.6, 'jaw-left': 2.6 }, answers: [answer(24, 2)] }],
      [],
    )
    const mean = (z: string) => m.sensitivity[z]!.shape / m.sensitivity[z]!.rate
    expect(m.answeredServices).toBe(1)
    expect(mean('jaw-left')).toBeLessThan(mean('upper-lip-left'))
    expect(mean('upper-lip-left')).toBeLessThan(mean('chin'))
  })

  it('lets the beard speak for a face that also has fuzz', () => {
    const growth = meanGrowth({
      a: { curve: 'terminal', mean: 0.3, sd: 0.1 },
      b: { curve: 'fuzz', mean: 0.03, sd: 0.02 },
    })!
    expect(growth).toEqual({ curve: 'terminal', mean: 0.3, sd: 0.1 })
    expect(meanGrowth({})).toBeUndefined()
    expect(meanLeft({ a: 0.1, b: 0.3 })).toBeCloseTo(0.2)
    expect(meanLeft(null)).toBeCloseTo(0.15)
  })
})

describe('answers', () => {
  const given = (moment: '24h' | '7d') => ({ moment })

  it('are owed on their days and not before, not once given, and not for ever', () => {
    const owed = (hours: number, ...answers: ('24h' | '7d')[]) =>
      owedAnswer(0, answers.map(given), hours * HOUR_MS)
    expect(owed(10)).toBeUndefined()
    expect(owed(30)).toBe('Day 1 answer owed')
    expect(owed(30, '24h')).toBeUndefined()
    expect(owed(60)).toBe('Day 2 answer owed')
    expect(owed(200)).toBe('Day 7 answer owed')
    expect(owed(200, '7d')).toBeUndefined()
    expect(owed(500)).toBeUndefined()
  })

  it('sum up to the worst redness and the bumps counted, or to nothing known', () => {
    expect(summariseAnswers(0, [])).toEqual({ worstRedness: null, bumps: null })
    expect(summariseAnswers(0, [{ moment: '24h', ...answer(24, 2) }])).toEqual({
      worstRedness: 2,
      bumps: null,
    })
    const week = {
      moment: '7d' as const,
      atMs: 168 * HOUR_MS,
      zones: [{ zoneId: 'chin', redness: 0, bumps: 3 }],
    }
    expect(summariseAnswers(0, [week])).toEqual({ worstRedness: null, bumps: 3 })
  })
})
