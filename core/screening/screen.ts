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
  RULES,
  SCREENING_CONSTANTS,
  SEVERITY_ORDER,
  SPOT_WORDS,
  ZONE_WIDE_SPOTS,
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
}

/** A patch test: where, when, and what it showed. */
export interface PatchTest {
  readonly zoneId: ZoneId
  readonly placedAtMs: number
  readonly result: 'waiting' | 'calm' | 'reacted'
}

/** What was asked at a visit. */
export interface Asked {
  readonly answers: Readonly<Record<string, Answer>>
  readonly spots: readonly Spot[]
  readonly patchTest?: PatchTest | undefined
}

export const NOTHING_ASKED: Asked = { answers: {}, spots: [] }

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
  /** Earliest day for the service; undefined when no date can be given. */
  readonly until?: IsoDate
  readonly leaveOutZones: readonly ZoneId[]
  readonly leaveOutSpots: readonly Spot[]
  readonly withGrainOnly: boolean
  readonly onePass: boolean
  readonly noFragrance: boolean
  /** Questions without an answer. */
  readonly unanswered: number
}

/** Stands under every result. */
export const CLOSING_SENTENCE =
  'Follow your local code, the product label and a clinician’s advice. Your licence sets what you may do.'

/**
 * Screens a service.
 * @param today the day on which the service is wanted
 * @param nowMs the moment of asking, for the patch test
 * @param offsetMinutes the house's offset from UTC
 */
export function screen(
  service: ServiceId,
  asked: Asked,
  schools: Schools,
  today: IsoDate,
  nowMs: number,
  offsetMinutes: number,
): Screening {
  const family = SERVICES[service].family
  const findings: Finding[] = []
  let withGrainOnly = false
  let onePass = false
  let noFragrance = false

  for (const rule of RULES) {
    const answer = asked.answers[rule.id]
    if (!answer?.yes) continue
    const effect = rule.effects[family]
    let { severity } = effect
    let until: IsoDate | undefined
    let { text } = effect
    if (rule.id === 'isotretinoin' && family === 'fuzz' && schools.isotretinoin === '0') {
      severity = 'take-care'
      text = 'The house follows the expert panel: superficial work may go ahead, gently.'
    } else if (rule.id === 'first-ever' && family === 'fuzz') {
      const patch = patchFinding(asked.patchTest, nowMs, offsetMinutes, today)
      severity = patch.severity
      text = patch.text
      until = patch.until
    } else if (severity === 'postpone' && effect.waitDays !== undefined) {
      if (answer.date === undefined) {
        text += ` Ask for the date: ${effect.waitDays} days must have passed.`
      } else {
        until = addDays(answer.date, effect.waitDays)
        if (until <= today) {
          severity = 'note'
          text = `Long enough ago: clear since ${dayWords(until, today)}.`
          until = undefined
        }
      }
    }
    withGrainOnly ||= effect.withGrainOnly ?? false
    onePass ||= effect.onePass ?? false
    noFragrance ||= effect.noFragrance ?? false
    findings.push({
      ruleId: rule.id,
      severity,
      text,
      reason: rule.question.replace(/\?$/, ''),
      mark: effect.mark,
      ...(until !== undefined && { until }),
    })
  }

  const leaveOutZones = new Set<ZoneId>()
  const leaveOutSpots: Spot[] = []
  for (const spot of asked.spots) {
    const touched = markZones(spot).filter((zone) => workedShare(service, zone) > 0)
    if (touched.length === 0) continue
    const wide = family === 'fuzz' && ZONE_WIDE_SPOTS.includes(spot.kind)
    if (wide) for (const zone of touched) leaveOutZones.add(zone)
    else leaveOutSpots.push(spot)
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

  findings.sort((a, b) => SEVERITY_ORDER.indexOf(b.severity) - SEVERITY_ORDER.indexOf(a.severity))
  const worst = findings[0]?.severity
  const unanswered = RULES.filter((rule) => asked.answers[rule.id] === undefined).length
  const postponing = findings.filter((f) => f.severity === 'postpone')
  const dated = postponing.every((f) => f.until !== undefined)
  const until = postponing.reduce((m, f) => (f.until && f.until > m ? f.until : m), today)
  return {
    verdict: verdictOf(worst, unanswered),
    findings,
    ...(worst === 'postpone' && dated && { until }),
    leaveOutZones: [...leaveOutZones],
    leaveOutSpots,
    withGrainOnly,
    onePass,
    noFragrance,
    unanswered,
  }
}

function verdictOf(worst: Severity | undefined, unanswered: number): Verdict {
  if (worst === 'stop') return 'refer'
  if (worst === 'postpone') return 'postpone'
  if (unanswered > 0) return 'not-asked'
  return worst === 'leave-out' ? 'leave-out' : 'go'
}

function patchFinding(
  patch: PatchTest | undefined,
  nowMs: number,
  offsetMinutes: number,
  today: IsoDate,
): { severity: Severity; text: string; until?: IsoDate } {
  if (patch?.result === 'calm') return { severity: 'note', text: 'The patch test stayed calm.' }
  if (patch?.result === 'reacted') {
    return { severity: 'stop', text: 'The patch test reacted. Do not go ahead; suggest a doctor.' }
  }
  const from = (patch?.placedAtMs ?? nowMs) + SCREENING_CONSTANTS.patchTestHours.value * HOUR_MS
  if (patch && from <= nowMs) {
    return { severity: 'postpone', text: 'Read the patch test now, then decide.', until: today }
  }
  return {
    severity: 'postpone',
    text: patch
      ? `Patch test placed on ${lowerFirst(zoneName(patch.zoneId))}: read it from ${dayWords(dateOf(from, offsetMinutes), today)}.`
      : 'Place a patch test on a small spot today; read it after 24–48 h.',
    until: dateOf(from, offsetMinutes),
  }
}

const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1)
const lowerFirst = (s: string) => s.charAt(0).toLowerCase() + s.slice(1)

/** One sentence that says the result aloud. */
export function verdictWords(s: Screening, today: IsoDate): string {
  switch (s.verdict) {
    case 'not-asked':
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
