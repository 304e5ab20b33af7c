/**
 * The one gate of a visit: may this go on, and what must be said first? From everything that is known. Ask, Plan, the
 * chair's ready screen, Today and the server's rules all ask here.
 */
import { DomainError } from '../errors.ts'
import { SEVERITY_ORDER } from '../services/index.ts'
import { conclude, screen, type Finding, type Screening } from '../screening/index.ts'
import { dateAt, type IsoDate } from '../time/index.ts'
import { consentFinding, openQuestions, ruleFinding } from './asking.ts'
import { changeOf, courseFinding, isNewcomer } from './trial.ts'
import { handFindings, planFindings, unreadFinding } from './readiness.ts'
import {
  aftermathFindings,
  homeFinding,
  nickFindings,
  tooSoonFinding,
  unsettledFindings,
} from './skin.ts'
import type { Decision, Gate, Holds, Known, VisitFinding } from './types.ts'

/** Looks at everything that is known of a visit. */
export function gate(known: Known): Gate {
  const { jobs, asked, schools, rules, nowMs, offset } = known
  const today = dateAt(nowMs, offset)
  const found = screen(
    known.figures,
    jobs,
    asked,
    schools,
    today,
    nowMs,
    offset,
    rules,
    known.trial,
  )
  const lifted = (list: readonly VisitFinding[]) => list.map((f) => liftedBy(f, known.decisions))
  const asking = lifted(found.findings.map((f) => ruleFinding(known, f)))
  const skin = lifted([
    ...aftermathFindings(known, today),
    ...unsettledFindings(known, today),
    ...tooSoonFinding(known, today),
    ...homeFinding(known, today),
    ...courseFinding(known, today),
    ...nickFindings(known, today),
  ])
  const screening = withSkin(
    {
      ...found,
      ...changeOf(found, skin, known),
      ...(isNewcomer(known) && { newcomer: true as const }),
    },
    asking,
    skin,
    today,
  )
  const rest = lifted([
    ...openQuestions(screening),
    ...consentFinding(known, today),
    ...unreadFinding(known),
    ...planFindings(known, screening),
    ...handFindings(known),
  ])
  const rank = (f: VisitFinding) => 10 * SEVERITY_ORDER.indexOf(f.severity) + HOLDS.indexOf(f.holds)
  return {
    findings: [...asking, ...skin, ...rest].sort((a, b) => rank(b) - rank(a)),
    screening,
  }
}

const HOLDS: readonly Holds[] = ['nothing', 'start', 'plan']

/** A finding with the word that lifts it, where a worker has given one. */
function liftedBy(f: VisitFinding, decisions: readonly Decision[]): VisitFinding {
  if (!f.lift.includes('decide')) return f
  const decided = decisions.find((d) => d.finding === f.id && d.takenBackAtMs === null)
  if (!decided) return f
  return {
    ...f,
    severity: 'take-care',
    holds: 'nothing',
    text: `${decided.workerName} has seen it and decided: ${decided.reason}`,
    decided,
  }
}

/** What asking comes to once the skin's own story and a worker's word are in it. */
function withSkin(
  found: Screening,
  asking: readonly VisitFinding[],
  skin: readonly VisitFinding[],
  today: IsoDate,
): Screening {
  const findings: Finding[] = found.findings.map((f, i) => {
    const { decided, severity } = asking[i]!
    if (!decided) return f
    const { until: _until, wouldChange: _change, ...rest } = f
    return { ...rest, severity, text: asking[i]!.text }
  })
  const zoneReasons = { ...found.zoneReasons }
  for (const f of skin) {
    if (f.severity === 'leave-out') {
      for (const zone of f.zones ?? []) zoneReasons[zone] ??= `${f.title}. Not yet seen calm.`
    }
    findings.push({
      ruleId: f.id,
      severity: f.severity,
      text: f.text,
      reason: f.title,
      mark: f.mark,
      ...(f.until !== undefined && f.severity === 'postpone' && { until: f.until }),
      ...(f.severity === 'postpone' && {
        wouldChange: `${f.title}: seen calm, or a practised worker’s word.`,
      }),
    })
  }
  return conclude({ ...found, findings, zoneReasons }, today)
}

/** Findings that hold back keeping a plan, or starting. */
export function holding(findings: readonly VisitFinding[], what: 'plan' | 'start'): VisitFinding[] {
  return findings.filter((f) => f.holds === 'plan' || (what === 'start' && f.holds === 'start'))
}

/** Why a plan may not be kept, or a service not started, in a sentence; undefined when it may. */
export function heldWords(
  findings: readonly VisitFinding[],
  what: 'plan' | 'start',
): string | undefined {
  const held = holding(findings, what)
  const [first] = held
  if (!first) return undefined
  const more =
    held.length === 1
      ? ''
      : ` And ${held.length - 1} more ${held.length === 2 ? 'stands' : 'stand'} in the way.`
  const act = what === 'plan' ? 'No plan is kept yet.' : 'The service does not begin yet.'
  return `${act} ${first.title}: ${first.text}${more}`
}

/**
 * Looks whether a worker's word may lift a finding.
 * @throws DomainError `no-such-finding`, `not-theirs-to-lift`, `practised-only`, `no-reason`
 */
export function checkDecision(
  findings: readonly VisitFinding[],
  id: string,
  worker: Known['worker'],
  reason: string,
): VisitFinding {
  const f = findings.find((x) => x.id === id)
  if (!f) {
    throw new DomainError(
      'no-such-finding',
      'That no longer stands in the way, or something has changed since. Look again; nothing was kept.',
    )
  }
  if (!f.lift.includes('decide')) {
    throw new DomainError(
      'not-theirs-to-lift',
      `${f.title}: this is not lifted by a worker’s word. Nothing was kept.`,
    )
  }
  if (f.by === 'practised' && worker?.level !== 'practised') {
    throw new DomainError(
      'practised-only',
      `${f.title}: only somebody practised may decide this. Nothing was kept.`,
    )
  }
  if (reason.trim().length < LEAST_REASON) {
    throw new DomainError('no-reason', 'Say in a few words why. Nothing was kept yet.')
  }
  return f
}

/** A reason is at least this many letters. */
export const LEAST_REASON = 3
