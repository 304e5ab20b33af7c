import { DEFAULTS, DEFAULT_SCHOOLS, type Schools } from '../house/index.ts'
import { oneJob, SERVICE_IDS, type ServiceId, SEVERITY_ORDER } from '../services/index.ts'
import { HOUR_MS } from '../time/index.ts'
import { consentText } from './consent.ts'
import { ruleEffect, RULES, type HouseRules } from './rules.ts'
import { carriedAnswers, type Asked, type Consent, type SkinMark } from './asked.ts'
import { patchWindow } from './outcome.ts'
import { screen, verdictWords } from './screen.ts'

const TODAY = '2026-03-28'
/** A shave with a razor does not ask after hormonal growth and strays. */
const ASKED = RULES.length - 2
const NOW = Date.UTC(2026, 2, 28, 10)
/** Consent has its own tests. */
const HOUSE: Schools = { ...DEFAULT_SCHOOLS, consent: 'none' }
const NO: Asked = {
  answers: Object.fromEntries(RULES.map((r) => [r.id, { yes: false }])),
  spots: [],
}
const yes = (id: string, date?: string): Asked => ({
  ...NO,
  answers: { ...NO.answers, [id]: { yes: true, ...(date && { date }) } },
})
const go = (service: ServiceId, asked: Asked, schools: Schools = HOUSE, rules?: HouseRules) =>
  screen(DEFAULTS, [oneJob('job', service)], asked, schools, TODAY, NOW, 0, rules)
const spot = (over: Partial<SkinMark> = {}): SkinMark => ({
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
      unanswered: ASKED,
    })
  })

  it.each(SERVICE_IDS)('lets %s go when nothing is found', (service) => {
    expect(go(service, NO)).toMatchObject({ verdict: 'go', findings: [], unanswered: 0 })
  })

  // Common practice: what each rule does the day before, service by service, with the first free day where there is one.
  // g go · p postpone · r refer
  const SERVICES_OF_THE_TABLE = [
    'face-shave',
    'head-shave',
    'beard-line',
    'body-shave',
    'dermaplane',
    'facial-razor',
    'brow-tidy',
  ] as const
  const TABLE: readonly (readonly [string, ...string[]])[] = [
    ['infection', 'r', 'r', 'r', 'r', 'r', 'r', 'r'],
    ['changing-mole', 'r', 'r', 'r', 'r', 'r', 'r', 'r'],
    ['widespread-acne', 'g', 'g', 'g', 'g', 'p', 'p', 'g'],
    ['sunburn', 'p 04-03', 'p 04-03', 'p 04-03', 'p 04-03', 'p 04-03', 'p 04-03', 'p 04-03'],
    ['flare', 'g', 'g', 'g', 'g', 'p', 'p', 'g'],
    ['isotretinoin', 'g', 'g', 'g', 'g', 'p 09-26', 'p 09-26', 'p 09-26'],
    ['retinoid-cream', 'g', 'g', 'g', 'g', 'p 04-01', 'p 04-01', 'p 04-01'],
    // A day has passed since the acids of the day before: that is enough for a razor.
    ['acids', 'g', 'g', 'g', 'g', 'p 03-30', 'p 03-30', 'g'],
    ['peel', 'p 04-10', 'p 04-10', 'p 04-10', 'p 04-10', 'p 04-10', 'p 04-10', 'p 04-10'],
    ['injections', 'p 04-10', 'g', 'p 04-10', 'g', 'p 04-10', 'p 04-10', 'p 04-10'],
    ['waxing', 'p 03-30', 'p 03-30', 'p 03-30', 'p 03-30', 'p 04-03', 'p 04-03', 'p 04-03'],
    ['blood-thinners', 'p', 'p', 'p', 'p', 'p', 'p', 'p'],
    ['keloids', 'g', 'g', 'g', 'g', 'p', 'p', 'p'],
    ['slow-healing', 'p', 'p', 'p', 'p', 'p', 'p', 'p'],
    ['allergy', 'g', 'g', 'g', 'g', 'g', 'g', 'g'],
    ['hormonal-growth', 'g', 'g', 'g', 'g', 'g', 'g', 'g'],
    ['strays', 'g', 'g', 'g', 'g', 'g', 'g', 'g'],
    ['worn', 'g', 'g', 'g', 'g', 'g', 'g', 'g'],
    ['under-age', 'p', 'p', 'p', 'p', 'p', 'p', 'p'],
    ['first-ever', 'g', 'g', 'g', 'g', 'p 03-29', 'p 03-29', 'g'],
  ]
  const CASES = TABLE.flatMap(([rule, ...row]) =>
    SERVICES_OF_THE_TABLE.map((service, i) => [rule, service, row[i]!] as const),
  )
  it.each(CASES)('%s the day before %s: %s', (id, service, expected) => {
    const date = RULES.find((r) => r.id === id)!.dateQuestion ? '2026-03-27' : undefined
    const s = go(service, yes(id, date))
    const verdict = { go: 'g', 'leave-out': 'l', postpone: 'p', refer: 'r', 'not-asked': '?' }[
      s.verdict
    ]
    const until = s.until === undefined || s.until === TODAY ? '' : ` ${s.until.slice(5)}`
    expect(`${verdict}${until}`).toBe(expected)
    expect(s.findings).toHaveLength(1)
    expect(s.findings[0]!.mark).toMatch(/^[PCH]$/)
    if (verdict === 'p' && until === '') expect(s.wouldChange).toHaveLength(1)
  })

  it('covers every rule in the table above', () => {
    expect(RULES).toHaveLength(20)
    expect(new Set(RULES.map((r) => r.id)).size).toBe(20)
    expect(TABLE.map(([id]) => id)).toEqual(RULES.map((r) => r.id))
    expect(SERVICE_IDS).toEqual(expect.arrayContaining([...SERVICES_OF_THE_TABLE]))
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
      ...HOUSE,
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

  it('is asked for by the house’s school', () => {
    const verdict = (service: ServiceId, patchTest: Schools['patchTest']) =>
      go(service, yes('first-ever'), { ...HOUSE, patchTest }).verdict
    expect(verdict('face-shave', 'fuzz')).toBe('go')
    expect(verdict('face-shave', 'all')).toBe('postpone')
    expect(verdict('dermaplane', 'none')).toBe('postpone')
    expect(verdict('brow-tidy', 'fuzz')).toBe('go')
  })

  it('can be planned for a day, and is late when nobody read it in time', () => {
    const planned: Asked = {
      ...yes('first-ever'),
      patchTest: { zoneId: 'jaw-left', plannedFor: '2026-03-31', result: 'planned' },
    }
    expect(go('dermaplane', planned)).toMatchObject({ verdict: 'postpone', until: '2026-04-01' })
    expect(go('dermaplane', planned).findings[0]!.text).toContain('planned on')
    expect(go('dermaplane', with_(60, 'waiting')).findings[0]!.text).toContain('place another')
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
    [{ answers: {}, spots: [] }, '18 questions are open.'],
  ])('says %#', (asked, words) => {
    expect(verdictWords(go('face-shave', asked), TODAY)).toBe(words)
  })
})

describe('what was done to one place', () => {
  const at = (zones: Asked['answers'][string]['zones'], id = 'injections'): Asked => ({
    ...NO,
    answers: { ...NO.answers, [id]: { yes: true, date: '2026-03-27', zones } },
  })

  it('is left out there until its day, and the rest goes ahead', () => {
    const s = go('dermaplane', at(['forehead-left', 'forehead-right']))
    expect(s.verdict).toBe('leave-out')
    expect([...s.leaveOutZones].sort()).toEqual(['forehead-left', 'forehead-right'])
    expect(s.zoneReasons['forehead-left']).toContain('10 Apr')
    expect(s.wholeFrom).toBe('2026-04-10')
  })

  it('does not matter where the service does not work', () => {
    expect(go('face-shave', at(['forehead-left'])).verdict).toBe('go')
  })

  it('is the whole service when nobody says where', () => {
    expect(go('dermaplane', at(undefined)).verdict).toBe('postpone')
    expect(go('dermaplane', at([])).verdict).toBe('postpone')
  })
})

describe('gates', () => {
  const word = (said: 'yes' | 'no'): Asked => ({
    ...yes('blood-thinners'),
    clinician: { who: 'Dr Vane', on: '2026-03-20', said },
  })

  it('wait for a clinician’s word, then go gently, or stop', () => {
    const none = go('face-shave', yes('blood-thinners'))
    expect(none.verdict).toBe('postpone')
    expect(none.until).toBeUndefined()
    const said = go('face-shave', word('yes'))
    expect(said).toMatchObject({ verdict: 'go', onePass: true })
    expect(said.findings[0]!.text).toContain('Dr Vane said yes on 20 Mar')
    expect(go('face-shave', word('no')).verdict).toBe('refer')
  })

  const signed = (asGuardian: boolean): Consent => ({
    text: consentText([oneJob('job', 'face-shave')]),
    name: 'A. Guardian',
    asGuardian,
    signedAtMs: NOW,
    path: 'M0 0L50 20',
  })

  it('wait for a guardian’s signature when the client is under age', () => {
    expect(go('face-shave', yes('under-age')).verdict).toBe('postpone')
    expect(go('face-shave', { ...yes('under-age'), consent: signed(false) }).verdict).toBe(
      'postpone',
    )
    expect(go('face-shave', { ...yes('under-age'), consent: signed(true) }).verdict).toBe('go')
  })

  it('leave consent to the gate of the visit', () => {
    for (const consent of ['first', 'each'] as const) {
      const s = go('face-shave', NO, { ...DEFAULT_SCHOOLS, consent })
      expect(s.verdict).toBe('go')
      expect(s.findings).toEqual([])
      const done = go('face-shave', { ...NO, consent: signed(false) }, { ...HOUSE, consent })
      expect(done.findings).toEqual([])
    }
  })
})

describe('what was answered last time', () => {
  it('counts, and is asked again only as "still so?"', () => {
    const asked: Asked = {
      ...NO,
      answers: carriedAnswers(yes('allergy').answers, '2026-03-01'),
    }
    const s = go('face-shave', asked)
    expect(s).toMatchObject({ verdict: 'not-asked', unanswered: 0, toConfirm: ASKED })
    expect(s.findings[0]).toMatchObject({ ruleId: 'allergy' })
    expect(s.findings[0]!.reason).toContain('still so?')
    expect(verdictWords(s, TODAY)).toBe('18 answers from last time: still so?')
    expect(asked.answers['allergy']!.since).toBe('2026-03-01')
    // Carried twice it keeps the day on which it was first said.
    expect(carriedAnswers(asked.answers, '2026-03-20')['allergy']!.since).toBe('2026-03-01')
  })

  it('stops and postpones all the same before it is confirmed', () => {
    const answers = carriedAnswers(yes('sunburn', '2026-03-27').answers, '2026-03-27')
    expect(go('face-shave', { ...NO, answers }).verdict).toBe('postpone')
  })

  it('no longer says "first ever" of somebody who was here', () => {
    expect(carriedAnswers(yes('first-ever').answers, TODAY)['first-ever']!.yes).toBe(false)
  })
})

describe('a house’s own rules', () => {
  it('overrule severity and days in one service only, and go back to the default', () => {
    const rules: HouseRules = { sunburn: { 'face-shave': { waitDays: 10 } } }
    const burnt = yes('sunburn', '2026-03-27')
    expect(go('face-shave', burnt, HOUSE, rules).until).toBe('2026-04-06')
    expect(go('head-shave', burnt, HOUSE, rules).until).toBe('2026-04-03')
    const stop: HouseRules = { flare: { 'face-shave': { severity: 'postpone' } } }
    expect(go('face-shave', yes('flare'), HOUSE, stop).verdict).toBe('postpone')
    const flare = RULES.find((r) => r.id === 'flare')!
    expect(ruleEffect(DEFAULTS, flare, oneJob('job', 'face-shave'), stop).severity).toBe('postpone')
    expect(ruleEffect(DEFAULTS, flare, oneJob('job', 'face-shave')).severity).toBe('take-care')
  })
})

describe('dates where clocks change', () => {
  // Summer time begins in central Europe on 29 March 2026 at 01:00 UTC: offset 60, then 120 minutes.
  const offset = (ms: number) => (ms < Date.UTC(2026, 2, 29, 1) ? 60 : 120)

  it('names the day of the place, by the offset that counts at that moment', () => {
    // Placed at 22:30 UTC on the 28th, which is 23:30 there; read from 22:30 UTC on the 29th: 00:30 on the 30th.
    const placed = Date.UTC(2026, 2, 28, 22, 30)
    const asked: Asked = {
      ...yes('first-ever'),
      patchTest: { zoneId: 'jaw-left', placedAtMs: placed, result: 'waiting' },
    }
    const at = (o: number | ((ms: number) => number)) =>
      screen(DEFAULTS, [oneJob('job', 'dermaplane')], asked, HOUSE, TODAY, placed + HOUR_MS, o)
        .until
    expect(at(offset)).toBe('2026-03-30')
    expect(at(60)).toBe('2026-03-29')
    expect(patchWindow(DEFAULTS, asked.patchTest!)).toEqual({
      fromMs: placed + 24 * HOUR_MS,
      untilMs: placed + 48 * HOUR_MS,
    })
  })

  it.each([-720, -300, 0, 345, 840])('counts whole days at an offset of %d minutes', (o) => {
    const s = screen(
      DEFAULTS,
      [oneJob('job', 'dermaplane')],
      yes('waxing', '2026-03-27'),
      HOUSE,
      TODAY,
      NOW,
      o,
    )
    expect(s.until).toBe('2026-04-03')
  })
})
