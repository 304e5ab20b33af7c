/**
 * Where each kind of line usually runs, laid from landmarks of the skin, to be dragged into place. Common practice; the heights are
 * house estimates.
 */
import {
  browCentre,
  browHalfHeight,
  hairlineHeight,
  surfacePoint,
  type Surface,
  type Vec3,
} from '../head/index.ts'
import { mirrorZone, ZONE_IDS } from '../zones/index.ts'
import type { KeepLine, LineKind, LineTap } from './keepLine.ts'

/** Finds the place of the skin nearest to a point. */
export type Place = (near: Vec3) => LineTap

/** Places points on a head. */
export const placeOn =
  ({ mesh, locator }: Surface): Place =>
  (near) => {
    const { triangle, weights } = locator.nearest(near)
    return {
      zoneId: ZONE_IDS[mesh.zones[triangle]!]!,
      ...surfacePoint(mesh, triangle, weights[0], weights[1]),
    }
  }

/** How far down a sideburn is left: to where the ear begins, to its middle, or to the lobe. */
export const SIDEBURN_CUTS = { top: 14, middle: -10, bottom: -30 } as const
export type SideburnCut = keyof typeof SIDEBURN_CUTS

/** The larynx, in the middle of the neck, and the skin under the chin: the neck line runs two fingers above the one toward the other (common practice). */
const LARYNX: Vec3 = [0, -140, 38]
const UNDER_CHIN: Vec3 = [0, -112, 90]
/** Two fingers laid flat, mm (house estimate). */
const TWO_FINGERS_MM = 32
/** A cheek line begins beside the corner of the mouth, ends where the ear's middle meets the sideburn, and hangs a little. */
const MOUTH_DEG = 20
const MOUTH_Y = -64
const BELOW_EAR_Y = -16
const HOLLOW_MM = 5
/** The nape's line is cut level at the hollow, mm. */
const NAPE_Y = -70

/** A place at a height and an angle round the head, degrees from straight ahead toward the client's left. */
type RoundAt = readonly [degrees: number, y: number]
/** A place of the face at a distance from the middle and a height, mm. */
type FrontAt = readonly [x: number, y: number]

/** Slides a guess over the skin until what is fixed of it holds. */
function settle(place: Place, guess: Vec3, fix: (p: Vec3) => Vec3): LineTap {
  let at = fix(guess)
  for (let i = 0; i < 12; i++) at = fix(place(at).point)
  return place(at)
}

const roundTap = (place: Place, [degrees, y]: RoundAt): LineTap => {
  const [s, c] = [Math.sin((degrees * Math.PI) / 180), Math.cos((degrees * Math.PI) / 180)]
  return settle(place, [84 * s, y, -10 + 84 * c], (p) => {
    const r = Math.max(0, p[0] * s + (p[2] + 10) * c)
    return [r * s, y, -10 + r * c]
  })
}

const frontTap = (place: Place, [x, y]: FrontAt): LineTap =>
  settle(place, [x, y, 92 - 0.45 * x], (p) => [x, y, p[2]])

/** A place so many millimetres over the skin from one point toward another. */
function alongSkin(place: Place, from: Vec3, toward: Vec3, mm: number): LineTap {
  let at = place(from)
  for (let gone = 0; gone < mm;) {
    const d = [0, 1, 2].map((k) => toward[k]! - at.point[k]!)
    const flat = d.map(
      (x, k) => x - at.normal[k]! * d.reduce((s, c, i) => s + c * at.normal[i]!, 0),
    )
    const size = Math.hypot(...flat) || 1
    const step = Math.min(1, mm - gone)
    const next = place(at.point.map((x, k) => x + (step * flat[k]!) / size) as unknown as Vec3)
    gone += Math.max(0.2, Math.hypot(...next.point.map((x, k) => x - at.point[k]!)))
    at = next
  }
  return at
}

/** Front edge of the sideburn at a height, degrees round the head. */
const sideburnEdge = (y: number) => 63 - 0.16 * y

interface Usual {
  /** Side on which hair is kept on the client's left, seen along the line. */
  readonly keep: 'left' | 'right'
  readonly taps: (place: Place, cut: SideburnCut) => LineTap[]
}

const HAIRLINE: readonly number[] = [0, 14, 28, 38, 46, 54, 62, 70]
const BROW: readonly number[] = [9, 16, 24, 32, 40, 47, 53]

/** The lines of the client's left, each from the middle outward or from above downward. */
const USUAL: Readonly<Record<LineKind, Usual>> = {
  hairline: {
    keep: 'left',
    taps: (place) => HAIRLINE.map((at) => roundTap(place, [at, hairlineHeight(at)])),
  },
  brow: {
    keep: 'right',
    taps: (place) => BROW.map((x) => frontTap(place, [x, browCentre(x) + browHalfHeight(x)])),
  },
  'brow-under': {
    keep: 'left',
    taps: (place) => BROW.map((x) => frontTap(place, [x, browCentre(x) - browHalfHeight(x)])),
  },
  // Down the front edge, then level to the ear.
  sideburn: {
    keep: 'left',
    taps: (place, cut) => {
      const y = SIDEBURN_CUTS[cut]
      const top = Math.max(y + 4, 16)
      return [
        roundTap(place, [sideburnEdge(top), top]),
        roundTap(place, [sideburnEdge((top + y) / 2), (top + y) / 2]),
        roundTap(place, [sideburnEdge(y), y]),
        roundTap(place, [(sideburnEdge(y) + EAR_FRONT) / 2, y]),
        roundTap(place, [EAR_FRONT, y]),
      ]
    },
  },
  // From the corner of the mouth up to the sideburn, a little hollow.
  cheek: {
    keep: 'right',
    taps: (place) =>
      [0, 1 / 4, 1 / 2, 3 / 4, 1].map((t) =>
        roundTap(place, [
          MOUTH_DEG + t * (sideburnEdge(BELOW_EAR_Y) - MOUTH_DEG),
          MOUTH_Y + t * (BELOW_EAR_Y - MOUTH_Y) - HOLLOW_MM * 4 * t * (1 - t),
        ]),
      ),
  },
  // Two fingers above the larynx, in a curve under the jaw to behind its angle.
  neck: {
    keep: 'left',
    taps: (place) => {
      const middle = alongSkin(place, LARYNX, UNDER_CHIN, TWO_FINGERS_MM)
      const [, y, z] = middle.point
      return [
        middle,
        place([22, y + 2, z - 4]),
        place([42, y + 9, z - 21]),
        place([55, y + 21, z - 46]),
        place([59, y + 39, z - 68]),
      ]
    },
  },
  // Just above the border of the lip, out to the corner of the mouth.
  moustache: {
    keep: 'left',
    taps: (place) =>
      (
        [
          [0, -59],
          [7, -57.5],
          [16, -60.5],
          [24, -64],
          [31, -68],
        ] as const
      ).map((at) => frontTap(place, at)),
  },
  nape: {
    keep: 'right',
    taps: (place) => [180, 166, 152, 138, 126].map((at) => roundTap(place, [at, NAPE_Y])),
  },
}

/** Where the skin before the ear ends, degrees round the head. */
const EAR_FRONT = 76

/** A tap on the other side of the head. */
const mirrored = ({ zoneId, point, normal }: LineTap): LineTap => ({
  zoneId: mirrorZone(zoneId),
  point: [0 - point[0], point[1], point[2]],
  normal: [0 - normal[0], normal[1], normal[2]],
})

/**
 * The usual line of a kind on one side.
 * @param cut how far down a sideburn is left
 */
export function usualLine(
  kind: LineKind,
  side: 'left' | 'right',
  place: Place,
  cut: SideburnCut = 'middle',
): Omit<KeepLine, 'id' | 'drawnAtMs'> {
  const { taps, keep } = USUAL[kind]
  // Whatever else a screen knows of a place, a line keeps these three.
  const left = taps(place, cut).map(({ zoneId, point, normal }) => ({ zoneId, point, normal }))
  return side === 'left'
    ? { kind, taps: left, keep }
    : { kind, taps: left.map(mirrored), keep: keep === 'left' ? 'right' : 'left' }
}
