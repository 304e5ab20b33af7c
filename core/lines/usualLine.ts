/** Where each kind of line usually runs, to be dragged into place (house estimates, as hours on no clock: just zones). */
import type { SurfacePoint, ZoneRecord } from '../head/index.ts'
import type { ZoneStem, ZoneId } from '../zones/index.ts'
import type { KeepLine, LineKind, LineTap } from './keepLine.ts'

/** Stems the line runs through on the left, from front to back or from above to below; `up` moves a tap within its zone. */
const USUAL: Readonly<Record<LineKind, { stems: readonly ZoneStem[]; keep: 'left' | 'right' }>> = {
  hairline: { stems: ['forehead-centre', 'forehead', 'temple'], keep: 'left' },
  brow: { stems: ['glabella', 'brow', 'temple'], keep: 'right' },
  sideburn: { stems: ['temple', 'sideburn', 'cheek-lower'], keep: 'left' },
  cheek: { stems: ['mouth-corner', 'cheek-lower', 'sideburn'], keep: 'right' },
  neck: { stems: ['neck-upper-centre', 'neck-upper', 'neck-back'], keep: 'left' },
  moustache: { stems: ['upper-lip', 'mouth-corner', 'jaw'], keep: 'left' },
}

/**
 * The usual line of a kind on one side.
 * @throws Error when a zone is missing from the records
 */
export function usualLine(
  kind: LineKind,
  side: 'left' | 'right',
  zones: readonly ZoneRecord[],
): Omit<KeepLine, 'id' | 'drawnAtMs'> {
  const { stems, keep } = USUAL[kind]
  const taps = stems.map((stem): LineTap => {
    const zone = zones.find((z) => z.id === stem || z.id === (`${stem}-${side}` as ZoneId))
    if (!zone) throw new Error(`no zone ${stem}`)
    const { point, normal }: SurfacePoint = zone.centre
    return { zoneId: zone.id, point, normal }
  })
  return { kind, taps, keep: side === 'left' ? keep : keep === 'left' ? 'right' : 'left' }
}
