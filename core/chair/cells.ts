/** Lanes that are cut anew on the way: cells taken out of them, or made into new ones. */
import type { SurfacePoint } from '../head/index.ts'
import type { ZoneId } from '../zones/index.ts'
import {
  besideOf,
  type EdgeBand,
  laneLetter,
  unpackCover,
  type Cover,
  laneShapes,
  type LaneShape,
  PlanMemory,
  type ZoneSkin,
  type Plan,
} from '../plan/index.ts'

/** A place on the skin that was found on the way. */
export interface CellPlace extends SurfacePoint {
  readonly zoneId: ZoneId
  readonly radiusMm: number
}

/** Number of lanes of a zone so far: new ones take the letters after them. */
export function lettersUsed(plan: Plan, zoneId: ZoneId): number {
  const letters = plan.lanes.filter((l) => l.zoneId === zoneId).map((l) => l.letter)
  let count = 0
  while (letters.includes(laneLetter(count))) count++
  for (let i = count; i < 52; i++) if (letters.includes(laneLetter(i))) count = i + 1
  return count
}

/** The lanes of a cover, from one number on; those that lost all their cells are left out. */
export function shapesOf(
  skin: ZoneSkin,
  cover: Cover,
  first = 0,
  /** The press of a lane, by its number, where it still has one. */
  pressOf: (lane: number) => LaneShape['press'] = () => undefined,
  /** The cells beside eye, lip, nostril, ear and brow. */
  band?: EdgeBand,
): LaneShape[] {
  const full = new Set(cover.lane)
  const numbers = Array.from({ length: cover.count }, (_, i) => i).filter(
    (i) => i >= first && full.has(i),
  )
  const packed = new Int16Array(cover.lane.length).fill(-1)
  cover.lane.forEach((l, c) => (packed[c] = l < 0 ? -1 : numbers.indexOf(l)))
  const lanes = { lane: packed, count: numbers.length }
  return laneShapes(skin, lanes, (l) => pressOf(numbers[l]!)).map((s, i) => {
    const beside = besideOf(skin, band, s.cells)
    return { ...s, letter: laneLetter(numbers[i]!), ...(beside && { beside }) }
  })
}

/** A packed cover as lanes of cells again. */
export function coverFrom(packed: string, count: number): Cover {
  const lane = new Int16Array(count).fill(-1)
  let most = 0
  unpackCover(packed).forEach((letter, c) => {
    if (letter === '.') return
    const at = LETTERS.indexOf(letter)
    lane[c] = at
    most = Math.max(most, at + 1)
  })
  return { lane, count: most }
}

const LETTERS = Array.from({ length: 52 }, (_, i) => laneLetter(i))

/** True where a cell's middle lies within a place. */
export const within = (skin: ZoneSkin, c: number, p: CellPlace) =>
  Math.hypot(
    skin.middle[3 * c]! - p.point[0],
    skin.middle[3 * c + 1]! - p.point[1],
    skin.middle[3 * c + 2]! - p.point[2],
  ) <= p.radiusMm

/** The same skins, with covers and measures to be made anew. */
export function sameSkins(memory: PlanMemory): PlanMemory {
  const fresh = new PlanMemory()
  for (const [id, skin] of memory.skins) fresh.skins.set(id, skin)
  return fresh
}
