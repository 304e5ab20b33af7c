/** What may be done alone between whole services. */
import { constant } from '../house/index.ts'
import type { Between } from './service.ts'

export const BETWEEN_CONSTANTS = {
  lipDays: constant(
    4.5,
    'days',
    'The lip alone, between whole services of fuzz, at least so far apart',
    'H',
  ),
  lineDays: constant(
    4,
    'days',
    'The line alone, between whole line-ups, at least so far apart',
    'H',
  ),
} as const

export const LIP_BETWEEN: Between = {
  kind: 'lip',
  stems: ['upper-lip'],
  hair: 'felt',
  leastDays: BETWEEN_CONSTANTS.lipDays,
  mostDays: 28,
  why: (days) =>
    `Hair on the lip is felt again after about ${days} days: it may be done alone (H).`,
}

export const LINE_BETWEEN: Between = {
  kind: 'line',
  stems: ['cheek-lower', 'neck-lower'],
  hair: 'seen',
  leastDays: BETWEEN_CONSTANTS.lineDays,
  mostDays: 21,
  why: (days) => `Hair is seen beyond the line after about ${days} days (H).`,
}
