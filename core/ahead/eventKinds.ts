/** Events that skin and hair must be in order for. */
export const EVENT_KINDS = [
  'mask-seal',
  'dive',
  'concert',
  'photo',
  'sun',
  'swim',
  'party',
] as const
export type EventKind = (typeof EVENT_KINDS)[number]
