/** What to keep off and until when (M15), from the end of a service, the schools and the client's skin. */
import { constant, type Mark } from '../house/constants.ts'
import { schoolWords, type Schools } from '../house/schools.ts'
import type { SkinAndHair } from '../client.ts'
import { SERVICES, type ServiceId } from '../services.ts'
import { HOUR_MS } from '../time/dates.ts'

export const CARE_CONSTANTS = {
  sunHours: constant(48, 'h', 'Keep out of strong sun', 'H'),
  sunFuzzHours: constant(72, 'h', 'Keep out of strong sun after dermaplaning', 'H'),
  sweatHours: constant(24, 'h', 'No hard exercise, sauna or hot bath', 'H'),
  swimHours: constant(24, 'h', 'No pool or sea', 'H'),
  maskHours: constant(12, 'h', 'No tight mask or strap on the area', 'H'),
  makeUpRazorHours: constant(4, 'h', 'No make-up after a razor shave', 'H'),
  acidStartHours: constant(24, 'h', 'Nightly acid begins after this', 'C'),
  acidRazorHours: constant(24, 'h', 'No acids after a razor shave', 'H'),
  touchHours: constant(6, 'h', 'Hands off', 'H'),
  firstAnswerHours: constant(24, 'h', 'Look again and tell us', 'H'),
  secondAnswerHours: constant(48, 'h', 'Look again: burn can appear late', 'H'),
  bumpAnswerDays: constant(7, 'days', 'Count bumps', 'H'),
} as const

const C = CARE_CONSTANTS

/** Something to keep off, or to do. */
export interface Clearance {
  readonly id: string
  readonly title: string
  readonly text: string
  readonly kind: 'avoid' | 'do'
  readonly fromMs: number
  readonly untilMs: number
  readonly mark: Mark
}

/** What goes home: dated. */
export interface CarePlan {
  readonly endedAtMs: number
  readonly clearances: readonly Clearance[]
  /** Plain sentences without a date. */
  readonly normal: string
  readonly notNormal: string
  readonly product: string
}

/** Builds the aftercare of a service that ended at `endedAtMs`. */
export function carePlan(
  service: ServiceId,
  client: SkinAndHair,
  schools: Schools,
  noFragrance: boolean,
  endedAtMs: number,
): CarePlan {
  const fuzz = SERVICES[service].family === 'fuzz'
  const list: Clearance[] = []
  const avoid = (id: string, title: string, hours: number, text: string, mark: Mark) => {
    if (hours > 0) {
      list.push({
        id,
        title,
        text,
        kind: 'avoid',
        fromMs: endedAtMs,
        untilMs: endedAtMs + hours * HOUR_MS,
        mark,
      })
    }
  }
  avoid('touch', 'Hands off', C.touchHours.value, 'Do not touch, rub or scratch.', 'C')
  avoid(
    'mask',
    'No tight mask or strap',
    C.maskHours.value,
    'Seals and straps press into fresh skin.',
    'H',
  )
  const makeUp = fuzz ? Number(schools.makeUpAfter) : C.makeUpRazorHours.value
  avoid(
    'make-up',
    'No make-up',
    makeUp,
    fuzz
      ? `School: ${schoolWords('makeUpAfter', schools.makeUpAfter)}.`
      : 'Let the skin close first.',
    'C',
  )
  avoid(
    'exercise',
    'No hard exercise, sauna or hot bath',
    C.sweatHours.value,
    'Sweat and heat sting and redden.',
    'H',
  )
  avoid('swimming', 'No pool or sea', C.swimHours.value, 'Chlorine and salt sting.', 'H')
  const acids = fuzz ? Number(schools.acidsAfter) : C.acidRazorHours.value
  avoid(
    'acids',
    'No acids, retinoids or scrubs',
    acids,
    fuzz
      ? `School: ${schoolWords('acidsAfter', schools.acidsAfter)}.`
      : 'A day between blade and acid.',
    'C',
  )
  avoid(
    'sun',
    'No strong sun',
    fuzz ? C.sunFuzzHours.value : C.sunHours.value,
    'Sun cream whenever you are out.',
    'H',
  )
  const act = (
    id: string,
    title: string,
    fromHours: number,
    untilHours: number,
    text: string,
    mark: Mark,
  ) =>
    list.push({
      id,
      title,
      text,
      kind: 'do',
      fromMs: endedAtMs + fromHours * HOUR_MS,
      untilMs: endedAtMs + untilHours * HOUR_MS,
      mark,
    })
  if (!fuzz && client.bumpProne && schools.exfoliate !== 'none') {
    const acid = schools.exfoliate === 'acid'
    act(
      'exfoliate',
      acid ? 'Leave-on acid, nightly' : 'Brush against the grain, daily',
      C.acidStartHours.value,
      C.acidStartHours.value + 72,
      acid
        ? 'From the day after until hair shows: it frees the tips before they curl back in.'
        : 'Softly, the opposite way to your map: it frees the tips before they curl back in.',
      'C',
    )
  }
  const answer = (id: string, hours: number, text: string) =>
    act(id, 'Look and tell us', hours, hours + 12, text, 'C')
  answer('answer-24h', C.firstAnswerHours.value, 'Redness, stinging, bumps? Zone by zone, 0 to 4.')
  answer(
    'answer-48h',
    C.secondAnswerHours.value,
    'Burn can appear late where a place was overworked.',
  )
  answer(
    'answer-7d',
    C.bumpAnswerDays.value * 24,
    'Count bumps and ingrown hairs. When did you feel hair again?',
  )
  list.sort((a, b) => a.untilMs - b.untilMs)
  return {
    endedAtMs,
    clearances: list,
    normal:
      'Slight redness for about an hour is normal. On brown and black skin it shows as a darker or violet tone. Small bumps in the first sessions are common.',
    notNormal:
      'Spreading redness, pus, fever or pain that grows is not: see a clinician, and tell us.',
    product: noFragrance
      ? 'Balm or gel without alcohol and without scent, a coin-sized amount, morning and night.'
      : 'Balm or gel without alcohol, a coin-sized amount, morning and night.',
  }
}

/** The aftercare as plain text. `when` turns a moment into words in the house's zone. */
export function careText(
  care: CarePlan,
  name: string,
  serviceName: string,
  when: (ms: number) => string,
): string {
  const lines = [
    `${name}: after your ${serviceName.toLowerCase()}, ${when(care.endedAtMs)}`,
    '',
    'Keep off',
    ...care.clearances
      .filter((c) => c.kind === 'avoid')
      .map((c) => `- ${c.title} until ${when(c.untilMs)}. ${c.text}`),
    '',
    'Do',
    `- ${care.product}`,
    ...care.clearances
      .filter((c) => c.kind === 'do')
      .map((c) => `- ${when(c.fromMs)}: ${c.title.toLowerCase()}. ${c.text}`),
    '',
    care.normal,
    care.notNormal,
    'The product label and a clinician’s advice come before this sheet.',
  ]
  return lines.join('\n')
}
