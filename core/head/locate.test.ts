/** The nearest place against trying every triangle, and against geometry. */
import { mulberry32 } from '../stats/index.ts'
import { HEAD } from '../testing/head.ts'
import { sphere } from '../testing/surfaces.ts'
import type { Vec3 } from './frames.ts'
import { Locator } from './locate.ts'

const random = mulberry32(31)

describe('the nearest place', () => {
  it('is as near as any corner, and its weights give the place back', () => {
    const { positions, indices } = HEAD.solve
    const locator = new Locator(HEAD.solve)
    for (let k = 0; k < 60; k++) {
      const v = Math.floor((random() * positions.length) / 3)
      const p = [0, 1, 2].map(
        (x) => positions[3 * v + x]! + 6 * (random() - 0.5),
      ) as unknown as Vec3
      const { triangle, weights, distanceMm } = locator.nearest(p)
      let corner = Infinity
      for (let i = 0; i < positions.length; i += 3) {
        corner = Math.min(
          corner,
          Math.hypot(positions[i]! - p[0], positions[i + 1]! - p[1], positions[i + 2]! - p[2]),
        )
      }
      expect(distanceMm).toBeLessThanOrEqual(corner + 1e-6)
      expect(weights[0] + weights[1] + weights[2]).toBeCloseTo(1, 9)
      const at = [0, 1, 2].map((x) =>
        weights.reduce((s, w, c) => s + w * positions[3 * indices[3 * triangle + c]! + x]!, 0),
      )
      expect(Math.hypot(at[0]! - p[0], at[1]! - p[1], at[2]! - p[2])).toBeCloseTo(distanceMm, 6)
    }
  })

  it('of a ball lies toward its middle', () => {
    const locator = new Locator(sphere(40, 40, 60))
    for (let k = 0; k < 30; k++) {
      const d = [random() - 0.5, random() - 0.5, random() - 0.5]
      const n = Math.hypot(...d)
      const p = d.map((x) => (x / n) * 46) as unknown as Vec3
      expect(locator.nearest(p).distanceMm).toBeCloseTo(6, 0)
    }
  })

  it('prefers skin that looks the same way', () => {
    const locator = new Locator(sphere(6, 20, 30))
    expect(locator.nearest([0, 1, 0], [0, -1, 0]).distanceMm).toBeGreaterThan(5.5)
  })

  it('says when a point does not lie on the head', () => {
    expect(() => new Locator(HEAD.solve).nearest([500, 0, 0])).toThrow('does not lie on the head')
  })
})
