/** What is known of a client's skin and hair from asking: the inputs of every model. */
import { isBody, type ZoneId, zoneStem, ZONE_FACTS, type HairKind } from './zones/index.ts'
import { addDays } from './time/index.ts'
import type { Coarseness, Reactivity } from './skin/index.ts'

/** A word or two that are kept of a person. */
export interface TextField {
  /** What the field is called, on forms and when clients are brought in. */
  readonly title: string
  /** Most characters. */
  readonly most: number
  /** How its column is headed where clients come from. */
  readonly guess: RegExp
  /** The vCard properties that hold it, the first that is there (RFC 6350; pronouns RFC 9554). */
  readonly card: readonly string[]
  /** What it looks like, where not anything will do, and what is said of anything else. */
  readonly shape?: readonly [{ readonly test: (s: string) => boolean }, string]
}

/** A day that there was, in this century or the last; or none. */
function isBirthday(s: string): boolean {
  return s === '' || (/^(19|20)\d\d-\d\d-\d\d$/.test(s) && addDays(s, 0) === s)
}

/** What is kept of a person in their own words, besides the name; empty when not told. */
export const CLIENT_TEXTS = {
  calledName: {
    title: 'Likes to be called',
    most: 40,
    guess: /^(nick ?name|called|alias|preferred.*)$/i,
    card: ['nickname'],
  },
  pronouns: { title: 'Pronouns (if told)', most: 30, guess: /^pronouns?$/i, card: ['pronouns'] },
  bornOn: {
    title: 'Born on',
    most: 10,
    guess: /^(born( on)?|birth ?(day|date)|date of birth|dob|bday)$/i,
    card: ['bday'],
    shape: [{ test: isBirthday }, 'is not a day like 1990-05-31'],
  },
  occupation: {
    title: 'What they do',
    most: 80,
    guess: /^(occupation|job|job ?title|title|role|work)$/i,
    card: ['title', 'role'],
  },
  phone: {
    title: 'Telephone',
    most: 30,
    guess: /^(phone|telephone|tel|mobile|cell|phone ?number|mobile ?phone)$/i,
    card: ['tel'],
    shape: [/^[0-9+()./ -]*$/, 'is not a telephone number'],
  },
  email: {
    title: 'E-mail',
    most: 120,
    guess: /^(e-?mail|mail|e-?mail ?address)$/i,
    card: ['email'],
    shape: [/^[^\s@<>"']+@[^\s@<>"']+$/, 'is not an e-mail address'],
  },
  note: { title: 'Note', most: 500, guess: /^(notes?|comments?|remarks?)$/i, card: ['note'] },
} as const satisfies Readonly<Record<string, TextField>>

export type ClientText = keyof typeof CLIENT_TEXTS
export const CLIENT_TEXT_IDS = Object.keys(CLIENT_TEXTS) as ClientText[]

/** One thing for each of the texts. */
export const eachText = <T>(make: (field: ClientText, of: TextField) => T): Record<ClientText, T> =>
  Object.fromEntries(CLIENT_TEXT_IDS.map((id) => [id, make(id, CLIENT_TEXTS[id])])) as Record<
    ClientText,
    T
  >

export type { Coarseness }
export type Curl = 'straight' | 'wavy' | 'tight'
/** What grows on the face: a beard, or fuzz. */
export type FaceHair = 'beard' | 'fuzz'

export const SKIN_TYPES = ['dry', 'normal', 'combination', 'oily'] as const
export type SkinType = (typeof SKIN_TYPES)[number]
/** Dark hair on pale skin stands out; fair or grey hair, or dark hair on dark skin, hardly. */
export const CONTRASTS = ['strong', 'middle', 'low'] as const
export type Contrast = (typeof CONTRASTS)[number]
export const SLEEP_SIDES = ['left', 'right', 'either'] as const
export type Side = (typeof SLEEP_SIDES)[number]
/** Parts that are prone to bumps each for itself. */
export const BUMP_AREAS = ['face', 'neck', 'head', 'body'] as const
export type BumpArea = (typeof BUMP_AREAS)[number]

/** The part that a zone belongs to. */
export function bumpAreaOf(zoneId: ZoneId): BumpArea {
  if (isBody(zoneId)) return 'body'
  const stem = zoneStem(zoneId)
  if (stem.startsWith('neck') || stem.startsWith('under-chin') || stem.startsWith('nape'))
    return 'neck'
  return stem.startsWith('scalp') || stem === 'occiput' ? 'head' : 'face'
}

/** Whether a zone is prone to bumps. */
export const bumpProneIn = (
  { bumpProne, bumpAreas }: Pick<SkinAndHair, 'bumpProne' | 'bumpAreas'>,
  zoneId: ZoneId,
): boolean => bumpProne && (bumpAreas === undefined || bumpAreas.includes(bumpAreaOf(zoneId)))

/** The skin as far as work on some zones goes: prone to bumps where any of them is. */
export const skinOver = (skin: SkinAndHair, zones: readonly ZoneId[]): SkinAndHair => ({
  ...skin,
  bumpProne: zones.some((z) => bumpProneIn(skin, z)),
})

/** What may be followed for a client besides redness and bumps. */
export const CONCERNS = ['dark', 'blackhead'] as const
export type Concern = (typeof CONCERNS)[number]

export const HABIT_KINDS = ['make-up', 'sport', 'outdoors', 'mask', 'swim'] as const
export type HabitKind = (typeof HABIT_KINDS)[number]

/** Something that is done every week and that fresh skin is to be kept off. */
export interface Habit {
  readonly kind: HabitKind
  /** 0 is Sunday. */
  readonly days: readonly number[]
  /** Hours of the day, 0 to 24. */
  readonly fromHour: number
  readonly toHour: number
}

/** Skin and hair as told at Ask. */
export interface SkinAndHair {
  readonly reactivity: Reactivity
  readonly faceHair: FaceHair
  readonly coarseness: Coarseness
  readonly curl: Curl
  readonly bumpProne: boolean
  /** Areas that are; everywhere when left out: legs do not govern the face. */
  readonly bumpAreas?: readonly BumpArea[] | undefined
  readonly type?: SkinType | undefined
  /** Mature or lax: it moves under the blade. */
  readonly lax?: boolean | undefined
  /** How hair stands out against the skin, as it is told. */
  readonly contrast?: Contrast | undefined
  readonly sleepsOn?: Side | undefined
  /** What the client also comes for: counted and followed like bumps. */
  readonly concerns?: readonly Concern[] | undefined
  /** A trimmer is set back by so much where it raises welts, mm. */
  readonly setBackMm?: number | undefined
  /** What meets the skin every week. */
  readonly habits?: readonly Habit[] | undefined
  /** One of six plain steps, for reading redness only. */
  readonly tone?: number
  /** What was told; the rest is as usual. Without it all was told. */
  readonly told?: Readonly<Partial<Record<string, boolean>>>
}

/** Whether a fact of skin and hair was told, or only set as it usually is. */
export const wasTold = (skin: SkinAndHair, key: keyof SkinAndHair): boolean =>
  skin.told === undefined || skin.told[key] === true

/**
 * The hair to expect in a zone on this client: on a face without a beard the beard zones carry fuzz; with one, the beard
 * reaches onto the upper cheek.
 */
export function hairIn(zoneId: ZoneId, faceHair: FaceHair): HairKind {
  const stem = zoneStem(zoneId)
  const usual = ZONE_FACTS[stem].hair
  if (faceHair === 'fuzz') return usual === 'beard' ? 'vellus' : usual
  return stem === 'cheek-upper' ? 'beard' : usual
}

/** Skin and hair to begin with for somebody who comes for fuzz work, or for a razor: until they are asked. */
export const skinToBegin = (family: 'razor' | 'fuzz'): SkinAndHair => ({
  reactivity: 'average',
  faceHair: family === 'fuzz' ? 'fuzz' : 'beard',
  coarseness: family === 'fuzz' ? 'fine' : 'medium',
  curl: 'straight',
  bumpProne: false,
  told: {},
})
