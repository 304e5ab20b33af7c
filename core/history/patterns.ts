/** Choices at a zone as figures, and the few ways in which zones are done. */
import type { Relation } from '../grain/index.ts'
import type { Slip, ToolKind } from '../skin/index.ts'
import type { ZoneChoice } from './choices.ts'

export const CHOICES = {
  across: 'Across the grain, not with it',
  against: 'Against the grain, not with it',
  'second-pass': 'Each further pass',
  guarded: 'A guarded razor, not a single edge',
  cartridge: 'A cartridge, not a single edge',
  trimmer: 'A trimmer, not a single edge',
  damp: 'Damp skin, not full slip',
  dry: 'Dry skin, not full slip',
  sooner: 'Half the usual time between visits',
  'worn-blade': 'A blade at the end of its life, not a fresh one',
} as const
export type ChoiceId = keyof typeof CHOICES
export const CHOICE_IDS = Object.keys(CHOICES) as ChoiceId[]

/** The choices of a zone as figures. */
function figures(
  zone: Pick<ZoneChoice, 'relation' | 'passes' | 'tool' | 'wear'>,
  slip: string,
  sooner: number,
): Record<ChoiceId, number> {
  return {
    across: zone.relation === 'across' ? 1 : 0,
    against: zone.relation === 'against' ? 1 : 0,
    'second-pass': zone.passes - 1,
    guarded: zone.tool === 'guarded' ? 1 : 0,
    cartridge: zone.tool === 'cartridge' ? 1 : 0,
    trimmer: zone.tool === 'trimmer' ? 1 : 0,
    damp: slip === 'damp' ? 1 : 0,
    dry: slip === 'dry' ? 1 : 0,
    sooner,
    'worn-blade': zone.wear,
  }
}

const RELATIONS: readonly Relation[] = ['with', 'across', 'against']
const TOOLS: readonly ToolKind[] = [
  'single-edge',
  'guarded',
  'dermaplaning',
  'trimmer',
  'cartridge',
]
const SLIPS: readonly Slip[] = ['full', 'damp', 'dry']

/** A way in which a zone was done; most visits share a few. */
export interface Pattern {
  /** Choices as figures, in the order of CHOICE_IDS. */
  readonly all: readonly number[]
  /** Those that are not zero, by their place in CHOICE_IDS. */
  readonly values: readonly (readonly [place: number, value: number])[]
  /** Those that count as made, a bit for each place. */
  readonly made: number
}

/** Digits of a key after the first, last one first, and how many each may be. */
const BASES = { sooner: 8, slip: 4, wear: 4, tool: 8, passes: 10 } as const

/**
 * One number for the way in which a zone was done: it is asked for every zone of every visit, and kept.
 * @param sooner how much sooner than usual the visit came, −1 to 2 in halves
 */
export function patternKey(zone: ZoneChoice, slip: Slip, sooner: number): number {
  let key = RELATIONS.indexOf(zone.relation)
  key = key * BASES.passes + Math.min(9, zone.passes)
  key = key * BASES.tool + TOOLS.indexOf(zone.tool)
  key = key * BASES.wear + Math.round(2 * zone.wear)
  key = key * BASES.slip + SLIPS.indexOf(slip)
  return key * BASES.sooner + 2 * (sooner + 1)
}

const known = new Map<number, Pattern>()

/** What a key stands for. */
export function patternOf(key: number): Pattern {
  const had = known.get(key)
  if (had) return had
  let left = key
  const digit = (base: number) => {
    const d = left % base
    left = (left - d) / base
    return d
  }
  const sooner = digit(BASES.sooner) / 2 - 1
  const slip = SLIPS[digit(BASES.slip)]!
  const wear = digit(BASES.wear) / 2
  const tool = TOOLS[digit(BASES.tool)]!
  const passes = digit(BASES.passes)
  const own = figures({ relation: RELATIONS[left]!, passes, tool, wear }, slip, sooner)
  const all = CHOICE_IDS.map((id) => own[id])
  const values = all.flatMap((v, place) => (v === 0 ? [] : [[place, v] as const]))
  const pattern = {
    all,
    values,
    made: values.reduce((bits, [place, v]) => (Math.abs(v) >= 0.5 ? bits | (1 << place) : bits), 0),
  }
  known.set(key, pattern)
  return pattern
}
