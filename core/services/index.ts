/** The services and the jobs of a visit. */
export { BETWEEN_CONSTANTS } from './between.ts'
export { areasOf, byMethod, everyDays, ofService, withZones } from './editSitting.ts'
export { type RuleEffect, type Severity, SEVERITY_ORDER } from './effect.ts'
export {
  areaWords,
  checkSitting,
  type HandJob,
  handJobs,
  isBodySitting,
  type Job,
  jobFor,
  type JobGroup,
  jobName,
  jobsWords,
  jobZones,
  kindOfWork,
  leadJob,
  oneJob,
  plannedGroups,
  servicesOf,
  strokedZones,
  type Work,
  works,
  zonesOfJobs,
} from './job.ts'
export {
  isBodyService,
  isServiceId,
  SERVICE_IDS,
  type ServiceId,
  SERVICES,
  serviceZones,
  zonesToChoose,
  PRICE_CONSTANTS,
  SLOT_CONSTANTS,
  workedShare,
} from './list.ts'
export {
  byRoot,
  HAND_METHODS,
  type HandMethod,
  isPlanned,
  lastsDays,
  type Method,
  METHOD_CONSTANTS,
  methodFacts,
  METHODS,
} from './method.ts'
export { cleanse, FILM_CONSTANTS, fuzzFilm, ROUTINE_CONSTANTS, TOWEL_COUNTS } from './routine.ts'
export {
  type Between,
  type RoutineStep,
  type Service,
  type Posture,
  type ServiceFamily,
  type Style,
  STYLES,
  type Wanted,
  type Film,
  type FilmsByZone,
  type RoutineWish,
  type Worked,
} from './service.ts'
