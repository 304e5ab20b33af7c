/** The aftercare in words: what happened, and the whole sheet as plain text. */
import { type AtChair } from '../looks/index.ts'
import { REDNESS_WORDS } from '../skin/index.ts'
import { listWords } from '../words.ts'
import { theZone, type ZoneId } from '../zones/index.ts'
import type { CarePlan } from './clearances.ts'

/** Places in a sentence: "the chin", "the jaw (client's left) and the chin". */
export function placesWords(zones: readonly string[]): string {
  return listWords(
    zones.map((z) => (z === '' ? 'a place that was not told' : theZone(z as ZoneId))),
  )
}

/** What happened at the service, as the client is told it. */
export function todaySentences({ redness, nicks, leftOut }: AtChair): string[] {
  const out: string[] = []
  const red = Object.entries(redness)
  if (red.length > 0) {
    const grades = red.map(
      ([zone, grade]) => `${REDNESS_WORDS[grade]?.[0] ?? 'red'} on ${placesWords([zone])}`,
    )
    out.push(
      `Reddened today: ${grades.join(', ')}. It should be calmer by tomorrow; if it grows, write to us.`,
    )
  }
  const nicked = Object.keys(nicks)
  if (nicked.length > 0) {
    out.push(`A nick on ${placesWords(nicked)}: keep it clean and leave the scab alone.`)
  }
  const left = Object.entries(leftOut)
  for (const why of new Set(left.map(([, reason]) => reason))) {
    const zones = left.filter(([, reason]) => reason === why).map(([zone]) => zone)
    out.push(`Left out today: ${placesWords(zones)} (${why}). We look there again next time.`)
  }
  return out
}

/** The aftercare as plain text; without a name where the letter has greeted already. `when` turns a moment into words in the house's zone. */
export function careText(
  care: CarePlan,
  name: string,
  serviceName: string,
  when: (ms: number) => string,
): string {
  const lines = [
    `${name ? `${name}: after` : 'After'} your ${serviceName.toLowerCase()}, ${when(care.endedAtMs)}`,
    '',
    ...(care.today.length > 0 ? ['Today', ...care.today.map((t) => `- ${t}`), ''] : []),
    'Keep off',
    ...care.clearances
      .filter((c) => c.kind === 'avoid')
      .map((c) => `- ${c.title} until ${when(c.untilMs)}. ${c.text}`),
    '',
    'Do',
    `- ${care.product}`,
    ...care.clearances
      .filter((c) => c.kind === 'do')
      .map(
        (c) =>
          `- ${when(c.fromMs)}: ${c.title.charAt(0).toLowerCase()}${c.title.slice(1)}. ${c.text}`,
      ),
    '',
    care.normal,
    care.notNormal,
    'The product label and a clinician’s advice come before this sheet.',
  ]
  return lines.join('\n')
}
