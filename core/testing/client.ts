/** A middling client, for tests. */
import { learnSkin } from '../history/index.ts'
import { DEFAULTS } from '../house/index.ts'
import type { SkinAndHair } from '../client.ts'

export const SKIN: SkinAndHair = {
  reactivity: 'average',
  faceHair: 'beard',
  coarseness: 'medium',
  curl: 'straight',
  bumpProne: false,
}

/** What is believed of the skin of such a client before anything was seen of it. */
export const NEW_SKIN = learnSkin(DEFAULTS, SKIN, [])
