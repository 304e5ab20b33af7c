/** The matters of the house, each on a page of its own. */
export const PARTS = {
  place: 'Name and place',
  hours: 'Hours',
  workers: 'Workers',
  people: 'Signing in',
  schools: 'Schools',
  rules: 'Rules of asking',
  consent: 'Text that clients sign',
  estimates: 'Estimates',
  forecast: 'Is the forecast right?',
  studio: 'The studio as a whole',
  messages: 'Messages',
  probe: 'Probe thermometer',
  look: 'Look and units',
  screens: 'Screens of other machines',
  safety: 'Backups',
  trail: 'Who looked at what',
  changes: 'What was changed',
} as const
export type Part = keyof typeof PARTS
export const isPart = (id: string): id is Part => Object.hasOwn(PARTS, id)

/** Pages by names they once had. */
export const OLD_NAMES: Readonly<Record<string, Part>> = {
  figures: 'estimates',
  outbox: 'messages',
}
