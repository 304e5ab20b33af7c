/** What is asked, what it means, and which methods suit. */
export { ageOn, withAge } from './age.ts'
export {
  type Answer,
  type Asked,
  carriedAnswers,
  type Consent,
  NOTHING_ASKED,
  type SkinMark,
} from './asked.ts'
export { consentText } from './consent.ts'
export { carriedMarks, markAreas, markMargin, markZones } from './marks.ts'
export {
  adviseMethods,
  adviseTogether,
  type Advised,
  ADVISED_WORDS,
  isWaxed,
  NOT_WAXED,
  SOONER,
  THICKNESS,
} from './methods.ts'
export { patchRefusal, patchWindow, type Trial } from './outcome.ts'
export {
  type HouseRules,
  MARK_KINDS,
  MARK_WORDS,
  type MarkKind,
  type RuleEdit,
  ruleEffect,
  concerns,
  RULES,
  SCREENING_CONSTANTS,
  type ScreeningRule,
  SEVERITY_WORDS,
} from './rules.ts'
export {
  CLOSING_SENTENCE,
  conclude,
  type Finding,
  screen,
  type Screening,
  verdictWords,
} from './screen.ts'
