/** The services of the trade that Slow Tide runs, with what they take off and where. */
import { constant, type Constant } from '../house/constants.ts'
import { ALL_ZONE_IDS, isSkin, zoneStem, type ZoneId, type ZoneStem } from '../zones/zones.ts'

export const SERVICE_IDS = [
  'face-shave',
  'head-shave',
  'dermaplane',
  'facial-razor',
  'beard-line',
  'body-shave',
  'brow-tidy',
] as const
export type ServiceId = (typeof SERVICE_IDS)[number]

/** Razor services cut terminal hair; fuzz services take vellus hair and dead skin. */
export type ServiceFamily = 'razor' | 'fuzz'

/** What part of a zone is worked: a share of its area, counted from one edge. */
export interface Worked {
  readonly share: number
  /** The edge the share is counted from; of a whole zone it does not matter. */
  readonly from: 'top' | 'bottom' | 'front'
}

export interface Service {
  readonly id: ServiceId
  readonly name: string
  readonly family: ServiceFamily
  /** Usual time on the book, minutes. */
  readonly slotMin: Constant
  /** Zones worked, with the part of each that usually carries the hair. */
  readonly zones: Partial<Readonly<Record<ZoneStem, Worked>>>
}

export const SERVICE_CONSTANTS = {
  slotFaceShave: constant(45, 'min', 'Slot for a hot-towel face shave (30–45)', 'H'),
  slotHeadShave: constant(30, 'min', 'Slot for a hot-towel head shave, at most', 'C'),
  slotDermaplane: constant(40, 'min', 'Slot for dermaplaning (20–40)', 'H'),
  slotFacialRazor: constant(15, 'min', 'Slot for a guarded facial razor (3–15)', 'C'),
  slotBeardLine: constant(20, 'min', 'Slot for a beard line-up', 'H'),
  slotBodyShave: constant(40, 'min', 'Slot for a body shave (20–40)', 'H'),
  slotBrowTidy: constant(10, 'min', 'Slot for tidying round the brows', 'H'),
} as const

const WHOLE: Worked = { share: 1, from: 'top' }
const part = (share: number, from: Worked['from']): Worked => ({ share, from })
const whole = (...stems: ZoneStem[]) =>
  Object.fromEntries(stems.map((s) => [s, WHOLE])) as Partial<Record<ZoneStem, Worked>>
const S = SERVICE_CONSTANTS

export const SERVICES: Readonly<Record<ServiceId, Service>> = {
  'face-shave': {
    id: 'face-shave',
    name: 'Hot-towel face shave',
    family: 'razor',
    slotMin: S.slotFaceShave,
    zones: {
      'cheek-upper': part(0.35, 'bottom'),
      ...whole('cheek-lower', 'jaw', 'chin', 'under-lip', 'upper-lip', 'mouth-corner'),
      ...whole('under-chin', 'under-chin-centre'),
      'neck-upper': part(0.7, 'front'),
      'neck-upper-centre': WHOLE,
      'neck-lower': part(0.2, 'top'),
      'neck-lower-centre': part(0.4, 'top'),
    },
  },
  'head-shave': {
    id: 'head-shave',
    name: 'Hot-towel head shave',
    family: 'razor',
    slotMin: S.slotHeadShave,
    zones: {
      ...whole('scalp-front', 'scalp-mid', 'scalp-crown', 'scalp-side', 'scalp-behind-ear'),
      occiput: WHOLE,
      nape: part(0.6, 'top'),
      'nape-centre': part(0.6, 'top'),
    },
  },
  dermaplane: {
    id: 'dermaplane',
    name: 'Dermaplaning of the face',
    family: 'fuzz',
    slotMin: S.slotDermaplane,
    zones: {
      ...whole('forehead', 'forehead-centre'),
      temple: part(0.7, 'front'),
      ...whole('glabella', 'cheek-upper', 'cheek-lower', 'nose-bridge', 'nose-side'),
      ...whole('upper-lip', 'mouth-corner', 'under-lip', 'chin', 'jaw'),
    },
  },
  'facial-razor': {
    id: 'facial-razor',
    name: 'Guarded facial razor',
    family: 'fuzz',
    slotMin: S.slotFacialRazor,
    zones: whole(
      'forehead',
      'forehead-centre',
      'glabella',
      'cheek-upper',
      'cheek-lower',
      'upper-lip',
      'mouth-corner',
      'chin',
      'jaw',
    ),
  },
  'beard-line': {
    id: 'beard-line',
    name: 'Beard line-up',
    family: 'razor',
    slotMin: S.slotBeardLine,
    zones: whole(
      'cheek-upper',
      'cheek-lower',
      'sideburn',
      'temple',
      'upper-lip',
      'mouth-corner',
      'under-lip',
      'jaw',
      'under-chin',
      'under-chin-centre',
      'neck-upper',
      'neck-upper-centre',
      'neck-lower',
      'neck-lower-centre',
    ),
  },
  'body-shave': {
    id: 'body-shave',
    name: 'Body shave',
    family: 'razor',
    slotMin: S.slotBodyShave,
    zones: whole(
      'underarm',
      'upper-arm',
      'forearm',
      'thigh-front',
      'knee',
      'shin',
      'thigh-back',
      'calf',
    ),
  },
  'brow-tidy': {
    id: 'brow-tidy',
    name: 'Brow tidy',
    family: 'fuzz',
    slotMin: S.slotBrowTidy,
    zones: {
      glabella: WHOLE,
      forehead: part(0.18, 'bottom'),
      brow: part(0.2, 'bottom'),
    },
  },
}

/** Services that a visit of this kind takes place on: the head, or the flat outlines of arms and legs. */
export function isBodyService(service: ServiceId): boolean {
  return service === 'body-shave'
}

/** Share of a zone that a service works, 0 when it does not. */
export function workedShare(service: ServiceId, zone: ZoneId): number {
  return SERVICES[service].zones[zoneStem(zone)]?.share ?? 0
}

/** The zones of a service, in the order in which the service names them, the client's left before the right. */
export function serviceZones(service: ServiceId): readonly ZoneId[] {
  return ZONES_OF[service]
}

const ZONES_OF = Object.fromEntries(
  SERVICE_IDS.map((service) => [
    service,
    Object.keys(SERVICES[service].zones).flatMap((stem) =>
      ALL_ZONE_IDS.filter((id) => isSkin(id) && zoneStem(id) === stem),
    ),
  ]),
) as Record<ServiceId, ZoneId[]>
