/** What outlines close of a zone's cells. */
import { type DrawnOutline, workedOutlines } from '../lines/index.ts'
import type { IsoDate } from '../time/index.ts'

/**
 * Closes what rests, and what lies outside where only an outline is worked.
 * @param first the zone's first triangle in the mesh
 * @param open 1 where a cell is worked; changed
 */
export function closeOutlined(
  first: number,
  open: Uint8Array,
  outlines: readonly DrawnOutline[],
): { outside: number[]; restsUntil: IsoDate | undefined } {
  const only = workedOutlines(outlines)
  const rests = outlines.filter((o) => o.kind === 'rest')
  const outside: number[] = []
  let restsUntil: IsoDate | undefined
  for (let c = 0; c < open.length; c++) {
    if (!open[c]) continue
    const within = (o: DrawnOutline) => o.inside[first + c] === 1
    if (only.length > 0 && !only.some(within)) {
      outside.push(c)
      open[c] = 0
      continue
    }
    const resting = rests.find(within)
    if (!resting) continue
    open[c] = 0
    if (resting.until && (!restsUntil || resting.until > restsUntil)) restsUntil = resting.until
  }
  return { outside, restsUntil }
}
