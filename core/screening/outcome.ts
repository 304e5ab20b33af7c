/** What one rule comes to in one case: by its dates, its places, its gates, the patch test. */
import { lowerFirst } from '../words.ts'
import type { Figures, Schools } from '../house/index.ts'
import { zoneName, type ZoneId } from '../zones/index.ts'
import {
  isPlanned,
  type ServiceId,
  SERVICES,
  type Severity,
  type Work,
  works,
} from '../services/index.ts'
import { addDays, CLOCKS_MS, dayWords, HOUR_MS, type IsoDate } from '../time/index.ts'
import type { Answer, Asked, PatchTest } from './asked.ts'
import { bumpWords } from '../looks/index.ts'
import { INTERVAL_CONSTANTS } from '../regrowth/index.ts'
import { SCREENING_CONSTANTS, type ruleEffect, type ScreeningRule } from './rules.ts'

/** A case: what is asked, for which work, on which day. */
export interface Ask {
  readonly work: Work
  readonly asked: Asked
  readonly schools: Schools
  readonly today: IsoDate
  readonly nowMs: number
  readonly dayOf: (ms: number) => IsoDate
  readonly trial?: Trial | undefined
}

/** A trial strip: whether one is drawn for this visit, and how one of an earlier visit was taken. */
export interface Trial {
  readonly drawn: boolean
  readonly past?:
    | {
        readonly endedAtMs: number
        /** Worst redness that was seen from some hours after on; undefined while nobody has looked. */
        readonly worst?: number | undefined
        /** Bumps that were counted later. */
        readonly bumps: number
        /** Something severe was told. */
        readonly severe: boolean
        /** When hair was felt again there. */
        readonly feltAtMs?: number | undefined
      }
    | undefined
}

/** What a rule comes to in this case. */
export interface RuleOutcome {
  readonly severity: Severity
  readonly text: string
  readonly until?: IsoDate | undefined
  readonly zones?: readonly ZoneId[] | undefined
  readonly wouldChange?: string | undefined
}

/** The outcome of a rule whose question was answered with yes. */
export function outcomeOf(
  figures: Figures,
  ask: Ask,
  rule: ScreeningRule,
  effect: ReturnType<typeof ruleEffect>,
  answer: Answer,
): RuleOutcome {
  const { schools, today, work } = ask
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
  if (rule.id === 'first-ever' && isPlanned(work.method)) {
    // What a strip has shown, or one that is drawn, counts whatever the school of patch tests asks for.
    if (patchWanted(work.service, schools))
      return trialOutcome(figures, ask) ?? patchOutcome(figures, ask)
    if (ask.trial) return trialOutcome(figures, ask)!
  }
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
  const zones = (answer.zones ?? []).filter((z) => works(work, z))
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

/**
 * What a trial strip says: nothing where there is none, and the patch test decides. By either school a strip is a small spot;
 * by the cautious one it is what a first needs.
 */
function trialOutcome(figures: Figures, ask: Ask): RuleOutcome | undefined {
  const { trial, schools, today, dayOf, nowMs } = ask
  const past = trial?.past
  if (past) {
    const { worst } = past
    if (past.severe || (worst ?? 0) >= figures(SCREENING_CONSTANTS.trialStopGrade)) {
      return {
        severity: 'stop',
        text: `The trial strip reacted${worst === undefined ? '' : `: redness ${worst}`}. Do not go ahead; suggest a doctor.`,
      }
    }
  }
  if (trial?.drawn) {
    return {
      severity: 'take-care',
      text: `Trial strip: only what lies inside its outline is worked, and it is followed until hair is felt again, about ${figures(INTERVAL_CONSTANTS.trialDays)} days.`,
    }
  }
  if (!past) {
    if (schools.firstTry !== 'strip') return undefined
    const patch = ask.asked.patchTest
    if (patch?.result === 'reacted') return undefined
    return {
      severity: 'postpone',
      text: 'Draw a trial strip at Read, under Lines, and work only that today; the whole once hair was felt again there.',
      until: addDays(today, figures(INTERVAL_CONSTANTS.trialDays)),
      wouldChange: 'A trial strip that was followed and stayed calm.',
    }
  }
  const over = addDays(dayOf(past.endedAtMs), figures(INTERVAL_CONSTANTS.trialDays))
  const on = dayWords(dayOf(past.endedAtMs), today)
  if (past.worst === undefined) {
    return {
      severity: 'postpone',
      text: `Nobody has told how the trial strip of ${on} was taken: look at it, beside the other side, and note it at Return.`,
      until: today,
      wouldChange: 'The trial strip, looked at a day later or more.',
    }
  }
  const followed = past.feltAtMs !== undefined && past.feltAtMs <= nowMs
  if (!followed && over > today && schools.firstTry === 'strip') {
    return {
      severity: 'postpone',
      text: `The trial strip of ${on} is followed until hair is felt again, or until ${dayWords(over, today)}.`,
      until: over,
      wouldChange: 'Hair felt again on the trial strip.',
    }
  }
  const calm = past.worst <= 1 && past.bumps === 0
  return {
    severity: calm ? 'note' : 'take-care',
    text: calm
      ? `The trial strip of ${on} stayed calm.`
      : `The trial strip of ${on} showed ${[
          ...(past.worst > 1 ? [`redness ${past.worst}`] : []),
          ...(past.bumps > 0 ? [bumpWords(past.bumps)] : []),
        ].join(' and ')}: gently, and tell the client.`,
  }
}

/** Whether the house wants a patch test before the first of these. */
function patchWanted(service: ServiceId, schools: Schools): boolean {
  if (schools.patchTest === 'none') return false
  return schools.patchTest === 'all' || SERVICES[service].patchTest === true
}

function clinicianOutcome({ asked, today }: Ask, then: string): RuleOutcome {
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

/**
 * Why the result of a patch test may not be told so; undefined when it may. A reaction may be told at any time.
 * @param before the test as it was kept until now
 */
export function patchRefusal(
  figures: Figures,
  before: PatchTest | undefined,
  now: PatchTest | undefined,
  nowMs: number,
): string | undefined {
  if (now?.placedAtMs !== undefined && now.placedAtMs > nowMs + CLOCKS_MS) {
    return 'A patch test cannot have been placed after now.'
  }
  if (now?.result !== 'calm') return undefined
  const same = before?.placedAtMs === now.placedAtMs && before?.zoneId === now.zoneId
  // What was read and kept stays as it is.
  if (same && before?.result === 'calm' && before.readAtMs === now.readAtMs) return undefined
  const window = patchWindow(figures, now)
  if (!window || !same) {
    return 'Place the patch test first; it is read calm after its hours, not with the same tap.'
  }
  if (nowMs < window.fromMs) {
    return `A patch test is read from ${figures(SCREENING_CONSTANTS.patchTestHours)} h after it was placed: too early to call it calm. A reaction may be told at any time.`
  }
  if (nowMs > window.untilMs + CLOCKS_MS) {
    return `A patch test is read until ${figures(SCREENING_CONSTANTS.patchTestLatestHours)} h after it was placed: too late to call it calm. Place another.`
  }
  return undefined
}

/** From when to when a patch test is to be read. */
export function patchWindow(
  figures: Figures,
  patch: PatchTest,
): { fromMs: number; untilMs: number } | undefined {
  if (patch.placedAtMs === undefined) return undefined
  return {
    fromMs: patch.placedAtMs + figures(SCREENING_CONSTANTS.patchTestHours) * HOUR_MS,
    untilMs: patch.placedAtMs + figures(SCREENING_CONSTANTS.patchTestLatestHours) * HOUR_MS,
  }
}

/**
 * Whether a patch test that is called calm was read when it could tell: not before its hours, not so late that it has
 * faded. Of tests kept before the hour of reading was, the word counts.
 */
export function readInTime(figures: Figures, patch: PatchTest): boolean {
  const window = patchWindow(figures, patch)
  if (!window || patch.readAtMs === undefined) return true
  return patch.readAtMs >= window.fromMs && patch.readAtMs <= window.untilMs
}

function patchOutcome(figures: Figures, { asked, nowMs, dayOf, today }: Ask): RuleOutcome {
  const patch = asked.patchTest
  const calm = patch?.result === 'calm'
  if (calm && readInTime(figures, patch))
    return { severity: 'note', text: 'The patch test stayed calm.' }
  if (patch?.result === 'reacted') {
    return { severity: 'stop', text: 'The patch test reacted. Do not go ahead; suggest a doctor.' }
  }
  const wouldChange = 'A patch test that was read and stayed calm.'
  const window = patch && patchWindow(figures, patch)
  if (!patch || !window) {
    const earliest = (patch?.plannedFor ?? today) > today ? patch!.plannedFor! : today
    const from = addDays(earliest, Math.ceil(figures(SCREENING_CONSTANTS.patchTestHours) / 24))
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
      text: `The patch test was to be read until ${dayWords(dayOf(window.untilMs), today)}: too late to call it calm. Note a reaction if there is one; else place another.`,
      until: addDays(today, Math.ceil(figures(SCREENING_CONSTANTS.patchTestHours) / 24)),
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
