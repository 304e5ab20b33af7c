/**
 * What is answered stops or changes the next stroke of every service alike, one that was added later too: what stops is never
 * planned or begun, on nobody's word; more that is found never makes less of it.
 */
import { DEFAULTS } from '../house/index.ts'
import { makePlan } from '../plan/index.ts'
import { RULES, ruleEffect, type Asked } from '../screening/index.ts'
import { SERVICE_IDS, serviceZones, SEVERITY_ORDER, type ServiceId } from '../services/index.ts'
import { BEARD_LINES, BROW_LINES } from '../testing/lines.ts'
import { planInput } from '../testing/plan.ts'
import { askedAll, knownVisit, NOW } from '../testing/visit.ts'
import { gate, heldWords } from './gate.ts'
import type { Decision, Known } from './types.ts'

const TODAY = '2026-05-20'
const ready = (service: ServiceId, asked: Asked, over: Partial<Known> = {}) =>
  knownVisit({
    ...{ service, asked, plan: PLANS[service], planMadeAtMs: NOW - 60_000 },
    ...{ readZones: serviceZones(service), ...over },
  })
/** A line-up goes along them. */
const LINES = [...BEARD_LINES, ...BROW_LINES]
const PLANS = Object.fromEntries(
  SERVICE_IDS.map((service) => [service, makePlan(planInput({ service, keepLines: LINES }))]),
) as Record<ServiceId, ReturnType<typeof makePlan>>
const yes = (service: ServiceId, ...ids: readonly string[]): Asked => ({
  ...askedAll(service),
  answers: {
    ...askedAll(service).answers,
    ...Object.fromEntries(ids.map((id) => [id, { yes: true, date: TODAY }])),
  },
})
const may = (known: Known, what: 'plan' | 'start') =>
  heldWords(gate(known).findings, what) === undefined
/** A worker's word on everything that was found. */
const decided = (known: Known): Decision[] =>
  gate(known).findings.map((f, i) => ({
    ...{ id: `d${i}`, visitId: 'v', finding: f.id, workerId: 'w', workerName: 'Ines' },
    ...{ reason: 'looked at it myself', atMs: NOW, takenBackAtMs: null },
  }))
const severity = (service: ServiceId, id: string) =>
  ruleEffect(
    DEFAULTS,
    RULES.find((r) => r.id === id)!,
    { service, method: 'blade' },
  ).severity

describe.each(SERVICE_IDS)('%s', (service) => {
  const stops = RULES.filter((r) => severity(service, r.id) === 'stop').map((r) => r.id)

  it('may be planned and begun where nothing was found', () => {
    expect(may(ready(service, askedAll(service)), 'plan')).toBe(true)
    expect(may(ready(service, askedAll(service)), 'start')).toBe(true)
  })

  it('is neither planned nor begun with what stops it, whatever anyone decides', () => {
    expect(stops.length).toBeGreaterThan(0)
    for (const id of stops) {
      const known = ready(service, yes(service, id))
      const overruled = ready(service, yes(service, id), { decisions: decided(known) })
      for (const k of [known, overruled]) {
        expect([id, may(k, 'plan'), may(k, 'start')]).toEqual([id, false, false])
        expect(gate(k).screening.verdict).toBe('refer')
      }
    }
  })

  it('is not begun today with what postpones it, as long as nobody has said otherwise', () => {
    for (const rule of RULES.filter((r) => severity(service, r.id) === 'postpone')) {
      const known = ready(service, yes(service, rule.id))
      expect([rule.id, may(known, 'start')]).toEqual([rule.id, false])
      expect(['postpone', 'refer']).toContain(gate(known).screening.verdict)
    }
  })

  it('tells of every yes: none is asked for nothing', () => {
    for (const { id } of RULES) {
      const { screening } = gate(ready(service, yes(service, id)))
      expect([id, screening.findings.some((f) => f.ruleId === id)]).toEqual([id, true])
    }
  })

  it('is never freer for one thing more that is found', () => {
    const worst = (...ids: string[]) => {
      const { findings } = gate(ready(service, yes(service, ...ids))).screening
      return Math.max(-1, ...findings.map((f) => SEVERITY_ORDER.indexOf(f.severity)))
    }
    for (const [i, { id }] of RULES.entries()) {
      const other = RULES[(i + 7) % RULES.length]!.id
      const both = gate(ready(service, yes(service, id, other)))
      for (const alone of [id, other])
        if (!may(ready(service, yes(service, alone)), 'start'))
          expect([alone, heldWords(both.findings, 'start')]).not.toEqual([alone, undefined])
      expect(worst(id, other)).toBeGreaterThanOrEqual(Math.max(worst(id), worst(other)))
    }
  })
})
