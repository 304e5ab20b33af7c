import { BOX, fitted, lengthOf, pathOf, type Lines } from './signature.ts'

const stroke = (from: number, to: number): Lines => [
  [
    [from, 20],
    [(from + to) / 2, 80],
    [to, 20],
  ],
]
const width = (lines: Lines) => {
  const xs = lines.flat().map(([x]) => x)
  return [Math.min(...xs), Math.max(...xs)]
}

describe('a signature', () => {
  it('drawn at either end of a wide field is kept as it was drawn, in the middle of its box', () => {
    for (const at of [0, 640]) {
      const kept = fitted(stroke(at, at + 120))
      expect(width(kept)).toEqual([90, 210])
      expect(lengthOf(kept)).toBeCloseTo(lengthOf(stroke(at, at + 120)))
    }
  })

  it('wider than its box is made smaller in its own shape', () => {
    const kept = fitted(stroke(20, 620))
    expect(width(kept)).toEqual([0, BOX.width])
    expect(lengthOf(kept)).toBeCloseTo(lengthOf(stroke(20, 620)) / 2)
    const ys = kept.flat().map(([, y]) => y)
    expect([Math.min(...ys), Math.max(...ys)]).toEqual([35, 65])
  })

  it('is written as lines that begin anew where the pen was lifted', () => {
    expect(pathOf([...stroke(0, 10), [[1, 2]]])).toBe('M0.0 20.0L5.0 80.0L10.0 20.0M1.0 2.0')
    expect(fitted([])).toEqual([])
  })
})
