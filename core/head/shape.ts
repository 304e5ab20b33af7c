/**
 * The head as a list of parts, blended in order. Units mm; +x is the client's left, y is up with 0 at the eye line,
 * z is forward with 0 at the tragion. Figures are the product's own (house estimates), tuned so that the measured
 * dimensions stand near the published medium head form (see measure.ts).
 */
import {
  cone,
  ellipsoid,
  ellipticalTube,
  fold,
  smoothMax,
  smoothMin,
  tube,
  type Distance,
  type TubePoint,
} from './distance.ts'

/** How much of the head is built: the solve mesh leaves out what its coarse grid could not hold. */
export type Detail = 'full' | 'solve'

/** One part of the head: its distance, how it joins what came before, over which reach. */
export interface Part {
  readonly name: string
  readonly join: 'add' | 'cut' | 'keep'
  /** Blend reach, mm. */
  readonly reachMm: number
  readonly distance: Distance
}

const folded =
  (d: Distance, soft = 4): Distance =>
  (x, y, z) =>
    d(fold(x, soft), y, z)

const mirrored =
  (d: Distance): Distance =>
  (x, y, z) =>
    d(Math.abs(x), y, z)

const add = (name: string, reachMm: number, distance: Distance): Part => ({
  name,
  join: 'add',
  reachMm,
  distance,
})
const cut = (name: string, reachMm: number, distance: Distance): Part => ({
  name,
  join: 'cut',
  reachMm,
  distance,
})

function neck(): Distance {
  const body = ellipticalTube([
    [-260, -36, 104, 78],
    [-225, -33, 82, 66],
    [-200, -28, 65.5, 57],
    [-170, -23, 57.5, 53],
    [-130, -15, 55, 52],
    [-90, -13, 52, 51],
    [-40, -12, 48.5, 50],
  ])
  const n = Math.hypot(1, 0.3)
  return (x, y, z) => smoothMax(body(x, y, z), (y + 0.3 * z) / n + 42, 20)
}

function eye(): Distance {
  const ball = ellipsoid(32, -1, 61, 19, 16, 17.4)
  const upperLid = ellipsoid(32, 29, 66, 44, 36, 60)
  const lowerLid = ellipsoid(32, -3.5, 60, 18.5, 13.5, 16)
  return folded((x, y, z) =>
    smoothMin(smoothMax(ball(x, y, z), upperLid(x, y, z), 1.2), lowerLid(x, y, z), 0.6),
  )
}

/** The lips alone; also used to draw their border. */
export const lips: Distance = (() => {
  const upper = tube(
    [
      [-6, -63.2, 93.4, 5.6],
      [0, -64.6, 94.6, 5],
      [6, -63.2, 93.4, 5.6],
      [16, -65.4, 88.8, 4.6],
      [27.5, -68.9, 79.2, 1.8],
    ],
    14,
  )
  const lower = tube(
    [
      [-9, -74.4, 91, 6.2],
      [0, -74.6, 92, 6.6],
      [9, -74.4, 91, 6.2],
      [18, -72.2, 86.6, 4.8],
      [27, -69.3, 79.2, 1.8],
    ],
    14,
  )
  return folded((x, y, z) => smoothMin(upper(x, y, z), lower(x, y, z), 0.8), 0.01)
})()

function earFrame(local: Distance): Distance {
  const c12 = Math.cos((12 * Math.PI) / 180)
  const s12 = Math.sin((12 * Math.PI) / 180)
  const c26 = Math.cos((26 * Math.PI) / 180)
  const s26 = Math.sin((26 * Math.PI) / 180)
  const scale = 0.94
  return (x, y, z) => {
    const px = (Math.abs(x) - 73) / scale
    const py = (y + 7) / scale
    const pz = (z + 14) / scale
    const v = py * c12 - pz * s12
    const u0 = -py * s12 - pz * c12
    return scale * local(c26 * u0 + s26 * px, v, c26 * px - s26 * u0)
  }
}

function fullEar(): Distance {
  const shell = ellipsoid(1.5, 3.5, -4.4, 20, 30, 7)
  const lowShell = ellipsoid(-2, -13, -3, 14, 16, 5.5)
  const lobe = ellipsoid(-5, -25, -1, 8, 8.5, 3.8)
  const root = ellipsoid(-4, 4, -10.5, 13, 25, 10)
  const concha = ellipsoid(-3, -4, 4.5, 9.5, 12.5, 8)
  const fossa = ellipsoid(-4, 18, 4.5, 6, 7, 4)
  const scapha = tube([
    [2, 23, 4.6, 2.4],
    [9, 19, 4.7, 2.6],
    [11.5, 8, 4.9, 2.6],
    [9.5, -6, 4.6, 2.2],
  ])
  const helix = tube([
    [-4, -1, -1.4, 2],
    [-11, 6, 0.4, 2.5],
    [-13, 16, 1, 2.9],
    [-8, 26, 1.4, 3.1],
    [2, 30, 1.6, 3.1],
    [12, 26, 1.8, 3.1],
    [17.5, 16, 1.8, 3],
    [18, 4, 1.8, 2.9],
    [15, -8, 1.4, 2.7],
    [9, -18, 0.6, 2.4],
    [4, -24, -0.4, 2],
  ])
  const antihelix = tube([
    [0, 21, 0, 2],
    [6, 12, 1, 2.7],
    [8.5, 3, 1.6, 2.9],
    [7.5, -7, 1.6, 2.8],
    [2, -14, 1.4, 2.9],
    [-3, -17, 0.6, 2.6],
  ])
  const c8 = Math.cos((-8 * Math.PI) / 180)
  const s8 = Math.sin((-8 * Math.PI) / 180)
  const tragusUpright = ellipsoid(0, 0, 0, 4.2, 6.2, 4.4)
  const tragus: Distance = (u, v, w) =>
    tragusUpright(c8 * (u + 13.5) + s8 * (v + 5), -s8 * (u + 13.5) + c8 * (v + 5), w - 1.5)
  return earFrame((u, v, w) => {
    let d = smoothMin(shell(u, v, w), lowShell(u, v, w), 6)
    d = smoothMin(d, lobe(u, v, w), 5)
    d = smoothMin(d, root(u, v, w), 10)
    d = smoothMax(d, -concha(u, v, w), 4)
    d = smoothMax(d, -fossa(u, v, w), 3)
    d = smoothMax(d, -scapha(u, v, w), 3)
    d = smoothMin(d, helix(u, v, w), 2.5)
    d = smoothMin(d, antihelix(u, v, w), 3.5)
    return smoothMin(d, tragus(u, v, w), 4)
  })
}

/** The ear as one smooth bump, for the coarse solve mesh. */
function bumpEar(): Distance {
  return earFrame(ellipsoid(-1, 1, -5, 18, 31, 12))
}

/** The ear alone; also used to draw its border. */
export const ear: Record<Detail, Distance> = { full: fullEar(), solve: bumpEar() }

const mirrorFirst = (points: readonly TubePoint[]): TubePoint[] => {
  const [x, y, z, r] = points[1]!
  return [[-x, y, z, r], ...points]
}

function parts(detail: Detail): Part[] {
  const body: Part[] = [
    add('cranium back', 1, ellipsoid(0, 36, -31, 75.5, 73.5, 68)),
    add('cranium front', 32, ellipsoid(0, 35, 15, 64, 74, 73)),
    add('forehead', 30, ellipsoid(0, 28, 43, 51, 43, 46)),
    add('face core', 30, ellipsoid(0, -42, 34, 46, 58, 46)),
    add('maxilla', 24, ellipsoid(0, -40, 58, 40, 40, 31)),
    add('zygoma', 26, folded(ellipsoid(42, -20, 53, 18, 16, 20, 32))),
    add('arch', 30, folded(cone([47, -15, 46, 10], [52.5, -8, 6, 8]))),
    add('cheek', 28, folded(ellipsoid(32, -48, 42, 25, 36, 35))),
    add('ramus', 26, folded(cone([38, -66, 12, 8.6], [51, -12, 4, 9]))),
    add(
      'mandible',
      20,
      folded(
        tube([
          [40.8, -72, 12, 9.8],
          [35, -86, 42, 10.8],
          [13, -99.5, 71, 11],
        ]),
      ),
    ),
    add('mouth floor', 18, ellipsoid(0, -84, 36, 36, 31, 44)),
    add('chin', 20, ellipsoid(0, -99, 77, 18, 13, 16.5)),
    add('neck', 26, neck()),
    add(
      'sternomastoid',
      22,
      folded(
        tube([
          [45, -40, -20, 9],
          [38, -115, 2, 9],
          [14, -205, 14, 5],
          [8, -240, 6, 4],
        ]),
      ),
    ),
    add(
      'trapezius',
      42,
      folded(
        tube([
          [14, -66, -46, 12],
          [24, -150, -54, 16],
          [58, -228, -46, 22],
        ]),
        22,
      ),
    ),
    add(
      'nuchal',
      36,
      folded(
        tube([
          [21, -16, -45, 18],
          [20, -78, -43, 16],
          [18, -140, -40, 12],
        ]),
        16,
      ),
    ),
    cut('socket', 24, folded(ellipsoid(32, 2.5, 96, 22, 15, 19, 18))),
    cut('root notch', 20, ellipsoid(0, 1, 103, 17, 13, 14)),
    // The brow must cross the midline, or the head frowns.
    add(
      'brow',
      24,
      folded(
        tube(
          mirrorFirst([
            [0, 16, 82, 6.5],
            [14, 17.5, 81, 7],
            [29, 21.5, 77.5, 7],
            [46, 16, 61, 7],
          ]),
        ),
        12,
      ),
    ),
    add('eye', 5, eye()),
    add(
      'nose bridge',
      12,
      tube([
        [0, 7, 84, 6.5],
        [0, -16, 93.5, 7],
        [0, -31, 104.5, 8.6],
      ]),
    ),
    add('nose side', 13, folded(cone([7, 0, 77, 6], [8.6, -33.5, 90, 7.8]))),
    add('nose tip', 9, ellipsoid(0, -36.2, 109.6, 9.6, 7.2, 9)),
    add('ala', 5, folded(ellipsoid(10.3, -38.8, 96, 5.9, 6.1, 8.6, 14))),
  ]
  if (detail === 'full') {
    body.push(
      add('columella', 4, cone([0, -41.5, 107.4, 3.2], [0, -45, 91.5, 4])),
      cut('nostril', 4, folded(ellipsoid(6.6, -46.8, 104, 3.1, 3.6, 5, -20))),
    )
  }
  body.push(
    add('muzzle', 20, ellipsoid(0, -64, 69, 34, 26, 24.5)),
    cut('mentolabial', 14, ellipsoid(0, -86, 104, 24, 7, 11.5)),
  )
  if (detail === 'full') {
    body.push(cut('philtrum', 5, cone([0, -50, 102, 3], [0, -59, 104.5, 3.8])))
  }
  body.push(add('lips', 5, lips), add('ear', 5, mirrored(ear[detail])), {
    name: 'bust cut',
    join: 'keep',
    reachMm: 14,
    distance: (_x, y) => -214 - y,
  })
  return body
}

/** Side of a cell of the part cache, mm. */
const CELL_MM = 14
const CELL_RADIUS_MM = (CELL_MM * Math.sqrt(3)) / 2
/** Ellipsoid estimates and blends are not quite 1-Lipschitz; this much slack keeps every part that can matter. */
const SLACK = 1.4

/**
 * The head's distance function with a cache of which parts matter where, so that a sample near the ear does not ask
 * the chin. Deterministic: a part left out of a cell could not have changed any value in it.
 */
export class HeadField {
  private readonly all: Part[]
  private readonly cells = new Map<number, { active: Part[]; centre: number }>()

  /** @param without a part to leave out, for finding where that part begins on the whole head */
  constructor(detail: Detail, without?: 'ear' | 'lips') {
    this.all = parts(detail).filter((part) => part.name !== without)
  }

  /** Signed distance at a point, mm. */
  readonly distance: Distance = (x, y, z) => blend(this.cellAt(x, y, z).active, x, y, z)

  /** Distance at the middle of the cell that holds the point, for skipping empty space. */
  coarse(x: number, y: number, z: number): number {
    return this.cellAt(x, y, z).centre
  }

  /** Greatest change of the distance between a cell's middle and any point in it, mm. */
  static readonly coarseReachMm = CELL_RADIUS_MM * SLACK

  /** Unit gradient by central differences of `step` mm, written into `out`; returns its length before scaling. */
  normal(x: number, y: number, z: number, out: Float64Array | number[], step = 0.8): number {
    const d = this.distance
    const gx = d(x + step, y, z) - d(x - step, y, z)
    const gy = d(x, y + step, z) - d(x, y - step, z)
    const gz = d(x, y, z + step) - d(x, y, z - step)
    const length = Math.hypot(gx, gy, gz) || 1
    out[0] = gx / length
    out[1] = gy / length
    out[2] = gz / length
    return length / (2 * step)
  }

  /** Moves a point onto the surface by Newton steps along the gradient, in place. */
  project(point: Float64Array | number[], steps = 3): void {
    const n = [0, 0, 0]
    for (let i = 0; i < steps; i++) {
      const d = this.distance(point[0]!, point[1]!, point[2]!)
      const slope = Math.max(this.normal(point[0]!, point[1]!, point[2]!, n), 0.3)
      point[0]! -= (d / slope) * n[0]!
      point[1]! -= (d / slope) * n[1]!
      point[2]! -= (d / slope) * n[2]!
    }
  }

  private cellAt(x: number, y: number, z: number) {
    const i = Math.floor((x + 280) / CELL_MM)
    const j = Math.floor((y + 420) / CELL_MM)
    const k = Math.floor((z + 280) / CELL_MM)
    const key = (i * 64 + j) * 64 + k
    let cell = this.cells.get(key)
    if (!cell) {
      const cx = (i + 0.5) * CELL_MM - 280
      const cy = (j + 0.5) * CELL_MM - 420
      const cz = (k + 0.5) * CELL_MM - 280
      const centre = blend(this.all, cx, cy, cz)
      const slack = 2 * HeadField.coarseReachMm
      const active = this.all.filter((part, index) => {
        if (index === 0) return true
        const e = part.join === 'cut' ? -part.distance(cx, cy, cz) : part.distance(cx, cy, cz)
        return part.join === 'add'
          ? e - centre < part.reachMm + slack
          : centre - e < part.reachMm + slack
      })
      cell = { active, centre }
      this.cells.set(key, cell)
    }
    return cell
  }
}

function blend(active: readonly Part[], x: number, y: number, z: number): number {
  let d = Infinity
  for (const part of active) {
    const e = part.distance(x, y, z)
    if (part.join === 'add') d = d === Infinity ? e : smoothMin(d, e, part.reachMm)
    else d = smoothMax(d, part.join === 'cut' ? -e : e, part.reachMm)
  }
  return d
}
