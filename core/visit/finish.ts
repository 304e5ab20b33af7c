/** What ending a service leaves: loads, hair left standing, what happened to the skin, the first look, what was chosen. */
import type { Figures } from '../house/constants.ts'
import type { AtChair } from '../looks/atChair.ts'
import { atChairOf, leftStanding, loadsGiven, zonesToLookAt } from '../chair/outcome.ts'
import type { ChairState } from '../chair/state.ts'
import type { SkinAndHair } from '../client.ts'
import { summariseAnswers, type AnswerSummary } from '../looks/summary.ts'
import { choicesOf, type VisitChoices } from '../history/choices.ts'
import type { SkinAnswer } from '../looks/answers.ts'
import { bladeLifeStrokes } from '../plan/tools.ts'
import type { Plan } from '../plan/types.ts'

export interface Finished {
  readonly endedAtMs: number
  readonly loads: Record<string, number>
  readonly leftMm: Record<string, number>
  readonly atChair: AtChair
  /** The first look as the first answer; undefined when nobody looked. */
  readonly firstLook: SkinAnswer | undefined
  readonly choices: VisitChoices
  readonly summary: AnswerSummary
}

/**
 * Reads off a finished service what is kept of it.
 * @param answers looks that are kept already: a service may be looked at anew after something was taken back
 */
export function finishService(
  figures: Figures,
  plan: Plan,
  state: ChairState,
  skin: SkinAndHair,
  answers: readonly SkinAnswer[] = [],
): Finished {
  const endedAtMs = state.finishedAtMs!
  const loads = loadsGiven(figures, plan, state)
  const atChair = atChairOf(plan, state)
  const worth = new Set(zonesToLookAt(plan, loads, atChair))
  const firstLook: SkinAnswer | undefined = state.looked && {
    moment: 'now',
    atMs: endedAtMs,
    zones: state.looked
      .filter((z) => worth.has(z.zoneId) && z.redness > 0)
      .map((z) => ({ ...z, bumps: 0 })),
    source: 'seen',
  }
  const all = [...(firstLook ? [firstLook] : []), ...answers.filter((a) => a.moment !== 'now')]
  return {
    endedAtMs,
    loads,
    leftMm: leftStanding(figures, plan, state),
    atChair,
    firstLook,
    choices: choicesOf(plan, state, bladeLifeStrokes(figures, plan.service, skin)),
    summary: summariseAnswers(figures, endedAtMs, all, loads, atChair.redness),
  }
}
