/** The services and the jobs of a visit. */
export { BETWEEN_CONSTANTS } from './between.ts'
export { type RuleEffect, type Severity, SEVERITY_ORDER } from './effect.ts'
export { type Job, leadJob, METHODS, oneJob, plannedJob } from './job.ts'
export {
  isBodyService,
  isServiceId,
  SERVICE_IDS,
  type ServiceId,
  SERVICES,
  serviceZones,
  SLOT_CONSTANTS,
  workedShare,
} from './list.ts'
export { ROUTINE_CONSTANTS, TOWEL_COUNTS } from './routine.ts'
export {
  type Between,
  type Service,
  type Posture,
  type ServiceFamily,
  type Style,
  STYLES,
  type Wanted,
  type Worked,
} from './service.ts'
