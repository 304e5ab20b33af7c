/** What a service of a client comes to, as planning back from an event asks for it. */
import type { Figures, Schools } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'
import type { ClientModel } from '../history/index.ts'
import { zoneName } from '../zones/index.ts'
import { BLADES } from '../kit/index.ts'
import { stubbleLeftMm, type Plan, type PlanFront } from '../plan/index.ts'
import type { VisitWindow } from '../regrowth/index.ts'
import { serviceZones, SERVICES, type ServiceId } from '../services/index.ts'
import { LOAD_CONSTANTS } from '../skin/index.ts'
import { type ClosedDays, dateOf, dayWords } from '../time/index.ts'
import { carePlan, type Product } from '../care/index.ts'
import type { EventQuestion } from './backPlan.ts'
import type { EventKind } from './eventKinds.ts'

export interface EventFacts {
  readonly service: ServiceId
  readonly skin: SkinAndHair
  readonly model: Pick<ClientModel, 'sensitivity' | 'growth' | 'fading'>
  readonly schools: Schools
  readonly noFragrance: boolean
  readonly products: readonly Product[]
  /** The plan of such a service; what a pass with the grain would be when there is none. */
  readonly plan?: Pick<Plan, 'zones' | 'totalMinutes' | 'front'> | undefined
  readonly window?: Pick<VisitWindow, 'fromMs' | 'reasons'> | undefined
  readonly nowMs: number
  readonly closed: ClosedDays
  /** Minutes east of UTC at a moment. */
  readonly offset: (ms: number) => number
}

/** A plan of the front as an event asks of it: how long it takes, and what it does to each zone. */
function pointOf(front: PlanFront | undefined, point: number | undefined) {
  const p = point === undefined ? undefined : front?.points[point]
  if (!p?.skin || !front?.zones) return undefined
  return {
    totalMinutes: p.minutes,
    zones: front.zones.flatMap((zoneId, i) => {
      const own = p.skin![i]
      return own ? [{ zoneId, load: own[0], leftMm: own[1] }] : []
    }),
  }
}

/** How many plans of the front planning back can try; none where the plan was kept before they were told. */
export const pointsToTry = ({ plan }: Pick<EventFacts, 'plan'>): number =>
  plan?.front?.zones ? plan.front.points.length : 0

/** @param point a plan of the front instead of the plan itself */
export function eventQuestion(
  figures: Figures,
  f: EventFacts,
  kind: EventKind,
  eventAtMs: number,
  point?: number,
): EventQuestion {
  const { service, skin, model, window } = f
  const left = stubbleLeftMm(figures, 0, BLADES[SERVICES[service].blades[0]!].tool)
  const tried = pointOf(f.plan?.front, point)
  const zones = tried
    ? tried.zones
    : f.plan
      ? f.plan.zones.map((z) => ({
          zoneId: z.zoneId,
          load: z.totalLoad,
          leftMm: z.passes[z.passes.length - 1]?.leftMm ?? left,
        }))
      : serviceZones(service).map((zoneId) => ({
          zoneId,
          load: figures(LOAD_CONSTANTS.withGrain),
          leftMm: left,
        }))
  const care = carePlan(figures, service, skin, f.schools, f.noFragrance, 0, {
    products: f.products,
  })
  const day = (ms: number) => dayWords(dateOf(ms, f.offset(ms)))
  return {
    kind,
    eventAtMs,
    nowMs: f.nowMs,
    minutes: tried?.totalMinutes ?? f.plan?.totalMinutes ?? figures(SERVICES[service].slotMin),
    zones: zones
      .filter((z) => model.sensitivity[z.zoneId] && model.growth[z.zoneId])
      .map((z) => ({
        ...z,
        name: zoneName(z.zoneId),
        sensitivity: model.sensitivity[z.zoneId]!,
        growth: model.growth[z.zoneId]!,
      })),
    fading: model.fading,
    clearances: care.clearances,
    ...(window && {
      notBeforeMs: window.fromMs,
      notBeforeWhy: `The skin is ready again from ${day(window.fromMs)}: ${window.reasons[0]?.text ?? ''}`,
    }),
    closed: f.closed,
    offset: f.offset,
  }
}
