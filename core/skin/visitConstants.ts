/** Figures of how a client's skin differs from visit to visit, and changes. */
import { constant } from '../house/index.ts'

export const VISIT_CONSTANTS = {
  visitSpread: constant(
    0.4,
    '',
    'How much a client’s skin differs from visit to visit (spread of its logarithm)',
    'H',
  ),
  halfLife: constant(15, 'visits', 'A visit counts half after so many more: skin changes', 'H'),
  changeVisits: constant(
    60,
    'visits',
    'A client’s skin changes all at once about once in so many visits',
    'H',
  ),
} as const
