/** The head as built: read once from what its build left, and prepared for plans when the first is asked for. */
import type { Figures } from '../core/house/index.ts'
import {
  displayCarry,
  fieldGround,
  GrainField,
  type FieldGround,
  guessReadings,
} from '../core/grain/index.ts'
import {
  makeSurface,
  type Surface,
  type ZoneRecord,
  unpackHead,
  type PackedHead,
} from '../core/head/index.ts'
import {
  type Room,
  drawnLines,
  headFlow,
  headGround,
  headRoom,
  type SkinGround,
} from '../core/plan/index.ts'
import { drawnOutlines } from '../core/lines/index.ts'
import type { HeadSkin } from '../core/visit/index.ts'
import { LRUCache } from 'lru-cache'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from './config.ts'

export const ZONES = JSON.parse(
  readFileSync(join(ROOT, 'generated', 'zones.json'), 'utf8'),
) as readonly ZoneRecord[]

/** The head with all that planning needs of it. */
export interface Atlas {
  readonly packed: PackedHead
  readonly field: FieldGround
  readonly display: ReturnType<typeof displayCarry>
  readonly ground: SkinGround
  readonly room: Room
  readonly surface: () => Surface
  /** Of the readings asked for last: a visit is planned again and again on the same ones. */
  readonly flows: LRUCache<string, Flow>
}

type Flow = ReturnType<typeof headFlow>
const KEPT_FLOWS = 8

let prepared: Atlas | undefined
let preparedFor: Figures | undefined

/** Reads and prepares the head; about a second's work, done when the first plan asks for it, and for other figures anew. */
export function atlas(figures: Figures): Atlas {
  if (!prepared || preparedFor !== figures) {
    preparedFor = figures
    const bytes = readFileSync(join(ROOT, 'generated', 'head.bin'))
    const packed = unpackHead(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length))
    const field = fieldGround(figures, packed.solve, guessReadings(figures, ZONES))
    let surface: Surface | undefined
    prepared = {
      packed,
      field,
      display: displayCarry(field, packed.display),
      ground: headGround(packed, ZONES),
      room: headRoom(packed.display),
      surface: () => (surface ??= makeSurface(packed.display)),
      flows: new LRUCache({ max: KEPT_FLOWS }),
    }
  }
  return prepared
}

/** The head's field, lines and surroundings, as plans ask for them. */
export function headSkin(figures: Figures): HeadSkin {
  const head = () => atlas(figures)
  return {
    ground: () => head().ground,
    room: () => head().room,
    flow: (readings) => {
      const { field: ground, packed, display, flows } = head()
      const key = JSON.stringify(readings.map((r) => ({ ...r, id: undefined })))
      const kept = flows.get(key)
      if (kept) return kept
      const field = new GrainField(figures, ground)
      field.setAll(readings)
      const answer = field.told()
      const { zones } = packed.solve
      const flow = headFlow(figures, ground, answer, readings, packed.display, zones, display)
      flows.set(key, flow)
      return flow
    },
    lines: (lines) => drawnLines(head().surface, lines),
    outlines: (outlines) => drawnOutlines(head().surface, outlines),
  }
}
