/** Blade fit (M6): how far a straight edge stands off curved skin, and the blade that suits a lane. Plane geometry. */
import { constant, type Figures } from '../house/index.ts'
import type { Blade } from '../kit/index.ts'
import type { Reason } from './types.ts'

export const BLADE_FIT_CONSTANTS = {
  givesSoftMm: constant(0.8, 'mm', 'Skin under light stretch gives this much on soft places', 'H'),
  givesBonyMm: constant(0.4, 'mm', 'Skin gives this much over bone', 'H'),
} as const

/** Stand-off (sagitta) of an edge of width w on radius R, mm; Infinity when the edge is wider than the round. */
export function sagittaMm(widthMm: number, radiusMm: number): number {
  if (radiusMm <= 0) return 0
  const inside = radiusMm * radiusMm - (widthMm * widthMm) / 4
  return inside < 0 ? Infinity : radiusMm - Math.sqrt(inside)
}

/**
 * Width of edge that touches within the give, mm. Hollow skin (negative radius) is stretched flat first, so the whole
 * edge counts.
 */
export function usableWidthMm(
  figures: Figures,
  edgeMm: number,
  radiusMm: number,
  bed: 'soft' | 'bony',
): number {
  if (radiusMm <= 0) return edgeMm
  const give =
    bed === 'soft'
      ? figures(BLADE_FIT_CONSTANTS.givesSoftMm)
      : figures(BLADE_FIT_CONSTANTS.givesBonyMm)
  if (give >= radiusMm) return Math.min(edgeMm, 2 * radiusMm)
  return Math.min(edgeMm, 2 * Math.sqrt(2 * radiusMm * give - give * give))
}

/** A blade on a lane. */
export interface Fit {
  readonly blade: Blade
  readonly widthMm: number
  readonly reason: Reason
}

/** A wider edge is taken up when this much more of it touches. */
const WORTH_CHANGING = 1.2

/**
 * The blade for a lane: the widest that lies on fully; a wider one of which clearly more touches goes before it ("a wide one
 * for cheeks"), and of two that touch about alike the usual one, or the shorter where neither lies on fully. In a small place
 * (lip, chin, nose, brow, behind the ear) the shortest edge allowed.
 * @param allowed usual blades first, at least one
 * @param radiusMm radius of curvature along the edge; negative is hollow
 * @param laneMm width of the lane: more edge than that serves nothing
 */
export function fitBlade(
  figures: Figures,
  allowed: readonly Blade[],
  radiusMm: number,
  bed: 'soft' | 'bony',
  small: boolean,
  laneMm = Infinity,
): Fit {
  const touches = (b: Blade) => usableWidthMm(figures, figures(b.edgeMm), radiusMm, bed)
  const serves = (b: Blade) => Math.min(touches(b), laneMm)
  const shortest = (list: readonly Blade[]) =>
    list.reduce((a, b) => (figures(b.edgeMm) < figures(a.edgeMm) ? b : a))
  const full = allowed.filter((b) => touches(b) >= figures(b.edgeMm) - 0.5)
  const best = (list: readonly Blade[]) =>
    list.reduce((a, b) => (serves(b) > WORTH_CHANGING * serves(a) ? b : a))
  const most = Math.max(...allowed.map(serves))
  const touching = shortest(allowed.filter((b) => serves(b) > most - 0.5))
  const lying = full.length > 0 ? best(full) : touching
  const blade = small
    ? shortest(allowed)
    : serves(touching) > WORTH_CHANGING * serves(lying)
      ? touching
      : lying
  const widthMm = Math.max(2, Math.round(touches(blade)))
  const round =
    radiusMm <= 0
      ? 'the skin is hollow here: stretch it flat'
      : radiusMm < 500
        ? `along the edge the skin is round with about ${Math.round(radiusMm)} mm`
        : 'along the edge the skin is nearly flat'
  const off = sagittaMm(figures(blade.edgeMm), radiusMm)
  return {
    blade,
    widthMm,
    reason: {
      text:
        widthMm >= figures(blade.edgeMm) - 0.5
          ? `The ${Math.round(figures(blade.edgeMm))} mm edge of the ${blade.name} lies on fully: ${round}.`
          : `Of the ${Math.round(figures(blade.edgeMm))} mm edge of the ${blade.name} about ${widthMm} mm touch: ${round}${Number.isFinite(off) ? `, so its ends would stand off ${off.toFixed(1)} mm` : ''}. Narrow sections.`,
      mark: 'H',
    },
  }
}
