/** What must hold of asking, whatever is answered. */
import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { isSkin, ZONE_IDS } from '../zones/index.ts'
import {
  oneJob,
  SERVICE_IDS,
  serviceZones,
  workedShare,
  type ServiceId,
  SEVERITY_ORDER,
} from '../services/index.ts'
import { addDays, daysBetween } from '../time/index.ts'
import { concerns, RULES, MARK_KINDS } from './rules.ts'
import { screen, type Verdict } from './screen.ts'
import type { Asked } from './asked.ts'
import fc from 'fast-check'

/** Consent is a note of its own. */
const HOUSE = { ...DEFAULT_SCHOOLS, consent: 'none' as const }
const TODAY = '2026-05-20'
const NOW = Date.UTC(2026, 4, 20, 9)
const MILDEST_FIRST: Verdict[] = ['go', 'leave-out', 'postpone', 'refer']
const ask = (service: ServiceId, asked: Asked, today = TODAY) =>
  screen(DEFAULTS, [oneJob('job', service)], asked, HOUSE, today, NOW, 0)

const service = fc.constantFrom(...SERVICE_IDS)
const date = fc.integer({ min: 0, max: 400 }).map((ago) => addDays(TODAY, -ago))
const answer = fc.oneof(
  fc.constant({ yes: false }),
  fc.record({ yes: fc.constant(true), date: fc.option(date, { nil: undefined }) }),
)
const answers = fc.record(Object.fromEntries(RULES.map((r) => [r.id, answer])))
const spots = fc.array(
  fc.record({
    id: fc.uuid(),
    kind: fc.constantFrom(...MARK_KINDS),
    zoneId: fc.constantFrom(...ZONE_IDS.filter(isSkin)),
    point: fc.constant([0, 0, 0] as const),
    normal: fc.constant([0, 0, 1] as const),
    radiusMm: fc.integer({ min: 1, max: 40 }),
  }),
  { maxLength: 5 },
)
const asked: fc.Arbitrary<Asked> = fc.record({ answers, spots })

describe('asking, whatever is answered', () => {
  it('gives the verdict of the gravest finding, and lists it first', () => {
    fc.assert(
      fc.property(service, asked, (s, a) => {
        const { verdict, findings } = ask(s, a)
        const ranks = findings.map((f) => SEVERITY_ORDER.indexOf(f.severity))
        expect(ranks).toEqual([...ranks].sort((x, y) => y - x))
        const gravest = findings[0]?.severity
        const expected: Record<string, Verdict> = {
          stop: 'refer',
          postpone: 'postpone',
          'leave-out': 'leave-out',
        }
        expect(verdict).toBe(expected[gravest ?? ''] ?? 'go')
      }),
    )
  })

  it('never grows milder when one more thing is found', () => {
    fc.assert(
      fc.property(service, asked, fc.constantFrom(...RULES), (s, a, rule) => {
        const without = { ...a, answers: { ...a.answers, [rule.id]: { yes: false } } }
        const withIt = { ...a, answers: { ...a.answers, [rule.id]: { yes: true } } }
        const rank = (x: Asked) => MILDEST_FIRST.indexOf(ask(s, x).verdict)
        expect(rank(withIt)).toBeGreaterThanOrEqual(rank(without))
      }),
    )
  })

  it('keeps its word: on the day it named, what was dated stands in the way no more', () => {
    fc.assert(
      fc.property(service, asked, (s, a) => {
        // A patch test goes by the hour, not by the date.
        const dated = { ...a, answers: { ...a.answers, 'first-ever': { yes: false } } }
        const result = ask(s, dated)
        if (result.verdict !== 'postpone' || result.until === undefined) return
        expect(daysBetween(TODAY, result.until)).toBeGreaterThan(0)
        expect(['go', 'leave-out']).toContain(ask(s, dated, result.until).verdict)
        expect(ask(s, dated, addDays(result.until, -1)).verdict).toBe('postpone')
      }),
      { numRuns: 300 },
    )
  })

  it('names no date when something that postpones has none', () => {
    fc.assert(
      fc.property(service, asked, (s, a) => {
        const { findings, until } = ask(s, a)
        const open = findings.some((f) => f.severity === 'postpone' && f.until === undefined)
        if (open) expect(until).toBeUndefined()
      }),
    )
  })

  it('gives each finding a sentence, what it is about, and a mark', () => {
    fc.assert(
      fc.property(service, asked, (s, a) => {
        for (const f of ask(s, a).findings) {
          expect(f.text).toMatch(/[.:]$/)
          expect(f.reason).not.toMatch(/\?$/)
          expect(['P', 'C', 'H']).toContain(f.mark)
        }
      }),
    )
  })

  it('leaves out only where the service works, each spot once: alone or with its zone', () => {
    fc.assert(
      fc.property(service, asked, (s, a) => {
        const { leaveOutSpots, leaveOutZones, findings } = ask(s, a)
        const worked = a.spots.filter((p) => serviceZones(s).includes(p.zoneId))
        expect(findings.filter((f) => f.ruleId.startsWith('spot:'))).toHaveLength(worked.length)
        for (const zone of leaveOutZones) expect(workedShare(s, zone)).toBeGreaterThan(0)
        for (const p of worked)
          expect(leaveOutSpots.includes(p) || leaveOutZones.includes(p.zoneId)).toBe(true)
      }),
    )
  })

  it('counts what is not answered, and lets nothing begin before all is', () => {
    fc.assert(
      fc.property(service, fc.subarray(RULES.map((r) => r.id)), (s, answered) => {
        const result = ask(s, {
          answers: Object.fromEntries(answered.map((id) => [id, { yes: false }])),
          spots: [],
        })
        // What would change nothing is not asked.
        const open = RULES.filter(
          (r) => concerns(r, [oneJob('job', s)]) && !answered.includes(r.id),
        )
        expect(result.unanswered).toBe(open.length)
        expect(result.verdict).toBe(open.length === 0 ? 'go' : 'not-asked')
      }),
    )
  })

  it('is no more lenient with fuzz than with a beard on fresh retinoids, peels and acne (common practice)', () => {
    for (const id of ['retinoid-cream', 'widespread-acne', 'peel', 'acids']) {
      const rule = RULES.find((r) => r.id === id)!
      const rank = (family: 'razor' | 'fuzz') =>
        SEVERITY_ORDER.indexOf(rule.effects[family].severity)
      expect(rank('fuzz')).toBeGreaterThanOrEqual(rank('razor'))
    }
  })
})
