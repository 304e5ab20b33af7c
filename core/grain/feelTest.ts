/**
 * The guided test (M16): a finger, pad or card drawn over a place either slides or catches; each answer narrows down the
 * direction. The next stroke is the one whose answer is expected to tell most (Lindley 1956; probabilistic bisection,
 * Horstein 1963; from memory). How often an answer is wrong is not known beforehand: it is believed along with the direction,
 * and answers that contradict one another make the test ask on, or say less.
 */
import { DomainError } from '../errors.ts'
import { constant, type Figures } from '../house/index.ts'
import { wrapHalf, wrapTurn } from './circular.ts'

export const TEST_CONSTANTS = {
  bins: constant(72, '', 'Directions that a guided test tells apart', 'H'),
  wrongAnswer: constant(
    0.12,
    '',
    'Share of answers that are wrong, over hands and skins, before the test has heard any',
    'H',
  ),
  softness: constant(0.15, '', 'How uncertain the answer is near a right angle to the grain', 'H'),
  tooWrong: constant(
    0.18,
    '',
    'A test of whose answers more than this share is believed to be wrong is not sure',
    'H',
  ),
  sureWithinDeg: constant(25, '°', 'A test is done when most of the doubt lies within this', 'H'),
  sureShare: constant(0.8, '', 'That most', 'H'),
  mostAnswers: constant(20, '', 'A test gives up after this many answers', 'H'),
} as const

const T = TEST_CONSTANTS
const BINS = T.bins.byDefault
const STEP = (2 * Math.PI) / BINS

/** One answer: a stroke toward a direction, and whether it caught. */
export interface FeelAnswer {
  /** Radians in the test's own frame. */
  readonly stroke: number
  readonly catches: boolean
}

/** A test under way: what was answered and how likely each direction is. */
export interface FeelTest {
  readonly answers: readonly FeelAnswer[]
  /** Probability of each of 72 directions, the first at 0. */
  readonly posterior: readonly number[]
  readonly prior: readonly number[]
}

/** How sharply an answer tells; without it the share of wrong answers is learned and the softness is the house's. */
export interface Sharpness {
  readonly wrongAnswer: number
  /** 0 makes a hard edge at a right angle. */
  readonly softness: number
}

const usual = (figures: Figures): Sharpness => ({
  wrongAnswer: figures(T.wrongAnswer),
  softness: figures(T.softness),
})

/** Shares of wrong answers that are believed in, over the usual one, and how likely each is. */
const WRONG: readonly (readonly [times: number, odds: number])[] = [
  [0.25, 0.2],
  [1, 0.25],
  [2, 0.25],
  [3.2, 0.3],
]
/** An answer is never wrong more often than it is right. */
const MOST_WRONG = 0.45

/** Shares of wrong answers with their odds: one alone where it is given. */
function wrongShares(figures: Figures, sharpness: Sharpness | undefined) {
  if (sharpness) return [{ share: sharpness.wrongAnswer, odds: 1 }]
  return WRONG.map(([times, odds]) => ({
    share: Math.min(MOST_WRONG, times * figures(T.wrongAnswer)),
    odds,
  }))
}

/** Direction of a bin. */
export const binAngle = (bin: number): number => bin * STEP

/**
 * Begins a test.
 * @param expected what the surroundings say: a direction and how concentrated it is (von Mises κ); nothing: all alike
 */
export function beginTest(expected?: { direction: number; kappa: number }): FeelTest {
  const raw = Array.from({ length: BINS }, (_, i) =>
    expected ? Math.exp(expected.kappa * (Math.cos(binAngle(i) - expected.direction) - 1)) : 1,
  )
  const total = raw.reduce((s, p) => s + p, 0)
  // The surroundings may be wrong: a fifth of the belief stays everywhere.
  const prior = raw.map((p) => (expected ? 0.8 : 1) * (p / total) + (expected ? 0.2 / BINS : 0))
  return { answers: [], posterior: prior, prior }
}

/** Probability that a stroke catches on hair that grows in a direction. */
export function catchOdds(
  figures: Figures,
  stroke: number,
  growth: number,
  sharpness: Sharpness = usual(figures),
): number {
  const along = Math.cos(stroke - growth)
  const { wrongAnswer: e, softness: s } = sharpness
  // A right angle exactly is a toss-up, whatever rounding makes of its cosine.
  if (Math.abs(along) < 1e-12) return 0.5
  const against = s === 0 ? (along < 0 ? 1 : 0) : 1 / (1 + Math.exp(along / s))
  return e + (1 - 2 * e) * against
}

/** How likely each direction is, and with it the mean share of wrong answers, after some answers; undefined when none is possible. */
function believed(
  figures: Figures,
  prior: readonly number[],
  answers: readonly FeelAnswer[],
  sharpness: Sharpness | undefined,
): { posterior: number[]; wrong: number[] } | undefined {
  const shares = wrongShares(figures, sharpness)
  const softness = sharpness?.softness ?? figures(T.softness)
  const posterior: number[] = []
  const wrong: number[] = []
  for (let i = 0; i < BINS; i++) {
    let [whole, mean] = [0, 0]
    for (const { share, odds } of shares) {
      let p = prior[i]! * odds
      for (const a of answers) {
        const caught = catchOdds(figures, a.stroke, binAngle(i), { wrongAnswer: share, softness })
        p *= a.catches ? caught : 1 - caught
      }
      whole += p
      mean += p * share
    }
    posterior.push(whole)
    wrong.push(whole > 0 ? mean / whole : 0)
  }
  const total = posterior.reduce((s, p) => s + p, 0)
  if (!(total > 0)) return undefined
  return { posterior: posterior.map((p) => p / total), wrong }
}

/** Takes an answer in. */
export function answerTest(
  figures: Figures,
  test: FeelTest,
  answer: FeelAnswer,
  sharpness?: Sharpness,
): FeelTest {
  const answers = [...test.answers, answer]
  const found = believed(figures, test.prior, answers, sharpness)
  if (!found) {
    throw new DomainError(
      'answers-clash',
      'These answers cannot all be right. Begin this place again.',
    )
  }
  return { ...test, answers, posterior: found.posterior }
}

/** The share of answers that is believed to be wrong, after those of the test. */
export function wrongShare(figures: Figures, test: FeelTest): number {
  const found = believed(figures, test.prior, test.answers, undefined)
  return found ? found.posterior.reduce((s, p, i) => s + p * found.wrong[i]!, 0) : MOST_WRONG
}

/** Takes the last answer back. */
export function takeBackAnswer(figures: Figures, test: FeelTest, sharpness?: Sharpness): FeelTest {
  const fresh: FeelTest = { answers: [], posterior: test.prior, prior: test.prior }
  return test.answers.slice(0, -1).reduce((t, a) => answerTest(figures, t, a, sharpness), fresh)
}

const entropy = (p: number) =>
  p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p)

/** The stroke to make next, radians, and what its answer is expected to tell, in bits. */
export function nextStroke(
  figures: Figures,
  test: FeelTest,
  sharpness?: Sharpness,
): { stroke: number; bits: number } {
  const found = believed(figures, test.prior, test.answers, sharpness)
  const wrong = found?.wrong ?? test.prior.map(() => MOST_WRONG)
  const softness = sharpness?.softness ?? figures(T.softness)
  // Strokes lie between bins, so that with a hard edge none lies on it; and so only their distance to a bin counts.
  const against = Array.from({ length: BINS }, (_, d) =>
    catchOdds(figures, binAngle(d) + STEP / 2, 0, { wrongAnswer: 0, softness }),
  )
  let best = { stroke: 0, bits: -1 }
  for (let k = 0; k < BINS; k++) {
    let caught = 0
    let known = 0
    for (let i = 0; i < BINS; i++) {
      const e = wrong[i]!
      const odds = e + (1 - 2 * e) * against[(k - i + BINS) % BINS]!
      caught += test.posterior[i]! * odds
      known += test.posterior[i]! * entropy(odds)
    }
    const bits = entropy(caught) - known
    if (bits > best.bits + 1e-12) best = { stroke: wrapTurn(binAngle(k) + STEP / 2), bits }
  }
  return best
}

/** What a test says so far. */
export interface TestResult {
  /** Mean direction, radians. */
  readonly direction: number
  /** Half of the narrowest arc round it that holds 80 %, radians. */
  readonly halfWidth: number
  readonly sure: boolean
  /** Sure, or asked often enough. */
  readonly done: boolean
}

export function testResult(figures: Figures, test: FeelTest): TestResult {
  let c = 0
  let s = 0
  test.posterior.forEach((p, i) => {
    c += p * Math.cos(binAngle(i))
    s += p * Math.sin(binAngle(i))
  })
  const direction = wrapTurn(Math.atan2(s, c))
  const byDistance = test.posterior
    .map((p, i) => ({ p, off: Math.abs(wrapHalf(binAngle(i) - direction)) }))
    .sort((a, b) => a.off - b.off)
  let held = 0
  let halfWidth = Math.PI
  for (const { p, off } of byDistance) {
    held += p
    if (held >= figures(T.sureShare)) {
      halfWidth = off
      break
    }
  }
  const sure =
    wrongShare(figures, test) <= figures(T.tooWrong) &&
    halfWidth <= (figures(T.sureWithinDeg) * Math.PI) / 180 + 1e-9
  return { direction, halfWidth, sure, done: sure || test.answers.length >= figures(T.mostAnswers) }
}
