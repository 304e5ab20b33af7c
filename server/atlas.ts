/** The head as built: read once from what its build left. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { SurfaceNotes } from '../core/hair/layer.ts'
import { makeSurface, type Surface } from '../core/head/geodesic.ts'
import type { ZoneRecord } from '../core/head/head.ts'
import { unpackHead, type PackedHead } from '../core/head/pack.ts'
import type { ZoneId } from '../core/head/zones.ts'
import { keptShares } from '../core/lines/keepLine.ts'
import { ROOT } from './config.ts'

export const ZONES = JSON.parse(
  readFileSync(join(ROOT, 'generated', 'zones.json'), 'utf8'),
) as readonly ZoneRecord[]

let head: PackedHead | undefined
let surface: Surface | undefined

/** The head's meshes; only lines and the demo need them, so they are read when first asked for. */
export function packedHead(): PackedHead {
  if (!head) {
    const bytes = readFileSync(join(ROOT, 'generated', 'head.bin'))
    head = unpackHead(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length))
  }
  return head
}

/** Share of each zone that a visit's keep-lines keep. */
export function keptByLines(notes: Pick<SurfaceNotes, 'lines'>): Partial<Record<ZoneId, number>> {
  if (notes.lines.length === 0) return {}
  surface ??= makeSurface(packedHead().display)
  return keptShares(surface, notes.lines)
}
