/** Figures of changes and trends. */
import { constant } from '../house/index.ts'

export const CHANGE_CONSTANTS = {
  runVisits: constant(
    3,
    'visits',
    'A way of doing counts as changed when it held so long before and after',
    'H',
  ),
  lookVisits: constant(
    24,
    'visits',
    'At most so many visits before and after a change are compared',
    'H',
  ),
  leastVisits: constant(3, 'visits', 'Answered visits on each side before anything is said', 'H'),
  unlikely: constant(
    0.05,
    'probability',
    'A difference less likely than this is called unlikely to be chance',
    'C',
  ),
  intervalRatio: constant(
    1.3,
    '',
    'Visits this much farther apart, or closer, are a changed interval',
    'H',
  ),
  trendLambda: constant(
    0.3,
    '',
    'Trend watch: weight of the newest visit',
    'P',
    'NIST/SEMATECH e-Handbook 6.3.2.4',
  ),
  baselineVisits: constant(
    6,
    'visits',
    'Trend watch: the first so many counted visits are the baseline',
    'H',
  ),
} as const
