/** What passes buy (M8): a geometric model of the hair left standing and of the hairs missed, and said to be one. */
import { toRadians } from '../grain/index.ts'
import { constant, type Constant, type Figures } from '../house/index.ts'
import { daysToLength, thresholdOf, type Growth } from '../regrowth/index.ts'
import type { Coarseness, ToolKind } from '../skin/index.ts'

export const CLOSENESS_CONSTANTS = {
  exitAngleDeg: constant(45, '°', 'Angle at which hair leaves the skin', 'H'),
  pressedFlat: constant(
    0.4,
    '',
    'Share of that angle lost when a stroke presses the hair flat',
    'H',
  ),
  standOffMm: constant(0.1, 'mm', 'Height of an open edge over the skin', 'H'),
  standOffHeadedMm: constant(0.12, 'mm', 'The same of a razor with a head', 'H'),
  standOffCartridgeMm: constant(0.09, 'mm', 'The same of a multi-blade cartridge', 'H'),
  standOffPlaningMm: constant(0.08, 'mm', 'The same of a dermaplaning blade on fuzz', 'H'),
  standOffGuardedMm: constant(0.13, 'mm', 'The same of a guarded facial razor on fuzz', 'H'),
  trimmerLeavesMm: constant(0.4, 'mm', 'A trimmer without a comb leaves this', 'H'),
  missFine: constant(0.06, '', 'Share of fine hair that one pass misses', 'H'),
  missMedium: constant(0.1, '', 'Share of medium hair that one pass misses', 'H'),
  missCoarse: constant(0.15, '', 'Share of coarse hair that one pass misses', 'H'),
} as const

const C = CLOSENESS_CONSTANTS

const STAND_OFF: Readonly<Record<Exclude<ToolKind, 'trimmer'>, Constant>> = {
  'single-edge': C.standOffMm,
  headed: C.standOffHeadedMm,
  cartridge: C.standOffCartridgeMm,
  dermaplaning: C.standOffPlaningMm,
  guarded: C.standOffGuardedMm,
}

/**
 * Hair left standing after a stroke at angle δ to the growth, mm.
 * Terminal: α_eff = α + (90° − α)(1 − cos δ)/2 − 0.4 α (1 + cos δ)/2; ρ = h / sin α_eff. Fuzz is too soft to stand off by its
 * own angle: what stays is the height of the edge.
 * @param angle radians in [0, π]
 */
export function stubbleLeftMm(figures: Figures, angle: number, tool: ToolKind): number {
  if (tool === 'trimmer') return figures(C.trimmerLeavesMm)
  const height = figures(STAND_OFF[tool])
  if (tool === 'dermaplaning' || tool === 'guarded') return height
  const alpha = toRadians(figures(C.exitAngleDeg))
  const c = Math.cos(angle)
  const lifted =
    alpha + ((Math.PI / 2 - alpha) * (1 - c)) / 2 - (figures(C.pressedFlat) * alpha * (1 + c)) / 2
  return height / Math.sin(lifted)
}

const MISS: Readonly<Record<Coarseness, Constant>> = {
  fine: C.missFine,
  medium: C.missMedium,
  coarse: C.missCoarse,
}

/** Share of the hair that so many passes have cut at least once; fuzz is gone over once and none is counted as missed. */
export function shareCut(figures: Figures, passes: number, coarse: Coarseness | undefined): number {
  return coarse === undefined ? 1 : 1 - figures(MISS[coarse]) ** passes
}

/**
 * Hours until hair left at `leftMm` is felt again, by its own regrowth, over what was cut.
 * @param cut share of the hair that was cut, 0 to 1
 */
export function smoothHours(figures: Figures, leftMm: number, growth: Growth, cut: number): number {
  const felt = thresholdOf(figures, growth, 'felt').mm
  return 24 * cut * daysToLength(figures, growth.curve, leftMm, growth.mean, felt)
}
