/** What is known of a client's skin and hair from asking: the inputs of every model. */
import { type ZoneId, zoneStem, ZONE_FACTS, type HairKind } from './zones/index.ts'
import type { Reactivity } from './skin/index.ts'

export type Coarseness = 'fine' | 'medium' | 'coarse'
export type Curl = 'straight' | 'wavy' | 'tight'
/** What grows on the face: a beard, or fuzz. */
export type FaceHair = 'beard' | 'fuzz'

/** Skin and hair as told at Ask. */
export interface SkinAndHair {
  readonly reactivity: Reactivity
  readonly faceHair: FaceHair
  readonly coarseness: Coarseness
  readonly curl: Curl
  readonly bumpProne: boolean
}

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
})
