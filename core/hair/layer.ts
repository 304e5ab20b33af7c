/** What kind of hair grows where: zone by zone over what was told at Ask, and strays to tweeze first. */
import type { Schools } from '../house/index.ts'
import type { KeepLine, Outline } from '../lines/index.ts'
import { hairIn, type Coarseness, type Curl, type SkinAndHair } from '../client.ts'
import type { SurfacePoint } from '../head/index.ts'
import type { HairKind, ZoneId } from '../zones/index.ts'

export const HAIR_KINDS = ['vellus', 'mixed', 'terminal'] as const
export const DENSITIES = ['none', 'sparse', 'medium', 'dense'] as const
export const GREYS = ['none', 'some', 'most'] as const
/** What lies under the blade when fuzz is taken off. */
export const SLIPS_HERE = ['dry', 'gel', 'lotion', 'oil', 'damp'] as const
export const CURLS = ['straight', 'wavy', 'tight'] as const

/** Hair of one zone; what is left out is as told at Ask, its slip by the house's school. */
export interface ZoneHair {
  readonly kind?: (typeof HAIR_KINDS)[number] | undefined
  readonly coarseness?: Coarseness | undefined
  readonly density?: (typeof DENSITIES)[number] | undefined
  readonly curl?: Curl | undefined
  readonly grey?: (typeof GREYS)[number] | undefined
  readonly slip?: (typeof SLIPS_HERE)[number] | undefined
}

export type HairLayer = Partial<Record<ZoneId, ZoneHair>>

/** A single dark hair to tweeze before the blade: it would dull the blade and hurt (common practice). */
export interface Stray extends SurfacePoint {
  readonly id: string
  readonly zoneId: ZoneId
}

/** Which side has more work, as it was seen with the beard combed down. */
export const HEAVIER_SIDES = ['left', 'right', 'alike'] as const
export type HeavierSide = (typeof HEAVIER_SIDES)[number]

/** What is known of a visit's skin besides its grain. */
export interface SurfaceNotes {
  readonly lines: readonly KeepLine[]
  /** Zones kept as a whole. */
  readonly keptZones: readonly ZoneId[]
  readonly hair: HairLayer
  readonly strays: readonly Stray[]
  readonly heavier?: HeavierSide | undefined
  /** Length of the hair on arrival, mm, as it was told or measured. */
  readonly lengthMm?: number | undefined
  /** What is all that may be worked, and what rests; absent in visits kept before there were any. */
  readonly outlines?: readonly Outline[] | undefined
}

export const NO_NOTES: SurfaceNotes = { lines: [], keptZones: [], hair: {}, strays: [] }

/**
 * The hair a plan works with in a zone. Mixed hair counts as the coarser of what it mixes: a blade meets its terminal hairs.
 */
export function plannedHair(zoneId: ZoneId, client: SkinAndHair, layer: HairLayer): HairKind {
  const own = layer[zoneId]?.kind
  const usual = hairIn(zoneId, client.faceHair)
  if (own === undefined) return usual
  if (own === 'vellus') return 'vellus'
  return usual === 'vellus' ? 'beard' : usual
}

/** What lies under the blade in a zone when fuzz is taken off: its own, else by the house's school. */
export const slipIn = (
  { fuzzSlip }: Pick<Schools, 'fuzzSlip'>,
  hair: ZoneHair | undefined,
): Schools['fuzzSlip'] => (hair?.slip === 'gel' ? 'film' : (hair?.slip ?? fuzzSlip))

/** One zone's hair in words: "terminal, coarse, sparse, some grey". */
export function hairWords(hair: ZoneHair): string {
  return [
    hair.kind,
    hair.coarseness,
    hair.density === 'none' ? 'no hair' : hair.density,
    hair.curl,
    hair.grey && hair.grey !== 'none' ? `${hair.grey} grey` : undefined,
    hair.slip &&
      (hair.slip === 'dry'
        ? 'on dry skin'
        : `on ${hair.slip === 'damp' ? 'damp skin' : hair.slip}`),
  ]
    .filter((w) => w !== undefined)
    .join(', ')
}
