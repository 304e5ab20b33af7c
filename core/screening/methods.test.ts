import { DEFAULTS } from '../house/index.ts'
import { priorGrowth } from '../regrowth/index.ts'
import { SKIN } from '../testing/client.ts'
import {
  adviseMethods,
  lengthNow,
  METHODS,
  THICKNESS,
  type AdviceQuestion,
  type Method,
} from './methods.ts'

const ask = (over: Partial<AdviceQuestion> = {}): AdviceQuestion => ({
  zoneId: 'shin-left',
  client: SKIN,
  hair: {},
  strays: [],
  answers: {},
  growth: priorGrowth(DEFAULTS, 'shin-left', 'limb'),
  lengthMm: 2.35,
  today: '2026-05-20',
  ...over,
})
const of = (method: Method, over: Partial<AdviceQuestion> = {}) =>
  adviseMethods(DEFAULTS, ask(over)).find((a) => a.method === method)!
const stray = (zoneId: AdviceQuestion['zoneId']) => ({
  id: 's',
  zoneId,
  point: [0, 0, 0] as const,
  normal: [0, 0, 1] as const,
})

describe('which way of taking hair off', () => {
  it('says something of every method, what suits first, each with a mark', () => {
    const all = adviseMethods(DEFAULTS, ask())
    expect(all.map((a) => a.method).sort()).toEqual([...METHODS].sort())
    const rank = { suits: 0, possible: 1, later: 2, not: 3 }
    const ranks = all.map((a) => rank[a.says])
    expect(ranks).toEqual([...ranks].sort((a, b) => a - b))
    for (const a of all) expect([a.why.length > 8, /[PCH]/.test(a.mark)]).toEqual([true, true])
  })

  it('waits for a quarter inch before wax, and names the day by growth (M10)', () => {
    // (6.35 − 2.35) mm at 0.2 mm a day: 20 days.
    expect(of('wax')).toMatchObject({ says: 'later', from: '2026-06-09' })
    expect(of('wax', { lengthMm: 7 }).says).toBe('possible')
    expect(of('wax', { event: '2026-06-10' }).says).toBe('not')
    expect(of('wax', { event: '2026-06-12' }).says).toBe('later')
    expect(of('wax', { lengthMm: 7, event: '2026-05-21' }).says).toBe('not')
  })

  it('never waxes over a retinoid, on thin-blooded or bump-prone skin, nor a beard (common practice)', () => {
    const long = { lengthMm: 9 }
    expect(of('wax', { ...long, answers: { 'retinoid-cream': { yes: true } } }).says).toBe('not')
    expect(of('wax', { ...long, answers: { 'blood-thinners': { yes: true } } }).says).toBe('not')
    expect(of('wax', { ...long, client: { ...SKIN, bumpProne: true } }).says).toBe('not')
    expect(of('wax', { ...long, zoneId: 'chin' }).says).toBe('not')
  })

  it('tweezes a few strays in fuzz before the blade, and no beard (common practice)', () => {
    const fuzz = { zoneId: 'chin' as const, client: { ...SKIN, faceHair: 'fuzz' as const } }
    expect(of('tweeze', { ...fuzz, strays: [stray('chin')] }).says).toBe('suits')
    expect(of('blade', { ...fuzz, strays: [stray('chin')] }).why).toContain('first with tweezers')
    expect(of('tweeze', fuzz).says).toBe('not')
    expect(of('tweeze', { zoneId: 'chin' }).says).toBe('not')
    expect(of('thread', fuzz).says).toBe('possible')
    expect(of('thread').says).toBe('not')
  })

  it('keeps laser from fuzz, grey hair and the eye, and trims a bump-prone beard', () => {
    const fuzz = { zoneId: 'chin' as const, client: { ...SKIN, faceHair: 'fuzz' as const } }
    expect(of('laser', fuzz).says).toBe('not')
    expect(of('laser', { zoneId: 'chin', hair: { chin: { grey: 'most' } } }).says).toBe('not')
    expect(of('laser', { zoneId: 'brow-left' }).says).toBe('not')
    expect(of('laser').says).toBe('possible')
    expect(of('trim', { zoneId: 'chin', client: { ...SKIN, bumpProne: true } }).says).toBe('suits')
    expect(of('trim', fuzz).says).toBe('not')
  })

  it('works the length out from growth where nobody has measured it (M10)', () => {
    const growth = priorGrowth(DEFAULTS, 'shin-left', 'limb')
    expect(lengthNow(DEFAULTS, growth, 0.2, 10)).toBeCloseTo(0.2 + 10 * growth.mean, 9)
    expect(lengthNow(DEFAULTS, growth, 0.2, undefined)).toBe(2)
    expect(lengthNow(DEFAULTS, priorGrowth(DEFAULTS, 'chin', 'vellus'), 0.2, undefined)).toBe(1.5)
  })

  it('answers the question of every visit with its source', () => {
    expect(THICKNESS.answer).toMatch(/^No\./)
    expect(THICKNESS.source).toContain('1970')
  })
})
