/** How much the hair of a zone shows, 0 to 1: by kind, density, grey, and how hair stands out on this client. A plain model. */
import { hairIn, type SkinAndHair } from '../client.ts'
import type { ZoneId } from '../zones/index.ts'
import type { HairLayer } from './layer.ts'

const KIND = { vellus: 0.25, mixed: 0.6, terminal: 1 } as const
const DENSE = { none: 0, sparse: 0.4, medium: 0.7, dense: 1 } as const
const GREY = { none: 1, some: 0.8, most: 0.6 } as const
const STANDS_OUT = { strong: 1, middle: 0.8, low: 0.5 } as const

export function hairShows(
  zone: ZoneId,
  skin: Pick<SkinAndHair, 'faceHair' | 'contrast'>,
  hair: HairLayer,
): number {
  const own = hair[zone] ?? {}
  const kind = own.kind ?? (hairIn(zone, skin.faceHair) === 'vellus' ? 'vellus' : 'terminal')
  return (
    KIND[kind] *
    DENSE[own.density ?? 'medium'] *
    GREY[own.grey ?? 'none'] *
    STANDS_OUT[skin.contrast ?? 'middle']
  )
}
