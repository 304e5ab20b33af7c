import { readingFromBearing, type Reading } from '../grain/index.ts'
import { NO_NOTES } from '../hair/index.ts'
import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { BLADE_IDS } from '../kit/index.ts'
import { FIRST_CHOICE, NO_PACE } from '../plan/index.ts'
import { oneJob } from '../services/index.ts'
import { SKIN } from '../testing/client.ts'
import { ZONES } from '../testing/head.ts'
import { knownVisit, NOW } from '../testing/visit.ts'
import { DAY_MS } from '../time/index.ts'
import { gate } from './gate.ts'
import {
  groundKey,
  groundOf,
  planAsk,
  planInput,
  readingsToday,
  type HeadSkin,
  type PlannedVisit,
  type PlanningHouse,
} from './planInput.ts'

const chin = ZONES.find((z) => z.id === 'chin')!
const reading = (id: string, atMs: number): Reading =>
  readingFromBearing('chin', chin.centre, Math.PI, { id, method: 'felt', atMs })
const VISIT: PlannedVisit = {
  ...{ jobs: [oneJob('j', 'face-shave')], workerId: 'w', readerDeg: null, endedAtMs: null },
  ...{ readings: [reading('r', NOW - 90 * DAY_MS)], notes: NO_NOTES },
}
const HOUSE: PlanningHouse = {
  ...{ schools: DEFAULT_SCHOOLS, kit: BLADE_IDS, figures: {}, changes: [{}, {}], paces: {} },
  workers: [{ id: 'w', hand: 'left', level: 'learning' }],
}
const CLIENT = {
  ...{ skin: SKIN, schools: { beardPasses: 'with-only' as const } },
  model: {
    sensitivity: { chin: { shape: 2, rate: 8 } },
    belief: { rates: [0.3], shapes: [4.5], weights: [1], seen: {}, visitSpread: 0.4 },
    bumps: { chin: { shape: 1.5, rate: 25 } },
    record: { visits: 8, reddened: 5 },
    growth: { chin: { curve: 'terminal' as const, mean: 0.4, sd: 0.05 } },
  },
}
const { screening } = gate(knownVisit())
const ask = (visit: Partial<PlannedVisit> = {}, house: Partial<PlanningHouse> = {}) =>
  planAsk(
    DEFAULTS,
    { ...VISIT, ...visit },
    CLIENT,
    { ...HOUSE, ...house },
    screening,
    FIRST_CHOICE,
    NOW,
  )
const never = () => {
  throw new Error('the head is not asked')
}
const NO_HEAD: HeadSkin = { ground: never, room: never, flow: never, lines: never, outlines: never }

describe('what a plan is made from', () => {
  it('is plain data: sent and received it is the same', () => {
    const sent = ask()
    expect(JSON.parse(JSON.stringify(sent))).toEqual(JSON.parse(JSON.stringify({ ...sent })))
    expect(sent.house).toEqual({ version: 2, changed: {} })
    expect(sent.worker).toEqual({ hand: 'left', level: 'learning', pace: NO_PACE })
  })

  it('takes the worker’s pace from services of the same kind of work', () => {
    const paces = (['head-shave', 'dermaplane'] as const).map((service) => ({ service, ratio: 2 }))
    const slow = ask({}, { paces: { w: paces } }).worker!.pace
    expect(slow).toEqual({ ratio: Math.exp(Math.log(2) / 2), services: 1 })
  })

  it('puts the client’s schools over the house’s', () => {
    const { schools } = ask()
    expect(schools.beardPasses).toBe('with-only')
    expect(schools.faceOrder).toBe(DEFAULT_SCHOOLS.faceOrder)
  })

  it('lets readings age by the day, up to the end of a visit that has ended', () => {
    const weight = (nowMs: number, endedAtMs: number | null = null) =>
      readingsToday(DEFAULTS, { ...VISIT, endedAtMs }, nowMs)[0]!.weight
    expect(weight(NOW)).toBe(weight(NOW + 3_600_000))
    expect(weight(NOW + 30 * DAY_MS)).toBeLessThan(weight(NOW))
    expect(weight(NOW + 30 * DAY_MS, NOW)).toBe(weight(NOW))
  })

  it('refuses in words a worker of another house', () => {
    const stranger = ask({ workerId: 'x' })
    expect(stranger.worker).toBeNull()
    const body = ask({ jobs: [oneJob('j', 'body-shave')] })
    const ground = groundOf(DEFAULTS, body, NO_HEAD)
    expect(() => planInput(DEFAULTS, stranger, ground)).toThrow('not of this house')
  })

  it('asks nothing of the head where the work is on the body', () => {
    const sent = ask({ jobs: [oneJob('j', 'back-and-chest')], readings: [] })
    const ground = groundOf(DEFAULTS, sent, NO_HEAD)
    expect([ground.room, ground.lines]).toEqual([undefined, []])
    expect(() => groundOf(DEFAULTS, ask(), NO_HEAD)).toThrow('the head is not asked')
    const input = planInput(DEFAULTS, sent, ground)
    expect(input.jobs).toBe(sent.jobs)
    expect(input.sensitivity('chin')).toBe(CLIENT.model.sensitivity.chin)
    expect(input.growth('chin')).toBe(CLIENT.model.growth.chin)
    expect([input.hand, input.level]).toEqual(['left', 'learning'])
  })

  it('keeps its ground while only the choice changes, and not when grain, lines, marks or figures do', () => {
    const key = groundKey(ask())
    expect(groundKey({ ...ask(), choice: { ...FIRST_CHOICE, style: 'closest' } })).toBe(key)
    expect(groundKey({ ...ask(), worker: null })).toBe(key)
    const others = [
      ask({ readings: [...VISIT.readings, reading('s', NOW)] }),
      ask({ jobs: [oneJob('j', 'head-shave')] }),
      ask({ notes: { ...NO_NOTES, keptZones: ['chin'] } }),
      ask({}, { figures: { 'skin.rednessLimit': 0.1 } }),
    ].map(groundKey)
    expect(new Set([key, ...others]).size).toBe(5)
  })
})
