/** Shows a share of each zone on the head, from the pale of no share to coral. */
import { ON_SKIN } from '../../../core/palette.ts'
import type { ZoneId } from '../../../core/zones/index.ts'
import { useMemo } from 'react'
import { useHeadLayers } from '../../state/layers.ts'

export interface ZoneShare {
  readonly zoneId: ZoneId
  /** 0 to 1. */
  readonly share: number
}

export function useZoneTints(zones: readonly ZoneShare[], colour: string = ON_SKIN.coral): void {
  useHeadLayers(
    useMemo(
      () => ({
        tints: zones.map((z) => ({
          zoneId: z.zoneId,
          colour,
          opacity: 0.08 + 0.72 * z.share,
        })),
      }),
      [zones, colour],
    ),
  )
}
