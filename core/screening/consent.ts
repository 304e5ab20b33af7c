/** What a client agrees to, in plain words. A house may put its own text in its place. */
import { SERVICES, type ServiceId } from '../services/index.ts'

/** The product's own text for a service. */
export function consentText(service: ServiceId): string {
  const { name, family } = SERVICES[service]
  const what =
    family === 'razor'
      ? 'Hair is cut at the surface with a sharp blade.'
      : 'Fine hair and dead skin are taken off with a sharp blade.'
  return [
    `${name}. ${what} Slight redness for about an hour is usual, and small bumps in the first sessions; a nick can happen.`,
    'I have said truthfully what my skin, my health and my medicines are, and what I have put on my skin. I can have it stopped at any time.',
    'I know what to keep off afterwards, and whom to ask if redness spreads or a place hurts.',
    'The local code and a clinician’s advice come first.',
  ].join(' ')
}
