/** A plane through values: exact where they lie on one, least squares by hand where they do not. */
import { PlaneFit } from './planeFit.ts'

const fit = (places: readonly (readonly [w: number, x: number, y: number, v: number])[]) => {
  const plane = new PlaneFit()
  for (const p of places) plane.add(...p)
  return plane
}
const ON = (x: number, y: number) => 2 + 3 * x - 0.5 * y

describe('a plane', () => {
  it('is found where values lie on one, whatever they weigh', () => {
    const found = fit(
      [
        [0, 0],
        [1, 0.5],
        [-2, 3],
        [4, 1],
      ].map(([x, y], i) => [1 + i, x!, y!, ON(x!, y!)] as const),
    ).solve()!
    expect(found.at).toBeCloseTo(2, 9)
    expect(found.slopeX).toBeCloseTo(3, 9)
    expect(found.slopeY).toBeCloseTo(-0.5, 9)
  })

  it('leaves the least squares', () => {
    const places = [
      ...[[1, 0, 0, 1] as const, [2, 1, 0, 0] as const, [1, 0, 1, 3] as const],
      ...[[3, 1, 1, 1] as const, [1, 2, -1, 2] as const],
    ]
    const { at, slopeX, slopeY } = fit(places).solve()!
    const error = (a: number, b: number, c: number) =>
      places.reduce((s, [w, x, y, v]) => s + w * (v - a - b * x - c * y) ** 2, 0)
    const least = error(at, slopeX, slopeY)
    for (const d of [0.01, -0.01]) {
      expect(error(at + d, slopeX, slopeY)).toBeGreaterThan(least)
      expect(error(at, slopeX + d, slopeY)).toBeGreaterThan(least)
      expect(error(at, slopeX, slopeY + d)).toBeGreaterThan(least)
    }
  })

  it('is none where places lie on one line, but for the ridge, which draws slopes to nothing', () => {
    const line = fit([
      [1, 0, 0, 1],
      [1, 1, 1, 2],
      [1, 2, 2, 3],
    ])
    expect(line.solve()).toBeUndefined()
    // Weight 3 at distance 2 beside 2 and 2 of spread along each: slopes (1, 1) · 2 / (2 · 2 + 12).
    const held = line.solve(2)!
    expect(held.slopeX).toBeCloseTo(2 / 16, 9)
    expect(held.slopeY).toBeCloseTo(2 / 16, 9)
    expect(held.at).toBeCloseTo(2 - 2 / 8, 9)
  })
})
