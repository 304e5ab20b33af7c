/** Off the main thread: hair marks over the whole head. */
import { expose, transfer } from 'comlink'
import { unpackHead, type PackedHead } from '../../core/head/pack.ts'
import { triangleNeighbours } from '../../core/head/walk.ts'
import { hairMarks, type HairMarks, type MarkGrain } from '../head/hairMarks.ts'

let head: PackedHead
let neighbours: Int32Array

const work = {
  /** Takes a copy of the head's bytes. */
  load(bytes: ArrayBuffer): void {
    head = unpackHead(bytes)
    neighbours = triangleNeighbours(head.display)
  },
  marks(grain: MarkGrain, level: number): HairMarks {
    const marks = hairMarks(head, neighbours, grain, level)
    return transfer(marks, [
      marks.positions.buffer as ArrayBuffer,
      marks.indices.buffer as ArrayBuffer,
      marks.zones.buffer as ArrayBuffer,
      marks.ink.buffer as ArrayBuffer,
      marks.spines.buffer as ArrayBuffer,
    ])
  },
}

export type HeadWorker = typeof work
expose(work)
