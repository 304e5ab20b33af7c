/** Labels over the head that would cover each other are moved apart, downward, and as little as that takes. */

export interface PlacedLabel {
  readonly id: string
  /** Middle of the text, px. */
  readonly x: number
  readonly y: number
  readonly text: string
}

/** About as wide as a figure of the label's type, and as high as its line, px. */
const CHARACTER_PX = 9
const LINE_PX = 18

const covers = (a: PlacedLabel, b: PlacedLabel): boolean =>
  Math.abs(a.x - b.x) < ((a.text.length + b.text.length) * CHARACTER_PX) / 2 &&
  Math.abs(a.y - b.y) < LINE_PX

/** The same labels, each where no other covers it. */
export function spreadLabels(labels: readonly PlacedLabel[]): PlacedLabel[] {
  const placed: PlacedLabel[] = []
  for (const label of [...labels].sort((a, b) => a.y - b.y || a.x - b.x)) {
    let here = label
    for (;;) {
      const other = placed.find((p) => covers(p, here))
      if (!other) break
      here = { ...here, y: other.y + LINE_PX }
    }
    placed.push(here)
  }
  return placed
}
