/** What a pass buys (M8): a geometric model of the hair left standing, and said to be one. */
import { toRadians } from '../grain/index.ts'
import { constant, type Figures } from '../house/index.ts'

export const CLOSENESS_CONSTANTS = {
  exitAngleDeg: constant(45, '°', 'Angle at which hair leaves the skin', 'H'),
  pressedFlat: constant(
    0.4,
    '',
    'Share of that angle lost when a stroke presses the hair flat',
    'H',
  ),
  standOffMm: constant(0.1, 'mm', 'Height of the edge over the skin', 'H'),
  trimmerLeavesMm: constant(0.4, 'mm', 'A trimmer without a comb leaves this', 'H'),
  feltMm: constant(0.5, 'mm', 'Length at which terminal hair is felt', 'H'),
  feltFuzzMm: constant(0.3, 'mm', 'Length at which fuzz is felt', 'H'),
} as const

/**
 * Hair left standing after a stroke at angle δ to the growth, mm.
 * α_eff = α + (90° − α)(1 − cos δ)/2 − 0.4 α (1 + cos δ)/2; ρ = h / sin α_eff.
 * @param angle radians in [0, π]
 */
export function stubbleLeftMm(figures: Figures, angle: number): number {
  const alpha = toRadians(figures(CLOSENESS_CONSTANTS.exitAngleDeg))
  const c = Math.cos(angle)
  const lifted =
    alpha +
    ((Math.PI / 2 - alpha) * (1 - c)) / 2 -
    (figures(CLOSENESS_CONSTANTS.pressedFlat) * alpha * (1 + c)) / 2
  return figures(CLOSENESS_CONSTANTS.standOffMm) / Math.sin(lifted)
}

/**
 * Hours until hair left at `leftMm` is felt again.
 * @param growthMmPerDay straight growth, > 0
 */
export function smoothHours(leftMm: number, growthMmPerDay: number, feltMm: number): number {
  return Math.max(0, ((feltMm - leftMm) / growthMmPerDay) * 24)
}
