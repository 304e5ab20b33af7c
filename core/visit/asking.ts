/** What asking finds, as findings of the visit: questions, rules, marks, the patch test, consent. */
import type { Figures } from '../house/index.ts'
import { consentText, patchWindow, type Finding, type Screening } from '../screening/index.ts'
import { dateAt, type IsoDate } from '../time/index.ts'
import type { Known, Lift, LiftedBy, VisitFinding } from './types.ts'

/** Questions without an answer, and answers of last time that nobody has confirmed. */
export function openQuestions({ unanswered, toConfirm }: Screening): VisitFinding[] {
  const out: VisitFinding[] = []
  if (unanswered > 0) {
    out.push({
      about: 'questions',
      id: 'unasked',
      severity: 'postpone',
      title: unanswered === 1 ? 'One question is open' : `${unanswered} questions are open`,
      text: 'Skin, health and medicines are not known yet: ask before anything is planned for good.',
      mark: 'C',
      holds: 'plan',
      lift: ['ask'],
      by: 'client',
    })
  }
  if (toConfirm > 0) {
    out.push({
      about: 'questions',
      id: 'still-so',
      severity: 'take-care',
      title:
        toConfirm === 1
          ? 'One answer is from last time'
          : `${toConfirm} answers are from last time`,
      text: 'Still so? One tap at Ask says it for all.',
      mark: 'C',
      holds: 'start',
      lift: ['ask'],
      by: 'client',
    })
  }
  return out
}

/** What a rule or a mark came to. */
export function ruleFinding(known: Known, f: Finding): VisitFinding {
  const spot = f.spotId !== undefined
  const holds = f.severity === 'postpone' || f.severity === 'stop' ? 'plan' : 'nothing'
  const { lift, by } = spot ? { lift: ['ask'] as const, by: 'worker' as const } : liftOf(known, f)
  return {
    about: spot ? 'mark' : 'rule',
    // A later day, or a graver answer, is another matter: a word given for this one does not lift it.
    id: spot ? f.ruleId : `rule:${f.ruleId}:${f.severity}${f.until ? `:${f.until}` : ''}`,
    severity: f.severity,
    title: f.reason,
    text: f.text,
    mark: f.mark,
    holds,
    lift,
    by,
    ...(f.until !== undefined && { until: f.until }),
  }
}

/**
 * Who may lift what a rule came to. A wait that is only an estimate of the house may be shortened by a practised worker who
 * has seen the skin; what is published, common practice, a clinician's or a guardian's is not theirs to lift.
 */
function liftOf({ asked }: Known, f: Finding): { lift: readonly Lift[]; by: LiftedBy } {
  if (f.severity === 'stop') return { lift: [], by: 'nobody' }
  if (f.severity !== 'postpone') return { lift: ['ask'], by: 'client' }
  if (f.ruleId === 'first-ever') {
    return { lift: asked.patchTest ? ['read-patch', 'wait'] : ['ask'], by: 'worker' }
  }
  if (f.ruleId === 'under-age') return { lift: ['sign'], by: 'guardian' }
  if (f.until === undefined) return { lift: ['ask', 'wait'], by: 'clinician' }
  return f.mark === 'H'
    ? { lift: ['wait', 'decide'], by: 'practised' }
    : { lift: ['wait'], by: 'nobody' }
}

/** Consent by the house's school: signed once and again when its text changes, or at every visit. */
export function consentFinding(known: Known, today: IsoDate): VisitFinding[] {
  const { schools, asked, jobs, offset, nowMs } = known
  if (schools.consent === 'none') return []
  const { consent } = asked
  const text = known.consentText || consentText(jobs)
  // A guardian signs: nobody's word stands in for that.
  const byWord = asked.answers['under-age']?.yes !== true
  const say = (title: string, why: string): VisitFinding[] => [
    {
      about: 'consent',
      id: 'consent',
      severity: 'take-care',
      title,
      text: byWord ? `${why} Or note that it was agreed by word of mouth, and why.` : why,
      mark: 'C',
      holds: 'start',
      lift: byWord ? ['sign', 'decide'] : ['sign'],
      by: byWord ? 'client' : 'guardian',
    },
  ]
  if (!consent) return say('Consent is not signed', 'It is signed at Ask, under Consent.')
  if (consent.asGuardian && byWord) {
    return say(
      'Consent is a guardian’s',
      'Nothing says that the client is under age: they sign themselves.',
    )
  }
  if (!consent.asGuardian && !byWord) {
    return say('Consent is the client’s own', 'They are under age: a guardian signs.')
  }
  if (consent.text !== text) {
    return say('The text of consent has changed', 'What was signed is another text: sign anew.')
  }
  if (
    schools.consent === 'each' &&
    dateAt(consent.signedAtMs, offset) !== today &&
    consent.signedAtMs < nowMs
  ) {
    return say('Consent is of an earlier visit', 'This house signs at every visit: sign anew.')
  }
  return []
}

/** Whether the patch test can be read now. */
export function patchReadable(
  figures: Figures,
  { asked: { patchTest }, nowMs }: Pick<Known, 'asked' | 'nowMs'>,
): boolean {
  const window = patchTest?.result === 'waiting' ? patchWindow(figures, patchTest) : undefined
  return window !== undefined && nowMs >= window.fromMs && nowMs <= window.untilMs
}
