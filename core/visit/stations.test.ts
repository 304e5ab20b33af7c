import { BEFORE_START } from '../chair/index.ts'
import { DEFAULTS } from '../house/index.ts'
import { serviceZones } from '../services/index.ts'
import { askedAll, knownVisit, NOW } from '../testing/visit.ts'
import { HOUR_MS, dateOf } from '../time/index.ts'
import { gate } from './gate.ts'
import {
  STATIONS,
  stationStates,
  type StationFacts,
  type StationVisit,
  type WordsOfTime,
} from './stations.ts'
import type { Known } from './types.ts'

const ZONES = serviceZones('face-shave')
const TIME: WordsOfTime = {
  nowMs: NOW,
  today: dateOf(NOW, 0),
  date: (ms) => `day ${Math.round((ms - NOW) / (24 * HOUR_MS))}`,
  at: (ms) => `hour ${Math.round((ms - NOW) / HOUR_MS)}`,
}
const OPEN: StationVisit = {
  ...{ state: 'open', slotAtMs: null, endedAtMs: null, plan: null },
  ...{ chair: BEFORE_START, care: null, answers: [] },
}
const states = (
  visit: Partial<StationVisit> = {},
  known: Partial<Known> = {},
  facts: Partial<StationFacts> = {},
) => {
  const list = stationStates(
    DEFAULTS,
    { ...OPEN, ...visit },
    {
      ...{ gate: gate(knownVisit(known)), zones: ZONES, read: ZONES, steps: 0 },
      ...{ lastEndedAtMs: undefined, dueFromMs: undefined },
      ...facts,
    },
    TIME,
  )
  return Object.fromEntries(list.map((s) => [s.id, [s.words, s.mark]]))
}
const withAnswer = (rule: string, answer: object) => ({
  asked: { ...askedAll(), answers: { ...askedAll().answers, [rule]: { yes: true, ...answer } } },
})

describe('where the stations of a visit stand', () => {
  it('is told of all six, in the order people work', () => {
    const list = stationStates(
      DEFAULTS,
      OPEN,
      {
        ...{ gate: gate(knownVisit()), zones: ZONES, read: [], steps: 0 },
        ...{ lastEndedAtMs: undefined, dueFromMs: undefined },
      },
      TIME,
    )
    expect(list.map((s) => s.id)).toEqual([...STATIONS])
    expect(list.map((s) => s.name).join(' ')).toBe('Ask Read Plan Chair Care Return')
  })

  it('of a new client: everything is open', () => {
    const empty = { asked: { answers: {}, spots: [] } }
    expect(states({}, empty, { read: [] })).toEqual({
      ask: ['18 to ask', 'open'],
      read: [`0 of ${ZONES.length} zones`, 'open'],
      plan: ['not kept yet', 'open'],
      chair: ['not begun', 'open'],
      care: ['–', 'open'],
      return: ['–', 'open'],
    })
  })

  it('of asking: what it comes to, in a word', () => {
    expect(states({}, {})['ask']).toEqual(['go', 'done'])
    expect(states({}, withAnswer('retinoid-cream', {}))['ask']).toEqual(['go, 1 take care', 'done'])
    const mole = {
      asked: {
        ...askedAll(),
        spots: [
          {
            ...{ id: 'm', kind: 'mole' as const, zoneId: 'chin' as const, radiusMm: 3 },
            ...{ point: [0, -95, 90] as const, normal: [0, 0, 1] as const },
          },
        ],
      },
    }
    expect(states({}, mole)['ask']).toEqual(['go, leave out 1', 'done'])
    const acid = withAnswer('acids', { date: dateOf(NOW, 0) })
    expect(states({}, acid)['ask']![1]).toBe('stop')
    expect(states({}, acid)['ask']![0]).toMatch(/^until \d+ May$/)
    expect(states({}, withAnswer('infection', {}))['ask']![1]).toBe('stop')
  })

  it('of plan and chair: what stands in the way of a kept plan stops the chair', () => {
    const plan = { totalMinutes: 31.4 }
    expect(states({ plan })['plan']).toEqual(['kept, 31 min', 'done'])
    const free = { gate: { ...gate(knownVisit()), findings: [] } }
    const slot = { plan, slotAtMs: NOW + HOUR_MS }
    expect(states(slot, {}, free)['chair']).toEqual(['slot hour 1', 'open'])
    const { consent: _, ...unsigned } = askedAll()
    expect(states({ plan }, { asked: unsigned })['chair']).toEqual(['not begun', 'stop'])
    expect(states({}, { asked: unsigned })['chair']).toEqual(['not begun', 'open'])
  })

  it('of a service under way: the step of the plan as amended, never beyond its end', () => {
    const chair = { ...BEFORE_START, status: 'running' as const, index: 4, lastAtMs: NOW }
    const running = { state: 'running' as const, chair }
    expect(states(running, {}, { steps: 12 })['chair']).toEqual(['step 5 of 12', 'open'])
    const over = { ...running, chair: { ...chair, index: 12 } }
    expect(states(over, {}, { steps: 12 })['chair']![0]).toBe('step 12 of 12')
    const left = { ...running, chair: { ...chair, lastAtMs: NOW - 9 * HOUR_MS } }
    expect(states(left, {}, { steps: 12 })['chair']![0]).toBe('left open since hour -9')
  })

  it('of a finished one: when, what is still kept off, and who has looked', () => {
    const clearance = (kind: 'avoid' | 'do', hours: number) => ({
      ...{ id: `${kind}${hours}`, title: '', text: '', kind, mark: 'H' as const },
      ...{ fromMs: NOW, untilMs: NOW + hours * HOUR_MS },
    })
    const care = {
      ...{ endedAtMs: NOW, today: [], normal: '', notNormal: '', product: '' },
      clearances: [clearance('avoid', 5), clearance('avoid', -1), clearance('do', 9)],
    }
    const done = { state: 'finished' as const, endedAtMs: NOW, care, answers: [{}, {}] }
    const told = states(done)
    expect(told['chair']).toEqual(['done day 0', 'done'])
    expect(told['care']).toEqual(['1 to keep off', 'done'])
    expect(told['return']).toEqual(['2 of 5 answers', 'done'])
    expect(states({ ...done, answers: [{}] })['return']![1]).toBe('open')
    const over = { ...care, clearances: [clearance('avoid', -1)] }
    expect(states({ ...done, care: over })['care']![0]).toBe('all is over')
  })

  it('of the next visit: whose care is shown, and when it is due', () => {
    const facts = { lastEndedAtMs: NOW - 48 * HOUR_MS, dueFromMs: NOW + 72 * HOUR_MS }
    expect(states({}, {}, facts)['care']).toEqual(['of day -2', 'done'])
    expect(states({}, {}, facts)['return']).toEqual(['due day 3', 'open'])
  })
})
