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
} from './feelTest.ts'
import fc from 'fast-check'

const HARD = { wrongAnswer: 0, softness: 0 }
const off = (a: number, b: number) => (Math.abs(wrapHalf(a - b)) * 180) / Math.PI

describe('a guided test', () => {
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
    const counts: number[] = []
    for (let k = 0; k < 100; k++) {
      const truth = 2 * Math.PI * random()
      let test = beginTest()
      let count: number | undefined
      for (let i = 0; i < 8; i++) {
        if (testResult(DEFAULTS, test).done) count ??= i
        const { stroke } = nextStroke(DEFAULTS, test)
        test = answerTest(DEFAULTS, test, {
          stroke,
          catches: random() < catchOdds(DEFAULTS, stroke, truth),
        })
      }
      errors.push(off(testResult(DEFAULTS, test).direction, truth))
      counts.push(count ?? 8)
    }
    expect(median(errors)).toBeLessThan(20)
    expect(median(counts)).toBeLessThanOrEqual(7)
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
    expect(warm.answers).toBeLessThan(cold.answers)
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
    expect(catchOdds(DEFAULTS, 0, Math.PI)).toBeGreaterThan(0.89)
    expect(catchOdds(DEFAULTS, 0, 0)).toBeLessThan(0.11)
    expect(catchOdds(DEFAULTS, 0, Math.PI / 2)).toBeCloseTo(0.5, 9)
  })
})
