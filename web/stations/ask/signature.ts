/** A signature as it is drawn: lines of points in a field one hundred high and as wide as the screen gives it. */

/** The shape in which a signature is kept and shown. */
export const BOX = { width: 300, height: 100 } as const
/** Points nearer than this are one. */
export const STEP = 1.2
/** A signature is at least this long, so that a slip of the pen is not one. */
export const LEAST = 40

export type Lines = readonly (readonly (readonly [x: number, y: number])[])[]

export const pathOf = (lines: Lines) =>
  lines
    .map((l) =>
      l.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join(''),
    )
    .join('')

export const lengthOf = (lines: Lines) =>
  lines.reduce(
    (sum, l) =>
      sum + l.slice(1).reduce((s, p, i) => s + Math.hypot(p[0] - l[i]![0], p[1] - l[i]![1]), 0),
    0,
  )

/** A signature drawn anywhere in a wide field, moved to the middle of the box; made smaller only where it is wider than that. */
export function fitted(lines: Lines): Lines {
  const xs = lines.flat().map(([x]) => x)
  if (xs.length === 0) return lines
  const [from, to] = [Math.min(...xs), Math.max(...xs)]
  const scale = Math.min(1, BOX.width / (to - from || 1))
  const left = (BOX.width - (to - from) * scale) / 2
  const top = (BOX.height * (1 - scale)) / 2
  return lines.map((l) => l.map(([x, y]) => [left + (x - from) * scale, top + y * scale] as const))
}
