/** What a client answers on the link page, in six questions, and what it comes to zone by zone. */
import {
  BODY_AREAS,
  BODY_STEMS,
  bodyZone,
  zoneStem,
  type ZoneId,
  type ZoneStem,
} from '../zones/index.ts'
import { constant } from '../house/index.ts'
import type { Feeling, HairKindTold, ZoneAnswer } from './answers.ts'

export const FOLLOW_CONSTANTS = {
  linkDays: constant(15, 'days', 'The link page of a visit closes so long after the service', 'H'),
} as const

/** A place as a client names it, and the zones that it holds. */
interface Area {
  readonly name: string
  readonly stems: readonly ZoneStem[]
}

const HEAD_AREAS = {
  forehead: {
    name: 'forehead and brows',
    stems: ['forehead', 'forehead-centre', 'temple', 'glabella', 'brow'],
  },
  nose: {
    name: 'nose and under the eyes',
    stems: ['nose-bridge', 'nose-tip', 'nose-side', 'under-eye'],
  },
  cheeks: { name: 'cheeks', stems: ['cheek-upper', 'cheek-lower', 'sideburn'] },
  lip: { name: 'upper lip and corners of the mouth', stems: ['upper-lip', 'mouth-corner'] },
  chin: { name: 'chin', stems: ['chin', 'under-lip'] },
  jaw: { name: 'along the jaw', stems: ['jaw'] },
  neck: {
    name: 'neck and under the chin',
    stems: [
      'under-chin',
      'under-chin-centre',
      'neck-upper',
      'neck-upper-centre',
      'neck-lower',
      'neck-lower-centre',
    ],
  },
  scalp: {
    name: 'top and sides of the head',
    stems: ['scalp-front', 'scalp-mid', 'scalp-crown', 'scalp-side', 'scalp-behind-ear', 'occiput'],
  },
  nape: { name: 'back of the neck', stems: ['nape', 'nape-centre', 'neck-back'] },
} as const satisfies Record<string, Area>

export type AreaId = keyof typeof HEAD_AREAS | keyof typeof BODY_AREAS

const ofBody = Object.entries(BODY_AREAS).map(([id, name]) => [
  id,
  { name, stems: BODY_STEMS.filter((stem) => bodyZone(stem).area === id) },
])
export const AREAS = { ...HEAD_AREAS, ...Object.fromEntries(ofBody) } as Record<AreaId, Area>
export const AREA_IDS = Object.keys(AREAS) as AreaId[]

/** Worked zones of an area. */
export const zonesOfArea = (area: AreaId, worked: readonly string[]): string[] =>
  worked.filter((z) => AREAS[area].stems.includes(zoneStem(z as ZoneId)))

/** Areas that a service worked on, in the order in which they are asked. */
export const areasWorked = (worked: readonly string[]): AreaId[] =>
  AREA_IDS.filter((area) => zonesOfArea(area, worked).length > 0)

/** The six questions, answered. */
export interface ClientAnswer {
  /** Worst redness, 0 to 4. */
  readonly redness: number
  readonly areas: readonly AreaId[]
  readonly bumps: number
  readonly pus: boolean
  /** It spreads, is hot, or the client feels ill. */
  readonly spreading: boolean
  readonly stinging: number
  readonly itch: number
  readonly dryness: number
  readonly hair: 'no' | 'felt' | 'seen'
  /** Days since it was first noticed. */
  readonly since: number
  readonly words: string
}

/**
 * Spreads what was said of areas over the worked zones: the redness on each zone named, bumps evenly over them, the first ones
 * taking what does not divide. Without an area named it speaks for every worked zone.
 */
export function answerByZone(
  a: ClientAnswer,
  worked: readonly string[],
): { zones: ZoneAnswer[]; feeling: Feeling } {
  const named = a.areas.flatMap((area) => zonesOfArea(area, worked))
  const zones = named.length > 0 ? named : [...worked]
  const share = (i: number) =>
    Math.floor(a.bumps / zones.length) + (i < a.bumps % zones.length ? 1 : 0)
  return {
    zones: zones
      .map((zoneId, i) => ({
        zoneId,
        redness: a.redness,
        bumps: a.pus ? 0 : share(i),
        ...(a.pus && share(i) > 0 && { pustules: share(i) }),
      }))
      .filter((z) => z.redness > 0 || z.bumps > 0 || (z.pustules ?? 0) > 0),
    feeling: {
      stinging: a.stinging,
      itch: a.itch,
      dryness: a.dryness,
      ...(a.spreading && { spreading: true }),
      ...(a.words && { words: a.words }),
    },
  }
}

/** What an answer tells of hair: noticed so many days ago, or not noticed yet today. */
export function hairToldOf(a: Pick<ClientAnswer, 'hair' | 'since'>): {
  kind: Exclude<HairKindTold, 'measured'>
  daysAgo: number
}[] {
  if (a.hair === 'no') {
    return [
      { kind: 'not-felt', daysAgo: 0 },
      { kind: 'not-seen', daysAgo: 0 },
    ]
  }
  const noticed = { kind: a.hair, daysAgo: a.since }
  return a.hair === 'felt' ? [noticed, { kind: 'not-seen', daysAgo: 0 }] : [noticed]
}
