/** From what was asked and found to: go, go but leave out, postpone until, or refer. */
import { capital, lowerFirst } from '../words.ts'
import { zoneName, type ZoneId } from '../zones/index.ts'
import type { Mark, Figures, Schools } from '../house/index.ts'
import {
  jobsWords,
  SERVICES,
  SEVERITY_ORDER,
  type Severity,
  type Work,
  works,
} from '../services/index.ts'
import { dateAt, dayWords, type IsoDate, type Offset } from '../time/index.ts'
import type { Asked, SkinMark } from './asked.ts'
import {
  concerns,
  MARK_WORDS,
  ruleEffect,
  RULES,
  ZONE_WIDE_SPOTS,
  type HouseRules,
} from './rules.ts'
import { markMargin, markZones } from './marks.ts'
import { outcomeOf, type Ask, type Trial } from './outcome.ts'

/** One thing found. */
export interface Finding {
  readonly ruleId: string
  /** The mark on the skin that it is about. */
  readonly spotId?: string
  readonly severity: Severity
  readonly text: string
  readonly reason: string
  readonly mark: Mark
  /** First day on which this no longer stands in the way. */
  readonly until?: IsoDate
  /** What would have to change for it to go ahead. */
  readonly wouldChange?: string
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
  readonly leaveOutSpots: readonly SkinMark[]
  readonly withGrainOnly: boolean
  readonly onePass: boolean
  readonly noFragrance: boolean
  /** In the first sessions of a course. */
  readonly newcomer?: true
  /** Questions without an answer. */
  readonly unanswered: number
  /** Answers from last time of which nobody has said that they are still so. */
  readonly toConfirm: number
}

/** Stands under every result. */
export const CLOSING_SENTENCE =
  'Follow your local code, the product label and a clinician’s advice. Your licence sets what you may do.'

/**
 * Screens a sitting: every job by its own rules, all of them together by the strictest.
 * @param jobs what is to be done
 * @param today the day on which it is wanted
 * @param nowMs the moment of asking, for the patch test
 * @param offset the house's offset from UTC
 * @param rules what the house has changed of the rules
 * @param trial a trial strip, drawn now or worked before
 */
export function screen(
  figures: Figures,
  jobs: readonly Work[],
  asked: Asked,
  schools: Schools,
  today: IsoDate,
  nowMs: number,
  offset: Offset,
  rules: HouseRules = {},
  trial?: Trial,
): Screening {
  const dayOf = (ms: number) => dateAt(ms, offset)
  const asks = RULES.filter((rule) => concerns(rule, jobs, rules))
  const found = jobs.map((work) => {
    const ask: Ask = { work, asked, schools, today, nowMs, dayOf, trial }
    const told = [askedOf(figures, ask, rules), markedOf(figures, work, asked)]
    return { work, ...united(told) }
  })
  return conclude(
    {
      ...united(found),
      findings: strictest(found),
      unanswered: asks.filter((rule) => asked.answers[rule.id] === undefined).length,
      toConfirm: asks.filter((rule) => asked.answers[rule.id]?.still === 'ask').length,
    },
    today,
  )
}

/** What a job's rules or marks come to. */
type FoundIn = Omit<Found, 'unanswered' | 'toConfirm'>

const NOTHING_FOUND: FoundIn = {
  findings: [],
  zoneReasons: {},
  leaveOutSpots: [],
  withGrainOnly: false,
  onePass: false,
  noFragrance: false,
}

/** Several of them: whatever one asks for holds for all. */
const united = (list: readonly FoundIn[]): FoundIn =>
  list.reduce((a, b) => {
    const later =
      a.wholeFrom && b.wholeFrom && a.wholeFrom > b.wholeFrom
        ? a.wholeFrom
        : (b.wholeFrom ?? a.wholeFrom)
    return {
      findings: [...a.findings, ...b.findings],
      zoneReasons: { ...b.zoneReasons, ...a.zoneReasons },
      leaveOutSpots: [
        ...a.leaveOutSpots,
        ...b.leaveOutSpots.filter((s) => !a.leaveOutSpots.includes(s)),
      ],
      withGrainOnly: a.withGrainOnly || b.withGrainOnly,
      onePass: a.onePass || b.onePass,
      noFragrance: a.noFragrance || b.noFragrance,
      ...(later !== undefined && { wholeFrom: later }),
    }
  }, NOTHING_FOUND)

const rank = (f: Finding) => SEVERITY_ORDER.indexOf(f.severity)

/** Of each rule and mark the gravest finding, the one that waits longest among equals; whose it is where not all share it. */
function strictest(found: readonly (FoundIn & { readonly work: Work })[]): Finding[] {
  const by = new Map<string, { finding: Finding; works: Work[] }>()
  for (const { work, findings } of found)
    for (const finding of findings) {
      const had = by.get(finding.ruleId)
      const over = had
        ? rank(finding) - rank(had.finding) ||
          (finding.until ?? '').localeCompare(had.finding.until ?? '')
        : 1
      if (over > 0 || !had) by.set(finding.ruleId, { finding, works: [work] })
      else if (over === 0) had.works.push(work)
    }
  return [...by.values()].map(({ finding, works: of }) =>
    of.length === found.length || finding.spotId !== undefined
      ? finding
      : { ...finding, text: `${jobsWords(of)}: ${lowerFirst(finding.text)}` },
  )
}

/** What the answers to the rules come to in one job. */
function askedOf(figures: Figures, ask: Ask, rules: HouseRules): FoundIn {
  const findings: Finding[] = []
  const zoneReasons: Partial<Record<ZoneId, string>> = {}
  let withGrainOnly = false
  let onePass = false
  let noFragrance = false
  let wholeFrom: IsoDate | undefined
  for (const rule of RULES) {
    const answer = ask.asked.answers[rule.id]
    if (!answer?.yes) continue
    const effect = ruleEffect(figures, rule, ask.work, rules)
    const outcome = outcomeOf(figures, ask, rule, effect, answer)
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
    findings.push({
      ruleId: rule.id,
      severity: outcome.severity,
      text: outcome.text,
      reason: rule.question.replace(/\?$/, '') + (answer.still === 'ask' ? ': still so?' : ''),
      mark: effect.mark,
      ...(outcome.until !== undefined && { until: outcome.until }),
      ...(outcome.wouldChange !== undefined && { wouldChange: outcome.wouldChange }),
    })
  }
  return {
    ...{ findings, zoneReasons, leaveOutSpots: [], withGrainOnly, onePass, noFragrance },
    ...(wholeFrom !== undefined && { wholeFrom }),
  }
}

/** What the marks on the skin come to in one job. */
function markedOf(figures: Figures, work: Work, asked: Asked): FoundIn {
  const { family } = SERVICES[work.service]
  const findings: Finding[] = []
  const zoneReasons: Partial<Record<ZoneId, string>> = {}
  const leaveOutSpots: SkinMark[] = []
  for (const spot of asked.spots) {
    const touched = markZones(spot).filter((zone) => works(work, zone))
    if (touched.length === 0) continue
    const wide = family === 'fuzz' && ZONE_WIDE_SPOTS.includes(spot.kind)
    if (wide) {
      for (const zone of touched)
        zoneReasons[zone] ??= `${capital(MARK_WORDS[spot.kind])}: the whole zone stays.`
    } else leaveOutSpots.push(spot)
    const place = zoneName(spot.zoneId)
    findings.push({
      ruleId: `spot:${spot.id}`,
      spotId: spot.id,
      severity: 'leave-out',
      text: wide
        ? `Leave out the whole zone: ${place}.`
        : spot.trail
          ? `Leave out the painted patch and ${markMargin(figures, spot)} mm of margin round it.`
          : `Leave out ${spot.radiusMm} mm and ${markMargin(figures, spot)} mm of margin round it.`,
      reason: `${capital(MARK_WORDS[spot.kind])} on ${lowerFirst(place)}${spot.stillThere === 'ask' ? ': still there?' : ''}`,
      mark: 'C',
    })
  }
  return { ...NOTHING_FOUND, findings, zoneReasons, leaveOutSpots }
}

/** What was found, before it is summed up. */
export type Found = Pick<
  Screening,
  | 'findings'
  | 'zoneReasons'
  | 'leaveOutSpots'
  | 'withGrainOnly'
  | 'onePass'
  | 'noFragrance'
  | 'wholeFrom'
  | 'unanswered'
  | 'toConfirm'
>

/** Sums up what was found: the verdict, the day, what stays. */
export function conclude(found: Found, today: IsoDate): Screening {
  const findings = [...found.findings].sort(
    (a, b) => SEVERITY_ORDER.indexOf(b.severity) - SEVERITY_ORDER.indexOf(a.severity),
  )
  const worst = findings[0]?.severity
  const postponing = findings.filter((f) => f.severity === 'postpone')
  const dated = postponing.every((f) => f.until !== undefined)
  // Several at once: the service waits for the last of them.
  const until = postponing.reduce((m, f) => (f.until && f.until > m ? f.until : m), today)
  return {
    ...found,
    verdict: verdictOf(worst, found.unanswered + found.toConfirm),
    findings,
    ...(worst === 'postpone' && dated && { until }),
    wouldChange: findings.flatMap((f) => f.wouldChange ?? []),
    leaveOutZones: Object.keys(found.zoneReasons) as ZoneId[],
  }
}

function verdictOf(worst: Severity | undefined, open: number): Verdict {
  if (worst === 'stop') return 'refer'
  if (worst === 'postpone') return 'postpone'
  if (open > 0) return 'not-asked'
  return worst === 'leave-out' ? 'leave-out' : 'go'
}

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
