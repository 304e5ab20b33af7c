/** The blades of the house and their measures. Typical edges, from memory; house estimates until measured. */
import { constant } from '../house/constants.ts'
import type { ToolKind } from '../skin/load.ts'
import type { ServiceId } from '../services.ts'

export const BLADE_CONSTANTS = {
  shavetteMm: constant(43, 'mm', 'Edge of a half blade in a shavette', 'H'),
  singleEdgeMm: constant(60, 'mm', 'Edge of a long single-edge blade', 'H'),
  guardedMm: constant(40, 'mm', 'Edge of a guarded facial razor', 'H'),
  browRazorMm: constant(18, 'mm', 'Edge of a small brow razor', 'H'),
  surgical10Mm: constant(20, 'mm', 'Edge of a surgical-shape blade 10', 'H'),
  surgical14Mm: constant(28, 'mm', 'Edge of a surgical-shape blade 14', 'H'),
  angleShaveDeg: constant(30, '°', 'Blade to skin, shavette and single edge', 'C'),
  angleFuzzDeg: constant(45, '°', 'Blade to skin, facial razors and dermaplaning', 'C'),
  lifeCoarse: constant(350, 'strokes', 'Blade life on coarse terminal hair', 'H'),
  lifeFine: constant(700, 'strokes', 'Blade life on fine terminal hair', 'H'),
  lifeFuzz: constant(400, 'strokes', 'Blade life on fuzz', 'H'),
} as const

const B = BLADE_CONSTANTS

export interface Blade {
  readonly id: string
  readonly name: string
  readonly tool: ToolKind
  readonly edgeMm: number
  readonly angleDeg: number
}

const blade = (
  id: string,
  name: string,
  tool: ToolKind,
  edgeMm: number,
  angleDeg: number,
): Blade => ({
  id,
  name,
  tool,
  edgeMm,
  angleDeg,
})

/** Blades a service may use, widest first; the last is for small places. */
export const SERVICE_BLADES: Readonly<Record<ServiceId, readonly Blade[]>> = {
  'face-shave': [
    blade(
      'shavette',
      'shavette, half blade',
      'single-edge',
      B.shavetteMm.value,
      B.angleShaveDeg.value,
    ),
  ],
  'head-shave': [
    blade(
      'single-edge',
      'single-edge holder',
      'single-edge',
      B.singleEdgeMm.value,
      B.angleShaveDeg.value,
    ),
    blade(
      'shavette',
      'shavette, half blade',
      'single-edge',
      B.shavetteMm.value,
      B.angleShaveDeg.value,
    ),
  ],
  dermaplane: [
    blade(
      'surgical-14',
      'surgical shape 14',
      'dermaplaning',
      B.surgical14Mm.value,
      B.angleFuzzDeg.value,
    ),
    blade(
      'surgical-10',
      'surgical shape 10',
      'dermaplaning',
      B.surgical10Mm.value,
      B.angleFuzzDeg.value,
    ),
  ],
  'facial-razor': [
    blade('guarded', 'guarded facial razor', 'guarded', B.guardedMm.value, B.angleFuzzDeg.value),
    blade('brow-razor', 'small brow razor', 'guarded', B.browRazorMm.value, B.angleFuzzDeg.value),
  ],
}
