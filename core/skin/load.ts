/** Skin load of a stroke and of a service (M7). Order of the factors: common practice; figures: house estimates. */
import { toDegrees, relationToGrain } from '../grain/index.ts'
import { constant, type Constant, type Figures } from '../house/index.ts'

export type ToolKind =
  'single-edge' | 'headed' | 'guarded' | 'dermaplaning' | 'trimmer' | 'cartridge'
export type Slip = 'full' | 'damp' | 'dry'
/** How thick terminal hair is. */
export const COARSENESSES = ['fine', 'medium', 'coarse'] as const
export type Coarseness = (typeof COARSENESSES)[number]
export type HairClass = 'terminal' | 'fuzz'

export const LOAD_CONSTANTS = {
  withGrain: constant(1, '', 'Load of a pass with the grain', 'H'),
  acrossGrain: constant(1.6, '', 'Load of a pass across the grain', 'H'),
  againstGrain: constant(2.5, '', 'Load of a pass against the grain', 'H'),
  singleEdge: constant(1, '', 'Tool factor, open single edge', 'H'),
  headed: constant(0.9, '', 'Tool factor, razor whose head holds the angle', 'H'),
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
  tugFine: constant(0.1, '', 'Tug of a first pass on uncut fine hair', 'H'),
  tugMedium: constant(0.25, '', 'Tug of a first pass on uncut medium hair', 'H'),
  tugCoarse: constant(0.45, '', 'Tug of a first pass on uncut coarse hair', 'H'),
  tugLaid: constant(0.3, '', 'Share of the tug with the grain', 'H'),
  tugLifted: constant(1.7, '', 'Share of the tug that comes with the lift, against the grain', 'H'),
  goneOverAgain: constant(1.5, '', 'Factor for a place gone over again', 'H'),
} as const

const C = LOAD_CONSTANTS

/** a(δ): rises evenly from with to across to against; the angle in radians. */
export function directionFactor(figures: Figures): (angle: number) => number {
  const [along, across, against] = [C.withGrain, C.acrossGrain, C.againstGrain].map(figures) as [
    number,
    number,
    number,
  ]
  return (angle) => {
    const deg = toDegrees(angle)
    return deg <= 90
      ? along + ((across - along) * deg) / 90
      : across + ((against - across) * (deg - 90)) / 90
  }
}

const TOOL: Readonly<Record<Exclude<ToolKind, 'cartridge'>, Constant>> = {
  'single-edge': C.singleEdge,
  headed: C.headed,
  guarded: C.guarded,
  dermaplaning: C.dermaplaning,
  trimmer: C.trimmer,
}

function toolFactor(figures: Figures, tool: ToolKind): (angle: number) => number {
  if (tool === 'cartridge') {
    const by = {
      with: figures(C.cartridgeWith),
      across: figures(C.cartridgeAcross),
      against: figures(C.cartridgeAgainst),
    }
    return (angle) => by[relationToGrain(figures, angle)]
  }
  const factor = figures(TOOL[tool])
  return () => factor
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
  /** Coarseness of terminal hair that nothing has cut yet; left out on fuzz and once a blade has gone over. */
  readonly uncut?: Coarseness | undefined
  /** True when the place is gone over again in the same pass. */
  readonly again: boolean
}

const TUG: Readonly<Record<Coarseness, Constant>> = {
  fine: C.tugFine,
  medium: C.tugMedium,
  coarse: C.tugCoarse,
}

/** 1 + t (0.3 + 1.7 · lift): uncut hair is pulled, the more it is lifted; lift 0 with the grain, ½ across, 1 against. */
function tugFactor(
  figures: Figures,
  { tool, uncut }: Pick<PassLoad, 'tool' | 'uncut'>,
): (angle: number) => number {
  // A trimmer cuts between its combs.
  if (uncut === undefined || tool === 'trimmer') return () => 1
  const [tug, laid, lifted] = [figures(TUG[uncut]), figures(C.tugLaid), figures(C.tugLifted)]
  return (angle) => 1 + tug * (laid + (lifted * angle) / Math.PI)
}

/** Load of one pass by the angle of its stroke, radians: a(δ) · tool · slip · tug · wear · overlap. */
export function passLoadBy(
  figures: Figures,
  pass: Omit<PassLoad, 'angle'>,
): (angle: number) => number {
  const direction = directionFactor(figures)
  const tug = tugFactor(figures, pass)
  const tool = toolFactor(figures, pass.tool)
  const whole =
    slipFactor(figures, pass.slip, pass.hair) *
    (1 + figures(C.wornBlade) * pass.wear) *
    (pass.again ? figures(C.goneOverAgain) : 1)
  return (angle) => direction(angle) * tool(angle) * tug(angle) * whole
}

/** Load of one pass. */
export const passLoad = (figures: Figures, { angle, ...pass }: PassLoad): number =>
  passLoadBy(figures, pass)(angle)
