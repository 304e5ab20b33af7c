/**
 * Dimensions of the built head beside the published medium head form.
 * Published values: ISO/TS 16976-2 and the respirator-user survey behind it (from memory).
 */
import { surfacePoint, triangleArea, type ZonedMesh } from './head.ts'
import type { Mesh } from './mesh.ts'
import { ZONE_IDS } from '../zones/index.ts'

/** Published medium head form, mm. `toleranceMm` is what this product keeps to. */
export const MEDIUM_HEAD = {
  headBreadth: { publishedMm: 152, toleranceMm: 3 },
  headLength: { publishedMm: 195, toleranceMm: 3 },
  bizygomaticBreadth: { publishedMm: 140, toleranceMm: 3 },
  sellionMenton: { publishedMm: 120, toleranceMm: 3 },
  noseLength: { publishedMm: 51, toleranceMm: 3 },
  noseBreadth: { publishedMm: 36, toleranceMm: 3 },
  noseProtrusion: { publishedMm: 20, toleranceMm: 3 },
  bigonialBreadth: { publishedMm: 118, toleranceMm: 3 },
  interpupillary: { publishedMm: 64, toleranceMm: 3 },
  neckBreadth: { publishedMm: 115, toleranceMm: 4 },
} as const

export type HeadDimension = keyof typeof MEDIUM_HEAD

/** Largest x, doubled, over surface points of a slab; the ears are kept out by `accept`. */
function breadth(mesh: Mesh, accept: (x: number, y: number, z: number) => boolean): number {
  let most = 0
  forEachVertex(mesh, (x, y, z) => {
    if (accept(x, y, z)) most = Math.max(most, x)
  })
  return 2 * most
}

function forEachVertex(mesh: Mesh, visit: (x: number, y: number, z: number) => void): void {
  const p = mesh.positions
  for (let v = 0; v < p.length; v += 3) visit(p[v]!, p[v + 1]!, p[v + 2]!)
}

/** The foremost line of the midline: depth over height, read between the vertices that lie on it exactly. */
function profile(mesh: Mesh): (y: number) => number {
  const line: [number, number][] = []
  forEachVertex(mesh, (x, y, z) => {
    if (x === 0 && z > 40) line.push([y, z])
  })
  line.sort((a, b) => a[0] - b[0])
  return (y) => {
    let best = -Infinity
    for (let i = 0; i + 1 < line.length; i++) {
      const [y0, z0] = line[i]!
      const [y1, z1] = line[i + 1]!
      if (y < y0 || y > y1 || y1 === y0) continue
      best = Math.max(best, z0 + ((z1 - z0) * (y - y0)) / (y1 - y0))
    }
    return best
  }
}

/** Measures the head, mm. */
export function measureHead(mesh: ZonedMesh): Record<HeadDimension, number> {
  let front = -Infinity
  let back = Infinity
  forEachVertex(mesh, (x, y, z) => {
    if (Math.abs(x) < 15 && y > 10 && y < 100) front = Math.max(front, z)
    if (y > -20 && y < 110) back = Math.min(back, z)
  })
  const at = profile(mesh)
  // Sellion: the deepest point of the root of the nose.
  let sellionY = 0
  for (let y = -6; y <= 8; y++) if (at(y) < at(sellionY)) sellionY = y
  // Subnasale: the corner between nose and lip, farthest behind the line from the tip to the upper lip.
  const tipAt = [-36, at(-36)] as const
  const lipAt = [-63, at(-63)] as const
  let subnasaleY = -50
  const behind = (y: number) =>
    tipAt[1] + ((y - tipAt[0]) / (lipAt[0] - tipAt[0])) * (lipAt[1] - tipAt[1]) - at(y)
  for (let y = -60; y <= -40; y++) if (behind(y) > behind(subnasaleY)) subnasaleY = y
  // Menton: the lowest point of the chin's midline, ahead of the throat.
  let mentonY = 0
  let tipZ = -Infinity
  forEachVertex(mesh, (x, y, z) => {
    if (Math.abs(x) < 1.5 && z > 66 && y < -90) mentonY = Math.min(mentonY, y)
    if (Math.abs(x) < 3 && y < -25 && y > -45) tipZ = Math.max(tipZ, z)
  })
  return {
    headBreadth: breadth(mesh, (_x, y, z) => y > 25 && (y > 42 || z < -45)),
    headLength: front - back,
    bizygomaticBreadth: breadth(mesh, (_x, y, z) => y > -30 && y < 0 && z > 12),
    sellionMenton: sellionY - mentonY,
    noseLength: sellionY - subnasaleY,
    noseBreadth: breadth(mesh, (_x, y, z) => y < -36 && y > -41.5 && z > 97),
    // Protrusion: from the crease beside the wing's foot to the tip.
    noseProtrusion: tipZ - at(subnasaleY),
    bigonialBreadth: breadth(mesh, (_x, y, z) => y < -66 && y > -82 && z > 0 && z < 30),
    interpupillary: 2 * middleOfEye(mesh),
    neckBreadth: breadth(mesh, (_x, y) => y < -136 && y > -146),
  }
}

/** The closed lids' middle stands for the pupil: x of the middle of the client's left eye zone, mm. */
function middleOfEye(mesh: ZonedMesh): number {
  const [start, count] = mesh.ranges[ZONE_IDS.indexOf('eye-left')]!
  let sum = 0
  let area = 0
  for (let t = start; t < start + count; t++) {
    const a = triangleArea(mesh, t)
    area += a
    sum += a * surfacePoint(mesh, t, 1 / 3, 1 / 3).point[0]
  }
  return sum / area
}
