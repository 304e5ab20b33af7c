import { DEFAULTS } from '../house/index.ts'
import { makePlan } from '../plan/index.ts'
import { planInput } from '../testing/plan.ts'
import { DAY_MS } from '../time/index.ts'
import { comesBack } from './leftOut.ts'

const plan = makePlan(planInput({}))
const END = Date.UTC(2026, 4, 20, 10)
const of = (over: Partial<Parameters<typeof comesBack>[1]> = {}) =>
  comesBack(DEFAULTS, {
    ...{ plan, atChair: { leftOut: {} }, endedAtMs: END },
    noonOf: (day) => Date.parse(`${day}T12:00:00Z`),
    ...over,
  })

describe('what was left out', () => {
  it('is nothing where all was done; what is kept is not left out', () => {
    expect(plan.leftOut.length).toBeGreaterThan(0)
    expect(of()).toBeUndefined()
  })

  it('comes back after a week, with the minutes of its strokes at the plan’s own pace', () => {
    const back = of({ atChair: { leftOut: { chin: 'it reddened' } } })!
    expect(back).toMatchObject({
      zones: ['chin'],
      job: { service: 'face-shave', method: 'blade', zones: ['chin'] },
      reasons: ['it reddened'],
      fromMs: END + 7 * DAY_MS,
    })
    const chin = plan.zones.find((z) => z.zoneId === 'chin')!
    const area = plan.zones.reduce((s, z) => s + z.areaCm2, 0)
    const seconds = plan.lanes.reduce((s, l) => s + l.seconds, 0)
    expect(back.minutes).toBe(Math.round(6 + (seconds / 60) * (chin.areaCm2 / area)))
    expect(back.minutes).toBeLessThan(plan.totalMinutes / 2)
  })

  it('waits for the day that asking has told', () => {
    const screening = {
      ...plan.screening,
      leaveOutZones: ['chin'] as const,
      wholeFrom: '2026-06-10',
    }
    const leftOut = [{ zoneId: 'chin', name: 'Chin', reason: 'Filler: left out' }] as const
    const back = of({ plan: { ...plan, screening, leftOut } })!
    expect(back.zones).toEqual(['chin'])
    expect(back.fromMs).toBe(Date.UTC(2026, 5, 10, 12))
  })
})
