/** "Feel first": a direction that was never read is felt at the chair before its first lane. */
import { DomainError } from '../errors.ts'
import {
  readingFromStroke,
  toDegrees,
  RELATION_CONSTANTS,
  strokeAngle,
  type StrokePoint,
} from '../grain/index.ts'
import { bearingOf, directionOf } from '../head/index.ts'
import { theZone, type ZoneId } from '../zones/index.ts'
import { constant, type Figures } from '../house/index.ts'
import { stepLanes, type Lane, type PlanStep } from '../plan/index.ts'
import type { ChairPlan, Felt, Live } from './state.ts'

export const FEEL_CONSTANTS = {
  agreesDeg: constant(
    20,
    '°',
    'Hair felt within this of the guess leaves the lanes of the zone as they are',
    'H',
  ),
} as const

const guessed = (plan: ChairPlan, zoneId: ZoneId | undefined): Lane[] =>
  (plan.lanes ?? []).filter((l) => l.zoneId === zoneId && l.grain === 'guess')

/** A place that is felt, and growth there. */
export interface ToFeel extends Pick<Felt, 'point' | 'normal' | 'tangent'> {
  readonly zoneId: ZoneId
}

/** Where a zone is felt, and the growth that is guessed there: at the largest lane that was guessed. */
export function toFeel(plan: ChairPlan, zoneId: ZoneId | undefined): ToFeel | undefined {
  const own = guessed(plan, zoneId)
  if (own.length === 0) return undefined
  const lane = own.reduce((a, b) => (b.areaCm2 > a.areaCm2 ? b : a))
  const { point, normal } = lane
  const tangent = directionOf(lane.zoneId, point, normal, lane.growthDirection)
  return { zoneId: lane.zoneId, point, normal, tangent }
}

/** What is felt, turned, radians clockwise as the worker sees it. */
export function turnedFelt(felt: ToFeel, by: number): ToFeel {
  const { zoneId, point, normal, tangent } = felt
  const bearing = bearingOf(zoneId, point, normal, tangent) + by
  return { ...felt, tangent: directionOf(zoneId, point, normal, bearing) }
}

/**
 * What is felt by a stroke over the head from root to tip.
 * @throws DomainError `other-zone` for a stroke elsewhere, and those of `readingFromStroke`
 */
export function feltByStroke(zoneId: ZoneId, stroke: readonly StrokePoint[]): ToFeel {
  const reading = readingFromStroke(stroke, { id: '', method: 'felt', atMs: 0 })
  if (reading.zoneId !== zoneId) {
    throw new DomainError('other-zone', `That stroke ran over ${theZone(reading.zoneId)}.`)
  }
  const { point, normal, tangent } = reading
  return { zoneId, point, normal, tangent }
}

/** How far what was felt lies from the growth that a lane was laid by, degrees. */
export function feltOff(felt: Pick<Felt, 'point' | 'normal' | 'tangent'>, lane: Lane): number {
  const bearing = bearingOf(lane.zoneId, felt.point, felt.normal, felt.tangent)
  return toDegrees(strokeAngle(bearing, lane.growthDirection))
}

/** The guessed lane that was felt: the one nearest to the place. */
function laneFelt(
  plan: ChairPlan,
  zoneId: ZoneId,
  { point }: Pick<Felt, 'point'>,
): Lane | undefined {
  const far = (l: Lane) => Math.hypot(...l.point.map((c, k) => c - point[k]!))
  return guessed(plan, zoneId).sort((a, b) => far(a) - far(b))[0]
}

/** How far what was felt lies from what is guessed at that place, degrees. */
export function feltFromGuess(
  plan: ChairPlan,
  zoneId: ZoneId,
  felt: Pick<Felt, 'point' | 'normal' | 'tangent'>,
): number {
  const lane = laneFelt(plan, zoneId, felt)
  return lane ? feltOff(felt, lane) : 0
}

/** Whether what was felt is another direction than was guessed there, so that the zone is laid anew. */
export function feltTurns(
  figures: Figures,
  plan: ChairPlan,
  zoneId: ZoneId,
  felt: Pick<Felt, 'point' | 'normal' | 'tangent'>,
): boolean {
  return feltFromGuess(plan, zoneId, felt) > figures(FEEL_CONSTANTS.agreesDeg)
}

/**
 * Why a lane may not be stroked yet for what is not known of its grain; undefined when it may. Where what was felt agrees
 * with the guess, the guess holds for the rest of the zone too.
 */
export function notFelt(
  figures: Figures,
  { plan, state }: Live<ChairPlan>,
  lane: Lane | undefined,
): 'feel-first' | 'felt-otherwise' | undefined {
  if (lane?.grain !== 'guess') return undefined
  const felt = state.felt[lane.zoneId]
  // Plans that were kept before there was anything to feel by go on as they are.
  if (!felt) return plan.steps.some((s) => s.kind === 'feel') ? 'feel-first' : undefined
  const at = laneFelt(plan, lane.zoneId, felt)
  const most = figures(RELATION_CONSTANTS.withUpToDeg)
  return at && feltOff(felt, at) > most ? 'felt-otherwise' : undefined
}

/** The lane of a step that may not be stroked yet, and why; one that was felt otherwise goes first, since it is laid anew. */
export function stepNotFelt(
  figures: Figures,
  live: Live<ChairPlan>,
  step: PlanStep | undefined,
): { readonly lane: Lane; readonly why: NonNullable<ReturnType<typeof notFelt>> } | undefined {
  const own = step ? stepLanes(step) : []
  const found = (live.plan.lanes ?? []).flatMap((lane) => {
    const why = own.includes(lane.id) ? notFelt(figures, live, lane) : undefined
    return why ? [{ lane, why }] : []
  })
  return found.find((f) => f.why === 'felt-otherwise') ?? found[0]
}
