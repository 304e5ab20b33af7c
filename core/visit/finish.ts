/**
 * What ending a service leaves: for each job the loads, the hair left standing, what was chosen and the window told for the
 * next time; for the visit what happened to the skin, the first look, the care that goes home and what is sent.
 */
import {
  type CarePlan,
  messagesFor,
  type MessageDraft,
  type Product,
  sittingCare,
} from '../care/index.ts'
import {
  atChairOf,
  handDone,
  leftStanding,
  loadsGiven,
  zonesToLookAt,
  type ChairState,
} from '../chair/index.ts'
import type { SkinAndHair } from '../client.ts'
import type { HairLayer } from '../hair/index.ts'
import {
  choicesOf,
  type KeptHair,
  type LeftByJob,
  secondLook,
  type SecondLook,
  sumLoads,
  type VisitChoices,
  learnGrowth,
  readyAfter,
  windowAfter,
  type HomeWork,
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
import { isPlanned, type Job, jobName, jobsWords, jobZones } from '../services/index.ts'
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
  /** What Read noted of its hair, where it differs by zone. */
  readonly hairLayer?: HairLayer | undefined
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
  readonly trial?: true | undefined
  /** Load given, and hair left standing, mm, by zone. */
  readonly loads: Record<string, number>
  readonly leftMm: Record<string, number>
  /** What was chosen stroke by stroke; null of what is done by hand. */
  readonly choices: VisitChoices | null
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
  /** What its second look found; null where nobody looked. */
  readonly misses: SecondLook | null
  /** The first look as the first answer; undefined when nobody looked. */
  readonly firstLook: SkinAnswer | undefined
  readonly summary: AnswerSummary
  readonly care: CarePlan
  /** What waits to be sent. */
  readonly messages: readonly MessageDraft[]
}

/** What each job of a sitting really did: loads and hair left by zone, of strokes and of what was done by hand. */
function jobsDone(figures: Figures, { plan, state }: Ending): LeftByJob[] {
  const loads = loadsGiven(figures, plan, state)
  const left = leftStanding(figures, plan, state)
  const hand = handDone(plan, state)
  const of = (id: string, given: Readonly<Record<string, number>>) =>
    Object.fromEntries(
      plan.zones
        .filter((z) => z.jobId === id && given[z.zoneId] !== undefined)
        .map((z) => [z.zoneId, given[z.zoneId]!]),
    )
  return plan.jobs.map((job): LeftByJob => {
    const own = hand.find((h) => h.jobId === job.id)
    const trial = plan.trial && !own && { trial: true as const }
    if (!own) return { ...trial, ...job, loads: of(job.id, loads), leftMm: of(job.id, left) }
    const each = (value: number) =>
      Object.fromEntries(own.done ? own.zones.map((z) => [z, value]) : [])
    return { ...job, loads: each(own.load), leftMm: each(own.leftMm) }
  })
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
  const done = jobsDone(figures, ending)
  const loads = sumLoads(done)
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
  const { care, windows } = afterService(
    figures,
    {
      ...{ jobs: done, skin, schools, plan, products },
      ...{ endedAtMs, atChair, answers: firstLook ? [firstLook] : [] },
    },
    { ...house, offset },
    ending.hair,
    ending.skinOf,
  )
  const next = soonest(windows)
  return {
    endedAtMs,
    jobs: done.map((job): FinishedJob => {
      const window = windows.find((w) => w.jobId === job.id)?.window
      return {
        ...job,
        loads: { ...job.loads },
        leftMm: { ...job.leftMm },
        choices: isPlanned(job.method)
          ? choicesOf(
              {
                ...plan,
                service: job.service,
                lanes: plan.lanes.filter((l) => l.jobId === job.id),
              },
              state,
              bladeLifeStrokes(figures, job.service, skin),
            )
          : null,
        dueFromMs: window ? Math.round(window.fromMs) : null,
        dueToMs: window ? Math.round(window.toMs) : null,
      }
    }),
    atChair,
    pace: paceSeen(figures, plan, state.laneSeconds),
    misses: secondLook(plan, state, {
      coarseness: skin.coarseness,
      hair: ending.hairLayer ?? {},
    }),
    firstLook,
    summary: summariseAnswers(figures, endedAtMs, all, loads, atChair.redness),
    care: care!,
    messages: messagesFor({
      care: care!,
      what: jobsWords(plan.jobs),
      name: ending.calledName,
      house: house.name,
      neutral: schools.titles === 'neutral',
      ...(next && {
        nextFromMs: next.window.fromMs - DAY_MS,
        nextWhat: jobName(done.find((j) => j.id === next.jobId)!),
      }),
      when,
      offset,
    }),
  }
}

/** The window of a job's next time. */
export interface JobWindow {
  readonly jobId: string
  readonly window: VisitWindow
}

/** The window that opens first. */
export const soonest = (windows: readonly JobWindow[]): JobWindow | undefined =>
  windows.reduce<JobWindow | undefined>(
    (a, b) => (a && a.window.fromMs <= b.window.fromMs ? a : b),
    undefined,
  )

/** What a finished service gives to go by afterwards. */
export interface AfterFacts {
  readonly jobs: readonly LeftByJob[]
  readonly skin: SkinAndHair
  readonly schools: Schools
  readonly plan: Pick<Plan, 'schools' | 'noFragrance' | 'screening'> | null
  readonly endedAtMs: number
  readonly answers: readonly SkinAnswer[]
  readonly products: readonly string[]
  readonly atChair: AtChair
  /** What was taken off at home between this visit and the next. */
  readonly home?: readonly HomeWork[]
}

/** The care that goes home, and the window of each job's next time, as they stand with the answers so far. */
export function afterService(
  figures: Figures,
  f: AfterFacts,
  house: Omit<FinishingHouse, 'name'> & { readonly offset: Offset },
  hair: readonly KeptHair[],
  skinOf: SkinOf,
): { care: CarePlan | null; windows: JobWindow[] } {
  const { jobs, skin, schools, endedAtMs, plan, answers } = f
  const windows = jobs.flatMap((job): JobWindow[] => {
    const last = { ...job, endedAtMs, answers, redAtChair: f.atChair.redness }
    const window = windowAfter(
      figures,
      last,
      { skin, schools, closed: house.closed, offset: house.offset },
      learnGrowth(figures, skin, jobZones(job), hair),
      readyAfter(figures, last, skinOf, f.home, skin.coarseness),
      f.home,
    )
    return window ? [{ jobId: job.id, window }] : []
  })
  const shows = Math.min(...windows.map((w) => endedAtMs + w.window.seen.even * DAY_MS))
  return {
    windows,
    care: plan
      ? sittingCare(figures, jobs, skin, plan.schools, plan.noFragrance, endedAtMs, {
          products: house.products.filter((p) => f.products.includes(p.id)),
          atChair: f.atChair,
          newcomer: plan.screening.newcomer,
          hairShowsMs: Number.isFinite(shows) ? shows : undefined,
        })
      : null,
  }
}
