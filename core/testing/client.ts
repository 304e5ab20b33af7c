/** A middling client, for tests. */
import type { SkinAndHair } from '../client.ts'

export const SKIN: SkinAndHair = {
  reactivity: 'average',
  faceHair: 'beard',
  coarseness: 'medium',
  curl: 'straight',
  bumpProne: false,
}
