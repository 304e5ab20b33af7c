/** What is the house's own: figures and schools. */
export {
  type ChangedFigures,
  constant,
  type Constant,
  DEFAULTS,
  type Figures,
  type Mark,
  MARK_WORDS,
} from './constants.ts'
export {
  DEFAULT_SCHOOLS,
  isSchoolId,
  SCHOOL_IDS,
  type SchoolId,
  type Schools,
  SCHOOLS,
  schoolWords,
} from './schools.ts'
