import { DEFAULTS } from '../house/index.ts'
import { priorGrowth } from '../regrowth/index.ts'
import { SKIN } from '../testing/client.ts'
import {
  adviseMethods,
  adviseTogether,
  ADVISED,
  SOONER,
  THICKNESS,
  type AdviceQuestion,
  type Advised,
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
const of = (method: Advised, over: Partial<AdviceQuestion> = {}) =>
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
    expect(all.map((a) => a.method).sort()).toEqual([...ADVISED].sort())
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
    expect(of('tweezers', { ...fuzz, strays: [stray('chin')] }).says).toBe('suits')
    expect(of('blade', { ...fuzz, strays: [stray('chin')] }).why).toContain('first with tweezers')
    expect(of('tweezers', fuzz).says).toBe('not')
    expect(of('tweezers', { zoneId: 'chin' }).says).toBe('not')
    expect(of('thread', fuzz).says).toBe('possible')
    expect(of('thread').says).toBe('not')
  })

  it('keeps laser from fuzz, grey hair and the eye, and trims a bump-prone beard', () => {
    const fuzz = { zoneId: 'chin' as const, client: { ...SKIN, faceHair: 'fuzz' as const } }
    expect(of('laser', fuzz).says).toBe('not')
    expect(of('laser', { zoneId: 'chin', hair: { chin: { grey: 'most' } } }).says).toBe('not')
    expect(of('laser', { zoneId: 'brow-left' }).says).toBe('not')
    expect(of('laser').says).toBe('possible')
    expect(of('trimmer', { zoneId: 'chin', client: { ...SKIN, bumpProne: true } }).says).toBe(
      'suits',
    )
    expect(of('trimmer', fuzz).says).toBe('not')
  })

  it('names strips for fine hair and warm wax for coarse (common practice)', () => {
    const long = { lengthMm: 9 }
    expect(of('wax', long).why).toContain('Strips')
    expect(of('wax', { ...long, client: { ...SKIN, coarseness: 'coarse' } }).why).toContain(
      'Warm wax',
    )
    expect(of('wax', { ...long, zoneId: 'underarm-left' }).why).toContain('Warm wax')
  })

  it('puts two methods together where coarse hair stands in fuzz (common practice)', () => {
    const fuzz = { zoneId: 'chin' as const, client: { ...SKIN, faceHair: 'fuzz' as const } }
    const together = (over: Partial<AdviceQuestion>) => adviseTogether(DEFAULTS, ask(over))
    expect(together(fuzz)).toBeUndefined()
    expect(together({})).toBeUndefined()
    expect(together({ ...fuzz, strays: [stray('chin')] })).toContain('tweezers first')
    const many = Array.from({ length: 20 }, () => stray('chin'))
    expect(together({ ...fuzz, strays: many })).toContain('laser elsewhere')
    expect(together({ ...fuzz, answers: { 'hormonal-growth': { yes: true } } })).toContain(
      'come back',
    )
  })

  it('answers the question of every visit with its source', () => {
    expect(THICKNESS.answer).toMatch(/^No\./)
    expect(THICKNESS.source).toContain('1970')
    expect(SOONER.answer('3 days', '35 days')).toContain(
      'after 3 days with a blade, after 35 days with wax',
    )
  })
})
