/** The guided test (M16). Sources: probabilistic bisection, Horstein 1963; information gain, Lindley 1956 (from memory). */
import { DEFAULTS } from '../house/index.ts'
import { median, mulberry32 } from '../stats/index.ts'
import { wrapHalf } from './circular.ts'
import {
  answerTest,
  beginTest,
  binAngle,
  catchOdds,
  nextStroke,
  takeBackAnswer,
  testResult,
  wrongShare,
} from './feelTest.ts'
import { testsHeld } from '../testing/honest/feelTest.ts'
import fc from 'fast-check'

const SHARP = { wrongAnswer: 0.1, softness: 0.15 }
const beginSum = (kappa: number) =>
  Array.from({ length: 72 }, (_, i) => Math.exp(kappa * (Math.cos(binAngle(i)) - 1))).reduce(
    (s, p) => s + p,
    0,
  )
const HARD = { wrongAnswer: 0, softness: 0 }
const off = (a: number, b: number) => (Math.abs(wrapHalf(a - b)) * 180) / Math.PI

describe('a guided test', () => {
  it('believes after one answer what Bayes says, over all shares of wrong answers', () => {
    // The first answer counts the mean share: 0.12 · (0.25 · 0.2 + 0.25 + 2 · 0.25 + 3.2 · 0.3).
    const wrong = 0.12 * (0.05 + 0.25 + 0.5 + 0.96)
    for (const catches of [true, false]) {
      const told = answerTest(DEFAULTS, beginTest(), { stroke: 0.4, catches }).posterior
      const raw = told.map((_, i) => {
        const against = 1 / (1 + Math.exp(Math.cos(0.4 - binAngle(i)) / 0.15))
        const caught = wrong + (1 - 2 * wrong) * against
        return catches ? caught : 1 - caught
      })
      const total = raw.reduce((s, p) => s + p, 0)
      told.forEach((p, i) => expect(p).toBeCloseTo(raw[i]! / total, 12))
    }
  })

  it('asks for the stroke whose answer tells most, by trying every one', () => {
    const test = [
      { stroke: 0.4, catches: true },
      { stroke: 2.2, catches: false },
    ].reduce((t, a) => answerTest(DEFAULTS, t, a, SHARP), beginTest())
    const entropy = (list: readonly number[]) =>
      list.reduce((s, p) => (p > 0 ? s - p * Math.log2(p) : s), 0)
    // What is left of the doubt, answered either way.
    const left = (stroke: number) =>
      [true, false].reduce((sum, catches) => {
        const odds = test.posterior.reduce((s, p, i) => {
          const caught = catchOdds(DEFAULTS, stroke, binAngle(i), SHARP)
          return s + p * (catches ? caught : 1 - caught)
        }, 0)
        return (
          sum + odds * entropy(answerTest(DEFAULTS, test, { stroke, catches }, SHARP).posterior)
        )
      }, 0)
    const { stroke, bits } = nextStroke(DEFAULTS, test, SHARP)
    expect(bits).toBeCloseTo(entropy(test.posterior) - left(stroke), 9)
    for (let k = 0; k < 72; k++)
      expect(left(stroke)).toBeLessThanOrEqual(left(binAngle(k) + Math.PI / 72) + 1e-9)
  })

  it('says the middle of what is believed and the arc that holds 80 %', () => {
    const of = (odds: Record<number, number>, answers = 0) =>
      testResult(DEFAULTS, {
        // One and the same stroke that now catches and now does not.
        answers: Array.from({ length: answers }, (_, i) => ({ stroke: 0, catches: i % 2 === 0 })),
        posterior: Array.from({ length: 72 }, (_, i) => odds[i] ?? 0),
        prior: beginTest().prior,
      })
    const even = of({ 10: 0.5, 12: 0.5 })
    expect(even.direction).toBeCloseTo(binAngle(11), 9)
    expect(even.halfWidth).toBeCloseTo(binAngle(1), 9)
    const skew = of({ 71: 0.1, 0: 0.7, 1: 0.1, 30: 0.1 })
    expect(skew.halfWidth).toBeLessThan(2 * binAngle(1))
    expect(of({ 0: 0.4, 36: 0.6 }).halfWidth).toBeCloseTo(Math.PI, 9)
    // Nothing answered yet and hardly any doubt left: the usual share of wrong answers is believed, which is too much.
    expect(even.sure).toBe(false)
    expect(of({ 10: 1 }, 20).sure).toBe(false)
    expect([of({ 10: 1 }, 19).done, of({ 10: 1 }, 20).done]).toEqual([false, true])
  })

  it('begins with what the surroundings say, a fifth of the belief staying everywhere', () => {
    const { prior } = beginTest({ direction: binAngle(20), kappa: 4 })
    expect(prior.reduce((s, p) => s + p, 0)).toBeCloseTo(1, 12)
    expect(prior.indexOf(Math.max(...prior))).toBe(20)
    expect(prior[56]).toBeCloseTo(0.2 / 72 + (0.8 * Math.exp(-8)) / beginSum(4), 12)
    expect(prior[21]! - 0.2 / 72).toBeCloseTo(
      (0.8 * Math.exp(4 * (Math.cos(binAngle(1)) - 1))) / beginSum(4),
      12,
    )
    expect(beginTest().prior.every((p) => Math.abs(p - 1 / 72) < 1e-12)).toBe(true)
  })

  it('halves the arc with each answer when answers are never wrong: after four at most 22.5°', () => {
    for (let bin = 0; bin < 72; bin += 5) {
      const truth = binAngle(bin)
      let test = beginTest()
      let wide = 360
      for (let k = 0; k < 4; k++) {
        const { stroke, bits } = nextStroke(DEFAULTS, test, HARD)
        expect(bits).toBeGreaterThan(0.9)
        test = answerTest(DEFAULTS, test, { stroke, catches: Math.cos(stroke - truth) < 0 }, HARD)
        const alive = test.posterior.filter((p) => p > 1e-12).length
        expect(alive * 5).toBeLessThanOrEqual(wide / 2 + 5)
        wide = alive * 5
      }
      // From the first to the last direction that is left.
      expect(wide - 5).toBeLessThanOrEqual(22.5)
      expect(test.posterior[bin]).toBeGreaterThan(0)
    }
  })

  it('is within 20° after eight answers of which one in ten is wrong (median of 100 tests)', () => {
    const random = mulberry32(21)
    const errors: number[] = []
    for (let k = 0; k < 100; k++) {
      const truth = 2 * Math.PI * random()
      let test = beginTest()
      for (let i = 0; i < 8; i++) {
        const { stroke } = nextStroke(DEFAULTS, test)
        test = answerTest(DEFAULTS, test, {
          stroke,
          catches: random() < catchOdds(DEFAULTS, stroke, truth),
        })
      }
      errors.push(off(testResult(DEFAULTS, test).direction, truth))
    }
    expect(median(errors)).toBeLessThan(20)
  })

  it.each([0, 0.1, 0.2])(
    'that calls itself sure is within 25° four times in five, where %d of its answers are wrong',
    (wrong) => {
      const { held, sure, answers } = testsHeld(3, 120, wrong)
      expect(held).toBeGreaterThan(0.78)
      expect(sure).toBeGreaterThan(wrong > 0.1 ? 0.35 : 0.65)
      expect(answers).toBeLessThan(16)
    },
  )

  it('seldom calls itself sure where answers are hardly better than chance', () => {
    const { held, sure } = testsHeld(3, 120, 0.3)
    expect(sure).toBeLessThan(0.45)
    // Sure and wrong is one test in six at most.
    expect(sure * (1 - held)).toBeLessThan(0.17)
  })

  it('learns from answers that contradict one another how often they are wrong', () => {
    const truth = 1
    const told = (lies: number) => {
      let test = beginTest()
      for (let i = 0; i < 12; i++) {
        const stroke = (i * 5 * Math.PI) / 12
        const catches = Math.cos(stroke - truth) < 0
        test = answerTest(DEFAULTS, test, { stroke, catches: i < lies ? !catches : catches })
      }
      return wrongShare(DEFAULTS, test)
    }
    expect(told(0)).toBeLessThan(0.12)
    expect(told(3)).toBeGreaterThan(told(0) + 0.05)
    expect(wrongShare(DEFAULTS, beginTest())).toBeGreaterThan(told(0))
  })

  it('keeps probabilities, and takes the last answer back exactly', () => {
    const answers = fc.array(
      fc.record({ stroke: fc.double({ min: 0, max: 6.28, noNaN: true }), catches: fc.boolean() }),
      { minLength: 1, maxLength: 10 },
    )
    fc.assert(
      fc.property(answers, (list) => {
        let test = beginTest({ direction: 1, kappa: 2 })
        let before = test
        for (const a of list) {
          before = test
          test = answerTest(DEFAULTS, test, a)
          expect(test.posterior.reduce((s, p) => s + p, 0)).toBeCloseTo(1, 9)
        }
        const back = takeBackAnswer(DEFAULTS, test)
        expect(back.answers).toEqual(before.answers)
        back.posterior.forEach((p, i) => expect(p).toBeCloseTo(before.posterior[i]!, 9))
      }),
      { numRuns: 40 },
    )
  })

  it('does not mind the order of its answers', () => {
    const a = { stroke: 0.4, catches: true }
    const b = { stroke: 2.9, catches: false }
    const [x, y] = [
      answerTest(DEFAULTS, answerTest(DEFAULTS, beginTest(), a), b),
      answerTest(DEFAULTS, answerTest(DEFAULTS, beginTest(), b), a),
    ]
    x.posterior.forEach((p, i) => expect(p).toBeCloseTo(y.posterior[i]!, 12))
  })

  it('turns with the head: answers turned by 90° turn the result', () => {
    const list = [
      { stroke: 0.2, catches: false },
      { stroke: 1.9, catches: true },
      { stroke: 5.1, catches: false },
    ]
    const run = (by: number) =>
      testResult(
        DEFAULTS,
        list.reduce(
          (t, a) => answerTest(DEFAULTS, t, { ...a, stroke: a.stroke + by }),
          beginTest(),
        ),
      )
    expect(off(run(Math.PI / 2).direction, run(0).direction + Math.PI / 2)).toBeLessThan(1e-6)
  })

  it('is sooner done where the surroundings already tell, and not misled by them for good', () => {
    const count = (expected: { direction: number; kappa: number } | undefined, truth: number) => {
      let test = beginTest(expected)
      while (!testResult(DEFAULTS, test).done) {
        const { stroke } = nextStroke(DEFAULTS, test)
        test = answerTest(DEFAULTS, test, { stroke, catches: Math.cos(stroke - truth) < 0 })
      }
      return {
        answers: test.answers.length,
        error: off(testResult(DEFAULTS, test).direction, truth),
      }
    }
    const cold = count(undefined, 2)
    const warm = count({ direction: 2, kappa: 3 }, 2)
    const misled = count({ direction: 2 + Math.PI, kappa: 3 }, 2)
    // Answers that never contradict one another are what most of them are for, known surroundings or not.
    expect(warm.answers).toBeLessThanOrEqual(cold.answers)
    expect(misled.error).toBeLessThan(25)
  })

  it('says so when answers cannot all be right', () => {
    const caught = answerTest(DEFAULTS, beginTest(), { stroke: 1, catches: true }, HARD)
    expect(() =>
      answerTest(
        DEFAULTS,
        answerTest(DEFAULTS, caught, { stroke: 1, catches: false }, HARD),
        { stroke: 1, catches: true },
        HARD,
      ),
    ).toThrow('cannot all be right')
  })

  it('catches against the grain and slides with it', () => {
    expect(catchOdds(DEFAULTS, 0, Math.PI)).toBeGreaterThan(0.87)
    expect(catchOdds(DEFAULTS, 0, 0)).toBeLessThan(0.13)
    expect(catchOdds(DEFAULTS, 0, Math.PI / 2)).toBeCloseTo(0.5, 9)
  })
})
