/** What a look at the skin, and a reading of hair, is made of. Apart from what is learned of them: the wire needs only these. */
import type { Vec3 } from '../head/index.ts'
import type { Moment } from './moments.ts'

export const SPOT_KINDS = ['bump', 'ingrown', 'pustule', 'dark', 'blackhead'] as const
export type SpotKind = (typeof SPOT_KINDS)[number]

/** What is followed for its own sake, and is no bump: marks that bumps leave, and blackheads. */
export const FOLLOWED = ['dark', 'blackhead'] as const
export type Followed = (typeof FOLLOWED)[number]
export const isFollowed = (kind: SpotKind): kind is Followed =>
  (FOLLOWED as readonly string[]).includes(kind)

/** A bump, an ingrown hair, a pustule or a dark mark, tapped on the skin. */
export interface SkinSpot {
  readonly id: string
  readonly kind: SpotKind
  readonly zoneId: string
  readonly point: Vec3
  readonly normal: Vec3
  /** Id of the spot at an earlier moment or visit that this one is again. */
  readonly again?: string
}

/** What was answered of one zone; zones without an entry were clear. */
export interface ZoneAnswer {
  readonly zoneId: string
  readonly redness: number
  /** Bumps and ingrown hairs, those tapped among them. */
  readonly bumps: number
  readonly pustules?: number
}

export const NICK_STATES = ['closed', 'scab', 'open', 'mark'] as const
export type NickState = (typeof NICK_STATES)[number]
export const DRYNESS_WORDS = ['none', 'tight', 'flaking', 'cracked'] as const

/** How the skin felt, as a whole. */
export interface Feeling {
  /** 0 to 10. */
  readonly stinging?: number
  /** 0 to 10. */
  readonly itch?: number
  /** Index into DRYNESS_WORDS. */
  readonly dryness?: number
  /** How nicks of the service heal, by their id. */
  readonly nicks?: Readonly<Record<string, NickState>>
  /** In the client's own words. */
  readonly words?: string
  /** It spreads, is hot, or the client feels ill. */
  readonly spreading?: boolean
}

/** Who said it: seen by the worker, told by phone, or answered by the client on the link page. */
export const ANSWER_SOURCES = ['seen', 'phone', 'client'] as const
export type AnswerSource = (typeof ANSWER_SOURCES)[number]

export interface SkinAnswer {
  readonly moment: Moment
  readonly atMs: number
  readonly zones: readonly ZoneAnswer[]
  readonly spots?: readonly SkinSpot[]
  readonly feeling?: Feeling
  readonly source?: AnswerSource
  /** When it was told; the time it speaks of where that was not kept. */
  readonly toldAtMs?: number
}

/** How a length was measured: a photograph with a scale is closer than a guess. */
export const LENGTH_METHODS = ['photo', 'ruler', 'eye'] as const
export type LengthMethod = (typeof LENGTH_METHODS)[number]

/** What was noticed of hair, or not yet. */
export const HAIR_TOLD = ['felt', 'seen', 'measured', 'not-felt', 'not-seen'] as const
export type HairKindTold = (typeof HAIR_TOLD)[number]

export interface HairReading {
  readonly id: string
  readonly visitId: string
  readonly kind: HairKindTold
  /** Days after the service. */
  readonly days: number
  readonly zoneId: string | null
  readonly lengthMm: number | null
  readonly method?: LengthMethod | null
  readonly atMs: number
}
