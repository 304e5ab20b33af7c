/** What a service of a client comes to, as planning back from an event asks for it. */
import type { Figures, Schools } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'
import type { ClientModel } from '../history/index.ts'
import { zoneName } from '../zones/index.ts'
import { BLADES } from '../kit/index.ts'
import { stubbleLeftMm, type Plan } from '../plan/index.ts'
import type { VisitWindow } from '../regrowth/index.ts'
import { serviceZones, SERVICES, type ServiceId } from '../services/index.ts'
import { LOAD_CONSTANTS } from '../skin/index.ts'
import { dateOf, dayWords } from '../time/index.ts'
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
  readonly plan?: Pick<Plan, 'zones' | 'totalMinutes'> | undefined
  readonly window?: Pick<VisitWindow, 'fromMs' | 'reasons'> | undefined
  readonly nowMs: number
  /** Minutes east of UTC at a moment. */
  readonly offset: (ms: number) => number
}

export function eventQuestion(
  figures: Figures,
  f: EventFacts,
  kind: EventKind,
  eventAtMs: number,
): EventQuestion {
  const { service, skin, model, window } = f
  const left = stubbleLeftMm(figures, 0, BLADES[SERVICES[service].blades[0]!].tool)
  const zones = f.plan
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
    minutes: f.plan?.totalMinutes ?? figures(SERVICES[service].slotMin),
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
    offset: f.offset,
  }
}
