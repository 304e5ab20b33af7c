/** How often a guided test that calls itself sure is right, for answers of any quality. */
import { DEFAULTS } from '../../house/index.ts'
import { wrapHalf } from '../../grain/circular.ts'
import {
  answerTest,
  beginTest,
  catchOdds,
  nextStroke,
  testResult,
  TEST_CONSTANTS,
} from '../../grain/feelTest.ts'
import { mulberry32 } from '../../stats/index.ts'

/**
 * @param wrongAnswer share of answers that are wrong
 * @returns share of tests that end sure, of those the share within what is told, and answers a test
 */
export function testsHeld(
  seed: number,
  tests: number,
  wrongAnswer: number,
): { sure: number; held: number; answers: number } {
  const random = mulberry32(seed)
  const within = (DEFAULTS(TEST_CONSTANTS.sureWithinDeg) * Math.PI) / 180
  let [sure, held, answers] = [0, 0, 0]
  for (let k = 0; k < tests; k++) {
    const truth = 2 * Math.PI * random()
    let test = beginTest()
    let result = testResult(DEFAULTS, test)
    while (!result.done) {
      const { stroke } = nextStroke(DEFAULTS, test)
      const odds = catchOdds(DEFAULTS, stroke, truth, { wrongAnswer, softness: 0.15 })
      test = answerTest(DEFAULTS, test, { stroke, catches: random() < odds })
      result = testResult(DEFAULTS, test)
    }
    answers += test.answers.length
    if (!result.sure) continue
    sure++
    if (Math.abs(wrapHalf(result.direction - truth)) <= within + 1e-9) held++
  }
  return { sure: sure / tests, held: held / Math.max(1, sure), answers: answers / tests }
}
