/** Contrast by WCAG 2.1 (relative luminance and contrast ratio as the recommendation gives them, from memory). */
import { LAMP, LIGHT, onRedness, ON_SKIN, REDNESS_COLOURS, SCALES } from './palette.ts'

const channel = (hex: string, at: number): number => {
  const c = parseInt(hex.slice(at, at + 2), 16) / 255
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4
}
const luminance = (hex: string) =>
  0.2126 * channel(hex, 1) + 0.7152 * channel(hex, 3) + 0.0722 * channel(hex, 5)
const contrast = (a: string, b: string): number => {
  const [dark, light] = [luminance(a), luminance(b)].sort((x, y) => x - y) as [number, number]
  return (light + 0.05) / (dark + 0.05)
}

describe('the palette', () => {
  it('is checked with the right measure: black on white is 21, grey #767676 on white 4.54', () => {
    expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 6)
    expect(contrast('#767676', '#FFFFFF')).toBeCloseTo(4.54, 2)
  })

  it('holds whole colours, written one way, the same names by day and by lamp', () => {
    const all = [LIGHT, LAMP, ON_SKIN].flatMap((p) => Object.values(p))
    for (const colour of [...all, ...Object.values(SCALES).flat(), ...REDNESS_COLOURS])
      expect(colour).toMatch(/^#[0-9A-F]{6}$/)
    expect(Object.keys(LAMP)).toEqual(Object.keys(LIGHT))
  })

  it.each([
    ['by day', LIGHT],
    ['by lamp', LAMP],
  ] as const)('lets text be read %s', (_, scheme) => {
    for (const ground of [scheme.paper, scheme.shell]) {
      for (const text of [scheme.ink, scheme.soft, scheme.coral, scheme.brass, scheme.deep])
        expect([text, ground, contrast(text, ground) >= 4.5]).toEqual([text, ground, true])
    }
    expect(contrast(scheme.onDeep, scheme.deep)).toBeGreaterThanOrEqual(4.5)
  })

  it('lets the figure of every grade of redness be read on its colour, and deepens with the grade', () => {
    REDNESS_COLOURS.forEach((colour, grade) => {
      expect(contrast(onRedness(grade), colour)).toBeGreaterThanOrEqual(4.5)
    })
    const steps = REDNESS_COLOURS.map(luminance)
    expect(steps).toEqual([...steps].sort((a, b) => b - a))
  })

  it.each(Object.entries(SCALES))('runs from wash to ink: %s', (_, scale) => {
    const steps = scale.map(luminance)
    expect(steps).toEqual([...steps].sort((a, b) => b - a))
  })

  it('lets the edge of a control be seen: 3 to 1 on its ground', () => {
    for (const scheme of [LIGHT, LAMP])
      expect(contrast(scheme.edge, scheme.paper)).toBeGreaterThanOrEqual(3)
  })
})
