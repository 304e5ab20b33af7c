/**
 * How fast a worker strokes, learned from the lanes they did: the figure of the house is where everybody begins, and each
 * service that ends tells by how much theirs differs.
 */
import { constant, type Figures } from '../house/index.ts'
import { isBodyService, SERVICES, type ServiceId } from '../services/index.ts'
import { sum } from '../stats/index.ts'
import { PLAN_CONSTANTS } from './laneWork.ts'
import { serviceIn, stepLanes, type Lane, type Plan, type PlanStep, type Reason } from './types.ts'

export const PACE_CONSTANTS = {
  spread: constant(
    0.3,
    '',
    'Spread of workers about the figure of the house, of its logarithm',
    'H',
  ),
  scatter: constant(0.3, '', 'Scatter of one worker’s services about their own, the same', 'H'),
  oddLane: constant(
    3,
    '',
    'A lane that took so many times longer or shorter than planned was tapped late or early: it tells nothing',
    'H',
  ),
  leastLanes: constant(3, '', 'Lanes that a service needs to tell of its pace', 'H'),
  services: constant(30, '', 'Services, the latest ones, that a pace is learned from', 'H'),
} as const

const C = PACE_CONSTANTS

/** Work that is stroked at a pace of its own. */
export const PACE_KINDS = ['shave', 'fuzz', 'body'] as const
export type PaceKind = (typeof PACE_KINDS)[number]

/** @returns the kind of work that a service is */
export function paceKind(service: ServiceId): PaceKind {
  if (isBodyService(service)) return 'body'
  return SERVICES[service].family === 'fuzz' ? 'fuzz' : 'shave'
}

const RATE = {
  shave: PLAN_CONSTANTS.strokesPerSecond,
  fuzz: PLAN_CONSTANTS.strokesPerSecondFuzz,
  body: PLAN_CONSTANTS.strokesPerSecondBody,
} as const

/** What one service told: seconds its strokes took, over those of the default figure. */
export interface PaceSeen {
  readonly service: ServiceId
  readonly ratio: number
}

/** How long a worker's strokes take. */
export interface Pace {
  /** Seconds over those of the house's figure; 1 while nothing is known. */
  readonly ratio: number
  /** Services that it was learned from. */
  readonly services: number
}

export const NO_PACE: Pace = { ratio: 1, services: 0 }

/**
 * A worker's pace in a kind of work: the mean of their services' logarithms, drawn to the house's figure as a normal mean is
 * to its normal prior (Gelman et al., Bayesian Data Analysis, ch. 2.5; from memory).
 * @param seen the worker's finished services, the latest first
 */
export function paceOf(figures: Figures, kind: PaceKind, seen: readonly PaceSeen[]): Pace {
  const own = seen
    .filter((s) => paceKind(s.service) === kind && s.ratio > 0)
    .slice(0, figures(C.services))
  if (own.length === 0) return NO_PACE
  const rate = RATE[kind]
  const toHouse = Math.log(figures(rate) / rate.byDefault)
  const drawn = own.length / (own.length + (figures(C.scatter) / figures(C.spread)) ** 2)
  const log = drawn * (sum(own.map((s) => Math.log(s.ratio))) / own.length + toHouse)
  return { ratio: Math.exp(log), services: own.length }
}

/** Why strokes are timed as they are; nothing while the house's figure is all there is, or all but the same. */
export function paceReason(service: ServiceId, pace: Pace): Reason | undefined {
  if (pace.services === 0 || percentOff(pace) < LEAST_PERCENT) return undefined
  const words = paceWords(paceKind(service), pace)
  return { text: `Strokes are timed ${words} of this worker.`, mark: 'H' }
}

/** A pace in words: "12 % slower than the house’s figure, by the last 8 shaves". */
export function paceWords(kind: PaceKind, pace: Pace): string {
  const percent = percentOff(pace)
  const [one, many] = PACE_WORDS[kind]
  const from = `by the last ${pace.services === 1 ? one : `${pace.services} ${many}`}`
  return percent < LEAST_PERCENT
    ? `as the house’s figure says, ${from}`
    : `${percent} % ${pace.ratio > 1 ? 'slower' : 'quicker'} than the house’s figure, ${from}`
}

const percentOff = ({ ratio }: Pace) => Math.round(100 * Math.abs(ratio - 1))

/** A difference that nobody would notice is not told, %. */
const LEAST_PERCENT = 3

const PACE_WORDS: Readonly<Record<PaceKind, readonly [string, string]>> = {
  shave: ['shave', 'shaves'],
  fuzz: ['service on fuzz', 'services on fuzz'],
  body: ['body service', 'body services'],
}

/**
 * What a finished service tells of the pace of its worker: seconds of stroking over those of the default figure, of the lanes
 * that were gone through undisturbed. The changes of stance, turn and tool before a lane count as they were planned.
 * @param laneSeconds how long each such step took
 * @returns null where too few lanes tell of it
 */
export function paceSeen(
  figures: Figures,
  plan: Pick<Plan, 'jobs' | 'service' | 'steps' | 'lanes' | 'pace'>,
  laneSeconds: Readonly<Record<string, number>>,
): number | null {
  const byId = new Map<string, Lane>(plan.lanes.map((l) => [l.id, l]))
  const strokesOf = (step: PlanStep) => sum(stepLanes(step).map((id) => byId.get(id)?.seconds ?? 0))
  // Of a sitting the kind of its first job: each kind is stroked at its own pace.
  const own = plan.steps.filter(
    ({ zoneId }) =>
      zoneId !== undefined && paceKind(serviceIn(plan, zoneId)) === paceKind(plan.service),
  )
  const lanes = own.flatMap((step) => {
    const took = laneSeconds[step.id]
    const planned = strokesOf(step)
    if (took === undefined || planned <= 0) return []
    const whole = 60 * step.minutes
    const off = Math.abs(Math.log(took / whole))
    return off <= Math.log(figures(C.oddLane)) ? [{ took: took - (whole - planned), planned }] : []
  })
  if (lanes.length < figures(C.leastLanes)) return null
  const rate = RATE[paceKind(plan.service)]
  const ratio =
    ((sum(lanes.map((l) => l.took)) / sum(lanes.map((l) => l.planned))) *
      plan.pace *
      rate.byDefault) /
    figures(rate)
  return ratio > 0 ? ratio : null
}
