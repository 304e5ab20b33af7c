/** Shortest ways against surfaces whose answers are known: a plane, a box unfolded, a sphere's great circles. */
import { mulberry32 } from '../stats/index.ts'
import { HEAD, ZONES } from '../testing/head.ts'
import { box, sphere, zoned } from '../testing/surfaces.ts'
import { dot, type Vec3 } from './frames.ts'
import { makeSurface, pathLength, shortestPath } from './geodesic.ts'

const random = mulberry32(41)

describe('the shortest way', () => {
  it('is straight in a plane', () => {
    const surface = makeSurface(zoned(box([40, 20, 40], 10)))
    for (let k = 0; k < 12; k++) {
      const a: Vec3 = [70 * (random() - 0.5), 20, 70 * (random() - 0.5)]
      const b: Vec3 = [70 * (random() - 0.5), 20, 70 * (random() - 0.5)]
      const path = shortestPath(surface, a, b)
      expect(pathLength(path)).toBeCloseTo(Math.hypot(a[0] - b[0], a[2] - b[2]), 1)
      for (const p of path) expect(p.point[1]).toBeCloseTo(20, 6)
    }
  })

  it('goes over the edge of a box as if it were unfolded', () => {
    const surface = makeSurface(zoned(box([40, 20, 40], 10)))
    // From the upper side down the right one: a straight line on the net of the box.
    const path = shortestPath(surface, [25, 20, -20], [40, 8, 11])
    expect(pathLength(path)).toBeCloseTo(Math.hypot(15 + 12, 31), 2)
  })

  it('is an arc of a great circle on a ball', () => {
    const surface = makeSurface(zoned(sphere(80, 60, 90)))
    for (let k = 0; k < 12; k++) {
      const at = (): Vec3 => {
        const v = [random() - 0.5, random() - 0.5, random() - 0.5]
        const n = Math.hypot(...v)
        return v.map((x) => (80 * x) / n) as unknown as Vec3
      }
      const [a, b] = [at(), at()]
      const arc = 80 * Math.acos(Math.max(-1, Math.min(1, dot(a, b) / 6400)))
      const length = pathLength(shortestPath(surface, a, b))
      expect(length / arc).toBeGreaterThan(0.99)
      expect(length / arc).toBeLessThan(1.012)
    }
  })

  it('is as long there as back, no shorter than a straight line, and keeps the triangle inequality on the head', () => {
    const surface = makeSurface(HEAD.display)
    const at = (id: string) => ZONES.find((z) => z.id === id)!.centre.point
    const [a, b, c] = [at('sideburn-left'), at('mouth-corner-left'), at('neck-upper-left')]
    const length = (p: Vec3, q: Vec3) => pathLength(shortestPath(surface, p, q))
    const ab = length(a, b)
    expect(length(b, a)).toBeCloseTo(ab, 1)
    expect(ab).toBeGreaterThanOrEqual(Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) - 0.05)
    expect(length(a, c)).toBeLessThanOrEqual(ab + length(b, c) + 0.1)
  })

  it('within one triangle is its two ends', () => {
    const surface = makeSurface(HEAD.display)
    const p = ZONES.find((z) => z.id === 'chin')!.centre.point
    expect(shortestPath(surface, p, p)).toHaveLength(2)
  })

  it('says when there is none', () => {
    const two = sphere(10, 8, 12)
    const n = two.positions.length / 3
    const apart = zoned({
      positions: Float32Array.from([
        ...two.positions,
        ...two.positions.map((x, i) => x + (i % 3 === 0 ? 60 : 0)),
      ]),
      indices: Uint32Array.from([...two.indices, ...two.indices.map((v) => v + n)]),
    })
    expect(() => shortestPath(makeSurface(apart), [10, 0, 0], [70, 0, 0])).toThrow(
      'no way over the skin',
    )
  })
})
