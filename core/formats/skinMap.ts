/** How the skin was, as flat views in lines: zones tinted by redness, spots as marks, arrows of growth; ready to print. */
import { LIGHT, ON_SKIN, REDNESS_COLOURS } from '../palette.ts'
import { viewAxes, projectPoint, FLAT_HALF, VIEWS, type FlatView } from '../head/index.ts'
import { ZONE_IDS } from '../zones/index.ts'
import type { SkinSpot, SpotKind } from '../looks/index.ts'
import { ringsPath } from './mapSvg.ts'

/** A zone's outline with its tint. */
export interface TintedZone {
  readonly zoneId: string
  readonly d: string
  readonly colour: string
  readonly opacity: number
}

export interface PlacedSpot {
  readonly id: string
  readonly kind: SpotKind
  /** mm from the upper left corner of the view. */
  readonly x: number
  readonly y: number
}

/** Looks this far away from the viewer at most. */
const LEAST_FACING = 0.15

/** Zones of a view that have a tint. */
export function tintedZones(
  view: FlatView,
  tint: (zoneId: string) => { colour: string; opacity: number } | undefined,
): TintedZone[] {
  return view.zones.flatMap((z) => {
    const zoneId = ZONE_IDS[z.zone]!
    const has = tint(zoneId)
    return has ? [{ zoneId, d: ringsPath(z.rings), ...has }] : []
  })
}

/** The tint of a grade of redness; clear worked zones are told from those not worked. */
export const rednessTint = (grade: number) =>
  grade > 0
    ? { colour: REDNESS_COLOURS[Math.min(4, grade)]!, opacity: 0.9 }
    : { colour: ON_SKIN.water, opacity: 0.16 }

/** Spots that face the viewer of a view. */
export function placeSpots(view: FlatView, spots: readonly SkinSpot[]): PlacedSpot[] {
  const { yawDeg, pitchDeg } = VIEWS[view.id]
  const axes = viewAxes(yawDeg, pitchDeg)
  return spots.flatMap((s) => {
    const facing =
      axes.toward[0] * s.normal[0] + axes.toward[1] * s.normal[1] + axes.toward[2] * s.normal[2]
    if (facing < LEAST_FACING) return []
    const [right, up] = projectPoint(axes, s.point)
    return [{ id: s.id, kind: s.kind, x: right + FLAT_HALF.width, y: FLAT_HALF.height - up }]
  })
}

/** A spot's mark round 0, 0: bump a dot, ingrown hair a ring with a curl, pustule a ringed dot, dark mark a square, blackhead a diamond. */
export const SPOT_SHAPES: Readonly<Record<SpotKind, { d: string; filled: boolean }>> = {
  bump: { d: 'M-2.2 0a2.2 2.2 0 1 0 4.4 0a2.2 2.2 0 1 0 -4.4 0Z', filled: true },
  ingrown: {
    d: 'M-2.6 0a2.6 2.6 0 1 0 5.2 0a2.6 2.6 0 1 0 -5.2 0ZM-1 1.1C1.8 1.4 1.6 -1.6 -0.4 -0.9',
    filled: false,
  },
  pustule: {
    d: 'M-3 0a3 3 0 1 0 6 0a3 3 0 1 0 -6 0ZM-1.1 0a1.1 1.1 0 1 0 2.2 0a1.1 1.1 0 1 0 -2.2 0Z',
    filled: false,
  },
  dark: { d: 'M-2.2 -2.2L2.2 -2.2L2.2 2.2L-2.2 2.2Z', filled: true },
  blackhead: { d: 'M0 -2.8L2.8 0L0 2.8L-2.8 0Z', filled: true },
}

export const SKIN_SPOT_WORDS: Readonly<Record<SpotKind, string>> = {
  bump: 'bump',
  ingrown: 'ingrown hair',
  pustule: 'pustule',
  dark: 'dark mark',
  blackhead: 'blackhead',
}

/**
 * A view as an SVG document.
 * @param arrows growth arrows as `flatParts` gives them
 */
export function skinMapSvg(
  view: FlatView,
  zones: readonly TintedZone[],
  spots: readonly PlacedSpot[],
  arrows: readonly { readonly d: string; readonly head: string }[] = [],
): string {
  const [x, y, w, h] = [18, 8, view.widthMm - 36, view.heightMm - 16]
  const path = (d: string, more: string) => `<path d="${d}" ${more}/>`
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${x} ${y} ${w} ${h}" width="${w}" height="${h}">`,
    path(
      ringsPath(view.silhouette),
      `fill="${LIGHT.shell}" stroke="${LIGHT.ink}" stroke-width="0.9"`,
    ),
    ...zones.map((z) => path(z.d, `fill="${z.colour}" fill-opacity="${z.opacity}"`)),
    ...view.zones.map((z) =>
      path(ringsPath(z.rings), `fill="none" stroke="${ON_SKIN.border}" stroke-width="0.4"`),
    ),
    ...arrows.map(
      (a) =>
        path(a.d, `fill="none" stroke="${LIGHT.deep}" stroke-width="1.3"`) +
        path(a.head, `fill="${LIGHT.deep}" stroke="none"`),
    ),
    ...spots.map((s) => {
      const shape = SPOT_SHAPES[s.kind]
      return `<g transform="translate(${s.x.toFixed(1)} ${s.y.toFixed(1)})">${path(
        shape.d,
        shape.filled
          ? `fill="${LIGHT.ink}" stroke="${LIGHT.shell}" stroke-width="0.6"`
          : `fill="${LIGHT.shell}" stroke="${LIGHT.ink}" stroke-width="1"`,
      )}</g>`
    }),
    '</svg>',
  ].join('')
}
