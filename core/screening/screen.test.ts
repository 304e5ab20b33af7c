import { DEFAULT_SCHOOLS } from '../house/schools.ts'
import { SERVICE_IDS, SERVICES, type ServiceId } from '../services.ts'
import { HOUR_MS } from '../time/dates.ts'
import { RULES, SEVERITY_ORDER } from './rules.ts'
import { screen, verdictWords, type Asked, type Spot } from './screen.ts'

const TODAY = '2026-03-28'
const NOW = Date.UTC(2026, 2, 28, 10)
const NO: Asked = {
  answers: Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])),
  spots: [],
}
const yes = (id: string, date?: string): Asked => ({
  ...NO,
  answers: { ...NO.answers, [id]: { yes: true, ...(date && { date }) } },
})
const go = (service: ServiceId, asked: Asked, schools = DEFAULT_SCHOOLS) =>
  screen(service, asked, schools, TODAY, NOW, 0)
const spot = (over: Partial<Spot> = {}): Spot => ({
  id: 's',
  kind: 'mole',
  zoneId: 'jaw-left',
  point: [50, -85, 30],
  normal: [0.9, -0.3, 0.2],
  radiusMm: 4,
  ...over,
})

describe('asking', () => {
  it('is not finished while a question is open', () => {
    expect(go('face-shave', { answers: {}, spots: [] })).toMatchObject({
      verdict: 'not-asked',
      unanswered: RULES.length,
    })
  })

  it.each(SERVICE_IDS)('lets %s go when nothing is found', (service) => {
    expect(go(service, NO)).toMatchObject({ verdict: 'go', findings: [], unanswered: 0 })
  })

  // Common practice: what a rule does for razor and for fuzz services, with the days that must pass.
  it.each([
    ['infection', 'refer', undefined, 'refer', undefined],
    ['changing-mole', 'refer', undefined, 'refer', undefined],
    ['widespread-acne', 'go', undefined, 'postpone', undefined],
    ['sunburn', 'postpone', '2026-04-03', 'postpone', '2026-04-03'],
    ['flare', 'go', undefined, 'postpone', undefined],
    ['isotretinoin', 'go', undefined, 'postpone', '2026-09-26'],
    ['retinoid-cream', 'go', undefined, 'postpone', '2026-04-01'],
    ['acids', 'go', undefined, 'postpone', '2026-03-30'],
    ['peel', 'postpone', '2026-04-10', 'postpone', '2026-04-10'],
    ['injections', 'postpone', '2026-04-10', 'postpone', '2026-04-10'],
    ['waxing', 'postpone', '2026-03-30', 'postpone', '2026-04-03'],
    ['blood-thinners', 'go', undefined, 'go', undefined],
    ['keloids', 'go', undefined, 'postpone', undefined],
    ['slow-healing', 'go', undefined, 'go', undefined],
    ['allergy', 'go', undefined, 'go', undefined],
    ['hormonal-growth', 'go', undefined, 'go', undefined],
    ['strays', 'go', undefined, 'go', undefined],
    ['worn', 'go', undefined, 'go', undefined],
    ['under-age', 'go', undefined, 'go', undefined],
    ['first-ever', 'go', undefined, 'postpone', '2026-03-29'],
  ])('%s the day before: razor %s %s, fuzz %s %s', (id, razor, razorUntil, fuzz, fuzzUntil) => {
    const date = RULES.find((r) => r.id === id)!.dateQuestion ? '2026-03-27' : undefined
    for (const service of SERVICE_IDS) {
      const s = go(service, yes(id, date))
      const family = SERVICES[service].family
      expect([service, s.verdict, s.until]).toEqual([
        service,
        family === 'razor' ? razor : fuzz,
        family === 'razor' ? razorUntil : fuzzUntil,
      ])
      expect(s.findings).toHaveLength(1)
      expect(s.findings[0]!.mark).toMatch(/^[PCH]$/)
    }
  })

  it('covers every rule in the table above', () => {
    expect(RULES).toHaveLength(20)
    expect(new Set(RULES.map((r) => r.id)).size).toBe(20)
  })

  it('counts days on the calendar over the change to summer time', () => {
    // Clocks go forward on 29 March 2026 in much of Europe; a day is a day all the same.
    expect(go('dermaplane', yes('waxing', '2026-03-27')).until).toBe('2026-04-03')
  })

  it('goes again once the days have passed, on that day and not before', () => {
    expect(go('dermaplane', yes('waxing', '2026-03-22')).verdict).toBe('postpone')
    const passed = go('dermaplane', yes('waxing', '2026-03-21'))
    expect(passed).toMatchObject({ verdict: 'go' })
    expect(passed.findings[0]).toMatchObject({ severity: 'note' })
  })

  it('takes the latest date when several rules overlap, and no date when one has none', () => {
    const two: Asked = {
      ...NO,
      answers: {
        ...NO.answers,
        sunburn: { yes: true, date: '2026-03-27' },
        peel: { yes: true, date: '2026-03-20' },
      },
    }
    expect(go('face-shave', two).until).toBe('2026-04-03')
    expect(go('face-shave', yes('sunburn')).until).toBeUndefined()
    expect(go('face-shave', yes('sunburn')).findings[0]!.text).toContain('Ask for the date')
  })

  it('puts the gravest first', () => {
    const s = go('face-shave', {
      ...yes('worn'),
      answers: { ...yes('worn').answers, infection: { yes: true }, allergy: { yes: true } },
    })
    const order = s.findings.map((f) => SEVERITY_ORDER.indexOf(f.severity))
    expect(order).toEqual([...order].sort((a, b) => b - a))
    expect(s.verdict).toBe('refer')
  })

  it('follows the house’s school on isotretinoin', () => {
    const s = go('dermaplane', yes('isotretinoin', '2026-03-01'), {
      ...DEFAULT_SCHOOLS,
      isotretinoin: '0',
    })
    expect(s.verdict).toBe('go')
    expect(s.findings[0]!.severity).toBe('take-care')
  })

  it('hands on what the plan must heed', () => {
    expect(go('face-shave', yes('flare'))).toMatchObject({
      withGrainOnly: true,
      noFragrance: true,
      onePass: false,
    })
    expect(go('face-shave', yes('blood-thinners'))).toMatchObject({ onePass: true })
  })
})

describe('spots', () => {
  it('are left out with a margin where the service works, and ignored where it does not', () => {
    expect(go('face-shave', { ...NO, spots: [spot()] })).toMatchObject({
      verdict: 'leave-out',
      leaveOutZones: [],
    })
    expect(go('head-shave', { ...NO, spots: [spot()] }).verdict).toBe('go')
  })

  it('of acne leave out the whole zone for fuzz, only themselves for a razor', () => {
    const acne = { ...NO, spots: [spot({ kind: 'active-spot' as const })] }
    expect(go('dermaplane', acne).leaveOutZones).toEqual(['jaw-left'])
    expect(go('face-shave', acne)).toMatchObject({
      leaveOutZones: [],
      leaveOutSpots: [{ id: 's' }],
    })
  })
})

describe('the patch test', () => {
  const with_ = (hoursAgo: number, result: 'waiting' | 'calm' | 'reacted'): Asked => ({
    ...yes('first-ever'),
    patchTest: { zoneId: 'jaw-left', placedAtMs: NOW - hoursAgo * HOUR_MS, result },
  })

  it('is to be placed, then waited for, then read', () => {
    expect(go('dermaplane', yes('first-ever')).findings[0]!.text).toContain('Place a patch test')
    expect(go('dermaplane', with_(3, 'waiting'))).toMatchObject({
      verdict: 'postpone',
      until: '2026-03-29',
    })
    const ready = go('dermaplane', with_(25, 'waiting'))
    expect(verdictWords(ready, TODAY)).toBe('Postpone: first read the patch test.')
  })

  it('opens the way when calm and closes it when it reacted', () => {
    expect(go('dermaplane', with_(30, 'calm')).verdict).toBe('go')
    expect(go('dermaplane', with_(30, 'reacted')).verdict).toBe('refer')
  })

  it('is not asked for before a razor shave', () => {
    expect(go('face-shave', yes('first-ever')).verdict).toBe('go')
  })
})

describe('the verdict in words', () => {
  it.each([
    [NO, 'Go.'],
    [yes('allergy'), 'Go, with care.'],
    [{ ...NO, spots: [spot()] }, 'Go, but leave out what is marked.'],
    [yes('sunburn', '2026-03-27'), 'Postpone until 3 Apr.'],
    [yes('sunburn'), 'Postpone: not today.'],
    [yes('infection'), 'Stop. Refer to a doctor first.'],
    [{ answers: {}, spots: [] }, '20 questions are open.'],
  ])('says %#', (asked, words) => {
    expect(verdictWords(go('face-shave', asked), TODAY)).toBe(words)
  })
})
