import {
  frontLine,
  kindOf,
  offeredKinds,
  placeOn,
  planDifferences,
  planFigures,
} from './compare.ts'
import type { Plan } from './types.ts'

const lane = (letter: string, load: number) => ({ zoneId: 'chin', letter, load })
const of = (...lanes: ReturnType<typeof lane>[]) => ({ lanes }) as unknown as Plan

describe('plans beside each other', () => {
  it('are summed up over their skin, weighed by area', () => {
    const zone = (
      areaCm2: number,
      totalLoad: number,
      smoothHours: number,
      rednessOdds: number,
    ) => ({
      areaCm2,
      totalLoad,
      smoothHours,
      rednessOdds,
    })
    const figures = planFigures({
      zones: [zone(30, 1, 20, 0.05), zone(10, 3, 40, 0.2)],
      totalMinutes: 32.4,
      bladeCount: 2,
      cost: 1.8,
    } as unknown as Plan)
    expect(figures).toMatchObject({ minutes: 32, load: 1.5, smoothHours: 25, blades: 2, cost: 1.8 })
    expect(figures.worst!.rednessOdds).toBe(0.2)
  })

  it('differ where the closest goes over more or the gentlest less, all passes of a lane together', () => {
    const plan = of(lane('a', 1), lane('a', 1.6), lane('b', 1), lane('c', 1))
    const gentlest = of(lane('a', 1), lane('b', 1), lane('c', 1))
    const closest = of(lane('a', 1), lane('a', 1.6), lane('b', 1), lane('b', 2.5), lane('c', 1.02))
    expect(planDifferences(plan, gentlest, closest)).toEqual([
      { zoneId: 'chin', letter: 'a', difference: 'gentlest-less' },
      { zoneId: 'chin', letter: 'b', difference: 'closest-more' },
    ])
    expect(planDifferences(plan, undefined, undefined)).toEqual([])
    expect(planDifferences(gentlest, gentlest, gentlest)).toEqual([])
    // Lanes of one letter in two zones are two.
    const two = (load: number) =>
      ({ lanes: [lane('a', load), { ...lane('a', load), zoneId: 'jaw-left' }] }) as unknown as Plan
    expect(planDifferences(two(1), undefined, two(2)).map((d) => d.zoneId)).toEqual([
      ...['chin', 'jaw-left'],
    ])
  })
})

describe('a front as it is picked from', () => {
  const point = (odds: number, hours: number, minutes = 30) => ({ odds, hours, minutes })

  it('is a line from gentlest to closest, each smoother for higher odds; what is faster but less smooth is left out', () => {
    const points = [point(0.5, 30), point(0.2, 18), point(0.3, 17, 20), point(0.4, 25)]
    const line = frontLine(points)
    expect(line.map((p) => p.hours)).toEqual([18, 25, 30])
    expect(placeOn(line, 24)).toBe(1)
    expect(placeOn(line, 99)).toBe(2)
  })

  it('offers the kinds that can be told apart, and tells a plan by the one that it is', () => {
    const front = {
      points: [point(0.2, 18), point(0.3, 20)],
      at: 1,
      offered: { gentlest: 0, closest: 1 },
    }
    const kind = (style: 'balanced' | 'gentlest', hours?: number) =>
      kindOf({
        front: { ...front, at: style === 'gentlest' ? 0 : 1 },
        choice: { style, edits: {}, hours },
      })
    expect(offeredKinds({ front })).toEqual(['gentlest', 'closest'])
    expect(offeredKinds(undefined)).toHaveLength(3)
    expect(kind('balanced')).toBe('closest')
    expect(kind('gentlest')).toBe('gentlest')
    expect(kind('gentlest', 19)).toBeUndefined()
  })
})
