/**
 * What ending a service leaves: for each job the loads, the hair left standing, what was chosen and the window told for the
 * next time; for the visit what happened to the skin, the first look, the care that goes home and what is sent.
 */
import {
  type CarePlan,
  carePlan,
  messagesFor,
  type MessageDraft,
  type Product,
} from '../care/index.ts'
import {
  atChairOf,
  leftStanding,
  loadsGiven,
  zonesToLookAt,
  type ChairState,
} from '../chair/index.ts'
import type { SkinAndHair } from '../client.ts'
import {
  choicesOf,
  type KeptHair,
  type VisitChoices,
  learnGrowth,
  readyAfter,
  windowAfter,
} from '../history/index.ts'
import type { Schools, Figures } from '../house/index.ts'
import {
  type SkinAnswer,
  type AtChair,
  summariseAnswers,
  type AnswerSummary,
} from '../looks/index.ts'
import { bladeLifeStrokes, paceSeen, type Plan } from '../plan/index.ts'
import type { SkinOf, VisitWindow } from '../regrowth/index.ts'
import { type ServiceId, plannedJob, type Job } from '../services/index.ts'
import { type ClosedDays, DAY_MS, type Offset } from '../time/index.ts'

/** A house as far as the end of a service hangs on it. */
export interface FinishingHouse {
  readonly name: string
  readonly products: readonly Product[]
  readonly closed: ClosedDays
}

/** A service that has ended, and whom it was for. */
export interface Ending {
  /** As amended on the way. */
  readonly plan: Plan
  readonly state: ChairState
  readonly skin: SkinAndHair
  /** What the client is called in a message. */
  readonly calledName: string
  /** Ids of products that were used. */
  readonly products: readonly string[]
  /** Looks that are kept already: a service may be read off anew after something was taken back. */
  readonly answers: readonly SkinAnswer[]
  readonly hair: readonly KeptHair[]
  /** What was believed of the skin before this service. */
  readonly skinOf: SkinOf
}

/** A job as it is kept once it is done. */
export interface FinishedJob extends Job {
  /** Load given, and hair left standing, mm, by zone. */
  readonly loads: Record<string, number>
  readonly leftMm: Record<string, number>
  readonly choices: VisitChoices
  /** The window told for the next time; null when none can be. */
  readonly dueFromMs: number | null
  readonly dueToMs: number | null
}

/** Everything that ending a service writes. */
export interface Finished {
  readonly endedAtMs: number
  readonly jobs: readonly FinishedJob[]
  readonly atChair: AtChair
  /** What the service told of its worker's pace; null where it told nothing. */
  readonly pace: number | null
  /** The first look as the first answer; undefined when nobody looked. */
  readonly firstLook: SkinAnswer | undefined
  readonly summary: AnswerSummary
  readonly care: CarePlan
  /** What waits to be sent. */
  readonly messages: readonly MessageDraft[]
}

/** Reads off a finished service what is kept of it. */
export function finishService(
  figures: Figures,
  ending: Ending,
  house: FinishingHouse,
  when: (ms: number) => string,
  offset: Offset,
): Finished {
  const { plan, state, skin, products } = ending
  const endedAtMs = state.finishedAtMs!
  const job = plannedJob(plan.jobs)
  const loads = loadsGiven(figures, plan, state)
  const leftMm = leftStanding(figures, plan, state)
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
  const all = [
    ...(firstLook ? [firstLook] : []),
    ...ending.answers.filter((a) => a.moment !== 'now'),
  ]
  const { schools } = plan
  const { care, window } = afterService(
    figures,
    {
      ...{ service: plan.service, skin, schools, plan, products },
      ...{ endedAtMs, loads, leftMm, atChair, answers: firstLook ? [firstLook] : [] },
    },
    { ...house, offset },
    ending.hair,
    ending.skinOf,
  )
  return {
    endedAtMs,
    jobs: [
      {
        ...job,
        loads,
        leftMm,
        choices: choicesOf(plan, state, bladeLifeStrokes(figures, plan.service, skin)),
        dueFromMs: window ? Math.round(window.fromMs) : null,
        dueToMs: window ? Math.round(window.toMs) : null,
      },
    ],
    atChair,
    pace: paceSeen(figures, plan, state.laneSeconds),
    firstLook,
    summary: summariseAnswers(figures, endedAtMs, all, loads, atChair.redness),
    care: care!,
    messages: messagesFor({
      care: care!,
      service: plan.service,
      name: ending.calledName,
      house: house.name,
      nextFromMs: window ? window.fromMs - DAY_MS : undefined,
      when,
      offset,
    }),
  }
}

/** What a finished service gives to go by afterwards. */
export interface AfterFacts {
  readonly service: ServiceId
  readonly skin: SkinAndHair
  readonly schools: Schools
  readonly plan: Pick<Plan, 'schools' | 'noFragrance'> | null
  readonly endedAtMs: number
  readonly loads: Readonly<Record<string, number>> | null
  readonly leftMm: Readonly<Record<string, number>> | null
  readonly answers: readonly SkinAnswer[]
  readonly products: readonly string[]
  readonly atChair: AtChair
}

/** The care that goes home, and the window of the next visit, as they stand with the answers so far. */
export function afterService(
  figures: Figures,
  f: AfterFacts,
  house: Omit<FinishingHouse, 'name'> & { readonly offset: Offset },
  hair: readonly KeptHair[],
  skinOf: SkinOf,
): { care: CarePlan | null; window: VisitWindow | null } {
  const { service, skin, schools, endedAtMs, plan, loads, leftMm, answers } = f
  const last = { service, endedAtMs, loads, leftMm, answers, redAtChair: f.atChair.redness }
  const window = windowAfter(
    figures,
    last,
    { skin, schools, closed: house.closed, offset: house.offset },
    learnGrowth(figures, skin, service, hair),
    readyAfter(figures, last, skinOf),
  )
  return {
    window,
    care: plan
      ? carePlan(figures, service, skin, plan.schools, plan.noFragrance, endedAtMs, {
          products: house.products.filter((p) => f.products.includes(p.id)),
          atChair: f.atChair,
          hairShowsMs: window ? endedAtMs + window.seen.even * DAY_MS : undefined,
        })
      : null,
  }
}
