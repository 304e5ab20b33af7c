/** The services of the trade that Slow Tide runs, with what they take off and where. */
import { constant } from './house/constants.ts'
import { isSkin, zoneStem, ZONE_IDS, type ZoneId, type ZoneStem } from './head/zones.ts'

export const SERVICE_IDS = ['face-shave', 'head-shave', 'dermaplane', 'facial-razor'] as const
export type ServiceId = (typeof SERVICE_IDS)[number]

/** Razor services cut terminal hair; fuzz services take vellus hair and dead skin. */
export type ServiceFamily = 'razor' | 'fuzz'

export interface Service {
  readonly id: ServiceId
  readonly name: string
  readonly family: ServiceFamily
  /** Usual time on the book, minutes. */
  readonly slotMin: number
  /** Zones worked, with the share of each that usually carries the hair. */
  readonly zones: Partial<Readonly<Record<ZoneStem, number>>>
}

export const SERVICE_CONSTANTS = {
  slotFaceShave: constant(45, 'min', 'Slot for a hot-towel face shave (30–45)', 'H'),
  slotHeadShave: constant(30, 'min', 'Slot for a hot-towel head shave, at most', 'C'),
  slotDermaplane: constant(40, 'min', 'Slot for dermaplaning (20–40)', 'H'),
  slotFacialRazor: constant(15, 'min', 'Slot for a guarded facial razor (3–15)', 'C'),
} as const

export const SERVICES: Readonly<Record<ServiceId, Service>> = {
  'face-shave': {
    id: 'face-shave',
    name: 'Hot-towel face shave',
    family: 'razor',
    slotMin: SERVICE_CONSTANTS.slotFaceShave.value,
    zones: {
      'cheek-upper': 0.35,
      'cheek-lower': 1,
      jaw: 1,
      chin: 1,
      'under-lip': 1,
      'upper-lip': 1,
      'mouth-corner': 1,
      'under-chin': 1,
      'under-chin-centre': 1,
      'neck-upper': 0.7,
      'neck-upper-centre': 1,
      'neck-lower': 0.2,
      'neck-lower-centre': 0.4,
    },
  },
  'head-shave': {
    id: 'head-shave',
    name: 'Hot-towel head shave',
    family: 'razor',
    slotMin: SERVICE_CONSTANTS.slotHeadShave.value,
    zones: {
      'scalp-front': 1,
      'scalp-mid': 1,
      'scalp-crown': 1,
      'scalp-side': 1,
      'scalp-behind-ear': 1,
      occiput: 1,
      nape: 0.6,
      'nape-centre': 0.6,
    },
  },
  dermaplane: {
    id: 'dermaplane',
    name: 'Dermaplaning of the face',
    family: 'fuzz',
    slotMin: SERVICE_CONSTANTS.slotDermaplane.value,
    zones: {
      forehead: 1,
      'forehead-centre': 1,
      temple: 0.7,
      glabella: 1,
      'cheek-upper': 1,
      'cheek-lower': 1,
      'nose-bridge': 1,
      'nose-side': 1,
      'upper-lip': 1,
      'mouth-corner': 1,
      'under-lip': 1,
      chin: 1,
      jaw: 1,
    },
  },
  'facial-razor': {
    id: 'facial-razor',
    name: 'Guarded facial razor',
    family: 'fuzz',
    slotMin: SERVICE_CONSTANTS.slotFacialRazor.value,
    zones: {
      forehead: 1,
      'forehead-centre': 1,
      glabella: 1,
      'cheek-upper': 1,
      'cheek-lower': 1,
      'upper-lip': 1,
      'mouth-corner': 1,
      chin: 1,
      jaw: 1,
    },
  },
}

/** Share of a zone that a service works, 0 when it does not. */
export function workedShare(service: ServiceId, zone: ZoneId): number {
  return SERVICES[service].zones[zoneStem(zone)] ?? 0
}

/** The zones of a service, in the order in which the service names them, the client's left before the right. */
export function serviceZones(service: ServiceId): readonly ZoneId[] {
  return ZONES_OF[service]
}

const ZONES_OF = Object.fromEntries(
  SERVICE_IDS.map((service) => [
    service,
    Object.keys(SERVICES[service].zones).flatMap((stem) =>
      ZONE_IDS.filter((id) => isSkin(id) && zoneStem(id) === stem),
    ),
  ]),
) as Record<ServiceId, ZoneId[]>
