/** What was asked and found at a visit, and how it is carried into the next. */
import type { Vec3 } from '../head/index.ts'
import type { ZoneId } from '../zones/index.ts'
import type { IsoDate } from '../time/index.ts'
import type { MarkKind } from './rules.ts'

/** A spot marked on the head. */
export interface SkinMark {
  readonly id: string
  readonly kind: MarkKind
  readonly zoneId: ZoneId
  readonly point: Vec3
  readonly normal: Vec3
  readonly radiusMm: number
  /** A painted patch: the places the brush of that radius passed over. */
  readonly trail?: readonly MarkPlace[] | undefined
  /** Its own margin; the house's when left out. */
  readonly marginMm?: number | undefined
  /** Day on which it was first seen. */
  readonly seenOn?: IsoDate | undefined
  /** `ask`: carried over from the last visit and not yet looked at; it counts as there. */
  readonly stillThere?: 'ask' | 'yes' | undefined
}

/** A place of a painted patch. */
export interface MarkPlace {
  readonly zoneId: ZoneId
  readonly point: Vec3
  readonly normal: Vec3
}

/** An answer to a rule's question. */
export interface Answer {
  readonly yes: boolean
  readonly date?: IsoDate | undefined
  /** Where, for what was done to one place. */
  readonly zones?: readonly ZoneId[] | undefined
  /** Which of several, for example of the allergies. */
  readonly kinds?: readonly string[] | undefined
  /** `ask`: carried over from an earlier visit; it counts, and is asked again only as "still so?". */
  readonly still?: 'ask' | undefined
  /** Day on which it was first answered. */
  readonly since?: IsoDate | undefined
}

/** A patch test: where, when, and what it showed. */
export interface PatchTest {
  readonly zoneId: ZoneId
  readonly point?: Vec3 | undefined
  readonly normal?: Vec3 | undefined
  /** Planned for a day, not yet done. */
  readonly plannedFor?: IsoDate | undefined
  readonly placedAtMs?: number | undefined
  readonly readAtMs?: number | undefined
  readonly result: 'planned' | 'waiting' | 'calm' | 'reacted'
}

/** Agreement to the service, signed by hand. */
export interface Consent {
  readonly text: string
  readonly name: string
  readonly asGuardian: boolean
  readonly signedAtMs: number
  /** The signature as path data in a box of 300 × 100. */
  readonly path: string
  /** Signed on paper, which the house keeps: there is no path. */
  readonly onPaper?: boolean
}

/** What a clinician said. */
export interface ClinicianWord {
  readonly who: string
  readonly on: IsoDate
  readonly said: 'yes' | 'no'
}

/** What was asked at a visit. */
export interface Asked {
  readonly answers: Readonly<Record<string, Answer>>
  readonly spots: readonly SkinMark[]
  readonly patchTest?: PatchTest | undefined
  readonly consent?: Consent | undefined
  readonly clinician?: ClinicianWord | undefined
}

export const NOTHING_ASKED: Asked = { answers: {}, spots: [] }

/**
 * Answers of an earlier visit at the next: each counts until somebody says that it is no longer so.
 * @param tried only a trial strip was worked then: the whole is still a first
 */
export function carriedAnswers(
  answers: Asked['answers'],
  askedOn: IsoDate,
  tried = false,
): Asked['answers'] {
  return Object.fromEntries(
    Object.entries(answers)
      // Somebody who has been here is no longer here for the first time.
      .map(([id, a]) => [id, id === 'first-ever' && !tried ? { yes: false } : a] as const)
      .map(([id, a]) => [id, { ...a, still: 'ask' as const, since: a.since ?? askedOn }]),
  )
}
