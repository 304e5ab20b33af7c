/** Skin load of a stroke and of a service (M7). Order of the factors: common practice; figures: house estimates. */
import { toDegrees, relationToGrain } from '../grain/index.ts'
import { constant, type Figures } from '../house/index.ts'

export type ToolKind = 'single-edge' | 'guarded' | 'dermaplaning' | 'trimmer' | 'cartridge'
export type Slip = 'full' | 'damp' | 'dry'
export type HairClass = 'terminal' | 'fuzz'

export const LOAD_CONSTANTS = {
  withGrain: constant(1, '', 'Load of a pass with the grain', 'H'),
  acrossGrain: constant(1.6, '', 'Load of a pass across the grain', 'H'),
  againstGrain: constant(2.5, '', 'Load of a pass against the grain', 'H'),
  singleEdge: constant(1, '', 'Tool factor, single edge', 'H'),
  guarded: constant(0.8, '', 'Tool factor, guarded facial razor', 'H'),
  dermaplaning: constant(1, '', 'Tool factor, dermaplaning blade', 'H'),
  trimmer: constant(0.4, '', 'Tool factor, trimmer', 'H'),
  cartridgeWith: constant(1.1, '', 'Tool factor, cartridge with the grain', 'H'),
  cartridgeAcross: constant(1.4, '', 'Tool factor, cartridge across (it lifts and pulls)', 'H'),
  cartridgeAgainst: constant(2.4, '', 'Tool factor, cartridge against; never planned', 'H'),
  slipDamp: constant(1.15, '', 'Slip factor, damp skin', 'H'),
  slipDryTerminal: constant(1.5, '', 'Slip factor, dry skin with terminal hair', 'H'),
  slipDryFuzz: constant(1.1, '', 'Slip factor, dry skin with fuzz', 'H'),
  wornBlade: constant(0.5, '', 'Added load of a blade at the end of its life', 'H'),
  goneOverAgain: constant(1.5, '', 'Factor for a place gone over again', 'H'),
} as const

const C = LOAD_CONSTANTS

/** a(δ): rises evenly from with to across to against; the angle in radians. */
export function directionFactor(figures: Figures, angle: number): number {
  const deg = toDegrees(angle)
  return deg <= 90
    ? figures(C.withGrain) + ((figures(C.acrossGrain) - figures(C.withGrain)) * deg) / 90
    : figures(C.acrossGrain) +
        ((figures(C.againstGrain) - figures(C.acrossGrain)) * (deg - 90)) / 90
}

function toolFactor(figures: Figures, tool: ToolKind, angle: number): number {
  switch (tool) {
    case 'single-edge':
      return figures(C.singleEdge)
    case 'guarded':
      return figures(C.guarded)
    case 'dermaplaning':
      return figures(C.dermaplaning)
    case 'trimmer':
      return figures(C.trimmer)
    case 'cartridge':
      return {
        with: figures(C.cartridgeWith),
        across: figures(C.cartridgeAcross),
        against: figures(C.cartridgeAgainst),
      }[relationToGrain(figures, angle)]
  }
}

function slipFactor(figures: Figures, slip: Slip, hair: HairClass): number {
  if (slip === 'full') return 1
  if (slip === 'damp') return figures(C.slipDamp)
  return hair === 'terminal' ? figures(C.slipDryTerminal) : figures(C.slipDryFuzz)
}

/** One pass over a zone. */
export interface PassLoad {
  /** Angle between stroke and growth, radians. */
  readonly angle: number
  readonly tool: ToolKind
  readonly slip: Slip
  readonly hair: HairClass
  /** Used share of the blade's life, 0 to 1. */
  readonly wear: number
  /** True when the place is gone over again in the same pass. */
  readonly again: boolean
}

/** Load of one pass: a(δ) · tool · slip · wear · overlap. */
export function passLoad(figures: Figures, pass: PassLoad): number {
  return (
    directionFactor(figures, pass.angle) *
    toolFactor(figures, pass.tool, pass.angle) *
    slipFactor(figures, pass.slip, pass.hair) *
    (1 + figures(C.wornBlade) * pass.wear) *
    (pass.again ? figures(C.goneOverAgain) : 1)
  )
}
