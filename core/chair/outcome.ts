/** What a service leaves behind: the load it gave and the hair it left standing. */
import type { Figures } from '../house/index.ts'
import { strokeAngle } from '../grain/index.ts'
import {
  type HandWork,
  stepZones,
  stubbleLeftMm,
  zonesOfPlan,
  type Lane,
  type Plan,
  type ZonePlan,
} from '../plan/index.ts'
import type { ZoneId } from '../zones/index.ts'
import { LOAD_CONSTANTS } from '../skin/index.ts'
import type { AtChair } from '../looks/index.ts'
import type { Nick, ChairState } from './state.ts'

type Outcomes = ChairState['outcomes']

/** Worst redness that was noted at the chair, by zone. */
export function redAtChair(state: Pick<ChairState, 'redness'>): Record<string, number> {
  const worst: Record<string, number> = {}
  for (const r of state.redness) {
    // Old screens could tell of redness without its place.
    if (r.zoneId) worst[r.zoneId] = Math.max(worst[r.zoneId] ?? 0, r.grade)
  }
  return worst
}

/** A zone of which less than this share of the first pass was done was left out. */
const MOSTLY = 0.5

/** What was done by hand, job by job: its method's load and what it left, on the zones that its step still had. */
export function handDone(
  plan: Pick<Plan, 'steps' | 'hand'>,
  { outcomes }: Pick<ChairState, 'outcomes'>,
): (HandWork & { readonly done: boolean })[] {
  return (plan.hand ?? []).map((work) => {
    const step = plan.steps.find((s) => s.kind === 'hand' && s.jobId === work.jobId)
    return {
      ...work,
      zones: step ? stepZones(step) : work.zones,
      done: step !== undefined && outcomes[step.id] === 'done',
    }
  })
}

/** Zones that were planned and not worked, with the reason as it was told. */
function leftOutAtChair(plan: Pick<Plan, 'zones' | 'lanes' | 'steps' | 'hand'>, state: ChairState) {
  const out: Record<string, string> = {}
  for (const { jobId, zones, done } of handDone(plan, state)) {
    if (done) continue
    for (const zone of zones)
      out[zone] = state.skipReasons[`hand:${jobId}`] || 'left during the service'
  }
  for (const zone of plan.zones) {
    const first = plan.lanes.filter((l) => l.zoneId === zone.zoneId && l.pass === 1)
    const area = first.reduce((s, l) => s + l.areaCm2, 0)
    const done = first.reduce(
      (s, l) => s + (state.outcomes[l.stepId ?? l.id] === 'done' ? l.areaCm2 : 0),
      0,
    )
    if (area === 0 || done >= MOSTLY * area) continue
    const told = first.map((l) => state.skipReasons[l.stepId ?? l.id]).find(Boolean)
    out[zone.zoneId] = state.redness.some((r) => r.zoneId === zone.zoneId)
      ? 'it reddened'
      : (told ?? 'left during the service')
  }
  return out
}

/** What of a service stays with the skin. */
export function atChairOf(
  plan: Pick<Plan, 'zones' | 'lanes' | 'steps' | 'hand'>,
  state: ChairState,
): AtChair {
  const nicks: Record<string, number> = {}
  const nickMm: Record<string, number> = {}
  for (const nick of state.nicks) {
    const zone = nickZone(plan, nick) ?? ''
    nicks[zone] = (nicks[zone] ?? 0) + 1
    if (nick.sizeMm !== undefined) nickMm[zone] = Math.max(nickMm[zone] ?? 0, nick.sizeMm)
  }
  return {
    redness: redAtChair(state),
    leftOut: leftOutAtChair(plan, state),
    nicks,
    ...(Object.keys(nickMm).length > 0 && { nickMm }),
  }
}

/** Zones to look at afterwards: all that were planned, and wherever something happened. */
export function zonesToLookAt(
  plan: Pick<Plan, 'zones' | 'hand'> | null,
  loads: Readonly<Record<string, number>> | null,
  atChair: AtChair,
): string[] {
  return [
    ...new Set([
      ...(plan ? zonesOfPlan(plan) : []),
      ...Object.keys(loads ?? {}),
      ...Object.keys(atChair.redness),
      ...Object.keys(atChair.nicks),
    ]),
  ].filter((zone) => zone !== '')
}

/** Lanes of a zone that were done. */
const doneLanes = (plan: Pick<Plan, 'lanes'>, zone: ZonePlan, outcomes: Outcomes) =>
  plan.lanes.filter((l) => l.zoneId === zone.zoneId && outcomes[l.stepId ?? l.id] === 'done')

/** Plans of the first version had no lanes: a zone was done pass by pass. */
const donePasses = (zone: ZonePlan, outcomes: Outcomes) =>
  zone.passes.filter((p) => outcomes[`${zone.zoneId}:${p.pass}`] === 'done')

/**
 * Load that a service gave, as it is learned from: where skin reddened before a whole lane was done, it comes of about one
 * stroke's load.
 */
export function loadsGiven(
  figures: Figures,
  plan: Pick<Plan, 'zones' | 'lanes'>,
  state: Pick<ChairState, 'outcomes' | 'redness'>,
): Record<string, number> {
  const loads = executedLoads(plan, state.outcomes)
  // Where no blade was planned there is no load to learn from, however red it is.
  const planned = new Set<string>(plan.zones.map((z) => z.zoneId))
  for (const zone of Object.keys(redAtChair(state)).filter((z) => planned.has(z))) {
    loads[zone] = Math.max(loads[zone] ?? 0, figures(LOAD_CONSTANTS.withGrain))
  }
  return loads
}

/** Load really given to each zone, over its worked area: the lanes that were done. */
export function executedLoads(
  plan: Pick<Plan, 'zones' | 'lanes'>,
  outcomes: Outcomes,
): Record<string, number> {
  const loads: Record<string, number> = {}
  for (const zone of plan.zones) {
    const load =
      plan.lanes.length > 0
        ? doneLanes(plan, zone, outcomes).reduce(
            (s, l) => s + (l.load * l.areaCm2) / zone.areaCm2,
            0,
          )
        : donePasses(zone, outcomes).reduce((s, p) => s + p.load, 0)
    if (load > 0) loads[zone.zoneId] = load
  }
  return loads
}

/** Hair left standing in each zone by the lanes that were done, mm: of each patch the least, over the patches their mean. */
export function leftStanding(
  figures: Figures,
  plan: Pick<Plan, 'zones' | 'lanes'>,
  state: Pick<ChairState, 'outcomes'>,
): Record<string, number> {
  const left: Record<string, number> = {}
  for (const zone of plan.zones) {
    if (plan.lanes.length === 0) {
      const done = donePasses(zone, state.outcomes)
      if (done.length === 0) continue
      left[zone.zoneId] = Math.min(
        ...done.map((p) =>
          stubbleLeftMm(figures, strokeAngle(p.strokeBearing, zone.growthDirection), 'single-edge'),
        ),
      )
      continue
    }
    const patches = new Map<string, Lane>()
    for (const lane of doneLanes(plan, zone, state.outcomes)) {
      const had = patches.get(lane.letter)
      if (!had || lane.leftMm < had.leftMm) patches.set(lane.letter, lane)
    }
    if (patches.size === 0) continue
    const all = [...patches.values()]
    left[zone.zoneId] =
      all.reduce((s, l) => s + l.leftMm * l.areaCm2, 0) / all.reduce((s, l) => s + l.areaCm2, 0)
  }
  return left
}

/** Zone of a nick: where it was tapped, else where the lane was that was being worked. */
export const nickZone = (
  plan: Pick<Plan, 'lanes' | 'steps'> | null,
  nick: Pick<Nick, 'zoneId' | 'stepId'>,
): ZoneId | undefined =>
  nick.zoneId ??
  plan?.steps.find((s) => s.id === nick.stepId)?.zoneId ??
  plan?.lanes.find((l) => l.id === nick.stepId)?.zoneId
