/**
 * Where a worker misses: at each second look it is told which zones still had hair, by tapping the missed patches. Zone by zone
 * and kind of hair the share is drawn to the house's, and the worker's own to that of the others there, as a binomial share is
 * to its beta prior (Gelman et al., Bayesian Data Analysis, ch. 2.4; from memory). It orders the next second look; only counts are told.
 */
import { AGAIN, type ChairState } from '../chair/index.ts'
import { constant, type Figures } from '../house/index.ts'
import type { HairLayer } from '../hair/index.ts'
import { serviceIn, stepLanes, type Plan } from '../plan/index.ts'
import { SERVICES } from '../services/index.ts'
import type { Coarseness } from '../skin/index.ts'
import type { ZoneId } from '../zones/index.ts'

export const MISS_CONSTANTS = {
  share: constant(0.08, '', 'Share of worked zones with a missed patch at the second look', 'H'),
  houseWeight: constant(40, 'looks', 'Looks that this share counts as', 'H'),
  zoneWeight: constant(
    10,
    'looks',
    'Looks that the house’s share counts as in one zone and hair',
    'H',
  ),
  ownWeight: constant(6, 'looks', 'Looks that the others’ share there counts as for a worker', 'H'),
  leastMisses: constant(2, 'misses', 'A zone is told to be felt first from so many misses on', 'H'),
  worse: constant(1.5, '', 'And where the share is so many times that of the house at large', 'H'),
  mostTold: constant(5, 'zones', 'Zones told to be felt first, the most', 'H'),
} as const

const C = MISS_CONSTANTS

/** Hair as it is missed: fuzz, or terminal hair by how coarse it is. */
export type MissHair = Coarseness | 'fuzz'

/** What one second look found, by zone: the hair there, and whether a patch had been missed. */
export type SecondLook = Readonly<Partial<Record<ZoneId, readonly [hair: MissHair, missed: 0 | 1]>>>

/** What the house's second looks found in a zone and kind of hair. */
export interface MissSeen {
  /** Whether they were this worker's. */
  readonly own: boolean
  readonly zoneId: ZoneId
  readonly hair: MissHair
  readonly looks: number
  readonly missed: number
}

/** Who is worked on, as far as hair is missed by it. */
export interface MissedOn {
  readonly coarseness: Coarseness
  readonly hair: HairLayer
}

/** The hair that is worked in a zone. */
export const missHair = (
  plan: Pick<Plan, 'jobs' | 'service'>,
  on: MissedOn,
  zoneId: ZoneId,
): MissHair =>
  SERVICES[serviceIn(plan, zoneId)].family === 'fuzz'
    ? 'fuzz'
    : (on.hair[zoneId]?.coarseness ?? on.coarseness)

/**
 * What a service's second look tells of its worker.
 * @returns null where nobody looked
 */
export function secondLook(
  plan: Pick<Plan, 'jobs' | 'service' | 'steps' | 'lanes'>,
  state: Pick<ChairState, 'outcomes' | 'patchesLeft'>,
  on: MissedOn,
): SecondLook | null {
  const checks = plan.steps.filter((s) => s.kind === 'check')
  if (!checks.some((s) => state.outcomes[s.id] === 'done')) return null
  const lanes = new Map(plan.lanes.map((l) => [l.id, l]))
  const looked = new Map<ZoneId, 0 | 1>()
  for (const step of plan.steps) {
    if (step.kind !== 'stroke' || state.outcomes[step.id] !== 'done') continue
    for (const id of stepLanes(step)) {
      const lane = lanes.get(id)
      if (lane && !looked.has(lane.zoneId)) looked.set(lane.zoneId, 0)
    }
  }
  const missed = [
    ...plan.lanes.filter((l) => l.pass === AGAIN).map((l) => l.zoneId),
    ...state.patchesLeft.map((p) => p.zoneId),
  ]
  for (const zoneId of missed) if (looked.has(zoneId)) looked.set(zoneId, 1)
  return Object.fromEntries([...looked].map(([id, m]) => [id, [missHair(plan, on, id), m]]))
}

/** A zone to feel first at the second look, and why. */
export interface FeelFirst {
  readonly zoneId: ZoneId
  /** Of the worker's own looks there, or of the house's where they have none. */
  readonly whose: 'own' | 'house'
  readonly missed: number
  readonly looks: number
  /** The share that orders them. */
  readonly share: number
}

/**
 * The zones in which most is missed, the worst first: those well above what is missed in the house at large.
 * @param zones worked in this service, with the hair there
 */
export function feelFirst(
  figures: Figures,
  zones: readonly { readonly zoneId: ZoneId; readonly hair: MissHair }[],
  seen: readonly MissSeen[],
): FeelFirst[] {
  const add = (rows: readonly MissSeen[]) =>
    rows.reduce((a, r) => ({ looks: a.looks + r.looks, missed: a.missed + r.missed }), {
      looks: 0,
      missed: 0,
    })
  const drawn = (own: ReturnType<typeof add>, to: number, weight: number) =>
    (own.missed + weight * to) / (own.looks + weight)
  const house = drawn(add(seen), figures(C.share), figures(C.houseWeight))
  return zones
    .map(({ zoneId, hair }): FeelFirst => {
      const here = seen.filter((s) => s.zoneId === zoneId && s.hair === hair)
      const [own, others] = [add(here.filter((s) => s.own)), add(here.filter((s) => !s.own))]
      const share = drawn(own, drawn(others, house, figures(C.zoneWeight)), figures(C.ownWeight))
      return own.missed > 0
        ? { zoneId, whose: 'own', ...own, share }
        : { zoneId, whose: 'house', ...add(here), share }
    })
    .filter((f) => f.missed >= figures(C.leastMisses) && f.share > figures(C.worse) * house)
    .sort((a, b) => b.share - a.share)
    .slice(0, figures(C.mostTold))
}

/** "you 3 of 8 times" */
export const missWords = ({ whose, missed, looks }: FeelFirst): string =>
  `${whose === 'own' ? 'you' : 'the house'} ${missed} of ${looks} times`
