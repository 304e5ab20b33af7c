/** The services of the trade that Slow Tide runs: one record each, in the order in which they are offered. */
import { capital } from '../words.ts'
import type { Constant } from '../house/index.ts'
import { ALL_ZONE_IDS, isSkin, zoneStem, type ZoneId } from '../zones/index.ts'
import { backAndChest } from './backAndChest.ts'
import { beardLine } from './beardLine.ts'
import { bodyShave } from './bodyShave.ts'
import { browTidy } from './browTidy.ts'
import { dermaplane } from './dermaplane.ts'
import { facialRazor } from './facialRazor.ts'
import { faceShave } from './faceShave.ts'
import { headShave } from './headShave.ts'
import type { Service } from './service.ts'

const LIST = [
  faceShave,
  headShave,
  dermaplane,
  facialRazor,
  beardLine,
  bodyShave,
  backAndChest,
  browTidy,
] as const satisfies readonly Service[]

export type ServiceId = (typeof LIST)[number]['id']
export const SERVICE_IDS: readonly ServiceId[] = LIST.map((s) => s.id)
export const isServiceId = (id: string): id is ServiceId => LIST.some((s) => s.id === id)

/** Every service by its id. */
export const SERVICES = Object.fromEntries(LIST.map((s: Service) => [s.id, s])) as Readonly<
  Record<ServiceId, Service>
>

/** The usual time of each service on the book, as the house may change it. */
export const SLOT_CONSTANTS: Readonly<Record<string, Constant>> = Object.fromEntries(
  LIST.map((s) => [`slot${pascal(s.id)}`, s.slotMin]),
)

/** What each service costs by the house's list. */
export const PRICE_CONSTANTS: Readonly<Record<string, Constant>> = Object.fromEntries(
  LIST.map((s) => [`price${pascal(s.id)}`, s.price]),
)

function pascal(id: string): string {
  return id.split('-').map(capital).join('')
}

/** True where a visit takes place on the flat outlines of the body, not on the head. */
export function isBodyService(service: ServiceId): boolean {
  return SERVICES[service].ground === 'body'
}

/** Share of a zone that a service works, 0 when it does not. */
export function workedShare(service: ServiceId, zone: ZoneId): number {
  return SERVICES[service].zones[zoneStem(zone)]?.share ?? 0
}

/** The zones of a whole service, in the order in which the service names them, the client's left before the right. */
export function serviceZones(service: ServiceId): readonly ZoneId[] {
  return ZONES_OF[service]
}

/** The same with those that are worked only where they are asked for. */
export function zonesToChoose(service: ServiceId): readonly ZoneId[] {
  return ALL_OF[service]
}

const ALL_OF = Object.fromEntries(
  LIST.map((service) => [
    service.id,
    Object.keys(service.zones).flatMap((stem) =>
      ALL_ZONE_IDS.filter((id) => isSkin(id) && zoneStem(id) === stem),
    ),
  ]),
) as Record<ServiceId, ZoneId[]>

const ZONES_OF = Object.fromEntries(
  LIST.map(({ id, zones }: Service) => [
    id,
    ALL_OF[id as ServiceId].filter((z) => !zones[zoneStem(z)]!.byWish),
  ]),
) as Record<ServiceId, ZoneId[]>
