/** From what was asked and found to: go, go but leave out, postpone until, or refer. */
import { zoneName } from '../head/zoneFacts.ts'
import type { Vec3 } from '../head/frames.ts'
import type { ZoneId } from '../head/zones.ts'
import type { Mark } from '../house/constants.ts'
import type { Schools } from '../house/schools.ts'
import { SERVICES, workedShare, type ServiceId } from '../services.ts'
import { addDays, dateOf, dayWords, HOUR_MS, type IsoDate } from '../time/dates.ts'
import { markMargin, markZones } from './marks.ts'
import {
  ruleEffect,
  RULES,
  SCREENING_CONSTANTS,
  SEVERITY_ORDER,
  SPOT_WORDS,
  ZONE_WIDE_SPOTS,
  type HouseRules,
  type ScreeningRule,
  type Severity,
  type SpotKind,
} from './rules.ts'

/** A spot marked on the head. */
export interface Spot {
  readonly id: string
  readonly kind: SpotKind
  readonly zoneId: ZoneId
  readonly point: Vec3
  readonly normal: Vec3
  readonly radiusMm: number
  /** A painted patch: the places the brush of that radius passed over. */
  readonly trail?: readonly MarkPlace[] | undefined
  /** Its own margin; the house's when left out. */
  readonly marginMm?: number | undefined
  /** Day on which it was first seen. */
  readonly seenOn?: IsoDate | undefined
  /** `ask`: carried over from the last visit and not yet looked at; it counts as there. */
  readonly stillThere?: 'ask' | 'yes' | undefined
}

/** A place of a painted patch. */
export interface MarkPlace {
  readonly zoneId: ZoneId
  readonly point: Vec3
  readonly normal: Vec3
}

/** An answer to a rule's question. */
export interface Answer {
  readonly yes: boolean
  readonly date?: IsoDate | undefined
  /** Where, for what was done to one place. */
  readonly zones?: readonly ZoneId[] | undefined
  /** Which of several, for example of the allergies. */
  readonly kinds?: readonly string[] | undefined
  /** `ask`: carried over from an earlier visit; it counts, and is asked again only as "still so?". */
  readonly still?: 'ask' | undefined
  /** Day on which it was first answered. */
  readonly since?: IsoDate | undefined
}

/** A patch test: where, when, and what it showed. */
export interface PatchTest {
  readonly zoneId: ZoneId
  readonly point?: Vec3 | undefined
  readonly normal?: Vec3 | undefined
  /** Planned for a day, not yet done. */
  readonly plannedFor?: IsoDate | undefined
  readonly placedAtMs?: number | undefined
  readonly readAtMs?: number | undefined
  readonly result: 'planned' | 'waiting' | 'calm' | 'reacted'
}

/** Agreement to the service, signed by hand. */
export interface Consent {
  readonly text: string
  readonly name: string
  readonly asGuardian: boolean
  readonly signedAtMs: number
  /** The signature as path data in a box of 300 × 100. */
  readonly path: string
}

/** What a clinician said. */
export interface ClinicianWord {
  readonly who: string
  readonly on: IsoDate
  readonly said: 'yes' | 'no'
}

/** What was asked at a visit. */
export interface Asked {
  readonly answers: Readonly<Record<string, Answer>>
  readonly spots: readonly Spot[]
  readonly patchTest?: PatchTest | undefined
  readonly consent?: Consent | undefined
  readonly clinician?: ClinicianWord | undefined
}

export const NOTHING_ASKED: Asked = { answers: {}, spots: [] }

/** Answers of an earlier visit at the next: each counts until somebody says that it is no longer so. */
export function carriedAnswers(answers: Asked['answers'], askedOn: IsoDate): Asked['answers'] {
  return Object.fromEntries(
    Object.entries(answers)
      // Somebody who has been here is no longer here for the first time.
      .map(([id, a]) => [id, id === 'first-ever' ? { yes: false } : a] as const)
      .map(([id, a]) => [id, { ...a, still: 'ask' as const, since: a.since ?? askedOn }]),
  )
}

/** One thing found. */
export interface Finding {
  readonly ruleId: string
  readonly severity: Severity
  readonly text: string
  readonly reason: string
  readonly mark: Mark
  /** First day on which this no longer stands in the way. */
  readonly until?: IsoDate
}

export type Verdict = 'not-asked' | 'go' | 'leave-out' | 'postpone' | 'refer'

/** The result of asking. */
export interface Screening {
  readonly verdict: Verdict
  /** Gravest first. */
  readonly findings: readonly Finding[]
  /** Earliest day on which the service is possible; undefined when no date can be given. */
  readonly until?: IsoDate
  /** First day on which nothing has to be left out for a date's sake any more. */
  readonly wholeFrom?: IsoDate
  /** What would have to change for it to go ahead, in plain sentences. */
  readonly wouldChange: readonly string[]
  readonly leaveOutZones: readonly ZoneId[]
  /** Why each of those stays. */
  readonly zoneReasons: Readonly<Partial<Record<ZoneId, string>>>
  readonly leaveOutSpots: readonly Spot[]
  readonly withGrainOnly: boolean
  readonly onePass: boolean
  readonly noFragrance: boolean
  /** Questions without an answer. */
  readonly unanswered: number
  /** Answers from last time of which nobody has said that they are still so. */
  readonly toConfirm: number
}

/** Stands under every result. */
export const CLOSING_SENTENCE =
  'Follow your local code, the product label and a clinician’s advice. Your licence sets what you may do.'

/** The house's offset from UTC, minutes: one figure, or by the moment, since summer time changes it. */
export type Offset = number | ((ms: number) => number)

interface Ask {
  readonly service: ServiceId
  readonly asked: Asked
  readonly schools: Schools
  readonly today: IsoDate
  readonly nowMs: number
  readonly dayOf: (ms: number) => IsoDate
}

/** What a rule comes to in this case. */
interface Outcome {
  readonly severity: Severity
  readonly text: string
  readonly until?: IsoDate | undefined
  readonly zones?: readonly ZoneId[] | undefined
  readonly wouldChange?: string | undefined
}

/**
 * Screens a service.
 * @param today the day on which the service is wanted
 * @param nowMs the moment of asking, for the patch test
 * @param offset the house's offset from UTC
 * @param rules what the house has changed of the rules
 */
export function screen(
  service: ServiceId,
  asked: Asked,
  schools: Schools,
  today: IsoDate,
  nowMs: number,
  offset: Offset,
  rules: HouseRules = {},
): Screening {
  const { family } = SERVICES[service]
  const dayOf = (ms: number) => dateOf(ms, typeof offset === 'number' ? offset : offset(ms))
  const ask: Ask = { service, asked, schools, today, nowMs, dayOf }
  const findings: Finding[] = []
  const zoneReasons: Partial<Record<ZoneId, string>> = {}
  const wouldChange: string[] = []
  let withGrainOnly = false
  let onePass = false
  let noFragrance = false
  let wholeFrom: IsoDate | undefined

  for (const rule of RULES) {
    const answer = asked.answers[rule.id]
    if (!answer?.yes) continue
    const effect = ruleEffect(rule, service, rules)
    const outcome = outcomeOf(ask, rule, effect, answer)
    for (const zone of outcome.zones ?? []) {
      zoneReasons[zone] = `${rule.short}: ${outcome.text}`
      if (outcome.until && (wholeFrom === undefined || outcome.until > wholeFrom))
        wholeFrom = outcome.until
    }
    withGrainOnly ||= effect.withGrainOnly ?? false
    onePass ||= effect.onePass ?? false
    noFragrance ||=
      (effect.noFragrance ?? false) &&
      (rule.id !== 'allergy' || answer.kinds === undefined || answer.kinds.includes('fragrance'))
    if (outcome.wouldChange) wouldChange.push(outcome.wouldChange)
    findings.push({
      ruleId: rule.id,
      severity: outcome.severity,
      text: outcome.text,
      reason: rule.question.replace(/\?$/, '') + (answer.still === 'ask' ? ': still so?' : ''),
      mark: effect.mark,
      ...(outcome.until !== undefined && { until: outcome.until }),
    })
  }

  const leaveOutSpots: Spot[] = []
  for (const spot of asked.spots) {
    const touched = markZones(spot).filter((zone) => workedShare(service, zone) > 0)
    if (touched.length === 0) continue
    const wide = family === 'fuzz' && ZONE_WIDE_SPOTS.includes(spot.kind)
    if (wide) {
      for (const zone of touched)
        zoneReasons[zone] ??= `${capital(SPOT_WORDS[spot.kind])}: the whole zone stays.`
    } else leaveOutSpots.push(spot)
    const place = zoneName(spot.zoneId)
    findings.push({
      ruleId: `spot:${spot.id}`,
      severity: 'leave-out',
      text: wide
        ? `Leave out the whole zone: ${place}.`
        : spot.trail
          ? `Leave out the painted patch and ${markMargin(spot)} mm of margin round it.`
          : `Leave out ${spot.radiusMm} mm and ${markMargin(spot)} mm of margin round it.`,
      reason: `${capital(SPOT_WORDS[spot.kind])} on ${lowerFirst(place)}${spot.stillThere === 'ask' ? ': still there?' : ''}`,
      mark: 'C',
    })
  }
  const consent = consentFinding(ask)
  if (consent) findings.push(consent)

  findings.sort((a, b) => SEVERITY_ORDER.indexOf(b.severity) - SEVERITY_ORDER.indexOf(a.severity))
  const worst = findings[0]?.severity
  const unanswered = RULES.filter((rule) => asked.answers[rule.id] === undefined).length
  const toConfirm = RULES.filter((rule) => asked.answers[rule.id]?.still === 'ask').length
  const postponing = findings.filter((f) => f.severity === 'postpone')
  const dated = postponing.every((f) => f.until !== undefined)
  // Several rules at once: the service waits for the last of them.
  const until = postponing.reduce((m, f) => (f.until && f.until > m ? f.until : m), today)
  return {
    verdict: verdictOf(worst, unanswered + toConfirm),
    findings,
    ...(worst === 'postpone' && dated && { until }),
    ...(wholeFrom !== undefined && { wholeFrom }),
    wouldChange,
    leaveOutZones: Object.keys(zoneReasons) as ZoneId[],
    zoneReasons,
    leaveOutSpots,
    withGrainOnly,
    onePass,
    noFragrance,
    unanswered,
    toConfirm,
  }
}

function outcomeOf(
  ask: Ask,
  rule: ScreeningRule,
  effect: ReturnType<typeof ruleEffect>,
  answer: Answer,
): Outcome {
  const { schools, today, service } = ask
  if (
    rule.id === 'isotretinoin' &&
    effect.severity === 'postpone' &&
    schools.isotretinoin === '0'
  ) {
    return {
      severity: 'take-care',
      text: 'The house follows the expert panel: superficial work may go ahead, gently.',
    }
  }
  if (rule.id === 'first-ever' && patchWanted(service, schools)) return patchOutcome(ask)
  if (effect.gate === 'clinician') return clinicianOutcome(ask, effect.text)
  if (effect.gate === 'guardian') {
    const signed = ask.asked.consent?.asGuardian === true
    return signed
      ? { severity: 'take-care', text: effect.text }
      : {
          severity: 'postpone',
          text: 'A guardian signs first; the local code may ask for more.',
          wouldChange: 'A guardian’s signed consent, and what the local code asks for.',
        }
  }
  if (rule.id === 'allergy') {
    const kinds = answer.kinds?.length ? answer.kinds.join(', ') : 'ask which'
    return { severity: effect.severity, text: `${effect.text.replace(/\.$/, '')}: ${kinds}.` }
  }
  if (effect.severity !== 'postpone') return { severity: effect.severity, text: effect.text }
  if (effect.waitDays === undefined) {
    return {
      severity: 'postpone',
      text: effect.text,
      wouldChange: `${rule.short}: over and healed. No date can be given.`,
    }
  }
  if (answer.date === undefined) {
    return {
      severity: 'postpone',
      text: `${effect.text} Ask for the date: ${effect.waitDays} days must have passed.`,
      wouldChange: `${rule.short}: the date, and ${effect.waitDays} days since.`,
    }
  }
  const until = addDays(answer.date, effect.waitDays)
  if (until <= today) {
    return { severity: 'note', text: `Long enough ago: clear since ${dayWords(until, today)}.` }
  }
  const zones = (answer.zones ?? []).filter((z) => workedShare(service, z) > 0)
  if (effect.overZone && answer.zones !== undefined && answer.zones.length > 0) {
    return zones.length === 0
      ? { severity: 'note', text: 'Not where this service works.' }
      : {
          severity: 'leave-out',
          text: `Left out until ${dayWords(until, today)}. ${effect.text}`,
          until,
          zones,
        }
  }
  return {
    severity: 'postpone',
    text: effect.text,
    until,
    wouldChange: `${rule.short}: clear from ${dayWords(until, today)} if nothing more is used or done.`,
  }
}

/** Whether the house wants a patch test before the first of these. */
function patchWanted(service: ServiceId, schools: Schools): boolean {
  if (schools.patchTest === 'none') return false
  return schools.patchTest === 'all' || service === 'dermaplane' || service === 'facial-razor'
}

function clinicianOutcome({ asked, today }: Ask, then: string): Outcome {
  const word = asked.clinician
  if (!word) {
    return {
      severity: 'postpone',
      text: 'A clinician’s word first. Note who said it and when.',
      wouldChange: 'A clinician’s word, noted at Ask.',
    }
  }
  if (word.said === 'no') {
    return {
      severity: 'stop',
      text: `${word.who} advised against it on ${dayWords(word.on, today)}.`,
    }
  }
  return {
    severity: 'take-care',
    text: `${word.who} said yes on ${dayWords(word.on, today)}. ${then}`,
  }
}

/** Consent by the house's school; asked for, never in the way of the work (the guardian's is). */
function consentFinding({ asked, schools }: Ask): Finding | undefined {
  if (schools.consent === 'none' || asked.consent) return undefined
  return {
    ruleId: 'consent',
    severity: 'note',
    text: schools.consent === 'each' ? 'To be signed at every visit.' : 'To be signed once.',
    reason: 'Consent is not signed yet',
    mark: 'C',
  }
}

function verdictOf(worst: Severity | undefined, open: number): Verdict {
  if (worst === 'stop') return 'refer'
  if (worst === 'postpone') return 'postpone'
  if (open > 0) return 'not-asked'
  return worst === 'leave-out' ? 'leave-out' : 'go'
}

/** From when to when a patch test is to be read. */
export function patchWindow(patch: PatchTest): { fromMs: number; untilMs: number } | undefined {
  if (patch.placedAtMs === undefined) return undefined
  return {
    fromMs: patch.placedAtMs + SCREENING_CONSTANTS.patchTestHours.value * HOUR_MS,
    untilMs: patch.placedAtMs + SCREENING_CONSTANTS.patchTestLatestHours.value * HOUR_MS,
  }
}

function patchOutcome({ asked, nowMs, dayOf, today }: Ask): Outcome {
  const patch = asked.patchTest
  if (patch?.result === 'calm') return { severity: 'note', text: 'The patch test stayed calm.' }
  if (patch?.result === 'reacted') {
    return { severity: 'stop', text: 'The patch test reacted. Do not go ahead; suggest a doctor.' }
  }
  const wouldChange = 'A patch test that was read and stayed calm.'
  const window = patch && patchWindow(patch)
  if (!patch || !window) {
    const earliest = (patch?.plannedFor ?? today) > today ? patch!.plannedFor! : today
    const from = addDays(earliest, Math.ceil(SCREENING_CONSTANTS.patchTestHours.value / 24))
    return {
      severity: 'postpone',
      text: patch?.plannedFor
        ? `Patch test planned on ${lowerFirst(zoneName(patch.zoneId))} for ${dayWords(patch.plannedFor, today)}.`
        : 'Place a patch test on a small spot today; read it after 24–48 h.',
      until: from,
      wouldChange,
    }
  }
  if (window.untilMs < nowMs) {
    return {
      severity: 'postpone',
      text: `The patch test was to be read until ${dayWords(dayOf(window.untilMs), today)}. Look at it now; if nothing can be seen any more, place another.`,
      until: today,
      wouldChange,
    }
  }
  if (window.fromMs <= nowMs) {
    return {
      severity: 'postpone',
      text: 'Read the patch test now, then decide.',
      until: today,
      wouldChange,
    }
  }
  return {
    severity: 'postpone',
    text: `Patch test placed on ${lowerFirst(zoneName(patch.zoneId))}: read it from ${dayWords(dayOf(window.fromMs), today)}.`,
    until: dayOf(window.fromMs),
    wouldChange,
  }
}

const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1)
const lowerFirst = (s: string) => s.charAt(0).toLowerCase() + s.slice(1)

/** One sentence that says the result aloud. */
export function verdictWords(s: Screening, today: IsoDate): string {
  switch (s.verdict) {
    case 'not-asked':
      if (s.unanswered === 0) {
        return s.toConfirm === 1
          ? 'One answer from last time: still so?'
          : `${s.toConfirm} answers from last time: still so?`
      }
      return s.unanswered === 1 ? 'One question is open.' : `${s.unanswered} questions are open.`
    case 'go':
      return s.findings.some((f) => f.severity === 'take-care') ? 'Go, with care.' : 'Go.'
    case 'leave-out':
      return 'Go, but leave out what is marked.'
    case 'postpone':
      if (s.until === undefined) return 'Postpone: not today.'
      return s.until === today
        ? 'Postpone: first read the patch test.'
        : `Postpone until ${dayWords(s.until, today)}.`
    case 'refer':
      return 'Stop. Refer to a doctor first.'
  }
}
