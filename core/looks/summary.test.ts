import { DEFAULTS } from '../house/index.ts'
import { DAY_MS, HOUR_MS } from '../time/index.ts'
import type { SkinAnswer } from './answers.ts'
import { bumpsByZone, fadeSteps, summariseAnswers, worstByZone } from './summary.ts'

const END = 50 * DAY_MS
const look = (hours: number, zones: SkinAnswer['zones']): SkinAnswer => ({
  ...{ moment: `h${hours}`, atMs: END + hours * HOUR_MS, zones, source: 'seen' },
})
const red = (zoneId: string, redness: number, bumps = 0, pustules = 0) => ({
  ...{ zoneId, redness, bumps, pustules },
})
const past = (answers: SkinAnswer[], redAtChair: Record<string, number> = {}) => ({
  ...{ endedAtMs: END, loads: { chin: 2, 'neck-front-left': 3 }, answers, redAtChair },
})

describe('what counts of the looks after a service', () => {
  it('is the worst grade of each zone, the chair among it', () => {
    const answers = [look(24, [red('chin', 1)]), look(48, [red('chin', 3), red('jaw-left', 1)])]
    const worst = worstByZone(DEFAULTS, past(answers, { chin: 2, 'neck-front-left': 2 }))
    expect(Object.fromEntries(worst!)).toEqual({ chin: 3, 'jaw-left': 1, 'neck-front-left': 2 })
  })

  it('says nothing while only the first minutes, or only late days, were looked at', () => {
    expect(worstByZone(DEFAULTS, past([look(0, [red('chin', 2)])]))).toBeUndefined()
    expect(worstByZone(DEFAULTS, past([look(9 * 24, [red('chin', 2)])]))).toBeUndefined()
  })

  it('hears a look of the second day though it comes half a day late, and none after that', () => {
    for (const [hours, heard] of [
      [48, true],
      [59.9, true],
      [60.1, false],
    ] as const)
      expect(worstByZone(DEFAULTS, past([look(hours, [red('chin', 2)])])) !== undefined).toBe(heard)
    // The first hours say nothing, six hours do.
    expect(worstByZone(DEFAULTS, past([look(5.9, [red('chin', 2)])]))).toBeUndefined()
    expect(worstByZone(DEFAULTS, past([look(6, [red('chin', 2)])]))!.get('chin')).toBe(2)
  })

  it('counts bumps with pustules, the most of any look in the days in which they show', () => {
    const answers = [
      look(24, [red('chin', 0, 9)]),
      look(3 * 24, [red('chin', 0, 2, 1)]),
      look(7 * 24, [red('chin', 0, 2), red('jaw-left', 0, 1)]),
      look(20 * 24, [red('chin', 0, 9)]),
    ]
    expect(Object.fromEntries(bumpsByZone(DEFAULTS, past(answers))!)).toEqual({
      ...{ chin: 3, 'jaw-left': 1 },
    })
    expect(bumpsByZone(DEFAULTS, past([answers[0]!, answers[3]!]))).toBeUndefined()
  })

  it('takes each two looks that follow one another as a step of fading, unnamed as calm', () => {
    const answers = [look(48, []), look(24, [red('chin', 2), red('jaw-left', 0)])]
    expect(fadeSteps([past(answers)])).toEqual([{ grade: 2, later: 0, days: 1 }])
  })

  it('sums grades over what was worked, and calls severe what the gate must look at', () => {
    const answers = [look(24, [red('chin', 1), red('jaw-left', 2)])]
    const { loads } = past([])
    const of = (redAtChair = {}) => summariseAnswers(DEFAULTS, END, answers, loads, redAtChair)
    expect(of()).toEqual({ worstRedness: 2, bumps: null, severe: 0, gradeSum: 1, loadSum: 5 })
    expect(of({ 'neck-front-left': 4 })).toEqual({
      ...{ worstRedness: 4, bumps: null, severe: 1, gradeSum: 5, loadSum: 5 },
    })
    expect(summariseAnswers(DEFAULTS, END, [])).toEqual({
      ...{ worstRedness: null, bumps: null, severe: 0, gradeSum: null, loadSum: null },
    })
  })
})
