/** How a zone is parted into lanes, and that as one short string. */

/** A zone parted into lanes. */
export interface Cover {
  /** Lane of each cell, −1 where it is not worked. */
  readonly lane: Int16Array
  readonly count: number
}

/** Lanes of a zone as one short string: runs of cells of the same lane, "12.4a30b" (a dot is not worked). */
export function packCover(cover: Cover): string {
  let out = ''
  let run = 0
  for (let c = 0; c <= cover.lane.length; c++) {
    if (c < cover.lane.length && c > 0 && cover.lane[c] === cover.lane[c - 1]) {
      run++
      continue
    }
    if (c > 0) {
      const lane = cover.lane[c - 1]!
      out += `${run + 1}${lane < 0 ? '.' : laneLetter(lane)}`
      run = 0
    }
  }
  return out
}

/** Lanes are lettered a, b, c …, after z with capitals. */
export function laneLetter(lane: number): string {
  return 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ'[lane] ?? 'Z'
}

/** Cells of a packed cover, in order: the lane's letter, or a dot. */
export function unpackCover(packed: string): string[] {
  const out: string[] = []
  for (const [, run, letter] of packed.matchAll(/(\d+)([.a-zA-Z])/g)) {
    for (let i = 0; i < Number(run); i++) out.push(letter!)
  }
  return out
}
