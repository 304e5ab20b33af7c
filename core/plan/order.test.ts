/** What it costs to go from lane to lane, what must wait for what, and which lanes go together. */
import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { laneOf } from '../testing/lane.ts'
import {
  changeSeconds,
  groupsOf,
  heavierSide,
  jobId,
  jobsOf,
  laneProblem,
  nearSide,
  precedences,
  type Job,
} from './order.ts'
import type { Lane } from './types.ts'

const flat = { ...DEFAULT_SCHOOLS, faceOrder: 'flat-first' as const }
const topDown = { ...DEFAULT_SCHOOLS, faceOrder: 'top-down' as const }
const mostWork = { ...DEFAULT_SCHOOLS, faceOrder: 'most-work-first' as const }
/** Pairs by the ids of their jobs. */
const waits = (
  lanes: readonly Lane[],
  ...[schools, service = 'face-shave', hand = 'right']: [
    typeof flat | typeof topDown | typeof mostWork,
    Parameters<typeof precedences>[2]?,
    Parameters<typeof precedences>[3]?,
  ]
) => {
  const jobs = jobsOf(lanes, service === 'face-shave')
  return precedences(jobs, schools, service, hand)
    .map(([i, j]) => `${jobId(jobs[i]!)} < ${jobId(jobs[j]!)}`)
    .sort()
}

describe('a change from one lane to the next', () => {
  const a = laneOf({ id: 'a' })
  const seconds = (over: Partial<Lane>) => changeSeconds(DEFAULTS, a, laneOf({ id: 'b', ...over }))

  it('costs nothing where nothing changes, and each change its own', () => {
    expect(seconds({})).toBe(0)
    expect(seconds({ stance: { hour: 12, text: '' } })).toBe(6)
    expect(seconds({ stance: { hour: 9, text: '', hand: 'left' } })).toBe(6)
    expect(seconds({ headTurn: 'Head turned.' })).toBe(4)
    expect(seconds({ bladeId: 'safety' })).toBe(12)
    expect(seconds({ bladeId: 'safety', headTurn: 'x', stance: { hour: 3, text: '' } })).toBe(22)
  })

  it('takes longer the farther off one has to look, up to 20 cm', () => {
    expect(seconds({ point: [50, 50, 60] })).toBeCloseTo(1, 9)
    expect(seconds({ point: [50, 150, 60] })).toBeCloseTo(2, 9)
    expect(seconds({ point: [50, 450, 60] })).toBeCloseTo(2, 9)
  })

  it('of the body turns the client over', () => {
    const calf = laneOf({ id: 'a', zoneId: 'calf-left' })
    expect(changeSeconds(DEFAULTS, calf, { ...calf, id: 'b', headTurn: 'Face down.' })).toBe(25)
  })
})

describe('lanes of one step', () => {
  it('go together, the largest leading, in the order in which steps come up', () => {
    const lanes = [
      laneOf({ id: 'a', areaCm2: 3, stepId: 's1' }),
      laneOf({ id: 'b', areaCm2: 5 }),
      laneOf({ id: 'c', areaCm2: 8, stepId: 's1' }),
    ]
    expect(groupsOf(lanes).map((g) => [g.id, g.lead.id, g.lanes.map((l) => l.id)])).toEqual([
      ['s1', 'c', ['c', 'a']],
      ['b', 'b', ['b']],
    ])
  })

  it('with a lather before each later pass are the jobs', () => {
    const lanes = [
      laneOf({ id: 'a', pass: 2 }),
      laneOf({ id: 'b', pass: 1 }),
      laneOf({ id: 'c', pass: 3 }),
      laneOf({ id: 'd', pass: 2 }),
    ]
    expect(jobsOf(lanes, true).map(jobId)).toEqual(['a', 'b', 'c', 'd', 'lather:2', 'lather:3'])
    expect(jobsOf(lanes, false).map(jobId)).toEqual(['a', 'b', 'c', 'd'])
  })
})

describe('what must wait', () => {
  it('is a later pass of the same zone, and all of it for the lather between', () => {
    const lanes = [
      laneOf({ id: 'c1' }),
      laneOf({ id: 'c2', pass: 2 }),
      laneOf({ id: 'j1', zoneId: 'jaw-left' }),
      laneOf({ id: 'j3', zoneId: 'jaw-left', pass: 3 }),
    ]
    expect(waits(lanes, topDown)).toEqual(
      [
        ...['c1 < c2', 'j1 < j3', 'c1 < lather:2', 'j1 < lather:2', 'lather:2 < c2'],
        ...['lather:2 < j3', 'c1 < lather:3', 'j1 < lather:3', 'c2 < lather:3', 'lather:3 < j3'],
        ...['lather:2 < lather:3', 'c1 < j1'],
      ].sort(),
    )
  })

  it('flat first: mouth, lip, chin and nose to the end of their pass', () => {
    const lanes = [
      laneOf({ id: 'lip', zoneId: 'upper-lip-left' }),
      laneOf({ id: 'cheek' }),
      laneOf({ id: 'neck', zoneId: 'neck-upper-left' }),
      laneOf({ id: 'chin', zoneId: 'chin' }),
    ]
    expect(waits(lanes, flat)).toEqual(
      ['cheek < lip', 'neck < lip', 'cheek < chin', 'neck < chin'].sort(),
    )
  })

  it('top down: band by band from the temples to the lower neck', () => {
    const lanes = [
      laneOf({ id: 'low', zoneId: 'neck-lower-left' }),
      laneOf({ id: 'side', zoneId: 'sideburn-left' }),
      laneOf({ id: 'chin', zoneId: 'chin' }),
      laneOf({ id: 'under', zoneId: 'under-chin-centre' }),
    ]
    expect(waits(lanes, topDown)).toEqual(
      [
        'side < chin',
        'side < under',
        'side < low',
        'chin < under',
        'chin < low',
        'under < low',
      ].sort(),
    )
  })

  it('most work first: the heavier side before the other; fuzz is then flat first', () => {
    const lanes = [
      laneOf({ id: 'l', areaCm2: 12 }),
      laneOf({ id: 'r', zoneId: 'cheek-lower-right', areaCm2: 8 }),
      laneOf({ id: 'm', zoneId: 'chin' }),
    ]
    expect(waits(lanes, mostWork)).toEqual(['l < r'])
    expect(waits(lanes, mostWork, 'dermaplane')).toEqual(['l < m', 'r < m'])
    // A press that lies on both sides belongs to neither.
    const both = lanes.map((l) => (l.id === 'm' ? { ...l, stepId: 'r' } : l))
    expect(waits(both, mostWork)).toEqual([])
  })

  it('two tools: all of the first before the second is taken up', () => {
    const lanes = [
      laneOf({ id: 'a', bladeId: 'trimmer' }),
      laneOf({ id: 'b', pass: 2, zoneId: 'jaw-left' }),
      laneOf({ id: 'c', pass: 2, zoneId: 'jaw-left', bladeId: 'trimmer' }),
    ]
    expect(waits(lanes, mostWork, 'beard-line')).toContain('a < b')
    expect(waits(lanes, mostWork, 'beard-line')).not.toContain('a < c')
  })
})

describe('sides', () => {
  it('are near on the hand’s own, and the heavier by at least a twentieth', () => {
    expect([nearSide('right'), nearSide('left')]).toEqual(['right', 'left'])
    const sides = (left: number, right: number) => [
      laneOf({ id: 'l', areaCm2: left }),
      laneOf({ id: 'r', zoneId: 'cheek-lower-right', areaCm2: right }),
      laneOf({ id: 'm', zoneId: 'chin', areaCm2: 50 }),
    ]
    expect(heavierSide(sides(10, 10), 'right')).toBe('right')
    expect(heavierSide(sides(10, 9.6), 'right')).toBe('right')
    expect(heavierSide(sides(10, 9.4), 'right')).toBe('left')
    expect(heavierSide(sides(9.4, 10), 'left')).toBe('right')
    expect(heavierSide(sides(9.6, 10), 'left')).toBe('left')
    // Passes count, too: the same skin twice.
    expect(heavierSide([...sides(6, 10), laneOf({ id: 'l2', pass: 2, areaCm2: 6 })], 'right')).toBe(
      'left',
    )
  })
})

describe('the problem of order', () => {
  const jobs: Job[] = jobsOf(
    [
      laneOf({ id: 'near', zoneId: 'cheek-lower-right', point: [-50, -50, 60] }),
      laneOf({ id: 'far' }),
      laneOf({ id: 'chin', zoneId: 'chin', point: [0, -50, 60] }),
      laneOf({ id: 'chinLeft', zoneId: 'chin', letter: 'b', point: [8, -50, 60] }),
      laneOf({ id: 'again', zoneId: 'cheek-lower-right', point: [-50, -50, 60], pass: 2 }),
    ],
    true,
  )
  const at = (id: string) => jobs.findIndex((j) => jobId(j) === id)
  const problem = laneProblem(DEFAULTS, jobs, flat, 'face-shave', 'right')
  const cost = (a: string, b: string) => problem.cost[at(a) * problem.n + at(b)]
  const first = (a: string) => problem.start[at(a)]

  it('counts reaching over to the far side once, coming back for nothing', () => {
    expect(cost('near', 'far')).toBeCloseTo(2, 4)
    expect(cost('far', 'near')).toBeCloseTo(1, 4)
    expect(cost('near', 'chin')).toBeCloseTo(0.5, 4)
    // A part of a middle zone that lies 4 mm off the middle is on a side.
    expect(cost('near', 'chinLeft')).toBeCloseTo(1 + 0.58, 4)
    expect(cost('far', 'chinLeft')).toBeCloseTo(0.42, 4)
  })

  it('takes a stance anew after lather, which itself costs nothing to come to', () => {
    expect(cost('lather:2', 'again')).toBe(10)
    expect(cost('near', 'lather:2')).toBe(0)
  })

  it('begins on the cheek of the near side', () => {
    expect([first('near'), first('far'), first('chin'), first('chinLeft')]).toEqual([0, 10, 20, 30])
    expect(first('lather:2')).toBe(0)
    const other = laneProblem(DEFAULTS, jobs, topDown, 'face-shave', 'left')
    expect([other.start[at('near')], other.start[at('far')], other.start[at('chin')]]).toEqual([
      10, 0, 0,
    ])
  })
})
