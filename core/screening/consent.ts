/** What a client agrees to, in plain words. A house may put its own text in its place. */
import { byRoot, isPlanned, jobsWords, SERVICES, type Work } from '../services/index.ts'

/** What is done to hair, in a sentence. */
function whatIsDone({ service, method }: Work): string {
  if (byRoot(method))
    return 'Hair is pulled out by its root; skin can redden more than after a blade, and a little of it can come off.'
  if (!isPlanned(method)) return 'Hair is shortened.'
  return SERVICES[service].family === 'razor'
    ? 'Hair is cut at the surface with a sharp blade.'
    : 'Fine hair and dead skin are taken off with a sharp blade.'
}

/** The product's own text for what is to be done. */
export function consentText(jobs: readonly Work[]): string {
  const what = [...new Set(jobs.map(whatIsDone))].join(' ')
  return [
    `${jobsWords(jobs)}. ${what} Slight redness for about an hour is usual, and small bumps in the first sessions; a nick can happen.`,
    'I have said truthfully what my skin, my health and my medicines are, and what I have put on my skin. I can have it stopped at any time.',
    'I know what to keep off afterwards, and whom to ask if redness spreads or a place hurts.',
    'The local code and a clinician’s advice come first.',
  ].join(' ')
}
