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
  CURRENCIES,
  DATE_ORDERS,
  type DateOrder,
  type HouseSettings,
  lengthWords,
  moneyWords,
  USUAL_SETTINGS,
  warmthWords,
} from './settings.ts'
export {
  DEFAULT_SCHOOLS,
  isSchoolId,
  SCHOOL_IDS,
  type SchoolId,
  type Schools,
  SCHOOLS,
  schoolWords,
} from './schools.ts'
