/** The head as built: read once from what its build left. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { SurfaceNotes } from '../core/hair/layer.ts'
import { makeSurface, type Surface } from '../core/head/geodesic.ts'
import type { ZoneRecord } from '../core/head/head.ts'
import { unpackHead } from '../core/head/pack.ts'
import type { ZoneId } from '../core/head/zones.ts'
import { keptShares } from '../core/lines/keepLine.ts'
import { ROOT } from './config.ts'

export const ZONES = JSON.parse(
  readFileSync(join(ROOT, 'generated', 'zones.json'), 'utf8'),
) as readonly ZoneRecord[]

let surface: Surface | undefined

/** The head's surface; only lines over it need it, so it is read when the first is asked about. */
function headSurface(): Surface {
  if (!surface) {
    const bytes = readFileSync(join(ROOT, 'generated', 'head.bin'))
    surface = makeSurface(
      unpackHead(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length)).display,
    )
  }
  return surface
}

/** Share of each zone that a visit's keep-lines keep. */
export function keptByLines(notes: Pick<SurfaceNotes, 'lines'>): Partial<Record<ZoneId, number>> {
  return notes.lines.length === 0 ? {} : keptShares(headSurface(), notes.lines)
}
