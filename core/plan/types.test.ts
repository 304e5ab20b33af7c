/** What steps and lanes say of themselves. */
import { laneOf } from '../testing/lane.ts'
import {
  avoidWords,
  lanesWith,
  largestFirst,
  stepLanes,
  stepMinutes,
  stepZones,
  watchWords,
} from './types.ts'

describe('a step', () => {
  it('does its lanes and works their zones, several where it says so', () => {
    expect(stepLanes({ laneId: 'a', laneIds: ['a', 'b'] })).toEqual(['a', 'b'])
    expect(stepLanes({ laneId: 'a' })).toEqual(['a'])
    expect(stepLanes({})).toEqual([])
    expect(stepZones({ zoneId: 'chin', zoneIds: ['chin', 'jaw-left'] })).toEqual([
      ...['chin', 'jaw-left'],
    ])
    expect(stepZones({ zoneId: 'chin' })).toEqual(['chin'])
    expect(stepZones({})).toEqual([])
    expect(stepMinutes([{ minutes: 1.5 }, { minutes: 2 }])).toBe(3.5)
    expect(stepMinutes([])).toBe(0)
  })
})

describe('lanes that go together', () => {
  const [a, b, c] = [
    laneOf({ id: 'a', stepId: 's', areaCm2: 2 }),
    laneOf({ id: 'b', areaCm2: 9 }),
    laneOf({ id: 'c', stepId: 's', areaCm2: 4 }),
  ]
  const lanes = [a, b, c]

  it('are those of their step; one without a step stands alone', () => {
    expect(lanesWith({ lanes }, c).map((l) => l.id)).toEqual(['a', 'c'])
    expect(lanesWith({ lanes }, b).map((l) => l.id)).toEqual(['b'])
  })

  it('stand by size; those alike but for rounding keep their order', () => {
    expect(largestFirst(lanes).map((l) => l.id)).toEqual(['b', 'c', 'a'])
    const alike = [
      { id: 1, areaCm2: 2 },
      { id: 2, areaCm2: 2.004 },
      { id: 3, areaCm2: 2.02 },
    ]
    expect(largestFirst(alike).map((l) => l.id)).toEqual([3, 1, 2])
  })

  it('say once what to watch, sentence by sentence, and leave out what says nothing', () => {
    expect(
      watchWords([
        { watch: 'Thin skin. Ask for air!' },
        { watch: '' },
        { watch: 'Thin skin. Whorls? Look.' },
      ]),
    ).toBe('Thin skin. Ask for air! Whorls? Look.')
    expect(watchWords([{ watch: '' }])).toBe('')
  })

  it('say what to leave alone, each place named where there are several', () => {
    const one = { zoneId: 'chin' as const, avoid: ['mole', 'scar'] }
    expect(avoidWords([one, { ...one, avoid: ['scar'] }])).toEqual(['Mole', 'Scar'])
    expect(avoidWords([one, { zoneId: 'jaw-left', avoid: ['scar'] }])).toEqual([
      ...['Chin: mole', 'Chin: scar', "Jaw (client's left): scar"],
    ])
  })
})
