/** Blade fit (M6): how far a straight edge stands off curved skin. Plane geometry. */
import { constant } from '../house/constants.ts'

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
export function usableWidthMm(edgeMm: number, radiusMm: number, bed: 'soft' | 'bony'): number {
  if (radiusMm <= 0) return edgeMm
  const give =
    bed === 'soft' ? BLADE_FIT_CONSTANTS.givesSoftMm.value : BLADE_FIT_CONSTANTS.givesBonyMm.value
  if (give >= radiusMm) return Math.min(edgeMm, 2 * radiusMm)
  return Math.min(edgeMm, 2 * Math.sqrt(2 * radiusMm * give - give * give))
}
