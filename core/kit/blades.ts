/** The kit that cuts: edges, angles, handles. Typical measures, from memory; house estimates until measured. */
import { constant, PRICE, type Constant } from '../house/index.ts'
import type { ToolKind } from '../skin/index.ts'

export const BLADE_CONSTANTS = {
  shavetteMm: constant(43, 'mm', 'Edge of a half blade in a shavette', 'H'),
  safetyMm: constant(
    41,
    'mm',
    'Edge of a double-edge blade (43 mm long) that a safety razor’s head leaves free',
    'H',
  ),
  singleEdgeMm: constant(
    60,
    'mm',
    'Edge of a long single-edge blade, about 60 mm (from memory)',
    'H',
  ),
  guardedMm: constant(40, 'mm', 'Edge of a guarded facial razor', 'H'),
  browRazorMm: constant(18, 'mm', 'Edge of a small brow razor', 'H'),
  surgical10Mm: constant(20, 'mm', 'Edge of a surgical-shape blade 10', 'H'),
  surgical14Mm: constant(28, 'mm', 'Edge of a surgical-shape blade 14', 'H'),
  trimmerMm: constant(32, 'mm', 'Edge of a trimmer', 'H'),
  cartridgeMm: constant(38, 'mm', 'Edge of a multi-blade cartridge', 'H'),
  angleShaveDeg: constant(30, '°', 'Blade to skin, shavette, safety and single edge', 'C'),
  angleFuzzDeg: constant(45, '°', 'Blade to skin, facial razors and dermaplaning', 'C'),
  angleFlatDeg: constant(
    0,
    '°',
    'A cartridge lies flat on its own pivot, a trimmer flat on the skin',
    'C',
  ),
  lifeCoarse: constant(350, 'strokes', 'Blade life on coarse terminal hair', 'H'),
  lifeFine: constant(700, 'strokes', 'Blade life on fine terminal hair', 'H'),
  lifeFuzz: constant(400, 'strokes', 'Blade life on fuzz', 'H'),
  priceShavette: constant(0.15, PRICE, 'Half blade', 'H'),
  priceSafety: constant(0.25, PRICE, 'Double-edge blade', 'H'),
  priceSingleEdge: constant(0.6, PRICE, 'Long single-edge blade', 'H'),
  priceGuarded: constant(0.9, PRICE, 'Guarded facial razor', 'H'),
  priceBrow: constant(0.5, PRICE, 'Small brow razor', 'H'),
  priceSurgical: constant(0.7, PRICE, 'Sterile surgical-shape blade', 'H'),
  priceCartridge: constant(2.4, PRICE, 'Cartridge', 'H'),
  priceTrimmer: constant(0.1, PRICE, 'Trimmer, oil and disinfectant for one use', 'H'),
} as const

const B = BLADE_CONSTANTS

/** How a handle stands on the blade: along the edge as a folding razor's, or ahead in the stroke as a razor with a head. */
export interface Handle {
  readonly way: 'along-edge' | 'ahead'
  readonly lengthMm: number
  /** Up from the skin, degrees. */
  readonly liftDeg: number
}

export interface Blade {
  readonly id: string
  readonly name: string
  readonly tool: ToolKind
  readonly edgeMm: Constant
  readonly angleDeg: Constant
  readonly handle: Handle
  /** Only in practised hands. */
  readonly practised: boolean
  readonly price: Constant
}

function blade(
  id: string,
  name: string,
  tool: ToolKind,
  edgeMm: Constant,
  angleDeg: Constant,
  price: Constant,
  handle: Handle,
  practised = false,
): Blade {
  return { id, name, tool, edgeMm, angleDeg, price, handle, practised }
}

const FOLDING: Handle = { way: 'along-edge', lengthMm: 130, liftDeg: 24 }
const STICK: Handle = { way: 'along-edge', lengthMm: 110, liftDeg: 28 }
const HEADED: Handle = { way: 'ahead', lengthMm: 90, liftDeg: 38 }

/** Every blade that a house may own, by id. */
export const BLADES = {
  shavette: blade(
    'shavette',
    'shavette, half blade',
    'single-edge',
    B.shavetteMm,
    B.angleShaveDeg,
    B.priceShavette,
    FOLDING,
    true,
  ),
  safety: blade(
    'safety',
    'safety razor, single edge',
    'headed',
    B.safetyMm,
    B.angleShaveDeg,
    B.priceSafety,
    HEADED,
  ),
  'single-edge': blade(
    'single-edge',
    'single-edge holder',
    'headed',
    B.singleEdgeMm,
    B.angleShaveDeg,
    B.priceSingleEdge,
    HEADED,
  ),
  'surgical-14': blade(
    'surgical-14',
    'surgical shape 14',
    'dermaplaning',
    B.surgical14Mm,
    B.angleFuzzDeg,
    B.priceSurgical,
    STICK,
    true,
  ),
  'surgical-10': blade(
    'surgical-10',
    'surgical shape 10',
    'dermaplaning',
    B.surgical10Mm,
    B.angleFuzzDeg,
    B.priceSurgical,
    STICK,
    true,
  ),
  guarded: blade(
    'guarded',
    'guarded facial razor',
    'guarded',
    B.guardedMm,
    B.angleFuzzDeg,
    B.priceGuarded,
    STICK,
  ),
  'brow-razor': blade(
    'brow-razor',
    'small brow razor',
    'guarded',
    B.browRazorMm,
    B.angleFuzzDeg,
    B.priceBrow,
    STICK,
  ),
  trimmer: blade(
    'trimmer',
    'trimmer',
    'trimmer',
    B.trimmerMm,
    B.angleFlatDeg,
    B.priceTrimmer,
    HEADED,
  ),
  cartridge: blade(
    'cartridge',
    'multi-blade cartridge',
    'cartridge',
    B.cartridgeMm,
    B.angleFlatDeg,
    B.priceCartridge,
    HEADED,
  ),
} as const satisfies Record<string, Blade>

export type BladeId = keyof typeof BLADES
export const BLADE_IDS = Object.keys(BLADES) as BladeId[]

/** How practised a worker is. */
export const LEVELS = ['practised', 'learning'] as const
export type Level = (typeof LEVELS)[number]

/** Kinds of blade in words. */
export const TOOL_WORDS: Readonly<Record<ToolKind, string>> = {
  'single-edge': 'open single edge',
  headed: 'razor with a head',
  guarded: 'guarded',
  dermaplaning: 'surgical blade',
  trimmer: 'trimmer',
  cartridge: 'cartridge',
}
